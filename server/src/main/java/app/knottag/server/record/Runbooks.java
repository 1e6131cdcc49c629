package app.knottag.server.record;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.kind.Kind;
import app.knottag.core.kind.Kinds;
import app.knottag.core.runbook.Board;
import app.knottag.core.runbook.EndpointContext;
import app.knottag.core.runbook.EndpointPlan;
import app.knottag.core.runbook.OpenState;
import app.knottag.core.runbook.Recipe;
import app.knottag.core.runbook.Runbook;
import app.knottag.core.runbook.SheetGate;
import app.knottag.core.runbook.Stage;
import app.knottag.core.runbook.StepRecord;
import app.knottag.core.runbook.StepRecord.StepFinding;
import app.knottag.core.runbook.TypeSheet;
import app.knottag.core.runbook.TypeSheet.SheetRow;
import app.knottag.core.status.Status;
import app.knottag.core.time.DateStyle;
import app.knottag.core.time.SiteClock;
import app.knottag.server.db.Json;
import app.knottag.server.record.OnboardStore.FactRow;
import app.knottag.server.web.Problem;
import java.time.Clock;
import java.time.ZoneOffset;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.BiFunction;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.springframework.stereotype.Service;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;

/** Loads runbooks and plans as core's types, keeps steps, and works out anew where an endpoint stands. */
@Service
public class Runbooks {

    private final StepStore steps;
    private final EndpointStore endpoints;
    private final Sites sites;
    private final Kinds kinds;
    private final Recipes recipes;
    private final RegistryBook book;
    private final OnboardStore onboard;
    private final WorksheetStore worksheets;
    private final SiteStore siteStore;
    private final Clock clock;
    private final JsonMapper json;

    Runbooks(
            StepStore steps,
            EndpointStore endpoints,
            Sites sites,
            Kinds kinds,
            Recipes recipes,
            RegistryBook book,
            OnboardStore onboard,
            WorksheetStore worksheets,
            SiteStore siteStore,
            Clock clock,
            JsonMapper json) {
        this.steps = steps;
        this.endpoints = endpoints;
        this.sites = sites;
        this.kinds = kinds;
        this.recipes = recipes;
        this.book = book;
        this.onboard = onboard;
        this.worksheets = worksheets;
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
        return recipes.of(kind(endpoint), around(endpoint));
    }

    /** The kind as it was when the runbook was begun. */
    public Kind kind(EndpointStore.Row endpoint) {
        return kinds.find(endpoint.kind(), endpoint.kindVersion())
                .orElseThrow(() -> Problem.conflict(
                        "",
                        "kind-version-missing",
                        endpoint.name() + " was begun with version " + endpoint.kindVersion() + " of “"
                                + kinds.find(endpoint.kind()).map(Kind::name).orElse(endpoint.kind())
                                + "”, which is not here. A lead brings that file back under Kinds, or puts the endpoint "
                                + "on the version that is there.",
                        Map.of("version", endpoint.kindVersion())));
    }

    /** Loads the runbooks of everything that waits at Onboard, in one go. */
    public List<Board.Job> jobs(long siteId) {
        var waiting = endpoints.all(siteId).stream()
                .filter(e -> e.station() == Stage.Station.ONBOARD)
                .toList();
        return jobs(siteId, waiting, steps.onboard(siteId));
    }

    /** Loads the runbooks of these endpoints of a site, in one go; those that are retired are left out. */
    public List<Board.Job> jobs(long siteId, Set<Long> ids) {
        return ids.isEmpty() ? List.of() : jobs(siteId, endpoints.some(ids), steps.ofAll(ids));
    }

    private List<Board.Job> jobs(long siteId, List<EndpointStore.Row> wanted, List<StepStore.BoardRow> rows) {
        var records = new HashMap<Long, Map<String, StepRecord>>();
        for (var row : rows)
            records.computeIfAbsent(row.endpointId(), id -> new HashMap<>()).put(row.key(), plain(row.row()));
        var facts = onboard.factsOfSite(siteId).stream()
                .collect(Collectors.groupingBy(FactRow::endpointId, Collectors.toMap(FactRow::key, FactRow::value)));
        var partners = siteStore.partners(siteId).stream()
                .collect(Collectors.toMap(SiteStore.PartnerRow::id, Function.identity()));
        return wanted.stream()
                .filter(e -> kinds.find(e.kind(), e.kindVersion()).isPresent())
                .map(e -> new Board.Job(
                        e.id(),
                        e.name(),
                        e.place(),
                        Runbook.of(
                                recipes.of(
                                                kind(e),
                                                bare(
                                                        e,
                                                        Optional.ofNullable(e.partnerId())
                                                                .map(partners::get),
                                                        facts.getOrDefault(e.id(), Map.of())))
                                        .kind(),
                                records.getOrDefault(e.id(), Map.of()))))
                .toList();
    }

    private StepRecord plain(StepStore.Row row) {
        return new StepRecord(
                row.key(),
                row.status(),
                Optional.ofNullable(row.startedAt()),
                Optional.ofNullable(row.endedAt()),
                json.readValue(row.evidence().text(), new TypeReference<Map<String, String>>() {}),
                json.readValue(row.findings().text(), new TypeReference<List<StepFinding>>() {}),
                row.reason(),
                row.by(),
                row.tries(),
                row.restarts());
    }

    public void keep(long endpointId, StepRecord step) {
        steps.keep(
                endpointId,
                new StepStore.Row(
                        step.key(),
                        step.status(),
                        step.startedAt().orElse(null),
                        step.endedAt().orElse(null),
                        new Json(json.writeValueAsString(step.evidence())),
                        new Json(json.writeValueAsString(step.findings())),
                        step.reason(),
                        step.by(),
                        step.tries(),
                        step.restarts()));
    }

    public Map<String, String> facts(long endpointId) {
        return onboard.facts(endpointId).stream().collect(Collectors.toMap(FactRow::key, FactRow::value));
    }

    /** What decides which steps apply, and nothing that would have to be looked up one by one. */
    private EndpointContext bare(
            EndpointStore.Row e, Optional<SiteStore.PartnerRow> partner, Map<String, String> facts) {
        return new EndpointContext(
                e.method(),
                e.name(),
                e.hostName(),
                e.model(),
                Optional.ofNullable(e.number()),
                Optional.ofNullable(e.servicePort()),
                partner.map(SiteStore.PartnerRow::address),
                Optional.ofNullable(e.partnerPort()),
                facts,
                List.of(),
                EndpointContext.Beside.NOTHING,
                List.of(),
                new SiteClock(clock.instant(), ZoneOffset.UTC, DateStyle.WORDS));
    }

    private EndpointContext around(EndpointStore.Row e) {
        return bare(e, Optional.ofNullable(e.partnerId()).map(siteStore::partner), facts(e.id()))
                .with(book.restartAt(e), openings(e), sites.clock(e.siteId()));
    }

    /** Everything that stands open on an endpoint, or did. */
    public List<OpenState> openings(EndpointStore.Row e) {
        return openings(kind(e), onboard.openings(e.id()));
    }

    /** The same for any endpoint of a site, looked up once; one whose kind is not here has none that is known. */
    public Function<EndpointStore.Row, List<OpenState>> openings(long siteId) {
        var rows = onboard.openingsOfSite(siteId).stream()
                .collect(Collectors.groupingBy(OnboardStore.OpeningRow::endpointId));
        return e -> kinds.find(e.kind(), e.kindVersion())
                .map(k -> openings(k, rows.getOrDefault(e.id(), List.of())))
                .orElse(List.of());
    }

    private static List<OpenState> openings(Kind kind, List<OnboardStore.OpeningRow> rows) {
        return OpenState.of(
                kind,
                rows.stream()
                        .map(o -> new OpenState.Record(
                                o.key(),
                                o.danger(),
                                o.title(),
                                o.owner(),
                                Optional.ofNullable(o.endsOn()),
                                o.closed(),
                                o.note()))
                        .collect(Collectors.toMap(OpenState.Record::key, Function.identity())));
    }

    /** The plan with what a gate may ask about the other endpoints, and the seals ever used. */
    public EndpointPlan wholePlan(EndpointStore.Row row) {
        var plan = plan(row);
        return plan.with(plan.around()
                .with(new EndpointContext.Beside(
                        () -> endpoints.others(row.siteId(), row.id()).stream()
                                .map(o -> new EndpointContext.Other(
                                        o.name(),
                                        o.place(),
                                        Optional.ofNullable(o.mac()),
                                        o.serial(),
                                        Optional.ofNullable(o.number())))
                                .toList(),
                        () -> Set.copyOf(onboard.seals()),
                        sheet -> worksheets
                                .find(row.id(), sheet)
                                .map(this::figures)
                                .orElse(Map.of()),
                        step -> counted(row.id(), step))));
    }

    /** What is to be entered on any endpoint of a site by a recipe, looked up once for all of them. */
    public BiFunction<EndpointStore.Row, Kind, List<SheetRow>> sheets(long siteId) {
        var segments = siteStore.segments(siteId).stream()
                .collect(Collectors.toMap(SiteStore.SegmentRow::id, Function.identity()));
        var pools = siteStore.pools(siteId);
        var partners = siteStore.partners(siteId).stream()
                .collect(Collectors.toMap(SiteStore.PartnerRow::id, Function.identity()));
        var facts = onboard.factsOfSite(siteId).stream()
                .collect(Collectors.groupingBy(FactRow::endpointId, Collectors.toMap(FactRow::key, FactRow::value)));
        var at = sites.clock(siteId);
        return (e, recipe) -> {
            var context = sites.context(segments.get(e.segmentId()), e.address(), pools);
            var partner = Optional.ofNullable(e.partnerId()).map(partners::get);
            var around = bare(e, partner, facts.getOrDefault(e.id(), Map.of())).with(List.of(), List.of(), at);
            return TypeSheet.of(recipe, plan(e, context, Set.of(), around));
        };
    }

    public Map<String, String> figures(WorksheetStore.WorksheetRow row) {
        return json.readValue(row.figures().text(), new TypeReference<Map<String, String>>() {});
    }

    private Optional<String> counted(long endpointId, String step) {
        return steps.of(endpointId).stream()
                .filter(s -> s.key().equals(step) && s.status() == Status.PASSED)
                .findFirst()
                .flatMap(s -> SheetGate.count(plain(s)));
    }

    public EndpointPlan plan(EndpointStore.Row row) {
        var context = sites.context(sites.segment(row.segmentId()), row.address());
        return plan(row, context, endpoints.addresses(row.siteId(), row.id()), around(row));
    }

    private static EndpointPlan plan(
            EndpointStore.Row row, Sites.SegmentContext context, Set<Ipv4Address> taken, EndpointContext around) {
        return new EndpointPlan(
                Optional.ofNullable(row.address()),
                context.segment(),
                context.resolvers(),
                Optional.ofNullable(row.mac()),
                Optional.of(row.serial()).filter(s -> !s.isEmpty()),
                taken,
                row.confirmedAt() != null,
                around);
    }
}
