package app.knottag.server.account;

import app.knottag.core.log.Words;
import app.knottag.server.account.People.Invited;
import app.knottag.server.log.Log;
import app.knottag.server.web.Idempotency;
import app.knottag.server.web.Problem;
import java.security.SecureRandom;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.Base64;
import java.util.List;
import java.util.Optional;
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
    private final Passkeys passkeys;
    private final SecureRandom random = new SecureRandom();

    Invitations(People people, PasswordEncoder encoder, Clock clock, Log log, Passkeys passkeys) {
        this.people = people;
        this.encoder = encoder;
        this.clock = clock;
        this.log = log;
        this.passkeys = passkeys;
    }

    /** Returns the token of a new invitation; it is shown once and never again. */
    @Transactional
    public String invite(Role role, String by) {
        return invite(new Invited(role, until(), false, by, null));
    }

    /** Returns the token for the first lead's account; one from before is good no longer. */
    @Transactional
    public String inviteFirstLead() {
        people.withdrawFirst();
        return invite(new Invited(Role.LEAD, until(), true, "Knot Tag", null));
    }

    private String invite(Invited invited) {
        log.write(Log.entry(invited.by(), "invited").after(invited.role()));
        return link(invited);
    }

    private Instant until() {
        return clock.instant().plus(GOOD_FOR);
    }

    private String link(Invited invited) {
        byte[] bytes = new byte[24];
        random.nextBytes(bytes);
        String token = Base64.getUrlEncoder().withoutPadding().encodeToString(bytes);
        people.invite(Idempotency.sha256(token), invited);
        return token;
    }

    /** Returns the token of a link by which somebody on record sets a new password; one from before is good no longer. */
    @Transactional
    String passwordLink(People.Row person, String by) {
        if (person.closed())
            throw Problem.of(
                    HttpStatus.CONFLICT,
                    "account-closed",
                    "The account of " + person.name() + " is closed. Open it first.");
        people.withdrawLinks(person.id());
        log.write(Log.entry(by, "made password link").after(person.name()));
        return link(new Invited(person.role(), until(), false, by, person.id()));
    }

    /** Sets the password of whoever a link was made for; whoever is signed in as that person is no longer, and no passkey is. */
    @Transactional
    void setPassword(String token, String password) {
        byte[] hash = Idempotency.sha256(token);
        var person = people.sets(hash).flatMap(people::get).orElseThrow(Invitations::gone);
        Passwords.check(password, person.name());
        if (people.use(hash) == 0) throw gone();
        people.password(person.id(), encoder.encode(password));
        passkeys.removeAll(person.name());
        log.write(Log.entry(person.name(), "set password").because("by a link"));
    }

    List<People.OpenLink> open() {
        return people.open();
    }

    @Transactional
    void withdraw(long id, String by) {
        if (people.withdraw(id) == 0) throw Problem.notFound("open link");
        log.write(Log.entry(by, "withdrew link").after(id));
    }

    private static Problem gone() {
        return Problem.of(
                HttpStatus.GONE,
                "invitation-gone",
                "This link was used already or is too old. Ask a lead for a new one.");
    }

    /** The person who is called so to the letter. */
    Optional<People.Row> named(String name) {
        return people.named(name);
    }

    /** The person whose name looks like that. */
    Optional<People.Row> known(String key) {
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
        if (role == null || people.use(hash) == 0) throw gone();
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
            people.key(person.id(), people.find(key).isEmpty() ? key : key + " " + person.id());
        }
    }
}
