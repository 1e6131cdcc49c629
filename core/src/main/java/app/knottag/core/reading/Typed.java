package app.knottag.core.reading;

/**
 * A text as people and small screens produce it, made plain character by character so that positions stay those of
 * the text as typed: full-width and other scripts' digits, full-width letters and marks, and every kind of blank.
 */
public record Typed(String plain, boolean wide) {

    /** Longest text that a reader looks at, in characters. */
    public static final int MAX_LENGTH = 100;

    /** Makes a text plain; it keeps its length. */
    public static Typed of(String text) {
        var plain = new StringBuilder(text.length());
        boolean wide = false;
        for (int i = 0; i < text.length(); i++) {
            char c = text.charAt(i);
            char p = plain(c);
            wide |= p != c && p != ' ';
            plain.append(p);
        }
        return new Typed(plain.toString(), wide);
    }

    private static char plain(char c) {
        if (c < 128) return Character.isWhitespace(c) ? ' ' : c;
        if (Character.isDigit(c)) return (char) ('0' + Character.digit(c, 10));
        if (c >= 0xFF01 && c <= 0xFF5E) return (char) (c - 0xFEE0);
        if (c == 0x3002 || c == 0xFF61 || c == 0x00B7 || c == 0x2022 || c == 0x2024) return '.';
        if (c == 0x3001 || c == 0x060C) return ',';
        if (c >= 0x2010 && c <= 0x2015 || c == 0x2212) return '-';
        boolean blank = Character.isWhitespace(c) || Character.isSpaceChar(c);
        return blank || Character.getType(c) == Character.FORMAT ? ' ' : c;
    }

    /** Whether the character is one of 0 to 9. */
    public static boolean digit(char c) {
        return c >= '0' && c <= '9';
    }
}
