package app.knottag.core.reach;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Ipv4Prefix;
import app.knottag.core.hardware.Mac;
import app.knottag.core.knot.Knot;
import app.knottag.core.reach.Probes.Connection;
import java.time.Clock;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * Makes the checks in order and stops at the first that fails: that is the place. A ping from another device's MAC
 * is no proof, and an open port is none either until it gives this very device's serial.
 */
public final class Ladder {

    private static final String SETTLE_FIRST = "Not tried: settle the check above first.";
    private final Target target;
    private final Probes probes;
    private final Clock clock;

    /** Prepares the checks of one endpoint; the clock gives their times. */
    public Ladder(Target target, Probes probes, Clock clock) {
        this.target = target;
        this.probes = probes;
        this.clock = clock;
    }

    private record Verdict(Knot knot, String seen, String remedy, String vantage) {}

    /** Makes the checks. Returns one result for each, in order, also for those that were not tried. */
    public List<CheckResult> climb() {
        var results = new ArrayList<CheckResult>();
        boolean failed = false;
        for (Check check : Check.values()) {
            var at = clock.instant();
            var verdict = failed ? new Verdict(Knot.OPEN, SETTLE_FIRST, "", probes.vantage()) : make(check);
            long millis = Duration.between(at, clock.instant()).toMillis();
            results.add(new CheckResult(
                    check, verdict.knot(), verdict.seen(), verdict.remedy(), verdict.vantage(), at, millis));
            failed |= verdict.knot() == Knot.FRAYED;
        }
        return List.copyOf(results);
    }

    private Verdict make(Check check) {
        return switch (check) {
            case ANSWERS -> answers();
            case WHO_ANSWERS -> whoAnswers();
            case PORT_OPEN -> portOpen();
            case SERVICE -> service();
            case PARTNER -> partner();
        };
    }

    private Verdict answers() {
        if (probes.answers(target.address())) return holds(target.address() + " answers.");
        var elsewhere = probes.neighbours().stream()
                .filter(n -> n.mac().equals(target.mac()) && !n.address().equals(target.address()))
                .map(Neighbour::address)
                .findFirst();
        String silent = "Silent at " + target.address() + ". ";
        if (elsewhere.isEmpty())
            return fails(
                    silent + "Its MAC is seen nowhere on the network.",
                    "Look at its power and at both ends of the cable. Is the light at the port on?");
        boolean pooled = target.segment().poolOf(elsewhere.get()).isPresent();
        return fails(
                silent + "Its MAC " + target.mac() + " is seen at " + elsewhere.get() + " instead"
                        + (pooled ? ", in the pool: it is back on automatic." : "."),
                "Enter the address again, leave the menu the proper way, restart, and read it back.");
    }

    private Verdict whoAnswers() {
        var neighbours = probes.neighbours();
        var mac = neighbours.stream()
                .filter(n -> n.address().equals(target.address()))
                .map(Neighbour::mac)
                .findFirst();
        if (mac.isEmpty())
            return new Verdict(
                    Knot.LEFT_OUT,
                    "This machine sees no MAC for " + target.address()
                            + ": it does not stand in that segment. The serial must prove who answers.",
                    "",
                    probes.vantage());
        if (mac.get().equals(target.mac())) return holds(mac.get() + ", as on the tag.");
        return fails(
                mac.get() + " answers, not " + target.mac() + ". " + stranger(mac.get()),
                mac.get().neighbourOf(target.mac())
                        ? "Correct the MAC on record, or plug the cable into the other port of the box."
                        : "Unplug that device first, or give it another address. Then check again.");
    }

    private String stranger(Mac mac) {
        if (mac.neighbourOf(target.mac())) return "Most likely another interface of the same box.";
        String name = target.knownMacs().get(mac);
        return name == null ? "Another device, not on record here, holds the address." : name + " holds the address.";
    }

    private Verdict portOpen() {
        Connection connection = probes.connect(target.address(), target.port());
        return switch (connection) {
            case OPEN -> holds("Port " + target.port() + " is open.");
            case REFUSED ->
                fails(
                        "It answers, but refuses port " + target.port() + ": nothing listens there.",
                        "Look at the port in its menu: it must be " + target.port() + ". Is its service switched on?");
            case SILENT ->
                fails(
                        "It answers, but port " + target.port() + " stays silent.",
                        "Something swallows it: look at the firewall of the device or between here and there.");
        };
    }

    private Verdict service() {
        var service = target.service();
        if (service.ask().isEmpty())
            return new Verdict(
                    Knot.LEFT_OUT,
                    "Only a person can prove its real job: " + service.proves() + ".",
                    "Do it once and say what was seen when you sign off.",
                    probes.vantage());
        var answer = probes.ask(target.address(), target.port(), service.ask());
        if (answer.isEmpty())
            return fails(
                    "Port " + target.port() + " is open but gives no answer.",
                    "Restart it. Silent again: is another program on that port?");
        var serial = serialIn(answer.get());
        if (serial.isEmpty())
            return fails(
                    "It answers “" + shown(answer.get()) + "”, which is not what this kind says.",
                    "Is it the right kind and model?");
        if (serial.get().equals(target.serial()))
            return holds("Serial " + serial.get() + ". " + service.proves() + ".");
        return fails(
                "Serial " + shown(serial.get()) + " answers, not " + target.serial() + ": the wrong unit.",
                "Compare the label with the tag. Two units may be swapped.");
    }

    private Optional<String> serialIn(String answer) {
        String pattern = target.service().answer();
        int at = pattern.indexOf("{serial}");
        String before = pattern.substring(0, at), after = pattern.substring(at + "{serial}".length());
        boolean fits = answer.length() > before.length() + after.length()
                && answer.startsWith(before)
                && answer.endsWith(after);
        return fits
                ? Optional.of(answer.substring(before.length(), answer.length() - after.length()))
                : Optional.empty();
    }

    private Verdict partner() {
        if (target.partner().isEmpty())
            return new Verdict(Knot.LEFT_OUT, "No partner is on record for it.", "", probes.vantage());
        var partner = target.partner().get();
        if (partner.testPort().isEmpty() || target.service().partnerAsk().isEmpty())
            return new Verdict(
                    Knot.LEFT_OUT,
                    "Only a person can test it from " + partner.name() + ".",
                    "Make the test there and say what was seen when you sign off.",
                    partner.name());
        String line = target.service()
                .partnerAsk()
                .replace("{address}", target.address().toString())
                .replace("{port}", "" + target.port());
        var answer = probes.ask(partner.address(), partner.testPort().get(), line);
        if (answer.isEmpty())
            return new Verdict(
                    Knot.FRAYED,
                    partner.name() + " at " + partner.address() + " does not answer.",
                    "Is it switched on? Look at its address and its network cable.",
                    partner.name());
        if (answer.get().equals("REACHED " + target.serial()))
            return new Verdict(Knot.TIGHT, partner.name() + " reaches it and gets its serial.", "", partner.name());
        return new Verdict(
                Knot.FRAYED,
                partner.name() + " says: " + shown(answer.get()) + ".",
                "Look at the address and port of the terminal in the partner's set-up.",
                partner.name());
    }

    /** A device may answer anything: shown short and without control characters. */
    private static String shown(String text) {
        String plain = text.replaceAll("\\p{Cntrl}", "?");
        return plain.length() > 60 ? plain.substring(0, 60) + "…" : plain;
    }

    private Verdict holds(String seen) {
        return new Verdict(Knot.TIGHT, seen, "", probes.vantage());
    }

    private Verdict fails(String seen, String remedy) {
        return new Verdict(Knot.FRAYED, seen, remedy, probes.vantage());
    }

    /** Whether every address a round would touch is the site's own ground. */
    public static boolean onOwnGround(Target target, List<Ipv4Prefix> segments) {
        var touched = new ArrayList<Ipv4Address>(List.of(target.address()));
        target.partner().map(Target.Partner::address).ifPresent(touched::add);
        return touched.stream().allMatch(a -> segments.stream().anyMatch(p -> p.contains(a)));
    }
}
