package app.knottag.core.figure;

/**
 * Something that a worksheet has to say about what was keyed in.
 *
 * @param code stable name, for programs and tests
 * @param field path of the field it is about, such as {@code drives/0/size}, or empty for the whole
 * @param wayOut what to do, or empty
 */
public record SheetFinding(String code, Weight weight, String field, String message, String wayOut) {

    /** How much it weighs. */
    public enum Weight {
        /** It does not go like this. */
        STOPS,
        /** It goes, and somebody will be sorry. */
        WARNS,
        /** Worth knowing. */
        NOTES
    }

    /** Makes one that does not let it go on. */
    public static SheetFinding stop(String code, String field, String message, String wayOut) {
        return new SheetFinding(code, Weight.STOPS, field, message, wayOut);
    }

    /** Makes one that warns. */
    public static SheetFinding warn(String code, String field, String message, String wayOut) {
        return new SheetFinding(code, Weight.WARNS, field, message, wayOut);
    }

    /** Makes one that is worth knowing. */
    public static SheetFinding note(String code, String field, String message) {
        return new SheetFinding(code, Weight.NOTES, field, message, "");
    }
}
