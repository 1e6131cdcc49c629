package app.knottag.core.watch;

import app.knottag.core.time.SiteClock;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;

/** What is told in the morning: what is new against the last time that the same was looked at, and what nobody looked at. */
public final class Morning {

    /** So many nights back are said to be missing; more make no difference. */
    private static final int BACK = 30;

    private Morning() {}

    /** How something stands against the last time. */
    public enum News {
        NEW,
        /** It was so the last time, too. */
        STILL,
        /** It stood not as it should the last time, and nothing is wrong with it now. */
        WELL
    }

    /** Something that stands not as it should. */
    public record Standing(Seen seen, Instant since) {}

    /** A line of the report. */
    public record Line(News news, Seen seen, Instant since) {}

    /** What one look came to. */
    public record Compared(List<Standing> standing, List<Line> lines) {}

    /**
     * Holds what a look saw against what the same look saw the last time.
     *
     * @param before what stood then; empty when this was looked at for the first time
     */
    public static Compared compare(List<Standing> before, List<Seen> seen, Instant now) {
        var standing = new ArrayList<Standing>();
        var lines = new ArrayList<Line>();
        var known = new HashMap<List<String>, Instant>();
        before.forEach(b -> known.put(b.seen().key(), b.since()));
        for (var s : seen) {
            var since = known.getOrDefault(s.key(), now);
            standing.add(new Standing(s, since));
            lines.add(new Line(known.containsKey(s.key()) ? News.STILL : News.NEW, s, since));
        }
        var unwell = seen.stream().map(Seen::about).collect(Collectors.toSet());
        for (var b : before)
            if (!unwell.contains(b.seen().about())) lines.add(new Line(News.WELL, b.seen(), b.since()));
        return new Compared(List.copyOf(standing), List.copyOf(lines));
    }

    /**
     * How a night came out.
     *
     * @param fresh how many have anything new
     * @param still how many stand as before
     * @param well how many were unwell the last time and are well now
     * @param looked how many looks were made
     * @param left how many were to be made and were not
     */
    public record Outcome(int fresh, int still, int well, int looked, int left) {

        /** Counts devices and other things rather than lines: one with anything new is new, and well only with nothing else. */
        public static Outcome of(List<Line> lines, int looked, int left) {
            var of = new HashMap<String, News>();
            for (var l : lines) of.merge(l.seen().subject(), l.news(), (a, b) -> a.compareTo(b) <= 0 ? a : b);
            var counts = of.values().stream().collect(Collectors.groupingBy(n -> n, Collectors.counting()));
            return new Outcome(
                    counts.getOrDefault(News.NEW, 0L).intValue(),
                    counts.getOrDefault(News.STILL, 0L).intValue(),
                    counts.getOrDefault(News.WELL, 0L).intValue(),
                    looked,
                    left);
        }

        /** Says it in a sentence or two. Nothing new is said only of what was looked at. */
        public String words() {
            if (looked == 0) return "Nothing was looked at.";
            String news = fresh == 0 ? "Nothing new" : fresh == 1 ? "One thing is new" : fresh + " things are new";
            if (still > 0) news += ", " + still + (still == 1 ? " stands" : " stand") + " as before";
            if (well > 0) news += ", " + well + (well == 1 ? " is" : " are") + " well again";
            return left == 0 ? news + "." : news + ". " + left + " of " + (looked + left) + " looks were not made.";
        }

        /** Whether somebody should read on. */
        public boolean tells() {
            return fresh > 0 || left > 0 || looked == 0;
        }
    }

    /**
     * Returns the nights in which nobody looked though they should have, the earliest first.
     *
     * @param since when the looks were switched on, or their hours changed
     * @param had mornings of nights in which at least one look was made
     */
    public static List<LocalDate> missed(WatchHours hours, Instant since, Set<LocalDate> had, SiteClock clock) {
        var missed = new TreeSet<LocalDate>();
        // The night that goes on, or comes next, is not over.
        var day = hours.morning(clock.now(), clock.zone()).minusDays(1);
        for (int back = 0; back < BACK; back++, day = day.minusDays(1)) {
            var night = hours.night(day, clock.zone());
            if (night.from().isBefore(since)) break;
            if (night.from().isBefore(night.until()) && !had.contains(day)) missed.add(day);
        }
        return List.copyOf(missed);
    }
}
