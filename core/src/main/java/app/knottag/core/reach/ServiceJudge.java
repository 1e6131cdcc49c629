package app.knottag.core.reach;

import app.knottag.core.intake.MailReply;
import app.knottag.core.knot.Knot;
import app.knottag.core.time.DateStyle;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.Locale;
import java.util.Optional;

/** Judges what was heard of a service: whether it holds, what to change, and whether trying again makes sense. */
public final class ServiceJudge {

    /** A certificate that ends sooner is said so. */
    private static final Duration ENDS_SOON = Duration.ofDays(21);

    /** Certificates and attendance need time within this (RFC 5905 reaches far better). */
    private static final Duration NEAR_ENOUGH = Duration.ofSeconds(60);

    /** The page is there, and not for this caller (RFC 9110). */
    static final int FORBIDDEN = 403;

    private ServiceJudge() {}

    /**
     * What comes of it.
     *
     * @param retry how long to wait before it is tried once more, or empty when that changes nothing
     */
    public record Judgement(Knot knot, String seen, String remedy, Optional<Duration> retry) {
        static Judgement holds(String seen) {
            return new Judgement(Knot.TIGHT, seen, "", Optional.empty());
        }

        static Judgement fails(String seen, String remedy) {
            return new Judgement(Knot.FRAYED, seen, remedy, Optional.empty());
        }

        static Judgement later(String seen, String remedy, Duration wait) {
            return new Judgement(Knot.FRAYED, seen, remedy, Optional.of(wait));
        }
    }

    /** Judges what was heard when a service was called. */
    public static Judgement judge(Probes.Call call, Heard heard, Instant now) {
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
                        "Look at this machine's own cable and address first, then at the gateway.",
                        Duration.ofMinutes(1));
            case STRANGE ->
                Judgement.fails(
                        who + " answers, but not as " + call.protocol().words() + " does" + at(heard) + quoted(heard)
                                + ".",
                        "Is another program on that port? Look at the port number.");
            case ANSWERED -> answered(call, heard, now);
        };
    }

    private static String at(Heard heard) {
        return heard.step().isEmpty() ? "" : ", at " + heard.step();
    }

    private static String quoted(Heard heard) {
        return heard.lines().isEmpty()
                ? ""
                : ": “" + Said.shown(heard.lines().get(heard.lines().size() - 1)) + "”";
    }

    private static Judgement answered(Probes.Call call, Heard heard, Instant now) {
        if (!heard.certificateFault().isEmpty())
            return Judgement.fails(
                    "Its certificate is not taken: " + Said.shown(heard.certificateFault()) + ".",
                    "Look at the clock first. Then have the certificate renewed; never switch the check off.");
        String until = heard.certificateUntil() == null ? "" : " Its certificate is good until " + day(heard) + ".";
        if (heard.certificateUntil() != null && heard.certificateUntil().isBefore(now.plus(ENDS_SOON)))
            until = " Its certificate ends on " + day(heard) + ": have it renewed now.";
        return switch (call.protocol()) {
            case HTTP, HTTPS -> page(heard, until);
            case SMTP -> mail(heard, until);
            case DNS -> names(call, heard);
            case NTP -> time(heard);
            case IPP ->
                heard.code() == 0
                        ? Judgement.holds("It is ready to print.")
                        : Judgement.fails(
                                "It does not take print jobs (status " + heard.code() + ").",
                                "Look at its screen: paper, door, or an error.");
            case FILE -> Judgement.holds("It offers shared folders" + quoted(heard) + ".");
            case RAW_PRINT -> Judgement.holds("It takes print data.");
            case LINE -> Judgement.holds("It answers.");
        };
    }

    private static String day(Heard heard) {
        return DateStyle.WORDS.day(LocalDate.ofInstant(heard.certificateUntil(), ZoneOffset.UTC));
    }

    private static Judgement page(Heard heard, String until) {
        int code = heard.code();
        if (code >= 500)
            return Judgement.later(
                    "Its page answers with an error of its own (" + code + ").",
                    "Restart it, and look once more.",
                    Duration.ofMinutes(2));
        if (code >= 300 && code < 400)
            return Judgement.holds("Its page sends on" + quoted(heard) + ", which is not followed." + until);
        if (code == FORBIDDEN)
            return Judgement.fails(
                    "Its page does not let this machine in (403).",
                    "Look at its allow list, or check from the partner's side.");
        if (code == 404)
            return Judgement.fails("It answers, but has no such page (404).", "Is it the right kind and model?");
        return Judgement.holds("Its page answers (" + code + ")." + until);
    }

    /** Every refusal has one field to change; temporary ones are tried again, permanent ones never. */
    private static Judgement mail(Heard heard, String until) {
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
        if (!all.contains("STARTTLS") && heard.certificateUntil() == null)
            return Judgement.fails(
                    "The mail server offers no upgrade to TLS.",
                    "Change the port: 587 with upgrade, or 465 secure from the start.");
        return Judgement.holds("The mail server greets, upgrades to TLS"
                + (all.contains("AUTH") ? " and offers a sign-in." : "; it offers no sign-in.") + until);
    }

    /** What a permanent refusal of a mail server says is to be changed. */
    private static String field(int code, Heard heard) {
        return MailReply.of(code, heard.lines()).field().words();
    }

    private static Judgement names(Probes.Call call, Heard heard) {
        return switch (heard.code()) {
            case 0, 3 -> Judgement.holds(call.host() + " knows names.");
            case 2 ->
                Judgement.later(
                        call.host() + " answers, but finds nothing: its own line may be down.",
                        "Look whether another device here reaches the internet.",
                        Duration.ofMinutes(1));
            default ->
                Judgement.fails(
                        call.host() + " refuses to look names up (code " + heard.code() + ").",
                        "Is it the right resolver? Compare with the site sheet.");
        };
    }

    private static Judgement time(Heard heard) {
        var off = heard.offset();
        String words = off.toMillis() + " ms";
        return off.abs().compareTo(NEAR_ENOUGH) <= 0
                ? Judgement.holds("Its time and ours are " + words + " apart.")
                : Judgement.fails(
                        "Its time and ours are " + off.toSeconds() + " s apart.",
                        "One of the two is wrong: compare both with a watch.");
    }
}
