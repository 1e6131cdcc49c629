package app.knottag.server.register;

import app.knottag.core.register.Registration;
import app.knottag.core.register.Registry;
import app.knottag.core.register.RegistryEntry;
import app.knottag.core.register.Unit;
import app.knottag.server.change.Consequences;
import app.knottag.server.log.Log;
import app.knottag.server.record.EndpointStore;
import app.knottag.server.record.RegistrationStore;
import app.knottag.server.record.RegistrationStore.RegistrationRow;
import app.knottag.server.record.RegistryBook;
import app.knottag.server.register.EntryForm.EntryAct;
import app.knottag.server.register.EntryForm.EntryWish;
import app.knottag.server.web.Etags;
import app.knottag.server.web.Problem;
import java.time.Clock;
import java.util.Map;
import org.springframework.http.HttpStatus;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Hands single units in to registries and keeps how each entry stands. */
@Service
class Registrations {

    /** What can be done with an entry. */
    public enum Act {
        HAND_IN,
        ENTER,
        RESTARTED,
        RENEW,
        TAKE_OUT,
        ISSUED,
        CHANGE
    }

    private final RegistrationStore store;
    private final RegistryBook book;
    private final RegistryLines shown;
    private final EndpointStore endpoints;
    private final Consequences consequences;
    private final Log log;
    private final Clock clock;

    Registrations(
            RegistrationStore store,
            RegistryBook book,
            RegistryLines shown,
            EndpointStore endpoints,
            Consequences consequences,
            Log log,
            Clock clock) {
        this.store = store;
        this.book = book;
        this.shown = shown;
        this.endpoints = endpoints;
        this.consequences = consequences;
        this.log = log;
        this.clock = clock;
    }

    /** Puts a unit into a registry: handed in, or seen standing there. */
    @Transactional
    long add(long registryId, EntryWish wish, String by) {
        var row = shown.registry(registryId);
        var site = book.site(row.siteId());
        var registry = site.registries().get(registryId);
        var unit = RegistryLines.unit(site, wish.endpointId());
        var entry = RegistryLines.entry(registry, unit, wish.people());
        if (site.row(registryId, unit.id()).isPresent())
            throw Problem.conflict(
                    "endpointId", "registered", unit.name() + " stands in " + registry.name() + " already.", Map.of());
        RegistryLines.refuse(shown.judge(site, registry).judge(unit, entry), wish.reason());
        long id = put(registry, unit, entry, wish.entered(), by, wish.reason());
        consequences.stand(unit.id());
        return id;
    }

    long put(Registry registry, Unit unit, RegistryEntry e, boolean entered, String by, String reason) {
        var now = clock.instant();
        long siteId = shown.registry(registry.id()).siteId();
        long id = store.add(new RegistrationRow(
                0,
                registry.id(),
                siteId,
                unit.id(),
                e.name(),
                e.mac().orElse(null),
                e.address().orElse(null),
                e.serial(),
                e.model(),
                e.owner(),
                String.join("\n", e.sharedWith()),
                "",
                "",
                now,
                entered ? now : null,
                null,
                entered
                        ? Registration.end(
                                        registry.rules(),
                                        now,
                                        shown.clock(siteId).zone())
                                .orElse(null)
                        : null,
                null,
                "",
                1));
        note(by, (entered ? "registered in " : "handed in to ") + registry.name(), null, store.find(id), reason);
        return id;
    }

    void note(String by, String what, RegistrationRow before, RegistrationRow after, String reason) {
        log.write(Log.entry(by, what)
                .at(after.siteId(), after.endpointId())
                .before(before)
                .after(after)
                .because(reason));
    }

    /** Does one thing with an entry, from the version that was seen. */
    @Transactional
    void act(long id, int expected, EntryAct act, String by) {
        var was = shown.get(id);
        if (was.version() != expected) throw Etags.stale();
        if (was.endedAt() != null)
            throw Problem.of(HttpStatus.CONFLICT, "ended", "This entry was taken out. Register it anew.");
        var registry = book.plain(shown.registry(was.registryId()));
        var unit = book.unit(endpoints.find(was.endpointId()));
        var is = done(registry, unit, was, act);
        if (store.change(is) == 0) throw Etags.stale();
        consequences.stand(was.endpointId());
        note(by, said(act.act()) + " " + registry.name(), was, store.find(id), act.reason());
    }

    private static String said(Act act) {
        return switch (act) {
            case HAND_IN -> "handed in again to";
            case ENTER -> "seen standing in";
            case RESTARTED -> "restarted after the entry in";
            case RENEW -> "renewed in";
            case TAKE_OUT -> "taken out of";
            case ISSUED -> "noted what was issued by";
            case CHANGE -> "changed name or people in";
        };
    }

    private RegistrationRow done(Registry registry, Unit unit, RegistrationRow was, EntryAct act) {
        var now = clock.instant();
        var zone = shown.clock(was.siteId()).zone();
        var draft = new Draft(was);
        switch (act.act()) {
            case HAND_IN ->
                draft.holds(registry.truth(unit, RegistryBook.held(was))).asked(now);
            case ENTER, RENEW -> {
                boolean living = RegistryBook.plain(was).living(now);
                boolean same = registry.truth(unit, RegistryBook.held(was))
                        .mac()
                        .map(m -> m.equals(was.mac()))
                        .orElse(false);
                draft.holds(registry.truth(unit, RegistryBook.held(was)))
                        // Renewed in time and with the same MAC, the device never left; otherwise it joins anew.
                        .entered(now, living && same && was.restartedAt() != null && act.act() == Act.RENEW)
                        .ends(Registration.end(registry.rules(), now, zone).orElse(null));
            }
            case RESTARTED -> {
                if (was.enteredAt() == null)
                    throw Problem.of(
                            HttpStatus.CONFLICT,
                            "not-entered",
                            "It does not stand there yet: a restart before that changes nothing.");
                draft.restarted(now);
            }
            case TAKE_OUT -> draft.ended(now, act.reason());
            case ISSUED -> draft.issued(act.issued(), act.issuedUsed());
            case CHANGE -> {
                var entry = RegistryLines.entry(registry, unit, act.people());
                RegistryLines.refuse(
                        shown.judge(book.site(was.siteId()), registry).judge(unit, entry), act.reason());
                draft.people(entry);
            }
        }
        return draft.row();
    }

    @Scheduled(fixedDelay = 60_000, initialDelay = 60_000)
    @Transactional
    public void ranOut() {
        store.ranOut(clock.instant()).forEach(consequences::stand);
    }
}
