package app.knottag.server.record;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.hardware.Mac;
import app.knottag.core.plan.FreeVerdict.Evidence;
import app.knottag.core.plan.Occupied;
import app.knottag.core.plan.Sighting;
import app.knottag.core.plan.Sighting.Source;
import app.knottag.core.plan.SitePlan;
import app.knottag.core.plan.SitePlan.PlannedEndpoint;
import app.knottag.core.plan.SitePlan.PlannedPartner;
import app.knottag.core.plan.SitePlan.PlannedSegment;
import app.knottag.core.plan.SitePlan.PlannedSeries;
import app.knottag.server.record.SiteStore.PoolRow;
import app.knottag.server.record.SiteStore.SegmentRow;
import java.time.Duration;
import java.time.Instant;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.stereotype.Service;

/** Loads a whole site as core's plan. */
@Service
public class SitePlans {

    private static final int RESERVE_PORTS = 2;
    private final SiteStore store;
    private final EndpointStore endpoints;
    private final SightingStore sightings;
    private final Sites sites;
    private final Wires wires;

    SitePlans(SiteStore store, EndpointStore endpoints, SightingStore sightings, Sites sites, Wires wires) {
        this.store = store;
        this.endpoints = endpoints;
        this.sightings = sightings;
        this.sites = sites;
        this.wires = wires;
    }

    public SitePlan plan(long siteId) {
        sites.site(siteId);
        var pools = store.pools(siteId);
        var wiring = wires.wiring(siteId);
        return new SitePlan(
                store.segments(siteId).stream().map(s -> segment(s, pools)).toList(),
                store.series(siteId).stream()
                        .map(s -> new PlannedSeries(
                                s.id(),
                                Optional.ofNullable(s.segmentId()),
                                Sites.plain(s),
                                s.perYear(),
                                Optional.ofNullable(s.followsId())))
                        .toList(),
                endpoints.all(siteId).stream().map(SitePlans::plain).toList(),
                store.partners(siteId).stream()
                        .map(p -> new PlannedPartner(p.id(), p.name(), p.address()))
                        .toList(),
                wiring.cables(),
                wiring.room(RESERVE_PORTS),
                sightings.latest(siteId).stream().map(SitePlans::plain).toList(),
                services(siteId));
    }

    /** Services that the site lists by an address, not by a name. */
    private List<SitePlan.Listed> services(long siteId) {
        return store.services(siteId).stream()
                .flatMap(s -> Ipv4Address.read(s.host()).map(a -> new SitePlan.Listed(s.name(), a)).stream())
                .toList();
    }

    private static PlannedEndpoint plain(EndpointStore.Row e) {
        return new PlannedEndpoint(
                e.id(),
                e.name(),
                e.hostName(),
                e.segmentId(),
                Optional.ofNullable(e.address()),
                e.method(),
                Optional.ofNullable(e.seriesId()),
                Optional.ofNullable(e.number()),
                Optional.ofNullable(e.mac()),
                Optional.ofNullable(e.partnerId()),
                Optional.ofNullable(e.servicePort()),
                Optional.ofNullable(e.partnerPort()),
                e.confirmedAt() != null);
    }

    private static Sighting plain(SightingStore.SightingRow s) {
        return new Sighting(
                s.address(), Optional.ofNullable(s.mac()), s.source(), s.seenAt(), Optional.ofNullable(s.leaseEnds()));
    }

    /** What no endpoint may be given although nobody is on record there. */
    public Map<Ipv4Address, String> reserved(long siteId) {
        return base(siteId, List.of(), List.of()).reserved();
    }

    /** The partners of a site by their address. */
    public Map<Ipv4Address, String> partners(long siteId) {
        var partners = new HashMap<Ipv4Address, String>();
        store.partners(siteId).forEach(p -> partners.put(p.address(), p.name()));
        return partners;
    }

    /** Who is in the way of one more: who holds an address by plan, and who was seen at one. */
    public Occupied occupied(long siteId, Instant now) {
        return base(siteId, endpoints.all(siteId), sightings.latest(siteId)).occupied(now);
    }

    /** The plan without cables and runs, as far as an address is concerned. */
    private SitePlan base(long siteId, List<EndpointStore.Row> rows, List<SightingStore.SightingRow> seen) {
        var pools = store.pools(siteId);
        return new SitePlan(
                store.segments(siteId).stream().map(s -> segment(s, pools)).toList(),
                List.of(),
                rows.stream().map(SitePlans::plain).toList(),
                store.partners(siteId).stream()
                        .map(p -> new PlannedPartner(p.id(), p.name(), p.address()))
                        .toList(),
                List.of(),
                List.of(),
                seen.stream().map(SitePlans::plain).toList(),
                services(siteId));
    }

    private PlannedSegment segment(SegmentRow s, List<PoolRow> pools) {
        return new PlannedSegment(
                s.id(), s.name(), sites.plain(s, pools), Sites.resolvers(s), Duration.ofMinutes(s.leaseMinutes()));
    }

    /** Everything that speaks for or against an address being free. */
    public Evidence evidence(long siteId) {
        var rows = endpoints.all(siteId);
        var seen = sightings.latest(siteId);
        var plan = base(siteId, rows, seen);
        var macs = new HashMap<Mac, String>();
        for (var e : rows) if (e.mac() != null) macs.put(e.mac(), e.name());
        var questions = new EnumMap<Source, Instant>(Source.class);
        for (var question : sightings.questions(siteId)) questions.put(question.source(), question.at());
        return new Evidence(
                plan.segments().stream().map(PlannedSegment::segment).toList(),
                plan.living(),
                plan.sightings(),
                questions,
                macs);
    }
}
