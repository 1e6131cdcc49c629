package app.knottag.server.account;

import app.knottag.server.log.Log;
import app.knottag.server.web.Etags;
import app.knottag.server.web.Problem;
import java.util.List;
import java.util.Map;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Who works here, as what, and whether their account is open. Accounts are closed and never deleted: the log names them. */
@Service
class Colleagues {

    private final People people;
    private final SignedIn signedIn;
    private final Log log;

    Colleagues(People people, SignedIn signedIn, Log log) {
        this.people = people;
        this.signedIn = signedIn;
        this.log = log;
    }

    List<People.PersonListed> all() {
        return people.all();
    }

    People.Row get(long id) {
        return people.get(id).orElseThrow(() -> Problem.notFound("person"));
    }

    /** Changes what somebody may do, from the next request on; a closed account is signed out everywhere. */
    @Transactional
    void change(long id, int version, Role role, boolean closed, String by) {
        var person = get(id);
        boolean lead = role == Role.LEAD && !closed;
        if (!lead && people.leads().equals(List.of(id)))
            throw Problem.of(
                    HttpStatus.CONFLICT,
                    "last-lead",
                    person.name() + " is the only lead. Make somebody else a lead first.");
        if (people.change(id, version, role, closed) == 0) throw Etags.stale();
        if (closed) people.withdrawLinks(id);
        log.write(Log.entry(by, "changed person")
                .before(what(person.name(), person.role(), person.closed()))
                .after(what(person.name(), role, closed)));
    }

    private static Map<String, Object> what(String name, Role role, boolean closed) {
        return Map.of("name", name, "role", role, "closed", closed);
    }

    /** Signs somebody out on every machine. */
    @Transactional
    void endSessions(long id, String by) {
        var person = get(id);
        people.endSessions(id);
        signedIn.end(person.name(), "");
        log.write(Log.entry(by, "ended sign-ins").after(person.name()));
    }
}
