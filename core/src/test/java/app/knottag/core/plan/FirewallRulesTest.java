package app.knottag.core.plan;

import static app.knottag.core.plan.PlacementTest.a;
import static app.knottag.core.plan.PlacementTest.segment;
import static org.assertj.core.api.Assertions.assertThat;

import app.knottag.core.kind.Kind.Talk;
import app.knottag.core.kind.Protocol;
import app.knottag.core.kind.Transport;
import app.knottag.core.plan.FirewallRules.Listed;
import app.knottag.core.plan.FirewallRules.Rule;
import app.knottag.core.plan.FirewallRules.Talker;
import app.knottag.core.plan.SitePlan.PlannedSegment;
import app.knottag.core.plan.SitePlan.PlannedSeries;
import app.knottag.core.series.Series;
import app.knottag.core.series.Series.Counts;
import app.knottag.core.time.DateStyle;
import app.knottag.core.time.SiteClock;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What is handed to others: firewall rules, and how far the numbered runs still reach. */
class FirewallRulesTest {

    private static Talker talker(String name, String address, Integer port, String partner, Talk... talks) {
        return new Talker(
                name,
                a(address),
                Optional.ofNullable(port),
                Optional.ofNullable(partner),
                Optional.ofNullable(partner).map(p -> a("10.0.0.31")),
                Optional.ofNullable(port).map(n -> n + 100),
                List.of(talks),
                List.of(a("10.0.0.2")));
    }

    private static final Talk PAYS = new Talk(Talk.To.INTERNET, Transport.TCP, 443, "Payments.");
    private static final Talk REPORTS = new Talk(Talk.To.PARTNER, Transport.TCP, 7500, "It reports back.");

    private static final List<Listed> LISTED = List.of(
            new Listed("Mail", Protocol.SMTP, "mail.away.example", 587),
            new Listed("Clock", Protocol.NTP, "10.0.0.9", 123));

    @Test
    void theFewestRulesThatDoInsideFirstAndTheRefusalLast() {
        var rules = FirewallRules.of(
                List.of(
                        talker("Till 1", "10.0.0.51", 7451, "Till PC", PAYS, REPORTS),
                        talker("Till 2", "10.0.0.52", 7452, "Till PC", REPORTS),
                        talker(
                                "Copier",
                                "10.0.0.40",
                                9100,
                                null,
                                new Talk(Talk.To.INTERNET, Transport.TCP, 587, "Scans."))),
                LISTED);
        assertThat(rules)
                .extracting(r -> r.from() + " > " + r.to() + " " + r.protocol() + " " + r.port())
                .containsExactly(
                        "Copier 10.0.0.40 > resolver 10.0.0.2 UDP 53",
                        "Copier 10.0.0.40 > resolver 10.0.0.2 TCP 53",
                        "Till 1 10.0.0.51 > resolver 10.0.0.2 UDP 53",
                        "Till 1 10.0.0.51 > resolver 10.0.0.2 TCP 53",
                        "Copier 10.0.0.40 > Clock 10.0.0.9 UDP 123",
                        "Till 1 10.0.0.51 > Clock 10.0.0.9 UDP 123",
                        "Copier 10.0.0.40 > Mail mail.away.example TCP 587",
                        "Till PC 10.0.0.31 > Till 1 10.0.0.51 TCP 7451",
                        "Till PC 10.0.0.31 > Till 2 10.0.0.52 TCP 7452",
                        "Till 1 10.0.0.51 > Till PC 10.0.0.31 TCP 7551",
                        "Till 2 10.0.0.52 > Till PC 10.0.0.31 TCP 7552",
                        "Till 1 10.0.0.51 > internet TCP 443",
                        "internet > any ANY 0");
    }

    @DisplayName("Nothing is opened for what is not known")
    @ParameterizedTest(name = "port {0}, partner {1}: {2} rules")
    @CsvSource(
            nullValues = "-",
            value = {"-, Till PC, 1", "7451, -, 1", "7451, Till PC, 2", "-, -, 1"})
    void opensNothingUnknown(Integer port, String partner, int count) {
        assertThat(FirewallRules.of(List.of(talker("Till 1", "10.0.0.51", port, partner)), LISTED))
                .hasSize(count);
    }

    @Test
    void withoutReportsToAPartnerThatIsNotNamed() {
        assertThat(FirewallRules.of(List.of(talker("Till 1", "10.0.0.51", null, null, REPORTS)), LISTED))
                .extracting(Rule::to)
                .containsExactly("any");
    }

    private static SitePlan site(double tillsPerYear, double padsPerYear) {
        var shop = new PlannedSegment(
                1,
                "Shop",
                segment("10.44.16.0/24", "10.44.16.1", "10.44.16.100", "10.44.16.199"),
                List.of(),
                Duration.ofHours(1));
        return new SitePlan(
                List.of(shop),
                List.of(
                        new PlannedSeries(
                                1, Optional.of(1L), new Series("Till", 50, 0), tillsPerYear, Optional.empty()),
                        new PlannedSeries(
                                2,
                                Optional.of(1L),
                                new Series("PIN pad", Counts.HOST, 70, 0, 15),
                                padsPerYear,
                                Optional.empty()),
                        new PlannedSeries(
                                3,
                                Optional.empty(),
                                new Series("LAN port", Counts.GEAR_PORT, 0, 0, 0),
                                0,
                                Optional.of(1L))),
                List.of(RenumberingTest.endpoint(1, "10.44.16.20", Method.FIXED, null)),
                List.of(),
                List.of(),
                List.of(),
                List.of());
    }

    @DisplayName("The run that is full first stands first")
    @ParameterizedTest(name = "tills {0}, pads {1} a year: {2}")
    @CsvSource({
        "0, 0, LAN port/PIN pad/Till",
        "4, 0, Till/LAN port/PIN pad",
        "4, 5, PIN pad/Till/LAN port",
        "40, 5, Till/PIN pad/LAN port"
    })
    void fullFirst(double tills, double pads, String order) {
        var runs = Growth.runs(site(tills, pads), LocalDate.of(2026, 11, 24), Map.of(3L, 4));
        assertThat(String.join("/", runs.stream().map(Growth.Run::name).toList()))
                .isEqualTo(order);
        assertThat(runs.stream()
                        .filter(r -> r.seriesId() == 3)
                        .findFirst()
                        .orElseThrow()
                        .fit()
                        .room())
                .isEqualTo(4);
        assertThat(runs.stream()
                        .filter(r -> r.seriesId() == 1)
                        .findFirst()
                        .orElseThrow()
                        .fit()
                        .room())
                .isEqualTo(20);
    }

    @Test
    void aNewBlockNeedsFourInARow() {
        var small = segment("10.0.0.0/29", "10.0.0.1");
        assertThat(Growth.newBlock(small, Map.of()).orElseThrow()).hasToString("10.0.0.2 to 10.0.0.6");
        var living = new HashMap<>(Map.of(a("10.0.0.4"), "X"));
        assertThat(Growth.newBlock(small, living)).isEmpty();
    }

    @Test
    void aFullRunIsAConflictThatNamesWhereANewOneHasRoom() {
        var plan = site(0, 0);
        var full = new SitePlan(
                plan.segments(),
                List.of(new PlannedSeries(
                        2, Optional.of(1L), new Series("Kiosk", Counts.HOST, 99, 0, 5), 0, Optional.empty())),
                plan.endpoints(),
                List.of(),
                List.of(),
                List.of(),
                List.of());
        assertThat(SeriesCheck.conflicts(
                        full,
                        Occupied.of(full.living()),
                        new SiteClock(Instant.parse("2026-11-24T12:00:00Z"), ZoneOffset.UTC, DateStyle.YEAR_FIRST)))
                .singleElement()
                .satisfies(c -> {
                    assertThat(c.message())
                            .isEqualTo(
                                    "“Kiosk” is full at number 0. Host 100 lies in the pool 10.44.16.100 to 10.44.16.199.");
                    assertThat(c.mend()).isEqualTo("A new block has room from 10.44.16.21: 79 in a row.");
                });
    }
}
