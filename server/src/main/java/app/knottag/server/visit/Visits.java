package app.knottag.server.visit;

import app.knottag.core.visit.Learned;
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

    private final VisitStore store;
    private final HandStore inHand;
    private final Sites sites;
    private final Runbooks runbooks;
    private final Log log;
    private final Clock clock;
    private final JsonMapper json;

    Visits(VisitStore store, HandStore inHand, Sites sites, Runbooks runbooks, Log log, Clock clock, JsonMapper json) {
        this.store = store;
        this.inHand = inHand;
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
        return inHand.hands(id).stream()
                .map(h -> new Hand(
                        h.person(),
                        h.endpointId(),
                        json.readValue(h.steps().text(), new TypeReference<List<String>>() {}),
                        h.since()))
                .toList();
    }

    Learned learned() {
        return new Learned(inHand.learned().stream()
                .map(m -> new Learned.Seen(m.kind(), m.step(), m.minutes()))
                .toList());
    }

    /** A visit as it is: before its beginning as it will be then. */
    VisitNow now(VisitRow row) {
        var units = store.units(row.id());
        var ids = units.stream().map(UnitRow::endpointId).collect(Collectors.toSet());
        var now = clock.instant();
        var at = row.begun() ? now : row.begins();
        return VisitNow.of(
                brief(row), row.latest(), at, runbooks.jobs(row.siteId(), ids), units, hands(row.id()), learned());
    }

    @Transactional
    public long create(long siteId, Asked asked, String by) {
        ofSite(siteId, asked.units());
        long id = store.add(row(0, siteId, asked, 0));
        asked.units().forEach(u -> store.keepUnit(id, new UnitRow(u.endpointId(), u.bench(), u.first())));
        log.write(Log.entry(by, "visit planned").at(siteId).after(told(asked)));
        return id;
    }

    @Transactional
    public void change(long id, int expected, Asked asked, String by) {
        var was = get(id);
        if (was.over()) throw over();
        ofSite(was.siteId(), asked.units());
        if (store.change(row(id, was.siteId(), asked.keeping(brief(was)), expected)) == 0) throw Etags.stale();
        var wanted = asked.units().stream().map(VisitUnitRequest::endpointId).collect(Collectors.toSet());
        var names = brief(was).names();
        if (inHand.hands(id).stream()
                .anyMatch(h -> !wanted.contains(h.endpointId())
                        || asked.brief().names().indexOf(names.get(h.person())) != h.person()))
            throw Problem.of(
                    HttpStatus.CONFLICT,
                    "in-hand",
                    "Somebody is at work whom this would take away, or whose device. Let them finish, or let go of it first.");
        for (var unit : store.units(id)) if (!wanted.contains(unit.endpointId())) store.dropUnit(id, unit.endpointId());
        asked.units().forEach(u -> store.keepUnit(id, new UnitRow(u.endpointId(), u.bench(), u.first())));
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
        Set<Long> there = store.there(
                siteId, units.stream().map(VisitUnitRequest::endpointId).toList());
        for (int i = 0; i < units.size(); i++)
            if (!there.contains(units.get(i).endpointId()))
                throw Problem.field("units/" + i, "not-here", "That endpoint is not at this site, or was retired.");
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
