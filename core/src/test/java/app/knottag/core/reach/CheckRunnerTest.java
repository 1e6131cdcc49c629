package app.knottag.core.reach;

import static app.knottag.core.reach.Check.ANSWERS;
import static app.knottag.core.reach.Check.GATEWAY;
import static app.knottag.core.reach.Check.PARTNER;
import static app.knottag.core.reach.Check.PORT_OPEN;
import static app.knottag.core.reach.Check.SERVICE;
import static app.knottag.core.reach.Check.WHO_ANSWERS;
import static app.knottag.core.status.Status.ACTIVE;
import static app.knottag.core.status.Status.FAILED;
import static app.knottag.core.status.Status.PASSED;
import static app.knottag.core.status.Status.PENDING;
import static app.knottag.core.status.Status.SKIPPED;
import static org.assertj.core.api.Assertions.assertThat;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Ipv4Prefix;
import app.knottag.core.address.Pool;
import app.knottag.core.address.Segment;
import app.knottag.core.hardware.Mac;
import app.knottag.core.intake.Form;
import app.knottag.core.intake.Recognised;
import app.knottag.core.kind.Kinds;
import app.knottag.core.kind.Protocol;
import app.knottag.core.reach.SiteModel.Role;
import app.knottag.core.reach.SiteModel.Station;
import app.knottag.core.status.Status;
import java.time.Clock;
import java.time.Instant;
import java.util.Arrays;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;

class CheckRunnerTest {

    private static final Segment SHOP = new Segment(
            Ipv4Prefix.parse("10.44.16.0/24"),
            Optional.of(a("10.44.16.1")),
            List.of(new Pool(a("10.44.16.100"), a("10.44.16.199"))));
    private static final Mac MAC = Mac.parse("00:00:5E:00:53:2B");
    private static final NetworkState.Traits PLAIN = new NetworkState.Traits(false, false, false, false);
    private static final Station TERMINAL = new Station(
            "t4",
            "Till 4",
            Role.ENDPOINT,
            MAC,
            "OC2-7H41-0093",
            false,
            Optional.of(a("10.44.16.54")),
            a("10.44.16.131"),
            7454,
            "WHO ARE YOU",
            "I AM OC2-7H41-0093",
            Protocol.LINE,
            new NetworkState.Traits(false, true, true, true),
            List.of());
    private static final Station TILL = new Station(
            "w4",
            "Till 4 workstation",
            Role.PARTNER,
            Mac.parse("00:00:5E:00:53:94"),
            "",
            false,
            Optional.of(a("10.44.16.34")),
            a("10.44.16.134"),
            7500,
            "",
            "",
            Protocol.LINE,
            PLAIN,
            List.of());
    private static final Station ROUTER = new Station(
            "router",
            "Router",
            Role.GATEWAY,
            Mac.parse("00:00:5E:00:53:01"),
            "",
            false,
            Optional.of(a("10.44.16.1")),
            a("10.44.16.1"),
            0,
            "",
            "",
            Protocol.LINE,
            PLAIN,
            List.of());
    private static final SiteModel SITE = new SiteModel(List.of(TERMINAL, TILL, ROUTER));

    /** The site with one station as it is now. */
    private static SiteModel with(Station changed) {
        return new SiteModel(SITE.stations().stream()
                .map(s -> s.id().equals(changed.id()) ? changed : s)
                .toList());
    }

    private static Ipv4Address a(String text) {
        return Ipv4Address.parse(text);
    }

    private static Target target(String serial, Mac mac, Optional<Integer> testPort) {
        return target(serial, mac, testPort, List.of());
    }

    private static Target target(String serial, Mac mac, Optional<Integer> testPort, List<Target.Listed> far) {
        return target(serial, mac, testPort, far, Optional.empty());
    }

    private static Target target(
            String serial, Mac mac, Optional<Integer> testPort, List<Target.Listed> far, Optional<Target.Told> told) {
        return new Target(
                a("10.44.16.54"),
                mac,
                serial,
                7454,
                SHOP,
                Kinds.shipped().get("counter-payment-terminal").service(),
                Optional.of(new Target.Partner("Till 4 workstation", a("10.44.16.34"), testPort)),
                Map.of(),
                List.of(),
                far,
                List.of(SHOP.prefix()),
                told);
    }

    /** Makes the checks against the model, without any network. */
    record Wire(SiteModel site, boolean sameSegment) implements Probes {
        @Override
        public Here here() {
            return new Here(List.of(
                    sameSegment
                            ? new Here.Link("lan0", a("10.44.16.250"), SHOP.prefix())
                            : new Here.Link("lan0", a("10.44.40.9"), Ipv4Prefix.parse("10.44.40.0/24"))));
        }

        @Override
        public Swept sweep(List<Ipv4Address> hosts, Swept.Listener listener) {
            var there = new HashMap<Ipv4Address, Set<Mac>>();
            if (sameSegment)
                site.holders()
                        .forEach(n -> there.computeIfAbsent(n.address(), a -> new HashSet<>())
                                .add(n.mac()));
            return new Swept(there, Set.of(), "");
        }

        @Override
        public ServiceReply talk(Call call) {
            return call.host().startsWith("good.")
                    ? ServiceReply.answered(200, List.of())
                    : ServiceReply.ended(ServiceReply.Ending.SILENT, "");
        }

        Vantage vantage() {
            return new Vantage(
                    here().addresses(),
                    Map.of("Shop", SHOP.prefix(), "Guest wireless", Ipv4Prefix.parse("10.44.40.0/24")));
        }

        @Override
        public Recognised.Echo echo(Ipv4Address address) {
            var state = site.at(address).map(s -> s.scene().echoState()).orElse(Outcome.SILENT);
            return new Recognised.Echo(
                    Form.ECHO,
                    Optional.of(address),
                    switch (state) {
                        case ANSWERS -> Recognised.Answer.ANSWERED;
                        case LOSSY -> Recognised.Answer.LOSS;
                        default -> Recognised.Answer.SILENT;
                    },
                    -1,
                    Optional.empty(),
                    Set.of());
        }

        @Override
        public Whois whois(Ipv4Address address) {
            return sameSegment
                    ? new Whois(
                            site.holders().stream()
                                    .filter(n -> n.address().equals(address))
                                    .map(Neighbour::mac)
                                    .collect(Collectors.toSet()),
                            Whois.How.ASKED)
                    : Whois.NOT_FROM_HERE;
        }

        @Override
        public List<Neighbour> neighbours() {
            return sameSegment ? site.neighbours() : List.of();
        }

        @Override
        public Connection connect(Ipv4Address address, int port) {
            return site.at(address)
                    .map(s -> s.port() == port
                            ? Connection.valueOf(s.scene().portState().name())
                            : Connection.REFUSED)
                    .orElse(Connection.SILENT);
        }

        @Override
        public Optional<String> ask(Ipv4Address address, int port, String line) {
            var station = site.at(address)
                    .filter(s -> connect(address, port) == Connection.OPEN
                            && s.scene().serviceState() != Outcome.NONE);
            if (station.filter(s -> s.role() == Role.PARTNER).isEmpty())
                return station.filter(s -> s.ask().equals(line)).map(Station::says);
            String[] words = line.split(" ");
            return ask(a(words[1]), Integer.parseInt(words[2]), "WHO ARE YOU")
                    .map(r -> r.replace("I AM", "REACHED"))
                    .or(() -> Optional.of("REFUSED"));
        }
    }

    private static List<CheckResult> run(SiteModel site, Target target) {
        return run(new Wire(site, true), target);
    }

    private static List<CheckResult> run(Wire wire, Target target) {
        return new CheckRunner(target, wire, wire.vantage(), Clock.systemUTC()).run(Runnable::run, r -> {});
    }

    /** Written by hand before the code ran: a router's table proves who is there, and never that somebody else is. */
    @DisplayName("Behind a router its own table says who answers, as long as it is fresh and somebody answers at all")
    @ParameterizedTest(name = "told {0} {1} min ago, there {2}, same segment {3}: {4}")
    @CsvSource(
            delimiter = '|',
            value = {
                "00:00:5E:00:53:2B | 0  | true  | false | PASSED  | by the table of Router, read just now.",
                "00:00:5E:00:53:2B | 9  | true  | false | PASSED  | read 9 minutes ago.",
                "00:00:5E:00:53:2B | 10 | true  | false | SKIPPED | No MAC is seen for 10.44.16.54",
                "00:00:5E:00:53:77 | 1  | true  | false | SKIPPED | 00:00:5E:00:53:77 and not 00:00:5E:00:53:2B, by the table",
                "00:00:5E:00:53:2B | 1  | false | false | PENDING | Not judged: settle the check above first.",
                // whoever can ask the wire itself does not go by what was told
                "00:00:5E:00:53:77 | 1  | true  | true  | PASSED  | as on the tag.",
            })
    void aRoutersTable(String mac, int minutes, boolean there, boolean near, Status status, String says) {
        var told = new Target.Told(Mac.parse(mac), "Router", Instant.now().minusSeconds(60L * minutes + 1));
        var results = run(
                new Wire(there ? SITE : new SiteModel(List.of(TILL, ROUTER)), near),
                target("OC2-7H41-0093", MAC, Optional.empty(), List.of(), Optional.of(told)));
        assertThat(results)
                .filteredOn(r -> r.check() == WHO_ANSWERS)
                .singleElement()
                .satisfies(r -> assertThat(r.seen()).contains(says))
                .satisfies(r -> assertThat(r.status()).isEqualTo(status));
    }

    @Test
    void allChecksHoldForTheRightDevice() {
        var results = run(SITE, target("OC2-7H41-0093", MAC, Optional.of(7500)));
        assertThat(results)
                .extracting(CheckResult::check)
                .containsExactly(ANSWERS, WHO_ANSWERS, GATEWAY, PORT_OPEN, SERVICE, PARTNER);
        assertThat(results).extracting(CheckResult::status).containsOnly(PASSED);
        assertThat(results)
                .extracting(CheckResult::seen)
                .containsExactly(
                        "10.44.16.54 answers.",
                        "00:00:5E:00:53:2B, as on the tag.",
                        "10.44.16.1 answers.",
                        "Port 7454 is open.",
                        "Serial OC2-7H41-0093. This very terminal serves the till.",
                        "Till 4 workstation reaches it and gets its serial.");
    }

    @DisplayName(
            "A service of which only the port fits proves nothing against who may call another; one that was named does")
    @ParameterizedTest(name = "{0}: {1}")
    @CsvSource(
            delimiter = '|',
            value = {
                "good.example yes                    | PASSED    | ANSWERS",
                "bad.example yes                     | FAILED   | SILENT",
                "bad.example no                      | SKIPPED |",
                "bad.example no, good.example no     | PASSED    | ANSWERS",
                "bad.example no, good.example yes    | PASSED    | ANSWERS",
                "good.example no, bad.example yes    | FAILED   | SILENT",
            })
    void farServices(String listed, Status status, Outcome outcome) {
        var far = Arrays.stream(listed.split(", "))
                .map(l -> l.split(" "))
                .map(l -> new Target.Listed(l[0], Protocol.HTTP, l[0], 80, l[1].equals("yes")))
                .toList();
        var target = target("OC2-7H41-0093", MAC, Optional.of(7500), far);
        var wire = new Wire(SITE, true);
        assertThat(run(wire, target))
                .filteredOn(r -> r.check() == Check.FAR_SERVICE)
                .extracting(CheckResult::status)
                .containsExactly(status);
        var once = new Remembered(wire);
        assertThat(new MachineQuestions(target, once, wire.vantage(), Runnable::run).make())
                .filteredOn(m -> m.question() == Question.FAR)
                .extracting(Diagnosis.Made::outcome)
                .isEqualTo(outcome == null ? List.of() : List.of(outcome));
    }

    @DisplayName("Each fault fails at its own check, in plain words, and nothing above it is claimed")
    @ParameterizedTest(name = "{0} fails at {1}")
    @CsvSource(
            delimiter = '|',
            value = {
                "NO_POWER | ANSWERS | Silent at 10.44.16.54. Its MAC is seen nowhere on the network.",
                "STILL_AUTOMATIC | ANSWERS | Silent at 10.44.16.54. Its MAC 00:00:5E:00:53:2B is seen at 10.44.16.131 "
                        + "instead, in the pool: it is back on automatic.",
                "HELD_BY_NEWER | WHO_ANSWERS | Two devices have this address: 00:00:5E:00:53:2B (on the tag) and 00:00:5E:00:53:4E.",
                "HELD_BY_OLDER | WHO_ANSWERS | 00:00:5E:00:53:4E answers, not 00:00:5E:00:53:2B. Another device, not on "
                        + "record here, holds the address.",
                "OTHER_PORT | PORT_OPEN | It refuses port 7454: nothing listens there.",
            })
    void faultsFailAtTheirCheck(Fault fault, Check where, String seen) {
        var results = run(with(TERMINAL.with(fault)).onTheWire(), target("OC2-7H41-0093", MAC, Optional.of(7500)));
        for (var result : results) {
            int order = result.check().compareTo(where);
            if (order > 0) assertThat(result.status()).as(result.check().name()).isIn(PENDING, ACTIVE, SKIPPED);
            else assertThat(result.status()).as(result.check().name()).isEqualTo(order < 0 ? PASSED : FAILED);
            if (order == 0) assertThat(result.seen()).isEqualTo(seen);
            if (order == 0) assertThat(result.remedy()).isNotEmpty();
        }
    }

    @Test
    void aPingFromTheWrongUnitIsNoProof() {
        assertThat(run(SITE, target("OC2-7H41-0011", MAC, Optional.empty()))
                        .get(4)
                        .seen())
                .isEqualTo("Serial OC2-7H41-0093 answers, not OC2-7H41-0011: the wrong unit.");
        assertThat(run(SITE, target("OC2-7H41-0093", Mac.parse("00:00:5E:00:53:2C"), Optional.empty()))
                        .get(1)
                        .seen())
                .endsWith("Most likely another interface of the same box.");
    }

    @Test
    void whatCannotBeSeenFromHereIsLeftOutWithItsReason() {
        var away = run(new Wire(SITE, false), target("OC2-7H41-0093", MAC, Optional.empty()));
        assertThat(away)
                .extracting(CheckResult::status)
                .containsExactly(PASSED, SKIPPED, PASSED, PASSED, PASSED, SKIPPED);
        assertThat(away.get(5).seen()).isEqualTo("Only a person can test it from Till 4 workstation.");
    }

    @Test
    void itSaysFromWhichNetworkOneLooks() {
        var away = run(new Wire(new SiteModel(List.of()), false), target("OC2-7H41-0093", MAC, Optional.empty()));
        assertThat(away.get(0).seen())
                .isEqualTo(
                        "Silent at 10.44.16.54. You look from this machine, 10.44.40.9, which is on “Guest wireless” "
                                + "and not in this segment.");
    }

    @Test
    void thePartnersOwnFailureIsNotBlamedOnTheTerminal() {
        var results = run(with(TILL.with(Fault.NO_POWER)), target("OC2-7H41-0093", MAC, Optional.of(7500)));
        assertThat(results.get(5).seen()).isEqualTo("Till 4 workstation at 10.44.16.34 does not answer.");
        assertThat(results.get(5).vantage()).isEqualTo("Till 4 workstation");
    }

    @Test
    void hostileAnswersAreShownShortAndPlain() {
        var hostile = new Station(
                "t4",
                "Till 4",
                Role.ENDPOINT,
                MAC,
                "",
                false,
                Optional.of(a("10.44.16.54")),
                a("10.44.16.131"),
                7454,
                "WHO ARE YOU",
                "\u001b[2J<script>" + "x".repeat(5000),
                Protocol.LINE,
                PLAIN,
                List.of());
        var seen = run(with(hostile), target("OC2-7H41-0093", MAC, Optional.empty()))
                .get(4)
                .seen();
        assertThat(seen).startsWith("It answers “?[2J<script>xxx").hasSizeLessThan(140);
    }

    @Test
    void onlyOwnGroundIsTouched() {
        var target = target("OC2-7H41-0093", MAC, Optional.empty());
        assertThat(CheckRunner.onOwnGround(target, List.of(SHOP.prefix()))).isTrue();
        assertThat(CheckRunner.onOwnGround(target, List.of(Ipv4Prefix.parse("10.44.17.0/24"))))
                .isFalse();
    }

    @Test
    void neighbourTablesAreReadAsLinuxWritesThem() {
        var read = Neighbour.readTable("""
                IP address       HW type     Flags       HW address            Mask     Device
                10.44.16.54      0x1         0x2         00:00:5e:00:53:2b     *        eth0
                10.44.16.55      0x1         0x0         00:00:00:00:00:00     *        eth0
                nonsense
                """);
        assertThat(read).containsExactly(new Neighbour(a("10.44.16.54"), MAC));
        assertThat(Neighbour.readTable(Neighbour.writeTable(SITE.neighbours()))).isEqualTo(SITE.neighbours());
    }

    @DisplayName("What a machine sees on the wire is what the model says, for every cause")
    @ParameterizedTest
    @EnumSource(Fault.class)
    void machineLooks(Fault fault) {
        var upset = TERMINAL.with(fault);
        var wire = with(upset).onTheWire();
        boolean within = upset.scene().lookedAtFromWithin();
        // Where the partner's own side is wrong, its own test shows it; that is the stand-in's part.
        var questions = questions(new Wire(within ? wire : new SiteModel(List.of()), within));
        for (var made : questions)
            if (upset.scene().observe(made.question()) != NetworkState.ANYTHING)
                assertThat(made.index())
                        .as(made.toString())
                        .isEqualTo(upset.scene().observe(made.question()));
    }

    private static List<Diagnosis.Made> questions(Wire wire) {
        return new MachineQuestions(target("OC2-7H41-0093", MAC, Optional.empty()), wire, wire.vantage(), Runnable::run)
                .make();
    }

    @Test
    void fromAnotherSegmentNoNeighbourIsClaimed() {
        var made = questions(new Wire(SITE, false));
        assertThat(made)
                .extracting(Diagnosis.Made::question)
                .doesNotContain(Question.NEIGHBOUR, Question.LEASES, Question.PARTNER_TEST);
        assertThat(made).contains(new Diagnosis.Made(Question.VANTAGE, Outcome.ELSEWHERE));
    }
}
