package app.knottag.server.session;

import app.knottag.core.log.Words;
import app.knottag.server.log.Log;
import app.knottag.server.web.Idempotency;
import app.knottag.server.web.Problem;
import java.security.SecureRandom;
import java.time.Clock;
import java.time.Duration;
import java.util.Base64;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.http.HttpStatus;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** One-time links by which a person makes an account. Only the hash of the link's token is kept. */
@Service
public class Invitations {

    static final int SHORTEST_PASSWORD = 10;
    private static final int LONGEST_PASSWORD = 64;
    private static final Duration GOOD_FOR = Duration.ofDays(2);

    private final People people;
    private final PasswordEncoder encoder;
    private final Clock clock;
    private final Log log;
    private final SecureRandom random = new SecureRandom();

    Invitations(People people, PasswordEncoder encoder, Clock clock, Log log) {
        this.people = people;
        this.encoder = encoder;
        this.clock = clock;
        this.log = log;
    }

    /** Returns the token of a new invitation; it is shown once and never again. */
    @Transactional
    public String invite(Role role, String by) {
        byte[] bytes = new byte[24];
        random.nextBytes(bytes);
        String token = Base64.getUrlEncoder().withoutPadding().encodeToString(bytes);
        people.invite(Idempotency.sha256(token), role, clock.instant().plus(GOOD_FOR));
        log.write(Log.entry(by, "invited").after(role));
        return token;
    }

    public boolean nobodyYet() {
        return people.count() == 0;
    }

    @Transactional
    public void accept(String token, String name, String password) {
        Words.problem(name, true).ifPresent(p -> {
            throw Problem.field("name", "bad-name", p);
        });
        byte[] hash = Idempotency.sha256(token);
        Role role = people.invited(hash);
        if (role == null || people.use(hash) == 0)
            throw Problem.of(
                    HttpStatus.GONE,
                    "invitation-gone",
                    "This link was used already or is too old. Ask a lead for a new one.");
        add(name.strip(), role, password);
    }

    @Transactional
    public void add(String name, Role role, String password) {
        if (password.length() < SHORTEST_PASSWORD || password.length() > LONGEST_PASSWORD)
            throw Problem.field(
                    "password",
                    "password-length",
                    "A password has " + SHORTEST_PASSWORD + " to " + LONGEST_PASSWORD + " characters; this has "
                            + password.length() + ".");
        try {
            people.add(name, role, encoder.encode(password));
        } catch (DuplicateKeyException e) {
            throw Problem.field(
                    "name", "name-taken", "There is a “" + name + "” already. Add a letter of the family name.");
        }
        log.write(Log.entry(name, "joined").after(role));
    }
}
