package app.knottag.server.record;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Ipv4Prefix;
import app.knottag.core.address.Pool;
import app.knottag.core.address.Segment;
import app.knottag.core.plan.Method;
import app.knottag.core.series.Series;
import app.knottag.core.series.SeriesFit;
import app.knottag.core.time.DateStyle;
import app.knottag.core.time.SiteClock;
import app.knottag.server.log.Log;
import app.knottag.server.record.SiteStore.PoolRow;
import app.knottag.server.record.SiteStore.SegmentRow;
import app.knottag.server.record.SiteStore.SeriesRow;
import app.knottag.server.record.SiteStore.SiteRow;
import app.knottag.server.web.Problem;
import app.knottag.server.web.Scope;
import java.time.Clock;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.function.Supplier;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Sites and their segments, handed out as core's types. */
@Service
public class Sites {

    /** How long an address is lent where nothing else is known, in minutes. */
    public static final int USUAL_LEASE_MINUTES = 720;

    private final SiteStore store;
    private final Log log;
    private final Clock clock;

    Sites(SiteStore store, Log log, Clock clock) {
        this.store = store;
        this.log = log;
        this.clock = clock;
    }

    public SiteRow site(long id) {
        return Optional.ofNullable(store.site(id))
                .filter(s -> Scope.now().sees(s.id()))
                .orElseThrow(() -> Problem.notFound("There is no such site."));
    }

    /** Returns the moment as the site sees and writes it. */
    public SiteClock clock(long id) {
        var site = site(id);
        return new SiteClock(clock.instant(), ZoneId.of(site.zone()), site.dates());
    }

    public SegmentRow segment(long id) {
        return Optional.ofNullable(store.segment(id))
                .filter(s -> Scope.now().sees(s.siteId()))
                .orElseThrow(() -> Problem.notFound("There is no such segment."));
    }

    /** Returns a segment of this very site. */
    public SegmentRow segmentOf(long siteId, long segmentId) {
        var segment = segment(segmentId);
        if (segment.siteId() != siteId)
            throw Problem.field("segmentId", "other-site", "That segment belongs to another site.");
        if (store.segments(siteId).stream().noneMatch(s -> s.id() == segmentId))
            throw Problem.field(
                    "segmentId",
                    "segment-removed",
                    segment.name() + " was removed from the site sheet. Choose a segment that is there.");
        return segment;
    }

    /** Refuses a prefix that overlaps a segment of the site other than the one with this id. */
    public void refuseOverlap(long siteId, long except, Ipv4Prefix prefix) {
        store.segments(siteId).stream()
                .filter(s -> s.id() != except && s.prefix().overlaps(prefix))
                .findFirst()
                .ifPresent(o -> {
                    throw Problem.conflict(
                            "prefix",
                            "segment-overlap",
                            prefix + " overlaps " + o.name() + ", " + o.prefix() + ".",
                            Map.of());
                });
    }

    public Segment plain(SegmentRow row) {
        return plain(row, store.pools(row.siteId()));
    }

    public Segment plain(SegmentRow row, List<PoolRow> pools) {
        var own = pools.stream()
                .filter(p -> p.segmentId() == row.id())
                .map(p -> new Pool(p.fromAddress(), p.toAddress()))
                .toList();
        return new Segment(row.prefix(), Optional.ofNullable(row.gateway()), own);
    }

    /** A segment as one of its endpoints sees it: while it is renumbered some stand in the next prefix already. */
    public record SegmentContext(Segment segment, List<Ipv4Address> resolvers) {}

    public SegmentContext context(SegmentRow row, Ipv4Address address) {
        return context(row, address, () -> plain(row));
    }

    /** The same with pools that were looked up already. */
    public SegmentContext context(SegmentRow row, Ipv4Address address, List<PoolRow> pools) {
        return context(row, address, () -> plain(row, pools));
    }

    private static SegmentContext context(SegmentRow row, Ipv4Address address, Supplier<Segment> segment) {
        boolean next = address != null
                && row.nextPrefix() != null
                && row.nextPrefix().usable(address)
                && !row.prefix().usable(address);
        return next
                ? new SegmentContext(
                        new Segment(row.nextPrefix(), Optional.ofNullable(row.nextGateway()), List.of()),
                        addresses(row.nextResolvers()))
                : new SegmentContext(segment.get(), resolvers(row));
    }

    public static Series plain(SeriesRow row) {
        return new Series(row.name(), row.counts(), row.hostBase(), row.portBase(), row.lastNumber());
    }

    /** How far a series of hosts reaches beside the others of its segment. */
    public static int room(SeriesRow own, Segment segment, List<SeriesRow> all) {
        var others = all.stream()
                .filter(o -> o.id() != own.id() && Objects.equals(o.segmentId(), own.segmentId()))
                .map(o -> new SeriesFit.Neighbour(plain(o), 0))
                .toList();
        var context = new SeriesFit.SeriesBase(Optional.of(segment), 0, others);
        return SeriesFit.of(plain(own), context, List.of(), 0, LocalDate.EPOCH).room();
    }

    public static List<Ipv4Address> resolvers(SegmentRow row) {
        return addresses(row.resolvers());
    }

    private static List<Ipv4Address> addresses(String joined) {
        return Arrays.stream(joined.split(" "))
                .filter(t -> !t.isEmpty())
                .map(Ipv4Address::parse)
                .toList();
    }

    public static String join(List<Ipv4Address> addresses) {
        return String.join(" ", addresses.stream().map(Ipv4Address::toString).toList());
    }

    @Transactional
    public long add(String name, String code, String zone, DateStyle dates, String by) {
        long id = store.addSite(name, code, zone, dates);
        log.write(Log.entry(by, "site added").at(id).after(site(id)));
        return id;
    }

    @Transactional
    public long addSegment(
            long siteId,
            String name,
            Segment segment,
            List<Ipv4Address> resolvers,
            Optional<Series> series,
            String by) {
        return addSegment(row(siteId, name, segment, resolvers), segment.pools(), series, by);
    }

    /** Takes over the host series of another segment, but for names that this site has already. */
    @Transactional
    public void copySeries(long siteId, long segmentId, long fromSegmentId) {
        var names = store.series(siteId).stream().map(SeriesRow::name).toList();
        var prefix = segment(segmentId).prefix();
        store.series(segment(fromSegmentId).siteId()).stream()
                .filter(s -> Objects.equals(s.segmentId(), fromSegmentId) && !names.contains(s.name()))
                .map(Sites::plain)
                .filter(s -> s.address(prefix, 1).isPresent())
                .forEach(s -> addSeries(siteId, segmentId, s));
    }

    @Transactional
    public long addSegment(SegmentRow row, List<Pool> pools, Optional<Series> series, String by) {
        long id = store.addSegment(row);
        pools.forEach(p -> store.addPool(id, p.from(), p.to()));
        series.ifPresent(s -> addSeries(row.siteId(), id, s));
        log.write(Log.entry(by, "segment added").at(row.siteId()).after(segment(id)));
        return id;
    }

    private void addSeries(long siteId, long segmentId, Series s) {
        store.addSeries(new SeriesRow(
                0, siteId, segmentId, s.name(), s.counts(), s.base(), s.portBase(), s.last(), 0, null, null));
    }

    @Transactional
    public long keepPartner(long siteId, String name, Ipv4Address address, Integer testPort) {
        return store.keepPartner(siteId, name, address, testPort);
    }

    private static SegmentRow row(long siteId, String name, Segment s, List<Ipv4Address> resolvers) {
        return new SegmentRow(
                0,
                siteId,
                name,
                s.prefix(),
                s.gateway().orElse(null),
                join(resolvers),
                null,
                USUAL_LEASE_MINUTES,
                Method.FIXED,
                true,
                "",
                null,
                null,
                false,
                null,
                null,
                "");
    }
}
