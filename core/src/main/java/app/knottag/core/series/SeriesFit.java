package app.knottag.core.series;

import app.knottag.core.address.Segment;
import app.knottag.core.series.Series.Counts;
import java.time.LocalDate;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import org.jspecify.annotations.Nullable;

/**
 * How a numbered run fits its base.
 *
 * @param room last number, counted from 1 without a gap, that fits; 0 when not even the first does
 * @param firstUnfit first number that no longer fits, always room + 1
 * @param why what stands in the way of that number
 * @param taken how many of the numbers that fit are given
 * @param next lowest number that is free, or null when none is
 * @param fullOn day on which the last free number goes at the given growth, or null without growth
 */
public record SeriesFit(
        int room,
        int firstUnfit,
        String why,
        int taken,
        @Nullable Integer next,
        @Nullable LocalDate fullOn) {

    private static final int LAST_PORT = 65_535;
    private static final int LAST_NUMBER = 9_999;
    private static final double DAYS_PER_YEAR = 365.25;
    private static final double LOOK_AHEAD_YEARS = 50;

    /**
     * What a run stands on.
     *
     * @param segment for hosts
     * @param lastPort last port of the gear, for gear ports
     * @param others the other runs on the same base, each with its highest number given
     */
    public record SeriesBase(Optional<Segment> segment, int lastPort, List<Neighbour> others) {}

    /** Another run on the same base, and the highest number that is given in it, 0 when none is. */
    public record Neighbour(Series series, int highest) {}

    /**
     * Works out how a run fits.
     *
     * @param numbers numbers that are given
     * @param perYear how many are added each year, 0 or more
     */
    public static SeriesFit of(
            Series series, SeriesBase base, Collection<Integer> numbers, double perYear, LocalDate today) {
        int room = 0;
        Optional<String> why;
        while ((why = obstacle(series, base, room + 1)).isEmpty()) room++;
        Set<Integer> given = new TreeSet<>(numbers);
        int last = room;
        int taken = (int) given.stream().filter(n -> n <= last).count();
        Integer next = null;
        for (int n = 1; n <= room && next == null; n++) if (!given.contains(n)) next = n;
        return new SeriesFit(room, room + 1, why.get(), taken, next, fullOn(room - taken, perYear, today));
    }

    private static LocalDate fullOn(int free, double perYear, LocalDate today) {
        if (perYear <= 0 || free / perYear > LOOK_AHEAD_YEARS) return null;
        return today.plusDays((long) (free / perYear * DAYS_PER_YEAR));
    }

    private static Optional<String> obstacle(Series series, SeriesBase base, int number) {
        if (series.last() > 0 && number > series.last())
            return Optional.of("The series is meant to end at number " + series.last() + ".");
        if (number > LAST_NUMBER) return Optional.of("Numbers end at " + LAST_NUMBER + ".");
        var own = switch (series.counts()) {
            case HOST -> host(series, base, number);
            case LISTENING_PORT -> above(series, number, LAST_PORT, "Ports end at " + LAST_PORT + ".");
            case GEAR_PORT ->
                above(
                        series,
                        number,
                        base.lastPort(),
                        "There is no LAN port after " + base.lastPort()
                                + ": a second switch is needed, which takes one port itself.");
            case NUMBER -> Optional.<String>empty();
        };
        return own.or(() -> meets(series, base, number));
    }

    private static Optional<String> above(Series series, int number, int most, String why) {
        return series.figure(number) > most ? Optional.of(why) : Optional.empty();
    }

    private static Optional<String> host(Series series, SeriesBase base, int number) {
        if (base.segment().isEmpty()) return Optional.of("It has no segment yet.");
        var segment = base.segment().get();
        String host = "Host " + series.figure(number);
        var address = series.address(segment.prefix(), number);
        if (address.isEmpty()) return Optional.of(host + " leaves " + segment.prefix() + ".");
        if (segment.gateway().filter(address.get()::equals).isPresent()) return Optional.of(host + " is the gateway.");
        return segment.poolOf(address.get())
                .map(p -> host + " lies in the pool " + p + ".")
                .or(() -> segment.prefix().usable(address.get())
                        ? Optional.empty()
                        : Optional.of(host + " is no address for a device."));
    }

    /** Another run keeps its own figures: as far as it is meant to go, else as far as it is given. */
    private static Optional<String> meets(Series series, SeriesBase base, int number) {
        int figure = series.figure(number);
        for (var other : base.others()) {
            if (other.series().counts() != series.counts() || series.counts() == Counts.NUMBER) continue;
            int itsNumber = figure - other.series().base();
            int itsLast = Math.max(1, Math.max(other.series().last(), other.highest()));
            boolean aboveUs = other.series().base() > series.base();
            if (itsNumber >= 1 && itsNumber <= itsLast && (aboveUs || number == 1))
                return Optional.of("From " + figure + " on it runs into “"
                        + other.series().name() + "”, whose number " + itsNumber + " it is.");
        }
        return Optional.empty();
    }
}
