package app.knottag.core.kind;

/**
 * What a light, an icon or a beep of a device means.
 *
 * @param part which light or icon it is
 * @param colour its colour, or how the icon is drawn
 * @param beeps how many beeps go with it, 0 for none
 * @param holds whether it is as it should be
 * @param act what to do about it, or empty
 */
public record Signal(
        String part,
        String colour,
        Steadiness steadiness,
        int beeps,
        Beep beep,
        String means,
        boolean holds,
        String act) {

    /** How a light shines. */
    public enum Steadiness {
        STEADY,
        BLINKING,
        OFF
    }

    /** How long a beep is: short under half a second. */
    public enum Beep {
        NONE,
        SHORT,
        LONG
    }

    public Signal {
        act = KindCheck.orEmpty(act);
        beep = beep == null ? Beep.NONE : beep;
        if (beeps < 0 || (beeps > 0) == (beep == Beep.NONE))
            throw new IllegalArgumentException("beeps need a length, and a length needs beeps: " + means);
    }

    /** Returns the signal in words, such as “green, blinking, 2 short beeps”. */
    public String words() {
        return words(colour, steadiness, beeps, beep);
    }

    static String words(String colour, Steadiness steadiness, int beeps, Beep beep) {
        String light = steadiness == Steadiness.OFF
                ? "off"
                : colour + ", " + (steadiness == Steadiness.STEADY ? "steady" : "blinking");
        return beeps == 0
                ? light
                : light + ", " + beeps + (beep == Beep.SHORT ? " short " : " long ") + (beeps == 1 ? "beep" : "beeps");
    }
}
