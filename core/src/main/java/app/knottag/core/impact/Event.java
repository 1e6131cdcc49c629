package app.knottag.core.impact;

/** What can happen to a thing. */
public enum Event {
    /** Another one stands in its place, with nothing set. */
    REPLACED,
    /** It has another address, or another prefix. */
    READDRESSED,
    /** The gateway of a network is another, and its prefix is not. */
    REGATED,
    /** Its password is another. */
    NEW_SECRET,
    /** It is there no longer. */
    GONE,
    /** It is plugged in elsewhere. */
    MOVED,
    /** Somebody set something on it, so that it must show that it still works. */
    MENDED
}
