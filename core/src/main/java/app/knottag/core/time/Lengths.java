package app.knottag.core.time;

/** How long something is, as people say it. */
public final class Lengths {

    private Lengths() {}

    /** Writes so many seconds, 0 or more, in the largest unit of which there are two. */
    public static String of(long seconds) {
        if (seconds < 120) return seconds + " s";
        if (seconds < 7200) return seconds / 60 + " min";
        if (seconds < 172_800) {
            long minutes = seconds / 60 % 60;
            return seconds / 3600 + " h" + (minutes == 0 ? "" : " " + minutes + " min");
        }
        return seconds / 86_400 + " days";
    }
}
