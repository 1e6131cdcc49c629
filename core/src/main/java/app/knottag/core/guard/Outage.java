package app.knottag.core.guard;

import java.util.ArrayList;
import java.util.List;
import java.util.OptionalInt;

/**
 * One outage from the second it begins, with a watched outlet before the router, at the worst moment: a router that hangs does
 * so just after a look, so the first look that fails comes one interval later; a line fails just before one, which makes most
 * restarts in vain. The line is down until it is back; after that the router, once started, is online.
 *
 * @param restarts seconds at which it switched the router off
 * @param gaveUp second at which it stopped trying, or empty
 * @param online second from which the router is online to stay, or empty when that never happens
 */
public record Outage(List<Integer> restarts, OptionalInt gaveUp, OptionalInt online) {

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
        return hangs(times, start, 1);
    }

    /**
     * Follows a router that hangs until it is restarted for the n-th time.
     *
     * @param needs restarts that it takes, at least 1
     */
    public static Outage hangs(OutletTimes times, int start, int needs) {
        return follow(times, start, 0, needs, times.every());
    }

    /**
     * Follows a line that fails at the provider for some time, with a sound router.
     *
     * @param start seconds that the router takes from power to online
     * @param lasts seconds that the line is down
     */
    public static Outage line(OutletTimes times, int start, int lasts) {
        return follow(times, start, lasts, 0, 0);
    }

    /** Whether the restarts themselves keep the router from starting. */
    public boolean loops() {
        return restarts.size() > 1 && (online.isEmpty() || gaveUp.isPresent() && online.getAsInt() > gaveUp.getAsInt());
    }

    private static Outage follow(OutletTimes times, int start, int lineBack, int needs, int firstLook) {
        var restarts = new ArrayList<Integer>();
        // Online from here on if nobody switches it off: a router that hangs is never, a sound one when its line is
        // back.
        long online = needs > 0 ? Long.MAX_VALUE : lineBack;
        long look = firstLook;
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
            if (restarts.size() >= needs) online = Math.max(on + start, lineBack);
            look = on + times.pause();
            failed = 0;
        }
    }
}
