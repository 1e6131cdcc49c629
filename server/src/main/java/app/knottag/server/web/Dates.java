package app.knottag.server.web;

import app.knottag.core.time.DateStyle;
import app.knottag.core.time.TimeReader;
import app.knottag.core.time.TimeReader.Form;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.util.Locale;
import org.jspecify.annotations.Nullable;

/** Days and times that somebody typed, as the site writes them or as in ISO 8601. */
public final class Dates {

    private Dates() {}

    /** Returns the day that was typed, or null when nothing was; refuses anything else. */
    public static @Nullable LocalDate day(String field, @Nullable String text, DateStyle style) {
        return text == null || text.isBlank() ? null : LocalDate.parse(read(field, text, Form.DAY, style));
    }

    /** Returns the time of day that was typed; refuses anything else. */
    public static LocalTime time(String field, String text, DateStyle style) {
        return LocalTime.parse(read(field, text, Form.TIME, style));
    }

    /** Returns the day and time that were typed; refuses anything else. */
    public static LocalDateTime moment(String field, String text, DateStyle style) {
        return LocalDateTime.parse(read(field, text, Form.MOMENT, style));
    }

    private static String read(String field, String text, Form form, DateStyle style) {
        var reading = TimeReader.read(text, form, style);
        return reading.kept().orElseThrow(() -> {
            var finding = reading.findings().get(0);
            String meant = String.join(" or ", finding.candidates());
            return Problem.field(
                    field,
                    "bad-" + form.name().toLowerCase(Locale.ROOT),
                    finding.message() + (meant.isEmpty() ? "" : " Type " + meant + "."));
        });
    }
}
