package app.knottag.server.site;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Pool;
import app.knottag.core.address.Segment;
import app.knottag.core.series.Series;
import app.knottag.server.log.Log;
import app.knottag.server.site.SiteStore.PoolRow;
import app.knottag.server.site.SiteStore.SegmentRow;
import app.knottag.server.site.SiteStore.SeriesRow;
import app.knottag.server.site.SiteStore.SiteRow;
import app.knottag.server.web.Problem;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Sites and their segments, handed out as core's types. */
@Service
public class Sites {

    private final SiteStore store;
    private final Log log;

    Sites(SiteStore store, Log log) {
        this.store = store;
        this.log = log;
    }

    public SiteRow site(long id) {
        return Optional.ofNullable(store.site(id)).orElseThrow(() -> Problem.notFound("There is no such site."));
    }

    public SegmentRow segment(long id) {
        return Optional.ofNullable(store.segment(id)).orElseThrow(() -> Problem.notFound("There is no such segment."));
    }

    public Segment plain(SegmentRow row) {
        return plain(row, store.pools(row.siteId()));
    }

    Segment plain(SegmentRow row, List<PoolRow> pools) {
        var own = pools.stream()
                .filter(p -> p.segmentId() == row.id())
                .map(p -> new Pool(p.fromAddress(), p.toAddress()))
                .toList();
        return new Segment(row.prefix(), Optional.ofNullable(row.gateway()), own);
    }

    public static Series plain(SeriesRow row) {
        return new Series(row.name(), row.hostBase(), row.portBase());
    }

    public static List<Ipv4Address> resolvers(SegmentRow row) {
        return Arrays.stream(row.resolvers().split(" "))
                .filter(t -> !t.isEmpty())
                .map(Ipv4Address::parse)
                .toList();
    }

    public static String join(List<Ipv4Address> addresses) {
        return String.join(" ", addresses.stream().map(Ipv4Address::toString).toList());
    }

    @Transactional
    public long add(String name, String code, String zone, String by) {
        long id = store.addSite(name, code, zone);
        log.write(Log.entry(by, "site added").at(id, null).after(site(id)));
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
        long id = store.addSegment(
                siteId, name, segment.prefix(), segment.gateway().orElse(null), join(resolvers));
        segment.pools().forEach(p -> store.addPool(id, p.from(), p.to()));
        series.ifPresent(s -> store.addSeries(siteId, id, s.name(), s.hostBase(), s.portBase()));
        log.write(Log.entry(by, "segment added").at(siteId, null).after(segment(id)));
        return id;
    }

    @Transactional
    public long keepPartner(long siteId, String name, Ipv4Address address, Integer testPort) {
        return store.keepPartner(siteId, name, address, testPort);
    }
}
