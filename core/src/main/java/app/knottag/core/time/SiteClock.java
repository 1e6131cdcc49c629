package app.knottag.core.time;

import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.time.ZoneOffset;

/**
 * A moment as a site sees it: by its zone (IANA time zone data), and as days and times are written there.
 *
 * @param now the moment
 */
public record SiteClock(Instant now, ZoneId zone, DateStyle style) {

    /** Where no site is known. */
    public static final SiteClock NONE = new SiteClock(Instant.EPOCH, ZoneOffset.UTC, DateStyle.WORDS);

    /** Returns the day that it is at the site. */
    public LocalDate today() {
        return LocalDate.ofInstant(now, zone);
    }

    /** Returns the time of day at the site, with its day. */
    public LocalDateTime local() {
        return LocalDateTime.ofInstant(now, zone);
    }

    /** Writes a day as it is written there. */
    public String day(LocalDate day) {
        return style.day(day);
    }

    /** Writes the day that a moment is there. */
    public String day(Instant moment) {
        return style.day(LocalDate.ofInstant(moment, zone));
    }

    /** Writes a moment as it is written there. */
    public String moment(Instant moment) {
        return style.moment(LocalDateTime.ofInstant(moment, zone));
    }
}
