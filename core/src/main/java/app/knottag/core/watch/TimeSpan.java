package app.knottag.core.watch;

import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.time.zone.ZoneOffsetTransition;
import java.util.Optional;

/**
 * A stretch of time.
 *
 * @param until not before it begins, and not of it
 */
public record TimeSpan(Instant from, Instant until) {

    /** Returns the first moment at which the clock on the wall shows a time, or a later one where the clock skips it. */
    static Instant first(LocalDateTime local, ZoneId zone) {
        return Optional.ofNullable(zone.getRules().getTransition(local))
                .filter(ZoneOffsetTransition::isGap)
                .map(ZoneOffsetTransition::getInstant)
                .orElseGet(() -> local.atZone(zone).toInstant());
    }

    boolean has(Instant moment) {
        return !moment.isBefore(from) && moment.isBefore(until);
    }
}
