package app.knottag.core.runbook;

import app.knottag.core.time.DateStyle;
import app.knottag.core.time.SiteClock;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.temporal.ChronoUnit;
import java.time.zone.ZoneOffsetTransition;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeSet;

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

    /** Local time that a change of the clock skips or repeats. */
    private record Change(LocalTime from, LocalTime until, String does, LocalDate day) {
        String words(SiteClock clock) {
            var style = clock.style();
            return "the clock " + does + " " + style.time(from) + " to " + style.time(until) + " on " + clock.day(day);
        }
    }

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
    public static Nightly place(List<Restart> restarts, List<Busy> busy, SiteClock clock) {
        var changes = changes(clock);
        var taken = new ArrayList<Span>();
        busy.forEach(b -> taken.addAll(spans(b.from(), b.until(), b.what())));
        changes.forEach(c -> taken.addAll(
                spans(c.from(), c.until(), "the clock " + c.does() + " this hour on " + clock.day(c.day()))));
        var clashes = new ArrayList<String>();
        var slots = new ArrayList<Slot>();
        var open = new ArrayList<Restart>();
        for (var r :
                restarts.stream().sorted(Comparator.comparing(Restart::name)).toList()) {
            var clash = r.at().flatMap(at -> clash(r, minute(at), taken, clock.style()));
            if (r.at().isPresent() && clash.isEmpty()) keep(r, minute(r.at().get()), taken, slots, false);
            else {
                clash.ifPresent(clashes::add);
                open.add(r);
            }
        }
        var fullest = fill(open, taken);
        for (var placed : fullest.at().entrySet()) keep(placed.getKey(), placed.getValue(), taken, slots, true);
        var leftOver = open.stream()
                .filter(r -> !fullest.at().containsKey(r))
                .map(Restart::name)
                .toList();
        slots.sort(Comparator.comparing(Slot::from).thenComparing(Slot::name));
        return new Nightly(
                List.copyOf(slots),
                List.copyOf(clashes),
                List.copyOf(leftOver),
                changes.stream().map(c -> c.words(clock)).toList());
    }

    /** Where restarts go, by the minute of the day, which may be past midnight. */
    private record Filling(Map<Restart, Integer> at) {}

    /** In their order when all fit; else in the order by which most of them fit, short ones or long ones first. */
    private static Filling fill(List<Restart> open, List<Span> taken) {
        Filling best = null;
        for (Comparator<Restart> order : List.<Comparator<Restart>>of(
                (a, b) -> 0,
                Comparator.comparingInt(Restart::minutes),
                Comparator.comparingInt(Restart::minutes).reversed())) {
            for (boolean round : List.of(true, false)) {
                if (best != null && best.at().size() == open.size()) return best;
                var filling = fill(open.stream().sorted(order).toList(), new ArrayList<>(taken), round);
                if (best == null || filling.at().size() > best.at().size()) best = filling;
            }
        }
        return best;
    }

    private static Filling fill(List<Restart> open, List<Span> taken, boolean round) {
        var at = new LinkedHashMap<Restart, Integer>();
        for (var r : open) {
            int found = -1;
            for (int candidate : starts(taken, round))
                if (found < 0 && free(taken, candidate, candidate + r.minutes() + MARGIN_MINUTES)) found = candidate;
            if (found < 0) continue;
            at.put(r, found);
            taken.addAll(around(found, found + r.minutes() + MARGIN_MINUTES, r.name()));
        }
        return new Filling(at);
    }

    /** Every fifth minute round the clock; and where something ends, when round figures waste room. */
    private static List<Integer> starts(List<Span> taken, boolean round) {
        var starts = new TreeSet<Integer>();
        for (int at = FIRST; at < FIRST + DAY; at += STEP) starts.add(at);
        if (!round) for (var s : taken) starts.add(s.until() % DAY < FIRST ? s.until() % DAY + DAY : s.until() % DAY);
        return List.copyOf(starts);
    }

    private static boolean free(List<Span> taken, int begin, int end) {
        return around(begin, end, "").stream()
                .allMatch(part -> meets(taken, part.from(), part.until()).isEmpty());
    }

    /** A stretch as minutes of one day, cut at midnight. */
    private static List<Span> around(int begin, int end, String what) {
        int a = begin % DAY, b = a + end - begin;
        return b <= DAY ? List.of(new Span(a, b, what)) : List.of(new Span(a, DAY, what), new Span(0, b - DAY, what));
    }

    private static void keep(Restart r, int at, List<Span> taken, List<Slot> slots, boolean changed) {
        taken.addAll(around(at, at + r.minutes() + MARGIN_MINUTES, r.name() + " restarts"));
        slots.add(new Slot(r.endpoint(), r.name(), time(at), time(at + r.minutes()), changed));
    }

    private static Optional<String> clash(Restart r, int at, List<Span> taken, DateStyle style) {
        return around(at, at + r.minutes() + MARGIN_MINUTES, "").stream()
                .flatMap(part -> meets(taken, part.from(), part.until()).stream())
                .findFirst()
                .map(s -> r.name() + " at " + style.time(time(at)) + ": " + s.what() + " from "
                        + style.time(time(s.from())) + " to " + style.time(time(s.until())) + ".");
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
    private static List<Change> changes(SiteClock clock) {
        var found = new ArrayList<Change>();
        var end = clock.now().plus(DAYS_AHEAD, ChronoUnit.DAYS);
        var rules = clock.zone().getRules();
        ZoneOffsetTransition next = rules.nextTransition(clock.now());
        while (next != null && next.getInstant().isBefore(end)) {
            // The clock is put back from a to b: what comes twice is b until a, and where that ends at midnight its
            // day is the day of b (Cairo, Santiago, Beirut).
            LocalDateTime a = next.getDateTimeBefore(), b = next.getDateTimeAfter();
            found.add(
                    next.isGap()
                            ? new Change(a.toLocalTime(), b.toLocalTime(), "skips", a.toLocalDate())
                            : new Change(b.toLocalTime(), a.toLocalTime(), "repeats", b.toLocalDate()));
            next = rules.nextTransition(next.getInstant());
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
