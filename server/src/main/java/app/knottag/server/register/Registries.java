package app.knottag.server.register;

import app.knottag.server.change.Consequences;
import app.knottag.server.change.Hand;
import app.knottag.server.db.Json;
import app.knottag.server.log.Log;
import app.knottag.server.record.EndpointStore;
import app.knottag.server.record.RegistrationStore;
import app.knottag.server.record.RegistrationStore.RegistryRow;
import app.knottag.server.record.SiteStore;
import app.knottag.server.register.RegistryFactsForm.RegistryFacts;
import app.knottag.server.web.Etags;
import app.knottag.server.web.Problem;
import java.time.Clock;
import java.util.Map;
import java.util.Optional;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.databind.json.JsonMapper;

/** Adds, changes and removes the registries of a site. They are part of the site sheet and share its version. */
@Service
public class Registries {

    private final RegistrationStore store;
    private final SiteStore siteStore;
    private final EndpointStore endpoints;
    private final Consequences consequences;
    private final Log log;
    private final Clock clock;
    private final JsonMapper json;

    Registries(
            RegistrationStore store,
            SiteStore siteStore,
            EndpointStore endpoints,
            Consequences consequences,
            Log log,
            Clock clock,
            JsonMapper json) {
        this.store = store;
        this.siteStore = siteStore;
        this.endpoints = endpoints;
        this.consequences = consequences;
        this.log = log;
        this.clock = clock;
        this.json = json;
    }

    /** Keeps a registry; id 0 adds one. Its units stand anew afterwards. */
    @Transactional
    public long keep(Hand hand, long id, RegistryFacts is) {
        var was = id == 0 ? null : get(hand.siteId(), id);
        var row = new RegistryRow(
                id,
                hand.siteId(),
                is.name(),
                is.type(),
                is.segmentId(),
                is.medium(),
                String.join(" ", is.kinds()),
                new Json(json.writeValueAsString(is.rules())));
        claim(hand);
        try {
            if (was == null) id = store.addRegistry(row);
            else store.changeRegistry(row);
        } catch (DuplicateKeyException e) {
            throw Problem.conflict("name", "name-taken", "Another registry of this site is called so.", Map.of());
        }
        log.write(Log.entry(hand.by(), was == null ? "registry added" : "registry changed")
                .at(hand.siteId())
                .before(was)
                .after(store.registry(id)));
        standAnew(hand.siteId());
        return id;
    }

    private RegistryRow get(long siteId, long id) {
        return Optional.ofNullable(store.registry(id))
                .filter(r -> r.siteId() == siteId)
                .orElseThrow(() -> Problem.notFound("There is no such registry at this site."));
    }

    private void claim(Hand hand) {
        if (siteStore.claim(hand.siteId(), hand.expected()) == 0) throw Etags.stale();
    }

    private void standAnew(long siteId) {
        endpoints.all(siteId).forEach(e -> consequences.stand(e.id()));
    }

    @Transactional
    public void remove(Hand hand, long id) {
        var was = get(hand.siteId(), id);
        claim(hand);
        store.retireRegistry(id, clock.instant());
        log.write(Log.entry(hand.by(), "registry removed").at(hand.siteId()).before(was));
        standAnew(hand.siteId());
    }
}
