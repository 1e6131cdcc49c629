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
 * @param running what it takes of the line until it is ready, in kbit/s
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
        boolean begun,
        int running) {
    public VisitUnit {
        stretches = List.copyOf(stretches);
        free = List.copyOf(free);
        after = Set.copyOf(after);
    }

    /** A unit that waits for nothing and needs nothing but hands. */
    public static VisitUnit of(long id, String name, String place, List<Stretch> stretches) {
        return new VisitUnit(id, name, place, stretches, 0, Window.ALWAYS, Set.of(), false, "", false, 0);
    }

    /** Usual minutes that somebody stands beside it. */
    public int hands() {
        return stretches.stream().mapToInt(s -> s.hands().usual()).sum();
    }

    /** Usual minutes from its first stretch to its last, when nobody is ever waited for. */
    public int chain() {
        return hands() + stretches.stream().mapToInt(s -> s.alone().usual()).sum();
    }

    /**
     * Returns the same with what is left of it.
     *
     * @param from minute from which that can be begun
     * @param taken what it takes of the line until then, in kbit/s
     */
    public VisitUnit with(List<Stretch> left, int from, int taken) {
        return new VisitUnit(
                id, name, place, left, from, free, after, bench, tool, begun || left.size() < stretches.size(), taken);
    }

    /** Returns the same that waits for others. */
    public VisitUnit after(Set<Long> others) {
        return new VisitUnit(id, name, place, stretches, ready, free, others, bench, tool, begun, running);
    }
}
