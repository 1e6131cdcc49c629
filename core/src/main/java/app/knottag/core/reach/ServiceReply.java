package app.knottag.core.reach;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;

/**
 * What was heard of a service, without any judgement.
 *
 * @param step how far it went, in words, such as “the upgrade to TLS”
 * @param code number of its last answer (HTTP, SMTP, IPP, DNS), or 0
 * @param lines what it said, at most a few lines
 * @param certificate what it showed, when it was asked over TLS
 * @param detail what it told of itself, when it is a service that does
 */
public record ServiceReply(
        Ending ending,
        String step,
        int code,
        List<String> lines,
        Optional<Certificate> certificate,
        Optional<Detail> detail) {

    /** How it ended. */
    public enum Ending {
        ANSWERED,
        REFUSED,
        SILENT,
        /** There is no way there, as this machine or a router on the way says. */
        UNREACHABLE,
        STRANGE,
        NAME_UNKNOWN,
        FOREIGN
    }

    /**
     * A certificate.
     *
     * @param problem why it is not taken, or empty
     */
    public record Certificate(Instant until, String problem) {}

    /** What a service told of itself. */
    public sealed interface Detail permits Printer, Time, Names, OwnClock {}

    /**
     * A printer's own attributes (RFC 8011, 5.4.11 to 5.4.13).
     *
     * @param state 3 idle, 4 printing, 5 stopped
     * @param reasons why it is in that state, as keywords, without “none”
     * @param accepting whether it takes jobs
     */
    public record Printer(int state, List<String> reasons, boolean accepting) implements Detail {
        public Printer {
            reasons = List.copyOf(reasons);
        }
    }

    /**
     * What a time server said (RFC 5905).
     *
     * @param offset how far its time is ahead of ours
     * @param stratum 1..15 when it has a source of time itself; 0 and 16 when it has none
     * @param leap 3 when its clock is set by nothing
     */
    public record Time(Duration offset, int stratum, int leap) implements Detail {}

    /**
     * How a resolver answered.
     *
     * @param overUdp whether it answers over UDP, as nearly every device asks; else only over TCP
     */
    public record Names(boolean overUdp) implements Detail {}

    /**
     * What a device showed of its own clock by the way (RFC 9110, 6.6.1; a shared folder's greeting).
     *
     * @param ahead how far it is ahead of this machine's
     */
    public record OwnClock(Duration ahead) implements Detail {}

    public ServiceReply {
        lines = List.copyOf(lines);
    }

    /** Returns an end without an answer. */
    public static ServiceReply ended(Ending ending, String step, String... lines) {
        return new ServiceReply(ending, step, 0, List.of(lines), Optional.empty(), Optional.empty());
    }

    /** Returns a plain answer. */
    public static ServiceReply answered(int code, List<String> lines) {
        return answered("", code, lines);
    }

    /** Returns an answer that ended at a step. */
    public static ServiceReply answered(String step, int code, List<String> lines) {
        return new ServiceReply(Ending.ANSWERED, step, code, lines, Optional.empty(), Optional.empty());
    }

    /** Returns the same with the certificate that was shown. */
    public ServiceReply secured(Certificate shown) {
        return new ServiceReply(ending, step, code, lines, Optional.of(shown), detail);
    }

    /** Returns the same with what the service told of itself. */
    public ServiceReply telling(Detail told) {
        return new ServiceReply(ending, step, code, lines, certificate, Optional.of(told));
    }

    /** Returns what it told of itself, if it is of this sort. */
    public <T extends Detail> Optional<T> told(Class<T> sort) {
        return detail.filter(sort::isInstance).map(sort::cast);
    }
}
