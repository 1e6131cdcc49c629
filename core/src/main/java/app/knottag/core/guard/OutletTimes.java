package app.knottag.core.guard;

import app.knottag.core.reading.ReadingException;
import java.util.OptionalInt;

/**
 * What is set on a watched outlet; all times in seconds.
 *
 * @param every time between two looks, at least 1
 * @param tries looks in a row that must fail before it restarts, at least 1
 * @param off how long it switches off, at least 1
 * @param pause time from switching on to its first look
 * @param most restarts after which it gives up, or empty when it never does
 */
public record OutletTimes(int every, int tries, int off, int pause, OptionalInt most) {

    public OutletTimes {
        if (every < 1 || tries < 1 || off < 1 || pause < 0 || most.orElse(1) < 1)
            throw new ReadingException("Looks, tries, seconds off and restarts are at least 1, the wait at least 0.");
    }

    /** Returns the seconds from a line that fails to the first restart, at most. */
    public int detection() {
        return tries * every;
    }

    /** Returns the longest start of a router, from switching on, that is not cut short. */
    public int longestStart() {
        return pause + (tries - 1) * every;
    }

    /** Returns the seconds from one restart to the next while nothing gets better. */
    public int cycle() {
        return off + longestStart();
    }

    /** Returns the seconds from a line that fails until it gives up, or empty when it never does. */
    public OptionalInt givesUpAfter() {
        return most.isPresent() ? OptionalInt.of(detection() + most.getAsInt() * cycle()) : OptionalInt.empty();
    }

    /** Returns the same with another wait before looking again. */
    public OutletTimes withPause(int seconds) {
        return new OutletTimes(every, tries, off, seconds, most);
    }

    /** Returns the same with another number of tries. */
    public OutletTimes withTries(int number) {
        return new OutletTimes(every, number, off, pause, most);
    }
}
