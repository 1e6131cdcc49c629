package app.knottag.core.reach;

import app.knottag.core.reach.FaultBook.Place;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;

/**
 * The way of a packet, from the machine that looks over the device to what the device calls: as far as it is known to be good,
 * where it may break, and where it must.
 */
public final class PacketWay {

    /** So little is left of a doubt that nobody looks there. */
    private static final double GOOD_BELOW = 0.02;

    private PacketWay() {}

    /** What is known of a stretch. */
    public enum State {
        /** Something that was seen there is as it should be, and nothing is left that could break it. */
        GOOD,
        /** Nothing was seen of it, because something before it may break already. */
        UNSEEN,
        OPEN,
        /** It must break here. */
        BREAK
    }

    /**
     * One stretch of the way.
     *
     * @param share probability that it breaks here, 0..1
     * @param next whether the next look is made here
     */
    public record Stretch(Place place, String title, double share, State state, boolean next) {}

    /** Returns the stretches that an endpoint has, in the order of the way. */
    public static List<Stretch> of(
            NetworkState intended, FaultBook book, List<Diagnosis.Made> made, Diagnosis.Verdict verdict) {
        var way = new ArrayList<Stretch>();
        for (var place : Place.values()) {
            if (!has(place, intended.meant().traits())) continue;
            var stretch = book.places().get(place);
            var here = Set.copyOf(stretch.faults());
            double share = 0;
            for (var s : verdict.suspects()) if (s.faults().stream().anyMatch(here::contains)) share += s.probability();
            boolean next = verdict.next()
                    .filter(n -> stretch.questions().contains(n.question()))
                    .isPresent();
            boolean seen = made.stream().anyMatch(m -> stretch.questions().contains(m.question()) && m.index() == 0);
            var low = seen ? State.GOOD : State.UNSEEN;
            var state = share >= Diagnosis.CERTAIN ? State.BREAK : share < GOOD_BELOW ? low : State.OPEN;
            way.add(new Stretch(place, stretch.title(), share, state, next));
        }
        return way;
    }

    private static boolean has(Place place, NetworkState.Traits traits) {
        return switch (place) {
            case HERE, WIRE, DEVICE, SERVICE, ROUTER -> true;
            case REGISTRY -> traits.registered();
            case PARTNER -> traits.partnered();
            case NAMES, LINE, FAR -> traits.callsOut();
        };
    }
}
