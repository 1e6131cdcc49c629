package app.knottag.server.verify;

import app.knottag.core.kind.Kind.GateType;
import app.knottag.core.log.Words;
import app.knottag.core.reach.Bond;
import app.knottag.core.reach.Cause;
import app.knottag.core.reach.CauseBook;
import app.knottag.core.reach.Check;
import app.knottag.core.reach.CheckResult;
import app.knottag.core.reach.Diagnosis;
import app.knottag.core.reach.Evidence;
import app.knottag.core.reach.Ladder;
import app.knottag.core.reach.MachineLooks;
import app.knottag.core.reach.Probes;
import app.knottag.core.reach.ProofLine;
import app.knottag.core.reach.Remembered;
import app.knottag.core.reach.ServiceJudge;
import app.knottag.core.reach.Target;
import app.knottag.server.change.Consequences;
import app.knottag.server.change.StepTied;
import app.knottag.server.db.Json;
import app.knottag.server.log.Log;
import app.knottag.server.record.Bonds;
import app.knottag.server.record.EndpointStore;
import app.knottag.server.record.Endpoints;
import app.knottag.server.record.RoundStore;
import app.knottag.server.record.Runbooks;
import app.knottag.server.web.Etags;
import app.knottag.server.web.Problem;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Semaphore;
import java.util.function.Consumer;
import java.util.function.LongSupplier;
import org.jspecify.annotations.Nullable;
import org.springframework.context.event.EventListener;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionTemplate;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;

/** Makes rounds of checks on the network, keeps what people saw, and takes the sign-off when all of it holds. */
@Service
public class Confirm {

    private static final Duration FRESH = Duration.ofMinutes(15);
    private static final int ROUNDS_AT_ONCE = 8;
    private static final int LOOKS_AT_ONCE = 16;

    private final Endpoints endpoints;
    private final EndpointStore store;
    private final RoundStore rounds;
    private final Targets targets;
    private final Runbooks runbooks;
    private final Consequences consequences;
    private final Bonds bonds;
    private final Probes probes;
    private final Log log;
    private final Clock clock;
    private final TransactionTemplate transactions;
    private final JsonMapper json;
    private final Map<Long, List<CheckResult>> underway = new ConcurrentHashMap<>();
    private final ExecutorService lookers = Executors.newFixedThreadPool(LOOKS_AT_ONCE, r -> {
        var thread = new Thread(r, "looks");
        thread.setDaemon(true);
        return thread;
    });
    private final Semaphore atOnce = new Semaphore(ROUNDS_AT_ONCE, true);

    Confirm(
            Endpoints endpoints,
            EndpointStore store,
            RoundStore rounds,
            Targets targets,
            Runbooks runbooks,
            Consequences consequences,
            Bonds bonds,
            Probes probes,
            Log log,
            Clock clock,
            TransactionTemplate transactions,
            JsonMapper json) {
        this.endpoints = endpoints;
        this.store = store;
        this.rounds = rounds;
        this.targets = targets;
        this.runbooks = runbooks;
        this.consequences = consequences;
        this.bonds = bonds;
        this.probes = probes;
        this.log = log;
        this.clock = clock;
        this.transactions = transactions;
        this.json = json;
    }

    /**
     * Makes every check that a machine can make. At most eight rounds run at the same time; others wait their turn. Nothing of the
     * database is held while the network is asked; what was heard is kept in one go afterwards.
     *
     * @param keeper what keeping it is wrapped in, so that a round that is sent twice is on record once
     */
    public void round(long endpointId, String by, Consumer<LongSupplier> keeper) {
        var endpoint = endpoints.get(endpointId);
        var target = targets.required(endpoint);
        var bond = bonds.of(endpoint);
        var at = clock.instant();
        atOnce.acquireUninterruptibly();
        try {
            var sofar = new CopyOnWriteArrayList<CheckResult>();
            underway.put(endpointId, sofar);
            var once = new Remembered(probes);
            var vantage = targets.vantage(endpoint.siteId(), once);
            var results = new Ladder(target, once, vantage, clock).climb(lookers, sofar::add);
            var looks = new MachineLooks(target, once, vantage, lookers).make();
            String from = vantage.words(target.segment().prefix());
            transactions.executeWithoutResult(
                    t -> keeper.accept(() -> keep(endpoint, bond, at, results, looks, from, by)));
        } finally {
            underway.remove(endpointId);
            atOnce.release();
        }
    }

    private long keep(
            EndpointStore.Row endpoint,
            Bond bond,
            Instant at,
            List<CheckResult> results,
            List<Diagnosis.Made> looks,
            String from,
            String by) {
        boolean failed = results.stream().anyMatch(CheckResult::failed);
        long id = rounds.add(
                endpoint.id(),
                at,
                by,
                failed,
                new Json(json.writeValueAsString(results)),
                new Json(json.writeValueAsString(bond)));
        for (var m : looks) rounds.keepLook(endpoint.id(), id, m.look(), m.outcome(), m.how(), from);
        consequences.stand(endpoint.id());
        log.write(Log.entry(by, failed ? "checks failed" : "checks held")
                .at(endpoint.siteId(), endpoint.id())
                .after(results));
        return id;
    }

    /** What a person says mended it is the site's own history, from which the next search learns; nothing else is. */
    @Transactional
    public void mended(long endpointId, Cause cause, String by) {
        var endpoint = endpoints.get(endpointId);
        var round = rounds.latest(endpointId);
        if (round == null)
            throw Problem.of(HttpStatus.CONFLICT, "nothing-failed", "No checks were made yet. Run them first.");
        rounds.addFound(endpointId, round.id(), endpoint.siteId(), cause, clock.instant(), by);
        log.write(Log.entry(by, "mended").at(endpoint.siteId(), endpointId).after(cause.name()));
    }

    /** Takes back what somebody said had mended an endpoint, so that nothing is learned from it. */
    @Transactional
    public void forget(long siteId, long roundId, String by) {
        if (rounds.forget(siteId, roundId) == 0)
            throw Problem.notFound("Nothing was learned from there, or it was taken back already.");
        log.write(Log.entry(by, "took back what had mended it").at(siteId, null).before(roundId));
    }

    /** What has come in of a round that runs just now, or empty when none does. */
    Optional<List<CheckResult>> underway(long endpointId) {
        return Optional.ofNullable(underway.get(endpointId)).map(List::copyOf);
    }

    /** The checks that an endpoint has; until its facts are on record none can be made. */
    public List<Check> checks(EndpointStore.Row endpoint) {
        return targets.of(endpoint).map(Target::checks).orElse(List.of());
    }

    /** The whole line of an endpoint as it stands now. */
    public ProofLine line(EndpointStore.Row endpoint) {
        var witnesses = rounds.witnesses(endpoint.id()).stream()
                .map(w -> witness(w.checkName(), w))
                .toList();
        var now = bonds.of(endpoint);
        // A round from before proofs belonged to something is taken at its word.
        var round = Optional.ofNullable(rounds.latest(endpoint.id()))
                .map(r -> new ProofLine.Round(
                        json.readValue(r.results().text(), new TypeReference<List<CheckResult>>() {}),
                        r.bond() == null ? now : bond(r.bond()),
                        r.by()));
        return ProofLine.of(checks(endpoint), round, witnesses, now, clock.instant());
    }

    private ProofLine.Witness witness(Check check, RoundStore.WitnessRow w) {
        return new ProofLine.Witness(
                check, w.outcome(), words(check, w.outcome()), w.evidence(), w.at(), w.by(), bond(w.bond()));
    }

    private Bond bond(Json text) {
        return json.readValue(text.text(), Bond.class);
    }

    /** What an outcome of a check is called. */
    static String words(Check check, String outcome) {
        return check.look().map(l -> CauseBook.shipped().words(l, outcome)).orElseGet(() -> switch (outcome) {
            case "refused" -> "It is refused";
            case "let-in" -> "It is let in";
            case "reached" -> "The office reaches it";
            default -> "The office does not reach it";
        });
    }

    /** Keeps what somebody saw at a check that only eyes can make. */
    @Transactional
    public void witness(long endpointId, Check check, String outcome, Evidence evidence, String by) {
        var endpoint = endpoints.get(endpointId);
        if (check.byMachine())
            throw Problem.field("check", "by-machine", "A machine makes this check: run the checks.");
        if (!checks(endpoint).contains(check))
            throw Problem.field("check", "no-such-check", "This endpoint has no such check.");
        if (!check.outcomes().contains(outcome))
            throw Problem.field("outcome", "no-such-outcome", "“" + outcome + "” is none of " + check.outcomes() + ".");
        if (evidence == Evidence.TOOL)
            throw Problem.field("evidence", "no-tool", "Only the checks themselves measure.");
        rounds.addWitness(
                endpointId,
                new RoundStore.WitnessRow(
                        check,
                        outcome,
                        evidence,
                        clock.instant(),
                        by,
                        new Json(json.writeValueAsString(bonds.of(endpoint)))));
        var round = rounds.latest(endpointId);
        if (round != null)
            check.look().ifPresent(l -> rounds.keepLook(endpointId, round.id(), l, outcome, evidence, by));
        boolean fails = !outcome.equals(check.outcomes().get(0)) && check != Check.OFFICE;
        if (fails && endpoint.confirmedAt() != null) consequences.doubt(endpoint);
        consequences.stand(endpointId);
        log.write(Log.entry(by, "looked: " + check.title())
                .at(endpoint.siteId(), endpointId)
                .after(words(check, outcome) + ", " + evidence.words()));
    }

    /** Tries a service that the site lists, once. */
    ReachController.TriedView attempt(long siteId, long serviceId) {
        var call = targets.call(siteId, serviceId);
        atOnce.acquireUninterruptibly();
        try {
            var judged = ServiceJudge.judge(call, probes.talk(call), clock.instant());
            return new ReachController.TriedView(
                    judged.knot(),
                    judged.seen(),
                    judged.remedy(),
                    targets.vantage(siteId, probes).words(call.ground()));
        } finally {
            atOnce.release();
        }
    }

    /** What was read back in the runbook proves something here, too. */
    @EventListener
    void tied(StepTied tied) {
        var gate = tied.step().gate();
        var has = checks(endpoints.get(tied.endpointId()));
        if (gate.type() == GateType.SIGNAL
                && gate.part().toLowerCase(Locale.ROOT).contains("network")) readBack(tied, Check.LINK, has);
        if (gate.type() != GateType.ADDRESS_SHOWN) return;
        readBack(tied, Check.ADDRESS_SHOWN, has);
        if (tied.step().waiting().isPresent()) readBack(tied, Check.AFTER_RESTART, has);
    }

    private void readBack(StepTied tied, Check check, List<Check> has) {
        if (has.contains(check))
            witness(tied.endpointId(), check, check.outcomes().get(0), Evidence.READ_BACK, tied.by());
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
        if (rounds.latest(endpointId).at().isBefore(clock.instant().minus(FRESH)))
            throw Problem.of(
                    HttpStatus.CONFLICT,
                    "proof-too-old",
                    "The last checks are more than 15 minutes old. Run them once more, then sign off.");
        String words = note == null ? "" : note.strip();
        Words.problem(words, false).ifPresent(p -> {
            throw Problem.field("note", "bad-words", p);
        });
        if (store.touch(endpointId, expected) == 0) throw Etags.stale();
        var grade = line.grade();
        rounds.addSignOff(endpointId, new RoundStore.SignOffRow(grade, words, clock.instant(), by));
        store.confirm(endpointId, clock.instant(), by);
        consequences.confirmed(endpoint, by);
        consequences.stand(endpointId);
        log.write(Log.entry(by, "signed off")
                .at(endpoint.siteId(), endpointId)
                .after(Map.of("grade", grade, "line", line.rungs()))
                .because(words));
    }

    /** The latest round of checks, or null when none was made. */
    RoundStore.@Nullable Row latest(long endpointId) {
        return rounds.latest(endpointId);
    }

    /** The sign-off that holds, or null when none does. */
    RoundStore.@Nullable SignOffRow signOff(EndpointStore.Row endpoint) {
        return endpoint.confirmedAt() == null ? null : rounds.signOff(endpoint.id());
    }
}
