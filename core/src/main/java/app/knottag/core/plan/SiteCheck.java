package app.knottag.core.plan;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Keying;
import app.knottag.core.address.Pool;
import app.knottag.core.plan.Conflict.Code;
import app.knottag.core.plan.Conflict.Severity;
import app.knottag.core.plan.SitePlan.PlannedEndpoint;
import app.knottag.core.plan.SitePlan.PlannedPartner;
import app.knottag.core.plan.SitePlan.PlannedSegment;
import app.knottag.core.time.SiteClock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.stream.Collectors;

/** Checks a whole site: everything that does not work or may not, worst first, each with the smallest change. */
public final class SiteCheck {

    private static final int RESERVE_PORTS = 2;
    private final SitePlan plan;
    private final Instant now;
    private final Occupied occupied;
    private final Map<Long, PlannedSegment> segments = new HashMap<>();
    private final Map<Long, Optional<Ipv4Address>> safest = new HashMap<>();
    private final List<Conflict> found = new ArrayList<>();

    private SiteCheck(SitePlan plan, Instant now) {
        this.plan = plan;
        this.now = now;
        occupied = plan.occupied(now);
        plan.segments().forEach(s -> segments.put(s.id(), s));
    }

    /**
     * Returns all conflicts and risks of the site at a moment, worst first.
     *
     * @param seen those that speak out of what was seen
     */
    public static List<Conflict> conflicts(SitePlan plan, SiteClock clock, List<Conflict> seen) {
        var check = new SiteCheck(plan, clock.now());
        check.addressesTwice();
        check.plan.endpoints().forEach(check::endpoint);
        check.plan.segments().forEach(check::segment);
        check.plan.segments().forEach(check::slips);
        check.portsTwice();
        check.apart();
        check.names();
        check.found.addAll(SeriesCheck.conflicts(plan, check.occupied, clock));
        check.found.addAll(seen);
        check.wiring();
        check.found.sort(Comparator.comparing(Conflict::severity)
                .thenComparing(Conflict::code)
                .thenComparing(Conflict::message));
        return List.copyOf(check.found);
    }

    private void addressesTwice() {
        var first = new HashMap<Ipv4Address, PlannedEndpoint>();
        for (var e : plan.endpoints()) {
            if (e.address().isEmpty()) continue;
            var before = first.putIfAbsent(e.address().get(), e);
            if (before != null)
                found.add(moved(
                        e,
                        Conflict.of(
                                        Severity.BROKEN,
                                        Code.ADDRESS_TWICE,
                                        before.name() + " and " + e.name() + " both have "
                                                + e.address().get() + ".",
                                        "")
                                .on(before.id(), e.id())));
        }
        for (var p : plan.partners()) {
            var e = first.get(p.address());
            if (e != null && !e.partnerId().equals(Optional.of(p.id())))
                found.add(moved(
                        e,
                        Conflict.of(
                                        Severity.BROKEN,
                                        Code.ADDRESS_TWICE,
                                        e.name() + " and " + p.name() + " both have " + p.address() + ".",
                                        "")
                                .on(e.id())));
        }
        plan.reserved().forEach((address, who) -> {
            var e = first.get(address);
            boolean gateway = who.startsWith("the gateway");
            if (e != null && !gateway && !who.equalsIgnoreCase(e.name()))
                found.add(moved(
                        e,
                        Conflict.of(
                                        Severity.BROKEN,
                                        Code.ADDRESS_TWICE,
                                        e.name() + " and " + who + " both have " + address + ".",
                                        "")
                                .on(e.id())));
        });
    }

    private void endpoint(PlannedEndpoint e) {
        if (e.address().isEmpty()) return;
        var a = e.address().get();
        if (!segments.containsKey(e.segmentId())) {
            found.add(Conflict.of(
                            Severity.BROKEN,
                            Code.OUTSIDE_SEGMENT,
                            e.name() + ": its segment was removed, and it still has " + a + ".",
                            "Retire it, or plan it anew in a segment that is there.")
                    .on(e.id()));
            return;
        }
        var segment = segments.get(e.segmentId()).segment();
        if (!segment.prefix().usable(a))
            found.add(moved(
                    e,
                    on(e, Severity.BROKEN, Code.OUTSIDE_SEGMENT, a + " is no address of " + segment.prefix() + ".")));
        else if (segment.gateway().filter(a::equals).isPresent())
            found.add(moved(e, on(e, Severity.BROKEN, Code.IS_GATEWAY, "It has " + a + ", which is the gateway.")));
        else if (e.method().onDevice()) segment.poolOf(a).ifPresent(pool -> found.add(inPool(e, a, pool)));
    }

    private static Conflict on(PlannedEndpoint e, Severity severity, Code code, String message) {
        return Conflict.of(severity, code, e.name() + ": " + message, "").on(e.id());
    }

    /** Adds the nearest sensible move to a conflict: the number's own address, or the safest free one. */
    private Conflict moved(PlannedEndpoint e, Conflict conflict) {
        var to = moveTo(e);
        String mend = to.map(a -> "Move it to " + a + ".")
                .orElse("No address is free here: shorten the pool, or take a wider prefix.");
        return new Conflict(
                        conflict.severity(),
                        conflict.code(),
                        conflict.message(),
                        mend,
                        conflict.endpoints(),
                        e.segmentId(),
                        null)
                .moving(e.id(), to);
    }

    private Optional<Ipv4Address> moveTo(PlannedEndpoint e) {
        if (!segments.containsKey(e.segmentId())) return Optional.empty();
        var segment = segments.get(e.segmentId()).segment();
        return ownAddress(plan, e)
                .filter(a -> segment.fixable(a)
                        && !occupied.held().containsKey(a)
                        && !occupied.doubtful().containsKey(a))
                .or(() -> safest.computeIfAbsent(e.segmentId(), id -> new Planner(segment, occupied).safest()));
    }

    /** Returns the address that the number of an endpoint stands for, or empty when it has no number or no host run. */
    static Optional<Ipv4Address> ownAddress(SitePlan plan, PlannedEndpoint e) {
        if (e.seriesId().isEmpty() || e.number().isEmpty()) return Optional.empty();
        return plan.series().stream()
                .filter(s -> s.id() == e.seriesId().get() && s.segmentId().equals(Optional.of(e.segmentId())))
                .findFirst()
                .flatMap(s -> plan.segments().stream()
                        .filter(g -> g.id() == e.segmentId())
                        .findFirst()
                        .flatMap(g -> s.series()
                                .address(g.segment().prefix(), e.number().get())));
    }

    private Conflict inPool(PlannedEndpoint e, Ipv4Address a, Pool pool) {
        var conflict = moved(
                e,
                on(
                        e,
                        Severity.RISK,
                        Code.IN_POOL,
                        a + " lies in the pool " + pool + " and may be handed out to another device "
                                + LeaseCompare.earliestTrouble(plan, a, now) + "."));
        long after = pool.to().number() - a.number(),
                before = a.number() - pool.from().number();
        String shorter = after <= before
                ? before == 0 ? "do without the pool" : "end the pool at " + a.plus(-1)
                : "start the pool at " + a.plus(1);
        String mend = conflict.move() == null
                ? Character.toUpperCase(shorter.charAt(0)) + shorter.substring(1) + "."
                : "Move it to " + conflict.move().to() + ", or " + shorter + ".";
        return new Conflict(
                conflict.severity(),
                conflict.code(),
                conflict.message(),
                mend,
                conflict.endpoints(),
                conflict.segmentId(),
                conflict.move());
    }

    /**
     * Addresses still to be keyed in that one slip turns into the gateway. One that follows from its number is keyed in
     * from the head, not copied.
     */
    private void slips(PlannedSegment s) {
        if (s.segment().gateway().isEmpty()) return;
        var gateway = s.segment().gateway().get();
        var near = plan.endpoints().stream()
                .filter(e ->
                        e.segmentId() == s.id() && !e.proved() && e.address().isPresent())
                .filter(e -> Keying.oneSlipFrom(e.address().get()).contains(gateway))
                .filter(e -> !ownAddress(plan, e).equals(e.address()))
                .toList();
        if (near.isEmpty()) return;
        if (near.size() == 1) {
            var e = near.get(0);
            found.add(moved(
                    e,
                    on(
                            e,
                            Severity.UNTIDY,
                            Code.SLIP_TO_GATEWAY,
                            "One slip of a finger turns " + e.address().get() + " into the gateway " + gateway + ".")));
            return;
        }
        found.add(Conflict.of(
                        Severity.UNTIDY,
                        Code.SLIP_TO_GATEWAY,
                        near.size() + " in " + s.name() + " are one slip of a finger from the gateway " + gateway + ": "
                                + Placement.listed(
                                        near.stream().map(PlannedEndpoint::name).toList()) + ".",
                        "Read the last group aloud while it is keyed in.")
                .on(near.stream().mapToLong(PlannedEndpoint::id).toArray())
                .in(s.id()));
    }

    private void segment(PlannedSegment s) {
        if (s.segment().gateway().isEmpty())
            found.add(Conflict.of(
                            Severity.RISK,
                            Code.NO_GATEWAY,
                            s.name() + " has no gateway on record.",
                            "Read it off a device that works there, and add it to the segment.")
                    .in(s.id()));
        if (s.resolvers().isEmpty())
            found.add(Conflict.of(
                            Severity.UNTIDY,
                            Code.NO_RESOLVER,
                            s.name() + " has no resolver on record.",
                            "Add the site's own first, a public one second.")
                    .in(s.id()));
    }

    /** One partner address, one port: a till server cannot tell two terminals apart that call the same port. */
    private void portsTwice() {
        var first = new TreeMap<String, PlannedEndpoint>();
        for (var e : plan.endpoints()) {
            if (e.partnerId().isEmpty() || e.partnerPort().isEmpty()) continue;
            var before = first.putIfAbsent(
                    e.partnerId().get() + " " + e.partnerPort().get(), e);
            if (before != null)
                found.add(Conflict.of(
                                Severity.BROKEN,
                                Code.SERVICE_PORT_TWICE,
                                before.name() + " and " + e.name() + " share port "
                                        + e.partnerPort().get() + " on one address.",
                                "Give each its own port, counted up from the base.")
                        .on(before.id(), e.id()));
        }
    }

    /**
     * A pair in two segments meets only at the router, and only as far as that lets it through; its own proof tells that
     * it does. A partner outside all segments is somewhere else, and reached over the line anyway.
     */
    private void apart() {
        var partners = plan.partners().stream().collect(Collectors.toMap(PlannedPartner::id, p -> p));
        for (var e : plan.endpoints()) {
            var partner = e.partnerId().map(partners::get);
            var there = partner.flatMap(p -> segments.values().stream()
                    .filter(s -> s.segment().prefix().contains(p.address()))
                    .findFirst());
            boolean apart = there.filter(s -> s.id() != e.segmentId()).isPresent();
            if (!apart || !segments.containsKey(e.segmentId()) || e.address().isEmpty() || e.proved()) continue;
            var here = segments.get(e.segmentId());
            String pair = e.name() + " is in " + here.name() + ", its partner "
                    + partner.get().name() + " in " + there.get().name() + ": ";
            boolean cut = here.segment().gateway().isEmpty()
                    || there.get().segment().gateway().isEmpty();
            found.add(Conflict.of(
                            cut ? Severity.BROKEN : Severity.RISK,
                            Code.PARTNER_APART,
                            pair
                                    + (cut
                                            ? "without a gateway on both sides nothing passes between them."
                                            : "they meet only if the router lets them through."),
                            "Plan it in " + there.get().name()
                                    + ", or have the firewall rules of this pair let through; its proof settles it.")
                    .on(e.id()));
        }
    }

    private void names() {
        var hostNames = plan.endpoints().stream()
                .collect(Collectors.toMap(e -> "" + e.id(), PlannedEndpoint::hostName, (a, b) -> a));
        NameRule.clashes(hostNames)
                .forEach((name, ids) -> found.add(Conflict.of(
                                Severity.RISK,
                                Code.HOST_NAME_TWICE,
                                ids.size() + " endpoints have the host name " + name + ".",
                                "Let the naming rule give each its own.")
                        .on(ids.stream().mapToLong(Long::parseLong).sorted().toArray())));
    }

    private void wiring() {
        for (var cable : plan.cables())
            if (!cable.problem().isEmpty())
                found.add(Conflict.of(
                                Severity.BROKEN, Code.WIRING, cable.endpoint() + ": " + cable.problem(), cable.mend())
                        .on(cable.endpointId()));
        for (var room : plan.room())
            if (!room.advice().isEmpty() && room.free() < RESERVE_PORTS)
                found.add(Conflict.of(
                        Severity.UNTIDY,
                        Code.PORTS_SHORT,
                        room.gear() + ": " + room.free() + " of " + room.ports() + " ports left.",
                        room.advice()));
    }
}
