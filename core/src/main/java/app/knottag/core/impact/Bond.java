package app.knottag.core.impact;

import static app.knottag.core.impact.Event.GONE;
import static app.knottag.core.impact.Event.MENDED;
import static app.knottag.core.impact.Event.MOVED;
import static app.knottag.core.impact.Event.NEW_SECRET;
import static app.knottag.core.impact.Event.READDRESSED;
import static app.knottag.core.impact.Event.REGATED;
import static app.knottag.core.impact.Event.REPLACED;

import java.util.Arrays;
import java.util.EnumMap;
import java.util.Map;
import java.util.Optional;

/** In which way one thing rests on another, and so what each event of the other one asks for. */
public enum Bond {
    /** A network on the router that serves it. */
    SERVED_BY(mend(REPLACED, MENDED)),
    /** The router on the line that feeds it. */
    FED_BY(mend(REPLACED, MENDED)),
    /** The rules of a firewall, which stand in the router. */
    STAND_IN(mend(REPLACED, MENDED)),
    /** The rules of a firewall, which name an address. */
    NAME(tell(READDRESSED)),
    /** A list of reservations on the router that goes by it. */
    KEPT_IN(mend(REPLACED, MENDED)),
    /** A list on the network of which it holds addresses. */
    LISTS(tell(READDRESSED)),
    /** A list that holds the address of one device. */
    HOLDS(tell(READDRESSED)),
    /** Entries of a list on the person who answers for them. */
    OWNED_BY(tell(GONE)),
    /** What stands open on a device on the person who is to close it. */
    CLOSED_BY(tell(GONE)),
    /** A resolver that is the gateway of a network too. */
    SAME_AS(silent(READDRESSED, READDRESSED), silent(REGATED, READDRESSED)),
    /** A network on the resolver that it hands out. */
    HANDS_OUT(mend(READDRESSED, MENDED)),
    /** What has its network typed in: the figures stand in itself. */
    KEYED(mend(READDRESSED, READDRESSED), mend(REGATED, MENDED)),
    /** What has a resolver typed in. */
    ASKS_NAMES(mend(READDRESSED, MENDED)),
    /** What takes its address from the network. */
    LENT(renew(READDRESSED, READDRESSED), renew(REGATED, MENDED), renew(MENDED, MENDED)),
    /** What takes its own address out of a list. */
    LISTED(renew(MENDED, MENDED)),
    /** What calls out of its network. */
    THROUGH(prove(MENDED)),
    /** What calls out over the line behind a router. */
    OUT(prove(MENDED)),
    /** What calls through a firewall. */
    PASSES(prove(MENDED)),
    /** What is plugged into a piece of gear. */
    PLUGGED(mend(REPLACED, MENDED)),
    /** What restarts a router when the line is dead. */
    WATCHES(mend(REPLACED, MENDED)),
    /** A device on the partner whose address is typed into it. */
    TALKS_TO(mend(READDRESSED, MENDED), prove(REPLACED), prove(MENDED)),
    /** A partner that has the address of a device typed in. */
    POINTS_AT(tell(READDRESSED)),
    /** A device on a service that it calls by its address. */
    CALLS_ADDRESS(mend(READDRESSED, MENDED), mend(GONE, MENDED), prove(REPLACED)),
    /** A device on a service that it calls by its name. */
    CALLS_NAME(prove(READDRESSED), mend(GONE, MENDED), prove(REPLACED)),
    /** A device on the mailbox that it signs in to. */
    SIGNS_IN(mend(NEW_SECRET, MENDED), mend(GONE, MENDED)),
    /** Labels that show the address of a device. */
    SHOW(tell(READDRESSED)),
    /** Every device that is set up on itself: what was done to it must be proved. */
    SELF(prove(READDRESSED), prove(MOVED), prove(MENDED));

    /** What is to be done. */
    public enum Act {
        /** The change itself. */
        CHANGE,
        /** Somebody sets something. */
        MEND,
        /** It comes right by a restart, and somebody sees that it does. */
        RENEW,
        /** Its real job is done once. */
        PROVE
    }

    /**
     * What an event of the other one comes to.
     *
     * @param act empty when there is nothing to do by itself
     * @param onward what then has happened to the one that rests on it
     */
    record Effect(Optional<Act> act, Optional<Event> onward) {}

    private record Row(Event event, Effect effect) {}

    private final Map<Event, Effect> effects = new EnumMap<>(Event.class);

    Bond(Row... rows) {
        Arrays.stream(rows).forEach(r -> effects.put(r.event(), r.effect()));
    }

    private static Row mend(Event event, Event onward) {
        return new Row(event, new Effect(Optional.of(Act.MEND), Optional.of(onward)));
    }

    /** Something is set, and nothing else feels it. */
    private static Row tell(Event event) {
        return new Row(event, new Effect(Optional.of(Act.MEND), Optional.empty()));
    }

    private static Row renew(Event event, Event onward) {
        return new Row(event, new Effect(Optional.of(Act.RENEW), Optional.of(onward)));
    }

    private static Row prove(Event event) {
        return new Row(event, new Effect(Optional.of(Act.PROVE), Optional.empty()));
    }

    private static Row silent(Event event, Event onward) {
        return new Row(event, new Effect(Optional.empty(), Optional.of(onward)));
    }

    Optional<Effect> of(Event event) {
        return Optional.ofNullable(effects.get(event));
    }

    /** Whether it is set in the network menu of a device, where all of it is set in one go. */
    boolean menu() {
        return this == KEYED || this == ASKS_NAMES;
    }

    /** Whether the held one only works again when the one that rests on it has been told. */
    boolean told() {
        return this == POINTS_AT || this == HOLDS || this == NAME;
    }
}
