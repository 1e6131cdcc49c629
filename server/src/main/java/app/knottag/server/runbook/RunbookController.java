package app.knottag.server.runbook;

import app.knottag.core.kind.Kind;
import app.knottag.core.kind.Kinds;
import app.knottag.core.knot.Knot;
import app.knottag.core.runbook.Board;
import app.knottag.core.runbook.Runbook;
import app.knottag.core.runbook.StepRecord.StepFinding;
import app.knottag.core.runbook.TypeSheet;
import app.knottag.server.plan.EndpointStore;
import app.knottag.server.plan.Endpoints;
import app.knottag.server.web.Etags;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import java.security.Principal;
import java.time.Clock;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RestController;

/** The runbook of one endpoint over HTTP, and the waits that run at a site. */
@RestController
class RunbookController {

    record StepRequest(@NotNull StepWork.Action action, Map<String, String> evidence, String reason) {}

    record WaitView(int shortest, int usual, int longest, String lookFor, Runbook.@Nullable Pace pace) {}

    record GateView(Kind.GateType type, String ask, List<Kind.Option> options) {}

    record StepView(
            String key,
            String title,
            List<String> hint,
            String caution,
            GateView gate,
            @Nullable WaitView waiting,
            Knot knot,
            @Nullable Instant startedAt,
            @Nullable Instant endedAt,
            Map<String, String> evidence,
            List<StepFinding> findings,
            String reason,
            String by) {}

    record RunbookView(
            long endpointId,
            int version,
            Instant now,
            @Nullable String current,
            String menuPath,
            String menuCaution,
            List<TypeSheet.SheetRow> sheet,
            List<TypeSheet.SheetRow> readBack,
            List<StepView> steps) {}

    record RunningView(
            long endpointId,
            String endpoint,
            String step,
            String lookFor,
            Instant startedAt,
            int shortest,
            int usual,
            int longest,
            Runbook.Pace pace,
            Instant now) {}

    private final Endpoints endpoints;
    private final Runbooks runbooks;
    private final StepWork work;
    private final StepStore steps;
    private final Kinds kinds;
    private final Clock clock;

    RunbookController(
            Endpoints endpoints, Runbooks runbooks, StepWork work, StepStore steps, Kinds kinds, Clock clock) {
        this.endpoints = endpoints;
        this.runbooks = runbooks;
        this.work = work;
        this.steps = steps;
        this.kinds = kinds;
        this.clock = clock;
    }

    @GetMapping("/api/endpoints/{id}/runbook")
    ResponseEntity<RunbookView> one(@PathVariable long id) {
        var view = view(endpoints.get(id));
        return Etags.answer(HttpStatus.OK, view.version(), view);
    }

    @PutMapping("/api/endpoints/{id}/runbook/steps/{key}")
    ResponseEntity<RunbookView> step(
            @PathVariable long id,
            @PathVariable String key,
            @RequestHeader(name = "If-Match", required = false) String ifMatch,
            @Valid @RequestBody StepRequest body,
            Principal by) {
        work.act(
                id,
                key,
                Etags.required(ifMatch),
                body.action(),
                body.evidence() == null ? Map.of() : body.evidence(),
                body.reason(),
                by.getName());
        return one(id);
    }

    /** Several endpoints at once: what to do now, what comes after, what runs by itself. */
    @GetMapping("/api/sites/{siteId}/board")
    Board board(@PathVariable long siteId) {
        return Board.of(runbooks.jobs(siteId), clock.instant());
    }

    @GetMapping("/api/sites/{siteId}/running")
    List<RunningView> running(@PathVariable long siteId) {
        var now = clock.instant();
        return steps.running(siteId).stream()
                .map(r -> {
                    var step = kinds.get(r.kind()).step(r.key());
                    var wait = step.waiting().orElseThrow();
                    return new RunningView(
                            r.endpointId(),
                            r.endpoint(),
                            step.title(),
                            wait.lookFor(),
                            r.startedAt(),
                            wait.shortest(),
                            wait.usual(),
                            wait.longest(),
                            Runbook.pace(wait, r.startedAt(), now),
                            now);
                })
                .toList();
    }

    private RunbookView view(EndpointStore.Row endpoint) {
        var runbook = runbooks.runbook(endpoint);
        var plan = runbooks.plan(endpoint);
        var kind = runbook.kind();
        var now = clock.instant();
        var views = kind.steps().stream().map(step -> view(step, runbook, now)).toList();
        return new RunbookView(
                endpoint.id(),
                endpoint.version(),
                now,
                runbook.current().map(Kind.Step::key).orElse(null),
                kind.menuPath(),
                kind.menuCaution(),
                TypeSheet.of(kind, plan),
                TypeSheet.toReadBack(kind, plan),
                views);
    }

    private static StepView view(Kind.Step step, Runbook runbook, Instant now) {
        var record = runbook.record(step.key());
        var wait = step.waiting()
                .map(w -> new WaitView(
                        w.shortest(),
                        w.usual(),
                        w.longest(),
                        w.lookFor(),
                        record.startedAt()
                                .map(s -> Runbook.pace(w, s, record.endedAt().orElse(now)))
                                .orElse(null)))
                .orElse(null);
        return new StepView(
                step.key(),
                step.title(),
                step.hint(),
                step.caution(),
                new GateView(step.gate().type(), step.gate().ask(), step.gate().options()),
                wait,
                record.knot(),
                record.startedAt().orElse(null),
                record.endedAt().orElse(null),
                record.evidence(),
                record.findings(),
                record.reason(),
                record.by());
    }
}
