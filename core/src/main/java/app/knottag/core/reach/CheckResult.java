package app.knottag.core.reach;

import app.knottag.core.status.Status;
import java.time.Instant;

/**
 * One check as it came out.
 *
 * @param status PASSED when it holds, FAILED when it failed, OPEN when not tried, SKIPPED when it cannot be made
 * @param seen what was seen, in plain words
 * @param remedy what to do next, or empty
 * @param vantage from where it was made
 * @param millis how long it took
 */
public record CheckResult(
        Check check, Status status, String seen, String remedy, String vantage, Instant at, long millis) {

    /** Whether it was made and did not hold. */
    public boolean failed() {
        return status == Status.FAILED;
    }
}
