package app.knottag.core.reach;

import static app.knottag.core.knot.Knot.FRAYED;
import static app.knottag.core.knot.Knot.LEFT_OUT;
import static app.knottag.core.knot.Knot.OPEN;
import static app.knottag.core.knot.Knot.TIGHT;
import static org.assertj.core.api.Assertions.assertThat;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Ipv4Prefix;
import app.knottag.core.address.Pool;
import app.knottag.core.address.Segment;
import app.knottag.core.hardware.Mac;
import app.knottag.core.kind.Kinds;
import app.knottag.core.reach.SiteModel.Role;
import app.knottag.core.reach.SiteModel.Station;
import java.time.Clock;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class LadderTest {

    private static final Segment SHOP = new Segment(
            Ipv4Prefix.parse("10.44.16.0/24"),
            Optional.of(a("10.44.16.1")),
            List.of(new Pool(a("10.44.16.100"), a("10.44.16.199"))));
    private static final Mac MAC = Mac.parse("00:00:5E:00:53:2B");
    private static final Station TERMINAL = new Station(
            "t4",
            "Till 4",
            Role.ENDPOINT,
            MAC,
            "OC2-7H41-0093",
            true,
            false,
            Optional.of(a("10.44.16.54")),
            a("10.44.16.131"),
            7454,
            "WHO ARE YOU",
            "I AM OC2-7H41-0093");
    private static final Station TILL = new Station(
            "w4",
            "Till 4 workstation",
            Role.PARTNER,
            Mac.parse("00:00:5E:00:53:94"),
            "",
            true,
            false,
            Optional.of(a("10.44.16.34")),
            a("10.44.16.134"),
            7500,
            "",
            "");
    private static final SiteModel SITE = new SiteModel(List.of(TERMINAL, TILL));

    private static Ipv4Address a(String text) {
        return Ipv4Address.parse(text);
    }

    private static Target target(String serial, Mac mac, Optional<Integer> testPort) {
        return new Target(
                a("10.44.16.54"),
                mac,
                serial,
                7454,
                SHOP,
                Kinds.shipped().get("counter-payment-terminal").service(),
                Optional.of(new Target.Partner("Till 4 workstation", a("10.44.16.34"), testPort)),
                Map.of());
    }

    /** Makes the checks against the model, without any network. */
    record Wire(SiteModel site, boolean sameSegment) implements Probes {
        @Override
        public boolean standsIn(Ipv4Prefix prefix) {
            return sameSegment;
        }

        @Override
        public String vantage() {
            return "this laptop";
        }

        @Override
        public boolean answers(Ipv4Address address) {
            return site.at(address).isPresent();
        }

        @Override
        public List<Neighbour> neighbours() {
            return sameSegment ? site.neighbours() : List.of();
        }

        @Override
        public Connection connect(Ipv4Address address, int port) {
            return site.at(address)
                    .map(s -> s.port() == port ? Connection.OPEN : Connection.REFUSED)
                    .orElse(Connection.SILENT);
        }

        @Override
        public Optional<String> ask(Ipv4Address address, int port, String line) {
            var station = site.at(address).filter(s -> s.port() == port);
            if (station.filter(s -> s.role() == Role.PARTNER).isEmpty())
                return station.filter(s -> s.ask().equals(line)).map(Station::answer);
            String[] words = line.split(" ");
            return ask(a(words[1]), Integer.parseInt(words[2]), "WHO ARE YOU")
                    .map(r -> r.replace("I AM", "REACHED"))
                    .or(() -> Optional.of("REFUSED"));
        }
    }

    private static List<CheckResult> climb(SiteModel site, Target target) {
        return new Ladder(target, new Wire(site, true), Clock.systemUTC()).climb();
    }

    @Test
    void allChecksHoldForTheRightDevice() {
        var results = climb(SITE, target("OC2-7H41-0093", MAC, Optional.of(7500)));
        assertThat(results).extracting(CheckResult::check).containsExactly(Check.values());
        assertThat(results).extracting(CheckResult::knot).containsOnly(TIGHT);
        assertThat(results)
                .extracting(CheckResult::seen)
                .containsExactly(
                        "10.44.16.54 answers.",
                        "00:00:5E:00:53:2B, as on the tag.",
                        "Port 7454 is open.",
                        "Serial OC2-7H41-0093. This very terminal serves the till.",
                        "Till 4 workstation reaches it and gets its serial.");
    }

    @DisplayName("Each fault fails at its own check, in plain words, and nothing above it is claimed")
    @ParameterizedTest(name = "{0} fails at {1}")
    @CsvSource(
            delimiter = '|',
            value = {
                "UNPLUGGED | ANSWERS | Silent at 10.44.16.54. Its MAC is seen nowhere on the network.",
                "BACK_ON_AUTOMATIC | ANSWERS | Silent at 10.44.16.54. Its MAC 00:00:5E:00:53:2B is seen at 10.44.16.131 instead, in the pool: it is back on automatic.",
                "ADDRESS_HELD_BY_ANOTHER | WHO_ANSWERS | 00:00:5E:00:53:C1 answers, not 00:00:5E:00:53:2B. Another device, not on record here, holds the address.",
                "SERVICE_ON_OTHER_PORT | PORT_OPEN | It answers, but refuses port 7454: nothing listens there.",
            })
    void faultsFailAtTheirCheck(Fault fault, Check where, String seen) {
        var results = climb(fault.apply(SITE, TERMINAL), target("OC2-7H41-0093", MAC, Optional.of(7500)));
        for (var result : results) {
            int order = result.check().compareTo(where);
            assertThat(result.knot())
                    .as(result.check().name())
                    .isEqualTo(order < 0 ? TIGHT : order == 0 ? FRAYED : OPEN);
            if (order == 0) assertThat(result.seen()).isEqualTo(seen);
            if (order == 0) assertThat(result.remedy()).isNotEmpty();
        }
    }

    @Test
    void aPingFromTheWrongUnitIsNoProof() {
        assertThat(climb(SITE, target("OC2-7H41-0011", MAC, Optional.empty()))
                        .get(3)
                        .seen())
                .isEqualTo("Serial OC2-7H41-0093 answers, not OC2-7H41-0011: the wrong unit.");
        assertThat(climb(SITE, target("OC2-7H41-0093", Mac.parse("00:00:5E:00:53:2C"), Optional.empty()))
                        .get(1)
                        .seen())
                .endsWith("Most likely another interface of the same box.");
    }

    @Test
    void whatCannotBeSeenFromHereIsLeftOutWithItsReason() {
        var away = new Ladder(target("OC2-7H41-0093", MAC, Optional.empty()), new Wire(SITE, false), Clock.systemUTC())
                .climb();
        assertThat(away).extracting(CheckResult::knot).containsExactly(TIGHT, LEFT_OUT, TIGHT, TIGHT, LEFT_OUT);
        assertThat(away.get(4).seen()).isEqualTo("Only a person can test it from Till 4 workstation.");
    }

    @Test
    void thePartnersOwnFailureIsNotBlamedOnTheTerminal() {
        var results = climb(Fault.UNPLUGGED.apply(SITE, TILL), target("OC2-7H41-0093", MAC, Optional.of(7500)));
        assertThat(results.get(4).seen()).isEqualTo("Till 4 workstation at 10.44.16.34 does not answer.");
        assertThat(results.get(4).vantage()).isEqualTo("Till 4 workstation");
    }

    @Test
    void hostileAnswersAreShownShortAndPlain() {
        var hostile = new Station(
                "t4",
                "Till 4",
                Role.ENDPOINT,
                MAC,
                "",
                true,
                false,
                Optional.of(a("10.44.16.54")),
                a("10.44.16.131"),
                7454,
                "WHO ARE YOU",
                "\u001b[2J<script>" + "x".repeat(5000));
        var seen = climb(SITE.with(hostile), target("OC2-7H41-0093", MAC, Optional.empty()))
                .get(3)
                .seen();
        assertThat(seen).startsWith("It answers “?[2J<script>xxx").hasSizeLessThan(140);
    }

    @Test
    void onlyOwnGroundIsTouched() {
        var target = target("OC2-7H41-0093", MAC, Optional.empty());
        assertThat(Ladder.onOwnGround(target, List.of(SHOP.prefix()))).isTrue();
        assertThat(Ladder.onOwnGround(target, List.of(Ipv4Prefix.parse("10.44.17.0/24"))))
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

    @DisplayName("What a machine sees by itself points at the fault, without asking anybody")
    @ParameterizedTest(name = "{0}: {1}")
    @CsvSource(
            delimiter = '|',
            value = {
                "UNPLUGGED               | own silent nobody | NO_POWER CABLE_OUT_AT_DEVICE CABLE_OUT_AT_WALL OUTLET_DEAD PORT_OFF WAN_SOCKET",
                "BACK_ON_AUTOMATIC       | own silent nobody leased        | STILL_AUTOMATIC NOT_SAVED",
                "ADDRESS_HELD_BY_ANOTHER | own answers other               | HELD_BY_NEWER HELD_BY_OLDER",
                "SERVICE_ON_OTHER_PORT   | own answers right refused       | OTHER_PORT SERVICE_OFF",
                "SERVICE_OFF             | own answers right refused       | OTHER_PORT SERVICE_OFF",
                "WRONG_UNIT              | own answers other               | WRONG_UNIT",
            })
    void machineLooks(Fault fault, String seen, String causes) {
        var router = new Station(
                "router",
                "Router",
                Role.GATEWAY,
                Mac.parse("00:00:5E:00:53:01"),
                "",
                true,
                false,
                Optional.of(a("10.44.16.1")),
                a("10.44.16.1"),
                0,
                "",
                "");
        var site = fault.apply(SITE.plus(router), TERMINAL);
        var made = new MachineLooks(
                        target("OC2-7H41-0093", MAC, Optional.of(7500)), new Wire(site, true), Runnable::run)
                .make();
        for (String word : seen.split(" "))
            assertThat(made).extracting(Diagnosis.Made::outcome).contains(word);
        var scene = Scene.intended(new Scene.Traits(false, true, true, true));
        assertThat(Diagnosis.of(scene, CauseBook.shipped(), made)
                        .suspects()
                        .get(0)
                        .causes()
                        .get(0)
                        .name())
                .isIn((Object[]) causes.split(" "));
    }

    @Test
    void fromAnotherSegmentNoNeighbourIsClaimed() {
        var made = new MachineLooks(
                        target("OC2-7H41-0093", MAC, Optional.empty()), new Wire(SITE, false), Runnable::run)
                .make();
        assertThat(made)
                .extracting(Diagnosis.Made::look)
                .doesNotContain(Look.NEIGHBOUR, Look.LEASES, Look.PARTNER_TEST);
        assertThat(made).contains(new Diagnosis.Made(Look.VANTAGE, "elsewhere"));
    }
}
