package app.knottag.core.time;

import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.format.DateTimeFormatter;
import java.util.Locale;

/**
 * How a site writes its days and times. A lead chooses it once; nobody's browser does. The patterns are those of Unicode
 * (UTS 35); only the letters d, M, y, H, h, m and a occur in them.
 */
public enum DateStyle {
    WORDS("d MMM yyyy", "d MMM", "HH:mm"),
    PERIODS("dd.MM.yyyy", "dd.MM.", "HH:mm"),
    SLASHES("dd/MM/yyyy", "dd/MM", "HH:mm"),
    YEAR_FIRST("yyyy-MM-dd", "MM-dd", "HH:mm"),
    MONTH_FIRST("MM/dd/yyyy", "MM/dd", "h:mm a");

    private final String day;
    private final String brief;
    private final String time;
    private final DateTimeFormatter days;
    private final DateTimeFormatter times;

    DateStyle(String day, String brief, String time) {
        this.day = day;
        this.brief = brief;
        this.time = time;
        days = DateTimeFormatter.ofPattern(day, Locale.ENGLISH);
        times = DateTimeFormatter.ofPattern(time, Locale.ENGLISH);
    }

    /** The pattern of a whole day. */
    public String dayPattern() {
        return day;
    }

    /** The pattern of a day whose year is plain. */
    public String briefPattern() {
        return brief;
    }

    /** The pattern of a time of day. */
    public String timePattern() {
        return time;
    }

    /** Writes a day. */
    public String day(LocalDate date) {
        return days.format(date);
    }

    /** Writes a time of day, to the minute. */
    public String time(LocalTime time) {
        return times.format(time).toLowerCase(Locale.ROOT);
    }

    /** Writes a day and a time of day. */
    public String moment(LocalDateTime moment) {
        return day(moment.toLocalDate()) + ", " + time(moment.toLocalTime());
    }
}
