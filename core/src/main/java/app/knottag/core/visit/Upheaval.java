package app.knottag.core.visit;

import java.util.HashMap;
import java.util.List;

/** How much a new plan asks of people who follow another one. */
final class Upheaval {

    private Upheaval() {}

    /** A stretch, by how many of its device come after it: that stays when the first of them are done. */
    private record Key(long unit, int after) {}

    private static Key key(VisitPlan plan, Turn t) {
        return new Key(t.unit(), plan.after(t));
    }

    /**
     * Counts the turns that moved: another person takes them, or their place among the turns which both plans give that
     * person is another. Of a row that is only shifted one is counted: the fewest that must be taken out so that the rest
     * stand in the old order.
     */
    static int between(VisitPlan old, VisitPlan now) {
        var was = new HashMap<Key, Integer>();
        for (int i = 0; i < old.turns().size(); i++)
            was.put(key(old, old.turns().get(i)), i);
        int moved = 0;
        int people = now.turns().stream().mapToInt(Turn::who).max().orElse(-1) + 1;
        for (int p = 0; p < people; p++) {
            int who = p;
            var mine =
                    now.of(p).stream().filter(t -> was.containsKey(key(now, t))).toList();
            var kept = mine.stream()
                    .map(t -> was.get(key(now, t)))
                    .filter(i -> old.turns().get(i).who() == who)
                    .toList();
            moved += mine.size() - longestRise(kept);
        }
        return moved;
    }

    private static int longestRise(List<Integer> row) {
        var ends = new int[row.size()];
        int size = 0;
        for (int value : row) {
            int at = 0;
            while (at < size && ends[at] < value) at++;
            ends[at] = value;
            if (at == size) size++;
        }
        return size;
    }
}
