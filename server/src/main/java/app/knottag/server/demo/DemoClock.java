package app.knottag.server.demo;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;

/**
 * The time of the job in the demo: it may go several times as fast as that of the machine, so that a morning can be tried in a
 * few minutes, and stands back while the demo makes up what happened some weeks ago.
 */
final class DemoClock extends Clock {

    private static final int MOST = 120;

    private final Clock machine;
    private final Instant from;
    private final int pace;
    private volatile Duration back = Duration.ZERO;

    /**
     * Makes the clock.
     *
     * @param from when it shows the same as that of the machine
     * @param pace how many minutes go by in one, 1..120
     */
    DemoClock(Clock machine, Instant from, int pace) {
        if (pace < 1 || pace > MOST)
            throw new IllegalArgumentException("The clock goes 1 to " + MOST + " times as fast, not " + pace + ".");
        this.machine = machine;
        this.from = from;
        this.pace = pace;
    }

    /** Lets it stand back by so much, until it is told otherwise. */
    void back(Duration back) {
        this.back = back;
    }

    @Override
    public Instant instant() {
        return from.plus(Duration.between(from, machine.instant()).multipliedBy(pace))
                .minus(back);
    }

    @Override
    public ZoneId getZone() {
        return machine.getZone();
    }

    @Override
    public Clock withZone(ZoneId zone) {
        var clock = new DemoClock(machine.withZone(zone), from, pace);
        clock.back(back);
        return clock;
    }
}
