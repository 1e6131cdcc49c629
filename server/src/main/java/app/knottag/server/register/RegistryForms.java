package app.knottag.server.register;

import app.knottag.core.hardware.Interface.Medium;
import app.knottag.core.kind.Kinds;
import app.knottag.core.log.Words;
import app.knottag.core.reading.ReadingException;
import app.knottag.core.register.Lifetime;
import app.knottag.core.register.Registry;
import app.knottag.core.register.Registry.Fact;
import app.knottag.core.register.Registry.Naming;
import app.knottag.core.register.Registry.Rules;
import app.knottag.core.register.Registry.Sharing;
import app.knottag.core.register.Registry.Type;
import app.knottag.core.register.RegistryForm;
import app.knottag.server.change.Consequences;
import app.knottag.server.change.Hand;
import app.knottag.server.db.Json;
import app.knottag.server.log.Log;
import app.knottag.server.record.EndpointStore;
import app.knottag.server.record.RegistrationStore;
import app.knottag.server.record.RegistrationStore.RegistryRow;
import app.knottag.server.record.SiteStore;
import app.knottag.server.record.Sites;
import app.knottag.server.web.Etags;
import app.knottag.server.web.Problem;
import jakarta.validation.constraints.NotNull;
import java.time.Clock;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.databind.json.JsonMapper;

/** Adds, changes and removes the registries of a site. They are part of the site sheet and share its version. */
@Service
public class RegistryForms {

    /** A registry as it is typed in; no lifetime unit means that its entries last. */
    public record RegistryRequest(
            @NotNull String name,
            @NotNull Type type,
            Long segmentId,
            Medium medium,
            List<String> kinds,
            @NotNull Naming naming,
            int longestName,
            boolean ownerNeeded,
            @NotNull Sharing sharing,
            int most,
            Lifetime.Unit lifetimeUnit,
            int lifetime,
            boolean restart,
            @NotNull Set<Fact> facts,
            List<String> models,
            String waitsFor,
            int leadDays,
            @NotNull RegistryForm form) {

        /** Fills in what such a place usually has. */
        public static RegistryRequest usual(Registry.Type type, String name, Long segmentId, List<String> kinds) {
            var u = Rules.usual(type);
            return new RegistryRequest(
                    name,
                    type,
                    segmentId,
                    null,
                    kinds,
                    u.naming(),
                    u.longestName(),
                    u.ownerNeeded(),
                    u.sharing(),
                    u.most(),
                    u.lifetime().map(Lifetime::unit).orElse(null),
                    u.lifetime().map(Lifetime::amount).orElse(0),
                    u.restart(),
                    u.facts(),
                    u.models(),
                    u.waitsFor(),
                    u.leadDays(),
                    u.form());
        }
    }

    private final RegistrationStore store;
    private final SiteStore siteStore;
    private final Sites sites;
    private final EndpointStore endpoints;
    private final Consequences consequences;
    private final Kinds kinds;
    private final Log log;
    private final Clock clock;
    private final JsonMapper json;

    RegistryForms(
            RegistrationStore store,
            SiteStore siteStore,
            Sites sites,
            EndpointStore endpoints,
            Consequences consequences,
            Kinds kinds,
            Log log,
            Clock clock,
            JsonMapper json) {
        this.store = store;
        this.siteStore = siteStore;
        this.sites = sites;
        this.endpoints = endpoints;
        this.consequences = consequences;
        this.kinds = kinds;
        this.log = log;
        this.clock = clock;
        this.json = json;
    }

    /** Keeps a registry; id 0 adds one. Its units stand anew afterwards. */
    @Transactional
    public long keep(Hand hand, long id, RegistryRequest b) {
        var was = id == 0 ? null : get(hand.siteId(), id);
        if (b.segmentId() != null) sites.segmentOf(hand.siteId(), b.segmentId());
        if (b.kinds() != null)
            b.kinds().stream().filter(k -> kinds.find(k).isEmpty()).findFirst().ifPresent(k -> {
                throw Problem.field("kinds", "no-such-kind", "There is no kind “" + k + "”.");
            });
        var row = new RegistryRow(
                id,
                hand.siteId(),
                words("name", b.name(), true),
                b.type(),
                b.segmentId(),
                b.medium(),
                b.kinds() == null ? "" : String.join(" ", b.kinds()),
                new Json(json.writeValueAsString(rules(b))));
        claim(hand);
        try {
            if (was == null) id = store.addRegistry(row);
            else store.changeRegistry(row);
        } catch (DuplicateKeyException e) {
            throw Problem.conflict("name", "name-taken", "Another registry of this site is called so.", Map.of());
        }
        log.write(Log.entry(hand.by(), was == null ? "registry added" : "registry changed")
                .at(hand.siteId(), null)
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

    private static String words(String field, String text, boolean needed) {
        String words = text == null ? "" : text.strip();
        Words.problem(words, needed)
                .or(() -> words.length() > 80
                        ? Optional.of("At most 80 characters; this has " + words.length() + ".")
                        : Optional.empty())
                .ifPresent(p -> {
                    throw Problem.field(field, "bad-words", p);
                });
        return words;
    }

    private static Rules rules(RegistryRequest b) {
        Optional<Lifetime> lifetime;
        try {
            lifetime = Optional.ofNullable(b.lifetimeUnit()).map(u -> new Lifetime(u, b.lifetime()));
        } catch (ReadingException e) {
            throw Problem.field("lifetime", "bad-lifetime", "An entry lasts 1 to 8784 hours, or 1 to 3660 days.");
        }
        try {
            return new Rules(
                    b.naming(),
                    b.longestName(),
                    b.ownerNeeded(),
                    b.sharing(),
                    b.most(),
                    lifetime,
                    b.restart(),
                    b.facts(),
                    b.models() == null
                            ? List.of()
                            : b.models().stream()
                                    .map(m -> words("models", m, false))
                                    .filter(m -> !m.isEmpty())
                                    .toList(),
                    words("waitsFor", b.waitsFor(), false),
                    b.leadDays(),
                    b.form());
        } catch (ReadingException e) {
            String field = e.getMessage().startsWith("a name")
                    ? "longestName"
                    : e.getMessage().startsWith("a registry") ? "most" : "leadDays";
            throw Problem.field(field, "out-of-range", e.getMessage());
        }
    }

    @Transactional
    public void remove(Hand hand, long id) {
        var was = get(hand.siteId(), id);
        claim(hand);
        store.retireRegistry(id, clock.instant());
        log.write(
                Log.entry(hand.by(), "registry removed").at(hand.siteId(), null).before(was));
        standAnew(hand.siteId());
    }
}
