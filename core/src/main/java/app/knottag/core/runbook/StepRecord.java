package app.knottag.core.runbook;

import app.knottag.core.knot.Knot;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * What is on record about one step of one endpoint.
 *
 * @param startedAt when its wait began, or empty
 * @param evidence what was read or seen, by field
 * @param findings what spoke against tying it, at the last try
 * @param reason why the gate was overridden, or empty
 */
public record StepRecord(
        String key,
        Knot knot,
        Optional<Instant> startedAt,
        Optional<Instant> endedAt,
        Map<String, String> evidence,
        List<StepFinding> findings,
        String reason,
        String by) {

    public StepRecord {
        evidence = Map.copyOf(evidence);
        findings = List.copyOf(findings);
    }

    /** Returns the record of a step that nobody has begun. */
    public static StepRecord untouched(String key) {
        return new StepRecord(key, Knot.OPEN, Optional.empty(), Optional.empty(), Map.of(), List.of(), "", "");
    }

    /** Whether it is tied or left out with a reason. */
    public boolean done() {
        return knot == Knot.TIGHT || knot == Knot.LEFT_OUT;
    }

    /**
     * Something that speaks against tying a step.
     *
     * @param field which field it is about, or empty for the whole step
     * @param remedy what to do about it, or empty
     */
    public record StepFinding(String field, String message, String remedy) {}
}
