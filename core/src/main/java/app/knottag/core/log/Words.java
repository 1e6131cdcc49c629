package app.knottag.core.log;

import java.util.Optional;

/** Rules for free words on record: short, no control characters, nothing a spreadsheet would run, no secret. */
public final class Words {

    private Words() {}

    /** Returns what is wrong with the words, or empty. */
    public static Optional<String> problem(String text, boolean needed) {
        if (text.isBlank()) return needed ? Optional.of("This is missing.") : Optional.empty();
        if (text.length() > 120) return Optional.of("At most 120 characters; this has " + text.length() + ".");
        if (text.chars().anyMatch(Character::isISOControl))
            return Optional.of("Line breaks and control characters cannot stand here.");
        if ("=+-@".indexOf(text.charAt(0)) >= 0)
            return Optional.of(
                    "It may not begin with “" + text.charAt(0) + "”: spreadsheets would take it for a formula.");
        return Secrets.in(text)
                .map(what ->
                        "This looks like a " + what + ". Knot Tag keeps no secrets: write down only where it is kept.");
    }
}
