package app.knottag.core.visit;

import java.util.Comparator;
import java.util.List;

/**
 * Who does what when.
 *
 * @param turns by their beginning
 * @param finish minute at which everything is done
 * @param walking minutes that all people together walk
 * @param bound minute before which nobody can be done, whatever the plan
 * @param means how the bound was found
 * @param left devices that do not fit, to be left for another day
 */
public record VisitPlan(List<Turn> turns, int finish, int walking, int bound, BoundBy means, List<Long> left) {

    /** How the bound was found. */
    public enum BoundBy {
        /** The search for a better plan was carried to its end, or as far as its time went. */
        SEARCH,
        /** Reckoned from the longest device and the work of all hands, since the search cannot run on this machine. */
        SUMS
    }

    public VisitPlan {
        turns = turns.stream()
                .sorted(Comparator.comparingInt(Turn::from).thenComparingLong(Turn::unit))
                .toList();
        left = List.copyOf(left);
    }

    /** Minutes that a turn may begin late before the plan is laid anew. */
    private static final int LATE = 3;

    /**
     * Whether it is to be laid anew, since a turn should have begun by now that nobody has taken; taking one lays it anew as well.
     *
     * @param now minutes from its beginning
     */
    public boolean behind(int now) {
        return turns.stream().anyMatch(t -> t.from() < now - LATE);
    }

    /** Whether no plan can end earlier. */
    public boolean best() {
        return finish <= bound;
    }

    /** Returns the turns of a person in their order. */
    public List<Turn> of(int who) {
        return turns.stream().filter(t -> t.who() == who).toList();
    }

    /** Returns how many turns of the same device come after one. */
    int after(Turn turn) {
        return (int) turns.stream()
                .filter(o -> o.unit() == turn.unit() && o.stretch() > turn.stretch())
                .count();
    }

    /**
     * Counts the turns that somebody who follows another plan has to unlearn: those that another person takes over, and
     * those that another comes before.
     */
    public int moved(VisitPlan other) {
        return Upheaval.between(this, other);
    }
}
