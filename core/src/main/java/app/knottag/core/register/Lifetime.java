package app.knottag.core.register;

import app.knottag.core.reading.ReadingException;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.time.temporal.ChronoUnit;
import java.util.Optional;

/**
 * How long a registration lasts.
 *
 * @param amount 1..8784 hours or 1..3660 days
 */
public record Lifetime(Unit unit, int amount) {

    private static final Duration LONGEST_WARNING = Duration.ofDays(30);

    /** How the registry counts. */
    public enum Unit {
        /** To the minute: so many times sixty minutes, whatever the clocks do. */
        HOURS,
        /** To the end of the day at the site, so many days on. */
        DAYS
    }

    /**
     * @throws IllegalArgumentException if the amount is out of range
     */
    public Lifetime {
        int most = unit == Unit.HOURS ? 8_784 : 3_660;
        if (amount < 1 || amount > most)
            throw new ReadingException("a registration lasts 1.." + most + " " + unit + ", was " + amount);
    }

    /** Returns the moment from which it no longer holds. */
    public Instant end(Instant from, ZoneId zone) {
        return unit == Unit.HOURS
                ? from.plus(amount, ChronoUnit.HOURS)
                // The day may be 23 or 25 hours long, and in a few zones begins at one.
                : from.atZone(zone)
                        .toLocalDate()
                        .plusDays(amount + 1L)
                        .atStartOfDay(zone)
                        .toInstant();
    }

    /** Returns from when on it counts as ending soon: the last quarter of its life, at most thirty days. */
    public Instant warnFrom(Instant from, Instant end) {
        var quarter = Duration.between(from, end).dividedBy(4);
        return end.minus(quarter.compareTo(LONGEST_WARNING) < 0 ? quarter : LONGEST_WARNING);
    }

    /** Returns what the clock change does to the end, when one lies between; empty otherwise. */
    public Optional<String> clockChange(Instant from, ZoneId zone) {
        if (unit == Unit.DAYS) return Optional.empty();
        var end = end(from, zone);
        long shift = zone.getRules().getOffset(end).getTotalSeconds()
                - zone.getRules().getOffset(from).getTotalSeconds();
        if (shift == 0) return Optional.empty();
        return Optional.of("The clocks change before it ends: it ends " + Math.abs(shift) / 60 + " min "
                + (shift > 0 ? "later" : "earlier") + " by the clock than it began.");
    }

    @Override
    public String toString() {
        return amount + (unit == Unit.HOURS ? " h" : amount == 1 ? " day" : " days");
    }
}
