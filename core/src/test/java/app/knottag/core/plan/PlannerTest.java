package app.knottag.core.plan;

import static org.assertj.core.api.Assertions.assertThat;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Ipv4Prefix;
import app.knottag.core.address.Pool;
import app.knottag.core.address.Segment;
import app.knottag.core.plan.Proposal.Choice;
import app.knottag.core.plan.Proposal.Placed;
import app.knottag.core.plan.Proposal.Refused;
import app.knottag.core.series.Series;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class PlannerTest {

    private static final Series TILLS = new Series("Till", 50, 7450);
    private static final Segment SHOP = segment("10.44.16.0/24", "10.44.16.1", "10.44.16.100", "10.44.16.199");
    private static final Map<Ipv4Address, String> LIVING = Map.of(
            a("10.44.16.51"),
            "Till 1",
            a("10.44.16.52"),
            "Till 2",
            a("10.44.16.53"),
            "Till 3",
            a("10.44.16.60"),
            "Copier");

    private static Ipv4Address a(String text) {
        return Ipv4Address.parse(text);
    }

    private static Segment segment(String prefix, String gateway, String from, String to) {
        return new Segment(Ipv4Prefix.parse(prefix), Optional.of(a(gateway)), List.of(new Pool(a(from), a(to))));
    }

    private static Placed placed(Proposal proposal) {
        return proposal.match(p -> p, r -> {
            throw new AssertionError(r.clash());
        });
    }

    @Test
    void theNumbersOwnAddressComesFirstAndIsExplained() {
        var placed = placed(new Planner(SHOP, LIVING).propose(Optional.of(TILLS), 4));
        assertThat(placed.choice()).isEqualTo(new Choice(a("10.44.16.54"), List.of("Till 1")));
        assertThat(placed.reasons())
                .containsExactly(
                        "Host 50 + 4, as for every one of “Till”; room to number 49.",
                        "Outside the pool 10.44.16.100 to 10.44.16.199, and nobody on record has 10.44.16.54.",
                        "One slip of a finger away from Till 1: read the last group aloud.");
        assertThat(placed.alternatives())
                .hasSize(3)
                .allSatisfy(c -> assertThat(c.oneSlipFrom()).isEmpty());
    }

    @DisplayName("When the number's address cannot be had, the reason is said and a safe one proposed")
    @ParameterizedTest(name = "number {0}: {1}")
    @CsvSource(
            delimiter = '|',
            value = {
                "1   | Host 50 + 1 would be 10.44.16.51, which is taken by Till 1; the safest free one is proposed instead.",
                "60  | Host 50 + 60 would be 10.44.16.110, which lies in the pool 10.44.16.100 to 10.44.16.199; the "
                        + "safest free one is proposed instead.",
                "205 | Host 50 + 205 leaves 10.44.16.0/24; room ends at number 49.",
            })
    void saysWhyNot(int number, String reason) {
        var placed = placed(new Planner(SHOP, LIVING).propose(Optional.of(TILLS), number));
        assertThat(placed.reasons()).first().isEqualTo(reason);
        assertThat(placed.choice().oneSlipFrom()).isEmpty();
        assertThat(SHOP.fixable(placed.choice().address())).isTrue();
        assertThat(LIVING).doesNotContainKey(placed.choice().address());
    }

    @Test
    void aFullSegmentIsRefusedWithTheLeastChange() {
        var small = segment("10.0.0.0/29", "10.0.0.1", "10.0.0.4", "10.0.0.6");
        var proposal = new Planner(small, Map.of(a("10.0.0.2"), "A", a("10.0.0.3"), "B")).propose(Optional.empty(), 0);
        assertThat(proposal)
                .isEqualTo(new Refused(
                        "No address is left to fix in 10.0.0.0/29: every one is taken or in a pool.",
                        "Shorten the pool 10.0.0.4 to 10.0.0.6, or retire an endpoint."));
        assertThat(small.fixableHosts()).isEqualTo(2);
    }

    @Test
    void nextFreeGoesUpwardsFirst() {
        var planner = new Planner(SHOP, LIVING);
        assertThat(planner.nextFree(a("10.44.16.51"))).contains(a("10.44.16.54"));
        assertThat(planner.nextFree(a("10.44.16.254"))).contains(a("10.44.16.253"));
    }

    @DisplayName("Usable hosts, with RFC 3021 for /31")
    @ParameterizedTest(name = "{0} has {1}")
    @CsvSource({"10.0.0.0/24, 254", "10.0.0.0/31, 2", "10.0.0.1/32, 1", "0.0.0.0/0, 4294967294", "10.0.0.0/29, 6"})
    void countsUsableHosts(String prefix, long expected) {
        assertThat(Ipv4Prefix.parse(prefix).usableHosts()).isEqualTo(expected);
    }

    @DisplayName("A series gives address and port by number, and says where it ends")
    @ParameterizedTest(name = "{0} + {1} in {2}: {3}")
    @CsvSource(
            nullValues = "-",
            value = {
                "50, 4, 10.44.16.0/24, 10.44.16.54",
                "50, 204, 10.44.16.0/24, 10.44.16.254",
                "50, 205, 10.44.16.0/24, -",
                "300, 1, 10.44.16.0/22, 10.44.17.45",
                "0, 1, 10.0.0.0/30, 10.0.0.1",
            })
    void worksOutSeries(int base, int number, String prefix, String address) {
        assertThat(new Series("x", base, 7400)
                        .address(Ipv4Prefix.parse(prefix), number)
                        .map(Object::toString)
                        .orElse(null))
                .isEqualTo(address);
    }

    @Test
    void portsEndAt65535() {
        assertThat(new Series("x", 0, 65_500).port(35)).hasValue(65_535);
        assertThat(new Series("x", 0, 65_500).port(36)).isEmpty();
        assertThat(new Series("x", 0, 0).port(3)).isEmpty();
        assertThat(new Series("x", 120, 0).lastFitting(SHOP)).isZero();
    }

    @Test
    void theSafestFreeAddressIsReallyTheSafest() {
        var living = new TreeMap<Ipv4Address, String>();
        for (int host = 2; host < 60; host += 3)
            living.put(SHOP.prefix().network().plus(host), "E" + host);
        var planner = new Planner(SHOP, living);
        int best = placed(planner.propose(Optional.empty(), 0))
                .choice()
                .oneSlipFrom()
                .size();
        for (int host = 2; host <= 254; host++) {
            var address = SHOP.prefix().network().plus(host);
            if (SHOP.fixable(address) && !living.containsKey(address))
                assertThat(planner.choice(address).oneSlipFrom().size()).isGreaterThanOrEqualTo(best);
        }
    }
}
