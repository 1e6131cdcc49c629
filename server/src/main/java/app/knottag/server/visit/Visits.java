package app.knottag.server.visit;

import app.knottag.core.visit.Learned;
import app.knottag.server.db.Json;
import app.knottag.server.log.Log;
import app.knottag.server.record.Sites;
import app.knottag.server.visit.TaskStore.TaskRow;
import app.knottag.server.visit.VisitForm.Asked;
import app.knottag.server.visit.VisitForm.VisitUnitRequest;
import app.knottag.server.visit.VisitStore.UnitRow;
import app.knottag.server.visit.VisitStore.VisitRow;
import app.knottag.server.web.Etags;
import app.knottag.server.web.Problem;
import app.knottag.server.web.Scope;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;

/** Keeps visits: who comes, what is to be done, and how far they are. */
@Service
public class Visits {

    /** How long a visit is thought to be of which nobody has worked out how long it takes. */
    private static final Duration UNKNOWN = Duration.ofHours(1);

    private static final Json NOWHERE = new Json("{}");

    private final VisitStore store;
    private final HandStore inHand;
    private final TaskStore tasks;
    private final Sites sites;
    private final Route route;
    private final VisitPreparation preparation;
    private final Log log;
    private final Clock clock;
    private final JsonMapper json;

    Visits(
            VisitStore store,
            HandStore inHand,
            TaskStore tasks,
            Sites sites,
            Route route,
            VisitPreparation preparation,
            Log log,
            Clock clock,
            JsonMapper json) {
        this.store = store;
        this.inHand = inHand;
        this.tasks = tasks;
        this.sites = sites;
        this.route = route;
        this.preparation = preparation;
        this.log = log;
        this.clock = clock;
        this.json = json;
    }

    VisitRow get(long id) {
        return Optional.ofNullable(store.find(id)).orElseThrow(() -> Problem.notFound("There is no such visit."));
    }

    VisitBrief brief(VisitRow row) {
        return brief(row.brief(), row.whereabouts());
    }

    VisitBrief brief(Json kept, Json whereabouts) {
        return json.readValue(kept.text(), VisitBrief.class)
                .with(json.readValue(whereabouts.text(), new TypeReference<Map<String, VisitBrief.Whereabouts>>() {}));
    }

    /** The plan that people follow; one that was laid for other people is none. */
    Optional<KeptPlan> plan(VisitRow row) {
        return Optional.ofNullable(row.plan())
                .map(p -> json.readValue(p.text(), KeptPlan.class))
                .filter(p -> p.people().equals(brief(row).names()));
    }

    List<Hand> hands(long id) {
        return inHand.hands(id).stream()
                .map(h -> new Hand(
                        h.person(),
                        h.unitId(),
                        json.readValue(h.steps().text(), new TypeReference<List<String>>() {}),
                        h.since(),
                        h.way()))
                .toList();
    }

    Learned learned(Set<String> kinds) {
        if (kinds.isEmpty()) return Learned.NOTHING;
        return new Learned(inHand.learned(kinds).stream()
                .map(m -> new Learned.Seen(m.kind(), m.model(), m.step(), m.minutes()))
                .toList());
    }

    /** A visit as it is: before its beginning as it will be then. */
    VisitNow now(VisitRow row) {
        var units = store.units(row.id());
        var now = clock.instant();
        var at = row.begun() ? now : row.begins();
        var jobs = route.jobs(units);
        var kinds = jobs.stream().map(j -> j.runbook().kind().id()).collect(Collectors.toSet());
        return VisitNow.of(
                brief(row),
                row.latest(),
                at,
                new VisitNow.Work(jobs, units, tasks.of(row.id())),
                hands(row.id()),
                learned(kinds));
    }

    @Transactional
    public long create(long siteId, Asked asked, String by) {
        ofSite(siteId, asked.units());
        free(0, asked);
        long id = store.add(row(0, siteId, asked, 0));
        asked.units()
                .forEach(u -> store.keepUnit(id, new UnitRow(u.endpointId(), 0, "", "", u.bench(), u.first(), false)));
        keep(id, asked.tasks());
        preparation.order(get(id), List.of(), by);
        log.write(Log.entry(by, "visit planned").at(siteId).after(told(asked)));
        return id;
    }

    @Transactional
    public void change(long id, int expected, Asked asked, String by) {
        var was = get(id);
        if (was.over()) throw over();
        ofSite(was.siteId(), asked.units());
        free(id, asked);
        var ordered = preparation.ordered(was);
        if (store.change(row(id, was.siteId(), asked, expected)) == 0) throw Etags.stale();
        var wanted = asked.units().stream().map(VisitUnitRequest::endpointId).collect(Collectors.toSet());
        asked.tasks().forEach(t -> wanted.add(t.unit()));
        var names = brief(was).names();
        if (inHand.hands(id).stream()
                .anyMatch(h -> !wanted.contains(h.unitId())
                        || asked.brief().names().indexOf(names.get(h.person())) != h.person()))
            throw Problem.of(
                    HttpStatus.CONFLICT,
                    "in-hand",
                    "Somebody is at work whom this would take away, or whose device. Let them finish, or let go of it first.");
        for (var unit : store.units(id)) if (!wanted.contains(unit.endpointId())) store.dropUnit(id, unit.endpointId());
        asked.units()
                .forEach(u -> store.keepUnit(id, new UnitRow(u.endpointId(), 0, "", "", u.bench(), u.first(), false)));
        keep(id, asked.tasks());
        preparation.order(get(id), ordered, by);
        log.write(Log.entry(by, "visit changed")
                .at(was.siteId())
                .before(Map.of("name", was.name(), "begins", was.begins()))
                .after(told(asked)));
    }

    private VisitRow row(long id, long siteId, Asked a, int version) {
        return new VisitRow(
                id,
                siteId,
                a.name(),
                a.begins(),
                a.due().orElse(null),
                new Json(json.writeValueAsString(a.brief())),
                null,
                null,
                null,
                NOWHERE,
                version);
    }

    private static Map<String, Object> told(Asked a) {
        return Map.of(
                "name",
                a.name(),
                "begins",
                a.begins(),
                "people",
                a.brief().names(),
                "endpoints",
                a.units().size(),
                "tasks",
                a.tasks().stream().map(TaskRow::title).toList());
    }

    /** Nobody is at two visits at the same time; whoever says when they come and leave may go from one to the other. */
    private void free(long id, Asked asked) {
        store.oneAtATime();
        var until = asked.due().orElse(asked.begins().plus(UNKNOWN));
        for (var other : store.openBefore(id, until)) {
            if (other.begun() || !end(other).isAfter(asked.begins())) continue;
            for (int p = 0; p < asked.brief().people().size(); p++) {
                var mine = asked.brief().people().get(p);
                boolean both = brief(other).people().stream()
                        .filter(t -> t.name().equalsIgnoreCase(mine.name()) && !t.gone())
                        .anyMatch(t -> t.from(other.begins()).isBefore(mine.until(until))
                                && mine.from(asked.begins()).isBefore(t.until(end(other))));
                if (both)
                    throw Problem.field(
                            "people/" + p + "/name",
                            "at-another-visit",
                            mine.name() + " is at "
                                    + (Scope.now().sees(other.siteId()) ? "“" + other.name() + "”" : "another visit")
                                    + " at that time. Say from when until when they are here and there, or take somebody else.");
            }
        }
    }

    /** When a visit is thought to be over. */
    Instant end(VisitRow row) {
        return plan(row)
                .map(p -> p.from().plus(Duration.ofMinutes(p.plan().finish())))
                .or(row::latest)
                .filter(row.begins()::isBefore)
                .orElse(row.begins().plus(UNKNOWN));
    }

    /** Tasks keep their number; those that are done stay whatever is asked. */
    private void keep(long id, List<TaskRow> asked) {
        var there = tasks.of(id);
        for (int i = 0; i < asked.size(); i++) {
            var task = asked.get(i);
            if (task.id() == 0) tasks.add(id, task);
            else if (there.stream().anyMatch(t -> t.id() == task.id())) tasks.keep(id, task);
            else throw Problem.field("tasks/" + i, "not-here", "That task is none of this visit. Name it anew.");
        }
        for (var was : there) if (asked.stream().noneMatch(t -> t.id() == was.id())) tasks.drop(id, was.id());
    }

    private void ofSite(long siteId, List<VisitUnitRequest> units) {
        sites.site(siteId);
        if (units.isEmpty()) return;
        var asked = units.stream().map(VisitUnitRequest::endpointId).toList();
        var there = Scope.now().seen(store.there(asked), VisitStore.ThereRow::siteId).stream()
                .map(VisitStore.ThereRow::id)
                .collect(Collectors.toSet());
        for (int i = 0; i < units.size(); i++)
            if (!there.contains(units.get(i).endpointId()))
                throw Problem.field("units/" + i, "not-here", "There is no such endpoint, or it was retired.");
    }

    static Problem over() {
        return Problem.of(HttpStatus.CONFLICT, "visit-over", "This visit is over. Plan what is left as another one.");
    }

    @Transactional
    public void begin(long id, int expected, String by) {
        var row = get(id);
        if (plan(row).isEmpty())
            throw Problem.of(HttpStatus.CONFLICT, "no-plan-yet", "Nobody has worked out who does what. Plan it first.");
        if (store.begin(id, expected, clock.instant()) == 0) throw Etags.stale();
        log.write(Log.entry(by, "visit begun").at(row.siteId()).after(Map.of("name", row.name())));
    }

    @Transactional
    public void end(long id, int expected, String by) {
        var row = get(id);
        Instant now = clock.instant();
        if (store.end(id, expected, now) == 0) throw Etags.stale();
        log.write(Log.entry(by, "visit ended").at(row.siteId()).after(Map.of("name", row.name())));
    }
}
