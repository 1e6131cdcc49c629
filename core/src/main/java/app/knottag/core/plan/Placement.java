package app.knottag.core.plan;

import app.knottag.core.address.AddressRange;
import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Ipv4Prefix;
import app.knottag.core.address.Pool;
import app.knottag.core.address.Segment;
import app.knottag.core.plan.Proposal.Choice;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.Function;
import java.util.function.ToLongFunction;

/**
 * Places many endpoints at once. As many as can be get the address that they want; the others the free ones that the
 * fewest keying slips turn into a living one. A plan is found whenever there is one.
 */
public final class Placement {

    private static final long OVERRULED = 1_000_000;
    private static final long SLIP = 1_000;
    private static final long DOUBT = 400_000;
    private static final int LOOKED_AT_MORE = 64;

    private final Segment segment;
    private final Map<Ipv4Address, String> living;
    private final Map<Ipv4Address, String> doubtful;
    private final List<Pool> before;

    /**
     * @param living names of those that hold addresses of the site
     */
    public Placement(Segment segment, Map<Ipv4Address, String> living) {
        this(segment, Occupied.of(living));
    }

    /**
     * @param occupied what is not to be given, and what only when nothing better is left
     */
    public Placement(Segment segment, Occupied occupied) {
        this(segment, occupied, List.of());
    }

    /**
     * @param before what was handed out until now, to be given only when nothing better is left either
     */
    Placement(Segment segment, Occupied occupied, List<Pool> before) {
        this.segment = segment;
        this.before = List.copyOf(before);
        living = occupied.held();
        doubtful = occupied.doubtful();
    }

    /**
     * What one endpoint asks for.
     *
     * @param wanted address that it should have when that can be, such as its number's own
     * @param within stretches that it must lie in; empty for anywhere
     */
    public record Request(String name, Optional<Ipv4Address> wanted, List<AddressRange> within) {
        public Request {
            within = List.copyOf(within);
        }
    }

    /** What one endpoint gets. */
    public record Given(Request request, Choice choice) {

        /** Whether it got what it wanted, or wanted nothing in particular. */
        public boolean asWanted() {
            return request.wanted().isEmpty() || request.wanted().get().equals(choice.address());
        }
    }

    /** What comes of placing: a place for each, or the requests that stand in each other's way. */
    public sealed interface Outcome {
        <R> R match(Function<Placed, R> ifPlaced, Function<Clash, R> ifClash);
    }

    /** A place for each request, in their order. */
    public record Placed(List<Given> given) implements Outcome {
        @Override
        public <R> R match(Function<Placed, R> ifPlaced, Function<Clash, R> ifClash) {
            return ifPlaced.apply(this);
        }
    }

    /**
     * Requests that cannot all be met.
     *
     * @param names those that stand in each other's way
     * @param clash what they share, in a sentence
     * @param leastChanges what would have to give, least first
     */
    public record Clash(List<String> names, String clash, List<String> leastChanges) implements Outcome {
        @Override
        public <R> R match(Function<Placed, R> ifPlaced, Function<Clash, R> ifClash) {
            return ifClash.apply(this);
        }
    }

    /** Places all requests, or says which stand in each other's way. */
    public Outcome place(List<Request> requests) {
        var solved = solve(requests);
        if (solved.unserved() >= 0) return clash(requests, solved);
        var given = new ArrayList<Given>();
        var together = new HashMap<>(living);
        for (int i = 0; i < requests.size(); i++)
            together.put(solved.addresses().get(i), requests.get(i).name());
        var planner = new Planner(segment, together);
        for (int i = 0; i < requests.size(); i++)
            given.add(
                    new Given(requests.get(i), planner.choice(solved.addresses().get(i))));
        return new Placed(List.copyOf(given));
    }

    /** What each request may have and what it gets, null for nothing. */
    private record Solved(List<Map<Ipv4Address, Long>> domains, List<Ipv4Address> addresses) {
        int unserved() {
            return addresses.indexOf(null);
        }
    }

    private Solved solve(List<Request> requests) {
        int n = requests.size();
        // What the others want counts as in use when a slip is weighed.
        var together = new HashMap<>(living);
        requests.forEach(r -> r.wanted().ifPresent(w -> together.putIfAbsent(w, r.name())));
        var planner = new Planner(segment, together);
        var known = new HashMap<Ipv4Address, Long>();
        ToLongFunction<Ipv4Address> risk = a -> known.computeIfAbsent(
                a, x -> SLIP * planner.choice(x).oneSlipFrom().size() + (doubtful(x) ? DOUBT : 0));
        var domains = requests.stream().map(r -> domain(r, n, risk)).toList();
        var columns = domains.stream()
                .flatMap(d -> d.keySet().stream())
                .distinct()
                .sorted()
                .toList();
        // One column more for each row, which cannot be: so that every row has one.
        int[] chosen = Assignment.solve(costs(domains, columns, n), columns.size() + n);
        var addresses = new ArrayList<Ipv4Address>();
        for (int c : chosen) addresses.add(c < 0 || c >= columns.size() ? null : columns.get(c));
        return new Solved(domains, addresses);
    }

    private boolean doubtful(Ipv4Address address) {
        return doubtful.containsKey(address) || before(address).isPresent();
    }

    private Optional<Pool> before(Ipv4Address address) {
        return before.stream().filter(p -> p.contains(address)).findFirst();
    }

    /** Every address a request may get with its cost; n requests never need more than n addresses each, nor n doubtful ones. */
    private Map<Ipv4Address, Long> domain(Request request, int requests, ToLongFunction<Ipv4Address> risk) {
        var domain = new HashMap<Ipv4Address, Long>();
        long rank = 0;
        int most = requests + LOOKED_AT_MORE, sure = 0, unsure = 0;
        for (var range : ground(request)) {
            var end = range.to();
            for (var a = range.from(); sure < most && a.compareTo(end) <= 0; a = a.plus(1)) {
                boolean doubtful = doubtful(a);
                if (doubtful && unsure >= most) a = before(a).map(Pool::to).orElse(a);
                else if (free(a)) {
                    domain.put(a, OVERRULED + risk.applyAsLong(a) + far(request, a, rank++));
                    if (doubtful) unsure++;
                    else sure++;
                }
            }
        }
        request.wanted()
                .filter(this::free)
                .filter(w -> ground(request).stream().anyMatch(r -> r.contains(w)))
                .ifPresent(w -> domain.put(w, 0L));
        return domain;
    }

    /** Among equally safe ones the nearest to what was wanted comes first, else the lowest. */
    private static long far(Request request, Ipv4Address address, long rank) {
        long far = request.wanted()
                .map(w -> Math.abs(w.number() - address.number()))
                .orElse(rank);
        return Math.min(far, SLIP - 1);
    }

    private List<AddressRange> ground(Request request) {
        var whole = new AddressRange(
                segment.prefix().lowestUsable(), segment.prefix().highestUsable());
        if (request.within().isEmpty()) return List.of(whole);
        return request.within().stream()
                .filter(whole::overlaps)
                .map(r -> new AddressRange(
                        r.from().compareTo(whole.from()) < 0 ? whole.from() : r.from(),
                        r.to().compareTo(whole.to()) > 0 ? whole.to() : r.to()))
                .toList();
    }

    private boolean free(Ipv4Address address) {
        return segment.fixable(address) && !living.containsKey(address);
    }

    private static long[][] costs(List<Map<Ipv4Address, Long>> domains, List<Ipv4Address> columns, int spare) {
        var index = new HashMap<Ipv4Address, Integer>();
        for (int c = 0; c < columns.size(); c++) index.put(columns.get(c), c);
        long[][] cost = new long[domains.size()][columns.size() + spare];
        for (int r = 0; r < cost.length; r++) {
            Arrays.fill(cost[r], Assignment.NEVER);
            for (var e : domains.get(r).entrySet()) cost[r][index.get(e.getKey())] = e.getValue();
        }
        return cost;
    }

    /** After Hall: the requests reachable from the one that got nothing share fewer addresses than they are. */
    private Clash clash(List<Request> requests, Solved solved) {
        int unserved = solved.unserved();
        var holder = new HashMap<Ipv4Address, Integer>();
        for (int i = 0; i < requests.size(); i++)
            if (solved.addresses().get(i) != null) holder.put(solved.addresses().get(i), i);
        var group = new LinkedHashSet<Integer>(List.of(unserved));
        Set<Ipv4Address> shared = new TreeSet<>();
        var queue = new ArrayDeque<>(group);
        while (!queue.isEmpty())
            for (var address : solved.domains().get(queue.remove()).keySet())
                if (shared.add(address) && group.add(holder.get(address))) queue.add(holder.get(address));
        // Others that got nothing belong to it when they could only have had the same addresses.
        for (int i = 0; i < requests.size(); i++)
            if (solved.addresses().get(i) == null
                    && shared.containsAll(solved.domains().get(i).keySet())) group.add(i);
        var names = group.stream().sorted().map(i -> requests.get(i).name()).toList();
        String what = names.size() == 1
                ? names.get(0) + " finds no free address" + where(requests.get(unserved)) + "."
                : names.size() + " ask for " + (shared.size() == 1 ? "one address" : shared.size() + " addresses")
                        + where(requests.get(unserved)) + ": " + listed(names) + ".";
        return new Clash(names, what, leastChanges(requests, names.size() - shared.size()));
    }

    private String where(Request request) {
        return request.within().isEmpty()
                ? " in " + segment.prefix()
                : " in " + request.within().get(0);
    }

    /** Names in a row, the later ones only counted when there are many. */
    static String listed(List<String> names) {
        return names.size() <= 4
                ? String.join(", ", names)
                : String.join(", ", names.subList(0, 3)) + " and " + (names.size() - 3) + " more";
    }

    private List<String> leastChanges(List<Request> requests, int missing) {
        var changes = new ArrayList<String>();
        var anywhere = requests.stream()
                .map(r -> new Request(r.name(), r.wanted(), List.of()))
                .toList();
        if (!anywhere.equals(requests) && feasible(segment, anywhere))
            changes.add("Let " + missing + " of them lie outside the stretch.");
        for (var pool : segment.pools()) shorterPool(pool, requests).ifPresent(changes::add);
        if (segment.prefix().prefixLength() > 8) {
            var wider = Ipv4Prefix.around(
                    segment.prefix().network(), segment.prefix().prefixLength() - 1);
            if (feasible(new Segment(wider, segment.gateway(), segment.pools()), anywhere))
                changes.add("Take the wider prefix " + wider + ".");
        }
        if (changes.isEmpty()) changes.add("Retire " + missing + " on record, or place " + missing + " fewer.");
        return List.copyOf(changes);
    }

    /** The least that a pool must lose, at its end or else at its start. */
    private Optional<String> shorterPool(Pool pool, List<Request> requests) {
        long count = pool.to().number() - pool.from().number() + 1;
        for (long less = 1; less <= Math.min(count, requests.size() * 4L); less++) {
            boolean all = less == count;
            if (!all && feasible(without(pool, new Pool(pool.from(), pool.to().plus(-less))), requests))
                return Optional.of("End the pool " + pool + " at " + pool.to().plus(-less) + ".");
            if (!all && feasible(without(pool, new Pool(pool.from().plus(less), pool.to())), requests))
                return Optional.of(
                        "Start the pool " + pool + " at " + pool.from().plus(less) + ".");
            if (all && feasible(without(pool, null), requests)) return Optional.of("Do without the pool " + pool + ".");
        }
        return Optional.empty();
    }

    private Segment without(Pool old, Pool instead) {
        var pools = new ArrayList<>(segment.pools());
        pools.remove(old);
        if (instead != null) pools.add(instead);
        return new Segment(segment.prefix(), segment.gateway(), pools);
    }

    private boolean feasible(Segment ground, List<Request> requests) {
        return new Placement(ground, new Occupied(living, doubtful), before)
                        .solve(requests)
                        .unserved()
                < 0;
    }

    /** Returns the free stretches of the segment, longest first: usable, in no pool, not the gateway, held by nobody. */
    public List<AddressRange> freeStretches() {
        var stops = new TreeSet<Ipv4Address>(living.keySet());
        segment.gateway().ifPresent(stops::add);
        var stretches = new ArrayList<AddressRange>();
        var at = segment.prefix().lowestUsable();
        var end = segment.prefix().highestUsable();
        while (at.compareTo(end) <= 0) {
            var here = at;
            var pool = segment.poolOf(at);
            if (pool.isPresent()) at = pool.get().to();
            else if (!stops.contains(at)) {
                var last = stretchEnd(at, end, stops);
                stretches.add(new AddressRange(here, last));
                at = last;
            }
            if (at.compareTo(end) >= 0) break;
            at = at.plus(1);
        }
        stretches.sort(Comparator.comparingLong((AddressRange r) -> -r.count()).thenComparing(AddressRange::from));
        return List.copyOf(stretches);
    }

    private Ipv4Address stretchEnd(Ipv4Address from, Ipv4Address end, TreeSet<Ipv4Address> stops) {
        var last = end;
        var stop = stops.higher(from);
        if (stop != null && stop.compareTo(last) <= 0) last = stop.plus(-1);
        for (var pool : segment.pools())
            if (pool.from().compareTo(from) > 0 && pool.from().compareTo(last) <= 0)
                last = pool.from().plus(-1);
        return last;
    }
}
