package app.knottag.core.visit;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;

/**
 * How a visit stands at a minute of it.
 *
 * @param now minutes from its beginning
 * @param units devices that are not done, by their id
 * @param people by their index in the brief
 */
public record Standing(int now, Map<Long, Progress> units, List<Person> people) {

    /**
     * How far a device is.
     *
     * @param next which of its stretches comes next, counted from 0
     * @param ready minute from which that can be begun; of what runs by itself the usual end
     * @param by index of the person who is at it now, or empty
     */
    public record Progress(int next, int ready, OptionalInt by) {

        /** Whether somebody is at it; one who only waits for it takes nothing of what is there for all. */
        boolean inHand(int now) {
            return by.isPresent() && ready <= now;
        }
    }

    /**
     * Where somebody is.
     *
     * @param place the last place, or empty
     * @param gone whether they do not come any more
     * @param told whether what they have in hand is only what they are told at this moment: nobody has begun it
     */
    public record Person(String place, boolean gone, boolean told) {
        public Person(String place, boolean gone) {
            this(place, gone, false);
        }
    }

    public Standing {
        units = Map.copyOf(units);
        people = List.copyOf(people);
    }

    /** The beginning of a visit. */
    public static Standing beginning(Brief brief) {
        var units = new HashMap<Long, Progress>();
        for (var u : brief.units()) units.put(u.id(), new Progress(0, u.ready(), OptionalInt.empty()));
        return new Standing(
                0,
                units,
                brief.hands().stream().map(h -> new Person(h.at(), false)).toList());
    }

    /** How far a device is; empty when it is done. */
    Optional<Progress> of(VisitUnit unit) {
        return Optional.ofNullable(units.get(unit.id()));
    }

    /**
     * Returns the same, where somebody is told of a stretch of a device.
     *
     * @param at from when: later than now when they wait for it
     */
    Standing telling(int person, long unit, int stretch, int at) {
        var given = new HashMap<>(units);
        given.put(unit, new Progress(stretch, at, OptionalInt.of(person)));
        var others = new ArrayList<>(people);
        others.set(person, new Person(people.get(person).place, people.get(person).gone, true));
        return new Standing(now, given, others);
    }

    /** Whether a device has got so far that its outlet on the bench is taken. */
    boolean onBench(VisitUnit unit) {
        return unit.bench()
                && of(unit).filter(p -> unit.begun() || p.next() > 0 || p.inHand(now))
                        .isPresent();
    }
}
