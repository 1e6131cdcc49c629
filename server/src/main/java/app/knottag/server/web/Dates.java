package app.knottag.server.web;

import java.time.LocalDate;
import java.time.LocalDateTime;

/** Days that somebody typed: no visit and no end lies further off than this. */
public final class Dates {

    private static final LocalDate FIRST = LocalDate.of(2000, 1, 1);
    private static final LocalDate LAST = LocalDate.of(2099, 12, 31);

    private Dates() {}

    /** Refuses a day outside of 2000 to 2099; null stays null. */
    public static LocalDate near(String field, LocalDate day) {
        if (day != null && (day.isBefore(FIRST) || day.isAfter(LAST)))
            throw Problem.field(field, "day-out-of-range", "A day from " + FIRST + " to " + LAST + " is wanted.");
        return day;
    }

    /** Refuses a moment outside of 2000 to 2099; null stays null. */
    public static LocalDateTime near(String field, LocalDateTime moment) {
        if (moment != null) near(field, moment.toLocalDate());
        return moment;
    }
}
