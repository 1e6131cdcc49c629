package app.knottag.core.hardware;

import app.knottag.core.reading.ReadingException;
import java.util.Optional;

/**
 * A wall or floor data point.
 *
 * @param place name of the place where it is, or empty
 * @param portId port it is patched to; only when its state is PATCHED
 */
public record Outlet(long id, String name, String place, State state, Optional<Long> portId) {

    public Outlet {
        if ((state == State.PATCHED) != portId.isPresent())
            throw new ReadingException("an outlet is patched to a port, or has none: " + name);
    }

    /** Whether the outlet leads anywhere. */
    public enum State {
        PATCHED,
        DEAD,
        UNKNOWN
    }
}
