package app.knottag.server.backup;

import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.YearMonth;
import java.time.format.DateTimeFormatter;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.function.Function;
import java.util.regex.Pattern;

/**
 * Which backups of the nights stay: the last one of each of the last seven days, five weeks and twelve months that have any. What
 * a person made or named stays for ever.
 */
final class Keep {

    private static final int DAYS = 7, WEEKS = 5, MONTHS = 12;
    private static final Pattern NIGHTLY = Pattern.compile("knot-night-(\\d{4}-\\d{2}-\\d{2}-\\d{4})\\.zip");
    private static final DateTimeFormatter AT = DateTimeFormatter.ofPattern("uuuu-MM-dd-HHmm");

    private Keep() {}

    private record Night(String name, LocalDateTime at) {}

    /** Returns which of these files may go. */
    static List<String> gone(Collection<String> names) {
        var nights = names.stream()
                .map(NIGHTLY::matcher)
                .filter(m -> m.matches())
                .map(m -> new Night(m.group(), LocalDateTime.parse(m.group(1), AT)))
                .sorted(Comparator.comparing(Night::at).reversed())
                .toList();
        var stay = new HashSet<Night>();
        stay.addAll(last(nights, DAYS, LocalDateTime::toLocalDate));
        stay.addAll(last(nights, WEEKS, Keep::week));
        stay.addAll(last(nights, MONTHS, YearMonth::from));
        return nights.stream().filter(n -> !stay.contains(n)).map(Night::name).toList();
    }

    /** The day on which the week began. */
    private static LocalDate week(LocalDateTime at) {
        return at.toLocalDate().minusDays(at.getDayOfWeek().getValue() - 1L);
    }

    /** The newest of each span, of the last so many spans. */
    private static Set<Night> last(List<Night> nights, int many, Function<LocalDateTime, Object> span) {
        var newest = new HashMap<Object, Night>();
        for (var night : nights) if (newest.size() < many) newest.putIfAbsent(span.apply(night.at()), night);
        return new HashSet<>(newest.values());
    }
}
