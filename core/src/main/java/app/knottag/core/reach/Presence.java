package app.knottag.core.reach;

import app.knottag.core.address.Ipv4Address;
import java.time.Duration;
import java.util.concurrent.locks.LockSupport;

/**
 * How somebody at an address showed that it is there, in this round: any answer counts, an old entry of the neighbour table
 * never does. Firewalls drop echoes of devices that work.
 */
public enum Presence {
    /** It answered an echo. */
    ECHO,
    /** It opened or refused its port. */
    PORT,
    /** It answered only to the question for its MAC. */
    MAC,
    /** Nothing came back. */
    NONE;

    /** A question for a MAC that is under way is settled after so long (RFC 4861 sets the pace for both families). */
    private static final Duration SETTLED = Duration.ofSeconds(8);

    private static final Duration PAUSE = Duration.ofMillis(400);

    /** Looks for any answer of an address, cheapest first. */
    static Presence of(Ipv4Address address, int port, Probes probes) {
        if (probes.answers(address)) return ECHO;
        var connection = probes.connect(address, port);
        if (connection == Probes.Connection.OPEN || connection == Probes.Connection.REFUSED) return PORT;
        long end = System.nanoTime() + SETTLED.toNanos();
        while (true) {
            var entry = probes.neighbours().stream()
                    .filter(n -> n.address().equals(address))
                    .findFirst();
            if (entry.filter(Neighbour::confirmed).isPresent()) return MAC;
            boolean pending =
                    entry.filter(n -> n.state() == Neighbour.State.PENDING).isPresent();
            if (!pending || System.nanoTime() >= end) return NONE;
            LockSupport.parkNanos(PAUSE.toNanos());
        }
    }
}
