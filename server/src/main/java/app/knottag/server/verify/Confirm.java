package app.knottag.server.verify;

import app.knottag.core.reach.Check;
import app.knottag.core.reach.CheckResult;
import app.knottag.core.reach.CheckRunner;
import app.knottag.core.reach.Diagnosis;
import app.knottag.core.reach.Fault;
import app.knottag.core.reach.FaultBook;
import app.knottag.core.reach.MachineQuestions;
import app.knottag.core.reach.Outcome;
import app.knottag.core.reach.Probes;
import app.knottag.core.reach.ProofBasis;
import app.knottag.core.reach.Remembered;
import app.knottag.core.reach.ServiceJudge;
import app.knottag.core.reach.Target;
import app.knottag.core.reach.Verification;
import app.knottag.core.status.Status;
import app.knottag.server.change.Consequences;
import app.knottag.server.db.Claims;
import app.knottag.server.db.Claims.Claim;
import app.knottag.server.db.Claims.Work;
import app.knottag.server.db.Json;
import app.knottag.server.log.Log;
import app.knottag.server.record.CheckRunStore;
import app.knottag.server.record.EndpointStore;
import app.knottag.server.record.Endpoints;
import app.knottag.server.record.NightLook;
import app.knottag.server.record.ProofBases;
import app.knottag.server.record.Runbooks;
import app.knottag.server.record.SightingStore;
import app.knottag.server.record.SightingStore.SightingRow;
import app.knottag.server.web.Etags;
import app.knottag.server.web.FormReader;
import app.knottag.server.web.Problem;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Semaphore;
import java.util.function.Consumer;
import java.util.function.LongSupplier;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionTemplate;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;

/** Runs the checks on the network, keeps what people saw, and takes the sign-off when all of it holds. */
@Service
public class Confirm {

    private static final Duration FRESH = Duration.ofMinutes(15);
    private static final int ROUNDS_AT_ONCE = 8;
    private static final int LOOKS_AT_ONCE = 16;

    private final Endpoints endpoints;
    private final EndpointStore store;
    private final CheckRunStore checkRuns;
    private final SightingStore sightings;
    private final Targets targets;
    private final Runbooks runbooks;
    private final Consequences consequences;
    private final ProofBases bases;
    private final Probes probes;
    private final Log log;
    private final Clock clock;
    private final TransactionTemplate transactions;
    private final JsonMapper json;
    private final Claims claims;
    private final ExecutorService lookers = Executors.newFixedThreadPool(LOOKS_AT_ONCE, r -> {
        var thread = new Thread(r, "looks");
        thread.setDaemon(true);
        return thread;
    });
    private final Semaphore atOnce = new Semaphore(ROUNDS_AT_ONCE, true);

    Confirm(
            Endpoints endpoints,
            EndpointStore store,
            CheckRunStore checkRuns,
            SightingStore sightings,
            Targets targets,
            Runbooks runbooks,
            Consequences consequences,
            ProofBases bases,
            Probes probes,
            Log log,
            Clock clock,
            TransactionTemplate transactions,
            JsonMapper json,
            Claims claims) {
        this.endpoints = endpoints;
        this.store = store;
        this.checkRuns = checkRuns;
        this.sightings = sightings;
        this.targets = targets;
        this.runbooks = runbooks;
        this.consequences = consequences;
        this.bases = bases;
        this.probes = probes;
        this.log = log;
        this.clock = clock;
        this.transactions = transactions;
        this.json = json;
        this.claims = claims;
    }

    /**
     * Makes every check that a machine can make. At most eight runs go on at the same time; others wait their turn. Nothing of the
     * database is held while the network is asked; what was heard is kept in one go afterwards.
     *
     * @param keeper what keeping it is wrapped in, so that a run that is sent twice is on record once
     */
    public void run(long endpointId, String by, Consumer<LongSupplier> keeper) {
        var endpoint = endpoints.get(endpointId);
        var target = targets.required(endpoint);
        var basis = bases.of(endpoint);
        var at = clock.instant();
        var claim = claims.take(Work.CHECKS, endpointId);
        atOnce.acquireUninterruptibly();
        try {
            var sofar = new SoFar(claim);
            var once = new Remembered(probes);
            var vantage = targets.vantage(endpoint.siteId(), once);
            var results = new CheckRunner(target, once, vantage, clock).run(lookers, sofar);
            var questions = new MachineQuestions(target, once, vantage, lookers).make();
            String from = vantage.words(target.segment().prefix());
            transactions.executeWithoutResult(
                    t -> keeper.accept(() -> keep(endpoint, basis, at, results, questions, from, by)));
        } finally {
            claim.ifPresent(Claim::close);
            atOnce.release();
        }
    }

    /**
     * Makes the checks of one endpoint and nothing else; what came out as the last time lengthens that run. What fails
     * as well when somebody has switched off the device or its partner for the night proves nothing, and is not kept.
     *
     * @return the results, or empty when it is not to be proved now
     */
    Optional<List<CheckResult>> atNight(long endpointId) {
        var endpoint = endpoints.get(endpointId);
        var target = targets.provable(endpoint);
        if (target.isEmpty()) return Optional.empty();
        var basis = bases.of(endpoint);
        var at = clock.instant();
        var once = new Remembered(probes);
        var vantage = targets.vantage(endpoint.siteId(), once);
        var results = new CheckRunner(target.get(), once, vantage, clock).run(lookers, r -> {});
        if (results.stream().anyMatch(r -> r.failed() && r.check().failsWhenOff())) return Optional.of(results);
        var same = Optional.ofNullable(checkRuns.latest(endpointId)).filter(r -> sameAgain(r, basis, results));
        // Whoever looks in the morning for the cause of a failure begins with what was seen.
        var questions = same.isEmpty() && results.stream().anyMatch(CheckResult::failed)
                ? new MachineQuestions(target.get(), once, vantage, lookers).make()
                : List.<Diagnosis.Made>of();
        transactions.executeWithoutResult(t -> {
            if (same.isPresent()) {
                checkRuns.again(same.get().id(), at);
                seen(endpoint, results, at, NightLook.BY);
            } else
                keep(
                        endpoint,
                        basis,
                        at,
                        results,
                        questions,
                        vantage.words(target.get().segment().prefix()),
                        NightLook.BY);
        });
        return Optional.of(results);
    }

    private boolean sameAgain(CheckRunStore.Row latest, ProofBasis basis, List<CheckResult> results) {
        if (Optional.ofNullable(latest.basis())
                .map(this::basis)
                .filter(basis::equals)
                .isEmpty()) return false;
        var before = json.readValue(latest.results().text(), new TypeReference<List<CheckResult>>() {});
        return outcomes(before).equals(outcomes(results));
    }

    private static Map<Check, Status> outcomes(List<CheckResult> results) {
        return results.stream().collect(Collectors.toMap(CheckResult::check, CheckResult::status));
    }

    private long keep(
            EndpointStore.Row endpoint,
            ProofBasis basis,
            Instant at,
            List<CheckResult> results,
            List<Diagnosis.Made> questions,
            String from,
            String by) {
        boolean failed = results.stream().anyMatch(CheckResult::failed);
        long id = checkRuns.add(
                endpoint.id(),
                at,
                by,
                failed,
                new Json(json.writeValueAsString(results)),
                new Json(json.writeValueAsString(basis)));
        for (var m : questions) checkRuns.keepAnswer(endpoint.id(), id, m.question(), m.outcome(), m.how(), from);
        seen(endpoint, results, at, by);
        consequences.stand(endpoint.id());
        log.write(Log.entry(by, failed ? "checks failed" : "checks held")
                .at(endpoint.siteId(), endpoint.id())
                .after(results));
        return id;
    }

    /** Whoever answered with its own MAC was seen, as if it had stood in a table. */
    private void seen(EndpointStore.Row endpoint, List<CheckResult> results, Instant at, String by) {
        if (results.stream().anyMatch(r -> r.check() == Check.WHO_ANSWERS && r.status() == Status.PASSED))
            sightings.add(endpoint.siteId(), List.of(SightingRow.heard(endpoint.address(), endpoint.mac(), at)), by);
    }

    /** What a person says mended it is the site's own history, from which the next search learns; nothing else is. */
    @Transactional
    public void mended(long endpointId, Fault fault, String by) {
        var endpoint = endpoints.get(endpointId);
        var run = checkRuns.latest(endpointId);
        if (run == null)
            throw Problem.of(HttpStatus.CONFLICT, "nothing-failed", "No checks were made yet. Run them first.");
        checkRuns.addFound(endpointId, run.id(), endpoint.siteId(), fault, clock.instant(), by);
        log.write(Log.entry(by, "mended").at(endpoint.siteId(), endpointId).after(fault.name()));
    }

    /** Takes back what somebody said had mended an endpoint, so that nothing is learned from it. */
    @Transactional
    public void forget(long siteId, long checkRunId, String by) {
        if (checkRuns.forget(siteId, checkRunId) == 0)
            throw Problem.notFound("Nothing was learned from there, or it was taken back already.");
        log.write(Log.entry(by, "took back what had mended it").at(siteId).before(checkRunId));
    }

    /** What has come in of a run that some server makes now, or empty when none does. */
    Optional<List<CheckResult>> underway(long endpointId) {
        return claims.told(Work.CHECKS, endpointId, new TypeReference<>() {}, List.of());
    }

    /** The checks that an endpoint has; until its facts are on record none can be made. */
    public List<Check> checks(EndpointStore.Row endpoint) {
        return targets.of(endpoint).map(Target::checks).orElse(List.of());
    }

    /** The whole line of an endpoint as it stands now. */
    public Verification line(EndpointStore.Row endpoint) {
        var observations = checkRuns.observations(endpoint.id()).stream()
                .map(w -> observation(w.checkName(), w))
                .toList();
        var now = bases.of(endpoint);
        // A round from before proofs belonged to something is taken at its word.
        var run = Optional.ofNullable(checkRuns.latest(endpoint.id()))
                .map(r -> new Verification.CheckRun(
                        json.readValue(r.results().text(), new TypeReference<List<CheckResult>>() {}),
                        r.basis() == null ? now : basis(r.basis()),
                        r.by()));
        return Verification.of(checks(endpoint), run, observations, now, clock.instant());
    }

    private Verification.Observation observation(Check check, CheckRunStore.ObservationRow w) {
        return new Verification.Observation(
                check, w.outcome(), words(check, w.outcome()), w.evidence(), w.at(), w.by(), basis(w.basis()));
    }

    private ProofBasis basis(Json text) {
        return json.readValue(text.text(), ProofBasis.class);
    }

    private static String words(Check check, Outcome outcome) {
        return FaultBook.shipped().words(check, outcome);
    }

    /** Tries a service that the site lists, once. */
    ReachController.TriedView attempt(long siteId, long serviceId) {
        var call = targets.call(siteId, serviceId);
        atOnce.acquireUninterruptibly();
        try {
            var judged = ServiceJudge.judge(call, probes.talk(call), clock.instant());
            return new ReachController.TriedView(
                    judged.status(),
                    judged.seen(),
                    judged.remedy(),
                    targets.vantage(siteId, probes).words(call.ground()));
        } finally {
            atOnce.release();
        }
    }

    /** Signs off what the line proves, as the person on site; the office says its own apart. */
    @Transactional
    public void signOff(long endpointId, int expected, String note, String by) {
        var endpoint = endpoints.get(endpointId);
        var runbook = runbooks.runbook(endpoint);
        if (!runbook.readyToConfirm())
            throw Problem.of(
                    HttpStatus.CONFLICT,
                    "steps-before",
                    "The runbook is not done yet. Next: "
                            + runbook.current().orElseThrow().title() + ".");
        var line = line(endpoint);
        line.missing().ifPresent(m -> {
            throw Problem.of(HttpStatus.CONFLICT, "not-proved", m + " Settle that first.");
        });
        if (checkRuns.latest(endpointId).at().isBefore(clock.instant().minus(FRESH)))
            throw Problem.of(
                    HttpStatus.CONFLICT,
                    "proof-too-old",
                    "The last checks are more than 15 minutes old. Run them once more, then sign off.");
        String words = FormReader.words("note", note, false);
        if (store.touch(endpointId, expected) == 0) throw Etags.stale();
        var grade = line.grade();
        checkRuns.addSignOff(endpointId, new CheckRunStore.SignOffRow(grade, words, clock.instant(), by));
        store.confirm(endpointId, clock.instant(), by);
        consequences.confirmed(endpoint, by);
        consequences.stand(endpointId);
        log.write(Log.entry(by, "signed off")
                .at(endpoint.siteId(), endpointId)
                .after(Map.of("grade", grade, "line", line.checks()))
                .because(words));
    }

    /** The latest run of checks, or null when none was made. */
    CheckRunStore.@Nullable Row latest(long endpointId) {
        return checkRuns.latest(endpointId);
    }

    /** The sign-off that holds, or null when none does. */
    CheckRunStore.@Nullable SignOffRow signOff(EndpointStore.Row endpoint) {
        return Optional.ofNullable(endpoint.confirmedAt())
                .map(c -> checkRuns.signOff(endpoint.id()))
                .orElse(null);
    }
}
