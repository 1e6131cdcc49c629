package app.knottag.server.verify;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Segment;
import app.knottag.core.hardware.Mac;
import app.knottag.core.plan.Sighting.Source;
import app.knottag.core.reach.Probes;
import app.knottag.core.reach.Sweep;
import app.knottag.core.reach.Sweep.Planned;
import app.knottag.core.reach.Swept;
import app.knottag.core.reach.Vantage;
import app.knottag.server.db.Claims;
import app.knottag.server.db.Claims.Claim;
import app.knottag.server.db.Claims.Work;
import app.knottag.server.db.Json;
import app.knottag.server.log.Log;
import app.knottag.server.record.EndpointStore;
import app.knottag.server.record.NightLook;
import app.knottag.server.record.NightPace;
import app.knottag.server.record.SightingStore;
import app.knottag.server.record.SitePlans;
import app.knottag.server.record.SiteStore;
import app.knottag.server.record.SiteStore.SegmentRow;
import app.knottag.server.record.Sites;
import app.knottag.server.verify.SweepStore.State;
import app.knottag.server.web.Problem;
import java.time.Clock;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.atomic.AtomicLong;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.EventListener;
import org.springframework.http.HttpStatus;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Service;
import org.springframework.transaction.support.TransactionTemplate;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;

/** Sweeps whole segments, one at a time each, while people look on. */
@Service
class Sweeps {

    private static final Logger LOG = LoggerFactory.getLogger(Sweeps.class);

    /** So often a sweep that runs is written down, for the case that the server is cut off. */
    private static final int WRITTEN_EVERY = 64;

    private static final long TOLD_EVERY_NANOS = 250_000_000;

    /** So many addresses are asked at one go at night. */
    private static final int TOGETHER = 32;

    private final SweepStore store;
    private final SiteStore siteStore;
    private final Sites sites;
    private final EndpointStore endpoints;
    private final SightingStore sightings;
    private final Targets targets;
    private final Probes probes;
    private final Log log;
    private final Clock clock;
    private final TransactionTemplate transactions;
    private final SitePlans plans;
    private final NightPace pace;
    private final JsonMapper json;
    private final Claims claims;

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
            TransactionTemplate transactions,
            SitePlans plans,
            NightPace pace,
            JsonMapper json,
            Claims claims) {
        this.store = store;
        this.siteStore = siteStore;
        this.sites = sites;
        this.endpoints = endpoints;
        this.sightings = sightings;
        this.targets = targets;
        this.probes = probes;
        this.log = log;
        this.clock = clock;
        this.transactions = transactions;
        this.plans = plans;
        this.pace = pace;
        this.json = json;
        this.claims = claims;
    }

    /** How far a sweep is that runs just now. */
    record Progress(int asked, int answered) {}

    /** How far the sweep of a segment is that some server makes now. */
    Optional<Progress> running(long segmentId) {
        return claims.told(Work.SWEEP, segmentId, new TypeReference<>() {}, new Progress(0, 0));
    }

    /** A sweep whose server was cut off does not look as if it still ran. */
    @EventListener(ApplicationReadyEvent.class)
    @Scheduled(fixedDelay = 15_000, initialDelay = 15_000)
    void cutOff() {
        for (long segmentId : store.running()) claims.alone(Work.SWEEP, segmentId, () -> store.cutOff(segmentId));
    }

    /** A sweep that this server makes. */
    private static final class Running {
        private final Claim claim;
        private final AtomicInteger asked = new AtomicInteger();
        private final Set<Ipv4Address> answered = ConcurrentHashMap.newKeySet();
        private final AtomicLong told = new AtomicLong(System.nanoTime());

        Running(Claim claim) {
            this.claim = claim;
        }

        void asked(int count) {
            asked.accumulateAndGet(count, Math::max);
            long last = told.get(), now = System.nanoTime();
            if (now - last > TOLD_EVERY_NANOS && told.compareAndSet(last, now))
                claim.tell(new Progress(asked.get(), answered.size()));
        }
    }

    void start(long segmentId, String by) {
        var begun = begin(segmentId, by)
                .orElseThrow(() ->
                        Problem.of(HttpStatus.CONFLICT, "sweep-running", "A sweep of this segment runs already."));
        var runner = new Thread(() -> toTheEnd(begun, probes::sweep));
        runner.setDaemon(true);
        runner.start();
    }

    /** Asks all of a segment and waits for it; returns how many answered, or why nobody can say. */
    NightLook.Told wait(long segmentId, boolean gently) {
        var begun = begin(segmentId, NightLook.BY);
        if (begun.isEmpty()) return NightLook.Told.not("Somebody swept it just then.");
        var done = toTheEnd(begun.get(), gently ? this::slowly : probes::sweep);
        if (done.state() != State.DONE) return NightLook.Told.not("The sweep broke off: " + done.how() + ".");
        var own = probes.here().addresses();
        int others = (int) done.swept().there().keySet().stream()
                .filter(a -> !own.contains(a))
                .count();
        return NightLook.Told.heard(others, others == 0 ? "Nobody answered there." : "");
    }

    private Swept slowly(List<Ipv4Address> hosts, Swept.Listener listener) {
        var there = new HashMap<Ipv4Address, Set<Mac>>();
        var overSix = new HashSet<Mac>();
        var how = new LinkedHashSet<String>();
        for (int from = 0; from < hosts.size() && !listener.stop(); from += TOGETHER) {
            long begun = System.nanoTime();
            int before = from;
            var part = hosts.subList(from, Math.min(from + TOGETHER, hosts.size()));
            var swept = probes.sweep(part, new Swept.Listener() {
                @Override
                public void asked(int count) {
                    listener.asked(before + count);
                }

                @Override
                public void answered(Ipv4Address address) {
                    listener.answered(address);
                }

                @Override
                public boolean stop() {
                    return listener.stop();
                }
            });
            there.putAll(swept.there());
            overSix.addAll(swept.overSix());
            how.add(swept.how());
            pace.keep(begun, part.size());
        }
        return new Swept(there, overSix, String.join(", ", how));
    }

    /** What is to be swept, by whom, and from where. */
    private record Begun(
            long id,
            SegmentRow row,
            Segment segment,
            List<Ipv4Address> hosts,
            Running sweep,
            Vantage vantage,
            String by) {}

    /** How the addresses are asked: all at once, or slowly. */
    private interface Asking {
        Swept sweep(List<Ipv4Address> hosts, Swept.Listener listener);
    }

    /** Returns what is to be done, or empty when somebody does it just now. */
    private Optional<Begun> begin(long segmentId, String by) {
        var row = sites.segment(segmentId);
        var segment = sites.plain(row);
        if (segment.prefix().prefixLength() < 22)
            throw Problem.of(
                    HttpStatus.CONFLICT,
                    "segment-too-large",
                    "At most " + Sweep.MOST_HOSTS + " addresses are swept in one go; " + segment.prefix()
                            + " has more.");
        var hosts = Sweep.hosts(segment);
        var claim = claims.take(Work.SWEEP, segmentId);
        if (claim.isEmpty()) return Optional.empty();
        try {
            var vantage = targets.vantage(row.siteId(), probes);
            long id = store.begin(segmentId, clock.instant(), by, hosts.size(), vantage.words(segment.prefix()));
            return Optional.of(new Begun(id, row, segment, hosts, new Running(claim.get()), vantage, by));
        } catch (RuntimeException e) {
            claim.get().close();
            throw e;
        }
    }

    private Outcome toTheEnd(Begun begun, Asking asking) {
        var done = Outcome.cutOff("the server had an error");
        try {
            done = swept(begun, asking);
        } catch (RuntimeException e) {
            LOG.error("The sweep of {} broke off", begun.segment().prefix(), e);
        } finally {
            try (var mine = begun.sweep().claim) {
                if (!mine.lost()) end(begun, done);
            }
        }
        return done;
    }

    private record Outcome(State state, List<Sweep.Line> lines, Swept swept, String how) {
        static Outcome cutOff(String why) {
            return new Outcome(State.CUT_OFF, List.of(), new Swept(Map.of(), Set.of(), ""), why);
        }
    }

    private Outcome swept(Begun begun, Asking asking) {
        var before = probes.here();
        var sweep = begun.sweep();
        var swept = asking.sweep(begun.hosts(), new Swept.Listener() {
            @Override
            public void asked(int count) {
                Sweeps.this.asked(begun.id(), sweep, count);
            }

            @Override
            public void answered(Ipv4Address address) {
                sweep.answered.add(address);
            }

            @Override
            public boolean stop() {
                return sweep.claim.ends();
            }
        });
        if (sweep.claim.lost())
            return Outcome.cutOff("the database was away, so another server may have begun the same");
        // Whoever loses her own link in the middle has not found everybody else silent.
        if (!probes.here().equals(before))
            return Outcome.cutOff("this machine's own network changed in the middle, so nothing is said of anybody");
        boolean stopped = sweep.claim.ends();
        var within = begun.vantage().within(begun.segment().prefix());
        var lines = Sweep.judge(begun.segment(), planned(begun.row().siteId()), swept, within).stream()
                // Who was not asked cannot be called silent.
                .filter(l -> !stopped || l.verdict() != Sweep.Verdict.SILENT && l.verdict() != Sweep.Verdict.MOVED)
                .toList();
        return new Outcome(stopped ? State.CANCELLED : State.DONE, lines, swept, how(swept));
    }

    /** By which question it was asked, and who is there without an address. */
    private static String how(Swept swept) {
        var six = Sweep.onlyOverSix(swept);
        return swept.how()
                + (six.isEmpty()
                        ? ""
                        : "; "
                                + (six.size() == 1
                                        ? six.get(0) + " answers"
                                        : six.stream().map(Mac::toString).collect(Collectors.joining(", ")) + " answer")
                                + " over IPv6 only");
    }

    /** What came of it, the evidence for the plan, and the log: all of it, or the next start says that it was cut off. */
    private void end(Begun begun, Outcome done) {
        long siteId = begun.row().siteId();
        boolean atNight = begun.by().equals(NightLook.BY);
        try {
            transactions.executeWithoutResult(t -> {
                store.end(
                        begun.id(),
                        done.state(),
                        clock.instant(),
                        begun.sweep().asked.get(),
                        new Json(json.writeValueAsString(done.lines())),
                        sighted(siteId, done.swept(), begun.by()),
                        done.how());
                // A night has one entry in the log, and its sweep takes the place of the one of the night before.
                if (atNight) store.onlyLast(begun.row().id(), begun.id(), NightLook.BY);
                else
                    log.write(Log.entry(
                                    begun.by(),
                                    "swept " + begun.segment().prefix() + ": "
                                            + done.state()
                                                    .name()
                                                    .toLowerCase(Locale.ROOT)
                                                    .replace('_', ' '))
                            .at(siteId)
                            .after(done.lines()));
            });
        } catch (RuntimeException e) {
            LOG.error(
                    "What the sweep of {} found could not be kept",
                    begun.segment().prefix(),
                    e);
        }
    }

    private void asked(long id, Running sweep, int count) {
        sweep.asked(count);
        if (count % WRITTEN_EVERY == 0) store.progress(id, count);
    }

    /** Who was seen is evidence for the plan, as if the table had been pasted in. Returns how many MACs there were. */
    private int sighted(long siteId, Swept swept, String by) {
        var at = clock.instant();
        var heard = swept.there().entrySet().stream()
                .flatMap(e -> e.getValue().stream().map(mac -> SightingStore.SightingRow.heard(e.getKey(), mac, at)))
                .toList();
        sightings.add(siteId, heard, by);
        if (!heard.isEmpty()) sightings.looked(siteId, Source.NEIGHBOURS, at);
        return heard.size();
    }

    private List<Planned> planned(long siteId) {
        var plan = new ArrayList<Planned>();
        probes.here().addresses().forEach(a -> plan.add(new Planned(a, "This machine", Optional.empty(), 0)));
        plans.reserved(siteId).forEach((a, name) -> plan.add(new Planned(a, titled(name), Optional.empty(), 0)));
        siteStore.partners(siteId).forEach(p -> plan.add(new Planned(p.address(), p.name(), Optional.empty(), 0)));
        endpoints.holders(siteId).stream()
                .filter(h -> h.address() != null)
                .forEach(h -> plan.add(new Planned(h.address(), h.name(), Optional.ofNullable(h.mac()), h.id())));
        return plan;
    }

    /** “the gateway of Shop” as it begins a line. */
    private static String titled(String name) {
        return name.startsWith("the ") ? "T" + name.substring(1) : name;
    }

    void cancel(long segmentId) {
        claims.stop(Work.SWEEP, segmentId);
    }

    /** The latest sweep of a segment as it stands in the database, or null when there was none. */
    SweepStore.@Nullable SweepRow latest(long segmentId) {
        return store.latest(segmentId);
    }
}
