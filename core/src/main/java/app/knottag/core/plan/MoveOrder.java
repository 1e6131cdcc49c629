package app.knottag.core.plan;

import app.knottag.core.address.Ipv4Address;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Queue;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;

/**
 * An order in which addresses are changed so that no two ever hold the same one, with as few changes as can be: who stands in
 * the way moves first, and a ring is opened by parking one of them. In the middle the router is changed: some can only move
 * after it, some must have left before it, and whoever must leave and cannot arrive yet is parked across it.
 */
public final class MoveOrder {

    private final Deque<Ipv4Address> spare;
    private final Map<Ipv4Address, Wish> byTarget = new HashMap<>();
    private final TreeMap<Ipv4Address, Wish> waiting = new TreeMap<>();
    private final Set<Ipv4Address> held = new TreeSet<>();
    private final Set<Long> late = new TreeSet<>();
    private final Map<Long, Optional<Ipv4Address>> parked = new HashMap<>();
    private final Queue<Wish> ready = new ArrayDeque<>();
    private final List<Hop> hops = new ArrayList<>();
    private boolean changed;

    private MoveOrder(List<Wish> wishes, List<Ipv4Address> spare) {
        this.spare = new ArrayDeque<>(spare);
        for (var w : wishes)
            if (!w.from().equals(w.to())) {
                byTarget.put(w.to(), w);
                waiting.put(w.from(), w);
                held.add(w.from());
            }
    }

    /**
     * A wish to move from one address to another; ids tell them apart.
     *
     * @param late whether it can only move after the router is changed
     * @param leaves whether it must have left its address by then
     */
    public record Wish(long id, Ipv4Address from, Ipv4Address to, boolean late, boolean leaves) {
        /** A wish that has nothing to do with the router. */
        public Wish(long id, Ipv4Address from, Ipv4Address to) {
            this(id, from, to, false, false);
        }
    }

    /** One change; an empty address means off the network, parked that it is only for the time being. */
    public record Hop(long id, Optional<Ipv4Address> from, Optional<Ipv4Address> to, boolean parked) {}

    /** The changes before the router's, and those after it. */
    public record Order(List<Hop> before, List<Hop> after) {}

    /**
     * Returns the changes in order.
     *
     * @param wishes no two with the same from, nor with the same to
     * @param spare free addresses that may serve for parking before and after; none of them is held or wished for
     */
    public static Order order(List<Wish> wishes, List<Ipv4Address> spare) {
        var order = new MoveOrder(wishes, spare);
        order.findLate();
        order.run();
        var before = List.copyOf(order.hops);
        order.hops.clear();
        order.changed = true;
        order.run();
        return new Order(before, List.copyOf(order.hops));
    }

    /** Who waits for the address of one that is late is late too, unless that one is parked before. */
    private void findLate() {
        var queue = new ArrayDeque<Wish>();
        waiting.values().stream().filter(Wish::late).forEach(queue::add);
        queue.forEach(w -> late.add(w.id()));
        while (!queue.isEmpty()) {
            var wish = queue.remove();
            var next = byTarget.get(wish.from());
            if (!wish.leaves() && next != null && late.add(next.id())) queue.add(next);
        }
    }

    private boolean mayMove(Wish wish) {
        return changed || !late.contains(wish.id());
    }

    private void run() {
        waiting.values().stream()
                .filter(w -> mayMove(w) && !held.contains(w.to()))
                .forEach(ready::add);
        move();
        if (!changed)
            for (var wish : List.copyOf(waiting.values()))
                if (wish.leaves() && late.contains(wish.id())) {
                    park(wish);
                    move();
                }
        // What is left are rings. They are opened one after another, so one spare address serves them all.
        while (true) {
            var ring = waiting.values().stream().filter(this::mayMove).findFirst();
            if (ring.isEmpty()) return;
            park(ring.get());
            move();
        }
    }

    private void move() {
        while (!ready.isEmpty()) {
            var wish = ready.remove();
            waiting.remove(wish.from());
            var place = parked.remove(wish.id());
            hops.add(new Hop(
                    wish.id(), place == null ? Optional.of(wish.from()) : place, Optional.of(wish.to()), false));
            if (place == null) freed(wish.from());
            else place.ifPresent(spare::addFirst);
        }
    }

    private void park(Wish wish) {
        var place = Optional.ofNullable(spare.pollFirst());
        hops.add(new Hop(wish.id(), Optional.of(wish.from()), place, true));
        parked.put(wish.id(), place);
        freed(wish.from());
    }

    private void freed(Ipv4Address address) {
        held.remove(address);
        var next = byTarget.get(address);
        if (next != null && mayMove(next)) ready.add(next);
    }
}
