package app.knottag.server.runbook;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.kind.Kind;
import app.knottag.core.kind.Kinds;
import app.knottag.core.kind.Opening.Danger;
import app.knottag.core.knot.Knot;
import app.knottag.core.plan.Method;
import app.knottag.core.reach.Bond.Change;
import app.knottag.core.runbook.Board;
import app.knottag.core.runbook.EndpointPlan;
import app.knottag.core.runbook.OpenState;
import app.knottag.core.runbook.Recipe;
import app.knottag.core.runbook.Runbook;
import app.knottag.core.runbook.Standing;
import app.knottag.core.runbook.StepRecord;
import app.knottag.core.runbook.StepRecord.StepFinding;
import app.knottag.core.runbook.Surroundings;
import app.knottag.core.time.DateStyle;
import app.knottag.core.time.SiteClock;
import app.knottag.server.db.Json;
import app.knottag.server.plan.EndpointStore;
import app.knottag.server.reach.RoundStore;
import app.knottag.server.register.RegistryBook;
import app.knottag.server.runbook.OnboardStore.FactRow;
import app.knottag.server.site.SiteStore;
import app.knottag.server.site.Sites;
import app.knottag.server.web.Problem;
import java.time.Clock;
import java.time.ZoneOffset;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;

/** Loads runbooks and plans as core's types, keeps steps, and works out anew where an endpoint stands. */
@Service
public class Runbooks {

    private final StepStore steps;
    private final EndpointStore endpoints;
    private final RoundStore rounds;
    private final Sites sites;
    private final Kinds kinds;
    private final RegistryBook book;
    private final OnboardStore onboard;
    private final SiteStore siteStore;
    private final Clock clock;
    private final JsonMapper json;

    Runbooks(
            StepStore steps,
            EndpointStore endpoints,
            RoundStore rounds,
            Sites sites,
            Kinds kinds,
            RegistryBook book,
            OnboardStore onboard,
            SiteStore siteStore,
            Clock clock,
            JsonMapper json) {
        this.steps = steps;
        this.endpoints = endpoints;
        this.rounds = rounds;
        this.sites = sites;
        this.kinds = kinds;
        this.book = book;
        this.onboard = onboard;
        this.siteStore = siteStore;
        this.clock = clock;
        this.json = json;
    }

    public Runbook runbook(EndpointStore.Row endpoint) {
        var records = new HashMap<String, StepRecord>();
        for (var row : steps.of(endpoint.id())) records.put(row.key(), plain(row));
        return Runbook.of(recipe(endpoint).kind(), records);
    }

    /** Works out which steps apply to an endpoint. */
    public Recipe recipe(EndpointStore.Row endpoint) {
        return Recipe.of(kind(endpoint), around(endpoint));
    }

    /** The kind as it was when the runbook was begun. */
    public Kind kind(EndpointStore.Row endpoint) {
        return kinds.find(endpoint.kind(), endpoint.kindVersion())
                .orElseThrow(() -> Problem.conflict(
                        "",
                        "kind-version-missing",
                        endpoint.name() + " was begun with version " + endpoint.kindVersion() + " of “"
                                + kinds.find(endpoint.kind()).map(Kind::name).orElse(endpoint.kind())
                                + "”, which is not here. A lead brings that file back under Kinds, or puts the endpoint on the version that is there.",
                        Map.of("version", endpoint.kindVersion())));
    }

    /** Loads the runbooks of everything that waits at Onboard, in one go. */
    List<Board.Job> jobs(long siteId) {
        var records = new HashMap<Long, Map<String, StepRecord>>();
        for (var row : steps.onboard(siteId))
            records.computeIfAbsent(row.endpointId(), id -> new HashMap<>()).put(row.key(), plain(row.row()));
        var facts = onboard.factsOfSite(siteId).stream()
                .collect(Collectors.groupingBy(FactRow::endpointId, Collectors.toMap(FactRow::key, FactRow::value)));
        return endpoints.all(siteId).stream()
                .filter(e -> e.station().equals(Standing.Station.ONBOARD.name()))
                .filter(e -> kinds.find(e.kind(), e.kindVersion()).isPresent())
                .map(e -> new Board.Job(
                        e.id(),
                        e.name(),
                        e.place(),
                        Runbook.of(
                                Recipe.of(kind(e), bare(e, facts.getOrDefault(e.id(), Map.of())))
                                        .kind(),
                                records.getOrDefault(e.id(), Map.of()))))
                .toList();
    }

    private StepRecord plain(StepStore.Row row) {
        return new StepRecord(
                row.key(),
                row.knot(),
                Optional.ofNullable(row.startedAt()),
                Optional.ofNullable(row.endedAt()),
                json.readValue(row.evidence().text(), new TypeReference<Map<String, String>>() {}),
                json.readValue(row.findings().text(), new TypeReference<List<StepFinding>>() {}),
                row.reason(),
                row.by(),
                row.tries(),
                row.restarts());
    }

    void keep(long endpointId, StepRecord step) {
        steps.keep(
                endpointId,
                new StepStore.Row(
                        step.key(),
                        step.knot(),
                        step.startedAt().orElse(null),
                        step.endedAt().orElse(null),
                        new Json(json.writeValueAsString(step.evidence())),
                        new Json(json.writeValueAsString(step.findings())),
                        step.reason(),
                        step.by(),
                        step.tries(),
                        step.restarts()));
    }

    Map<String, String> facts(long endpointId) {
        return onboard.facts(endpointId).stream().collect(Collectors.toMap(FactRow::key, FactRow::value));
    }

    /** What decides which steps apply, and nothing that would have to be looked up one by one. */
    private Surroundings bare(EndpointStore.Row e, Map<String, String> facts) {
        var partner = Optional.ofNullable(e.partnerId()).map(siteStore::partner);
        return new Surroundings(
                Method.valueOf(e.method()),
                e.name(),
                e.hostName(),
                e.model(),
                Optional.ofNullable(e.number()),
                Optional.ofNullable(e.servicePort()),
                partner.map(SiteStore.PartnerRow::address),
                Optional.ofNullable(e.partnerPort()),
                facts,
                List.of(),
                List.of(),
                Set.of(),
                List.of(),
                new SiteClock(clock.instant(), ZoneOffset.UTC, DateStyle.WORDS));
    }

    private Surroundings around(EndpointStore.Row e) {
        return bare(e, facts(e.id())).with(book.restartAt(e), openings(e), sites.clock(e.siteId()));
    }

    /** Everything that stands open on an endpoint, or did. */
    public List<OpenState> openings(EndpointStore.Row e) {
        return OpenState.of(
                kind(e),
                onboard.openings(e.id()).stream()
                        .map(o -> new OpenState.Record(
                                o.key(),
                                Danger.valueOf(o.danger()),
                                o.title(),
                                o.owner(),
                                Optional.ofNullable(o.endsOn()),
                                o.closed()))
                        .collect(Collectors.toMap(OpenState.Record::key, Function.identity())));
    }

    /** The plan with everything that a gate may ask about: the other endpoints, and the seals ever used. */
    EndpointPlan wholePlan(EndpointStore.Row row) {
        var others = endpoints.all(row.siteId()).stream()
                .filter(e -> e.id() != row.id())
                .map(e -> new Surroundings.Other(e.name(), e.place(), Optional.ofNullable(e.mac()), e.serial()))
                .toList();
        var plan = plan(row);
        return plan.with(plan.around().with(others, Set.copyOf(onboard.seals())));
    }

    public EndpointPlan plan(EndpointStore.Row row) {
        var ground = sites.ground(sites.segment(row.segmentId()), row.address());
        var taken = endpoints.holders(row.siteId()).stream()
                .filter(h -> h.id() != row.id())
                .map(EndpointStore.Holder::address)
                .filter(Objects::nonNull)
                .collect(Collectors.<Ipv4Address>toSet());
        return new EndpointPlan(
                Optional.ofNullable(row.address()),
                ground.segment(),
                ground.resolvers(),
                Optional.ofNullable(row.mac()),
                Optional.of(row.serial()).filter(s -> !s.isEmpty()),
                taken,
                row.confirmedAt() != null,
                around(row));
    }

    /** Puts steps back to open because something they rest on has changed. */
    @Transactional(propagation = Propagation.MANDATORY)
    public void undo(EndpointStore.Row endpoint, Set<Change> changes) {
        if (changes.isEmpty()) return;
        var runbook = runbook(endpoint);
        for (String key : Runbook.undoneBy(runbook.kind(), changes))
            if (runbook.record(key).knot() != Knot.OPEN) keep(endpoint.id(), StepRecord.untouched(key));
        endpoints.confirm(endpoint.id(), null, null);
    }

    private Standing.Known known(EndpointStore.Row e) {
        return new Standing.Known(
                e.address() != null,
                e.mac() != null && !e.serial().isEmpty(),
                e.confirmedAt() != null,
                e.confirmedAt() != null && openings(e).stream().anyMatch(o -> !o.closed()));
    }

    /** Puts every step back to open, because another unit stands in the place of the old one. */
    @Transactional(propagation = Propagation.MANDATORY)
    public void beginAnew(EndpointStore.Row endpoint) {
        for (var row : steps.of(endpoint.id()))
            if (row.knot() != Knot.OPEN) keep(endpoint.id(), StepRecord.untouched(row.key()));
        onboard.dropOpenings(endpoint.id());
        endpoints.confirm(endpoint.id(), null, null);
    }

    /** Works out where the endpoint waits now and keeps it beside the endpoint, for lists and counts. */
    @Transactional(propagation = Propagation.MANDATORY)
    public void stand(long endpointId) {
        var row = endpoints.find(endpointId);
        var latest = rounds.latest(endpointId);
        var standing = Standing.of(known(row), runbook(row), latest != null && latest.failed(), book.entries(row));
        endpoints.stand(endpointId, standing.station().name(), standing.knot().name());
    }
}
