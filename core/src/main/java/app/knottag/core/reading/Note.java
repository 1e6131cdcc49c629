package app.knottag.core.reading;

/** Something worth saying about a text that was nevertheless read with one meaning only. */
public record Note(Code code, String message) {

    /** Stable names of the notes, for programs. */
    public enum Code {
        FULL_WIDTH,
        BLANKS,
        OTHER_SEPARATORS,
        TRAILING_PERIOD,
        LEADING_ZEROS,
        ZERO_PADDED,
        PREFIX_LENGTH,
        MASK_FORM,
        IPV6,
        LABEL_WORD,
        SHORT_GROUPS,
        IRREGULAR_GROUPS,
        SAID
    }
}
