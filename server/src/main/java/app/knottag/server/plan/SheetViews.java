package app.knottag.server.plan;

import app.knottag.core.hardware.Gear;
import app.knottag.core.plan.Method;
import app.knottag.server.plan.Sheet.Thing;
import app.knottag.server.record.SiteStore;
import app.knottag.server.record.SiteStore.ClientRow;
import app.knottag.server.record.SiteStore.SeriesRow;
import app.knottag.server.record.SiteStore.ServiceRow;
import app.knottag.server.record.SiteStore.SiteRow;
import app.knottag.server.record.Sites;
import app.knottag.server.record.WiringStore;
import app.knottag.server.record.WiringStore.GearRow;
import app.knottag.server.record.WiringStore.OutletRow;
import app.knottag.server.record.WiringStore.PlaceRow;
import app.knottag.server.record.WiringStore.PortRow;
import app.knottag.server.web.Problem;
import java.util.List;
import java.util.function.LongFunction;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** The site sheet as it is shown. */
@Component
class SheetViews {

    record GearView(long id, String name, Gear.Type type, String place, List<PortRow> ports) {}

    /** A segment as the sheet shows it, with everything that can be set. */
    record SheetSegment(
            long id,
            String name,
            String prefix,
            @Nullable String gateway,
            List<String> resolvers,
            List<SegmentForm.PoolRequest> pools,
            @Nullable Integer vlan,
            int leaseMinutes,
            Method method,
            boolean canReserve,
            String notes,
            @Nullable String prefix6,
            @Nullable String gateway6,
            boolean fixed6,
            @Nullable String nextPrefix) {}

    record SheetView(
            SiteRow site,
            List<ClientRow> clients,
            List<SheetSegment> segments,
            List<SeriesRow> series,
            List<PlaceRow> places,
            List<GearView> gear,
            List<OutletRow> outlets,
            List<ServiceRow> services) {}

    private final SiteStore store;
    private final WiringStore wires;
    private final Sites sites;

    SheetViews(SiteStore store, WiringStore wires, Sites sites) {
        this.store = store;
        this.wires = wires;
        this.sites = sites;
    }

    SheetView one(long siteId) {
        var site = sites.site(siteId);
        var places = wires.places(siteId);
        var ports = wires.ports(siteId);
        var pools = store.pools(siteId);
        LongFunction<String> placeName = id -> places.stream()
                .filter(p -> p.id() == id)
                .map(PlaceRow::name)
                .findFirst()
                .orElse("");
        var gear = wires.gear(siteId).stream()
                .map(g -> new GearView(
                        g.id(),
                        g.name(),
                        g.type(),
                        g.placeId() == null ? "" : placeName.apply(g.placeId()),
                        ports.stream().filter(p -> p.gearId() == g.id()).toList()))
                .toList();
        var segments = store.segments(siteId).stream().map(s -> view(s, pools)).toList();
        return new SheetView(
                site,
                store.clients(),
                segments,
                store.series(siteId),
                places,
                gear,
                wires.outlets(siteId),
                store.services(siteId));
    }

    private static SheetSegment view(SiteStore.SegmentRow s, List<SiteStore.PoolRow> pools) {
        return new SheetSegment(
                s.id(),
                s.name(),
                s.prefix().toString(),
                s.gateway() == null ? null : s.gateway().toString(),
                Sites.resolvers(s).stream().map(Object::toString).toList(),
                pools.stream()
                        .filter(p -> p.segmentId() == s.id())
                        .map(p -> new SegmentForm.PoolRequest(
                                p.fromAddress().toString(), p.toAddress().toString()))
                        .toList(),
                s.vlan(),
                s.leaseMinutes(),
                s.method(),
                s.canReserve(),
                s.notes(),
                s.prefix6(),
                s.gateway6(),
                s.fixed6(),
                s.nextPrefix() == null ? null : s.nextPrefix().toString());
    }

    /** Refuses what belongs to another site, or is not there. */
    void own(long siteId, Thing thing, long id) {
        refuseOther(
                siteId,
                switch (thing) {
                    case PLACES ->
                        wires.places(siteId).stream().map(PlaceRow::id).toList();
                    case OUTLETS ->
                        wires.outlets(siteId).stream().map(OutletRow::id).toList();
                    case GEAR -> wires.gear(siteId).stream().map(GearRow::id).toList();
                    case SERVICES ->
                        store.services(siteId).stream().map(ServiceRow::id).toList();
                },
                id);
    }

    void ownSeries(long siteId, long id) {
        refuseOther(siteId, store.series(siteId).stream().map(SeriesRow::id).toList(), id);
    }

    private static void refuseOther(long siteId, List<Long> ids, long id) {
        if (!ids.contains(id)) throw Problem.notFound("Site " + siteId + " has nothing with the number " + id + ".");
    }
}
