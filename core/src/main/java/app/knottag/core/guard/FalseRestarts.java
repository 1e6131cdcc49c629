package app.knottag.core.guard;

/** How often a sound line is restarted because looks were lost by chance. */
final class FalseRestarts {

    private static final double SECONDS_A_MONTH = 30 * 86_400.0;
    /** Most tries that are worth proposing. */
    private static final int MOST_TRIES = 20;

    private FalseRestarts() {}

    /**
     * Returns the share of looks that fail though the line is up: all targets lost at once, or the way to the router.
     *
     * @param perTarget share of looks lost beyond the router, 0..1, of each target by itself
     * @param own share of looks lost on the outlet's own wireless, 0..1, whichever target it asks
     * @param targets number of targets that must all fail, at least 1
     */
    public static double lost(double perTarget, double own, int targets) {
        return own + (1 - own) * Math.pow(perTarget, targets);
    }

    /**
     * Returns the restarts in 30 days of a line that never fails. The looks until so many in a row are lost follow the run
     * of failures of independent trials (Feller, An Introduction to Probability Theory and Its Applications, vol. 1, XIII.7).
     *
     * @param lost share of looks that fail by chance, 0..1
     */
    public static double aMonth(OutletTimes times, double lost) {
        if (lost <= 0) return 0;
        double seconds;
        if (lost >= 1) seconds = times.cycle();
        else {
            double run = Math.pow(lost, times.tries());
            double looks = (1 - run) / (run * (1 - lost));
            seconds = (looks - 1) * times.every() + times.off() + times.pause();
        }
        return SECONDS_A_MONTH / seconds;
    }

    /** Returns the fewest tries with less than one a month, at least those that are set; 20 is the most that is looked at. */
    public static int triesForLessThanOne(OutletTimes times, double lost) {
        int tries = times.tries();
        while (tries < MOST_TRIES && aMonth(times.withTries(tries), lost) >= 1) tries++;
        return tries;
    }
}
