package app.knottag.core.reading;

import org.jspecify.annotations.Nullable;

/**
 * The slip of the hand that turns the expected text into what was typed.
 *
 * @param position index in the canonical typed text, counted from 0, or null when the whole text is meant
 * @param group group of figures it happened in, counted from 1, or null
 */
public record Slip(
        Kind kind,
        String message,
        @Nullable Integer position,
        @Nullable Integer group) {

    /** How the hand slipped; {@link #DIFFERENT} when no single slip explains the text. */
    public enum Kind {
        DROPPED,
        DOUBLED,
        SWAPPED,
        NEIGHBOUR_KEY,
        ADDED_GROUP,
        MISSING_PERIOD,
        WRONG_GROUP,
        LOOK_ALIKE,
        WRONG_DIGIT,
        NEIGHBOUR_INTERFACE,
        DIFFERENT
    }
}
