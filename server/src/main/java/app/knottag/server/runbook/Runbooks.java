package app.knottag.server.runbook;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.kind.Kind;
import app.knottag.core.kind.Kinds;
import app.knottag.core.knot.Knot;
import app.knottag.core.runbook.Board;
import app.knottag.core.runbook.EndpointPlan;
import app.knottag.core.runbook.Runbook;
import app.knottag.core.runbook.Standing;
import app.knottag.core.runbook.StepRecord;
import app.knottag.core.runbook.StepRecord.StepFinding;
import app.knottag.server.db.Json;
import app.knottag.server.plan.EndpointStore;
import app.knottag.server.reach.RoundStore;
import app.knottag.server.register.RegistryBook;
import app.knottag.server.site.Sites;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
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
    private final JsonMapper json;

    Runbooks(
            StepStore steps,
            EndpointStore endpoints,
            RoundStore rounds,
            Sites sites,
            Kinds kinds,
            RegistryBook book,
            JsonMapper json) {
        this.steps = steps;
        this.endpoints = endpoints;
        this.rounds = rounds;
        this.sites = sites;
        this.kinds = kinds;
        this.book = book;
        this.json = json;
    }

    public Runbook runbook(EndpointStore.Row endpoint) {
        var records = new HashMap<String, StepRecord>();
        for (var row : steps.of(endpoint.id())) records.put(row.key(), plain(row));
        return Runbook.of(kinds.get(endpoint.kind()), records);
    }

    /** Loads the runbooks of everything that waits at Onboard, in one go. */
    List<Board.Job> jobs(long siteId) {
        var records = new HashMap<Long, Map<String, StepRecord>>();
        for (var row : steps.onboard(siteId))
            records.computeIfAbsent(row.endpointId(), id -> new HashMap<>()).put(row.key(), plain(row.row()));
        return endpoints.all(siteId).stream()
                .filter(e -> e.station().equals(Standing.Station.ONBOARD.name()))
                .map(e -> new Board.Job(
                        e.id(),
                        e.name(),
                        e.place(),
                        Runbook.of(kinds.get(e.kind()), records.getOrDefault(e.id(), Map.of()))))
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
                row.by());
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
                        step.by()));
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
                row.confirmedAt() != null);
    }

    /** Puts steps back to open because something they rest on has changed. */
    @Transactional(propagation = Propagation.MANDATORY)
    public void undo(EndpointStore.Row endpoint, boolean addressChanged) {
        Kind kind = kinds.get(endpoint.kind());
        var runbook = runbook(endpoint);
        for (String key : Runbook.undoneBy(kind, addressChanged))
            if (runbook.record(key).knot() != Knot.OPEN) keep(endpoint.id(), StepRecord.untouched(key));
        endpoints.confirm(endpoint.id(), null, null);
    }

    private static Standing.Known known(EndpointStore.Row e) {
        return new Standing.Known(
                e.address() != null, e.mac() != null && !e.serial().isEmpty(), e.confirmedAt() != null);
    }

    /** Puts every step back to open, because another unit stands in the place of the old one. */
    @Transactional(propagation = Propagation.MANDATORY)
    public void beginAnew(EndpointStore.Row endpoint) {
        for (var record : runbook(endpoint).records())
            if (record.knot() != Knot.OPEN) keep(endpoint.id(), StepRecord.untouched(record.key()));
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
