package app.knottag.core.watch;

import app.knottag.core.reading.ReadingException;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;

/**
 * The hours of every night in which looks may go on, by the site's own clock. A night has the date of the day on which it ends.
 *
 * @param from when it begins, in the evening before or in the night itself
 * @param until when it ends; 30 minutes to 12 hours after it began
 */
public record WatchHours(LocalTime from, LocalTime until) {

    private static final Duration LEAST = Duration.ofMinutes(30);
    private static final Duration MOST = Duration.ofHours(12);

    public static final WatchHours USUAL = new WatchHours(LocalTime.of(1, 0), LocalTime.of(5, 0));

    /** @throws ReadingException for hours that are too short for any look, or so long that they are no night */
    public WatchHours {
        var lasts = lasts(from, until);
        if (lasts.compareTo(LEAST) < 0 || lasts.compareTo(MOST) > 0)
            throw new ReadingException("From " + from + " until " + until + " are " + lasts.toMinutes()
                    + " minutes. Looks at night need 30 minutes to 12 hours.");
    }

    private static Duration lasts(LocalTime from, LocalTime until) {
        var lasts = Duration.between(from, until);
        return lasts.isNegative() ? lasts.plusDays(1) : lasts;
    }

    /** Returns from when to when the night before a morning goes; empty in length when the clock skips it whole. */
    public TimeSpan night(LocalDate morning, ZoneId zone) {
        var evening = from.isBefore(until) ? morning : morning.minusDays(1);
        var begin = TimeSpan.first(evening.atTime(from), zone);
        var end = TimeSpan.first(morning.atTime(until), zone);
        return new TimeSpan(begin, end.isBefore(begin) ? begin : end);
    }

    /** Returns the morning after the night that goes on at a moment, or that comes next. */
    public LocalDate morning(Instant now, ZoneId zone) {
        var day = LocalDate.ofInstant(now, zone);
        return night(day, zone).until().isAfter(now) ? day : day.plusDays(1);
    }
}
