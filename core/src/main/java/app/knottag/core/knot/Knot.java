package app.knottag.core.knot;

/** The five states: not done, under way, holds, failed, left out on purpose with a reason. */
public enum Knot {
    OPEN,
    HALF_DRAWN,
    TIGHT,
    FRAYED,
    LEFT_OUT
}
