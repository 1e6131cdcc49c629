package app.knottag.server.probe;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Ipv4Prefix;
import app.knottag.core.address.Pool;
import app.knottag.core.address.Segment;
import app.knottag.core.gear.GearAccess;
import app.knottag.core.gear.GearAccess.Auth;
import app.knottag.core.gear.GearAccess.Privacy;
import app.knottag.core.gear.GearAccess.Version;
import app.knottag.core.gear.GearProbe;
import app.knottag.core.gear.GearReader;
import app.knottag.core.hardware.Mac;
import app.knottag.core.kind.Kinds;
import app.knottag.core.kind.Protocol;
import app.knottag.core.reach.CheckRunner;
import app.knottag.core.reach.MachineQuestions;
import app.knottag.core.reach.NetworkState;
import app.knottag.core.reach.NetworkState.Joined;
import app.knottag.core.reach.Probes;
import app.knottag.core.reach.Remembered;
import app.knottag.core.reach.ServiceJudge;
import app.knottag.core.reach.Sweep;
import app.knottag.core.reach.Swept;
import app.knottag.core.reach.Target;
import app.knottag.core.reach.Vantage;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.Executors;

/** The product's own probes, as a program that is run at one machine of the bed: a line in, what was seen out. */
final class FromThere {

    static final String END = "--";

    static final Segment SHOP = new Segment(
            Ipv4Prefix.parse("10.80.16.0/24"),
            Optional.of(a("10.80.16.1")),
            List.of(new Pool(a("10.80.16.200"), a("10.80.16.239"))));
    static final Ipv4Prefix OFFICE = Ipv4Prefix.parse("10.80.17.0/24");
    static final List<Ipv4Address> RESOLVERS = List.of(a("10.80.16.1"));
    static final Target TERMINAL = new Target(
            a("10.80.16.54"),
            Mac.parse(Bed.TERMINAL_MAC.toUpperCase(java.util.Locale.ROOT)),
            Bed.SERIAL,
            Bed.PORT,
            SHOP,
            Kinds.shipped().get("counter-payment-terminal").service(),
            Optional.of(new Target.Partner("Till 4 workstation", a("10.80.16.34"), Optional.of(7500))),
            Map.of(),
            RESOLVERS,
            List.of(new Target.Listed("Payments", Protocol.HTTPS, "pay.cards.example", 443, true)),
            List.of(SHOP.prefix(), OFFICE),
            Optional.empty());

    static final NetworkState INTENDED_HERE = intended("10.80.16.250", Joined.CABLE);
    static final NetworkState INTENDED_THERE = intended("10.80.17.250", Joined.CABLE);
    static final NetworkState INTENDED_WIRELESS = intended("10.80.16.250", Joined.WIRELESS);

    private static NetworkState intended(String here, Joined joined) {
        return NetworkState.intended(
                new NetworkState.Traits(false, true, true, true, joined),
                new NetworkState.Layout(
                        SHOP.prefix(),
                        SHOP.gateway(),
                        TERMINAL.address(),
                        SHOP.pools(),
                        TERMINAL.partner().map(Target.Partner::address),
                        Optional.of(RESOLVERS.get(0)),
                        Optional.of(a(here)),
                        false));
    }

    private final Probes probes = new NetworkProbes();
    private final java.util.concurrent.ExecutorService threads = Executors.newFixedThreadPool(16, r -> {
        var thread = new Thread(r);
        thread.setDaemon(true);
        return thread;
    });

    private static Ipv4Address a(String text) {
        return Ipv4Address.parse(text);
    }

    public static void main(String[] args) throws IOException {
        var me = new FromThere();
        var in = new BufferedReader(new InputStreamReader(System.in, StandardCharsets.UTF_8));
        for (String line = in.readLine(); line != null; line = in.readLine()) {
            List<String> out;
            try {
                out = me.asked(line.split(" "));
            } catch (RuntimeException e) {
                e.printStackTrace();
                out = List.of("BROKE " + e);
            }
            out.forEach(System.out::println);
            System.out.println(END);
            System.out.flush();
        }
    }

    private List<String> asked(String[] words) {
        return switch (words[0]) {
            case "checks" -> checks();
            case "sweep" -> sweep(words[1]);
            case "talk" ->
                talk(
                        Protocol.valueOf(words[1]),
                        words[2],
                        Integer.parseInt(words[3]),
                        words.length > 4 ? words[4] : "");
            case "gear" -> gear(words);
            case "hand" ->
                List.of(new MailRelay()
                        .hand(
                                new MailRelay.Way(
                                        words[1],
                                        Integer.parseInt(words[2]),
                                        words[3].equals("secured"),
                                        "knot@cards.example",
                                        List.of(words[4].split(","))),
                                "Knot Tag, 1 Dec 2026: 2 new at Grüne Scheune",
                                "Scheune: “Kasse” 1 did not answer.\n.\nThe end, after a line of a period alone.\n"));
            case "port" ->
                List.of(probes.connect(a(words[1]), Integer.parseInt(words[2])).name());
            case "whois" -> List.of(probes.whois(a(words[1])).toString());
            case "echo" -> List.of(probes.echo(a(words[1])).answer().name());
            default -> throw new IllegalArgumentException(words[0]);
        };
    }

    private Vantage vantage() {
        return new Vantage(probes.here().addresses(), Map.of("Shop", SHOP.prefix(), "Office", OFFICE));
    }

    private List<String> checks() {
        var once = new Remembered(probes);
        var out = new ArrayList<String>();
        for (var r : new CheckRunner(TERMINAL, once, vantage(), Clock.systemUTC()).run(threads, x -> {}))
            out.add("CHECK " + r.check() + " " + r.status() + " " + r.seen());
        for (var made : new MachineQuestions(TERMINAL, once, vantage(), threads).make())
            out.add("LOOK " + made.question() + " " + made.outcome());
        return out;
    }

    private List<String> sweep(String prefix) {
        var segment = prefix.equals("shop") ? SHOP : new Segment(Ipv4Prefix.parse(prefix), Optional.empty(), List.of());
        long begun = System.nanoTime();
        var swept = probes.sweep(Sweep.hosts(segment), Swept.QUIETLY);
        var out = new ArrayList<String>();
        out.add("TOOK " + (System.nanoTime() - begun) / 1_000_000);
        out.add("HOW " + swept.how());
        swept.there().entrySet().stream()
                .sorted(Map.Entry.comparingByKey())
                .forEach(e -> out.add("THERE " + e.getKey() + " "
                        + e.getValue().stream().sorted().toList()));
        out.add("SIX " + Sweep.onlyOverSix(swept));
        return out;
    }

    private List<String> talk(Protocol protocol, String host, int port, String ask) {
        var call = new Probes.Call(protocol, host, port, ask, List.of(SHOP.prefix(), OFFICE), RESOLVERS);
        var heard = probes.talk(call);
        var judged = ServiceJudge.judge(call, heard, Clock.systemUTC().instant());
        return List.of(judged.status() + " " + judged.seen());
    }

    /** Reads gear: its address, then a community, or a user with how and by which words she proves herself and hides. */
    private static List<String> gear(String[] words) {
        var access = words.length == 3
                ? new GearAccess(Version.V2C, words[2], Auth.NONE, "", Privacy.NONE, "")
                : new GearAccess(
                        Version.V3, words[2], Auth.valueOf(words[3]), words[4], Privacy.valueOf(words[5]), words[6]);
        var out = new ArrayList<String>();
        try {
            var read = GearReader.read(new GearTalk(new NetworkProbes()).walk(a(words[1]), access));
            for (var p : read.ports())
                out.add("PORT " + p.label() + " " + p.link() + " " + p.duplex() + " " + p.megabits() + " "
                        + p.macs().stream().sorted().toList());
            for (var n : read.neighbours()) out.add("NEAR " + n.address() + " " + n.mac());
            read.remarks().forEach(r -> out.add("REMARK " + r));
        } catch (GearProbe.GearSilent e) {
            out.add("SILENT " + e.getMessage());
        }
        return out;
    }
}
