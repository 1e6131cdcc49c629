package app.knottag.server.onboard;

import app.knottag.core.runbook.Board;
import app.knottag.core.runbook.CallSheet;
import app.knottag.core.runbook.Recipe;
import app.knottag.core.runbook.Runbook;
import app.knottag.core.runbook.TypeSheet;
import app.knottag.server.onboard.OpeningForm.OpeningRequest;
import app.knottag.server.onboard.RunbookViews.RunbookView;
import app.knottag.server.record.Endpoints;
import app.knottag.server.record.Runbooks;
import app.knottag.server.web.Etags;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import java.security.Principal;
import java.time.Clock;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RestController;

/** The runbook of one endpoint over HTTP, what is known around it, and the waits that run anywhere. */
@RestController
class RunbookController {

    /**
     * What was done with a step.
     *
     * @param at when it was done, where it is sent later than that, as after an hour without network; null for now
     */
    record StepRequest(
            @NotNull StepWork.Action action,
            Map<String, String> evidence,
            String reason,
            @Nullable Instant at) {}

    record FactsRequest(@NotNull Map<String, String> facts) {}

    /** An opening as it is said to stand. */
    record ResetRequest(@NotNull String why, String backup) {}

    record AddressAgainRequest(@NotNull String why) {}

    /** What was repeated over the phone of one menu; the network menu when none is named. */
    record RepeatedRequest(@NotNull Map<String, String> repeated, String part) {}

    record RunningView(
            long siteId,
            String site,
            long endpointId,
            String endpoint,
            String step,
            String lookFor,
            Instant startedAt,
            int shortest,
            int usual,
            int longest,
            Runbook.Pace pace,
            String words,
            Instant now) {}

    private final Endpoints endpoints;
    private final Runbooks runbooks;
    private final RunbookViews views;
    private final StepWork work;
    private final OnboardWork onboard;
    private final OpeningForm openings;
    private final RunningWaits waits;
    private final Clock clock;

    RunbookController(
            Endpoints endpoints,
            Runbooks runbooks,
            RunbookViews views,
            StepWork work,
            OnboardWork onboard,
            OpeningForm openings,
            RunningWaits waits,
            Clock clock) {
        this.endpoints = endpoints;
        this.runbooks = runbooks;
        this.views = views;
        this.work = work;
        this.onboard = onboard;
        this.openings = openings;
        this.waits = waits;
        this.clock = clock;
    }

    @GetMapping("/api/endpoints/{id}/runbook")
    ResponseEntity<RunbookView> one(@PathVariable long id) {
        var view = views.of(id);
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
                new StepWork.Act(
                        body.action(),
                        body.evidence() == null ? Map.of() : body.evidence(),
                        body.reason(),
                        body.at(),
                        by.getName()));
        return one(id);
    }

    /** Answers the kind's questions, and keeps what was reported for the endpoint; an empty text takes one back. */
    @PutMapping("/api/endpoints/{id}/runbook/facts")
    ResponseEntity<RunbookView> facts(
            @PathVariable long id,
            @RequestHeader(name = "If-Match", required = false) String ifMatch,
            @Valid @RequestBody FactsRequest body,
            Principal by) {
        onboard.facts(id, Etags.required(ifMatch), body.facts(), by.getName());
        return one(id);
    }

    /** Says of an opening that it is closed, or who closes it by when; a new key records one that was found. */
    @PutMapping("/api/endpoints/{id}/runbook/openings/{key}")
    ResponseEntity<RunbookView> opening(
            @PathVariable long id,
            @PathVariable String key,
            @RequestHeader(name = "If-Match", required = false) String ifMatch,
            @Valid @RequestBody OpeningRequest body,
            Principal by) {
        onboard.opening(id, Etags.required(ifMatch), key, openings.read(endpoints.get(id), body), by.getName());
        return one(id);
    }

    /** It was reset: what that undid is to be done again. */
    @PostMapping("/api/endpoints/{id}/runbook/reset")
    ResponseEntity<RunbookView> reset(
            @PathVariable long id,
            @RequestHeader(name = "If-Match", required = false) String ifMatch,
            @Valid @RequestBody ResetRequest body,
            Principal by) {
        onboard.reset(id, Etags.required(ifMatch), body.why(), body.backup(), by.getName());
        return one(id);
    }

    /** It stands at another address than its own: what enters it is to be done again. */
    @PostMapping("/api/endpoints/{id}/runbook/address-again")
    ResponseEntity<RunbookView> addressAgain(
            @PathVariable long id,
            @RequestHeader(name = "If-Match", required = false) String ifMatch,
            @Valid @RequestBody AddressAgainRequest body,
            Principal by) {
        onboard.readdressed(id, Etags.required(ifMatch), body.why(), by.getName());
        return one(id);
    }

    /** Goes over to the latest version of the kind; steps of the same key stay as they are. */
    @PostMapping("/api/endpoints/{id}/runbook/latest")
    ResponseEntity<RunbookView> latest(
            @PathVariable long id, @RequestHeader(name = "If-Match", required = false) String ifMatch, Principal by) {
        onboard.latest(id, Etags.required(ifMatch), by.getName());
        return one(id);
    }

    /** Scores what was repeated over the phone. */
    @PostMapping("/api/endpoints/{id}/runbook/call-sheet")
    CallSheet callSheet(@PathVariable long id, @Valid @RequestBody RepeatedRequest body) {
        var endpoint = endpoints.get(id);
        var plan = runbooks.plan(endpoint);
        var kind = Recipe.of(runbooks.kind(endpoint), plan.around()).kind();
        return CallSheet.score(
                TypeSheet.of(kind, plan, Objects.requireNonNullElse(body.part(), "")), plan, body.repeated());
    }

    /** Several endpoints at once: what to do now, what comes after, what runs by itself. */
    @GetMapping("/api/sites/{siteId}/board")
    Board board(@PathVariable long siteId) {
        return Board.of(runbooks.jobs(siteId), clock.instant());
    }

    /** Waits that run, at every site, seen by everybody who is signed in. */
    @GetMapping("/api/running")
    List<RunningView> running() {
        return waits.views(clock.instant());
    }
}
