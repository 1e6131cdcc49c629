package app.knottag.core.runbook;

import app.knottag.core.status.Status;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * What is on record about one step of one endpoint.
 *
 * @param startedAt when its wait began, or empty
 * @param evidence what was read or seen, by field
 * @param findings what spoke against completing it, at the last try
 * @param reason why the gate was overridden, or empty
 * @param tries how often its gate stayed shut in a row
 * @param restarts restarts that were counted while it waited
 */
public record StepRecord(
        String key,
        Status status,
        Optional<Instant> startedAt,
        Optional<Instant> endedAt,
        Map<String, String> evidence,
        List<StepFinding> findings,
        String reason,
        String by,
        int tries,
        int restarts) {

    /** After so many failures in a row ways out are offered. */
    public static final int TRIES_UNTIL_WAYS_OUT = 3;

    public StepRecord {
        evidence = Map.copyOf(evidence);
        findings = List.copyOf(findings);
    }

    /** Returns the record of a step that nobody has begun. */
    public static StepRecord untouched(String key) {
        return new StepRecord(
                key, Status.PENDING, Optional.empty(), Optional.empty(), Map.of(), List.of(), "", "", 0, 0);
    }

    /** Returns the record with its failures in a row and the restarts counted. */
    public StepRecord counting(int failures, int counted) {
        return new StepRecord(key, status, startedAt, endedAt, evidence, findings, reason, by, failures, counted);
    }

    /** Whether it has failed so often that another way is worth more than another try. */
    public boolean wantsWaysOut() {
        return status == Status.FAILED && tries >= TRIES_UNTIL_WAYS_OUT;
    }

    /** Whether it is done or left out with a reason. */
    public boolean done() {
        return status == Status.PASSED || status == Status.SKIPPED;
    }

    /**
     * Something that speaks against completing a step.
     *
     * @param field which field it is about, or empty for the whole step
     * @param remedy what to do about it, or empty
     */
    public record StepFinding(String field, String message, String remedy) {}
}
