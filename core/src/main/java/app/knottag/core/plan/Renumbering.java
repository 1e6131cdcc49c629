package app.knottag.core.plan;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Segment;
import app.knottag.core.plan.Placement.Clash;
import app.knottag.core.plan.Placement.Request;
import app.knottag.core.plan.SitePlan.PlannedEndpoint;
import app.knottag.core.plan.SitePlan.PlannedPartner;
import app.knottag.core.plan.SitePlan.PlannedSegment;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Stream;

/**
 * A new prefix or a new router for a segment: who moves where, with as few changed host parts as can be, and what
 * points at the old addresses.
 */
public final class Renumbering {

    private Renumbering() {}

    /** Something that has an address in the segment: an endpoint, or a partner (id below zero, so that both differ). */
    public record Mover(long id, String name, Method method, Ipv4Address from) {
        /** Whether this is a partner, not an endpoint. */
        public boolean partner() {
            return id < 0;
        }
    }

    /**
     * One that gets another address.
     *
     * @param keepsHost whether its host part stays as it was
     * @param pointers what holds the old address and must be told
     */
    public record Move(Mover mover, Ipv4Address to, boolean keepsHost, List<String> pointers) {}

    /** What comes of it. */
    public sealed interface Outcome {
        <R> R match(Function<Planned, R> ifPlanned, Function<Impossible, R> ifImpossible);
    }

    /**
     * A plan for everyone.
     *
     * @param moves those whose address changes, in address order
     * @param refits those that keep their address and must be told another mask, gateway or resolver
     * @param staying how many keep their address
     * @param changedHosts how many had to take another host part
     */
    public record Planned(List<Move> moves, List<Mover> refits, int staying, int changedHosts) implements Outcome {
        public Planned {
            moves = List.copyOf(moves);
            refits = List.copyOf(refits);
        }

        @Override
        public <R> R match(Function<Planned, R> ifPlanned, Function<Impossible, R> ifImpossible) {
            return ifPlanned.apply(this);
        }
    }

    /** The new addressing is too small. */
    public record Impossible(Clash clash) implements Outcome {
        @Override
        public <R> R match(Function<Planned, R> ifPlanned, Function<Impossible, R> ifImpossible) {
            return ifImpossible.apply(this);
        }
    }

    /** Returns everything with a fixed place in the segment, in address order. */
    public static List<Mover> movers(SitePlan plan, PlannedSegment old) {
        Stream<Mover> endpoints = plan.endpoints().stream()
                .filter(e -> e.segmentId() == old.id() && e.address().isPresent())
                .map(e -> new Mover(e.id(), e.name(), e.method(), e.address().get()));
        Stream<Mover> partners = plan.partners().stream()
                .filter(p -> old.segment().prefix().contains(p.address()))
                .filter(p ->
                        plan.endpoints().stream().noneMatch(e -> e.address().equals(Optional.of(p.address()))))
                .map(p -> new Mover(-p.id(), p.name(), Method.FIXED, p.address()));
        return Stream.concat(endpoints, partners)
                .sorted((a, b) -> a.from().compareTo(b.from()))
                .toList();
    }

    /** What a segment becomes: its addresses, and the resolvers that devices are told, in order. */
    public record Addressing(Segment segment, List<Ipv4Address> resolvers) {
        public Addressing {
            resolvers = List.copyOf(resolvers);
        }

        /** Whether a device that keeps its address has another figure to be told. */
        boolean differs(PlannedSegment old) {
            return !segment.prefix().mask().equals(old.segment().prefix().mask())
                    || !segment.gateway().equals(old.segment().gateway())
                    || !resolvers.equals(old.resolvers());
        }
    }

    /** Works out where everyone goes. */
    public static Outcome plan(SitePlan plan, PlannedSegment old, Addressing addressing) {
        var next = addressing.segment();
        var movers = movers(plan, old);
        var requests = movers.stream()
                .map(m -> new Request(m.name(), sameHost(m.from(), old.segment(), next), List.of()))
                .toList();
        // The old gateway holds its address until the router is changed; nobody may move onto it before.
        var held = new HashMap<Ipv4Address, String>();
        old.segment().gateway().ifPresent(g -> held.put(g, "the old gateway"));
        return new Placement(next, Occupied.of(held), old.segment().pools())
                .place(requests)
                .match(
                        placed -> {
                            var moves = new ArrayList<Move>();
                            var refits = new ArrayList<Mover>();
                            int changed = 0;
                            for (int i = 0; i < movers.size(); i++) {
                                var to = placed.given().get(i).choice().address();
                                boolean keeps = requests.get(i).wanted().equals(Optional.of(to));
                                if (!keeps) changed++;
                                if (!to.equals(movers.get(i).from()))
                                    moves.add(new Move(movers.get(i), to, keeps, pointers(plan, movers.get(i), to)));
                                else if (addressing.differs(old)) refits.add(movers.get(i));
                            }
                            return new Planned(moves, refits, movers.size() - moves.size(), changed);
                        },
                        Impossible::new);
    }

    private static Optional<Ipv4Address> sameHost(Ipv4Address address, Segment old, Segment next) {
        long host = address.number() - old.prefix().network().number();
        long number = next.prefix().network().number() + host;
        return number > next.prefix().highestUsable().number()
                ? Optional.empty()
                : Optional.of(Ipv4Address.ofNumber(number));
    }

    /** Everything that holds the old address of one that moves. */
    private static List<String> pointers(SitePlan plan, Mover mover, Ipv4Address to) {
        var pointers = new ArrayList<String>();
        Map<Long, PlannedPartner> partners = new HashMap<>();
        plan.partners().forEach(p -> partners.put(p.id(), p));
        if (mover.partner()) {
            for (PlannedEndpoint e : plan.endpoints())
                if (e.partnerId().equals(Optional.of(-mover.id())))
                    pointers.add("In " + e.name() + " set the partner's address to " + to + ".");
            return pointers;
        }
        for (var e : plan.endpoints())
            if (e.id() == mover.id())
                e.partnerId()
                        .map(partners::get)
                        .ifPresent(p -> pointers.add("In the set-up of " + p.name() + " point it at " + to
                                + e.port().map(port -> ", port " + port).orElse("") + "."));
        if (mover.method() == Method.RESERVED)
            pointers.add("In the reservation list change " + mover.from() + " to " + to + ".");
        return pointers;
    }
}
