package app.knottag.server.visit;

import app.knottag.core.reading.ReadingException;
import app.knottag.core.visit.Brief;
import app.knottag.core.visit.Helps;
import app.knottag.core.visit.Learned;
import app.knottag.core.visit.Sureness;
import app.knottag.core.visit.VisitPlanner;
import app.knottag.server.db.Json;
import app.knottag.server.log.Log;
import app.knottag.server.record.Runbooks;
import app.knottag.server.record.Sites;
import app.knottag.server.visit.VisitForm.Asked;
import app.knottag.server.visit.VisitForm.VisitUnitRequest;
import app.knottag.server.visit.VisitStore.UnitRow;
import app.knottag.server.visit.VisitStore.VisitRow;
import app.knottag.server.web.Etags;
import app.knottag.server.web.Problem;
import java.time.Clock;
import java.time.Instant;
import java.util.HashMap;
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

/** Keeps visits and lays their plans; what is planned is worked out by core from the runbooks as they are. */
@Service
public class Visits {

    private final VisitStore store;
    private final Sites sites;
    private final Runbooks runbooks;
    private final Log log;
    private final Clock clock;
    private final JsonMapper json;

    Visits(VisitStore store, Sites sites, Runbooks runbooks, Log log, Clock clock, JsonMapper json) {
        this.store = store;
        this.sites = sites;
        this.runbooks = runbooks;
        this.log = log;
        this.clock = clock;
        this.json = json;
    }

    VisitRow get(long id) {
        return Optional.ofNullable(store.find(id)).orElseThrow(() -> Problem.notFound("There is no such visit."));
    }

    VisitBrief brief(VisitRow row) {
        return brief(row.brief());
    }

    VisitBrief brief(Json kept) {
        return json.readValue(kept.text(), VisitBrief.class);
    }

    /** The plan that people follow; one that was laid for other people is none. */
    Optional<KeptPlan> plan(VisitRow row) {
        return Optional.ofNullable(row.plan())
                .map(p -> json.readValue(p.text(), KeptPlan.class))
                .filter(p -> p.people().equals(brief(row).names()));
    }

    List<Hand> hands(long id) {
        return store.hands(id).stream()
                .map(h -> new Hand(
                        h.person(),
                        h.endpointId(),
                        json.readValue(h.steps().text(), new TypeReference<List<String>>() {}),
                        h.since()))
                .toList();
    }

    Learned learned() {
        return new Learned(store.learned().stream()
                .map(m -> new Learned.Seen(m.kind(), m.step(), m.minutes()))
                .toList());
    }

    /** A visit as it is: before its beginning as it will be then. */
    VisitNow now(VisitRow row) {
        var units = store.units(row.id());
        var ids = units.stream().map(UnitRow::endpointId).collect(Collectors.toSet());
        var now = clock.instant();
        var at = row.beganAt() == null ? row.begins() : now;
        return VisitNow.of(
                brief(row), row.due(), at, runbooks.jobs(row.siteId(), ids), units, hands(row.id()), learned());
    }

    @Transactional
    public long create(long siteId, Asked asked, String by) {
        ofSite(siteId, asked.units());
        long id = store.add(row(0, siteId, asked, 0));
        asked.units().forEach(u -> store.keepUnit(id, new UnitRow(u.endpointId(), u.bench())));
        log.write(Log.entry(by, "visit planned").at(siteId, null).after(told(asked)));
        return id;
    }

    @Transactional
    public void change(long id, int expected, Asked asked, String by) {
        var was = get(id);
        if (was.endedAt() != null) throw over();
        ofSite(was.siteId(), asked.units());
        if (store.change(row(id, was.siteId(), asked.keeping(brief(was)), expected)) == 0) throw Etags.stale();
        var wanted = asked.units().stream().map(VisitUnitRequest::endpointId).collect(Collectors.toSet());
        var names = brief(was).names();
        if (store.hands(id).stream()
                .anyMatch(h -> !wanted.contains(h.endpointId())
                        || asked.brief().names().indexOf(names.get(h.person())) != h.person()))
            throw Problem.of(
                    HttpStatus.CONFLICT,
                    "in-hand",
                    "Somebody is at work whom this would take away, or whose device. Let them finish, or let go of it first.");
        for (var unit : store.units(id)) if (!wanted.contains(unit.endpointId())) store.dropUnit(id, unit.endpointId());
        asked.units().forEach(u -> store.keepUnit(id, new UnitRow(u.endpointId(), u.bench())));
        log.write(Log.entry(by, "visit changed")
                .at(was.siteId(), null)
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
                a.units().size());
    }

    private void ofSite(long siteId, List<VisitUnitRequest> units) {
        sites.site(siteId);
        Set<Long> there =
                store.there(siteId, units.stream().map(VisitUnitRequest::endpointId).toList());
        for (int i = 0; i < units.size(); i++)
            if (!there.contains(units.get(i).endpointId()))
                throw Problem.field("units/" + i, "not-here", "That endpoint is not at this site, or was retired.");
    }

    static Problem over() {
        return Problem.of(HttpStatus.CONFLICT, "visit-over", "This visit is over. Plan what is left as another one.");
    }

    /**
     * Lays a plan and keeps it. Nothing is locked meanwhile: a plan of a visit that changed in the meantime is thrown away.
     * Once people have begun, they keep their turns in their order unless another plan is worth the change.
     */
    void lay(long id) {
        var row = get(id);
        if (row.endedAt() != null) throw over();
        var now = now(row);
        var old = plan(row).filter(p -> row.beganAt() != null);
        var rest = now.rest();
        try {
            var planned = old.map(o -> VisitPlanner.again(rest, o.plan())).orElseGet(() -> VisitPlanner.plan(rest));
            var sure = Sureness.of(rest, planned.plan());
            var kept = new KeptPlan(
                    now.at(),
                    brief(row).names(),
                    titles(rest),
                    planned.plan(),
                    planned.obstacles(),
                    old.isPresent() ? old.get().helps() : Helps.of(rest, planned.plan()),
                    sure.doneBy(5),
                    sure.doneBy(9),
                    rest.due().isPresent() ? sure.ofHundred(rest.due().getAsInt()) : 100);
            store.plan(id, row.version(), new Json(json.writeValueAsString(kept)));
        } catch (ReadingException e) {
            throw Problem.of(HttpStatus.UNPROCESSABLE_ENTITY, "no-plan", e.getMessage());
        }
    }

    private static Map<String, String> titles(Brief brief) {
        var titles = new HashMap<String, String>();
        for (var u : brief.units())
            for (int s = 0; s < u.stretches().size(); s++)
                titles.put(u.id() + " " + s, u.stretches().get(s).title());
        return titles;
    }

    @Transactional
    public void begin(long id, int expected, String by) {
        var row = get(id);
        if (store.begin(id, expected, clock.instant()) == 0) throw Etags.stale();
        log.write(Log.entry(by, "visit begun").at(row.siteId(), null).after(Map.of("name", row.name())));
    }

    @Transactional
    public void end(long id, int expected, String by) {
        var row = get(id);
        Instant now = clock.instant();
        if (store.end(id, expected, now) == 0) throw Etags.stale();
        log.write(Log.entry(by, "visit ended").at(row.siteId(), null).after(Map.of("name", row.name())));
    }
}
