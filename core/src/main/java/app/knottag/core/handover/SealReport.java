package app.knottag.core.handover;

import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;

/**
 * The seals that were put on what travels, by night and case, as the office keeps them and the next morning reads them.
 *
 * @param night the day on whose evening they were put on; what is sealed before noon belongs to the evening before
 */
public record SealReport(LocalDate night, List<SealedCase> cases) {

    private static final LocalTime NOON = LocalTime.NOON;

    /** A seal as it is on record. */
    public record Sealed(String number, String caseNumber, long endpoint, String name, Instant at, String by) {}

    /** A case as it was sealed in one go. */
    public record SealedCase(
            String caseNumber, long endpoint, String name, List<String> seals, Instant at, String by) {}

    private record Once(long endpoint, Instant at) {}

    /** Puts seals together, the latest night first and the cases of a night by their number. */
    public static List<SealReport> of(Collection<Sealed> seals, ZoneId zone) {
        var cases = new LinkedHashMap<Once, List<Sealed>>();
        for (var s : seals)
            cases.computeIfAbsent(new Once(s.endpoint(), s.at()), k -> new ArrayList<>())
                    .add(s);
        Map<LocalDate, List<SealedCase>> nights = new TreeMap<>(Comparator.reverseOrder());
        for (var together : cases.values()) {
            var first = together.get(0);
            nights.computeIfAbsent(night(first.at(), zone), n -> new ArrayList<>())
                    .add(new SealedCase(
                            first.caseNumber(),
                            first.endpoint(),
                            first.name(),
                            together.stream().map(Sealed::number).sorted().toList(),
                            first.at(),
                            first.by()));
        }
        return nights.entrySet().stream()
                .map(e -> new SealReport(
                        e.getKey(),
                        e.getValue().stream()
                                .sorted(Comparator.comparing(SealedCase::caseNumber)
                                        .thenComparing(SealedCase::at))
                                .toList()))
                .toList();
    }

    private static LocalDate night(Instant at, ZoneId zone) {
        var local = at.atZone(zone);
        return local.toLocalTime().isBefore(NOON) ? local.toLocalDate().minusDays(1) : local.toLocalDate();
    }
}
