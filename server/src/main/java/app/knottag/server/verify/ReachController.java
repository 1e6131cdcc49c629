package app.knottag.server.verify;

import app.knottag.core.kind.Kind;
import app.knottag.core.kind.Signal;
import app.knottag.core.reach.Check;
import app.knottag.core.reach.CheckResult;
import app.knottag.core.reach.CheckStatus;
import app.knottag.core.reach.Evidence;
import app.knottag.core.reach.FaultBook;
import app.knottag.core.reach.Grade;
import app.knottag.core.reach.Outcome;
import app.knottag.core.status.Status;
import app.knottag.server.record.Endpoints;
import app.knottag.server.record.Runbooks;
import app.knottag.server.web.Etags;
import app.knottag.server.web.Idempotency;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import java.security.Principal;
import java.time.Instant;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** The line of checks, what people saw, and the sign-offs over HTTP. */
@RestController
class ReachController {

    /** Who makes a check. */
    enum Maker {
        MACHINE,
        EYES,
        OFFICE
    }

    record OutcomeWords(Outcome outcome, String words) {}

    /** One check of the line, with the question to somebody who looks, and the mark of what its proof rests on. */
    record CheckStatusView(
            Check check,
            String title,
            Maker maker,
            Status status,
            String note,
            String remedy,
            String loosened,
            String evidenceWords,
            String vantage,
            @Nullable Instant at,
            String by,
            long millis,
            String ask,
            List<OutcomeWords> outcomes,
            List<String> signals,
            String restsOn) {}

    record SignOffView(String grade, String note, Instant at, String by) {}

    /** The whole line; {@code at} is when a machine looked last. */
    record VerificationView(
            List<CheckStatusView> checks,
            @Nullable Instant at,
            String by,
            boolean failed,
            boolean machineFailed,
            String missing,
            Grade grade,
            String gradeWords,
            boolean handsOver,
            String apart,
            @Nullable SignOffView signedOff) {}

    /** Results as they come in while a run goes on; {@code running} says whether one does. */
    record UnderwayView(boolean running, List<CheckResult> results) {}

    /** What somebody saw; told later it has when it was, and the mark of what it rested on as it was shown. */
    record ObservationRequest(
            @NotNull Check check,
            @NotNull Outcome outcome,
            @NotNull Evidence evidence,
            @Nullable Instant at,
            @Nullable String restsOn) {}

    record OfficeRequest(boolean reached) {}

    record SignOffRequest(String note) {}

    record Made(long id) {}

    private final Confirm confirm;
    private final Observations observations;
    private final Endpoints endpoints;
    private final Runbooks runbooks;
    private final Idempotency idempotency;

    ReachController(
            Confirm confirm,
            Observations observations,
            Endpoints endpoints,
            Runbooks runbooks,
            Idempotency idempotency) {
        this.confirm = confirm;
        this.observations = observations;
        this.endpoints = endpoints;
        this.runbooks = runbooks;
        this.idempotency = idempotency;
    }

    @GetMapping("/api/endpoints/{id}/verification")
    VerificationView line(@PathVariable long id) {
        var endpoint = endpoints.get(id);
        var kind = runbooks.kind(endpoint);
        var line = confirm.line(endpoint);
        var run = confirm.latest(id);
        var signed = confirm.signOff(endpoint);
        var marks = observations.restsOn(
                endpoint, line.checks().stream().map(CheckStatus::check).toList());
        return new VerificationView(
                line.checks().stream()
                        .map(r -> view(r, kind, marks.get(r.check())))
                        .toList(),
                run == null ? null : run.at(),
                run == null ? "" : run.by(),
                line.failed(),
                line.checks().stream()
                        .anyMatch(r -> r.status() == Status.FAILED && r.check().byMachine()),
                line.missing().orElse(""),
                line.grade(),
                line.grade().words(),
                line.grade().handsOver(),
                line.apart().orElse(""),
                signed == null
                        ? null
                        : new SignOffView(signed.grade().words(), signed.note(), signed.at(), signed.by()));
    }

    private static CheckStatusView view(CheckStatus r, Kind kind, String restsOn) {
        var check = r.check();
        return new CheckStatusView(
                check,
                check.title(),
                check == Check.OFFICE ? Maker.OFFICE : check.byMachine() ? Maker.MACHINE : Maker.EYES,
                r.status(),
                r.note(),
                r.remedy(),
                r.loosened(),
                r.evidence() == null ? "" : r.evidence().words(),
                r.vantage(),
                r.at(),
                r.by(),
                r.millis(),
                question(check, kind),
                check.outcomes().stream()
                        .map(o -> new OutcomeWords(o, FaultBook.shipped().words(check, o)))
                        .toList(),
                check == Check.LINK ? signals(kind) : List.of(),
                restsOn);
    }

    private static String question(Check check, Kind kind) {
        return switch (check) {
            case REAL_JOB ->
                "Let it do its real job once: " + lower(kind.service().job()) + "."
                        + (kind.service().seenBy().isEmpty()
                                ? ""
                                : " " + kind.service().seenBy() + " must see it.")
                        + " What happens?";
            case REFUSED -> "Try it: " + lower(kind.service().refuses()) + ". Is it refused?";
            case OFFICE -> "Let the office try it from its end. Does it reach this very one?";
            default -> check.question().map(l -> l.words()).orElse("");
        };
    }

    private static String lower(String text) {
        return text.isEmpty() ? text : text.substring(0, 1).toLowerCase(Locale.ROOT) + text.substring(1);
    }

    /** What the kind's own lights at the network say, to hold beside the question. */
    static List<String> signals(Kind kind) {
        return kind.signals().stream()
                .filter(s -> s.part().toLowerCase(Locale.ROOT).contains("network"))
                .map((Signal s) -> s.part() + " " + s.words() + ": " + s.means())
                .toList();
    }

    @GetMapping("/api/endpoints/{id}/check-runs/underway")
    UnderwayView underway(@PathVariable long id) {
        var results = confirm.underway(id);
        return new UnderwayView(results.isPresent(), results.orElse(List.of()));
    }

    @PostMapping("/api/endpoints/{id}/check-runs")
    @ResponseStatus(HttpStatus.CREATED)
    VerificationView run(
            @PathVariable long id,
            @RequestHeader(name = "Idempotency-Key", required = false) String key,
            Principal by) {
        var asked = List.of("check run of", id);
        if (idempotency.answer(by.getName(), key, asked, Made.class).isEmpty())
            confirm.run(
                    id,
                    by.getName(),
                    keep -> idempotency.once(by.getName(), key, asked, Made.class, () -> new Made(keep.getAsLong())));
        return line(id);
    }

    @PostMapping("/api/endpoints/{id}/observations")
    VerificationView observation(@PathVariable long id, @Valid @RequestBody ObservationRequest body, Principal by) {
        observations.keep(
                id,
                new Observations.Saw(
                        body.check(),
                        body.outcome(),
                        body.evidence(),
                        Optional.ofNullable(body.at()),
                        Optional.ofNullable(body.restsOn()),
                        by.getName()));
        return line(id);
    }

    /** The office says from its own end whether it reaches the endpoint; the only thing that those who look on may write. */
    @PostMapping("/api/endpoints/{id}/office-word")
    VerificationView office(@PathVariable long id, @Valid @RequestBody OfficeRequest body, Principal by) {
        var outcome = body.reached() ? Outcome.REACHED : Outcome.NOT_REACHED;
        observations.keep(id, Observations.Saw.now(Check.OFFICE, outcome, Evidence.SEEN, by.getName()));
        return line(id);
    }

    /** What came of trying a service that the site lists. */
    record TriedView(Status status, String seen, String remedy, String vantage) {}

    @PostMapping("/api/sites/{siteId}/services/{id}/try")
    TriedView attempt(@PathVariable long siteId, @PathVariable long id) {
        return confirm.attempt(siteId, id);
    }

    @PostMapping("/api/endpoints/{id}/confirmation")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void signOff(
            @PathVariable long id,
            @RequestHeader(name = "If-Match", required = false) String ifMatch,
            @RequestBody SignOffRequest body,
            Principal by) {
        confirm.signOff(id, Etags.required(ifMatch), body.note(), by.getName());
    }
}
