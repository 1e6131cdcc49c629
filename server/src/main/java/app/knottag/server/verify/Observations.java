package app.knottag.server.verify;

import app.knottag.core.kind.GateType;
import app.knottag.core.reach.Check;
import app.knottag.core.reach.Evidence;
import app.knottag.core.reach.FaultBook;
import app.knottag.core.reach.Outcome;
import app.knottag.core.reach.ProofBasis;
import app.knottag.core.status.Status;
import app.knottag.server.change.Consequences;
import app.knottag.server.change.StepCompleted;
import app.knottag.server.db.Json;
import app.knottag.server.log.Log;
import app.knottag.server.record.CheckRunStore;
import app.knottag.server.record.DoneAt;
import app.knottag.server.record.EndpointStore;
import app.knottag.server.record.Endpoints;
import app.knottag.server.record.ProofBases;
import app.knottag.server.web.Idempotency;
import app.knottag.server.web.Problem;
import java.time.Clock;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.HexFormat;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import org.springframework.context.event.EventListener;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.databind.json.JsonMapper;

/** What people see at the checks that only eyes can make. */
@Service
public class Observations {

    private final Confirm confirm;
    private final Endpoints endpoints;
    private final CheckRunStore checkRuns;
    private final ProofBases bases;
    private final Consequences consequences;
    private final Log log;
    private final JsonMapper json;
    private final Clock clock;

    Observations(
            Confirm confirm,
            Endpoints endpoints,
            CheckRunStore checkRuns,
            ProofBases bases,
            Consequences consequences,
            Log log,
            JsonMapper json,
            Clock clock) {
        this.confirm = confirm;
        this.endpoints = endpoints;
        this.checkRuns = checkRuns;
        this.bases = bases;
        this.consequences = consequences;
        this.log = log;
        this.json = json;
        this.clock = clock;
    }

    /**
     * What somebody saw at a check that only eyes can make.
     *
     * @param at when, or empty when it is told at once
     * @param restsOn the mark of what it rested on then, or empty when it is what stands
     */
    public record Saw(
            Check check,
            Outcome outcome,
            Evidence evidence,
            Optional<Instant> at,
            Optional<String> restsOn,
            String by) {

        /** What is told at once. */
        public static Saw now(Check check, Outcome outcome, Evidence evidence, String by) {
            return new Saw(check, outcome, evidence, Optional.empty(), Optional.empty(), by);
        }
    }

    /** Keeps what somebody saw; what is told later counts from when it was seen, for what it was then. */
    @Transactional
    public void keep(long endpointId, Saw saw) {
        var endpoint = endpoints.get(endpointId);
        var check = saw.check();
        var outcome = saw.outcome();
        if (check.byMachine())
            throw Problem.field("check", "by-machine", "A machine makes this check: run the checks.");
        if (!confirm.checks(endpoint).contains(check))
            throw Problem.field("check", "no-such-check", "This endpoint has no such check.");
        if (!check.outcomes().contains(outcome))
            throw Problem.field("outcome", "no-such-outcome", "“" + outcome + "” is none of " + check.outcomes() + ".");
        if (saw.evidence() == Evidence.TOOL)
            throw Problem.field("evidence", "no-tool", "Only the checks themselves measure.");
        var basis = bases.of(endpoint);
        if (saw.restsOn().filter(r -> !r.equals(mark(basis, check))).isPresent())
            throw Problem.of(
                    HttpStatus.CONFLICT,
                    "another-since",
                    "Something that this rests on was changed since it was seen. Look again.");
        var at = DoneAt.of(saw.at(), clock.instant(), "Look again.").truncatedTo(ChronoUnit.MICROS);
        var row = new CheckRunStore.ObservationRow(
                check, outcome, saw.evidence(), at, saw.by(), new Json(json.writeValueAsString(basis)));
        if (checkRuns.addObservation(endpointId, row) == 0) return;
        var run = checkRuns.latest(endpointId);
        // What was seen before a run does not answer what that run asks.
        if (run != null && !run.at().isAfter(at))
            check.question()
                    .ifPresent(l -> checkRuns.keepAnswer(endpointId, run.id(), l, outcome, saw.evidence(), saw.by()));
        boolean fails = confirm.line(endpoint).checks().stream()
                .anyMatch(c -> c.check() == check && c.status() == Status.FAILED && check != Check.OFFICE);
        if (fails && endpoint.confirmedAt() != null) consequences.doubt(endpoint);
        consequences.stand(endpointId);
        log.write(Log.entry(saw.by(), "looked: " + check.title())
                .at(endpoint.siteId(), endpointId)
                .after(FaultBook.shipped().words(check, outcome) + ", "
                        + saw.evidence().words()));
    }

    /** The marks of all on which the proofs of these checks rest. */
    Map<Check, String> restsOn(EndpointStore.Row endpoint, List<Check> checks) {
        var basis = bases.of(endpoint);
        return checks.stream().collect(Collectors.toMap(c -> c, c -> mark(basis, c)));
    }

    /** Another one when any of it is another. */
    private static String mark(ProofBasis basis, Check check) {
        return HexFormat.of().formatHex(Idempotency.sha256(check + "\n" + basis.restsOn(check)), 0, 8);
    }

    /** What was read back in the runbook proves something here, too. */
    @EventListener
    void completed(StepCompleted step) {
        var gate = step.step().gate();
        var has = confirm.checks(endpoints.get(step.endpointId()));
        if (gate.type() == GateType.SIGNAL
                && gate.part().toLowerCase(Locale.ROOT).contains("network")) readBack(step, Check.LINK, has);
        if (gate.type() != GateType.ADDRESS_SHOWN) return;
        readBack(step, Check.ADDRESS_SHOWN, has);
        if (step.step().waiting().isPresent()) readBack(step, Check.AFTER_RESTART, has);
    }

    private void readBack(StepCompleted step, Check check, List<Check> has) {
        if (has.contains(check))
            keep(
                    step.endpointId(),
                    new Saw(
                            check,
                            check.outcomes().get(0),
                            Evidence.READ_BACK,
                            Optional.of(step.at()),
                            Optional.empty(),
                            step.by()));
    }
}
