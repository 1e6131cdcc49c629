package app.knottag.server.account;

import app.knottag.server.account.People.WorksAt;
import app.knottag.server.log.Log;
import app.knottag.server.web.Etags;
import app.knottag.server.web.Problem;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
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

    /** A site where somebody works. */
    record Workplace(long id, String name) {}

    /**
     * @param workplaces the sites where they work, when that is not everywhere
     * @param signedIn on how many machines they are signed in now
     */
    record PersonListed(
            long id,
            String name,
            Role role,
            boolean everySite,
            List<Workplace> workplaces,
            int version,
            @Nullable Instant closedAt,
            @Nullable Instant lastSeen,
            int signedIn) {}

    List<PersonListed> all() {
        var at = people.worksAt().stream().collect(Collectors.groupingBy(WorksAt::personId));
        return people.all().stream()
                .map(p -> new PersonListed(
                        p.id(),
                        p.name(),
                        p.role(),
                        p.everySite(),
                        at.getOrDefault(p.id(), List.of()).stream()
                                .map(w -> new Workplace(w.siteId(), w.site()))
                                .toList(),
                        p.version(),
                        p.closedAt(),
                        p.lastSeen(),
                        p.signedIn()))
                .toList();
    }

    People.Row get(long id) {
        return people.get(id).orElseThrow(() -> Problem.notFound("person"));
    }

    /**
     * What somebody may do, and where.
     *
     * @param everySite whether they work everywhere; leads do whatever stands here, so that it counts again when they are none
     * @param sites where else
     */
    record Standing(Role role, boolean closed, boolean everySite, Set<Long> sites) {
        Standing {
            sites = everySite ? Set.of() : Set.copyOf(sites);
        }
    }

    /** Changes it, from the next request on; a closed account is signed out everywhere. */
    @Transactional
    void change(long id, int version, Standing to, String by) {
        var person = get(id);
        var before = what(person, person.role(), person.closed());
        if (!to.everySite() && to.sites().isEmpty())
            throw Problem.field("sites", "no-site", "Choose at least one site, or every site.");
        boolean lead = to.role() == Role.LEAD && !to.closed();
        if (!lead && people.leads().equals(List.of(id)))
            throw Problem.of(
                    HttpStatus.CONFLICT,
                    "last-lead",
                    person.name() + " is the only lead. Make somebody else a lead first.");
        if (people.change(id, version, to.role(), to.everySite(), to.closed()) == 0) throw Etags.stale();
        people.leaveSites(id);
        if (!to.everySite() && people.joinSites(id, to.sites()) < to.sites().size())
            throw Problem.field("sites", "no-such-site", "One of these sites is not on record.");
        if (to.closed()) people.withdrawLinks(id);
        log.write(Log.entry(by, "changed person").before(before).after(what(person, to.role(), to.closed())));
    }

    private Map<String, Object> what(People.Row person, Role role, boolean closed) {
        return Map.of("name", person.name(), "role", role, "closed", closed, "sites", where(person.id()));
    }

    /** Returns the names of the sites where somebody works, or that it is every site. */
    private Object where(long id) {
        return people.everySite(id)
                ? "every site"
                : people.worksAt().stream()
                        .filter(w -> w.personId() == id)
                        .map(WorksAt::site)
                        .toList();
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
