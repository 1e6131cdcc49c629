package app.knottag.server.visit;

import app.knottag.core.runbook.Board;
import app.knottag.core.runbook.StepRecord;
import app.knottag.core.status.Status;
import app.knottag.core.visit.DoNow;
import app.knottag.core.visit.Steer;
import app.knottag.core.visit.VisitPlan;
import app.knottag.server.db.Json;
import app.knottag.server.log.Log;
import app.knottag.server.visit.HandStore.HandRow;
import app.knottag.server.visit.HandStore.NotedRow;
import app.knottag.server.visit.VisitBrief.Whereabouts;
import app.knottag.server.visit.VisitStore.VisitRow;
import app.knottag.server.web.Etags;
import app.knottag.server.web.Problem;
import java.time.Clock;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.databind.json.JsonMapper;

/**
 * Who is at what: a person takes what the visit has for them, and it is theirs until its last step is done, its wait runs or
 * they let go of it. What the runbooks say meanwhile is noted as minutes that it really took.
 */
@Service
public class Taking {

    /** Longer than this nobody stood beside it: a break, and not minutes of a step. */
    private static final int LONGEST_MINUTES = 240;

    private final Visits visits;
    private final VisitStore store;
    private final HandStore inHand;
    private final TaskStore tasks;
    private final Route route;
    private final Log log;
    private final Clock clock;
    private final JsonMapper json;

    Taking(
            Visits visits,
            VisitStore store,
            HandStore inHand,
            TaskStore tasks,
            Route route,
            Log log,
            Clock clock,
            JsonMapper json) {
        this.visits = visits;
        this.store = store;
        this.inHand = inHand;
        this.tasks = tasks;
        this.route = route;
        this.log = log;
        this.clock = clock;
        this.json = json;
    }

    /** What each person is to do now, in their order. */
    List<DoNow> lines(VisitRow row, VisitNow now) {
        return steer(row, now).all(now.standing());
    }

    private Steer steer(VisitRow row, VisitNow now) {
        var plan = visits.plan(row).map(KeptPlan::plan);
        return new Steer(
                now.brief(), plan.orElse(new VisitPlan(List.of(), 0, 0, 0, VisitPlan.BoundBy.SUMS, List.of())));
    }

    /** Gives a person what comes next; what they had is finished first, as far as its steps are done. */
    @Transactional
    public void take(long id, int person, String by) {
        var row = running(id, person);
        settle(row);
        var now = visits.now(row);
        var told = lines(row, now).get(person);
        if (told.what() != DoNow.What.DO) return;
        var unit = now.brief().units().stream()
                .filter(u -> u.id() == told.unit())
                .findFirst()
                .orElseThrow();
        var hand = new HandRow(
                person,
                told.unit(),
                new Json(json.writeValueAsString(
                        unit.stretches().get(told.stretch()).steps())),
                clock.instant(),
                way(now, person, unit.place()));
        if (inHand.take(id, hand) == 0)
            throw Problem.of(
                    HttpStatus.CONFLICT,
                    "taken",
                    "Somebody took that a moment ago. Look again: there may be another one.");
        store.goes(id, now.brief().hands().get(person).name(), new Whereabouts(unit.place(), false, clock.instant()));
        var entry = Log.entry(by, "took in hand")
                .after(Map.of("who", now.brief().hands().get(person).name()));
        log.write(told.unit() > 0 ? entry.at(row.siteId(), told.unit()) : entry.at(row.siteId()));
    }

    /** Minutes to get there from where somebody was last; before their first turn they come from nowhere. */
    private static int way(VisitNow now, int person, String place) {
        String was = now.standing().people().get(person).place();
        return was.isEmpty() ? 0 : now.brief().means().walk(was, place);
    }

    /** Lets go of what a person has in hand; what is done of it stays done. */
    @Transactional
    public void drop(long id, int person, String by) {
        var row = running(id, person);
        settle(row);
        if (inHand.release(id, person) > 0)
            log.write(Log.entry(by, "let go of it").at(row.siteId()).after(Map.of("person", person)));
    }

    /** What a person has in hand is left for another day; it can be taken in again. */
    @Transactional
    public void setAside(long id, int person, String by) {
        var row = running(id, person);
        settle(row);
        var hand = visits.hands(id).stream()
                .filter(h -> h.person() == person && h.unitId() > 0)
                .findFirst()
                .orElseThrow(() -> Problem.of(
                        HttpStatus.CONFLICT,
                        "nothing-in-hand",
                        "They have no device in hand that could be left for another day."));
        inHand.release(id, person);
        store.aside(id, hand.unitId(), true);
        log.write(Log.entry(by, "left for another day").at(row.siteId(), hand.unitId()));
    }

    /** What was left for another day is done on this one after all. */
    @Transactional
    public void takeIn(long id, long endpointId, String by) {
        var row = running(id, 0);
        if (store.aside(id, endpointId, false) == 0) throw Problem.notFound("That is no device of this visit.");
        log.write(Log.entry(by, "taken in again").at(row.siteId(), endpointId));
    }

    /** Somebody leaves for good; what they had in hand is free for whoever is there. */
    @Transactional
    public void leave(long id, int person, int expected, String by) {
        var row = running(id, person);
        if (row.version() != expected) throw Etags.stale();
        settle(row);
        inHand.release(id, person);
        var who = visits.brief(row).people().get(person);
        if (who.gone()) return;
        store.goes(id, who.name(), new Whereabouts(who.at().place(), true, clock.instant()));
        log.write(Log.entry(by, "left the visit").at(row.siteId()).after(Map.of("who", who.name())));
    }

    /** The task that a person has in hand is done. */
    @Transactional
    public void done(long id, int person, String by) {
        var row = running(id, person);
        var hand = visits.hands(id).stream()
                .filter(h -> h.person() == person && h.unitId() < 0)
                .findFirst()
                .orElseThrow(() -> Problem.of(
                        HttpStatus.CONFLICT,
                        "no-task-in-hand",
                        "They have no task in hand. What is set up is done step by step in its runbook."));
        tasks.done(id, -hand.unitId(), clock.instant());
        inHand.release(id, person);
        log.write(Log.entry(by, "task done")
                .at(row.siteId())
                .after(Map.of(
                        "task",
                        tasks.of(id).stream()
                                .filter(t -> t.unit() == hand.unitId())
                                .map(TaskStore.TaskRow::title)
                                .findFirst()
                                .orElse(""))));
    }

    private VisitRow running(long id, int person) {
        var row = visits.get(id);
        if (row.over()) throw Visits.over();
        if (!row.begun())
            throw Problem.of(HttpStatus.CONFLICT, "not-begun", "The visit has not begun. Begin it first.");
        if (person < 0 || person >= visits.brief(row).people().size())
            throw Problem.notFound("Nobody of that number comes to this visit.");
        return row;
    }

    /** Releases whatever is done, and notes how long its steps took. */
    void settle(VisitRow row) {
        var hands = visits.hands(row.id());
        var jobs = route.jobs(store.units(row.id()).stream()
                .filter(u -> hands.stream().anyMatch(h -> h.unitId() == u.endpointId()))
                .toList());
        for (var hand : hands) {
            if (hand.unitId() < 0) continue;
            Optional<Board.Job> job =
                    jobs.stream().filter(j -> j.endpoint() == hand.unitId()).findFirst();
            if (job.isPresent() && !hand.over(job.get())) continue;
            job.ifPresent(j -> note(row.id(), hand, j));
            inHand.release(row.id(), hand.person());
        }
    }

    private void note(long id, Hand hand, Board.Job job) {
        var since = hand.there();
        for (String key : hand.steps()) {
            StepRecord record = job.runbook().record(key);
            if (record.status() != Status.PASSED || record.endedAt().isEmpty()) return;
            var end = record.endedAt().get();
            if (end.isBefore(since)) continue;
            long minutes = (Duration.between(since, end).toSeconds() + 30) / 60;
            var step = job.runbook().kind().step(key);
            if (minutes <= LONGEST_MINUTES)
                inHand.note(
                        id,
                        new NotedRow(
                                job.endpoint(),
                                job.runbook().kind().id(),
                                key,
                                (int) minutes,
                                job.runbook().kind().minutes(step)));
            since = end;
        }
    }
}
