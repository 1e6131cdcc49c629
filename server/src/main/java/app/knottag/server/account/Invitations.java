package app.knottag.server.account;

import app.knottag.core.log.Words;
import app.knottag.server.log.Log;
import app.knottag.server.web.Idempotency;
import app.knottag.server.web.Problem;
import java.security.SecureRandom;
import java.time.Clock;
import java.time.Duration;
import java.util.Base64;
import org.jspecify.annotations.Nullable;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.http.HttpStatus;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** One-time links by which a person makes an account. Only the hash of the link's token is kept. */
@Service
public class Invitations {

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
        return invite(role, false, by);
    }

    /** Returns the token for the first lead's account; one from before is good no longer. */
    @Transactional
    public String inviteFirstLead() {
        people.withdrawFirst();
        return invite(Role.LEAD, true, "Knot Tag");
    }

    private String invite(Role role, boolean first, String by) {
        byte[] bytes = new byte[24];
        random.nextBytes(bytes);
        String token = Base64.getUrlEncoder().withoutPadding().encodeToString(bytes);
        people.invite(Idempotency.sha256(token), role, clock.instant().plus(GOOD_FOR), first);
        log.write(Log.entry(by, "invited").after(role));
        return token;
    }

    /** The person whose name looks like that, or null when nobody is on record. */
    People.@Nullable Row known(String key) {
        return people.find(key);
    }

    public boolean nobodyYet() {
        return people.count() == 0;
    }

    @Transactional
    public void accept(String token, String name, String password) {
        checkName(name);
        Passwords.check(password, name);
        byte[] hash = Idempotency.sha256(token);
        Role role = people.invited(hash);
        if (role == null || people.use(hash) == 0)
            throw Problem.of(
                    HttpStatus.GONE,
                    "invitation-gone",
                    "This link was used already or is too old. Ask a lead for a new one.");
        add(name, role, password);
        people.withdrawFirst();
    }

    @Transactional
    public void add(String name, Role role, String password) {
        Passwords.check(password, name);
        String tidy = checkName(name);
        try {
            people.add(tidy, Names.key(tidy), role, encoder.encode(password));
        } catch (DuplicateKeyException e) {
            throw Problem.field(
                    "name",
                    "name-taken",
                    "There is a “" + tidy + "” already, or one that looks the same. Add a letter of the family name.");
        }
        log.write(Log.entry(tidy, "joined").after(role));
    }

    /** The rule of the table, so that nobody is refused there: 2 to 60 characters that can be seen. */
    private static String checkName(String name) {
        String tidy = Names.tidy(name);
        Words.problem(tidy, true).ifPresent(p -> {
            throw Problem.field("name", "bad-name", p);
        });
        int length = tidy.codePointCount(0, tidy.length());
        if (length < 2 || length > 60)
            throw Problem.field("name", "bad-name", "A name has 2 to 60 characters; this has " + length + ".");
        return tidy;
    }

    /** Gives everybody from before a key of their name; of two that look the same the first one keeps it. */
    @Transactional
    public void keyNames() {
        for (var person : people.unkeyed()) {
            String key = Names.key(person.name());
            people.key(person.id(), people.find(key) == null ? key : key + " " + person.id());
        }
    }
}
