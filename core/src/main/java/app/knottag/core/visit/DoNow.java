package app.knottag.core.visit;

/**
 * The one line for a pair of hands.
 *
 * @param unit id of the device, 0 when there is nothing to do
 * @param stretch which of its stretches
 * @param at minute at which it can be begun, now or later
 * @param because why this and nothing else, in one sentence
 */
public record DoNow(What what, long unit, int stretch, int at, String because) {

    /** What somebody is to do. */
    public enum What {
        /** Go on with what is in hand. */
        GO_ON,
        /** Do this now. */
        DO,
        /** Nothing can be done before that minute. */
        WAIT,
        /** Nothing is left for this person. */
        DONE
    }
}
