package app.knottag.core.visit;

import app.knottag.core.reading.ReadingException;
import java.util.List;

/**
 * A stretch of time in which somebody is there, or a place is free.
 *
 * @param from minutes from the beginning of the visit
 * @param until the first minute that is no longer part of it, after {@code from}
 */
public record Window(int from, int until) {

    /** Longest visit that can be planned, in minutes: three days. */
    public static final int HORIZON = 3 * 1_440;

    /** All the time. */
    public static final List<Window> ALWAYS = List.of(new Window(0, HORIZON));

    public Window {
        if (from < 0 || until <= from || until > HORIZON)
            throw new ReadingException("A window goes from one minute of the visit to a later one, not from " + from
                    + " to " + until + ".");
    }

    /** Returns the first minute from which so many minutes lie in one window, or -1 when there is none. */
    static int earliest(List<Window> windows, int from, int minutes) {
        int best = -1;
        for (var w : windows) {
            int at = Math.max(from, w.from);
            if (at + minutes <= w.until && (best < 0 || at < best)) best = at;
        }
        return best;
    }
}
