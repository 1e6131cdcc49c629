package app.knottag.core.reach;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Ipv4Prefix;
import app.knottag.core.hardware.Mac;
import app.knottag.core.intake.Recognised;
import app.knottag.core.kind.Protocol;
import app.knottag.core.reach.Probes.Connection;
import app.knottag.core.reading.Printable;
import app.knottag.core.status.Status;
import java.time.Clock;
import java.time.Duration;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.Executor;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/**
 * Makes the checks that a machine can make, all at once where they do not rest on one another, and judges them in order: the
 * first that fails is the place. A ping from another device's MAC is no proof, and an open port is none either until it
 * gives this very device's serial.
 */
public final class CheckRunner {

    static final int DNS_PORT = 53;
    /** So it ends when the wire itself was asked several times, and nobody else answered. */
    private static final String ALONE = ", as on the tag.";

    /** A table that a router told longer ago may hold who was there before. */
    public static final int TABLE_MINUTES = 10;

    private static final int SMALL = 24;
    private static final int MOST_ASKED = 254;
    private static final String SETTLE_FIRST = "Not judged: settle the check above first.";
    private final Target target;
    private final Probes probes;
    private final Vantage vantage;
    private final Clock clock;

    /** Prepares the checks of one endpoint; the clock gives their times. */
    public CheckRunner(Target target, Probes probes, Vantage vantage, Clock clock) {
        this.target = target;
        this.probes = probes;
        this.vantage = vantage;
        this.clock = clock;
    }

    private record Verdict(Status status, String seen, String remedy, String vantage) {}

    /**
     * Makes the checks.
     *
     * @param listener is told of every check as it comes in, before it is judged by those below it
     * @return one result for each, in order; what lies above the first that fails is not claimed
     */
    public List<CheckResult> run(Executor executor, Consumer<CheckResult> listener) {
        var before = probes.here();
        var asked = ahead(executor);
        var running = new EnumMap<Check, CompletableFuture<CheckResult>>(Check.class);
        for (var check : target.checks())
            if (check.byMachine()) running.put(check, soon(check, asked, executor, listener));
        var results = new ArrayList<CheckResult>();
        boolean failed = false;
        var made = running.values().stream().map(CompletableFuture::join).toList();
        boolean moved = !probes.here().equals(before);
        for (var one : made) {
            var result = moved ? lost(one) : one;
            results.add(failed ? unclaimed(result) : result);
            failed |= result.failed();
        }
        return List.copyOf(results);
    }

    /** The slowest questions are put first, all at once; whoever needs an answer finds it there. */
    private CompletableFuture<?> ahead(Executor executor) {
        var questions = new ArrayList<Runnable>();
        var asked = Stream.concat(Stream.of(target.address()), target.segment().gateway().stream());
        asked.forEach(a -> {
            questions.add(() -> probes.echo(a));
            questions.add(() -> probes.whois(a));
        });
        questions.add(() -> probes.connect(target.address(), target.port()));
        return CompletableFuture.allOf(questions.stream()
                .map(q -> CompletableFuture.runAsync(q, executor))
                .toArray(CompletableFuture[]::new));
    }

    private CompletableFuture<CheckResult> soon(
            Check check, CompletableFuture<?> asked, Executor executor, Consumer<CheckResult> listener) {
        boolean waits = check == Check.ANSWERS || check == Check.WHO_ANSWERS || check == Check.GATEWAY;
        var before = waits ? asked : CompletableFuture.completedFuture(null);
        return before.thenApplyAsync(
                x -> {
                    var result = timed(check);
                    listener.accept(result);
                    return result;
                },
                executor);
    }

    /** Whoever loses her own link in the middle has proved nothing about anybody else by their silence. */
    private static CheckResult lost(CheckResult r) {
        if (!r.failed()) return r;
        return new CheckResult(
                r.check(),
                Status.FAILED,
                "This machine's own network changed in the middle of the checks, so nothing is said here.",
                "Look at this machine's own cable and address. Then check again.",
                r.vantage(),
                r.at(),
                r.millis());
    }

    private CheckResult timed(Check check) {
        var at = clock.instant();
        var verdict = make(check);
        long millis = Duration.between(at, clock.instant()).toMillis();
        return new CheckResult(
                check, verdict.status(), verdict.seen(), verdict.remedy(), verdict.vantage(), at, millis);
    }

    private static CheckResult unclaimed(CheckResult r) {
        boolean held = r.status() == Status.PASSED;
        // Who answers cannot be told of an address that does not.
        if (!held && r.status() == Status.SKIPPED && r.check() != Check.WHO_ANSWERS) return r;
        return new CheckResult(
                r.check(),
                held ? Status.ACTIVE : Status.PENDING,
                held ? r.seen() : SETTLE_FIRST,
                "",
                r.vantage(),
                r.at(),
                r.millis());
    }

    private Verdict make(Check check) {
        return switch (check) {
            case ANSWERS -> answers();
            case WHO_ANSWERS -> whoAnswers();
            case GATEWAY -> gateway();
            case NAMES -> names();
            case PORT_OPEN -> portOpen();
            case SERVICE -> service();
            case PARTNER -> partner();
            case FAR_SERVICE -> farService();
            default -> throw new IllegalArgumentException(check + " is for somebody who looks");
        };
    }

    private Verdict gateway() {
        var gateway = target.segment().gateway().orElseThrow();
        var presence = Presence.of(gateway, Optional.empty(), probes);
        if (presence.kind() == Presence.Kind.ECHO) return holds(gateway + " answers.");
        if (presence.there()) return holds(gateway + " answers no echo, but the question for its MAC.");
        if (!within()) return new Verdict(Status.SKIPPED, "From here it cannot be told: " + here() + ".", "", here());
        return fails(gateway + " is silent.", "Does anything here reach the internet? Look at the router.");
    }

    private Verdict names() {
        var silent = new ArrayList<String>();
        for (var resolver : target.resolvers()) {
            var judged = judge(names(target, resolver));
            if (judged.status() == Status.PASSED)
                return holds(
                        judged.seen() + (silent.isEmpty() ? "" : " The first does not: " + String.join(" ", silent)));
            silent.add(judged.seen());
        }
        return fails(String.join(" ", silent), "Is the right resolver on the site sheet, and is it on?");
    }

    private ServiceJudge.Judgement judge(Probes.Call call) {
        return ServiceJudge.judge(call, probes.talk(call), clock.instant());
    }

    private Verdict farService() {
        var seen = new ArrayList<String>();
        var perhaps = new ArrayList<String>();
        for (var far : target.far()) {
            var judged = judge(farCall(target, far));
            String words = far.name() + ": " + judged.seen();
            if (judged.status() != Status.FAILED) seen.add(words);
            else if (far.certain()) return fails(words, judged.remedy());
            else perhaps.add(words);
        }
        if (!seen.isEmpty()) return holds(String.join(" ", seen));
        return new Verdict(
                Status.SKIPPED,
                String.join(" ", perhaps) + " Nobody said yet that it calls this one: only the port fits.",
                "Say on the site sheet which kinds call it.",
                here());
    }

    private Presence presence() {
        return Presence.of(target.address(), Optional.of(target.port()), probes);
    }

    private Verdict answers() {
        var a = target.address();
        var presence = presence();
        return switch (presence.kind()) {
            case ECHO ->
                holds(a + " answers"
                        + (presence.echo() == Recognised.Answer.LOSS
                                ? ", but not every time: a bad lead, a full line, or two devices at one address."
                                : "."));
            case PORT ->
                holds(a + " answers " + noEcho(presence) + ", but its port " + target.port()
                        + " does: echoes are switched off on it, or swallowed on the way.");
            case MAC -> holds(a + " answers " + noEcho(presence) + ", but the question for its MAC.");
            case UNREACHABLE ->
                fails(
                        "There is no way from here to " + a
                                + presence.toldBy().map(by -> ", says " + by).orElse("") + ". You look from " + here()
                                + ".",
                        presence.toldBy().isPresent()
                                ? "Ask whoever looks after " + presence.toldBy().get() + " what it lets through."
                                : "Look at this machine's own cable and address first. Then check again.");
            case NONE -> silent(presence);
        };
    }

    private static String noEcho(Presence presence) {
        return presence.echo() == Recognised.Answer.NOT_ALLOWED
                ? "(this machine may send no echo: install iputils-ping)"
                : "no echo";
    }

    private Verdict silent(Presence presence) {
        String silent = "Silent at " + target.address() + ". "
                + (presence.echo() == Recognised.Answer.NOT_ALLOWED
                        ? "This machine may send no echo: install iputils-ping. "
                        : "");
        if (!within())
            return fails(
                    silent + "You look from " + here() + ".",
                    "Plug this machine into the same switch, or join the same wireless. Then check again.");
        var elsewhere = elsewhere(target, probes);
        if (elsewhere.isEmpty()) {
            boolean before = probes.neighbours().stream().anyMatch(n -> n.mac().equals(target.mac()));
            return fails(
                    silent
                            + (before
                                    ? "Its MAC was seen before, and does not answer now."
                                    : "Its MAC is seen nowhere on the network."),
                    "Look at its power and at both ends of the cable. Is the light at the port on?");
        }
        boolean pooled = target.segment().poolOf(elsewhere.get()).isPresent();
        return fails(
                silent + "Its MAC " + target.mac() + " is seen at " + elsewhere.get() + " instead"
                        + (pooled ? ", in the pool: it is back on automatic." : "."),
                "Enter the address again, leave the menu the proper way, restart, and read it back.");
    }

    /** Where its MAC answers instead just now: by the table, else by asking the segment, or its pools when that is large. */
    static Optional<Ipv4Address> elsewhere(Target target, Probes probes) {
        var known = probes.neighbours().stream()
                .filter(n -> n.mac().equals(target.mac()) && !n.address().equals(target.address()))
                .filter(Neighbour::confirmed)
                .map(Neighbour::address)
                .findFirst();
        if (known.isPresent()) return known;
        var segment = target.segment();
        boolean small = segment.prefix().prefixLength() >= SMALL;
        var hosts = Sweep.hosts(segment).stream()
                .filter(a -> small || segment.poolOf(a).isPresent())
                .limit(MOST_ASKED)
                .toList();
        return probes.sweep(hosts, Swept.QUIETLY).there().entrySet().stream()
                .filter(e -> e.getValue().contains(target.mac()))
                .map(Map.Entry::getKey)
                .filter(a -> !a.equals(target.address()))
                .findFirst();
    }

    private Verdict whoAnswers() {
        var presence = presence();
        if (presence.there() && presence.asked() == Whois.How.NOT_FROM_HERE) {
            var told = told();
            if (told.isPresent()) return told.get();
        }
        if (!presence.there() || presence.macs().isEmpty())
            return new Verdict(
                    Status.SKIPPED,
                    !presence.there()
                            ? "Nobody answers, so nobody can be named."
                            : "No MAC is seen for " + target.address() + " from " + here()
                                    + ". The serial must prove who answers.",
                    "",
                    here());
        if (presence.macs().size() > 1)
            return fails(
                    "Two devices have this address: "
                            + presence.macs().stream().sorted().map(this::named).collect(Collectors.joining(" and "))
                            + ".",
                    "Unplug the one that does not belong, or give it another address. Then check again.");
        var mac = presence.macs().iterator().next();
        if (mac.equals(target.mac()))
            return holds(mac
                    + (presence.asked() == Whois.How.TABLE ? ", as on the tag, by this machine's own table." : ALONE));
        return fails(
                mac + " answers, not " + target.mac() + ". " + stranger(mac),
                target.sibling(mac)
                        ? "Correct the MAC on record, or plug the cable into the other port of the box."
                        : "Unplug that device first, or give it another address. Then check again.");
    }

    /**
     * It answers through a router, and that router's own table names it: what it sends to is what answers. Another MAC may have
     * stood there before, so that it proves nothing against it.
     */
    private Optional<Verdict> told() {
        return target.told().flatMap(t -> {
            long minutes = Math.max(0, Duration.between(t.at(), clock.instant()).toMinutes());
            // What was read on a day to come was read before the clock was set back.
            if (minutes >= TABLE_MINUTES || t.at().isAfter(clock.instant())) return Optional.empty();
            String by = ", by the table of " + t.by() + ", read "
                    + (minutes == 0 ? "just now." : minutes == 1 ? "a minute ago." : minutes + " minutes ago.");
            return Optional.of(
                    t.mac().equals(target.mac())
                            ? holds(t.mac() + ", as on the tag" + by)
                            : new Verdict(
                                    Status.SKIPPED,
                                    t.mac() + " and not " + target.mac() + by,
                                    "Read that table once more, then check again: still so, and another device answers.",
                                    here()));
        });
    }

    /** Whether a check asked the wire itself whose the address is, and nobody but the device answered; a table shows only one. */
    public static boolean heardAlone(CheckResult result) {
        return result.check() == Check.WHO_ANSWERS
                && result.status() == Status.PASSED
                && result.seen().endsWith(ALONE);
    }

    private String named(Mac mac) {
        return mac
                + (mac.equals(target.mac())
                        ? " (on the tag)"
                        : Optional.ofNullable(target.knownMacs().get(mac))
                                .map(n -> " (" + n + ")")
                                .orElse(""));
    }

    private String stranger(Mac mac) {
        if (target.sibling(mac)) return "Most likely another interface of the same box.";
        String name = target.knownMacs().get(mac);
        return name == null ? "Another device, not on record here, holds the address." : name + " holds the address.";
    }

    private Verdict portOpen() {
        Connection connection = probes.connect(target.address(), target.port());
        return switch (connection) {
            case OPEN -> holds("Port " + target.port() + " is open.");
            case REFUSED ->
                fails(
                        "It refuses port " + target.port() + ": nothing listens there.",
                        "Look at the port in its menu: it must be " + target.port() + ". Is its service switched on?");
            case UNREACHABLE ->
                fails(
                        presence().there()
                                ? "It bars port " + target.port() + ", and says so."
                                : "There is no way from here to port " + target.port() + ".",
                        "Look at the firewall of the device, or between here and there.");
            case SILENT ->
                fails(
                        "Port " + target.port() + " stays silent.",
                        "Something swallows it: look at the firewall of the device or between here and there.");
        };
    }

    private Verdict service() {
        var service = target.service();
        if (service.protocol() == Protocol.LINE && service.ask().isEmpty())
            return new Verdict(
                    Status.SKIPPED,
                    "Only a person can prove its real job: " + service.job() + ".",
                    "Do it once and say what was seen.",
                    here());
        // Asking a port that is not open would only wait once more.
        if (probes.connect(target.address(), target.port()) != Connection.OPEN)
            return fails("Port " + target.port() + " is not open.", "");
        String ownClock = "";
        if (service.protocol() != Protocol.LINE) {
            var call = call(target);
            var heard = probes.talk(call);
            ownClock = ServiceJudge.clock(heard);
            var judged = ServiceJudge.judge(call, heard, clock.instant());
            if (judged.status() == Status.FAILED) return fails(judged.seen(), judged.remedy());
            if (!service.tellsSerial()) return holds(judged.seen());
        }
        var answer = answer(target, probes);
        if (answer.isEmpty())
            return fails(
                    "Port " + target.port() + " is open but gives no answer.",
                    "Restart it. Silent again: is another program on that port?");
        var serial = serialIn(answer.get());
        if (serial.isEmpty())
            return fails(
                    "It answers “" + Printable.shown(answer.get()) + "”, which is not what this kind says.",
                    "Is it the right kind and model?");
        if (serial.get().equals(target.serial()))
            return holds("Serial " + serial.get() + ". " + service.proves() + "." + ownClock);
        return fails(
                "Serial " + Printable.shown(serial.get()) + " answers, not " + target.serial() + ": the wrong unit.",
                "Compare the label with the tag. Two units may be swapped.");
    }

    static Probes.Call call(Target target) {
        return new Probes.Call(
                target.service().protocol(),
                target.address().toString(),
                target.port(),
                target.service().ask(),
                target.ground(),
                target.resolvers());
    }

    static Probes.Call names(Target target, Ipv4Address resolver) {
        return new Probes.Call(Protocol.DNS, resolver.toString(), DNS_PORT, "", target.ground(), target.resolvers());
    }

    static Probes.Call farCall(Target target, Target.Listed far) {
        return new Probes.Call(far.protocol(), far.host(), far.port(), "", target.ground(), target.resolvers());
    }

    /** Returns the line in which the service names itself: of a page the one that begins as the kind says. */
    static Optional<String> answer(Target target, Probes probes) {
        var service = target.service();
        if (service.protocol() == Protocol.LINE) return probes.ask(target.address(), target.port(), service.ask());
        String begins = service.answer().replaceAll("\\{serial}.*", "");
        var heard = probes.talk(call(target));
        if (heard.code() == ServiceJudge.FORBIDDEN) return Optional.empty();
        var lines = heard.lines();
        return lines.stream()
                .filter(l -> l.startsWith(begins))
                .findFirst()
                .or(() -> lines.stream().findFirst());
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
            return new Verdict(Status.SKIPPED, "No partner is on record for it.", "", here());
        var partner = target.partner().get();
        if (partner.testPort().isEmpty() || target.service().partnerAsk().isEmpty())
            return new Verdict(
                    Status.SKIPPED,
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
                    Status.FAILED,
                    partner.name() + " at " + partner.address() + " does not answer.",
                    "Is it switched on? Look at its address and its network cable.",
                    partner.name());
        if (answer.get().equals("REACHED " + target.serial()))
            return new Verdict(Status.PASSED, partner.name() + " reaches it and gets its serial.", "", partner.name());
        return new Verdict(
                Status.FAILED,
                partner.name() + " says: " + Printable.shown(answer.get()) + ".",
                "Look at the address and port of the terminal in the partner's set-up.",
                partner.name());
    }

    private boolean within() {
        return vantage.within(target.segment().prefix());
    }

    private String here() {
        return vantage.words(target.segment().prefix());
    }

    private Verdict holds(String seen) {
        return new Verdict(Status.PASSED, seen, "", here());
    }

    private Verdict fails(String seen, String remedy) {
        return new Verdict(Status.FAILED, seen, remedy, here());
    }

    /** Whether every address a run would touch is the site's own ground. */
    public static boolean onOwnGround(Target target, List<Ipv4Prefix> segments) {
        var touched = new ArrayList<Ipv4Address>(List.of(target.address()));
        target.partner().map(Target.Partner::address).ifPresent(touched::add);
        return touched.stream().allMatch(a -> AllowedTargets.own(a, segments));
    }
}
