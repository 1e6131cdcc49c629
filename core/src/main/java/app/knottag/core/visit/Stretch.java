package app.knottag.core.visit;

import java.util.List;

/**
 * What is done at one device in one go, and what runs by itself after it.
 *
 * @param steps keys of the steps of its runbook, in their order
 * @param title what it is, in working words
 * @param hands minutes that somebody stands beside it
 * @param alone minutes that it runs by itself afterwards
 * @param skill what somebody must be allowed to do, such as a qualified electrician, or empty for everybody
 * @param megabytes what it fetches over the line while it is alone, 0 when nothing
 */
public record Stretch(List<String> steps, String title, Minutes hands, Minutes alone, String skill, int megabytes) {
    public Stretch {
        steps = List.copyOf(steps);
    }

    /** Returns the same, of which nothing comes over the line that is reckoned with. */
    public Stretch offline() {
        return new Stretch(steps, title, hands, alone, skill, 0);
    }

    /** A stretch that anybody can do and that fetches nothing. */
    public static Stretch of(String key, Minutes hands, Minutes alone) {
        return new Stretch(List.of(key), key, hands, alone, "", 0);
    }
}
