package app.knottag.core.log;

import java.util.Optional;
import java.util.regex.Pattern;

/** Finds what must never stand on record: passwords, PINs, keys, and card numbers (ISO/IEC 7812 check digit). */
public final class Secrets {

    private static final Pattern SPOKEN = Pattern.compile(
            "\\b(pass(?:word|phrase|code)?|pwd|pin|pincode|secret|(?:wi-?fi|network|pre-?shared|payment|private) key|psk)\\b"
                    + "\\s*(?:is|are|=|:|->)?\\s*(?!(?:changed|kept|set|unknown|still|was|not|in|at|on|by|with|and|or|missing|factory)\\b)"
                    + "(?=\\S*[\\d!#$%&*+@?])\\S{3,}",
            Pattern.CASE_INSENSITIVE);
    private static final Pattern CARD = Pattern.compile("\\b\\d(?:[ -]?\\d){12,18}\\b");

    private Secrets() {}

    /** Returns what kind of secret a free text seems to hold, in a word, or empty. */
    public static Optional<String> in(String text) {
        if (text == null) return Optional.empty();
        if (SPOKEN.matcher(text).find()) return Optional.of("password, PIN or key");
        return CARD.matcher(text).results().anyMatch(m -> luhn(m.group().replaceAll("\\D", "")))
                ? Optional.of("card number")
                : Optional.empty();
    }

    private static boolean luhn(String digits) {
        int sum = 0;
        for (int i = 0; i < digits.length(); i++) {
            int digit = digits.charAt(digits.length() - 1 - i) - '0';
            if (i % 2 == 1) digit = digit > 4 ? digit * 2 - 9 : digit * 2;
            sum += digit;
        }
        return sum % 10 == 0;
    }
}
