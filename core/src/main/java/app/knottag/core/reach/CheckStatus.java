package app.knottag.core.reach;

import app.knottag.core.status.Status;
import java.time.Instant;

/**
 * One check of the line as it stands now.
 *
 * @param status PASSED only while every check below was made; ACTIVE when it held but one below was not made or does not hold
 * @param note what was seen, or why it is open
 * @param loosened why an older proof no longer holds, or empty
 * @param strength 0..4, 0 when nothing proves it
 */
public record CheckStatus(
        Check check,
        Status status,
        String note,
        String remedy,
        String loosened,
        Evidence evidence,
        int strength,
        String vantage,
        Instant at,
        String by,
        long millis) {

    /** Returns a check that nobody has made yet. */
    static CheckStatus open(Check check, String note, String loosened) {
        return new CheckStatus(check, Status.PENDING, note, "", loosened, null, 0, "", null, "", 0);
    }

    CheckStatus as(Status other) {
        return new CheckStatus(check, other, note, remedy, loosened, evidence, strength, vantage, at, by, millis);
    }
}
