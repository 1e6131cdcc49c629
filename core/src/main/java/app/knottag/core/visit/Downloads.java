package app.knottag.core.visit;

/**
 * Downloads that share one line. One alone takes size x 8 / speed; while it runs it takes of the line what it needs to be
 * done in its usual minutes, so that as many run at once as the line carries.
 */
public final class Downloads {

    private Downloads() {}

    /**
     * Returns how long a stretch runs by itself: as long as it usually does, but never less than its download takes alone.
     *
     * @param megabits speed of the line in Mbit/s, 0 when nothing is fetched over it
     */
    static Minutes minutes(Stretch stretch, double megabits) {
        if (stretch.megabytes() == 0 || megabits <= 0) return stretch.alone();
        return stretch.alone().atLeast((int) Math.min(Minutes.MOST, Math.ceil(alone(stretch.megabytes(), megabits))));
    }

    /** Returns what it takes of the line while it runs, in kbit/s, never more than there is; 0 when it fetches nothing. */
    static int kilobits(Stretch stretch, double megabits) {
        if (stretch.megabytes() == 0 || megabits <= 0) return 0;
        int usual = Math.max(1, minutes(stretch, megabits).usual());
        return (int) Math.min(megabits * 1_000, Math.ceil(stretch.megabytes() * 8_000.0 / (usual * 60)));
    }

    /** Returns the minutes that so many megabytes take on a line of their own. */
    public static double alone(int megabytes, double megabits) {
        return megabytes * 8 / megabits / 60;
    }
}
