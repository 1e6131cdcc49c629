package app.knottag.core.visit;

import java.util.Arrays;
import java.util.Collection;
import java.util.List;
import java.util.stream.Stream;

/**
 * A brief as numbers: stretches counted through, people and places by their index. What every way of planning reckons with.
 */
final class Works {

    final Brief brief;
    final List<Stretch> stretches;
    /** Index of the first stretch of each unit; one more at the end. */
    final int[] first;
    /** Unit of each stretch. */
    final int[] unit;

    final int[] hands;
    final int[] alone;
    /** Place of each unit. */
    final int[] place;
    /** Minutes from each place to each other. */
    final int[][] walks;
    /** Whether a person may do a stretch. */
    final boolean[][] may;
    /** Where each person is at first, or -1. */
    final int[] at;
    /** Units that must be done before each unit. */
    final int[][] after;
    /** Speed of the line that each stretch takes while it is alone, in kbit/s. */
    final int[] rate;
    /** Whether a unit stands on the bench from the beginning. */
    final boolean[] onBench;

    Works(Brief brief) {
        this.brief = brief;
        var units = brief.units();
        stretches = units.stream()
                .map(VisitUnit::stretches)
                .flatMap(Collection::stream)
                .toList();
        first = new int[units.size() + 1];
        unit = new int[stretches.size()];
        for (int u = 0; u < units.size(); u++) {
            first[u + 1] = first[u] + units.get(u).stretches().size();
            Arrays.fill(unit, first[u], first[u + 1], u);
        }
        hands = stretches.stream().mapToInt(s -> s.hands().usual()).toArray();
        var places = Stream.concat(
                        units.stream().map(VisitUnit::place),
                        brief.hands().stream().map(Hands::at))
                .distinct()
                .toList();
        walks = places.stream()
                .map(from -> places.stream()
                        .mapToInt(to -> brief.means().walk(from, to))
                        .toArray())
                .toArray(int[][]::new);
        place = units.stream().mapToInt(u -> places.indexOf(u.place())).toArray();
        at = brief.hands().stream()
                .mapToInt(h -> h.at().isEmpty() ? -1 : places.indexOf(h.at()))
                .toArray();
        may = new boolean[brief.hands().size()][stretches.size()];
        for (int p = 0; p < may.length; p++)
            for (int s = 0; s < stretches.size(); s++)
                may[p][s] = brief.hands().get(p).may(stretches.get(s));
        after = units.stream()
                .map(u -> u.after().stream().mapToInt(brief::indexOf).sorted().toArray())
                .toArray(int[][]::new);
        onBench = new boolean[units.size()];
        for (int u = 0; u < onBench.length; u++)
            onBench[u] = units.get(u).bench()
                    && units.get(u).begun()
                    && !units.get(u).stretches().isEmpty();
        alone = new int[stretches.size()];
        rate = new int[stretches.size()];
        for (int s = 0; s < alone.length; s++) {
            alone[s] = Downloads.minutes(stretches.get(s), brief.means().megabits())
                    .usual();
            rate[s] = Downloads.kilobits(stretches.get(s), brief.means().megabits());
        }
    }

    /** Places on the bench, never fewer than stand there already. */
    int bench() {
        int taken = 0;
        for (boolean on : onBench) if (on) taken++;
        return Math.max(brief.means().bench(), taken);
    }

    int size() {
        return unit.length;
    }

    int people() {
        return may.length;
    }

    VisitUnit unitOf(int stretch) {
        return brief.units().get(unit[stretch]);
    }

    /** Other sites that devices stand at; the site itself is none of them when all stand there. */
    List<String> areas() {
        var all = brief.units().stream()
                .filter(u -> !u.stretches().isEmpty())
                .map(u -> brief.means().area(u.place()))
                .distinct()
                .toList();
        return all.size() < 2 ? List.of() : all;
    }

    String areaOf(int stretch) {
        return brief.means().area(unitOf(stretch).place());
    }

    int walk(int from, int to) {
        return from < 0 ? 0 : walks[from][to];
    }

    /** Usual minutes from the beginning of a stretch until its unit is done, when nobody is waited for. */
    int[] tails() {
        var tail = new int[size()];
        for (int s = size() - 1; s >= 0; s--)
            tail[s] = hands[s] + alone[s] + (s + 1 < size() && unit[s + 1] == unit[s] ? tail[s + 1] : 0);
        return tail;
    }
}
