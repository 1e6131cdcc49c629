package app.knottag.core.runbook;

import app.knottag.core.kind.GateType;
import app.knottag.core.kind.Kind;
import app.knottag.core.kind.StepOrder;
import app.knottag.core.reach.ProofBasis.Change;
import app.knottag.core.status.Status;
import java.time.Duration;
import java.time.Instant;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;

/** The steps of one endpoint in order, each with its state; exactly one is the current one until all are done. */
public record Runbook(Kind kind, List<StepRecord> records) {

    public Runbook {
        records = List.copyOf(records);
    }

    /** Puts what is on record beside the steps of the kind; steps without a record are untouched. */
    public static Runbook of(Kind kind, Map<String, StepRecord> byKey) {
        return new Runbook(
                kind,
                kind.steps().stream()
                        .map(s -> byKey.getOrDefault(s.key(), StepRecord.untouched(s.key())))
                        .toList());
    }

    /** Returns the first step that is not done, or empty when all are. */
    public Optional<Kind.Step> current() {
        return records.stream().filter(r -> !r.done()).findFirst().map(r -> kind.step(r.key()));
    }

    /**
     * Returns what is on record about a step.
     *
     * @throws IllegalArgumentException if the kind has no such step
     */
    public StepRecord record(String key) {
        return records.get(kind.steps().indexOf(kind.step(key)));
    }

    /** Returns the titles of the steps that must be done before this one may be completed, first to last. */
    public List<String> blocking(String key) {
        var needed = new HashSet<String>();
        need(key, needed);
        return kind.steps().stream()
                .filter(s -> needed.contains(s.key()) && !record(s.key()).done())
                .map(Kind.Step::title)
                .toList();
    }

    private void need(String key, Set<String> needed) {
        for (String before : kind.step(key).after().keySet()) if (needed.add(before)) need(before, needed);
    }

    /** Returns what breaks when this step is done now, one sentence for each step that should have come before. */
    public List<String> breaks(String key) {
        return StepOrder.breaks(
                kind,
                key,
                records.stream().filter(StepRecord::done).map(StepRecord::key).collect(Collectors.toSet()));
    }

    /** Whether everything up to the confirmation is done; what comes after it, such as packing away, does not count. */
    public boolean readyToConfirm() {
        return kind.steps().stream()
                .takeWhile(s -> s.gate().type() != GateType.CONFIRMED)
                .allMatch(s -> record(s.key()).done());
    }

    /** Whether a later step is done already and this one is not, so that its moment may have passed. */
    public boolean passed(String key) {
        return !record(key).done()
                && kind.steps().stream()
                        .skip(kind.steps().indexOf(kind.step(key)) + 1L)
                        .anyMatch(s -> record(s.key()).done());
    }

    /** Whether work has begun on any step. */
    public boolean begun() {
        return records.stream().anyMatch(r -> r.status() != Status.PENDING);
    }

    /** Returns the keys of the steps that changes undo: what was typed and read back no longer stands, nor its proof. */
    public static List<String> undoneBy(Kind kind, Set<Change> changes) {
        if (changes.isEmpty()) return List.of();
        return kind.steps().stream()
                .filter(s -> switch (s.gate().type()) {
                    case CONFIRMED -> true;
                    case ADDRESS_SHOWN -> addressed(changes);
                    case LEARNED, TYPE_SHEET, READ_BACK -> undone(kind, s.gate().part(), changes);
                    default -> false;
                })
                .map(Kind.Step::key)
                .toList();
    }

    private static boolean addressed(Set<Change> changes) {
        return changes.contains(Change.ADDRESS) || changes.contains(Change.SETTINGS);
    }

    /** Whether what was entered in a menu no longer stands; another partner knows nothing of what the first was told. */
    private static boolean undone(Kind kind, String part, Set<Change> changes) {
        return part.isEmpty() && addressed(changes)
                || part.equals(Kind.PARTNER) && changes.contains(Change.PARTNER)
                || kind.menu().stream().anyMatch(f -> f.part().equals(part) && holds(f.field(), changes));
    }

    /** Whether a field of the menu holds something that changed. */
    private static boolean holds(Kind.Field field, Set<Change> changes) {
        return switch (field) {
            case ADDRESS -> changes.contains(Change.ADDRESS);
            case MASK, GATEWAY, RESOLVER_1, RESOLVER_2 -> changes.contains(Change.SETTINGS);
            case SERVICE_PORT -> changes.contains(Change.SERVICE_PORT);
            case PARTNER_ADDRESS, PARTNER_PORT -> changes.contains(Change.PARTNER);
            default -> false;
        };
    }

    /** How a running wait stands. */
    public enum Pace {
        TOO_EARLY,
        USUAL,
        LATE,
        TOO_LONG,
        /** It began in the future: the clock was set back since, and nobody can say how long it ran. */
        CLOCK_SET_BACK
    }

    /** Clocks may differ by so much without a word. */
    private static final Duration CLOCKS_DIFFER = Duration.ofMinutes(1);

    /** Judges a wait by the time it has run: too early to judge, usual, later than usual, longer than it ever takes. */
    public static Pace pace(Kind.Wait wait, Instant startedAt, Instant now) {
        if (startedAt.isAfter(now.plus(CLOCKS_DIFFER))) return Pace.CLOCK_SET_BACK;
        long minutes = Duration.between(startedAt, now).toMinutes();
        if (minutes < wait.shortest()) return Pace.TOO_EARLY;
        if (minutes < wait.usual()) return Pace.USUAL;
        return minutes < wait.longest() ? Pace.LATE : Pace.TOO_LONG;
    }
}
