package app.knottag.core.runbook;

import app.knottag.core.knot.Knot;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;

/** Where an endpoint waits on its way from plan to proof, and how that knot stands. */
public record Standing(Station station, Knot knot) {

    /** The stations of the work that exist so far; DONE has nothing left to wait for. */
    public enum Station {
        PLAN,
        REGISTER,
        ONBOARD,
        CONFIRM,
        DONE
    }

    /**
     * What is on record of an endpoint.
     *
     * @param labelled whether both MAC and serial are
     * @param confirmed whether it was signed off
     * @param open whether something stands open on it that must be closed before the hand-over
     */
    public record Known(boolean addressed, boolean labelled, boolean confirmed, boolean open) {}

    /** How the registrations of an endpoint stand together, the worst of them. */
    public enum Entries {
        /** All stand where they must; whether it has restarted since is the runbook's business. */
        SETTLED,
        HANDED_IN,
        TO_REGISTER,
        RAN_OUT
    }

    /**
     * Works out where an endpoint waits. It is registered before it is set up, since it joins only afterwards.
     *
     * @param roundFailed whether a check failed in the latest round
     */
    public static Standing of(Known known, Runbook runbook, boolean roundFailed, Entries entries) {
        if (!known.addressed()) return new Standing(Station.PLAN, Knot.OPEN);
        if (!known.labelled()) return new Standing(Station.REGISTER, Knot.OPEN);
        if (entries == Entries.RAN_OUT) return new Standing(Station.REGISTER, Knot.FRAYED);
        if (entries == Entries.TO_REGISTER) return new Standing(Station.REGISTER, Knot.OPEN);
        if (entries == Entries.HANDED_IN) return new Standing(Station.REGISTER, Knot.HALF_DRAWN);
        if (!runbook.readyToConfirm()) {
            boolean frayed = runbook.records().stream().anyMatch(r -> r.knot() == Knot.FRAYED);
            return new Standing(Station.ONBOARD, frayed ? Knot.FRAYED : runbook.begun() ? Knot.HALF_DRAWN : Knot.OPEN);
        }
        if (roundFailed) return new Standing(Station.CONFIRM, Knot.FRAYED);
        return known.confirmed() && !known.open()
                ? new Standing(Station.DONE, Knot.TIGHT)
                : new Standing(Station.CONFIRM, Knot.HALF_DRAWN);
    }

    /**
     * Returns the knot of a whole station.
     *
     * @param waiting how many endpoints wait there
     */
    public static Knot together(long waiting, boolean anyFrayed, boolean anyHalfDrawn) {
        if (waiting == 0) return Knot.TIGHT;
        return anyFrayed ? Knot.FRAYED : anyHalfDrawn ? Knot.HALF_DRAWN : Knot.OPEN;
    }

    /** Returns the station that needs the technician next: what is begun is finished before something new. */
    public static Optional<Station> next(Map<Station, Long> waiting) {
        return Stream.of(Station.CONFIRM, Station.ONBOARD, Station.REGISTER, Station.PLAN)
                .filter(s -> waiting.getOrDefault(s, 0L) > 0)
                .findFirst();
    }
}
