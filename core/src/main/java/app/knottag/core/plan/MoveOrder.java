package app.knottag.core.plan;

import app.knottag.core.address.Ipv4Address;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Queue;
import java.util.TreeMap;

/**
 * An order in which addresses are changed so that no two ever hold the same one: who stands in the way moves first, and
 * a ring is opened by parking one of them.
 */
final class MoveOrder {

    private final List<Ipv4Address> spare;
    private final Map<Ipv4Address, Wish> byTarget = new HashMap<>();
    private final TreeMap<Ipv4Address, Wish> held = new TreeMap<>();
    private final Map<Long, Optional<Ipv4Address>> parked = new HashMap<>();
    private final Queue<Wish> ready = new ArrayDeque<>();
    private final List<Hop> hops = new ArrayList<>();

    private MoveOrder(List<Ipv4Address> spare) {
        this.spare = spare;
    }

    /** A wish to move from one address to another; ids tell them apart. */
    record Wish(long id, Ipv4Address from, Ipv4Address to) {}

    /** One change; an empty address means off the network, parked that it is only for the time being. */
    record Hop(long id, Optional<Ipv4Address> from, Optional<Ipv4Address> to, boolean parked) {}

    /**
     * Returns the changes in order.
     *
     * @param wishes no two with the same from, nor with the same to
     * @param spare free addresses that may serve for parking; none of them is held or wished for
     */
    static List<Hop> order(List<Wish> wishes, List<Ipv4Address> spare) {
        var order = new MoveOrder(spare);
        for (var w : wishes)
            if (!w.from().equals(w.to())) {
                order.byTarget.put(w.to(), w);
                order.held.put(w.from(), w);
            }
        order.held.values().stream()
                .filter(w -> !order.held.containsKey(w.to()))
                .forEach(order.ready::add);
        order.run();
        return List.copyOf(order.hops);
    }

    private void run() {
        while (!ready.isEmpty() || !held.isEmpty()) {
            if (ready.isEmpty()) park(held.firstEntry().getValue());
            var wish = ready.remove();
            var from = parked.getOrDefault(wish.id(), Optional.of(wish.from()));
            hops.add(new Hop(wish.id(), from, Optional.of(wish.to()), false));
            if (!parked.containsKey(wish.id())) freed(wish.from());
        }
    }

    /** Rings are opened one after another, so one spare address serves them all. */
    private void park(Wish wish) {
        var place = spare.stream().findFirst();
        hops.add(new Hop(wish.id(), Optional.of(wish.from()), place, true));
        parked.put(wish.id(), place);
        freed(wish.from());
    }

    private void freed(Ipv4Address address) {
        held.remove(address);
        var next = byTarget.get(address);
        if (next != null) ready.add(next);
    }
}
