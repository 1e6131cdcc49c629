package app.knottag.core.log;

import app.knottag.core.reading.Typed;
import java.util.Optional;

/** Rules for free words on record: short, no control characters, nothing a spreadsheet would run, no secret. */
public final class Words {

    private Words() {}

    /** Marks that are not seen and change how a text reads: bidirectional controls (UAX 9), joiners, tags, lone halves. */
    private static boolean hidden(int c) {
        int type = Character.getType(c);
        boolean break_ = type == Character.LINE_SEPARATOR || type == Character.PARAGRAPH_SEPARATOR;
        return type == Character.FORMAT && c != 0xAD
                || break_
                || type == Character.SURROGATE
                || type == Character.UNASSIGNED;
    }

    /** Returns what is wrong with the words, or empty. */
    public static Optional<String> problem(String text, boolean needed) {
        if (text.isBlank()) return needed ? Optional.of("This is missing.") : Optional.empty();
        if (text.length() > 120) return Optional.of("At most 120 characters; this has " + text.length() + ".");
        if (text.chars().anyMatch(Character::isISOControl))
            return Optional.of("Line breaks and control characters cannot stand here.");
        if (text.codePoints().anyMatch(Words::hidden))
            return Optional.of(
                    "An invisible character stands in it, such as one that turns the writing round. Type it anew.");
        String plain = Typed.of(text).plain().strip();
        if (!plain.isEmpty() && "=+-@".indexOf(plain.charAt(0)) >= 0)
            return Optional.of(
                    "It may not begin with “" + plain.charAt(0) + "”: spreadsheets would take it for a formula.");
        return Secrets.in(text)
                .map(what ->
                        "This looks like a " + what + ". Knot Tag keeps no secrets: write down only where it is kept.");
    }
}
