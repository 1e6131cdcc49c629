package app.knottag.server.record;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.audit.AuditSite;
import app.knottag.core.audit.AuditSite.Decision;
import app.knottag.core.audit.AuditSite.Former;
import app.knottag.core.audit.AuditSite.Recorded;
import app.knottag.core.audit.AuditSite.Seen;
import app.knottag.core.hardware.Mac;
import app.knottag.core.plan.Sighting.Source;
import app.knottag.core.reach.CheckResult;
import app.knottag.core.reach.CheckRunner;
import app.knottag.core.reach.Probes;
import app.knottag.server.record.EvidenceStore.AloneRow;
import app.knottag.server.record.EvidenceStore.FormerRow;
import app.knottag.server.record.EvidenceStore.RecordedRow;
import app.knottag.server.record.EvidenceStore.SeenRow;
import app.knottag.server.record.EvidenceStore.SweptRow;
import app.knottag.server.record.SiteStore.SegmentRow;
import java.time.Instant;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.stream.Collectors;
import org.springframework.stereotype.Service;
import org.springframework.transaction.PlatformTransactionManager;
import org.springframework.transaction.TransactionDefinition;
import org.springframework.transaction.support.TransactionTemplate;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;

/** Loads who is on record at a site and who was seen there, of one moment, as core's audit takes it. */
@Service
public class SiteEvidence {

    private final EvidenceStore store;
    private final SiteStore siteStore;
    private final Sites sites;
    private final SitePlans plans;
    private final SightingStore sightings;
    private final Probes probes;
    private final TransactionTemplate reading;
    private final JsonMapper json;

    SiteEvidence(
            EvidenceStore store,
            SiteStore siteStore,
            Sites sites,
            SitePlans plans,
            SightingStore sightings,
            Probes probes,
            PlatformTransactionManager transactions,
            JsonMapper json) {
        this.store = store;
        this.siteStore = siteStore;
        this.sites = sites;
        this.plans = plans;
        this.sightings = sightings;
        this.probes = probes;
        this.json = json;
        reading = new TransactionTemplate(transactions);
        reading.setReadOnly(true);
        reading.setIsolationLevel(TransactionDefinition.ISOLATION_REPEATABLE_READ);
    }

    /** @param segments of the site, as {@code site} has them, with their numbers */
    public record Loaded(AuditSite site, List<SegmentRow> segments) {}

    public Loaded load(long siteId) {
        var here = probes.here().addresses();
        return Objects.requireNonNull(reading.execute(t -> {
            sites.site(siteId);
            var segments = siteStore.segments(siteId);
            return new Loaded(load(siteId, segments, here), segments);
        }));
    }

    /** Returns the name of the endpoint of a site that has a MAC. */
    public Optional<String> owner(long siteId, Mac mac) {
        return store.recorded(siteId).stream()
                .filter(r -> mac.equals(r.mac()))
                .map(RecordedRow::name)
                .findFirst();
    }

    private AuditSite load(long siteId, List<SegmentRow> segments, List<Ipv4Address> here) {
        var pools = siteStore.pools(siteId);
        var seen = store.seen(siteId);
        return new AuditSite(
                segments.stream().map(s -> sites.plain(s, pools)).toList(),
                recorded(store.recorded(siteId)),
                fixtures(siteId, here),
                seen.stream()
                        .map(s -> new Seen(s.mac(), s.address(), s.source(), s.first(), s.last()))
                        .toList(),
                sightings.questions(siteId).stream()
                        .filter(q -> q.source() == Source.NEIGHBOURS)
                        .map(SightingStore.AnswerRow::at)
                        .findFirst(),
                store.swept(siteId).stream().collect(Collectors.toMap(SweptRow::prefix, SweptRow::at)),
                alone(siteId, seen),
                store.former(siteId).stream()
                        .collect(Collectors.toMap(FormerRow::mac, f -> new Former(f.name(), f.until()))),
                store.known(siteId).stream()
                        .map(k -> new Decision(k.mac(), k.address(), k.what(), k.by()))
                        .toList());
    }

    /** Only of addresses at which more than one was seen it is asked. */
    private Map<Ipv4Address, Instant> alone(long siteId, List<SeenRow> seen) {
        var first = new HashMap<Ipv4Address, Mac>();
        var shared = new HashSet<String>();
        for (var s : seen) {
            var before = first.putIfAbsent(s.address(), s.mac());
            if (before != null && !before.equals(s.mac()))
                shared.add(s.address().toString());
        }
        return shared.isEmpty()
                ? Map.of()
                : store.alone(siteId, shared.toArray(String[]::new)).stream()
                        .filter(r ->
                                json.readValue(r.results().text(), new TypeReference<List<CheckResult>>() {}).stream()
                                        .anyMatch(CheckRunner::heardAlone))
                        .collect(Collectors.toMap(AloneRow::address, AloneRow::at));
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
}
