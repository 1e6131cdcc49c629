package app.knottag.server.record;

import app.knottag.server.web.Problem;
import java.time.Duration;
import java.time.Instant;
import java.util.Optional;

/** When something was done that is told later, as when it was done without network. */
public final class DoneAt {

    /** What was done longer ago says little of how things stand. */
    private static final Duration LATEST = Duration.ofHours(24);

    /** Two clocks that were set well are so far apart at most. */
    private static final Duration APART = Duration.ofSeconds(30);

    private DoneAt() {}

    /**
     * Returns when it was done, never later than now.
     *
     * @param told when whoever did it says it was, or empty when it is told at once
     * @param again what to do about what was done too long ago
     * @throws Problem when that is still to come, or more than a day ago
     */
    public static Instant of(Optional<Instant> told, Instant now, String again) {
        var at = told.orElse(now);
        if (at.isAfter(now.plus(APART)))
            throw Problem.field(
                    "at", "in-the-future", "This was done later than now. Is the clock of this device right?");
        if (at.isBefore(now.minus(LATEST)))
            throw Problem.field("at", "too-late", "This was done more than a day ago. " + again);
        return at.isAfter(now) ? now : at;
    }
}
