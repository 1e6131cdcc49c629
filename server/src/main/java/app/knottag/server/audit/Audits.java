package app.knottag.server.audit;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.audit.Audit;
import app.knottag.core.audit.AuditSite;
import app.knottag.core.audit.AuditSite.Decision;
import app.knottag.core.audit.AuditSite.Recorded;
import app.knottag.core.audit.AuditSite.Seen;
import app.knottag.core.audit.Finding;
import app.knottag.core.hardware.Mac;
import app.knottag.core.plan.Sighting.Source;
import app.knottag.core.reach.Probes;
import app.knottag.server.audit.AuditStore.KnownRow;
import app.knottag.server.audit.AuditStore.RecordedRow;
import app.knottag.server.audit.AuditStore.SweptRow;
import app.knottag.server.log.Log;
import app.knottag.server.record.SightingStore;
import app.knottag.server.record.SitePlans;
import app.knottag.server.record.SiteStore;
import app.knottag.server.record.SiteStore.SegmentRow;
import app.knottag.server.record.Sites;
import app.knottag.server.web.Problem;
import java.time.Clock;
import java.time.Instant;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Service;
import org.springframework.transaction.PlatformTransactionManager;
import org.springframework.transaction.TransactionDefinition;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionTemplate;

/** Loads what an audit of a site needs, and keeps what people say of those whom nobody knows. */
@Service
class Audits {

    private final AuditStore store;
    private final SiteStore siteStore;
    private final Sites sites;
    private final SitePlans plans;
    private final SightingStore sightings;
    private final Probes probes;
    private final Log log;
    private final Clock clock;
    private final TransactionTemplate reading;

    Audits(
            AuditStore store,
            SiteStore siteStore,
            Sites sites,
            SitePlans plans,
            SightingStore sightings,
            Probes probes,
            Log log,
            Clock clock,
            PlatformTransactionManager transactions) {
        this.store = store;
        this.siteStore = siteStore;
        this.sites = sites;
        this.plans = plans;
        this.sightings = sightings;
        this.probes = probes;
        this.log = log;
        this.clock = clock;
        reading = new TransactionTemplate(transactions);
        reading.setReadOnly(true);
        reading.setIsolationLevel(TransactionDefinition.ISOLATION_REPEATABLE_READ);
    }

    /**
     * @param looked when somebody last looked, at whatever; empty when nobody ever has
     * @param segments of the site
     */
    record Audited(Optional<Instant> looked, List<Finding> findings, List<SegmentRow> segments) {

        /** Returns the number of the segment in which one was seen, or 0. */
        long segment(Finding finding) {
            return segments.stream()
                    .filter(s -> finding.stay()
                            .filter(stay -> s.prefix().contains(stay.at()))
                            .isPresent())
                    .map(SegmentRow::id)
                    .findFirst()
                    .orElse(0L);
        }
    }

    Audited audit(long siteId) {
        var here = probes.here().addresses();
        return Objects.requireNonNull(reading.execute(t -> {
            sites.site(siteId);
            var segments = siteStore.segments(siteId);
            return audited(load(siteId, segments, here), segments);
        }));
    }

    private Audited audited(AuditSite site, List<SegmentRow> segments) {
        var looked = Stream.of(
                        site.pasted().stream(),
                        site.swept().values().stream(),
                        site.seen().stream().map(Seen::last))
                .flatMap(Function.identity())
                .max(Instant::compareTo);
        return new Audited(looked, Audit.of(site, clock.instant()), segments);
    }

    private AuditSite load(long siteId, List<SegmentRow> segments, List<Ipv4Address> here) {
        var pools = siteStore.pools(siteId);
        return new AuditSite(
                segments.stream().map(s -> sites.plain(s, pools)).toList(),
                recorded(store.recorded(siteId)),
                fixtures(siteId, here),
                store.seen(siteId).stream()
                        .map(s -> new Seen(s.mac(), s.address(), s.source(), s.first(), s.last()))
                        .toList(),
                sightings.questions(siteId).stream()
                        .filter(q -> q.source() == Source.NEIGHBOURS)
                        .map(SightingStore.AnswerRow::at)
                        .findFirst(),
                store.swept(siteId).stream().collect(Collectors.toMap(SweptRow::prefix, SweptRow::at)),
                store.known(siteId).stream()
                        .map(k -> new Decision(k.mac(), k.address(), k.what(), k.by()))
                        .toList());
    }

    private static List<Recorded> recorded(List<RecordedRow> rows) {
        var byEndpoint =
                rows.stream().collect(Collectors.groupingBy(RecordedRow::id, LinkedHashMap::new, Collectors.toList()));
        return byEndpoint.values().stream()
                .map(of -> new Recorded(
                        of.get(0).id(),
                        of.get(0).name(),
                        Optional.ofNullable(of.get(0).address()),
                        macs(of, true).stream().findFirst(),
                        macs(of, false)))
                .toList();
    }

    private static List<Mac> macs(List<RecordedRow> rows, boolean counting) {
        return rows.stream()
                .filter(r -> r.counts() == counting)
                .map(RecordedRow::mac)
                .filter(Objects::nonNull)
                .toList();
    }

    /** What has an address here and is no endpoint. */
    private Map<Ipv4Address, String> fixtures(long siteId, List<Ipv4Address> here) {
        var fixtures = new HashMap<>(plans.reserved(siteId));
        siteStore.partners(siteId).forEach(p -> fixtures.put(p.address(), p.name()));
        here.forEach(a -> fixtures.put(a, "this machine"));
        return fixtures;
    }

    @Transactional
    public void know(long siteId, Mac mac, Ipv4Address address, String what, String by) {
        sites.site(siteId);
        store.recorded(siteId).stream()
                .filter(r -> mac.equals(r.mac()))
                .findFirst()
                .ifPresent(r -> {
                    throw Problem.of(
                            HttpStatus.CONFLICT, "on-record", mac + " is on record: it belongs to " + r.name() + ".");
                });
        store.know(siteId, new KnownRow(mac, address, what, by, clock.instant()));
        log.write(Log.entry(by, "said who " + mac + " is").at(siteId).after(what + " at " + address));
    }

    @Transactional
    public void forget(long siteId, Mac mac, String by) {
        if (store.forget(siteId, mac) == 0) throw Problem.notFound("Nothing was said of " + mac + " at this site.");
        log.write(Log.entry(by, "took back who " + mac + " is").at(siteId));
    }
}
