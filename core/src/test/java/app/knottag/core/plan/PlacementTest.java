package app.knottag.core.plan;

import static org.assertj.core.api.Assertions.assertThat;

import app.knottag.core.address.AddressRange;
import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Ipv4Prefix;
import app.knottag.core.address.Pool;
import app.knottag.core.address.Segment;
import app.knottag.core.plan.Placement.Clash;
import app.knottag.core.plan.Placement.Placed;
import app.knottag.core.plan.Placement.Request;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.SplittableRandom;
import java.util.stream.IntStream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class PlacementTest {

    /** How many random small sites each seed tries; ./knot bench tries more. */
    static final int SITES = Integer.getInteger("knot.sites", 120);

    static Ipv4Address a(String text) {
        return Ipv4Address.parse(text);
    }

    static Segment segment(String prefix, String gateway, String... pool) {
        return new Segment(
                Ipv4Prefix.parse(prefix),
                Optional.ofNullable(gateway).map(Ipv4Address::parse),
                pool.length == 0 ? List.of() : List.of(new Pool(a(pool[0]), a(pool[1]))));
    }

    private static Request wish(String name, String wanted) {
        return new Request(name, Optional.of(a(wanted)), List.of());
    }

    private static final Segment SHOP = segment("10.44.16.0/24", "10.44.16.1", "10.44.16.100", "10.44.16.199");

    @Test
    void everyoneGetsWhatTheyWantWhenItIsFree() {
        var pads = IntStream.rangeClosed(1, 8)
                .mapToObj(n -> wish("Pad " + n, "10.44.16." + (70 + n)))
                .toList();
        var placed = (Placed) new Placement(SHOP, Map.of(a("10.44.16.74"), "Copier")).place(pads);
        assertThat(placed.given())
                .filteredOn(g -> !g.asWanted())
                .singleElement()
                .satisfies(g -> {
                    assertThat(g.request().name()).isEqualTo("Pad 4");
                    assertThat(g.choice().oneSlipFrom()).isEmpty();
                    assertThat(SHOP.fixable(g.choice().address())).isTrue();
                });
    }

    @DisplayName("What cannot be met is named, with the least that would have to give")
    @ParameterizedTest(name = "{0} pool {1} to {2}, {3} wanted")
    @CsvSource(
            delimiter = '|',
            value = {
                "10.0.0.0/29 | 10.0.0.4 | 10.0.0.6 | 3 | 3 ask for 2 addresses in 10.0.0.0/29: A1, A2, A3. | End the "
                        + "pool 10.0.0.4 to 10.0.0.6 at 10.0.0.5.; Take the wider prefix 10.0.0.0/28.",
                "10.0.0.0/29 | 10.0.0.2 | 10.0.0.6 | 1 | A1 finds no free address in 10.0.0.0/29. | End the pool "
                        + "10.0.0.2 to 10.0.0.6 at 10.0.0.5.; Take the wider prefix 10.0.0.0/28.",
                "10.0.0.0/29 | 10.0.0.6 | 10.0.0.6 | 7 | 7 ask for 4 addresses in 10.0.0.0/29: A1, A2, A3 and 4 more. | "
                        + "Take the wider prefix 10.0.0.0/28.",
            })
    void clashes(String prefix, String from, String to, int count, String clash, String least) {
        var ground = segment(prefix, "10.0.0.1", from, to);
        var requests = IntStream.rangeClosed(1, count)
                .mapToObj(i -> new Request("A" + i, Optional.empty(), List.of()))
                .toList();
        var outcome = (Clash) new Placement(ground, Map.of()).place(requests);
        assertThat(outcome.clash()).isEqualTo(clash);
        assertThat(String.join("; ", outcome.leastChanges())).isEqualTo(least);
    }

    @Test
    void aTightStretchIsSharedOutAndOnlyItsOwnRequestsAreNamed() {
        var stretch = List.of(new AddressRange(a("10.44.16.60"), a("10.44.16.61")));
        var requests = List.of(
                new Request("A", Optional.empty(), stretch),
                new Request("B", Optional.empty(), stretch),
                new Request("C", Optional.empty(), List.of()));
        assertThat(new Placement(SHOP, Map.of()).place(requests)).isInstanceOf(Placed.class);
        var clash = (Clash) new Placement(SHOP, Map.of(a("10.44.16.60"), "X")).place(requests);
        assertThat(clash.names()).containsExactly("A", "B");
        assertThat(clash.leastChanges()).first().isEqualTo("Let 1 of them lie outside the stretch.");
    }

    /** A random small site: a /29 or /28, perhaps a pool, some living, some who want to be in a stretch. */
    private static List<Request> random(SplittableRandom r, Segment ground, int most) {
        var requests = new ArrayList<Request>();
        long low = ground.prefix().lowestUsable().number(),
                high = ground.prefix().highestUsable().number();
        for (int i = r.nextInt(1, most + 1); i > 0; i--) {
            long from = r.nextLong(low, high + 1), to = r.nextLong(from, high + 1);
            requests.add(new Request(
                    "R" + i,
                    r.nextBoolean() ? Optional.of(Ipv4Address.ofNumber(r.nextLong(low, high + 1))) : Optional.empty(),
                    r.nextInt(3) == 0
                            ? List.of()
                            : List.of(new AddressRange(Ipv4Address.ofNumber(from), Ipv4Address.ofNumber(to)))));
        }
        return requests;
    }

    static Segment randomGround(SplittableRandom r, String network) {
        var prefix = Ipv4Prefix.around(a(network), r.nextBoolean() ? 29 : 28);
        long low = prefix.lowestUsable().number(), high = prefix.highestUsable().number();
        long from = r.nextLong(low + 1, high), to = r.nextLong(from, high);
        var pool = new Pool(Ipv4Address.ofNumber(from), Ipv4Address.ofNumber(to));
        return new Segment(prefix, Optional.of(prefix.lowestUsable()), r.nextBoolean() ? List.of(pool) : List.of());
    }

    /** The most wishes that can be granted, by trying everything; -1 when there is no plan. */
    private static int exhaustive(Segment ground, Set<Ipv4Address> taken, List<Request> requests, int at) {
        if (at == requests.size()) return 0;
        int best = -1;
        var request = requests.get(at);
        for (var x = ground.prefix().lowestUsable(); ground.prefix().usable(x); x = x.plus(1)) {
            var address = x;
            boolean inside =
                    request.within().isEmpty() || request.within().stream().anyMatch(w -> w.contains(address));
            if (!inside || !ground.fixable(x) || !taken.add(x)) continue;
            int rest = exhaustive(ground, taken, requests, at + 1);
            if (rest >= 0) best = Math.max(best, rest + (request.wanted().equals(Optional.of(x)) ? 1 : 0));
            taken.remove(address);
        }
        return best;
    }

    @DisplayName("A plan is found whenever trying everything finds one, and grants as many wishes")
    @ParameterizedTest(name = "seed {0}")
    @ValueSource(longs = {1, 2, 3})
    void asGoodAsTryingEverything(long seed) {
        var r = new SplittableRandom(seed);
        int possible = 0;
        for (int site = 0; site < SITES; site++) {
            var ground = randomGround(r, "10.9.0.0");
            var living = new HashMap<Ipv4Address, String>();
            for (int i = r.nextInt(5); i > 0; i--)
                living.put(ground.prefix().lowestUsable().plus(r.nextInt(1, 5)), "L" + i);
            var requests = random(r, ground, 4);
            int best = exhaustive(ground, new HashSet<>(living.keySet()), requests, 0);
            var outcome = new Placement(ground, living).place(requests);
            if (best < 0) {
                assertThat(outcome).isInstanceOf(Clash.class);
                continue;
            }
            possible++;
            var given = ((Placed) outcome).given();
            assertThat(given).extracting(g -> g.choice().address()).doesNotHaveDuplicates();
            assertThat(given).allSatisfy(g -> {
                assertThat(ground.fixable(g.choice().address())).isTrue();
                assertThat(living).doesNotContainKey(g.choice().address());
            });
            assertThat(given.stream()
                            .filter(g -> g.request()
                                    .wanted()
                                    .equals(Optional.of(g.choice().address()))))
                    .hasSize(best);
        }
        assertThat(possible).isGreaterThan(40);
    }

    @Test
    void freeStretchesLeaveOutPoolGatewayAndLiving() {
        assertThat(new Placement(SHOP, Map.of(a("10.44.16.20"), "Clock", a("10.44.16.254"), "Hub")).freeStretches())
                .extracting(AddressRange::toString)
                .containsExactly(
                        "10.44.16.21 to 10.44.16.99", "10.44.16.200 to 10.44.16.253", "10.44.16.2 to 10.44.16.19");
        assertThat(new Placement(segment("10.0.0.0/30", "10.0.0.1"), Map.of()).freeStretches())
                .extracting(AddressRange::toString)
                .containsExactly("10.0.0.2");
    }
}
