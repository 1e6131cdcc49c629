package app.knottag.server.record;

import app.knottag.core.hardware.Interface;
import app.knottag.core.kind.Kinds;
import app.knottag.core.plan.Method;
import app.knottag.core.register.Registration;
import app.knottag.core.register.Registry;
import app.knottag.core.register.RegistryEntry;
import app.knottag.core.register.Unit;
import app.knottag.core.runbook.Stage.Entries;
import app.knottag.server.record.InterfaceStore.InterfaceRow;
import app.knottag.server.record.RegistrationStore.RegistrationRow;
import app.knottag.server.record.RegistrationStore.RegistryRow;
import java.time.Clock;
import java.time.Instant;
import java.util.Arrays;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;
import tools.jackson.databind.json.JsonMapper;

/** Loads registries, registrations and units as core's types. */
@Component
public class RegistryBook {

    private final RegistrationStore store;
    private final EndpointStore endpoints;
    private final InterfaceStore interfaces;
    private final Kinds kinds;
    private final Clock clock;
    private final JsonMapper json;

    RegistryBook(
            RegistrationStore store,
            EndpointStore endpoints,
            InterfaceStore interfaces,
            Kinds kinds,
            Clock clock,
            JsonMapper json) {
        this.store = store;
        this.endpoints = endpoints;
        this.interfaces = interfaces;
        this.kinds = kinds;
        this.clock = clock;
        this.json = json;
    }

    /** Everything of one site that registrations are about. */
    public record Site(
            long id,
            Map<Long, Registry> registries,
            List<RegistrationRow> rows,
            Map<Long, Unit> units,
            Map<Place, RegistrationRow> living) {

        Site(long id, Map<Long, Registry> registries, List<RegistrationRow> rows, Map<Long, Unit> units) {
            this(
                    id,
                    registries,
                    rows,
                    units,
                    rows.stream()
                            .filter(r -> r.endedAt() == null)
                            .collect(Collectors.toMap(
                                    r -> new Place(r.registryId(), r.endpointId()), Function.identity(), (a, b) -> a)));
        }

        /** A unit's place in a registry. */
        record Place(long registry, long unit) {}

        /** Returns the units that some registry wants. */
        public Set<Long> wanted() {
            return units.entrySet().stream()
                    .filter(u -> registries.values().stream().anyMatch(r -> r.wants(u.getValue())))
                    .map(Map.Entry::getKey)
                    .collect(Collectors.toSet());
        }

        public List<Registration> registrations() {
            return rows.stream().map(RegistryBook::plain).toList();
        }

        /** Returns the row of a unit in a registry that was not taken out, if any. */
        public Optional<RegistrationRow> row(long registry, long unit) {
            return Optional.ofNullable(living.get(new Place(registry, unit)));
        }
    }

    public Site site(long siteId) {
        return new Site(siteId, registries(store.registries(siteId)), store.ofSite(siteId), units(siteId));
    }

    /** Some registrations of any sites, by site, with just the registries and units that they are about. */
    public Map<Long, Site> some(List<RegistrationRow> rows) {
        if (rows.isEmpty()) return Map.of();
        var ids = rows.stream().map(RegistrationRow::endpointId).collect(Collectors.toSet());
        var units = units(endpoints.some(ids), interfaces.some(ids));
        var registries = registries(store.someRegistries(
                rows.stream().map(RegistrationRow::registryId).collect(Collectors.toSet())));
        return rows.stream().collect(Collectors.groupingBy(RegistrationRow::siteId)).entrySet().stream()
                .collect(Collectors.toMap(
                        Map.Entry::getKey, e -> new Site(e.getKey(), registries, e.getValue(), units)));
    }

    private Map<Long, Registry> registries(List<RegistryRow> rows) {
        return rows.stream()
                .map(this::plain)
                .sorted(Comparator.comparing(Registry::type))
                .collect(Collectors.toMap(Registry::id, Function.identity(), (a, b) -> a, LinkedHashMap::new));
    }

    Map<Long, Unit> units(long siteId) {
        return units(endpoints.all(siteId), interfaces.ofSite(siteId));
    }

    private Map<Long, Unit> units(List<EndpointStore.Row> rows, List<InterfaceRow> own) {
        var byEndpoint = own.stream().collect(Collectors.groupingBy(InterfaceRow::endpointId));
        return rows.stream()
                .collect(Collectors.toMap(
                        EndpointStore.Row::id,
                        e -> unit(e, byEndpoint.getOrDefault(e.id(), List.of())),
                        (a, b) -> a,
                        LinkedHashMap::new));
    }

    /** Units that no longer have their MAC, retired or swapped, as far as anybody remembers. */
    public List<Unit> retired(long siteId) {
        return interfaces.everOf(siteId).stream()
                .filter(i -> i.retiredAt() != null)
                .map(i -> {
                    var e = endpoints.find(i.endpointId());
                    var u = unit(e, List.of(i));
                    return e.retiredAt() != null
                            ? u
                            : new Unit(
                                    -i.id(),
                                    e.name() + "'s old unit",
                                    "",
                                    e.kind(),
                                    false,
                                    e.segmentId(),
                                    u.interfaces(),
                                    Optional.empty(),
                                    "",
                                    "",
                                    false,
                                    false,
                                    true);
                })
                .toList();
    }

    public Registry registry(long id) {
        return plain(store.registry(id));
    }

    public Unit unit(EndpointStore.Row e) {
        return unit(e, interfaces.of(e.id()));
    }

    private Unit unit(EndpointStore.Row e, List<InterfaceRow> rows) {
        var own = rows.stream()
                .map(InterfaceRow::plain)
                .sorted(Comparator.comparing(Interface::counts).reversed())
                .toList();
        return new Unit(
                e.id(),
                e.name(),
                e.hostName(),
                e.kind(),
                kinds.find(e.kind()).filter(k -> k.personal()).isPresent(),
                e.segmentId(),
                own,
                Optional.ofNullable(e.address()),
                e.serial(),
                e.model(),
                e.method() == Method.RESERVED,
                e.awaySince() != null,
                e.retiredAt() != null);
    }

    public Registry plain(RegistryRow r) {
        return new Registry(
                r.id(),
                r.name(),
                r.type(),
                Optional.ofNullable(r.segmentId()),
                Optional.ofNullable(r.medium()),
                r.kinds().isEmpty() ? Set.of() : Set.of(r.kinds().split(" ")),
                json.readValue(r.rules().text(), Registry.Rules.class));
    }

    public static RegistryEntry held(RegistrationRow r) {
        return new RegistryEntry(
                r.name(),
                Optional.ofNullable(r.mac()),
                Optional.ofNullable(r.address()),
                r.serial(),
                r.model(),
                r.owner(),
                lines(r.sharedWith()));
    }

    public static List<String> lines(String text) {
        return Arrays.stream(text.split("\n")).filter(s -> !s.isBlank()).toList();
    }

    public static Registration plain(RegistrationRow r) {
        return new Registration(
                r.id(),
                r.registryId(),
                r.endpointId(),
                held(r),
                Optional.ofNullable(r.askedAt()),
                Optional.ofNullable(r.enteredAt()),
                Optional.ofNullable(r.restartedAt()),
                Optional.ofNullable(r.endsAt()),
                Optional.ofNullable(r.endedAt()));
    }

    /** Works out how the registrations of an endpoint stand together, the worst of them. */
    public Entries entries(EndpointStore.Row endpoint) {
        var wanted = store.registries(endpoint.siteId());
        if (wanted.isEmpty()) return Entries.SETTLED;
        var unit = unit(endpoint);
        var held = store.ofEndpoint(endpoint.id()).stream()
                .map(RegistryBook::plain)
                .collect(Collectors.toMap(Registration::registry, Function.identity(), (a, b) -> b));
        Instant now = clock.instant();
        return wanted.stream()
                .map(this::plain)
                .map(r -> held.containsKey(r.id())
                        ? held.get(r.id()).entries(r, unit, now)
                        : r.wants(unit) ? Entries.TO_REGISTER : Entries.SETTLED)
                .max(Comparator.naturalOrder())
                .orElse(Entries.SETTLED);
    }

    /** Names of the registries that hold an endpoint and let it in only after a restart. */
    public List<String> restartAt(EndpointStore.Row endpoint) {
        var held = store.ofEndpoint(endpoint.id());
        return held.isEmpty()
                ? List.of()
                : store.registries(endpoint.siteId()).stream()
                        .map(this::plain)
                        .filter(r -> r.rules().restart()
                                && held.stream().anyMatch(h -> h.registryId() == r.id() && h.endedAt() == null))
                        .map(Registry::name)
                        .toList();
    }

    /** Whether some registry of the site wants an endpoint. */
    public boolean wanted(EndpointStore.Row endpoint) {
        var unit = unit(endpoint);
        return store.registries(endpoint.siteId()).stream().map(this::plain).anyMatch(r -> r.wants(unit));
    }
}
