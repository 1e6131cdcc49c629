package app.knottag.server.plan;

import app.knottag.core.address.AddressRange;
import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Ipv4Prefix;
import app.knottag.core.audit.Audit;
import app.knottag.core.audit.SeenConflicts;
import app.knottag.core.hardware.Gear.Role;
import app.knottag.core.hardware.Wiring;
import app.knottag.core.kind.Kinds;
import app.knottag.core.plan.Conflict;
import app.knottag.core.plan.Growth;
import app.knottag.core.plan.Placement;
import app.knottag.core.plan.SiteCheck;
import app.knottag.core.plan.SitePlan;
import app.knottag.core.status.Status;
import app.knottag.server.record.EndpointStore;
import app.knottag.server.record.SiteEvidence;
import app.knottag.server.record.SitePlans;
import app.knottag.server.record.SiteStore;
import app.knottag.server.record.Sites;
import app.knottag.server.record.Wires;
import java.time.Clock;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** What is shown of a plan: the tape of a segment, growth, cables and firewall rules. */
@Component
class PlanViews {

    /** A tag on the tape; a partner has id 0. */
    record TapeMark(long id, long host, String label, Status status, boolean conflict) {}

    record FreeStretch(long fromHost, long toHost, long count) {}

    record Elsewhere(long id, String name, Ipv4Address address) {}

    /** Everything that hangs on the tape of a segment; elsewhere are those already in the prefix it is renumbered to. */
    record TapeView(
            List<TapeMark> marks,
            List<FreeStretch> free,
            List<Elsewhere> elsewhere,
            @Nullable Ipv4Prefix nextPrefix) {}

    /** Cables and room; the cables come in the order of walking. */
    record WiringView(List<Wiring.Cable> cables, List<Wiring.Room> room) {}

    private final SitePlans plans;
    private final EndpointStore store;
    private final SiteStore siteStore;
    private final Sites sites;
    private final Wires wires;
    private final Kinds kinds;
    private final SiteEvidence evidence;
    private final Clock clock;

    PlanViews(
            SitePlans plans,
            EndpointStore store,
            SiteStore siteStore,
            Sites sites,
            Wires wires,
            Kinds kinds,
            SiteEvidence evidence,
            Clock clock) {
        this.plans = plans;
        this.store = store;
        this.siteStore = siteStore;
        this.sites = sites;
        this.wires = wires;
        this.kinds = kinds;
        this.evidence = evidence;
        this.clock = clock;
    }

    TapeView tape(SiteStore.SegmentRow segment) {
        long siteId = segment.siteId();
        long network = segment.prefix().network().number();
        var plan = plans.plan(siteId);
        var conflicts = new HashSet<Long>();
        for (var c : conflicts(siteId, plan))
            if (c.severity() != Conflict.Severity.UNTIDY) conflicts.addAll(c.endpoints());
        var marks = new ArrayList<TapeMark>();
        var elsewhere = new ArrayList<Elsewhere>();
        for (var m : store.marks(segment.id()))
            if (segment.prefix().contains(m.address()))
                marks.add(new TapeMark(
                        m.id(), m.address().number() - network, label(m), m.status(), conflicts.contains(m.id())));
            else elsewhere.add(new Elsewhere(m.id(), m.name(), m.address()));
        for (var p : plan.partners())
            if (segment.prefix().contains(p.address()))
                marks.add(new TapeMark(0, p.address().number() - network, p.name(), Status.PASSED, false));
        var free = new Placement(sites.plain(segment), plan.occupied(clock.instant()))
                .freeStretches().stream().map(r -> stretch(r, network)).toList();
        return new TapeView(marks, free, elsewhere, segment.nextPrefix());
    }

    /** What does not work or may not, by the plan itself and by what was seen. */
    List<Conflict> conflicts(long siteId, SitePlan plan) {
        var clock = sites.clock(siteId);
        var found = Audit.of(evidence.load(siteId).site(), clock.now());
        return SiteCheck.conflicts(plan, clock, SeenConflicts.of(plan, found));
    }

    private static FreeStretch stretch(AddressRange range, long network) {
        return new FreeStretch(range.from().number() - network, range.to().number() - network, range.count());
    }

    /** A numbered one is known by its number; “payment terminal” behind it only takes room on the tape. */
    private String label(EndpointStore.Mark m) {
        return kinds.find(m.kind())
                .filter(k -> !k.series().isEmpty() && m.name().endsWith(" " + k.noun()))
                .map(k -> m.name().substring(0, m.name().length() - k.noun().length() - 1))
                .orElse(m.name());
    }

    List<Growth.Run> growth(long siteId) {
        var lan = siteStore.series(siteId).stream()
                .filter(s -> s.gearId() != null)
                .collect(Collectors.toMap(SiteStore.SeriesRow::id, s -> lanPorts(siteId, s.gearId())));
        return Growth.runs(plans.plan(siteId), sites.clock(siteId).today(), lan);
    }

    private int lanPorts(long siteId, long gearId) {
        return (int) wires.gear(siteId).stream()
                .filter(g -> g.id() == gearId)
                .flatMap(g -> g.ports().stream())
                .filter(p -> p.role() == Role.LAN)
                .count();
    }

    WiringView wiring(long siteId) {
        var wiring = wires.wiring(siteId);
        return new WiringView(wiring.cables(), wiring.room(2));
    }

    /** The partners in a prefix by their address. */
    Map<Ipv4Address, String> partners(long siteId, Ipv4Prefix prefix) {
        return siteStore.partners(siteId).stream()
                .filter(p -> prefix.contains(p.address()))
                .collect(Collectors.toMap(SiteStore.PartnerRow::address, SiteStore.PartnerRow::name, (a, b) -> a));
    }
}
