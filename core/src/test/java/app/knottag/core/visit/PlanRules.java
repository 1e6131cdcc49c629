package app.knottag.core.visit;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;

/** The rules of a visit, written from the rules alone and minute by minute: the judge of every plan. */
final class PlanRules {

    private PlanRules() {}

    /** Returns what a plan breaks, empty when it holds. */
    static List<String> broken(Brief brief, List<Turn> turns) {
        var found = new ArrayList<String>();
        for (var t : turns) alone(brief, t, found);
        chains(brief, turns, found);
        for (int p = 0; p < brief.hands().size(); p++) person(brief, turns, p, found);
        minuteByMinute(brief, turns, found);
        return found;
    }

    private static VisitUnit unit(Brief brief, long id) {
        return brief.units().stream().filter(u -> u.id() == id).findFirst().orElseThrow();
    }

    private static void alone(Brief brief, Turn t, List<String> found) {
        var unit = unit(brief, t.unit());
        var stretch = unit.stretches().get(t.stretch());
        var person = brief.hands().get(t.who());
        if (t.until() - t.from() != stretch.hands().usual()) found.add(t + " has other hands");
        double download = brief.means().megabits() > 0 && stretch.megabytes() > 0
                ? stretch.megabytes() * 8 / brief.means().megabits() / 60
                : 0;
        if (t.done() - t.until() < Math.max(stretch.alone().usual(), download)) found.add(t + " is too short alone");
        if (!stretch.skill().isEmpty() && !person.skills().contains(stretch.skill())) found.add(t + " lacks the skill");
        if (t.from() < unit.ready()) found.add(t + " is not ready");
        if (outside(person.there(), t)) found.add(t + " while nobody is there");
        if (outside(unit.free(), t)) found.add(t + " while the place is not free");
    }

    private static boolean outside(List<Window> windows, Turn t) {
        return windows.stream().noneMatch(w -> w.from() <= t.from() && t.until() <= w.until());
    }

    private static void chains(Brief brief, List<Turn> turns, List<String> found) {
        for (var unit : brief.units()) {
            var mine = of(turns, unit.id());
            if (mine.size() != unit.stretches().size()) found.add(unit.name() + " has " + mine.size() + " turns");
            for (int i = 0; i + 1 < mine.size(); i++)
                if (mine.get(i + 1).stretch() != i + 1
                        || mine.get(i + 1).from() < mine.get(i).done())
                    found.add(mine.get(i + 1) + " comes before its time");
            for (long other : unit.after())
                for (var before : of(turns, other))
                    if (!mine.isEmpty() && mine.get(0).from() < before.done())
                        found.add(unit.name() + " begins before " + other);
        }
    }

    private static List<Turn> of(List<Turn> turns, long unit) {
        return turns.stream()
                .filter(t -> t.unit() == unit)
                .sorted(Comparator.comparingInt(Turn::stretch))
                .toList();
    }

    private static void person(Brief brief, List<Turn> turns, int p, List<String> found) {
        var mine = turns.stream()
                .filter(t -> t.who() == p)
                .sorted(Comparator.comparingInt(Turn::from).thenComparingInt(Turn::until))
                .toList();
        String at = brief.hands().get(p).at();
        int free = brief.hands().get(p).there().get(0).from();
        for (var t : mine) {
            String place = unit(brief, t.unit()).place();
            var areas = brief.means().areas();
            int far = Objects.equals(areas.get(at), areas.get(place))
                    ? brief.means().walk()
                    : brief.means().travel();
            int walk = at.isEmpty() || at.equals(place) ? 0 : far;
            if (t.from() < free + walk) found.add(t + " begins before " + (free + walk));
            free = t.until();
            at = place;
        }
    }

    private static void minuteByMinute(Brief brief, List<Turn> turns, List<String> found) {
        int end = turns.stream().mapToInt(Turn::done).max().orElse(0);
        Map<Long, int[]> span = new HashMap<>();
        for (var t : turns)
            span.merge(t.unit(), new int[] {t.from(), t.done()}, (a, b) ->
                    new int[] {Math.min(a[0], b[0]), Math.max(a[1], b[1])});
        for (int minute = 0; minute < end; minute++) {
            int m = minute;
            long bench = span.entrySet().stream()
                    .filter(e -> unit(brief, e.getKey()).bench() && e.getValue()[0] <= m && m < e.getValue()[1])
                    .count();
            if (bench > brief.means().bench()) found.add("bench too full at " + m);
            var tools = new HashMap<String, Integer>();
            double running = brief.units().stream()
                    .filter(u -> m < u.ready())
                    .mapToDouble(u -> u.running() / 1_000.0)
                    .sum();
            double rate = 0;
            for (var t : turns) {
                var u = unit(brief, t.unit());
                if (t.from() <= m && m < t.until() && !u.tool().isEmpty()) tools.merge(u.tool(), 1, Integer::sum);
                var s = u.stretches().get(t.stretch());
                if (brief.means().megabits() > 0 && s.megabytes() > 0 && t.until() <= m && m < t.done())
                    rate += Math.min(brief.means().megabits(), s.megabytes() * 8.0 / ((t.done() - t.until()) * 60));
            }
            tools.forEach((tool, n) -> {
                if (n > brief.means().tools().getOrDefault(tool, n)) found.add("too few of " + tool + " at " + m);
            });
            if (rate > 0 && rate + running > brief.means().megabits() * 1.0001)
                found.add("line too full at " + m + ": " + rate + " beside " + running);
        }
    }
}
