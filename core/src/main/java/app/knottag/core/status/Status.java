package app.knottag.core.status;

/** The five states: not done, under way, holds, failed, left out on purpose with a reason. */
public enum Status {
    PENDING,
    ACTIVE,
    PASSED,
    FAILED,
    SKIPPED
}
