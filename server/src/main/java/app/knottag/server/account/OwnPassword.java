package app.knottag.server.account;

import app.knottag.server.log.Log;
import app.knottag.server.web.Problem;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Changes one's own password, for whoever knows the one from before. */
@Service
class OwnPassword {

    private final People people;
    private final PasswordEncoder encoder;
    private final LoginLimit limit;
    private final Log log;

    OwnPassword(People people, PasswordEncoder encoder, LoginLimit limit, Log log) {
        this.people = people;
        this.encoder = encoder;
        this.limit = limit;
        this.log = log;
    }

    /** Returns the epoch from now on: sessions of one before have ended. */
    @Transactional
    int change(String name, String current, String password, String caller) {
        String key = Names.key(name);
        limit.tryNow(key, caller).ifPresent(wait -> {
            throw LoginLimit.tooMany(wait);
        });
        var person = people.find(key).orElseThrow();
        if (!encoder.matches(current, person.passwordHash()))
            throw Problem.field("current", "wrong-password", "This is not your password. Type it again.");
        limit.succeeded(key, caller);
        Passwords.check(password, name);
        people.password(person.id(), encoder.encode(password));
        log.write(Log.entry(name, "set password"));
        return person.epoch() + 1;
    }
}
