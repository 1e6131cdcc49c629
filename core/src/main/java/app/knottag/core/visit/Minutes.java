package app.knottag.core.visit;

import app.knottag.core.reading.ReadingException;
import java.util.random.RandomGenerator;

/**
 * How long something takes, in minutes, 0 to 1440.
 *
 * @param usual half of them take no longer
 * @param longest what is never passed, or hardly ever
 */
public record Minutes(int shortest, int usual, int longest) {

    /** Most minutes that anything takes: a day. */
    public static final int MOST = 1_440;

    /** Takes no time. */
    public static final Minutes NONE = new Minutes(0, 0, 0);

    public Minutes {
        if (shortest < 0 || shortest > usual || usual > longest || longest > MOST)
            throw new ReadingException("Minutes go from the shortest over the usual to the longest, 0 to " + MOST
                    + ", not " + shortest + ", " + usual + ", " + longest + ".");
    }

    /** Takes exactly this long. */
    public static Minutes exactly(int minutes) {
        return new Minutes(minutes, minutes, minutes);
    }

    /** Returns what is known of work that is only known by its usual minutes: seldom under two thirds or over twice that. */
    public static Minutes about(int usual) {
        return new Minutes(usual * 2 / 3, usual, Math.min(MOST, usual * 2));
    }

    /** Returns both, one after the other. */
    public Minutes plus(Minutes other) {
        return new Minutes(
                Math.min(MOST, shortest + other.shortest),
                Math.min(MOST, usual + other.usual),
                Math.min(MOST, longest + other.longest));
    }

    /** Returns the same, at least this long. */
    public Minutes atLeast(int minutes) {
        return new Minutes(Math.max(shortest, minutes), Math.max(usual, minutes), Math.max(longest, minutes));
    }

    /** Draws one: half of the draws lie on either side of the usual, evenly thinning out towards both ends. */
    public int draw(RandomGenerator random) {
        double side = 1 - Math.sqrt(random.nextDouble());
        int end = random.nextBoolean() ? longest : shortest;
        return (int) Math.round(usual + side * (end - usual));
    }
}
