package app.knottag.core.plan;

import static app.knottag.core.plan.PlacementTest.a;
import static app.knottag.core.plan.PlacementTest.segment;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Ipv4Prefix;
import app.knottag.core.address.Segment;
import app.knottag.core.hardware.Mac;
import app.knottag.core.plan.Conflict.Code;
import app.knottag.core.plan.FreeVerdict.Evidence;
import app.knottag.core.plan.FreeVerdict.Verdict;
import app.knottag.core.plan.LeaseCompare.Lease;
import app.knottag.core.plan.ResolverChoice.Known;
import app.knottag.core.plan.Sighting.Source;
import app.knottag.core.plan.SitePlan.PlannedEndpoint;
import app.knottag.core.plan.SitePlan.PlannedPartner;
import app.knottag.core.plan.SitePlan.PlannedSegment;
import app.knottag.core.plan.SitePlan.PlannedSeries;
import app.knottag.core.series.Series;
import app.knottag.core.series.Series.Counts;
import app.knottag.core.time.DateStyle;
import app.knottag.core.time.SiteClock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class SiteCheckTest {

    private static final Instant NOW = Instant.parse("2026-11-24T10:00:00Z");
    private static final SiteClock CLOCK = new SiteClock(NOW, ZoneOffset.UTC, DateStyle.YEAR_FIRST);
    private static final Segment SHOP = segment("10.44.16.0/24", "10.44.16.1", "10.44.16.100", "10.44.16.199");
    private static final PlannedSeries TILLS =
            new PlannedSeries(5, Optional.of(1L), new Series("Till", Counts.HOST, 50, 0, 10), 0, Optional.empty());

    private static PlannedEndpoint endpoint(long id, String address, Integer number, String mac) {
        return new PlannedEndpoint(
                id,
                "E" + id,
                "e" + id,
                1,
                Optional.ofNullable(address).map(Ipv4Address::parse),
                Method.FIXED,
                Optional.ofNullable(number).map(n -> 5L),
                Optional.ofNullable(number),
                Optional.ofNullable(mac).map(Mac::parse),
                Optional.empty(),
                Optional.empty(),
                Optional.empty(),
                false);
    }

    private static Sighting seen(String address, String mac, String age) {
        return new Sighting(
                a(address),
                Optional.of(Mac.parse(mac)),
                Source.NEIGHBOURS,
                NOW.minus(Duration.parse(age)),
                Optional.empty());
    }

    private static List<Conflict> conflicts(
            List<PlannedEndpoint> endpoints, List<PlannedPartner> partners, Sighting... sightings) {
        var segment = new PlannedSegment(1, "Shop", SHOP, List.of(a("10.44.16.1")), Duration.ofHours(12));
        return SiteCheck.conflicts(
                new SitePlan(
                        List.of(segment),
                        List.of(TILLS),
                        endpoints,
                        partners,
                        List.of(),
                        List.of(),
                        List.of(sightings)),
                CLOCK,
                List.of());
    }

    @DisplayName("A pair in two segments meets only at the router, until its own proof says that it does")
    @ParameterizedTest(name = "partner at {0}, gateway there {1}, proved {2}: {3}")
    @CsvSource(
            nullValues = "-",
            value = {
                "10.44.16.31, 10.44.17.1, false, -",
                "10.44.17.31, 10.44.17.1, false, RISK E1 is in Shop its partner Server in Office: they meet only if the router "
                        + "lets them through.",
                "10.44.17.31, 10.44.17.1, true, -",
                "10.44.17.31, -, false, BROKEN E1 is in Shop its partner Server in Office: without a gateway on both sides nothing "
                        + "passes between them.",
                "192.0.2.31, 10.44.17.1, false, -",
            })
    void pairsApart(String partner, String gateway, boolean proved, String expected) {
        var shop = new PlannedSegment(1, "Shop", SHOP, List.of(a("10.44.16.1")), Duration.ofHours(12));
        var office = new PlannedSegment(
                2,
                "Office",
                new Segment(
                        Ipv4Prefix.parse("10.44.17.0/24"),
                        Optional.ofNullable(gateway).map(Ipv4Address::parse),
                        List.of()),
                List.of(a("10.44.17.1")),
                Duration.ofHours(12));
        var lone = endpoint(1, "10.44.16.51", 1, null);
        var paired = new PlannedEndpoint(
                lone.id(),
                lone.name(),
                lone.hostName(),
                lone.segmentId(),
                lone.address(),
                lone.method(),
                lone.seriesId(),
                lone.number(),
                lone.mac(),
                Optional.of(9L),
                Optional.of(7451),
                Optional.empty(),
                proved);
        var plan = new SitePlan(
                List.of(shop, office),
                List.of(TILLS),
                List.of(paired),
                List.of(new PlannedPartner(9, "Server", a(partner))),
                List.of(),
                List.of(),
                List.of());
        assertThat(SiteCheck.conflicts(plan, CLOCK, List.of()).stream()
                        .filter(c -> c.code() == Code.PARTNER_APART)
                        .map(c -> c.severity() + " " + c.message().replace(",", ""))
                        .toList())
                .isEqualTo(expected == null ? List.of() : List.of(expected));
    }

    @DisplayName("Each thing that is wrong is said with the smallest change that mends it")
    @ParameterizedTest(name = "{0} {1}")
    @CsvSource(
            delimiter = '|',
            nullValues = "-",
            value = {
                "10.44.16.52  | 2 | -",
                "10.44.16.190 | - | RISK IN_POOL E1: 10.44.16.190 lies in the pool 10.44.16.100 to 10.44.16.199 and may "
                        + "be handed out to another device any time. > Move it to 10.44.16.3, or end the pool at "
                        + "10.44.16.189.",
                "10.44.16.101 | 1 | RISK IN_POOL E1: 10.44.16.101 lies in the pool 10.44.16.100 to 10.44.16.199 and may "
                        + "be handed out to another device any time. > Move it to 10.44.16.51, or start the pool at "
                        + "10.44.16.102.",
                "10.44.16.1   | - | BROKEN IS_GATEWAY E1: It has 10.44.16.1, which is the gateway. > Move it to 10.44.16.3.",
                "10.44.17.9   | - | BROKEN OUTSIDE_SEGMENT E1: 10.44.17.9 is no address of 10.44.16.0/24. > Move it to 10.44.16.3.",
                "10.44.16.11  | - | UNTIDY SLIP_TO_GATEWAY E1: One slip of a finger turns 10.44.16.11 into the gateway "
                        + "10.44.16.1. > Move it to 10.44.16.3.",
            })
    void oneEndpoint(String address, Integer number, String expected) {
        var worst = conflicts(List.of(endpoint(1, address, number, null)), List.of()).stream()
                .findFirst()
                .map(c -> c.severity() + " " + c.code() + " " + c.message() + " > " + c.mend())
                .orElse(null);
        assertThat(worst).isEqualTo(expected);
    }

    @Test
    void worstComesFirstAndTheMoveIsGivenAsData() {
        var found = conflicts(
                List.of(
                        endpoint(1, "10.44.16.60", 3, null),
                        endpoint(2, "10.44.16.60", null, null),
                        endpoint(3, "10.44.16.31", null, null)),
                List.of(new PlannedPartner(7, "Till server", a("10.44.16.31"))));
        assertThat(found)
                .extracting(Conflict::code)
                .containsExactly(Code.ADDRESS_TWICE, Code.ADDRESS_TWICE, Code.SLIP_TO_GATEWAY, Code.NOT_BY_NUMBER);
        assertThat(found.get(0).message()).isEqualTo("E1 and E2 both have 10.44.16.60.");
        assertThat(found.get(0).move().endpointId()).isEqualTo(2);
        assertThat(found.get(1).message()).isEqualTo("E3 and Till server both have 10.44.16.31.");
        assertThat(found.get(3).move()).isEqualTo(new Conflict.Move(1, a("10.44.16.53")));
    }

    private static final String OTHER = "00:00:5E:00:53:77";

    @DisplayName("Whether an address is free is weighed, never said barely")
    @ParameterizedTest(name = "on record {0}, seen {1} ago, looked {2} ago: {3} {4}")
    @CsvSource(
            nullValues = "-",
            value = {
                "true,  -,     -,     TAKEN,         99",
                "true,  -,     PT1H,  TAKEN,         99",
                "false, -,     -,     PROBABLY_FREE, 88",
                "false, -,     PT1H,  PROBABLY_FREE, 91",
                "false, -,     P90D,  PROBABLY_FREE, 88",
                "false, PT1H,  PT1H,  TAKEN,         96",
                "false, P30D,  P30D,  DOUBTFUL,      46",
                "false, P120D, P120D, PROBABLY_FREE, 83",
            })
    void weighs(boolean recorded, Duration seen, Duration looked, Verdict verdict, int confidence) {
        var address = a("10.44.16.60");
        var free = FreeVerdict.of(
                address,
                evidence(
                        recorded ? Map.of(address, "Copier") : Map.of(),
                        seen == null ? List.of() : List.of(seen("10.44.16.60", OTHER, seen.toString())),
                        looked == null ? Map.of() : Map.of(Source.NEIGHBOURS, NOW.minus(looked))),
                NOW);
        assertThat(free.verdict()).isEqualTo(verdict);
        assertThat(free.confidence()).isEqualTo(confidence);
        assertThat(free.holder()).isEqualTo(recorded ? "Copier" : seen == null ? "" : OTHER);
        assertThat(free.voices()).hasSize((recorded ? 1 : 0) + (looked == null ? 0 : 1));
    }

    private static Evidence evidence(
            Map<Ipv4Address, String> onRecord, List<Sighting> sightings, Map<Source, Instant> looked) {
        return new Evidence(List.of(SHOP), onRecord, sightings, looked, Map.of());
    }

    @DisplayName("What no device may be given is never called free, whatever was seen or not")
    @ParameterizedTest(name = "{0} is {1}")
    @CsvSource({
        "10.44.16.1, the gateway of 10.44.16.0/24",
        "10.44.16.0, the network or broadcast address of 10.44.16.0/24",
        "10.44.16.255, the network or broadcast address of 10.44.16.0/24",
        "10.44.16.130, in the pool 10.44.16.100 to 10.44.16.199",
        "192.0.2.7, in no segment of this site",
    })
    void notToGive(String address, String why) {
        var free = FreeVerdict.of(
                a(address), evidence(Map.of(), List.of(), Map.of(Source.NEIGHBOURS, NOW, Source.LEASES, NOW)), NOW);
        assertThat(free.verdict()).isEqualTo(Verdict.NOT_TO_GIVE);
        assertThat(free.holder()).isEqualTo(why);
    }

    @Test
    void aLeaseThatHoldsIsAFloorWhateverANeighbourTableDoesNotShow() {
        var lease = new Sighting(
                a("10.44.16.60"),
                Optional.of(Mac.parse(OTHER)),
                Source.LEASES,
                NOW.minus(Duration.ofDays(20)),
                Optional.of(NOW.plusSeconds(60)));
        var looked = Map.of(Source.NEIGHBOURS, NOW, Source.LEASES, NOW);
        assertThat(FreeVerdict.of(a("10.44.16.60"), evidence(Map.of(), List.of(lease), looked), NOW)
                        .verdict())
                .isEqualTo(Verdict.TAKEN);
        var over = new Sighting(lease.address(), lease.mac(), Source.LEASES, lease.seenAt(), Optional.of(NOW));
        assertThat(FreeVerdict.of(a("10.44.16.60"), evidence(Map.of(), List.of(over), looked), NOW)
                        .verdict())
                .isEqualTo(Verdict.DOUBTFUL);
    }

    @Test
    void whatIsTakenIsNotProposedAndWhatIsDoubtfulOnlyWithTheReason() {
        var site = new SitePlan(
                List.of(new PlannedSegment(1, "Shop", SHOP, List.of(a("10.44.16.2")), Duration.ofHours(12))),
                List.of(),
                List.of(),
                List.of(new PlannedPartner(7, "Till server", a("10.44.16.3"))),
                List.of(),
                List.of(),
                List.of(seen("10.44.16.5", OTHER, "PT1H"), seen("10.44.16.6", OTHER, "P30D")),
                List.of(new SitePlan.Listed("Files", a("10.44.16.4"))));
        var occupied = site.occupied(NOW);
        assertThat(occupied.held())
                .containsEntry(a("10.44.16.1"), "the gateway of Shop")
                .containsEntry(a("10.44.16.2"), "the resolver of Shop")
                .containsEntry(a("10.44.16.3"), "Till server")
                .containsEntry(a("10.44.16.4"), "Files")
                .containsEntry(a("10.44.16.5"), OTHER + ", seen there");
        assertThat(occupied.doubtful()).containsOnlyKeys(a("10.44.16.6"));
        var planner = new Planner(SHOP, occupied);
        assertThat(planner.isFree(a("10.44.16.5"))).isFalse();
        assertThat(planner.nextFree(a("10.44.16.4"))).contains(a("10.44.16.7"));
        var tills = new Series("Till", Counts.HOST, 2, 0, 9);
        var own = planner.propose(Optional.of(tills), 4).match(p -> p, r -> null);
        assertThat(own.choice().address()).isEqualTo(a("10.44.16.6"));
        assertThat(own.reasons()).anyMatch(why -> why.endsWith("was seen there: look before you give it."));
    }

    @DisplayName("The naming rule makes short, plain, unique names")
    @ParameterizedTest(name = "{0} {1} {2}: {3}")
    @CsvSource(
            nullValues = "-",
            value = {
                "{site}-{kind}{number},   4, Front,            pgb-pay4",
                "{site}-{kind}{number},   7, Front,            pgb-pay7-2",
                "{site}-{kind}{number},   -, Front,            pgb-pay1",
                "{place}-{kind},          -, Größe & Süd,      grosse-sud-pay",
                "{place}-{kind}{number}, 12, Nursery bench 3,  nursery-b-pay12",
                "{place}-{kind}{number},  1, Reception desk,   reception-pay1",
                "{site}{number},          0, Front,            pgb1",
            })
    void names(String rule, String number, String place, String expected) {
        var values = new HashMap<>(Map.of("site", "PGB", "kind", "pay", "place", place));
        if (number != null) values.put("number", number);
        String name = new NameRule(rule).name(values, Set.of("pgb-pay7"));
        assertThat(name).isEqualTo(expected);
        assertThat(NameRule.problem(name)).isEmpty();
    }

    @Test
    void aRuleThatCannotWorkIsRefused() {
        assertThatThrownBy(() -> new NameRule("{shop}{number}"))
                .hasMessage("There is no part {shop}; there are {site}, {kind}, {series}, {number}, {place}.");
        assertThatThrownBy(() -> new NameRule("{site}_{number}"))
                .hasMessageStartingWith("Only letters, digits and hyphens");
        assertThatThrownBy(() -> new NameRule("{site}")).hasMessageStartingWith("The rule needs {number} or {place}");
        assertThat(NameRule.problem("Till_1").orElseThrow()).endsWith("no hyphen at an end: “Till_1”.");
        assertThat(NameRule.problem("a-name-far-too-long").orElseThrow()).contains("has 19");
        assertThat(NameRule.clashes(Map.of("A", "x", "B", "x", "C", "y")).get("x"))
                .containsExactlyInAnyOrder("A", "B");
    }

    @DisplayName("Who keeps the address")
    @ParameterizedTest(name = "reached {0}, can reserve {1}, site {2}: {3}")
    @CsvSource({
        "true,  true,  FIXED,     FIXED",
        "true,  false, RESERVED,  FIXED",
        "true,  true,  RESERVED,  RESERVED",
        "true,  true,  AUTOMATIC, RESERVED",
        "true,  false, AUTOMATIC, FIXED",
        "false, false, AUTOMATIC, AUTOMATIC",
        "true,  true,  LEARNED,   LEARNED",
    })
    void methods(boolean reached, boolean canReserve, Method site, Method expected) {
        assertThat(Method.advise(reached, canReserve, site).method()).isEqualTo(expected);
    }

    @DisplayName("Which resolvers")
    @ParameterizedTest(name = "names inside {0}, outside open {1}, own {2}: {3}")
    @CsvSource(
            delimiter = '|',
            nullValues = "-",
            value = {
                "false | true  | 10.0.0.1 | 10.0.0.1 203.0.113.9",
                "true  | true  | 10.0.0.1 | 10.0.0.1",
                "true  | false | 10.0.0.1 | 10.0.0.1",
                "true  | false | -        | ",
                "false | false | -        | 198.51.100.3",
                "false | true  | 10.0.0.1 10.0.0.2 | 10.0.0.1 203.0.113.9",
                "true  | true  | 10.0.0.1 10.0.0.2 | 10.0.0.1 10.0.0.2",
                "false | true  | 203.0.113.9 | 203.0.113.9 198.51.100.3",
                "false | false | 10.0.0.1 | 10.0.0.1 198.51.100.3",
                "true  | true  | -        | ",
                "false | true  | -        | 203.0.113.9 198.51.100.3",
            })
    void resolvers(boolean inside, boolean open, String own, String expected) {
        var choice = ResolverChoice.choose(
                new Known(
                        own == null
                                ? List.of()
                                : Arrays.stream(own.split(" "))
                                        .map(Ipv4Address::parse)
                                        .toList(),
                        List.of(a("198.51.100.3")),
                        List.of(a("203.0.113.9"))),
                inside,
                open);
        assertThat(String.join(
                        " ", choice.resolvers().stream().map(Object::toString).toList()))
                .isEqualTo(expected == null ? "" : expected);
        assertThat(choice.reason()).endsWith(".");
    }

    @DisplayName("A lease against the plan, field by field")
    @ParameterizedTest(name = "{0} {1} {2} for {3}: {4}")
    @CsvSource({
        "10.44.16.131, 255.255.255.0, 10.44.16.1,   10.44.16.20,  CHANGE KEEP KEEP CHANGE",
        "10.44.16.20,  255.255.255.0, 10.44.16.1,   10.44.16.20,  KEEP KEEP KEEP CHANGE",
        "10.9.9.7,     255.255.255.0, 10.9.9.1,     10.44.16.20,  ALARM KEEP ALARM CHANGE",
        "10.44.16.131, 255.255.0.0,   10.44.16.254, 10.44.16.20,  CHANGE ALARM ALARM CHANGE",
        "10.44.16.131, 255.255.255.0, 10.44.16.1,   10.44.16.140, ALARM KEEP KEEP CHANGE",
    })
    void lease(String address, String mask, String gateway, String planned, String acts) {
        var lines = LeaseCompare.compare(
                new Lease(a(address), a(mask), a(gateway), List.of()), SHOP, List.of(a("10.44.16.1")), a(planned));
        assertThat(lines.stream().map(l -> l.act().name()).toList()).isEqualTo(Arrays.asList(acts.split(" ")));
    }

    @Test
    void aFrozenLeaseIsSafeOnlyUntilItEnds() {
        var frozen = new Sighting(
                a("10.44.16.131"), Optional.empty(), Source.LEASES, NOW, Optional.of(NOW.plus(Duration.ofHours(9))));
        assertThat(conflicts(List.of(endpoint(1, "10.44.16.131", null, null)), List.of(), frozen))
                .extracting(Conflict::message)
                .containsExactly(
                        "E1: 10.44.16.131 lies in the pool 10.44.16.100 to 10.44.16.199 and may be handed out to "
                                + "another device in 9 h, when its lease ends.");
    }

    @Test
    void twoThousandAreCheckedWithoutLosingOne() {
        var wide = new PlannedSegment(
                1, "Wide", segment("10.60.0.0/20", "10.60.0.1"), List.of(a("10.60.0.1")), Duration.ofHours(1));
        var many = Stream.iterate(0, i -> i < 2000, i -> i + 1)
                .map(i -> endpoint(i, a("10.60.1.0").plus(i).toString(), null, null))
                .toList();
        var found = SiteCheck.conflicts(
                new SitePlan(List.of(wide), List.of(), many, List.of(), List.of(), List.of(), List.of()),
                CLOCK,
                List.of());
        assertThat(found).singleElement().satisfies(c -> {
            assertThat(c.code()).isEqualTo(Code.SLIP_TO_GATEWAY);
            assertThat(c.endpoints()).containsExactly(1L, 257L, 1793L);
            assertThat(c.message()).startsWith(c.endpoints().size() + " in Wide are one slip");
        });
    }
}
