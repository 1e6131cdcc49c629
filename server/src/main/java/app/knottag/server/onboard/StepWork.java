package app.knottag.server.onboard;

import app.knottag.core.kind.GateType;
import app.knottag.core.kind.Kind;
import app.knottag.core.runbook.EndpointContext;
import app.knottag.core.runbook.GateJudge;
import app.knottag.core.runbook.Seals;
import app.knottag.core.runbook.SheetGate;
import app.knottag.core.runbook.StepRecord;
import app.knottag.core.status.Status;
import app.knottag.server.change.Consequences;
import app.knottag.server.change.StepCompleted;
import app.knottag.server.log.Log;
import app.knottag.server.record.DoneAt;
import app.knottag.server.record.EndpointStore;
import app.knottag.server.record.Endpoints;
import app.knottag.server.record.OnboardStore;
import app.knottag.server.record.RegistrationStore;
import app.knottag.server.record.Runbooks;
import app.knottag.server.web.Etags;
import app.knottag.server.web.FormReader;
import app.knottag.server.web.Problem;
import java.time.Clock;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Starts, completes, overrides and reopens steps; what was read is kept even when the gate stays shut. */
@Service
public class StepWork {

    private static final int SHORTEST_REASON = 5;
    private static final int LONGEST_EVIDENCE = 200;

    /** What can be done with a step. */
    public enum Action {
        START,
        COMPLETE,
        OVERRIDE,
        REOPEN,
        /** It restarted by itself once more while it is waited for. */
        RESTARTED
    }

    /**
     * What somebody did with a step.
     *
     * @param at when, or null for now
     */
    public record Act(
            Action action,
            Map<String, String> evidence,
            String reason,
            @Nullable Instant at,
            String by) {}

    private final Endpoints endpoints;
    private final EndpointStore store;
    private final Runbooks runbooks;
    private final Consequences consequences;
    private final RegistrationStore registrations;
    private final OnboardStore onboard;
    private final Log log;
    private final Clock clock;
    private final ApplicationEventPublisher events;

    StepWork(
            Endpoints endpoints,
            EndpointStore store,
            Runbooks runbooks,
            Consequences consequences,
            RegistrationStore registrations,
            OnboardStore onboard,
            Log log,
            Clock clock,
            ApplicationEventPublisher events) {
        this.endpoints = endpoints;
        this.events = events;
        this.store = store;
        this.runbooks = runbooks;
        this.consequences = consequences;
        this.registrations = registrations;
        this.onboard = onboard;
        this.log = log;
        this.clock = clock;
    }

    @Transactional
    public void act(long endpointId, String key, int expected, Act act) {
        var action = act.action();
        var evidence = act.evidence();
        String by = act.by();
        var endpoint = endpoints.get(endpointId);
        var runbook = runbooks.runbook(endpoint);
        var step = runbook.kind().step(key);
        evidence.forEach((field, text) -> {
            if (text != null && text.length() > LONGEST_EVIDENCE)
                throw Problem.field(
                        "evidence/" + field, "too-long", "At most " + LONGEST_EVIDENCE + " characters are kept here.");
            FormReader.words("evidence/" + field, text, false);
        });
        if (step.gate().type() == GateType.CONFIRMED)
            throw Problem.of(HttpStatus.CONFLICT, "sign-off-needed", "This step is done by the sign-off at Confirm.");
        if (action != Action.REOPEN) refuseBlocked(runbook.blocking(key), runbook.breaks(key));
        if (store.touch(endpointId, expected) == 0) throw Etags.stale();
        var was = runbook.record(key);
        var now = happened(act.at(), was);
        StepRecord is = switch (action) {
            case START -> started(step, was, now, by);
            case COMPLETE -> completed(endpoint, runbook.kind(), step, was, evidence, now, by);
            case OVERRIDE -> overridden(was, act.reason(), now, by);
            case REOPEN -> StepRecord.untouched(key);
            case RESTARTED -> restarted(was);
        };
        runbooks.keep(endpointId, is);
        if (action == Action.REOPEN) consequences.doubt(endpoint);
        if (step.gate().type() == GateType.NEW_SEALS && is.status() == Status.PASSED) seals(endpointId, is, by);
        if (step.gate().type() == GateType.ADDRESS_SHOWN && is.status() == Status.PASSED)
            registrations.restarted(endpointId, now);
        if (action == Action.COMPLETE && is.status() == Status.PASSED)
            events.publishEvent(new StepCompleted(endpointId, step, now, by));
        if (step.gate().type() == GateType.COUNT) consequences.figured(endpoint);
        consequences.stand(endpointId);
        log.write(Log.entry(by, said(action, is.status()) + " “" + step.title() + "”")
                .at(endpoint.siteId(), endpointId)
                .before(was)
                .after(is)
                .because(is.reason()));
    }

    /** When it was done: not later than now, not before the step itself was begun, and of the last day. */
    private Instant happened(@Nullable Instant at, StepRecord was) {
        var done = DoneAt.of(
                Optional.ofNullable(at), clock.instant(), "Look how the device stands, and do the step again.");
        return at == null ? done : was.startedAt().filter(done::isBefore).orElse(done);
    }

    private static String said(Action action, Status status) {
        return switch (action) {
            case START -> "began to wait at";
            case COMPLETE -> status == Status.PASSED ? "completed" : "could not complete";
            case OVERRIDE -> "left out";
            case REOPEN -> "reopened";
            case RESTARTED -> "saw a restart at";
        };
    }

    private static void refuseBlocked(List<String> blocking, List<String> breaks) {
        if (!blocking.isEmpty())
            throw Problem.of(
                    HttpStatus.CONFLICT,
                    "steps-before",
                    "First comes: " + String.join(", ", blocking) + "."
                            + breaks.stream().map(b -> " " + b + ".").collect(Collectors.joining()));
    }

    private static StepRecord started(Kind.Step step, StepRecord was, Instant now, String by) {
        if (step.waiting().isEmpty())
            throw Problem.of(HttpStatus.CONFLICT, "no-wait", "There is nothing to wait for in this step.");
        if (was.startedAt().isPresent() && was.endedAt().isEmpty()) return was;
        return new StepRecord(
                was.key(), Status.ACTIVE, Optional.of(now), Optional.empty(), Map.of(), List.of(), "", by, 0, 0);
    }

    private StepRecord completed(
            EndpointStore.Row endpoint,
            Kind kind,
            Kind.Step step,
            StepRecord was,
            Map<String, String> evidence,
            Instant now,
            String by) {
        var plan = runbooks.wholePlan(endpoint);
        var findings = GateJudge.judge(kind, step, plan, evidence);
        boolean holds = findings.isEmpty();
        var kept = step.gate().type() == GateType.WORKSHEET
                ? SheetGate.said(step.gate(), plan.around().beside())
                : evidence.entrySet().stream()
                        .filter(e -> e.getValue() != null)
                        .collect(Collectors.toMap(Map.Entry::getKey, Map.Entry::getValue));
        return new StepRecord(
                was.key(),
                holds ? Status.PASSED : Status.FAILED,
                was.startedAt(),
                holds ? Optional.of(now) : Optional.empty(),
                kept,
                findings,
                "",
                by,
                holds ? 0 : was.tries() + 1,
                was.restarts());
    }

    private static StepRecord restarted(StepRecord was) {
        if (was.startedAt().isEmpty() || was.endedAt().isPresent())
            throw Problem.of(HttpStatus.CONFLICT, "no-wait", "Nothing is waited for here. Start the wait first.");
        return was.counting(was.tries(), was.restarts() + 1);
    }

    /**
     * A seal that somebody else used a moment ago shows as one that was used before. What is sealed now is what the next morning
     * finds reported.
     */
    private void seals(long endpointId, StepRecord is, String by) {
        var numbers = Seals.numbers(is.evidence().getOrDefault("read", ""));
        onboard.keepFact(endpointId, EndpointContext.SEALS, String.join(" ", numbers));
        onboard.keepFact(endpointId, EndpointContext.CASE, is.evidence().getOrDefault("case", ""));
        for (String number : numbers)
            if (onboard.keepSeal(number, endpointId, is.evidence().getOrDefault("case", ""), by) == 0)
                throw Problem.conflict(
                        "evidence/read", "seal-used", "Seal " + number + " was used a moment ago.", Map.of());
    }

    private static StepRecord overridden(StepRecord was, String reason, Instant now, String by) {
        String why = reason == null ? "" : reason.strip();
        if (why.length() < SHORTEST_REASON)
            throw Problem.field("reason", "reason-missing", "Say why the step is left out; the hand-over shows it.");
        FormReader.words("reason", why, true);
        return new StepRecord(
                was.key(), Status.SKIPPED, was.startedAt(), Optional.of(now), was.evidence(), List.of(), why, by, 0, 0);
    }
}
