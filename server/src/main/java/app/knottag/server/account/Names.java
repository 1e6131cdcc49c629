package app.knottag.server.account;

import com.ibm.icu.text.SpoofChecker;
import java.text.Normalizer;
import java.util.Locale;

/** Names of people as they look: two that cannot be told apart on a screen are one (Unicode TS 39). */
final class Names {

    private static final SpoofChecker LOOKS = new SpoofChecker.Builder().build();

    private Names() {}

    /** Returns the name with single plain blanks and without blanks around it. */
    static String tidy(String name) {
        return Normalizer.normalize(name, Normalizer.Form.NFKC)
                .replaceAll("[\\s\\u00a0\\u2000-\\u200a\\u202f\\u205f\\u3000]+", " ")
                .strip();
    }

    /** Returns what all names have in common that look alike. */
    static String key(String name) {
        // Capitals first, since some letters look alike only small, and again afterwards, since a skeleton may bring
        // some.
        return LOOKS.getSkeleton(tidy(name).toLowerCase(Locale.ROOT)).toLowerCase(Locale.ROOT);
    }
}
