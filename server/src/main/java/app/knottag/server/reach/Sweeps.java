package app.knottag.server.reach;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Segment;
import app.knottag.core.plan.Sighting.Source;
import app.knottag.core.reach.Neighbour;
import app.knottag.core.reach.Probes;
import app.knottag.core.reach.Sweep;
import app.knottag.core.reach.Sweep.Planned;
import app.knottag.core.reach.Vantage;
import app.knottag.server.db.Json;
import app.knottag.server.intake.SightingStore;
import app.knottag.server.log.Log;
import app.knottag.server.plan.EndpointStore;
import app.knottag.server.site.SiteStore;
import app.knottag.server.site.Sites;
import app.knottag.server.web.Problem;
import java.time.Clock;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.SynchronousQueue;
import java.util.concurrent.ThreadPoolExecutor;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.EventListener;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Service;
import tools.jackson.databind.json.JsonMapper;

/** Sweeps whole segments, one at a time each, while people look on. */
@Service
class Sweeps {

    private static final int THREADS = 1_100;

    /** So often a sweep that runs is written down, for the case that the server is cut off. */
    private static final int WRITTEN_EVERY = 64;

    private final SweepStore store;
    private final SiteStore siteStore;
    private final Sites sites;
    private final EndpointStore endpoints;
    private final SightingStore sightings;
    private final Targets targets;
    private final Probes probes;
    private final Log log;
    private final Clock clock;
    private final JsonMapper json;
    private final Map<Long, Running> running = new ConcurrentHashMap<>();
    private final ExecutorService threads = new ThreadPoolExecutor(
            0,
            THREADS,
            10,
            TimeUnit.SECONDS,
            new SynchronousQueue<>(),
            r -> {
                var thread = new Thread(r, "sweep");
                thread.setDaemon(true);
                return thread;
            },
            // Several large segments at once are asked more slowly instead of not at all.
            new ThreadPoolExecutor.CallerRunsPolicy());

    Sweeps(
            SweepStore store,
            SiteStore siteStore,
            Sites sites,
            EndpointStore endpoints,
            SightingStore sightings,
            Targets targets,
            Probes probes,
            Log log,
            Clock clock,
            JsonMapper json) {
        this.store = store;
        this.siteStore = siteStore;
        this.sites = sites;
        this.endpoints = endpoints;
        this.sightings = sightings;
        this.targets = targets;
        this.probes = probes;
        this.log = log;
        this.clock = clock;
        this.json = json;
    }

    /** A sweep that runs just now. */
    static final class Running {
        final AtomicInteger asked = new AtomicInteger();
        final Set<Ipv4Address> answered = ConcurrentHashMap.newKeySet();
        volatile boolean stop;
    }

    Optional<Running> running(long segmentId) {
        return Optional.ofNullable(running.get(segmentId));
    }

    /** A sweep that a restart has cut off does not look as if it still ran. */
    @EventListener(ApplicationReadyEvent.class)
    void cutOff() {
        store.cutOff();
    }

    void start(long segmentId, String by) {
        var row = sites.segment(segmentId);
        var segment = sites.plain(row);
        if (segment.prefix().prefixLength() < 22)
            throw Problem.of(
                    HttpStatus.CONFLICT,
                    "segment-too-large",
                    "At most " + Sweep.MOST_HOSTS + " addresses are swept in one go; " + segment.prefix()
                            + " has more.");
        var hosts = Sweep.hosts(segment);
        var sweep = new Running();
        if (running.putIfAbsent(segmentId, sweep) != null)
            throw Problem.of(HttpStatus.CONFLICT, "sweep-running", "A sweep of this segment runs already.");
        var vantage = targets.vantage(row.siteId(), probes);
        long id = store.begin(segmentId, clock.instant(), by, hosts.size(), vantage.words(segment.prefix()));
        var runner = new Thread(() -> {
            String state = "CUT_OFF";
            List<Sweep.Line> lines = List.of();
            try {
                Sweep.run(
                        hosts, probes::there, threads, sweep.answered::add, n -> asked(id, sweep, n), () -> sweep.stop);
                var table = probes.neighbours();
                lines = judged(row.siteId(), segment, sweep, table, vantage, sweep.stop);
                sighted(row.siteId(), segment, table, by);
                state = sweep.stop ? "CANCELLED" : "DONE";
            } finally {
                running.remove(segmentId);
                store.end(id, state, clock.instant(), sweep.asked.get(), new Json(json.writeValueAsString(lines)));
                log.write(Log.entry(
                                by,
                                "swept " + segment.prefix() + ": "
                                        + state.toLowerCase(Locale.ROOT).replace('_', ' '))
                        .at(row.siteId(), null)
                        .after(lines));
            }
        });
        runner.setDaemon(true);
        runner.start();
    }

    private void asked(long id, Running sweep, int count) {
        sweep.asked.accumulateAndGet(count, Math::max);
        if (count % WRITTEN_EVERY == 0) store.progress(id, count);
    }

    /** Who was not asked cannot be called silent. */
    private List<Sweep.Line> judged(
            long siteId, Segment segment, Running sweep, List<Neighbour> table, Vantage vantage, boolean partly) {
        var lines = Sweep.judge(
                segment, planned(siteId), new HashSet<>(sweep.answered), table, vantage.within(segment.prefix()));
        return lines.stream()
                .filter(l -> !partly || l.verdict() != Sweep.Verdict.SILENT && l.verdict() != Sweep.Verdict.MOVED)
                .toList();
    }

    /** Who was seen is evidence for the plan, as if the table had been pasted in. */
    private void sighted(long siteId, Segment segment, List<Neighbour> table, String by) {
        var at = clock.instant();
        var here = table.stream()
                .filter(n -> segment.prefix().contains(n.address()))
                .toList();
        for (var n : here)
            sightings.add(
                    siteId,
                    new SightingStore.SightingRow(n.address(), n.mac(), Source.NEIGHBOURS.name(), at, null),
                    by);
        if (!here.isEmpty()) sightings.looked(siteId, Source.NEIGHBOURS.name(), at);
    }

    private List<Planned> planned(long siteId) {
        var plan = new ArrayList<Planned>();
        siteStore.segments(siteId).stream()
                .filter(s -> s.gateway() != null)
                .forEach(s -> plan.add(new Planned(s.gateway(), "Gateway", Optional.empty(), 0)));
        siteStore.partners(siteId).forEach(p -> plan.add(new Planned(p.address(), p.name(), Optional.empty(), 0)));
        endpoints.holders(siteId).stream()
                .filter(h -> h.address() != null)
                .forEach(h -> plan.add(new Planned(h.address(), h.name(), Optional.ofNullable(h.mac()), h.id())));
        return plan;
    }

    void cancel(long segmentId) {
        running(segmentId).ifPresent(r -> r.stop = true);
    }
}
