package app.knottag.core.reach;

import app.knottag.core.intake.MailReply;
import app.knottag.core.kind.Protocol;
import app.knottag.core.reading.Printable;
import app.knottag.core.status.Status;
import app.knottag.core.time.DateStyle;
import app.knottag.core.time.Lengths;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;

/** Judges what was heard of a service: whether it holds, what to change, and whether trying again makes sense. */
public final class ServiceJudge {

    /** A certificate that ends sooner is said so. */
    private static final Duration ENDS_SOON = Duration.ofDays(21);

    /** Certificates and attendance need time within this (RFC 5905 reaches far better). */
    private static final Duration NEAR_ENOUGH = Duration.ofSeconds(60);

    private static final String CLOCK = " Its clock is ";

    /** The page is there, and not for this caller (RFC 9110). */
    static final int FORBIDDEN = 403;

    private static final int BAD_REQUEST = 400;
    private static final int UNAUTHORISED = 401;
    private static final int TOO_MANY = 429;

    /** RFC 8011, 5.4.11 and 13.1.4.7. */
    private static final int STOPPED = 5;

    private static final int NO_QUEUE = 0x0406;

    /** RFC 8011, 5.4.12: reasons with which nothing is printed, though they are no errors by their name. */
    private static final Set<String> BLOCKS = Set.of("paused", "shutdown", "media-needed", "media-jam", "media-empty");

    /** RFC 5905, 7.3. */
    private static final int UNSET = 3;

    private static final int FARTHEST = 15;

    private ServiceJudge() {}

    /**
     * What comes of it.
     *
     * @param retry how long to wait before it is tried once more, or empty when that changes nothing
     */
    public record Judgement(Status status, String seen, String remedy, Optional<Duration> retry) {
        static Judgement holds(String seen) {
            return new Judgement(Status.PASSED, seen, "", Optional.empty());
        }

        static Judgement fails(String seen, String remedy) {
            return new Judgement(Status.FAILED, seen, remedy, Optional.empty());
        }

        static Judgement later(String seen, String remedy, Duration wait) {
            return new Judgement(Status.FAILED, seen, remedy, Optional.of(wait));
        }
    }

    /** Judges what was heard when a service was called. */
    public static Judgement judge(Probes.Call call, ServiceReply heard, Instant now) {
        String who = call.host() + " port " + call.port();
        return switch (heard.ending()) {
            case FOREIGN -> Judgement.fails(String.join(" ", heard.lines()), "Correct the name in the site's list.");
            case NAME_UNKNOWN ->
                Judgement.fails(
                        "No resolver knows the name " + call.host() + ".",
                        "Look at the name, letter by letter, and at the resolvers.");
            case REFUSED ->
                Judgement.fails(who + " refuses: nothing listens there.", "Look at the port, and whether it is on.");
            case SILENT ->
                Judgement.later(
                        who + " stays silent" + at(heard) + ".",
                        "Try once more in a minute. Still silent: a firewall, or the provider, swallows it.",
                        Duration.ofMinutes(1));
            case UNREACHABLE ->
                Judgement.later(
                        "There is no way from here to " + who + ".",
                        "Look at this machine's own cable and address first, then at the gateway and at what it lets through.",
                        Duration.ofMinutes(1));
            case STRANGE ->
                Judgement.fails(
                        who + " answers, but not as " + call.protocol().words() + " does" + at(heard) + quoted(heard)
                                + ".",
                        "Is another program on that port? Look at the port number.");
            case ANSWERED -> answered(call, heard, now);
        };
    }

    private static String at(ServiceReply heard) {
        return heard.step().isEmpty() ? "" : ", at " + heard.step();
    }

    private static String quoted(ServiceReply heard) {
        return heard.lines().isEmpty()
                ? ""
                : ": “" + Printable.shown(heard.lines().get(heard.lines().size() - 1)) + "”";
    }

    private static Judgement answered(Probes.Call call, ServiceReply heard, Instant now) {
        var fault = heard.certificate().map(ServiceReply.Certificate::problem).filter(f -> !f.isEmpty());
        if (fault.isPresent())
            return Judgement.fails(
                    "Its certificate is not taken: " + Printable.shown(fault.get()) + ".",
                    "Look at the clock first. Then have the certificate renewed; never switch the check off.");
        String until = heard.certificate()
                .map(c -> endsSoon(heard, now)
                        ? " Its certificate ends on " + day(c) + ": have it renewed now."
                        : " Its certificate is good until " + day(c) + ".")
                .orElse("");
        return switch (call.protocol()) {
            case HTTP, HTTPS -> page(call, heard, until + clock(heard));
            case SMTP -> mail(heard, until);
            case DNS -> names(call, heard);
            case NTP -> time(heard);
            case IPP -> printer(call, heard);
            case FILE -> Judgement.holds("It offers shared folders" + quoted(heard) + "." + clock(heard));
            case RAW_PRINT -> Judgement.holds("It takes print data.");
            case LINE -> Judgement.holds("It answers.");
        };
    }

    /** Says how far a device's own clock is from this machine's, where it showed it and it is worth a word; else nothing. */
    static String clock(ServiceReply heard) {
        return heard.told(ServiceReply.OwnClock.class)
                .map(ServiceReply.OwnClock::ahead)
                .filter(off -> off.abs().compareTo(NEAR_ENOUGH) > 0)
                .map(off -> CLOCK + Lengths.of(off.abs().toSeconds()) + (off.isNegative() ? " behind" : " ahead of")
                        + " ours.")
                .orElse("");
    }

    /** Returns what a check said of a clock that is wrong; empty when it said nothing of the sort. */
    public static Optional<String> wrongClock(CheckResult result) {
        int at = result.seen().indexOf(CLOCK);
        return at < 0
                ? Optional.empty()
                : Optional.of(result.seen().substring(at).strip());
    }

    /** Returns whether the certificate that a service showed ends within three weeks. */
    public static boolean endsSoon(ServiceReply heard, Instant now) {
        return heard.certificate()
                .filter(c -> c.until().isBefore(now.plus(ENDS_SOON)))
                .isPresent();
    }

    private static String day(ServiceReply.Certificate certificate) {
        return DateStyle.WORDS.day(LocalDate.ofInstant(certificate.until(), ZoneOffset.UTC));
    }

    /** A page that was asked for by its path must be there; of a service that was only called, any answer of its own will do. */
    private static Judgement page(Probes.Call call, ServiceReply heard, String until) {
        int code = heard.code();
        boolean asked = !call.ask().isEmpty() && !call.ask().equals("/");
        if (code >= 500)
            return Judgement.later(
                    "Its page answers with an error of its own (" + code + ").",
                    "Restart it, and look once more.",
                    Duration.ofMinutes(2));
        if (code >= 300 && code < 400)
            return Judgement.holds("Its page sends on" + quoted(heard) + ", which is not followed." + until);
        if (code == BAD_REQUEST)
            return Judgement.fails(
                    "It does not understand the question (400).",
                    call.protocol() == Protocol.HTTP
                            ? "Most likely it wants HTTPS there: look at the port, or change the way it is asked."
                            : "Look at the port: is it the one for this service?");
        if (code == UNAUTHORISED) return Judgement.holds("Its page answers, and asks for a sign-in (401)." + until);
        if (code == FORBIDDEN)
            return Judgement.fails(
                    "Its page does not let this machine in (403).",
                    "Look at its allow list, or check from the partner's side.");
        if (code == TOO_MANY)
            return Judgement.later(
                    "It is asked too often, and says so (429).", "Wait, and look once more.", Duration.ofMinutes(2));
        if (code >= 400 && asked)
            return Judgement.fails(
                    "It answers, but has no such page (" + code + ").", "Is it the right kind and model?");
        return Judgement.holds(
                code >= 400
                        ? "It answers, with no page of its own at the top (" + code + ")." + until
                        : "Its page answers (" + code + ")." + until);
    }

    /** A printer that can be reached may still print nothing: it says so itself. */
    private static Judgement printer(Probes.Call call, ServiceReply heard) {
        if (heard.code() == NO_QUEUE)
            return Judgement.fails(
                    "It has no printer at that path" + quoted(heard) + ".",
                    "Look in its menu for the path of its queue, and correct it.");
        var told = heard.told(ServiceReply.Printer.class);
        if (heard.code() != 0 || told.isEmpty())
            return Judgement.fails(
                    "It does not tell its state (status " + heard.code() + ").",
                    "Look at its screen: paper, door, or an error.");
        var printer = told.get();
        String why = printer.reasons().isEmpty()
                ? ""
                : ": " + Printable.shown(String.join(", ", printer.reasons()).replace('-', ' '));
        if (printer.state() == STOPPED)
            return Judgement.fails("It has stopped" + why + ".", "Look at its screen: paper, door, or an error.");
        if (!printer.accepting())
            return Judgement.fails("It takes no jobs just now" + why + ".", "Look at its screen, or at its queue.");
        boolean blocked = printer.reasons().stream().anyMatch(r -> r.endsWith("-error") || BLOCKS.contains(r));
        if (blocked)
            return Judgement.fails(
                    "It can print nothing just now" + why + ".", "Look at its screen: paper, door, or an error.");
        return Judgement.holds("It is ready to print" + (why.isEmpty() ? "" : ", but warns" + why) + ".");
    }

    /** Every refusal has one field to change; temporary ones are tried again, permanent ones never. */
    private static Judgement mail(ServiceReply heard, String until) {
        int code = heard.code();
        String said = quoted(heard);
        if (code >= 400 && code < 500)
            return Judgement.later(
                    "The mail server puts off" + at(heard) + " (" + code + ")" + said + ".",
                    "Nothing to change: try again after 5, 15 and 45 minutes, then call.",
                    Duration.ofMinutes(5));
        if (code >= 500)
            return Judgement.fails(
                    "The mail server refuses for good" + at(heard) + " (" + code + ")" + said + ".",
                    field(code, heard));
        String all = String.join("\n", heard.lines()).toUpperCase(Locale.ROOT);
        if (!all.contains("STARTTLS") && heard.certificate().isEmpty())
            return Judgement.fails(
                    "The mail server offers no upgrade to TLS.",
                    "Change the port: 587 with upgrade, or 465 secure from the start.");
        return Judgement.holds("The mail server greets, upgrades to TLS"
                + (all.contains("AUTH") ? " and offers a sign-in." : "; it offers no sign-in.") + until);
    }

    /** What a permanent refusal of a mail server says is to be changed. */
    private static String field(int code, ServiceReply heard) {
        return MailReply.of(code, heard.lines()).field().words();
    }

    private static Judgement names(Probes.Call call, ServiceReply heard) {
        boolean tcpOnly =
                heard.told(ServiceReply.Names.class).filter(n -> !n.overUdp()).isPresent();
        return switch (heard.code()) {
            case 0, 3 ->
                tcpOnly
                        ? Judgement.fails(
                                call.host() + " answers over TCP only; devices ask over UDP.",
                                "Something swallows UDP port 53 on the way: look at the firewall.")
                        : Judgement.holds(call.host() + " knows names.");
            case 2 ->
                Judgement.later(
                        call.host() + " answers, but finds nothing: its own line may be down.",
                        "Look whether another device here reaches the internet.",
                        Duration.ofMinutes(1));
            case 5 ->
                Judgement.fails(
                        call.host() + " answers, but looks nothing up: it refuses, or has nobody to ask.",
                        "Is it the right resolver? Then look at its own line, and at whom it serves.");
            default ->
                Judgement.fails(
                        call.host() + " cannot look names up (code " + heard.code() + ").",
                        "Is it the right resolver? Compare with the site sheet.");
        };
    }

    /** Time from a server that has none itself is worth nothing, however near it is to ours. */
    private static Judgement time(ServiceReply heard) {
        var time = heard.told(ServiceReply.Time.class).orElseThrow();
        if (time.leap() == UNSET || time.stratum() < 1 || time.stratum() > FARTHEST)
            return Judgement.later(
                    "It answers, but its own clock is set by nothing"
                            + (time.stratum() > 0 ? " (stratum " + time.stratum() + ")" : "") + ".",
                    "Look at its own source of time: its line, or its resolver. Try again in five minutes.",
                    Duration.ofMinutes(5));
        var off = time.offset();
        String words = off.toMillis() + " ms";
        return off.abs().compareTo(NEAR_ENOUGH) <= 0
                ? Judgement.holds("Its time and ours are " + words + " apart.")
                : Judgement.fails(
                        "Its time and ours are " + off.toSeconds() + " s apart.",
                        "One of the two is wrong: compare both with a watch.");
    }
}
