package app.knottag.core.plan;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Segment;
import app.knottag.core.plan.MoveOrder.Hop;
import app.knottag.core.plan.MoveOrder.Wish;
import app.knottag.core.plan.Renumbering.Addressing;
import app.knottag.core.plan.Renumbering.Move;
import app.knottag.core.plan.Renumbering.Mover;
import app.knottag.core.plan.Renumbering.Planned;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/**
 * The steps of a renumbering, in an order in which no two ever hold the same address and the technician can always
 * reach what she must still touch: her laptop has an address in both networks until the end, and the router is changed
 * when nobody needs its old one any more.
 */
public final class RenumberSteps {

    private RenumberSteps() {}

    /** What a step is about. */
    public enum Kind {
        PREPARE,
        LAPTOP,
        MOVE,
        PARK,
        /** Its address stays; another of its figures changes. */
        REFIT,
        ROUTER,
        TIDY,
        PROVE
    }

    /**
     * One step.
     *
     * @param mover id of the endpoint, or minus that of the partner, for MOVE and PARK
     * @param to its address after the step; null for PARK without a spare address
     */
    public record Step(
            Kind kind,
            String title,
            List<String> lines,
            @Nullable Long mover,
            @Nullable Ipv4Address from,
            @Nullable Ipv4Address to) {}

    /** Returns the steps. */
    public static List<Step> of(Planned planned, List<Mover> all, Addressing was, Addressing becomes) {
        var moves = planned.moves();
        Segment old = was.segment(), next = becomes.segment();
        var used = new HashSet<Ipv4Address>();
        all.forEach(m -> used.add(m.from()));
        moves.forEach(m -> used.add(m.to()));
        old.gateway().ifPresent(used::add);
        next.gateway().ifPresent(used::add);
        var wishes = moves.stream().map(m -> wish(m, old, next)).toList();
        // One for the laptop, one for rings, and one for each that may have to wait for the router.
        var near =
                spare(old, next, used, 2 + wishes.stream().filter(Wish::leaves).count());
        near.forEach(used::add);
        var far = spare(next, old, used, 1);
        var steps = new ArrayList<Step>();
        steps.add(plain(
                Kind.PREPARE,
                "Prepare the way back",
                "Save the router's settings to a file, and print this list.",
                "Choose a quiet hour: devices lose the way out between their own change and the router's."));
        steps.add(laptop(near, far, old, next));
        var park = near.stream().skip(1).filter(a -> clear(a, next)).toList();
        var names = moves.stream().collect(Collectors.toMap(m -> m.mover().id(), m -> m));
        var order = MoveOrder.order(wishes, park);
        order.before().forEach(hop -> steps.add(step(hop, names.get(hop.id()), old, becomes)));
        steps.add(router(was, becomes));
        for (var m : planned.refits()) steps.add(refit(m, was, becomes));
        order.after().forEach(hop -> steps.add(step(hop, names.get(hop.id()), old, becomes)));
        steps.add(plain(
                Kind.TIDY,
                "Take the second address off your laptop",
                next.pools().isEmpty()
                        ? "Nothing is handed out here: keep its fixed address of " + next.prefix()
                                + " until you leave, then set it back to automatic."
                        : "Set it back to automatic and see that it gets an address of " + next.prefix() + "."));
        steps.add(plain(
                Kind.PROVE,
                "Prove every endpoint again",
                "Each one that moved or was told another figure has lost its proof: run its checks at Confirm."));
        return List.copyOf(steps);
    }

    private static Step plain(Kind kind, String title, String... lines) {
        return new Step(kind, title, List.of(lines), null, null, null);
    }

    /**
     * Late is who waits until the new network is handed out, or moves to where the router hands out until then; who stands
     * where the new router does, or where it hands out, must have left by then.
     */
    private static Wish wish(Move m, Segment old, Segment next) {
        var from = m.mover().from();
        boolean handedOut = m.mover().method() != Method.FIXED && !old.prefix().contains(m.to());
        return new Wish(
                m.mover().id(),
                from,
                m.to(),
                handedOut || old.poolOf(m.to()).isPresent(),
                next.poolOf(from).isPresent() || next.gateway().equals(Optional.of(from)));
    }

    /**
     * Free addresses outside the pools. The pools of the other addressing count too, as long as there is room beside them,
     * since both are in force one after the other.
     */
    private static List<Ipv4Address> spare(Segment segment, Segment other, Set<Ipv4Address> used, long most) {
        var free = Stream.iterate(
                        segment.prefix().highestUsable(),
                        a -> a.compareTo(segment.prefix().lowestUsable()) >= 0,
                        a -> a.plus(-1))
                .limit(70_000)
                .filter(a -> segment.fixable(a) && !used.contains(a))
                .toList();
        var clear = free.stream().filter(a -> clear(a, other)).limit(most).toList();
        return clear.isEmpty() ? free.stream().limit(1).toList() : clear;
    }

    /** Whether an address stands in nobody's way under another addressing either. */
    private static boolean clear(Ipv4Address a, Segment other) {
        return other.poolOf(a).isEmpty()
                && other.gateway().filter(a::equals).isEmpty()
                && (!other.prefix().contains(a) || other.prefix().usable(a));
    }

    private static Step laptop(List<Ipv4Address> near, List<Ipv4Address> far, Segment old, Segment next) {
        boolean one = old.prefix().equals(next.prefix());
        var lines = new ArrayList<String>();
        if (near.isEmpty()) lines.add("Keep the automatic address that it has now.");
        else lines.add("Give it " + near.get(0) + ", mask " + old.prefix().mask() + ".");
        near.stream()
                .limit(1)
                .filter(a -> next.poolOf(a).isPresent())
                .forEach(a -> lines.add("The router hands out " + a + " once it is changed: nothing else is free."));
        if (!one && far.isEmpty()) lines.add("Add one of " + next.prefix() + " that the plan leaves free.");
        if (!one && !far.isEmpty())
            lines.add("Add " + far.get(0) + ", mask " + next.prefix().mask() + ", as a second address.");
        if (!one)
            far.stream()
                    .filter(a -> old.poolOf(a).isPresent())
                    .forEach(a ->
                            lines.add("The router hands out " + a + " until it is changed: nothing else is free."));
        lines.add(
                one
                        ? "So you stay in when the pool changes."
                        : "So you reach every device before and after its change.");
        return new Step(
                Kind.LAPTOP,
                one ? "Give your laptop a fixed address" : "Give your laptop an address in both networks",
                List.copyOf(lines),
                null,
                null,
                null);
    }

    private static Step router(Addressing was, Addressing becomes) {
        Segment old = was.segment(), next = becomes.segment();
        var lines = new ArrayList<String>();
        next.gateway()
                .ifPresent(g -> lines.add(
                        "Its LAN address: " + g + ", mask " + next.prefix().mask() + "."));
        if (next.pools().isEmpty()) lines.add("It hands out nothing.");
        next.pools().forEach(p -> lines.add("It hands out " + p + "."));
        if (!next.pools().isEmpty()
                && !was.resolvers().equals(becomes.resolvers())
                && !becomes.resolvers().isEmpty())
            lines.add("With it go" + resolvers(becomes).substring(1) + ".");
        lines.add("Save; your session ends. Go on from the laptop's address in the new network.");
        String title = old.gateway().equals(next.gateway()) && old.prefix().equals(next.prefix())
                ? "Set the router's new pool"
                : "Change the router";
        return new Step(
                Kind.ROUTER,
                title,
                List.copyOf(lines),
                null,
                old.gateway().orElse(null),
                next.gateway().orElse(null));
    }

    /** The figures of a addressing that stand in a device beside its address. */
    private static String figures(Addressing addressing) {
        return "mask " + addressing.segment().prefix().mask()
                + addressing.segment().gateway().map(g -> ", gateway " + g).orElse("")
                + resolvers(addressing);
    }

    private static String resolvers(Addressing addressing) {
        var r = addressing.resolvers();
        if (r.isEmpty()) return "";
        return (r.size() == 1 ? ", resolver " : ", resolvers ")
                + r.stream().map(Ipv4Address::toString).collect(Collectors.joining(", then "));
    }

    private static Step refit(Mover m, Addressing was, Addressing becomes) {
        var changed = new ArrayList<String>();
        if (!was.segment().prefix().mask().equals(becomes.segment().prefix().mask()))
            changed.add("mask " + becomes.segment().prefix().mask());
        if (!was.segment().gateway().equals(becomes.segment().gateway()))
            changed.add(becomes.segment().gateway().map(g -> "gateway " + g).orElse("no gateway"));
        if (!was.resolvers().equals(becomes.resolvers()))
            changed.add(
                    becomes.resolvers().isEmpty()
                            ? "no resolver"
                            : resolvers(becomes).substring(2));
        String what = String.join(", ", changed);
        return new Step(
                Kind.REFIT,
                "Tell " + m.name() + " its new figures",
                List.of(
                        m.method().onDevice()
                                ? "Its address " + m.from() + " stays. On it set " + what + "; save, restart."
                                : "Its address " + m.from() + " stays. Restart it, so that it takes up " + what + "."),
                m.id(),
                m.from(),
                m.from());
    }

    private static Step step(Hop hop, Move move, Segment old, Addressing becomes) {
        String name = move.mover().name();
        if (hop.parked())
            return new Step(
                    Kind.PARK,
                    hop.to().map(a -> "Park " + name + " at " + a).orElse("Take " + name + " off the network"),
                    List.of("It makes way for another and gets its own address later."),
                    hop.id(),
                    hop.from().orElse(null),
                    hop.to().orElse(null));
        var lines = new ArrayList<String>();
        if (old.poolOf(move.to()).isPresent())
            lines.add("Look first that nobody answers there: whoever got it from the router before may still have it.");
        if (move.mover().method() == Method.FIXED || move.mover().method() == Method.LEARNED)
            lines.add("On it set " + hop.to().get() + ", " + figures(becomes) + "; save, restart.");
        else lines.add("Change its reservation, then restart it.");
        lines.addAll(move.pointers());
        if (!move.keepsHost()) lines.add("Its host part changes; put a new tag on it.");
        return new Step(
                Kind.MOVE,
                "Move " + name + " to " + hop.to().get(),
                List.copyOf(lines),
                hop.id(),
                hop.from().orElse(null),
                hop.to().get());
    }
}
