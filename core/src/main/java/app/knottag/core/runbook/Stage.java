package app.knottag.core.runbook;

import app.knottag.core.status.Status;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;

/** Where an endpoint waits on its way from plan to proof, and how that stands. */
public record Stage(Station station, Status status) {

    /** The stations of the work that exist so far; DONE has nothing left to wait for. */
    public enum Station {
        PLAN,
        REGISTER,
        ONBOARD,
        CONFIRM,
        HANDOVER,
        DONE
    }

    /**
     * What is on record of an endpoint.
     *
     * @param labelled whether both MAC and serial are
     * @param confirmed whether it was signed off
     * @param open whether something stands open on it that must be closed before the hand-over
     * @param handedOver whether it was handed over with the sign-off that holds
     */
    public record Known(boolean addressed, boolean labelled, boolean confirmed, boolean open, boolean handedOver) {}

    /** How the registrations of an endpoint stand together, the worst of them. */
    public enum Entries {
        /** All stand where they must; whether it has restarted since is the runbook's business. */
        SETTLED,
        HANDED_IN,
        TO_REGISTER,
        RAN_OUT
    }

    /** Where an endpoint waits whose label nobody has read yet. */
    public static Stage planned(boolean addressed) {
        return new Stage(addressed ? Station.REGISTER : Station.PLAN, Status.PENDING);
    }

    /**
     * Works out where an endpoint waits. It is registered before it is set up, since it joins only afterwards.
     *
     * @param checkFailed whether a check failed in the latest run
     */
    public static Stage of(Known known, Runbook runbook, boolean checkFailed, Entries entries) {
        if (!known.addressed() || !known.labelled()) return planned(known.addressed());
        if (entries == Entries.RAN_OUT) return new Stage(Station.REGISTER, Status.FAILED);
        if (entries == Entries.TO_REGISTER) return new Stage(Station.REGISTER, Status.PENDING);
        if (entries == Entries.HANDED_IN) return new Stage(Station.REGISTER, Status.ACTIVE);
        if (!runbook.readyToConfirm()) {
            boolean failed = runbook.records().stream().anyMatch(r -> r.status() == Status.FAILED);
            return new Stage(
                    Station.ONBOARD, failed ? Status.FAILED : runbook.begun() ? Status.ACTIVE : Status.PENDING);
        }
        if (checkFailed) return new Stage(Station.CONFIRM, Status.FAILED);
        if (!known.confirmed()) return new Stage(Station.CONFIRM, Status.ACTIVE);
        return known.handedOver()
                ? new Stage(Station.DONE, Status.PASSED)
                : new Stage(Station.HANDOVER, known.open() ? Status.ACTIVE : Status.PASSED);
    }

    /**
     * Returns the status of a whole station.
     *
     * @param waiting how many endpoints wait there
     */
    public static Status together(long waiting, boolean anyFailed, boolean anyActive) {
        if (waiting == 0) return Status.PASSED;
        return anyFailed ? Status.FAILED : anyActive ? Status.ACTIVE : Status.PENDING;
    }

    /**
     * Returns the station that needs the technician next: what is begun is finished before something new, and a site is handed
     * over when the rest is done.
     */
    public static Optional<Station> next(Map<Station, Long> waiting) {
        return Stream.of(Station.CONFIRM, Station.ONBOARD, Station.REGISTER, Station.PLAN, Station.HANDOVER)
                .filter(s -> waiting.getOrDefault(s, 0L) > 0)
                .findFirst();
    }
}
