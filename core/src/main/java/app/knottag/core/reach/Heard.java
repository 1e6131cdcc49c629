package app.knottag.core.reach;

import java.time.Duration;
import java.time.Instant;
import java.util.List;

/**
 * What was heard of a service, without any judgement.
 *
 * @param step how far it went, in words, such as “the upgrade to TLS”
 * @param code number of its last answer (HTTP, SMTP, IPP, DNS), or 0
 * @param lines what it said, at most a few lines
 * @param certificateUntil when its certificate ends, or null
 * @param certificateFault why its certificate is not taken, or empty
 * @param offset how far its time is ahead of ours, or null
 */
public record Heard(
        Ending ending,
        String step,
        int code,
        List<String> lines,
        Instant certificateUntil,
        String certificateFault,
        Duration offset) {

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

    public Heard {
        lines = List.copyOf(lines);
    }

    /** Returns an end without an answer. */
    public static Heard ended(Ending ending, String step, String... lines) {
        return new Heard(ending, step, 0, List.of(lines), null, "", null);
    }

    /** Returns a plain answer. */
    public static Heard answered(int code, List<String> lines) {
        return new Heard(Ending.ANSWERED, "", code, lines, null, "", null);
    }

    /** Returns the same with what is known of its certificate. */
    public Heard secured(Instant until, String fault) {
        return new Heard(ending, step, code, lines, until, fault, offset);
    }
}
