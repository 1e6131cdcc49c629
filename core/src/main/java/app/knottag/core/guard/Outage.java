package app.knottag.core.guard;

import java.util.ArrayList;
import java.util.List;
import java.util.OptionalInt;

/**
 * One outage from the second it begins, with a watched outlet before the router. It begins just after a look, which is the
 * worst moment, so the first look that fails comes one interval later. The line is down until {@code lineBack}; after that
 * the router, once started, is online. A router that hangs is a line that is back at once, and a router that must restart.
 *
 * @param restarts seconds at which it switched the router off
 * @param gaveUp second at which it stopped trying, or empty
 * @param online second from which the router is online to stay, or empty when that never happens
 */
record Outage(List<Integer> restarts, OptionalInt gaveUp, OptionalInt online) {

    /** Restarts after which a loop is called endless. */
    private static final int ENDLESS = 200;

    public Outage {
        restarts = List.copyOf(restarts);
    }

    /**
     * Follows a router that hangs until it is restarted.
     *
     * @param start seconds that the router takes from power to online
     */
    public static Outage hangs(OutletTimes times, int start) {
        return follow(times, start, 0, true);
    }

    /**
     * Follows a line that fails at the provider for some time, with a sound router.
     *
     * @param start seconds that the router takes from power to online
     * @param lasts seconds that the line is down
     */
    public static Outage line(OutletTimes times, int start, int lasts) {
        return follow(times, start, lasts, false);
    }

    /** Whether the restarts themselves keep the router from starting. */
    public boolean loops() {
        return restarts.size() > 1 && (online.isEmpty() || gaveUp.isPresent() && online.getAsInt() > gaveUp.getAsInt());
    }

    private static Outage follow(OutletTimes times, int start, int lineBack, boolean hangs) {
        var restarts = new ArrayList<Integer>();
        // Online from here on if nobody switches it off: a router that hangs is never, a sound one when its line is
        // back.
        long online = hangs ? Long.MAX_VALUE : lineBack;
        long look = times.every();
        int failed = 0;
        while (true) {
            if (look >= online) return new Outage(restarts, OptionalInt.empty(), OptionalInt.of((int) online));
            if (++failed < times.tries()) {
                look += times.every();
                continue;
            }
            if (restarts.size() == times.most().orElse(ENDLESS)) {
                if (times.most().isEmpty()) return new Outage(restarts, OptionalInt.empty(), OptionalInt.empty());
                return new Outage(
                        restarts,
                        OptionalInt.of((int) look),
                        online == Long.MAX_VALUE ? OptionalInt.empty() : OptionalInt.of((int) online));
            }
            restarts.add((int) look);
            long on = look + times.off();
            online = Math.max(on + start, lineBack);
            look = on + times.pause();
            failed = 0;
        }
    }
}
