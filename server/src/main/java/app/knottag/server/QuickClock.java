package app.knottag.server;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;

/**
 * A clock that goes several times as fast as that of the machine, so that a morning can be tried in a few minutes.
 *
 * @param from when both show the same
 * @param pace how many minutes go by in one, 1..120
 */
final class QuickClock extends Clock {

    private static final int MOST = 120;

    private final Clock machine;
    private final Instant from;
    private final int pace;

    QuickClock(Clock machine, Instant from, int pace) {
        if (pace < 1 || pace > MOST)
            throw new IllegalArgumentException("The clock goes 1 to " + MOST + " times as fast, not " + pace + ".");
        this.machine = machine;
        this.from = from;
        this.pace = pace;
    }

    @Override
    public Instant instant() {
        return from.plus(Duration.between(from, machine.instant()).multipliedBy(pace));
    }

    @Override
    public ZoneId getZone() {
        return machine.getZone();
    }

    @Override
    public Clock withZone(ZoneId zone) {
        return new QuickClock(machine.withZone(zone), from, pace);
    }
}
