package app.knottag.core.guard;

import app.knottag.core.reading.ReadingException;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Pattern;

/**
 * A history of wireless strengths against a threshold below which the router is restarted.
 *
 * @param below share of the history below the threshold, 0..1
 * @param weakest weakest strength seen, dBm
 * @param safe threshold that would never have restarted it, with a margin of 5 dB below the weakest seen, dBm
 */
record WirelessTrigger(int looked, double below, int weakest, int safe) {

    private static final int MARGIN = 5;
    private static final Pattern STRENGTH = Pattern.compile("(?<![0-9.:])-([0-9]{2,3})(?![0-9.:])");

    /**
     * Judges a pasted history; every line gives its last strength, such as {@code 14:05 -67 dBm}.
     *
     * @param threshold in dBm, below which it restarts
     * @throws ReadingException if no line holds a strength from -20 to -100
     */
    public static WirelessTrigger of(String history, int threshold) {
        var seen = strengths(history);
        if (seen.isEmpty())
            throw new ReadingException(
                    "No line holds a strength such as -67. Paste the history with one reading a line.");
        int weakest = seen.stream().mapToInt(Integer::intValue).min().orElseThrow();
        double below = (double) seen.stream().filter(s -> s < threshold).count() / seen.size();
        return new WirelessTrigger(seen.size(), below, weakest, weakest - MARGIN);
    }

    private static List<Integer> strengths(String history) {
        var seen = new ArrayList<Integer>();
        for (String line : history.split("\\R")) {
            STRENGTH.matcher(line.replace('−', '-').replace('–', '-'))
                    .results()
                    .map(m -> -Integer.parseInt(m.group(1)))
                    .filter(s -> s <= -20 && s >= -100)
                    .reduce((earlier, later) -> later)
                    .ifPresent(seen::add);
        }
        return seen;
    }
}
