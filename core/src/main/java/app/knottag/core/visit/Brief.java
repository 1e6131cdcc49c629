package app.knottag.core.visit;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.OptionalInt;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;

/**
 * What a visit is to get done, by whom and with what. All times are minutes from its beginning.
 *
 * @param due minute at which everything must be done, such as the hour of opening
 */
public record Brief(List<VisitUnit> units, List<Hands> hands, Means means, OptionalInt due) {
    public Brief {
        units = List.copyOf(units);
        hands = List.copyOf(hands);
    }

    /** Returns the same without these units; nobody waits for them any more. */
    Brief without(Set<Long> gone) {
        return new Brief(
                units.stream()
                        .filter(u -> !gone.contains(u.id()))
                        .map(u -> u.after(u.after().stream()
                                .filter(o -> !gone.contains(o))
                                .collect(Collectors.toSet())))
                        .toList(),
                hands,
                means,
                due);
    }

    Brief with(List<Hands> others, Means other) {
        return new Brief(units, others, other, due);
    }

    /** Returns the same with somebody more, who may do what everybody may and is there from the beginning. */
    Brief withOneMore() {
        return with(
                Stream.concat(hands.stream(), Stream.of(Hands.of("one more"))).toList(), means);
    }

    /**
     * Returns what is left for a new plan: whoever is at something is free when that usually ends, and what comes after it
     * waits until then.
     *
     * @param since minutes that each of those people has been at it, by their index; below zero of one who is on the way
     */
    public Brief rest(Standing standing, Map<Integer, Integer> since) {
        var people = new ArrayList<>(hands);
        var left = new ArrayList<VisitUnit>();
        for (var unit : units) {
            var by = standing.of(unit).map(Standing.Progress::by).orElse(OptionalInt.empty());
            if (by.isEmpty()) {
                left.add(unit);
                continue;
            }
            int person = by.getAsInt();
            var stretch = unit.stretches().get(0);
            int busy = Math.max(1, stretch.hands().usual() - since.getOrDefault(person, 0));
            people.set(person, people.get(person).from(busy).at(unit.place()));
            if (unit.stretches().size() > 1)
                left.add(unit.with(
                        unit.stretches().subList(1, unit.stretches().size()),
                        busy + Downloads.minutes(stretch, means.megabits()).usual(),
                        Downloads.kilobits(stretch, means.megabits())));
        }
        return new Brief(left, people, means, due);
    }

    int indexOf(long unit) {
        return IntStream.range(0, units.size())
                .filter(i -> units.get(i).id() == unit)
                .findFirst()
                .orElseThrow();
    }
}
