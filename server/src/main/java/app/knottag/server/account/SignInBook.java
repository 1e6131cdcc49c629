package app.knottag.server.account;

import app.knottag.server.account.SignIns.What;
import java.util.List;
import java.util.Optional;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;

/** Keeps who came in and who did not, for the leads and in the log of the machine. */
@Component
class SignInBook {

    private static final Logger LOG = LoggerFactory.getLogger(SignInBook.class);

    private final SignIns store;

    SignInBook(SignIns store) {
        this.store = store;
    }

    void note(What what, Optional<People.Row> person, String caller) {
        String who = person.map(p -> "person " + p.id()).orElse("nobody on record");
        if (what == What.ENTERED || what == What.LEFT) LOG.info("Sign-in, {}: {} from {}", what, who, caller);
        else LOG.warn("Sign-in, {}: {} from {}", what, who, caller);
        store.add(person.map(People.Row::id).orElse(null), caller, what);
    }

    List<SignIns.SignInLine> lines(long below) {
        return store.lines(below);
    }

    @Scheduled(cron = "0 50 3 * * *")
    void forget() {
        store.forget();
    }
}
