package app.knottag.server.plan;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Ipv4Prefix;
import app.knottag.core.address.Pool;
import app.knottag.core.address.Segment;
import app.knottag.core.plan.Scheme;
import app.knottag.core.series.Series;
import app.knottag.server.record.EndpointStore;
import app.knottag.server.record.SiteStore;
import app.knottag.server.record.Sites;
import app.knottag.server.web.Scope;
import java.time.Clock;
import java.time.Instant;
import java.time.ZoneId;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** What is shown of sites and their segments. */
@Component
class SiteViews {

    /** A stretch of host numbers on the tape of a segment. */
    record Stretch(String name, long fromHost, long toHost) {}

    record SegmentView(
            long id,
            String name,
            Ipv4Prefix prefix,
            Ipv4Address mask,
            @Nullable Ipv4Address gateway,
            @Nullable Long gatewayHost,
            List<Ipv4Address> resolvers,
            long lastHost,
            List<Stretch> pools,
            List<Stretch> series,
            long fixable,
            long living) {}

    record PartnerView(long id, String name, Ipv4Address address) {}

    record SiteView(
            long id,
            String name,
            String code,
            String zone,
            String zoneNow,
            SiteController.DateStyleView dates,
            Instant now,
            List<SegmentView> segments,
            List<PartnerView> partners) {}

    /** A segment of any site that another one may be laid out like. */
    record SchemeLine(long segmentId, String name, int prefixLength) {}

    /** A prefix laid out like a segment. */
    record SchemeView(
            @Nullable Ipv4Address gateway, List<Ipv4Address> resolvers, List<Pool> pools, List<String> series) {}

    private final SiteStore store;
    private final EndpointStore endpoints;
    private final Sites sites;
    private final Clock clock;

    SiteViews(SiteStore store, EndpointStore endpoints, Sites sites, Clock clock) {
        this.store = store;
        this.endpoints = endpoints;
        this.sites = sites;
        this.clock = clock;
    }

    List<SiteStore.SummaryRow> all() {
        return Scope.now().seen(store.summaries(), SiteStore.SummaryRow::id);
    }

    SiteView one(long siteId) {
        var site = sites.site(siteId);
        var pools = store.pools(siteId);
        var series = store.series(siteId);
        var segments = store.segments(siteId).stream()
                .map(row -> view(row, sites.plain(row, pools), series))
                .toList();
        var partners = store.partners(siteId).stream()
                .map(p -> new PartnerView(p.id(), p.name(), p.address()))
                .toList();
        return new SiteView(
                site.id(),
                site.name(),
                site.code(),
                site.zone(),
                ZoneId.of(site.zone()).getRules().getOffset(clock.instant()).getId(),
                SiteController.DateStyleView.of(site.dates()),
                clock.instant(),
                segments,
                partners);
    }

    private SegmentView view(SiteStore.SegmentRow row, Segment segment, List<SiteStore.SeriesRow> series) {
        long network = row.prefix().network().number();
        var pools = segment.pools().stream()
                .map(p ->
                        new Stretch("Handed out automatically", p.from().number() - network, p.to().number() - network))
                .toList();
        var stretches = series.stream()
                .filter(s -> Objects.equals(s.segmentId(), row.id()))
                .map(s -> new Stretch(
                        s.name(), s.hostBase() + 1L, s.hostBase() + (long) Math.max(1, Sites.room(s, segment, series))))
                .toList();
        return new SegmentView(
                row.id(),
                row.name(),
                row.prefix(),
                row.prefix().mask(),
                row.gateway(),
                row.gateway() == null ? null : row.gateway().number() - network,
                Sites.resolvers(row),
                row.prefix().last().number() - network,
                pools,
                stretches,
                segment.fixableHosts(),
                endpoints.livingIn(row.id()));
    }

    List<SchemeLine> schemes() {
        return all().stream()
                .flatMap(site -> store.segments(site.id()).stream()
                        .map(s -> new SchemeLine(
                                s.id(),
                                site.name() + ", " + s.name(),
                                s.prefix().prefixLength())))
                .toList();
    }

    /** A prefix laid out like a segment. */
    SchemeView scheme(SiteStore.SegmentRow row, Ipv4Prefix prefix) {
        var series = store.series(row.siteId()).stream()
                .filter(s -> Objects.equals(s.segmentId(), row.id()))
                .map(Sites::plain)
                .toList();
        var filled = Scheme.of(sites.plain(row), Sites.resolvers(row), series).fill(prefix);
        return new SchemeView(
                filled.segment().gateway().orElse(null),
                filled.resolvers(),
                filled.segment().pools(),
                filled.series().stream().map(Series::name).toList());
    }
}
