package app.knottag.core.visit;

import java.util.List;
import java.util.Set;

/**
 * A device to be carried through.
 *
 * @param place where it stands while it is worked at; between two places one walks
 * @param ready minute from which its first stretch can be begun, such as the end of a wait that runs already
 * @param free when its place is free, such as a till before opening
 * @param after others that must be done before, such as the router
 * @param bench whether it takes an outlet and a port of the bench from its first stretch until it is done
 * @param tool what is needed while somebody works at it and is there in a small number, or empty
 * @param begun whether it has been begun, so that its place on the bench is taken
 */
public record VisitUnit(
        long id,
        String name,
        String place,
        List<Stretch> stretches,
        int ready,
        List<Window> free,
        Set<Long> after,
        boolean bench,
        String tool,
        boolean begun) {
    public VisitUnit {
        stretches = List.copyOf(stretches);
        free = List.copyOf(free);
        after = Set.copyOf(after);
    }

    /** A unit that waits for nothing and needs nothing but hands. */
    public static VisitUnit of(long id, String name, String place, List<Stretch> stretches) {
        return new VisitUnit(id, name, place, stretches, 0, Window.ALWAYS, Set.of(), false, "", false);
    }

    /** Usual minutes that somebody stands beside it. */
    public int hands() {
        return stretches.stream().mapToInt(s -> s.hands().usual()).sum();
    }

    /** Usual minutes from its first stretch to its last, when nobody is ever waited for. */
    public int chain() {
        return hands() + stretches.stream().mapToInt(s -> s.alone().usual()).sum();
    }

    /** Returns the same with what is left of it. */
    public VisitUnit with(List<Stretch> left, int from) {
        return new VisitUnit(
                id, name, place, left, from, free, after, bench, tool, begun || left.size() < stretches.size());
    }

    /** Returns the same that waits for others. */
    public VisitUnit after(Set<Long> others) {
        return new VisitUnit(id, name, place, stretches, ready, free, others, bench, tool, begun);
    }
}
