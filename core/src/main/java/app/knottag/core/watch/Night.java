package app.knottag.core.watch;

import app.knottag.core.runbook.Nightly;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;

/**
 * One night: when looks may go on in it, and what they keep clear of.
 *
 * @param free in their order, none meeting another
 * @param clear what goes on in it that a look would disturb, or that would make a device look silent
 * @param unknown names of devices that restart every night at an hour that nobody put on record
 */
public record Night(LocalDate morning, TimeSpan whole, List<TimeSpan> free, List<Clear> clear, List<String> unknown) {

    /** A device is up again when its restart has taken as long as it ever takes, and a little. */
    private static final Duration MARGIN = Duration.ofMinutes(Nightly.MARGIN_MINUTES);

    /** Too short to begin anything in. */
    private static final Duration LEAST = Duration.ofMinutes(1);

    /** From when to when looks stay away, and from what. */
    public record Clear(TimeSpan when, String what) {}

    /** One look of many, laid into a night. */
    public record Placed(Work work, Instant from, Instant until) {}

    /**
     * How the looks of a night are laid.
     *
     * @param left those for which the night is too short
     */
    public record Laid(List<Placed> placed, List<Work> left) {}

    /**
     * Something to look at.
     *
     * @param key the same from night to night
     * @param takes how long it takes at the pace of the night
     */
    public record Work(String key, String what, Duration takes) {}

    /** Says when looks may go on before a morning. */
    public static Night before(
            LocalDate morning, WatchHours hours, List<Nightly.Busy> busy, List<Nightly.Restart> restarts, ZoneId zone) {
        var whole = hours.night(morning, zone);
        var clear = new ArrayList<Clear>();
        var unknown = new ArrayList<String>();
        for (int back = 2; back >= 0; back--) {
            var day = morning.minusDays(back);
            for (var b : busy) clear.add(new Clear(daily(day, b.from(), b.until(), zone), b.what()));
            for (var r : restarts) if (r.at().isPresent()) clear.add(restart(day, r, zone));
        }
        for (var r : restarts) if (r.at().isEmpty()) unknown.add(r.name());
        var met = clear.stream()
                .filter(c -> c.when().from().isBefore(whole.until())
                        && c.when().until().isAfter(whole.from()))
                .sorted(Comparator.comparing(c -> c.when().from()))
                .toList();
        return new Night(morning, whole, free(whole, met), met, List.copyOf(unknown));
    }

    private static TimeSpan daily(LocalDate day, LocalTime from, LocalTime until, ZoneId zone) {
        var begin = TimeSpan.first(day.atTime(from), zone);
        var last = until.isAfter(from) ? day : day.plusDays(1);
        // An hour that comes twice is kept clear of both times.
        return new TimeSpan(
                begin,
                last.atTime(until).atZone(zone).withLaterOffsetAtOverlap().toInstant());
    }

    private static Clear restart(LocalDate day, Nightly.Restart r, ZoneId zone) {
        var begin = day.atTime(r.at().orElseThrow()).atZone(zone);
        var up = begin.withLaterOffsetAtOverlap().toInstant().plus(Duration.ofMinutes(r.minutes()));
        return new Clear(new TimeSpan(begin.toInstant().minus(MARGIN), up.plus(MARGIN)), r.name() + " restarts");
    }

    private static List<TimeSpan> free(TimeSpan whole, List<Clear> clear) {
        var free = new ArrayList<TimeSpan>();
        var from = whole.from();
        for (var c : clear) {
            add(free, from, c.when().from());
            if (c.when().until().isAfter(from)) from = c.when().until();
        }
        add(free, from, whole.until());
        return List.copyOf(free);
    }

    private static void add(List<TimeSpan> free, Instant from, Instant until) {
        if (!until.isBefore(from.plus(LEAST))) free.add(new TimeSpan(from, until));
    }

    /**
     * Lays looks one after the other into what is free from a moment on. One that does not fit into what is left of a stretch
     * waits for the next, and the others behind it with it; one that fits nowhere is left out, and keeps nobody waiting.
     */
    public Laid lay(List<Work> works, Instant from) {
        var rest = free.stream()
                .filter(s -> s.until().isAfter(from))
                .map(s -> s.has(from) ? new TimeSpan(from, s.until()) : s)
                .toList();
        var placed = new ArrayList<Placed>();
        var left = new ArrayList<Work>();
        int at = 0;
        Instant next = rest.isEmpty() ? from : rest.get(0).from();
        for (var work : works) {
            int in = at;
            var begin = next;
            while (in < rest.size()
                    && begin.plus(work.takes()).isAfter(rest.get(in).until())) {
                in++;
                if (in < rest.size()) begin = rest.get(in).from();
            }
            if (in == rest.size()) {
                left.add(work);
                continue;
            }
            at = in;
            next = begin.plus(work.takes());
            placed.add(new Placed(work, begin, next));
        }
        return new Laid(placed, left);
    }
}
