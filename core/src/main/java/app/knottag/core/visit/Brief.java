package app.knottag.core.visit;

import java.util.List;
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

    int indexOf(long unit) {
        return IntStream.range(0, units.size())
                .filter(i -> units.get(i).id() == unit)
                .findFirst()
                .orElseThrow();
    }
}
