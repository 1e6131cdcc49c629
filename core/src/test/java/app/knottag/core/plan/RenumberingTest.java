package app.knottag.core.plan;

import static app.knottag.core.plan.PlacementTest.a;
import static app.knottag.core.plan.PlacementTest.randomGround;
import static app.knottag.core.plan.PlacementTest.segment;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Ipv4Prefix;
import app.knottag.core.address.Pool;
import app.knottag.core.address.Segment;
import app.knottag.core.plan.RenumberSteps.Kind;
import app.knottag.core.plan.RenumberSteps.Step;
import app.knottag.core.plan.Renumbering.Addressing;
import app.knottag.core.plan.Renumbering.Impossible;
import app.knottag.core.plan.Renumbering.Planned;
import app.knottag.core.plan.SitePlan.PlannedEndpoint;
import app.knottag.core.plan.SitePlan.PlannedPartner;
import app.knottag.core.plan.SitePlan.PlannedSegment;
import java.time.Duration;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.SplittableRandom;
import java.util.regex.Pattern;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class RenumberingTest {

    static PlannedEndpoint endpoint(long id, String address, Method method, Long partner) {
        return new PlannedEndpoint(
                id,
                "E" + id,
                "e" + id,
                1,
                Optional.of(a(address)),
                method,
                Optional.empty(),
                Optional.empty(),
                Optional.empty(),
                Optional.ofNullable(partner),
                Optional.of(7450),
                Optional.empty(),
                false);
    }

    static PlannedSegment planned(Segment segment) {
        return new PlannedSegment(1, "Shop", segment, List.of(), Duration.ofHours(12));
    }

    private static SitePlan site(Segment old, List<PlannedEndpoint> endpoints, List<PlannedPartner> partners) {
        return new SitePlan(List.of(planned(old)), List.of(), endpoints, partners, List.of(), List.of(), List.of());
    }

    private static Addressing addressing(Segment segment) {
        return new Addressing(segment, List.of());
    }

    private static Planned plan(SitePlan site, Segment next) {
        return (Planned) Renumbering.plan(site, site.segments().get(0), addressing(next));
    }

    private static final Segment OLD = segment("10.44.16.0/24", "10.44.16.1", "10.44.16.100", "10.44.16.199");

    @Test
    void hostPartsStayAndEveryPointerIsNamed() {
        var site = site(
                OLD,
                List.of(
                        endpoint(1, "10.44.16.51", Method.FIXED, 9L),
                        endpoint(2, "10.44.16.20", Method.RESERVED, null)),
                List.of(new PlannedPartner(9, "Till 1 workstation", a("10.44.16.31"))));
        var plan = plan(site, segment("10.60.2.0/24", "10.60.2.254", "10.60.2.20", "10.60.2.40"));
        assertThat(plan.changedHosts()).isEqualTo(2);
        assertThat(plan.moves())
                .extracting(m -> m.mover().name() + " " + m.keepsHost() + " " + m.pointers())
                .containsExactly(
                        "E2 false [In the reservation list change 10.44.16.20 to "
                                + plan.moves().get(0).to() + ".]",
                        "Till 1 workstation false [In E1 set the partner's address to "
                                + plan.moves().get(1).to() + ".]",
                        "E1 true [In the set-up of Till 1 workstation point it at 10.60.2.51, port 7450.]");
    }

    @Test
    void anotherGatewayInTheSameNetworkMovesOnlyWhoStandsInTheWay() {
        var site = site(
                OLD,
                List.of(
                        endpoint(1, "10.44.16.254", Method.FIXED, null),
                        endpoint(2, "10.44.16.20", Method.FIXED, null),
                        endpoint(3, "10.44.16.90", Method.FIXED, null)),
                List.of());
        var next = segment("10.44.16.0/24", "10.44.16.254", "10.44.16.80", "10.44.16.99");
        var plan = plan(site, next);
        assertThat(plan.moves()).extracting(m -> m.mover().name()).containsExactly("E3", "E1");
        assertThat(plan.staying()).isEqualTo(1);
        var steps = RenumberSteps.of(
                plan, Renumbering.movers(site, site.segments().get(0)), addressing(OLD), addressing(next));
        assertThat(steps)
                .extracting(Step::kind)
                .containsExactly(
                        Kind.PREPARE,
                        Kind.LAPTOP,
                        Kind.MOVE,
                        Kind.MOVE,
                        Kind.ROUTER,
                        Kind.REFIT,
                        Kind.TIDY,
                        Kind.PROVE);
        assertThat(steps.get(5).lines())
                .containsExactly("Its address 10.44.16.20 stays. On it set gateway 10.44.16.254; save, restart.");
        assertThat(steps.get(4).lines()).contains("Its LAN address: 10.44.16.254, mask 255.255.255.0.");
    }

    @Test
    void groundThatIsTooSmallSaysWhoAndWhatWouldHelp() {
        var site = site(
                OLD,
                List.of(
                        endpoint(1, "10.44.16.51", Method.FIXED, null),
                        endpoint(2, "10.44.16.52", Method.FIXED, null),
                        endpoint(3, "10.44.16.53", Method.FIXED, null)),
                List.of());
        var outcome = (Impossible)
                Renumbering.plan(site, site.segments().get(0), addressing(segment("10.60.2.0/30", "10.60.2.1")));
        assertThat(outcome.clash().names()).containsExactly("E1", "E2", "E3");
        assertThat(outcome.clash().leastChanges()).containsExactly("Take the wider prefix 10.60.2.0/29.");
    }

    @Test
    void aRingIsOpenedByParkingOne() {
        var wishes = List.of(
                new MoveOrder.Wish(1, a("10.0.0.2"), a("10.0.0.3")),
                new MoveOrder.Wish(2, a("10.0.0.3"), a("10.0.0.4")),
                new MoveOrder.Wish(3, a("10.0.0.4"), a("10.0.0.2")),
                new MoveOrder.Wish(4, a("10.0.0.5"), a("10.0.0.6")));
        assertThat(MoveOrder.order(wishes, List.of(a("10.0.0.9"))).before())
                .extracting(
                        h -> h.id() + " " + h.to().map(Object::toString).orElse("off") + (h.parked() ? " parked" : ""))
                .containsExactly("4 10.0.0.6", "1 10.0.0.9 parked", "3 10.0.0.2", "2 10.0.0.4", "1 10.0.0.3");
        assertThat(MoveOrder.order(wishes, List.of()).before())
                .extracting(MoveOrder.Hop::parked)
                .containsExactly(false, true, false, false, false);
    }

    /** The fewest changed host parts, by trying every choice of who keeps theirs. */
    private static int fewestChanges(
            Segment old, Segment next, Set<Ipv4Address> free, List<Ipv4Address> froms, int at) {
        if (at == froms.size()) return 0;
        long host = froms.get(at).number() - old.prefix().network().number();
        var same = Ipv4Address.ofNumber(next.prefix().network().number() + host);
        int best = Integer.MAX_VALUE / 2;
        for (var to : List.copyOf(free)) {
            free.remove(to);
            best = Math.min(best, fewestChanges(old, next, free, froms, at + 1) + (to.equals(same) ? 0 : 1));
            free.add(to);
        }
        return best;
    }

    @DisplayName("As few host parts change as trying everything finds")
    @ParameterizedTest(name = "seed {0}")
    @ValueSource(longs = {1, 2, 3})
    void movesAsFewAsCanBe(long seed) {
        var r = new SplittableRandom(seed);
        int found = 0;
        for (int round = 0; round < PlacementTest.SITES; round++) {
            var old = segment("10.9.0.0/28", "10.9.0.1");
            var next = randomGround(r, r.nextBoolean() ? "10.9.0.0" : "10.20.0.0");
            var endpoints = new ArrayList<PlannedEndpoint>();
            var used = new HashSet<Integer>();
            for (long id = r.nextInt(1, 5); id > 0; id--) {
                int host = r.nextInt(2, 15);
                if (used.add(host)) endpoints.add(endpoint(id, "10.9.0." + host, Method.FIXED, null));
            }
            var site = site(old, endpoints, List.of());
            var free = new HashSet<Ipv4Address>();
            for (var x = next.prefix().lowestUsable(); next.prefix().usable(x); x = x.plus(1))
                if (next.fixable(x) && !old.gateway().equals(Optional.of(x))) free.add(x);
            var outcome = Renumbering.plan(site, site.segments().get(0), addressing(next));
            assertThat(outcome instanceof Planned).isEqualTo(free.size() >= endpoints.size());
            if (!(outcome instanceof Planned p)) continue;
            found++;
            assertThat(p.changedHosts())
                    .isEqualTo(fewestChanges(
                            old,
                            next,
                            free,
                            endpoints.stream().map(e -> e.address().get()).toList(),
                            0));
        }
        assertThat(found).isGreaterThan(30);
    }

    @DisplayName("No two ever hold the same address, and every device is touched from a network where it still is")
    @ParameterizedTest(name = "seed {0}")
    @ValueSource(longs = {1, 2, 3, 4})
    void neverTwoAtOnceAndNeverCutOff(long seed) {
        var r = new SplittableRandom(seed);
        int found = 0;
        for (int round = 0; round < PlacementTest.SITES; round++) {
            int few = r.nextInt(3, 13), hosts = few < 8 && r.nextBoolean() ? 14 : 62;
            var old = ground(r, "10.9.0.", hosts, "10.9.0.1");
            var next = r.nextInt(4) == 0
                    ? ground(r, "10.20.0.", 62, "10.20.0.9")
                    : ground(r, "10.9.0.", r.nextInt(4) == 0 ? 30 : hosts, "10.9.0." + r.nextInt(2, hosts));
            var endpoints = new ArrayList<PlannedEndpoint>();
            var used = new HashSet<Integer>();
            for (long id = 1; id <= few; id++) {
                int host = r.nextInt(2, hosts);
                if (used.add(host))
                    endpoints.add(
                            endpoint(id, "10.9.0." + host, r.nextInt(3) == 0 ? Method.RESERVED : Method.FIXED, null));
            }
            var site = site(old, endpoints, List.of());
            var becomes = new Addressing(next, r.nextBoolean() ? List.of(a("10.9.0.7")) : List.of());
            if (Renumbering.plan(site, site.segments().get(0), becomes) instanceof Planned planned) {
                walk(site, old, becomes, planned);
                found++;
            }
        }
        assertThat(found).isGreaterThan(PlacementTest.SITES * 3 / 4);
    }

    /** A network with a pool somewhere, of so many hosts. */
    private static Segment ground(SplittableRandom r, String start, int hosts, String gateway) {
        int from = r.nextInt(2, hosts - 2), to = r.nextInt(from, Math.min(hosts, from + hosts / 2));
        var next = segment(start + "0/" + (32 - Integer.bitCount(hosts + 1)), gateway, start + from, start + to);
        if (next.poolOf(a(gateway)).isEmpty()) return next;
        return new Segment(next.prefix(), next.gateway(), List.of());
    }

    /**
     * The fewest changes of an address with which all arrive, by trying every order: nobody moves to an address that
     * somebody holds, that the router has or that it hands out at that time, a reservation of the new network is made when
     * the router is changed, and whoever stands on what the new router has or hands out has left by then.
     */
    private static int fewestSteps(Planned planned, Segment old, Segment next) {
        var moves = planned.moves();
        int end = 2 * (int) Math.pow(3, moves.size());
        int[] steps = new int[end];
        Arrays.fill(steps, Integer.MAX_VALUE);
        steps[0] = 0;
        var queue = new ArrayDeque<>(List.of(0));
        while (!queue.isEmpty()) {
            int state = queue.remove();
            boolean changed = state % 2 == 1;
            var now = changed ? next : old;
            // Where each is: 0 at its old address, 1 at its new one, 2 off the network.
            var at = new int[moves.size()];
            for (int i = 0, s = state / 2; i < at.length; i++, s /= 3) at[i] = s % 3;
            var held = new HashSet<Ipv4Address>();
            for (int i = 0; i < at.length; i++)
                if (at[i] < 2)
                    held.add(
                            at[i] == 0
                                    ? moves.get(i).mover().from()
                                    : moves.get(i).to());
            var then = new HashMap<Integer, Integer>();
            if (!changed
                    && held.stream()
                            .noneMatch(h ->
                                    next.poolOf(h).isPresent() || next.gateway().equals(Optional.of(h))))
                then.put(state + 1, steps[state]);
            for (int i = 0, place = 2; i < at.length; i++, place *= 3) {
                var move = moves.get(i);
                if (at[i] == 0) then.put(state + 2 * place, steps[state] + 1);
                boolean reserved = move.mover().method() == Method.RESERVED
                        && !old.prefix().contains(move.to());
                if (at[i] != 1
                        && !held.contains(move.to())
                        && now.poolOf(move.to()).isEmpty()
                        && !now.gateway().equals(Optional.of(move.to()))
                        && (changed || !reserved)) then.put(state + (1 - at[i]) * place, steps[state] + 1);
            }
            then.forEach((s, n) -> {
                if (n >= steps[s]) return;
                steps[s] = n;
                if (n == steps[state]) queue.addFirst(s);
                else queue.add(s);
            });
        }
        int all = 1;
        for (int i = 0, place = 2; i < moves.size(); i++, place *= 3) all += place;
        return steps[all];
    }

    private static void walk(SitePlan site, Segment old, Addressing becomes, Planned planned) {
        var next = becomes.segment();
        var holds = new HashMap<Long, Ipv4Address>();
        site.endpoints().forEach(e -> holds.put(e.id(), e.address().get()));
        var router = old.gateway().get();
        boolean laptop = false, changed = false;
        var told = new HashSet<Long>();
        int hops = 0;
        for (var step : RenumberSteps.of(
                planned, Renumbering.movers(site, site.segments().get(0)), addressing(old), becomes)) {
            if (step.kind() == Kind.LAPTOP) {
                laptop = true;
                clearOfPools(step, old, next, room(old, next, planned, holds.values()));
            }
            if (step.kind() == Kind.ROUTER) {
                router = next.gateway().get();
                changed = true;
                assertThat(holds.values())
                        .as("handed out from now on")
                        .noneMatch(h -> next.poolOf(h).isPresent());
            }
            if (step.kind() == Kind.TIDY) laptop = false;
            if (step.mover() == null) {
                assertThat(holds.values()).as(step.title()).doesNotContain(router);
                continue;
            }
            assertThat(laptop)
                    .as("the laptop stands in both networks at: " + step.title())
                    .isTrue();
            var method = site.endpoints().stream()
                    .filter(e -> e.id() == step.mover())
                    .findFirst()
                    .orElseThrow()
                    .method();
            if (method == Method.RESERVED && step.to() != null)
                assertThat(changed || old.prefix().contains(step.to()))
                        .as(step.title())
                        .isTrue();
            if (step.kind() != Kind.PARK) told.add(step.mover());
            if (step.kind() != Kind.REFIT) hops++;
            if (step.kind() != Kind.REFIT && step.to() != null) {
                assertThat((changed ? next : old).poolOf(step.to()))
                        .as(step.title())
                        .isEmpty();
                assertThat(step.lines().stream().anyMatch(l -> l.startsWith("Look first")))
                        .as(step.title() + ", which the old router handed out")
                        .isEqualTo(old.poolOf(step.to()).isPresent());
            }
            if (step.kind() == Kind.REFIT) assertThat(changed).as(step.title()).isTrue();
            else if (step.to() == null) holds.remove(step.mover());
            else {
                assertThat(holds.values()).as(step.title()).doesNotContain(step.to());
                assertThat(step.to()).as(step.title()).isNotEqualTo(router);
                holds.put(step.mover(), step.to());
            }
        }
        assertThat(holds.values()).doesNotHaveDuplicates().allMatch(next.prefix()::usable);
        planned.moves().forEach(m -> assertThat(holds).containsEntry(m.mover().id(), m.to()));
        if (planned.moves().size() < 8)
            assertThat(hops).as("fewest changes").isEqualTo(fewestSteps(planned, old, next));
        boolean same = old.prefix().mask().equals(next.prefix().mask())
                && old.gateway().equals(next.gateway())
                && becomes.resolvers().isEmpty();
        for (var e : site.endpoints())
            assertThat(told.contains(e.id()))
                    .as("a step for " + e.name() + ", of which a figure changes")
                    .isEqualTo(!same || !holds.get(e.id()).equals(e.address().get()));
    }

    private static final Pattern GIVEN = Pattern.compile("(?:Give it|Add) ([0-9.]+), mask");

    /** Addresses that are nobody's at any time, of both networks. */
    private static List<Ipv4Address> room(Segment old, Segment next, Planned planned, Collection<Ipv4Address> held) {
        var free = new ArrayList<Ipv4Address>();
        for (var ground : List.of(old, next))
            for (var x = ground.prefix().lowestUsable(); ground.prefix().usable(x); x = x.plus(1))
                if (old.poolOf(x).isEmpty() && next.poolOf(x).isEmpty() && !held.contains(x)) free.add(x);
        free.removeAll(List.of(old.gateway().get(), next.gateway().get()));
        free.removeAll(planned.moves().stream().map(m -> m.to()).toList());
        return free;
    }

    /** Where an address outside both pools is free, the laptop gets one; else it is told. */
    private static void clearOfPools(Step laptop, Segment old, Segment next, List<Ipv4Address> room) {
        for (String line : laptop.lines()) {
            var given = GIVEN.matcher(line);
            if (!given.find()) continue;
            var at = a(given.group(1));
            boolean pooled = old.poolOf(at).isPresent() || next.poolOf(at).isPresent();
            assertThat(laptop.lines().stream()
                            .anyMatch(l ->
                                    l.startsWith("The router hands out " + at) && l.endsWith("nothing else is free.")))
                    .isEqualTo(pooled);
            var ground = line.startsWith("Give") ? old : next;
            var other = line.startsWith("Give") ? next : old;
            assertThat(pooled
                            && room.stream()
                                    .anyMatch(x -> ground.fixable(x)
                                            && (!other.prefix().contains(x)
                                                    || other.prefix().usable(x))))
                    .as(line + " " + room)
                    .isFalse();
        }
    }

    @Test
    void aSchemeFillsAnotherShopAndRefusesAnotherProvidersSheet() {
        var scheme = Scheme.of(OLD, List.of(a("10.44.16.1"), a("203.0.113.9")), List.of());
        var filled = scheme.fill(Ipv4Prefix.parse("10.44.17.0/24"));
        assertThat(filled.segment().gateway()).contains(a("10.44.17.1"));
        assertThat(filled.segment().pools()).containsExactly(new Pool(a("10.44.17.100"), a("10.44.17.199")));
        assertThat(filled.resolvers()).containsExactly(a("10.44.17.1"), a("203.0.113.9"));
        assertThatThrownBy(() -> scheme.fill(Ipv4Prefix.parse("10.44.17.0/25")))
                .hasMessage(
                        "This scheme is for a /24, the prefix found is 10.44.17.0/25: another provider's sheet, or another kind of site.");
    }
}
