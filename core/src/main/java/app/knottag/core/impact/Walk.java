package app.knottag.core.impact;

import app.knottag.core.impact.Bond.Act;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.PriorityQueue;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;

/** One walk over what rests on what, for every change: from the thing to which something happens to all that feel it. */
final class Walk {

    /** A tie that an event of the held thing pulls at. */
    record Pull(Tie tie, Event event) {}

    /**
     * What is done to one thing in one go.
     *
     * @param pulls what asks for it; none for the change itself
     * @param after indexes of the steps that come before
     */
    record Done(Thing thing, Act act, List<Pull> pulls, Set<Integer> after) {}

    private final Map<Thing, List<Tie>> restingOn = new HashMap<>();
    private final List<Pull> pulls = new ArrayList<>();
    private final Map<Happened, List<Pull>> causing = new HashMap<>();
    /** The lists out of which one takes its address. */
    private final Map<Thing, List<Thing>> lists = new HashMap<>();

    private final Happened start;

    private Walk(Collection<Tie> ties, Thing subject, Event event) {
        for (var tie : ties) {
            restingOn.computeIfAbsent(tie.held(), t -> new ArrayList<>()).add(tie);
            if (tie.bond() == Bond.LISTED)
                lists.computeIfAbsent(tie.holder(), t -> new ArrayList<>()).add(tie.held());
        }
        start = new Happened(subject, event);
        follow();
    }

    /**
     * Returns everything to be done, in an order in which nothing comes before what it waits for; the change itself first.
     *
     * @param order which comes first of what does not wait for each other
     */
    static List<Done> from(Collection<Tie> ties, Thing subject, Event event, Comparator<Thing> order) {
        return new Walk(ties, subject, event).inOrder(order);
    }

    private record Happened(Thing thing, Event event) {}

    private void follow() {
        var seen = new HashSet<Happened>();
        var queue = new ArrayDeque<Happened>();
        queue.add(start);
        while (!queue.isEmpty()) {
            var now = queue.remove();
            if (!seen.add(now)) continue;
            for (var tie : restingOn.getOrDefault(now.thing(), List.of()))
                tie.bond().of(now.event()).ifPresent(effect -> {
                    var pull = new Pull(tie, now.event());
                    pulls.add(pull);
                    effect.onward().map(e -> new Happened(tie.holder(), e)).ifPresent(next -> {
                        causing.computeIfAbsent(next, n -> new ArrayList<>()).add(pull);
                        queue.add(next);
                    });
                });
        }
    }

    private static Optional<Act> act(Pull pull) {
        return pull.tie().bond().of(pull.event()).flatMap(Bond.Effect::act);
    }

    private record Key(Thing thing, Act act, Bond bond) {}

    /** What is proved, and what is restarted, once is enough. */
    private static Key key(Pull pull, Act act) {
        var bond = pull.tie().bond();
        return new Key(pull.tie().holder(), act, act != Act.MEND ? Bond.SELF : bond.menu() ? Bond.KEYED : bond);
    }

    private List<Done> inOrder(Comparator<Thing> order) {
        var groups = new HashMap<Key, List<Pull>>();
        var ofThing = new HashMap<Thing, List<Key>>();
        var teller = new HashMap<Thing, Set<Key>>();
        for (var pull : pulls)
            act(pull).ifPresent(a -> {
                var key = key(pull, a);
                groups.computeIfAbsent(key, k -> {
                            ofThing.computeIfAbsent(k.thing(), t -> new ArrayList<>())
                                    .add(k);
                            return new ArrayList<>();
                        })
                        .add(pull);
                if (pull.tie().bond().told())
                    teller.computeIfAbsent(pull.tie().held(), t -> new HashSet<>())
                            .add(key);
            });
        var waits = new HashMap<Key, Set<Key>>();
        groups.forEach((key, of) -> {
            var before = new HashSet<Key>();
            for (var pull : of) causes(new Happened(pull.tie().held(), pull.event()), before, new HashSet<>());
            if (key.act() == Act.PROVE) {
                ofThing.get(key.thing()).stream()
                        .filter(k -> k.act() != Act.PROVE)
                        .forEach(before::add);
                before.addAll(teller.getOrDefault(key.thing(), Set.of()));
            }
            // Restarted before its list is right it comes back with the old one.
            if (key.act() == Act.RENEW)
                for (var list : lists.getOrDefault(key.thing(), List.of()))
                    before.addAll(ofThing.getOrDefault(list, List.of()));
            before.remove(key);
            waits.put(key, before);
        });
        return laid(
                groups,
                waits,
                Comparator.comparing(Key::thing, order).thenComparing(Key::act).thenComparing(Key::bond));
    }

    /** Those of which an event comes; what asks for nothing by itself hands on those of which it comes. */
    private void causes(Happened event, Set<Key> found, Set<Happened> seen) {
        if (!seen.add(event)) return;
        for (var p : causing.getOrDefault(event, List.of()))
            act(p).ifPresentOrElse(
                            a -> found.add(key(p, a)),
                            () -> causes(new Happened(p.tie().held(), p.event()), found, seen));
    }

    private List<Done> laid(Map<Key, List<Pull>> groups, Map<Key, Set<Key>> waits, Comparator<Key> order) {
        var waiting = new HashMap<Key, List<Key>>();
        var open = new HashMap<Key, Integer>();
        var ready = new PriorityQueue<>(order);
        waits.forEach((key, before) -> {
            open.put(key, before.size());
            if (before.isEmpty()) ready.add(key);
            for (var k : before)
                waiting.computeIfAbsent(k, x -> new ArrayList<>()).add(key);
        });
        var done = new ArrayList<Done>();
        var index = new HashMap<Key, Integer>();
        done.add(new Done(start.thing(), Act.CHANGE, List.of(), Set.of()));
        while (index.size() < groups.size()) {
            // Two that hold each other's address wait for each other: the first of them begins.
            var next = ready.isEmpty()
                    ? open.keySet().stream()
                            .filter(k -> !index.containsKey(k))
                            .min(order)
                            .orElseThrow()
                    : ready.remove();
            if (index.containsKey(next)) continue;
            var after = waits.get(next).stream()
                    .filter(index::containsKey)
                    .map(index::get)
                    .collect(Collectors.toCollection(TreeSet::new));
            index.put(next, done.size());
            done.add(new Done(next.thing(), next.act(), groups.get(next), after.isEmpty() ? Set.of(0) : after));
            for (var k : waiting.getOrDefault(next, List.of())) if (open.merge(k, -1, Integer::sum) == 0) ready.add(k);
        }
        return done;
    }
}
