package app.knottag.core.visit;

import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;

/**
 * Backward from the hour at which everything must be done: by when each person must have begun at the latest, if everything
 * takes its usual time.
 */
public final class Backward {

    private Backward() {}

    /**
     * The latest beginning of one person.
     *
     * @param who index of the person
     * @param at minute of the visit; before 0 the visit begins too late
     */
    public record Latest(int who, int at) {}

    /** Returns the latest beginning of everybody who has something to do. */
    public static List<Latest> of(VisitPlan plan, int due) {
        int spare = due - plan.finish();
        return IntStream.rangeClosed(
                        0, plan.turns().stream().mapToInt(Turn::who).max().orElse(-1))
                .mapToObj(p -> plan.of(p).stream()
                        .min(Comparator.comparingInt(Turn::from))
                        .map(t -> new Latest(p, t.from() + t.slack() + spare)))
                .flatMap(Optional::stream)
                .toList();
    }
}
