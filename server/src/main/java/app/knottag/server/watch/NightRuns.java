package app.knottag.server.watch;

import app.knottag.core.time.SiteClock;
import app.knottag.core.watch.Morning;
import app.knottag.core.watch.Morning.Line;
import app.knottag.core.watch.Morning.Outcome;
import app.knottag.core.watch.MorningText;
import app.knottag.core.watch.Night;
import app.knottag.core.watch.Night.Work;
import app.knottag.core.watch.Seen;
import app.knottag.core.watch.WatchHours;
import app.knottag.server.db.Claims;
import app.knottag.server.db.Claims.Claim;
import app.knottag.server.db.Json;
import app.knottag.server.log.Log;
import app.knottag.server.record.NightLook;
import app.knottag.server.record.NightLook.Errand;
import app.knottag.server.record.NightLook.Told;
import app.knottag.server.record.NightPace;
import app.knottag.server.record.NightPlans;
import app.knottag.server.watch.NightStore.LineRow;
import app.knottag.server.watch.NightStore.LookRow;
import app.knottag.server.watch.NightStore.NightRow;
import app.knottag.server.watch.NightStore.StandingRow;
import app.knottag.server.watch.WatchStore.WatchRow;
import jakarta.annotation.PreDestroy;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.function.Function;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Service;
import org.springframework.transaction.support.TransactionTemplate;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;

/**
 * Goes through the looks of each site's night, one after the other, at most so many sites at once. Each look is kept when it was
 * made: whoever is cut off goes on with the next, as long as the night lasts.
 */
@Service
class NightRuns {

    private static final Logger LOG = LoggerFactory.getLogger(NightRuns.class);

    private static final int SITES_AT_ONCE = 8;

    /** A clock that was put right by so much has not gone back in any way that matters. */
    private static final Duration SLACK = Duration.ofMinutes(10);

    private static final int UNCOUNTED = -1;

    private static final Duration KEPT = Duration.ofDays(30);

    private static final String UNREACHED =
            "Nobody of the site answered: this machine does not reach it, or nothing there has power.";

    private final WatchStore watches;
    private final NightStore store;
    private final List<NightLook> looks;
    private final NightPlans plans;
    private final NightPace pace;
    private final Log log;
    private final Clock clock;
    private final TransactionTemplate transactions;
    private final JsonMapper json;
    private final Claims claims;
    private final ExecutorService sites = Executors.newFixedThreadPool(SITES_AT_ONCE, r -> {
        var thread = new Thread(r, "night");
        thread.setDaemon(true);
        return thread;
    });
    private volatile boolean ending;

    NightRuns(
            WatchStore watches,
            NightStore store,
            List<NightLook> looks,
            NightPlans plans,
            NightPace pace,
            Log log,
            Clock clock,
            TransactionTemplate transactions,
            JsonMapper json,
            Claims claims) {
        this.watches = watches;
        this.store = store;
        this.looks = looks;
        this.plans = plans;
        this.pace = pace;
        this.log = log;
        this.clock = clock;
        this.transactions = transactions;
        this.json = json;
        this.claims = claims;
    }

    /** How far the looks of a site are. */
    record Progress(int made, int of, String now) {}

    Optional<Progress> progress(long siteId) {
        return claims.told(Claims.Work.NIGHT, siteId, new TypeReference<>() {}, new Progress(0, 0, ""));
    }

    /** Returns the night of a site before a morning. */
    Night night(long siteId, WatchHours hours, LocalDate morning, ZoneId zone) {
        var doings = plans.doings(siteId);
        return Night.before(morning, hours, doings.busy(), doings.restarts(), zone);
    }

    /** What there is to look at, as it is laid into a night. */
    List<Work> works(long siteId) {
        return errands(siteId).stream().map(this::work).toList();
    }

    private Work work(Errand e) {
        return new Work(e.key(), e.what(), pace.takes(e.questions()));
    }

    /** What somebody can do so that more is looked at. */
    List<String> hints(long siteId) {
        return looks.stream().flatMap(l -> l.hints(siteId).stream()).toList();
    }

    private List<Errand> errands(long siteId) {
        return looks.stream().flatMap(l -> l.errands(siteId).stream()).toList();
    }

    /** Whether the clock stands before looks that were made already, so that no night can be told from another. */
    boolean setBack(long siteId, Instant now) {
        return store.lately(siteId).stream()
                .findFirst()
                .filter(n -> n.startedAt().isAfter(now.plus(SLACK)))
                .isPresent();
    }

    /** Begins and goes on with the nights in which looks may go on now, and ends those that are over. */
    @Scheduled(
            fixedDelayString = "${knot.night.look-every:30000}",
            initialDelayString = "${knot.night.look-every:30000}")
    void tick() {
        for (var watch : watches.all()) {
            try {
                tick(watch);
            } catch (RuntimeException e) {
                LOG.error("The night of site {} could not go on", watch.siteId(), e);
            }
        }
        // What was asked for by hand, or at a site that is watched no longer, and was cut off, is over.
        for (var open : store.open())
            if (open.asked() || watches.find(open.siteId()).isEmpty())
                endLeft(open, "Knot Tag was stopped in the middle of it.");
    }

    private void tick(WatchRow watch) {
        var now = clock.instant();
        if (setBack(watch.siteId(), now)) return;
        var hours = new WatchHours(watch.fromTime(), watch.untilTime());
        var zone = ZoneId.of(watch.zone());
        var morning = hours.morning(now, zone);
        for (var open : store.open())
            if (open.siteId() == watch.siteId() && !open.asked() && !morning.equals(open.morning()))
                endLeft(open, "The night was over before its turn came.");
        if (hours.night(morning, zone).from().isAfter(now)) return;
        store.begin(watch.siteId(), morning, NightLook.BY, now);
        Supplier<Optional<NightRow>> due =
                () -> store.of(watch.siteId(), morning).filter(NightRow::goesOn);
        if (due.get().isEmpty()) return;
        go(watch.siteId(), due, Optional.of(night(watch.siteId(), hours, morning, zone)));
    }

    /** Ends looks that nobody goes on with. */
    private void endLeft(NightRow open, String whyLeft) {
        claims.alone(Claims.Work.NIGHT, open.siteId(), () -> end(open, whyLeft));
    }

    /** Makes all looks at a site right now, because somebody wants to know; returns whether it does. */
    boolean now(long siteId, String by) {
        return go(siteId, () -> store.find(store.beginNow(siteId, by, clock.instant())), Optional.empty());
    }

    /** Returns whether it goes on now; not when other looks of the site do. */
    private boolean go(long siteId, Supplier<Optional<NightRow>> begin, Optional<Night> night) {
        var taken = claims.take(Claims.Work.NIGHT, siteId);
        if (taken.isEmpty()) return false;
        var claim = taken.get();
        try {
            var row = begin.get();
            if (row.isPresent()) sites.execute(() -> toTheEnd(row.get(), night, claim));
            else claim.close();
            return row.isPresent();
        } catch (RuntimeException e) {
            claim.close();
            throw e;
        }
    }

    private void toTheEnd(NightRow row, Optional<Night> night, Claim claim) {
        try (claim) {
            run(row, night, claim);
        } catch (RuntimeException e) {
            LOG.error("The night of site {} broke off", row.siteId(), e);
        }
    }

    private void run(NightRow row, Optional<Night> night, Claim claim) {
        var made = store.looks(row.id());
        var done = made.stream().map(LookRow::key).collect(Collectors.toSet());
        var reach = new Reach();
        made.forEach(l -> reach.heard(l.answered()));
        var left = errands(row.siteId()).stream()
                .filter(e -> !done.contains(e.key()))
                .collect(Collectors.toMap(Errand::key, Function.identity(), (a, b) -> a, LinkedHashMap::new));
        int all = done.size() + left.size();
        while (!left.isEmpty()) {
            if (ending || claim.ends()) return;
            var next = left.values().iterator().next();
            if (night.isPresent()) {
                var laid =
                        night.get().lay(left.values().stream().map(this::work).toList(), clock.instant());
                if (laid.placed().isEmpty()) break;
                if (laid.placed().get(0).from().isAfter(clock.instant())) return;
                next = left.get(laid.placed().get(0).work().key());
            }
            claim.tell(new Progress(all - left.size(), all, next.what()));
            long begun = System.nanoTime();
            var told = next.onSite() && reach.none() ? Told.not(UNREACHED) : told(next, night.isPresent());
            reach.heard(told.answered().orElse(UNCOUNTED));
            keep(row, next, told);
            left.remove(next.key());
            if (night.isPresent() && told.whyNot().isEmpty()) pace.keep(begun, next.questions());
        }
        end(row, "The free hours of that night were too short for it.");
    }

    /** Whether anybody at the site answered at all, as far as anybody was asked. */
    private static final class Reach {
        private boolean asked;
        private boolean somebody;

        void heard(int answered) {
            asked |= answered != UNCOUNTED;
            somebody |= answered > 0;
        }

        boolean none() {
            return asked && !somebody;
        }
    }

    private static Told told(Errand errand, boolean gently) {
        try {
            return errand.look().make(gently);
        } catch (RuntimeException e) {
            LOG.error("The look “{}” at night broke off", errand.what(), e);
            return Told.not("Knot Tag had an error in it, which stands in its server log.");
        }
    }

    private void keep(NightRow row, Errand errand, Told told) {
        var now = clock.instant();
        transactions.executeWithoutResult(t -> {
            int answered = told.answered().orElse(UNCOUNTED);
            store.addLook(row.id(), new LookRow(errand.key(), errand.what(), now, told.whyNot(), answered));
            if (!told.whyNot().isEmpty()) return;
            var before = store.standing(row.siteId(), errand.key()).stream()
                    .map(s -> new Morning.Standing(
                            seen(s.about(), s.what(), s.endpointId(), s.title(), s.detail()), s.since()))
                    .toList();
            var compared = Morning.compare(before, told.seen(), now);
            if (before.isEmpty() && compared.standing().isEmpty()) return;
            store.forget(row.siteId(), errand.key());
            for (var s : compared.standing()) store.stands(row.siteId(), errand.key(), standing(s));
            for (var l : compared.lines()) store.addLine(row.id(), line(errand.key(), l));
        });
    }

    private static Seen seen(String about, String what, long endpoint, String title, String detail) {
        return new Seen(about, what, endpoint, title, detail);
    }

    private static StandingRow standing(Morning.Standing s) {
        return new StandingRow(
                s.seen().about(),
                s.seen().what(),
                s.seen().endpoint(),
                s.seen().title(),
                s.seen().detail(),
                s.since());
    }

    private static LineRow line(String look, Line l) {
        return new LineRow(
                l.news(),
                look + ": " + l.seen().about(),
                l.seen().what(),
                l.seen().endpoint(),
                l.seen().title(),
                l.seen().detail(),
                l.since());
    }

    static Line line(LineRow l) {
        return new Line(l.news(), seen(l.about(), l.what(), l.endpointId(), l.title(), l.detail()), l.since());
    }

    /** Says of all that is left why it was not looked at, and what came of the rest. */
    private void end(NightRow row, String whyLeft) {
        var now = clock.instant();
        var errands = errands(row.siteId());
        transactions.executeWithoutResult(t -> {
            Set<String> made =
                    store.looks(row.id()).stream().map(LookRow::key).collect(Collectors.toCollection(HashSet::new));
            for (var e : errands)
                if (made.add(e.key())) store.addLook(row.id(), new LookRow(e.key(), e.what(), now, whyLeft, UNCOUNTED));
            var all = store.looks(row.id());
            int looked = (int) all.stream().filter(l -> l.whyNot().isEmpty()).count();
            var outcome = Outcome.of(
                    store.lines(row.id()).stream().map(NightRuns::line).toList(), looked, all.size() - looked);
            if (store.end(row.id(), now, new Json(json.writeValueAsString(outcome))) == 0) return;
            store.forgetGone(row.siteId(), errands.stream().map(Errand::key).toArray(String[]::new));
            store.thin(row.siteId(), now.minus(KEPT));
            log.write(Log.entry(row.by(), "looked at the whole site")
                    .at(row.siteId())
                    .after(outcome.words()));
        });
    }

    /** What was not looked at, by the reason. */
    static List<MorningText.Left> left(List<LookRow> looks) {
        return looks.stream()
                .filter(l -> !l.whyNot().isEmpty())
                .collect(Collectors.groupingBy(
                        LookRow::whyNot, LinkedHashMap::new, Collectors.mapping(LookRow::what, Collectors.toList())))
                .entrySet()
                .stream()
                .map(e -> new MorningText.Left(e.getKey(), e.getValue()))
                .toList();
    }

    /** How a night came out; all nothing while it goes on. */
    Outcome outcome(NightRow n) {
        return json.readValue(n.outcome().text(), Outcome.class);
    }

    /** Nights in which nobody looked, by site. */
    Map<Long, List<LocalDate>> missed(Instant now) {
        var had = new HashMap<Long, Set<LocalDate>>();
        store.had(LocalDate.ofInstant(now, ZoneId.of("UTC")).minusDays(40))
                .forEach(h ->
                        had.computeIfAbsent(h.siteId(), s -> new HashSet<>()).add(h.morning()));
        var missed = new HashMap<Long, List<LocalDate>>();
        for (var w : watches.all()) {
            var nights = Morning.missed(
                    new WatchHours(w.fromTime(), w.untilTime()),
                    w.since(),
                    had.getOrDefault(w.siteId(), Set.of()),
                    new SiteClock(now, ZoneId.of(w.zone()), w.dates()));
            if (!nights.isEmpty()) missed.put(w.siteId(), nights);
        }
        return missed;
    }

    @PreDestroy
    void stop() {
        ending = true;
        sites.shutdownNow();
    }
}
