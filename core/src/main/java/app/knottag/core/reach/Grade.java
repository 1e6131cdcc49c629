package app.knottag.core.reach;

/** How good the proof of an endpoint is as a whole. */
public enum Grade {
    NONE("Not proved"),
    THIN("Thin: only said, or not all seen"),
    FAIR("Fair: its job was seen, some checks were not made"),
    FIRM("Firm: every check was made and holds");

    private final String words;

    Grade(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }

    /** From this grade on an endpoint can be handed over. */
    public boolean handsOver() {
        return compareTo(FAIR) >= 0;
    }
}
