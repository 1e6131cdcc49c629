package app.knottag.core.reading;

/** Words that came from a device: it may answer anything, so they are shown short and without control characters. */
public final class Printable {

    private static final int LONGEST = 60;

    private Printable() {}

    /** Returns the words as they can be shown. */
    public static String shown(String text) {
        String plain = text.replaceAll("\\p{Cntrl}", "?");
        return plain.length() > LONGEST ? plain.substring(0, LONGEST) + "…" : plain;
    }
}
