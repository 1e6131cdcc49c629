package app.knottag.core.runbook;

import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import java.time.temporal.ChronoUnit;
import java.time.zone.ZoneOffsetTransition;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;

/**
 * Restarts at night, one after the other, clear of whatever the site does at night and of the hours that a clock change
 * skips or repeats.
 *
 * @param slots one for each device that has a place, in their order
 * @param clashes what is wrong with the hours that are set now
 * @param leftOver names of devices for which the night is too short
 * @param changes the clock changes of the next year that were kept clear of
 */
public record Nightly(List<Slot> slots, List<String> clashes, List<String> leftOver, List<String> changes) {

    /** Minutes between the end of one restart and the begin of the next. */
    public static final int MARGIN_MINUTES = 5;

    private static final int STEP = 5;
    private static final int DAY = 24 * 60;
    /** A restart is looked for from here on, so that the night is used before the early morning. */
    private static final int FIRST = 30;

    private static final int DAYS_AHEAD = 400;

    /**
     * A device that restarts every night.
     *
     * @param minutes minutes until it is usable again, 1..240
     * @param at the hour that is set on it now, or empty
     */
    public record Restart(long endpoint, String name, int minutes, Optional<LocalTime> at) {}

    /** A time of day in which nothing may restart; it may reach over midnight. */
    public record Busy(LocalTime from, LocalTime until, String what) {}

    /** When a device restarts. */
    public record Slot(long endpoint, String name, LocalTime from, LocalTime until, boolean changed) {}

    /** Minutes of a day, the end not included. */
    private record Span(int from, int until, String what) {
        boolean meets(int begin, int end) {
            return begin < until && from < end;
        }
    }

    /**
     * Places the restarts. An hour that is set already and clashes with nothing stays.
     *
     * @param busy opening hours, backups, updates
     */
    public static Nightly place(List<Restart> restarts, List<Busy> busy, ZoneId zone, Instant now) {
        var changes = changes(zone, now);
        var taken = new ArrayList<Span>();
        busy.forEach(b -> taken.addAll(spans(b.from(), b.until(), b.what())));
        changes.forEach(c -> taken.addAll(spans(c.from(), c.until(), c.what())));
        var clashes = new ArrayList<String>();
        var slots = new ArrayList<Slot>();
        var open = new ArrayList<Restart>();
        for (var r :
                restarts.stream().sorted(Comparator.comparing(Restart::name)).toList()) {
            var clash = r.at().flatMap(at -> clash(r, minute(at), taken));
            if (r.at().isPresent() && clash.isEmpty()) keep(r, minute(r.at().get()), taken, slots, false);
            else {
                clash.ifPresent(clashes::add);
                open.add(r);
            }
        }
        var leftOver = new ArrayList<String>();
        for (var r : open) {
            int at = FIRST;
            while (at + r.minutes() <= DAY
                    && meets(taken, at, at + r.minutes() + MARGIN_MINUTES).isPresent()) at += STEP;
            if (at + r.minutes() <= DAY) keep(r, at, taken, slots, true);
            else leftOver.add(r.name());
        }
        slots.sort(Comparator.comparing(Slot::from).thenComparing(Slot::name));
        return new Nightly(
                List.copyOf(slots),
                List.copyOf(clashes),
                List.copyOf(leftOver),
                changes.stream().map(Busy::what).toList());
    }

    private static void keep(Restart r, int at, List<Span> taken, List<Slot> slots, boolean changed) {
        taken.add(new Span(at, at + r.minutes() + MARGIN_MINUTES, r.name() + " restarts"));
        slots.add(new Slot(r.endpoint(), r.name(), time(at), time(at + r.minutes()), changed));
    }

    private static Optional<String> clash(Restart r, int at, List<Span> taken) {
        return meets(taken, at, at + r.minutes() + MARGIN_MINUTES)
                .map(s -> r.name() + " at " + time(at) + ": " + s.what() + " from " + time(s.from()) + " to "
                        + time(s.until()) + ".");
    }

    private static Optional<Span> meets(List<Span> taken, int begin, int end) {
        return taken.stream().filter(s -> s.meets(begin, end)).findFirst();
    }

    private static List<Span> spans(LocalTime from, LocalTime until, String what) {
        int a = minute(from), b = minute(until);
        return a < b
                ? List.of(new Span(a, b, what))
                : a == b ? List.of() : List.of(new Span(a, DAY, what), new Span(0, b, what));
    }

    /** The local hours that the coming clock changes skip or repeat (IANA time zone data). */
    private static List<Busy> changes(ZoneId zone, Instant now) {
        var found = new ArrayList<Busy>();
        var end = now.plus(DAYS_AHEAD, ChronoUnit.DAYS);
        ZoneOffsetTransition next = zone.getRules().nextTransition(now);
        while (next != null && next.getInstant().isBefore(end)) {
            LocalDate day = next.getDateTimeBefore().toLocalDate();
            var a = next.getDateTimeBefore().toLocalTime();
            var b = next.getDateTimeAfter().toLocalTime();
            found.add(
                    next.isGap()
                            ? new Busy(a, b, "the clock skips this hour on " + day)
                            : new Busy(b, a, "the clock repeats this hour on " + day));
            next = zone.getRules().nextTransition(next.getInstant());
        }
        return found;
    }

    private static int minute(LocalTime time) {
        return time.getHour() * 60 + time.getMinute();
    }

    private static LocalTime time(int minute) {
        return LocalTime.of(minute / 60 % 24, minute % 60);
    }
}
