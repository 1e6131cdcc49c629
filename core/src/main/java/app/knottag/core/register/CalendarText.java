package app.knottag.core.register;

import java.nio.charset.StandardCharsets;

/** Calendars as text (RFC 5545). */
public final class CalendarText {

    private static final int MOST_OCTETS = 75;

    private CalendarText() {}

    /** Folds lines of more than 75 octets (RFC 5545, 3.1): cut between characters, continued behind a blank. */
    public static String fold(String text) {
        var folded = new StringBuilder(text.length() + 64);
        for (String line : text.split("\r\n", -1)) {
            if (folded.length() > 0) folded.append("\r\n");
            int octets = 0;
            for (int at = 0; at < line.length(); ) {
                int c = line.codePointAt(at);
                int more = new String(Character.toChars(c)).getBytes(StandardCharsets.UTF_8).length;
                if (octets + more > MOST_OCTETS) {
                    folded.append("\r\n ");
                    octets = 1;
                }
                folded.appendCodePoint(c);
                octets += more;
                at += Character.charCount(c);
            }
        }
        return folded.toString();
    }
}
