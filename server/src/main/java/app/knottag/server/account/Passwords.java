package app.knottag.server.account;

import app.knottag.server.web.Idempotency;
import app.knottag.server.web.Problem;
import com.nulabinc.zxcvbn.Zxcvbn;
import java.text.Normalizer;
import java.util.Base64;
import java.util.List;
import java.util.Map;
import org.springframework.security.crypto.bcrypt.BCryptPasswordEncoder;
import org.springframework.security.crypto.password.DelegatingPasswordEncoder;
import org.springframework.security.crypto.password.PasswordEncoder;

/**
 * Which passwords are taken, and how they are kept. A length is counted in characters as a person counts them; what is
 * hashed is of fixed length, so that bcrypt's limit of 72 bytes is nobody's.
 */
final class Passwords {

    static final int SHORTEST = 10;
    static final int LONGEST = 128;
    private static final int GUESSED_SOON = 2;
    private static final int LOOKED_AT = 60;
    private static final String ID = "sha-bcrypt";
    private static final Zxcvbn GUESSES = new Zxcvbn();

    private Passwords() {}

    static PasswordEncoder encoder() {
        var plain = new BCryptPasswordEncoder(12);
        var hashed = new PasswordEncoder() {
            @Override
            public String encode(CharSequence password) {
                return plain.encode(fixed(password));
            }

            @Override
            public boolean matches(CharSequence password, String kept) {
                return plain.matches(fixed(password), kept);
            }
        };
        var all = new DelegatingPasswordEncoder(ID, Map.of(ID, hashed));
        // Accounts from before were kept without a mark.
        all.setDefaultPasswordEncoderForMatches(plain);
        return all;
    }

    private static String fixed(CharSequence password) {
        String text = Normalizer.normalize(password, Normalizer.Form.NFC);
        return Base64.getEncoder().encodeToString(Idempotency.sha256(text));
    }

    /** Refuses a password that is too short, or that is among those tried first. */
    static void check(String password, String name) {
        int length = password.codePointCount(0, password.length());
        if (length < SHORTEST || length > LONGEST)
            throw Problem.field(
                    "password",
                    "password-length",
                    "A password has " + SHORTEST + " to " + LONGEST + " characters; this has " + length + ".");
        String looked = password.length() > LOOKED_AT ? password.substring(0, LOOKED_AT) : password;
        var guessed = GUESSES.measure(looked, List.of(name, "status", "knottag", "knot tag"));
        if (guessed.getScore() < GUESSED_SOON)
            throw Problem.field(
                    "password",
                    "password-common",
                    "This password is among those that are tried first. Take three or four words that have nothing to do with each other.");
    }
}
