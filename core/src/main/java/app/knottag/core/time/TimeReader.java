package app.knottag.core.time;

import app.knottag.core.reading.Finding;
import app.knottag.core.reading.Finding.Code;
import app.knottag.core.reading.Note;
import app.knottag.core.reading.Reading;
import app.knottag.core.reading.ReadingException;
import app.knottag.core.reading.Typed;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.Month;
import java.time.YearMonth;
import java.time.format.DateTimeFormatter;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.function.Function;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;

/**
 * Reads days and times of day as people type them. A year in front (ISO 8601) and a month as a word say their order by
 * themselves; between figures alone the site's own order decides. What the site's order leaves open is asked, not guessed.
 */
public final class TimeReader {

    /** What a text is meant to be. */
    public enum Form {
        DAY("day"),
        TIME("time of day"),
        MOMENT("day with a time"),
        /** What a device's clock shows: any year, and the order is the device's, which nobody here chose. */
        SHOWN("day with a time");

        private final String words;

        Form(String words) {
            this.words = words;
        }
    }

    private static final int FIRST_YEAR = 2000;
    private static final int LAST_YEAR = 2099;
    private static final LocalDateTime EXAMPLE = LocalDateTime.of(2026, 3, 29, 14, 5);
    private static final DateTimeFormatter MONTH = DateTimeFormatter.ofPattern("MMMM yyyy", Locale.ENGLISH);
    private static final DateTimeFormatter SAID = DateTimeFormatter.ofPattern("EEEE d MMMM yyyy", Locale.ENGLISH);

    private static final Pattern WEEKDAY = Pattern.compile("^(mon|tue|wed|thu|fri|sat|sun)[a-z]*\\.?,? +");
    private static final Pattern YEAR_IN_FRONT =
            Pattern.compile("(\\d{4}) ?[-./ ] ?(\\d{1,2}) ?[-./ ] ?(\\d{1,2})\\.?");
    private static final Pattern FIGURES =
            Pattern.compile("(\\d{1,2}) ?([-./ ]) ?(\\d{1,2}) ?[-./ ] ?(\\d{4}|\\d{2})\\.?");
    private static final Pattern DAY_AND_WORD =
            Pattern.compile("(\\d{1,2})(?:st|nd|rd|th)?\\.?[ -]*([a-z]{3,9})\\.?,?[ -]*(\\d{4})");
    private static final Pattern WORD_AND_DAY =
            Pattern.compile("([a-z]{3,9})\\.? *(\\d{1,2})(?:st|nd|rd|th)?,? *(\\d{4})");

    private static final String FULL = "(\\d{1,2}) ?[:.h] ?(\\d{2})(?:[:.](\\d{2}))?(?: ?h| ?uhr)?( ?[ap]\\.?m\\.?)?";
    private static final String CLOCK = FULL + "|\\d{1,2} ?(?:h|uhr|[ap]\\.?m\\.?)";
    private static final Pattern TIME = Pattern.compile(FULL);
    private static final Pattern HOUR = Pattern.compile("(\\d{1,2})(?: ?h| ?uhr)?( ?[ap]\\.?m\\.?)?");
    private static final Pattern FOUR = Pattern.compile("(\\d{2})(\\d{2})");
    private static final Pattern TIME_LAST = Pattern.compile("(.+?)(?:[ ,]+|t)(" + CLOCK + ")");
    private static final Pattern TIME_FIRST = Pattern.compile("(" + CLOCK + ")[ ,]+(.+)");

    private TimeReader() {}

    /** Returns what a text says, as in ISO 8601, or why it says nothing; days lie in 2000 to 2099. */
    public static Reading read(String text, Form form, DateStyle site) {
        var style = form == Form.SHOWN ? DateStyle.YEAR_FIRST : site;
        if (text.isBlank()) return refused(Finding.of(Code.EMPTY, "Nothing was typed. " + like(form, style)));
        if (text.length() > Typed.MAX_LENGTH)
            return refused(Finding.of(Code.TOO_LONG, "That is too long. " + like(form, style)));
        try {
            return switch (form) {
                case DAY -> one(days(text, style), TimeReader::said, style::day, text, form, style);
                case TIME -> one(time(plain(text)).stream().toList(), style::time, style::time, text, form, style);
                case MOMENT, SHOWN ->
                    one(
                            moments(text, style),
                            m -> said(m.toLocalDate()) + ", " + style.time(m.toLocalTime()),
                            style::moment,
                            text,
                            form,
                            style);
            };
        } catch (ReadingException e) {
            return refused(Finding.of(Code.UNREADABLE, e.getMessage()));
        }
    }

    private static <T> Reading one(
            List<T> found,
            Function<T, String> said,
            Function<T, String> written,
            String text,
            Form form,
            DateStyle style) {
        if (found.isEmpty())
            return refused(Finding.of(
                    Code.UNREADABLE, "“" + text.strip() + "” is not a " + form.words + ". " + like(form, style)));
        if (found.size() > 1)
            return refused(Finding.of(Code.UNREADABLE, "Which is the day here, and which the month?")
                    .withCandidates(found.stream().map(written).toList()));
        String value = found.get(0).toString();
        if ((form == Form.DAY || form == Form.MOMENT)
                && (value.startsWith("+")
                        || value.compareTo("" + FIRST_YEAR) < 0
                        || value.compareTo("" + (LAST_YEAR + 1)) >= 0))
            return refused(
                    Finding.of(Code.UNREADABLE, "A day from " + FIRST_YEAR + " to " + LAST_YEAR + " is wanted."));
        return Reading.taken(value, List.of(new Note(Note.Code.SAID, "Reads as " + said.apply(found.get(0)) + ".")));
    }

    private static Reading refused(Finding finding) {
        return Reading.refused(finding);
    }

    private static String said(LocalDate day) {
        return SAID.format(day);
    }

    private static String like(Form form, DateStyle style) {
        return "Type it as "
                + switch (form) {
                    case DAY -> style.day(EXAMPLE.toLocalDate());
                    case TIME -> style.time(EXAMPLE.toLocalTime());
                    case MOMENT, SHOWN -> style.moment(EXAMPLE);
                }
                + ".";
    }

    private static String plain(String text) {
        return Typed.of(text)
                .plain()
                .toLowerCase(Locale.ROOT)
                .replaceAll("\\s+", " ")
                .strip();
    }

    /**
     * Returns the days that a text may mean at a site that writes so: none, one, or two when its figures leave it open.
     *
     * @throws ReadingException when it names a day that there is not
     */
    static List<LocalDate> days(String text, DateStyle style) {
        String plain = plain(text);
        var weekday = WEEKDAY.matcher(plain);
        if (!weekday.find()) return unnamed(plain, style);
        var found = unnamed(plain.substring(weekday.end()), style);
        var fitting = found.stream()
                .filter(d -> d.getDayOfWeek().name().toLowerCase(Locale.ROOT).startsWith(weekday.group(1)))
                .toList();
        if (fitting.isEmpty() && !found.isEmpty())
            throw new ReadingException(
                    said(found.get(0)).replaceFirst("(\\w+) (.*)", "$2 is a $1.") + " Look once more.");
        return fitting;
    }

    /** The same without the name of the day. */
    private static List<LocalDate> unnamed(String plain, DateStyle style) {
        Matcher m;
        if ((m = YEAR_IN_FRONT.matcher(plain)).matches()) return List.of(day(m.group(1), m.group(2), m.group(3)));
        if ((m = DAY_AND_WORD.matcher(plain)).matches()) return worded(m.group(3), m.group(2), m.group(1));
        if ((m = WORD_AND_DAY.matcher(plain)).matches()) return worded(m.group(3), m.group(1), m.group(2));
        if (!(m = FIGURES.matcher(plain)).matches()) return List.of();
        String a = m.group(1), b = m.group(3), year = m.group(4).length() == 2 ? "20" + m.group(4) : m.group(4);
        if (monthFirst(m.group(2), style)) return List.of(day(year, a, b));
        if (dayFirst(m.group(2), style)) return List.of(day(year, b, a));
        // Nothing here says which comes first: both are tried, and what is a day one way only is that day.
        var both = Stream.of(possible(year, b, a), possible(year, a, b))
                .flatMap(Optional::stream)
                .distinct()
                .toList();
        return both.isEmpty() ? List.of(day(year, b, a)) : both;
    }

    private static boolean monthFirst(String mark, DateStyle style) {
        return style == DateStyle.MONTH_FIRST && !mark.equals(".");
    }

    private static boolean dayFirst(String mark, DateStyle style) {
        return switch (style) {
            case PERIODS, SLASHES -> true;
            case WORDS, YEAR_FIRST -> mark.equals(".");
            case MONTH_FIRST -> false;
        };
    }

    private static Optional<LocalDate> possible(String year, String month, String day) {
        try {
            return Optional.of(day(year, month, day));
        } catch (ReadingException e) {
            return Optional.empty();
        }
    }

    private static List<LocalDate> worded(String year, String word, String day) {
        return Stream.of(Month.values())
                .filter(m -> m.name().toLowerCase(Locale.ROOT).startsWith(word))
                .map(m -> day(year, "" + m.getValue(), day))
                .toList();
    }

    private static LocalDate day(String year, String month, String day) {
        int y = Integer.parseInt(year), m = Integer.parseInt(month), d = Integer.parseInt(day);
        if (m < 1 || m > 12) throw new ReadingException("There is no month " + m + ".");
        int last = YearMonth.of(y, m).lengthOfMonth();
        if (d < 1 || d > last)
            throw new ReadingException("There is no day " + d + " in " + MONTH.format(YearMonth.of(y, m)) + ".");
        return LocalDate.of(y, m, d);
    }

    /** Returns the time of day that a text says, or empty; midnight may be typed as 24:00. */
    private static Optional<LocalTime> time(String plain) {
        Matcher m;
        if ((m = FOUR.matcher(plain)).matches()) return Optional.of(time(m.group(1), m.group(2), null, null));
        if ((m = TIME.matcher(plain)).matches())
            return Optional.of(time(m.group(1), m.group(2), m.group(3), m.group(4)));
        if ((m = HOUR.matcher(plain)).matches()) return Optional.of(time(m.group(1), "0", null, m.group(2)));
        return Optional.empty();
    }

    private static LocalTime time(String hours, String minutes, String seconds, String half) {
        int h = Integer.parseInt(hours),
                min = Integer.parseInt(minutes),
                s = seconds == null ? 0 : Integer.parseInt(seconds);
        if (half != null) {
            if (h < 1 || h > 12) throw new ReadingException("There is no " + h + half + ".");
            h = h % 12 + (half.strip().startsWith("p") ? 12 : 0);
        }
        if (h == 24 && min == 0 && s == 0) return LocalTime.MIDNIGHT;
        if (h > 23) throw new ReadingException("There is no hour " + h + " in a day.");
        if (min > 59) throw new ReadingException("There is no minute " + min + " in an hour.");
        if (s > 59) throw new ReadingException("There is no second " + s + " in a minute.");
        return LocalTime.of(h, min, s);
    }

    /**
     * Returns the moments that a device's clock may show, read off by somebody: none, one, or two.
     *
     * @throws ReadingException when it names a day or a time that there is not
     */
    public static List<LocalDateTime> shown(String text) {
        return moments(text, DateStyle.YEAR_FIRST);
    }

    /**
     * Returns the moments that a text may mean at a site that writes so: none, one, or two.
     *
     * @throws ReadingException when it names a day or a time that there is not
     */
    static List<LocalDateTime> moments(String text, DateStyle style) {
        String plain = plain(text);
        Matcher m;
        String day, time;
        if ((m = TIME_LAST.matcher(plain)).matches()) {
            day = m.group(1);
            time = m.group(2);
        } else if ((m = TIME_FIRST.matcher(plain)).matches()) {
            day = m.group(6);
            time = m.group(1);
        } else return List.of();
        if (time.startsWith("24"))
            throw new ReadingException("There is no 24:00 of a day here: say 0:00 of the next one.");
        var at = time(time);
        if (at.isEmpty()) return List.of();
        return days(day, style).stream().map(d -> d.atTime(at.get())).toList();
    }
}
