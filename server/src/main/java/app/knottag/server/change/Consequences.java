package app.knottag.server.change;

import app.knottag.core.kind.GateType;
import app.knottag.core.reach.ProofBasis;
import app.knottag.core.reach.ProofBasis.Change;
import app.knottag.core.runbook.Runbook;
import app.knottag.core.runbook.SheetGate;
import app.knottag.core.runbook.Stage;
import app.knottag.core.runbook.StepRecord;
import app.knottag.core.status.Status;
import app.knottag.server.record.CheckRunStore;
import app.knottag.server.record.EndpointStore;
import app.knottag.server.record.OnboardStore;
import app.knottag.server.record.ProofBases;
import app.knottag.server.record.RegistryBook;
import app.knottag.server.record.Runbooks;
import app.knottag.server.record.StepStore;
import java.time.Clock;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;

/** Applies what a change undoes, in the transaction that makes it: steps reopen, a sign-off falls, the station is worked out anew. */
@Service
public class Consequences {

    private final Runbooks runbooks;
    private final StepStore steps;
    private final OnboardStore onboard;
    private final EndpointStore endpoints;
    private final CheckRunStore checkRuns;
    private final RegistryBook book;
    private final ProofBases bases;
    private final Clock clock;

    Consequences(
            Runbooks runbooks,
            StepStore steps,
            OnboardStore onboard,
            EndpointStore endpoints,
            CheckRunStore checkRuns,
            RegistryBook book,
            ProofBases bases,
            Clock clock) {
        this.runbooks = runbooks;
        this.steps = steps;
        this.onboard = onboard;
        this.endpoints = endpoints;
        this.checkRuns = checkRuns;
        this.book = book;
        this.bases = bases;
        this.clock = clock;
    }

    /** Returns what its proofs belong to before something is changed; {@link #apply} wants it afterwards. */
    public ProofBasis before(EndpointStore.Row endpoint) {
        return bases.of(endpoint);
    }

    /** Applies what has changed of an endpoint since: the steps that it undoes reopen, and the sign-off falls. */
    @Transactional(propagation = Propagation.MANDATORY)
    public void apply(long endpointId, ProofBasis before, String by) {
        var now = endpoints.find(endpointId);
        var changes = before.changed(bases.of(now));
        if (changes.contains(Change.PLACE) || changes.contains(Change.PORT))
            checkRuns.addChange(endpointId, CheckRunStore.Change.MOVE, by);
        undo(now, changes);
        stand(endpointId);
    }

    /** A segment tells an endpoint other figures than were typed into it, though its own record stays as it is. */
    @Transactional(propagation = Propagation.MANDATORY)
    public void told(EndpointStore.Row endpoint) {
        undo(endpoint, EnumSet.of(Change.SETTINGS));
        stand(endpoint.id());
    }

    /** It has lost its address, or was given another: what enters it is done again. */
    @Transactional(propagation = Propagation.MANDATORY)
    public void readdressed(EndpointStore.Row endpoint) {
        undo(endpoint, EnumSet.of(Change.ADDRESS, Change.SETTINGS));
        stand(endpoint.id());
    }

    /** What was proved is in doubt: a step was taken back, or a check failed for somebody. */
    @Transactional(propagation = Propagation.MANDATORY)
    public void doubt(EndpointStore.Row endpoint) {
        undo(endpoint, EnumSet.of(Change.RESET));
    }

    /** Figures of a worksheet, or a number that one of them comes from, are others: a step that no longer goes is opened again. */
    @Transactional(propagation = Propagation.MANDATORY)
    public void figured(EndpointStore.Row endpoint) {
        var shaken = SheetGate.shaken(
                runbooks.runbook(endpoint),
                runbooks.wholePlan(endpoint).around().beside());
        if (!shaken.isEmpty()) reopen(endpoint, shaken);
        stand(endpoint.id());
    }

    /** It was reset: what the reset undid reopens, with what stands open on a new one. */
    @Transactional(propagation = Propagation.MANDATORY)
    public void reset(EndpointStore.Row endpoint, List<String> redone, String by) {
        reopen(endpoint, redone);
        onboard.dropOpenings(endpoint.id());
        checkRuns.addChange(endpoint.id(), CheckRunStore.Change.RESET, by);
        stand(endpoint.id());
    }

    /** Puts every step back to open, because another unit stands in the place of the old one. */
    @Transactional(propagation = Propagation.MANDATORY)
    public void beginAnew(EndpointStore.Row endpoint) {
        onboard.dropOpenings(endpoint.id());
        unpacked(endpoint);
    }

    /** What travels is unpacked again: every step is done anew; what stands open, or was closed, stays as it is. */
    @Transactional(propagation = Propagation.MANDATORY)
    public void unpacked(EndpointStore.Row endpoint) {
        reopen(
                endpoint,
                steps.of(endpoint.id()).stream().map(StepStore.Row::key).toList());
        stand(endpoint.id());
    }

    private void undo(EndpointStore.Row endpoint, Set<Change> changes) {
        if (changes.isEmpty()) return;
        // What the recipe leaves out now may come back, and what it puts in stands in no kind.
        reopen(
                endpoint,
                Stream.of(runbooks.kind(endpoint), runbooks.recipe(endpoint).kind())
                        .flatMap(k -> Runbook.undoneBy(k, changes).stream())
                        .distinct()
                        .toList());
    }

    private void reopen(EndpointStore.Row endpoint, List<String> keys) {
        steps.of(endpoint.id()).stream()
                .filter(s -> s.status() != Status.PENDING && keys.contains(s.key()))
                .forEach(s -> runbooks.keep(endpoint.id(), StepRecord.untouched(s.key())));
        endpoints.unconfirm(endpoint.id());
    }

    /** Completes the last step; only the sign-off does this. */
    @Transactional
    public void confirmed(EndpointStore.Row endpoint, String by) {
        var now = Optional.of(clock.instant());
        runbooks.runbook(endpoint).kind().steps().stream()
                .filter(s -> s.gate().type() == GateType.CONFIRMED)
                .forEach(s -> runbooks.keep(
                        endpoint.id(),
                        new StepRecord(
                                s.key(), Status.PASSED, Optional.empty(), now, Map.of(), List.of(), "", by, 0, 0)));
    }

    private Stage.Known known(EndpointStore.Row e) {
        return new Stage.Known(
                e.address() != null,
                e.mac() != null && !e.serial().isEmpty(),
                e.confirmedAt() != null,
                e.confirmedAt() != null && runbooks.openings(e).stream().anyMatch(o -> !o.closed()),
                Objects.nonNull(e.handedOverAt()));
    }

    /** Works out where the endpoint waits now and keeps it beside the endpoint, for lists and counts. */
    @Transactional(propagation = Propagation.MANDATORY)
    public void stand(long endpointId) {
        var row = endpoints.find(endpointId);
        var latest = checkRuns.latest(endpointId);
        var standing =
                Stage.of(known(row), runbooks.runbook(row), latest != null && latest.failed(), book.entries(row));
        endpoints.stand(endpointId, standing.station(), standing.status());
    }
}
