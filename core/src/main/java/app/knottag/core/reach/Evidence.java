package app.knottag.core.reach;

import java.time.Duration;
import java.time.Instant;

/** How strong a proof is, by where it comes from and how old it is. */
public enum Evidence {
    SPOKEN("said on the phone", 1),
    SEEN("seen", 2),
    PHOTO("photographed", 3),
    READ_BACK("read back", 3),
    TOOL("measured", 4);

    /** After so long a proof counts one grade less: devices drift. */
    public static final Duration FRESH = Duration.ofDays(30);

    private final String words;
    private final int strength;

    Evidence(String words, int strength) {
        this.words = words;
        this.strength = strength;
    }

    public String words() {
        return words;
    }

    /** Returns the strength 0..4 of a proof of this kind that was made at one time, as it counts at another. */
    public int strength(Instant made, Instant now) {
        return made.plus(FRESH).isBefore(now) ? strength - 1 : strength;
    }
}
