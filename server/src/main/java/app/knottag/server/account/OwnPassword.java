package app.knottag.server.account;

import app.knottag.server.log.Log;
import app.knottag.server.web.Problem;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.stereotype.Service;
import org.springframework.transaction.support.TransactionTemplate;

/** Changes one's own password, for whoever knows the one from before. */
@Service
class OwnPassword {

    private final People people;
    private final PasswordEncoder encoder;
    private final LoginLimit limit;
    private final Log log;
    private final TransactionTemplate transactions;

    OwnPassword(People people, PasswordEncoder encoder, LoginLimit limit, Log log, TransactionTemplate transactions) {
        this.people = people;
        this.encoder = encoder;
        this.limit = limit;
        this.log = log;
        this.transactions = transactions;
    }

    /** Refuses whoever does not know it; wrong ones are slowed as at the door. */
    People.Row check(String name, String current, String caller) {
        String key = Names.key(name);
        limit.tryNow(key, caller).ifPresent(wait -> {
            throw LoginLimit.tooMany(wait);
        });
        var person = people.named(name).orElseThrow();
        if (!encoder.matches(current, person.passwordHash()))
            throw Problem.field("current", "wrong-password", "This is not your password. Type it again.");
        limit.succeeded(key, caller);
        return person;
    }

    /** Returns the epoch from now on: sessions of one before have ended. */
    int change(String name, String current, String password, String caller) {
        var person = check(name, current, caller);
        Passwords.check(password, name);
        String hash = encoder.encode(password);
        transactions.executeWithoutResult(t -> {
            people.password(person.id(), hash);
            log.write(Log.entry(name, "set password"));
        });
        return person.epoch() + 1;
    }
}
