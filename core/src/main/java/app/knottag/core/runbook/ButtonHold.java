package app.knottag.core.runbook;

import app.knottag.core.kind.ResetRule;

/** Whether a reset button was held as long as it wants, by the seconds and the beeps. */
record ButtonHold(boolean holds, String words, String remedy) {

    /** Beyond this many times the longest hold some boxes do something else. */
    private static final int FAR = 2;

    /** Judges a hold; the beep decides when the seconds were counted badly. */
    public static ButtonHold of(ResetRule rule, int seconds, int beeps) {
        if (rule.seconds().isEmpty()) return new ButtonHold(true, "It has no button to hold.", "");
        int shortest = rule.seconds().get(0), longest = rule.seconds().get(1);
        String band = shortest + " to " + longest + " s";
        if (seconds > longest * FAR)
            return new ButtonHold(
                    false,
                    seconds + " s is far longer than " + band + "."
                            + (rule.longer().isEmpty() ? "" : " Held that long it " + rule.longer() + "."),
                    "Look what it did before anything else, and note it.");
        if (beeps != rule.beeps())
            return new ButtonHold(
                    false,
                    beeps + " beeps, and it should be " + rule.beeps() + "."
                            + (seconds < shortest ? " Held too short: nothing was reset." : ""),
                    "Hold it " + band + ", until it beeps, and let go.");
        if (seconds < shortest && rule.beeps() == 0)
            return new ButtonHold(false, "Held too short: nothing was reset.", "Hold it " + band + ".");
        return new ButtonHold(true, "Held as it wants.", "");
    }
}
