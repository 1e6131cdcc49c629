package app.knottag.core.visit;

import app.knottag.core.reading.ReadingException;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;

/** Finds what no plan can get round: no hands for a step, a window too short, a loop of needs. */
final class Obstacles {

    private Obstacles() {}

    /**
     * Returns the devices that cannot be done, each with the reason; those that wait for one of them are among them.
     *
     * @throws ReadingException if nobody is there at all, or devices wait for one another in a circle
     */
    static List<Obstacle> of(Brief brief) {
        if (brief.hands().isEmpty()) throw new ReadingException("Nobody is there. Add at least one person.");
        circle(brief);
        var found = new ArrayList<Obstacle>();
        for (var unit : brief.units())
            unit.stretches().stream()
                    .map(s -> why(brief, unit, s))
                    .flatMap(Optional::stream)
                    .findFirst()
                    .ifPresent(text -> found.add(new Obstacle(unit.id(), text)));
        waiting(brief, found);
        return found;
    }

    private static Optional<String> why(Brief brief, VisitUnit unit, Stretch stretch) {
        int hands = stretch.hands().usual();
        String what = unit.name() + ", “" + stretch.title() + "”";
        var able = brief.hands().stream().filter(h -> h.may(stretch)).toList();
        if (able.isEmpty())
            return Optional.of(what + " needs “" + stretch.skill()
                    + "”, and nobody who comes may do that. Add somebody who may, or leave it for another day.");
        if (Window.earliest(unit.free(), unit.ready(), hands) < 0)
            return Optional.of(what + " takes " + hands + " min at one go, and " + unit.place()
                    + " is never free for so long. Widen the hours, or leave it for another day.");
        boolean meets = able.stream().anyMatch(h -> meets(h.there(), unit.free(), unit.ready(), hands));
        if (!meets)
            return Optional.of(what + " takes " + hands + " min at one go, and "
                    + able.stream().map(Hands::name).collect(Collectors.joining(" or "))
                    + " is never there for so long while " + unit.place() + " is free. Let one of both give.");
        if (unit.bench() && brief.means().bench() < 1)
            return Optional.of(what + " needs an outlet and a port on the bench, and there is none.");
        if (!unit.tool().isEmpty() && brief.means().of(unit.tool()) < 1)
            return Optional.of(what + " needs “" + unit.tool() + "”, and there is none.");
        return Optional.empty();
    }

    private static boolean meets(List<Window> there, List<Window> free, int ready, int minutes) {
        for (var w : free) {
            int at = Window.earliest(there, Math.max(ready, w.from()), minutes);
            if (at >= 0 && at + minutes <= w.until()) return true;
        }
        return false;
    }

    private static void waiting(Brief brief, List<Obstacle> found) {
        boolean more = true;
        while (more) {
            more = false;
            var gone = found.stream().map(Obstacle::unit).collect(Collectors.toSet());
            for (var unit : brief.units()) {
                var first = unit.after().stream().filter(gone::contains).findFirst();
                if (gone.contains(unit.id()) || first.isEmpty()) continue;
                found.add(new Obstacle(
                        unit.id(), unit.name() + " waits for " + name(brief, first.get()) + ", which cannot be done."));
                more = true;
            }
        }
    }

    private static String name(Brief brief, long unit) {
        return brief.units().get(brief.indexOf(unit)).name();
    }

    private static void circle(Brief brief) {
        var done = new HashSet<Long>();
        boolean more = true;
        while (more) {
            more = false;
            for (var unit : brief.units())
                if (!done.contains(unit.id()) && done.containsAll(unit.after())) more |= done.add(unit.id());
        }
        Set<String> loop = brief.units().stream()
                .filter(u -> !done.contains(u.id()))
                .map(VisitUnit::name)
                .collect(Collectors.toSet());
        if (!loop.isEmpty())
            throw new ReadingException(
                    "These wait for one another: " + loop.stream().sorted().collect(Collectors.joining(", "))
                            + ". Let one of them begin without the others.");
    }
}
