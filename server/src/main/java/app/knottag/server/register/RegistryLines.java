package app.knottag.server.register;

import app.knottag.core.register.Registration;
import app.knottag.core.register.RegistrationJudge;
import app.knottag.core.register.RegistrationJudge.Objection;
import app.knottag.core.register.Registry;
import app.knottag.core.register.Registry.Fact;
import app.knottag.core.register.RegistryEntry;
import app.knottag.core.register.Reminders;
import app.knottag.core.register.Unit;
import app.knottag.core.time.SiteClock;
import app.knottag.server.record.EndpointStore;
import app.knottag.server.record.RegistrationStore;
import app.knottag.server.record.RegistrationStore.RegistrationRow;
import app.knottag.server.record.RegistryBook;
import app.knottag.server.record.Sites;
import app.knottag.server.register.EntryForm.EntryWish;
import app.knottag.server.register.EntryForm.People;
import app.knottag.server.web.Problem;
import app.knottag.server.web.Problem.FieldError;
import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.function.Predicate;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Works out what is shown of each unit in each registry, and how a new entry would be judged. */
@Component
class RegistryLines {

    /** A fact that stands there differently from what is true. */
    public record StaleFact(Fact fact, String holds, String truth) {}

    /** One unit in one registry, handed in or still to be. */
    public record RegistryLine(
            @Nullable Long id,
            long registryId,
            String registry,
            Registry.Type type,
            long endpointId,
            String endpoint,
            Registration.State state,
            boolean restartPending,
            String next,
            RegistryEntry entry,
            List<StaleFact> stale,
            List<Objection> objections,
            String issued,
            String issuedUsed,
            @Nullable Instant askedAt,
            @Nullable Instant enteredAt,
            @Nullable Instant endsAt,
            String endsWords,
            @Nullable Instant endedAt,
            int version) {}

    private final RegistrationStore store;
    private final RegistryBook book;
    private final EndpointStore endpoints;
    private final Sites sites;
    private final Clock clock;

    RegistryLines(RegistrationStore store, RegistryBook book, EndpointStore endpoints, Sites sites, Clock clock) {
        this.store = store;
        this.book = book;
        this.endpoints = endpoints;
        this.sites = sites;
        this.clock = clock;
    }

    RegistrationStore.RegistryRow registry(long id) {
        return Optional.ofNullable(store.registry(id))
                .orElseThrow(() -> Problem.notFound("There is no such registry."));
    }

    RegistrationRow get(long id) {
        return Optional.ofNullable(store.find(id))
                .orElseThrow(() -> Problem.notFound("There is no such registration."));
    }

    SiteClock clock(long siteId) {
        return sites.clock(siteId);
    }

    /** How many units stand how in a registry, and how many entries hold something old. */
    record Counts(Map<Registration.State, Long> states, int toCorrect) {}

    /** Counts what {@link #lines} lists, without judging what is missing. */
    Counts counts(RegistryBook.Site site, Registry registry) {
        var now = clock.instant();
        var states = new EnumMap<Registration.State, Long>(Registration.State.class);
        for (var state : Registration.State.values()) states.put(state, 0L);
        int toCorrect = 0;
        for (var row : site.rows()) {
            var unit = site.units().get(row.endpointId());
            if (row.registryId() != registry.id() || unit == null || row.endedAt() != null) continue;
            var registration = RegistryBook.plain(row);
            states.merge(registration.standing(registry.rules(), now).state(), 1L, Long::sum);
            var truth = registry.truth(unit, registration.held());
            if (!registration.stale(registry.rules(), truth).isEmpty()) toCorrect++;
        }
        long missing = site.units().values().stream()
                .filter(u ->
                        registry.wants(u) && site.row(registry.id(), u.id()).isEmpty())
                .count();
        states.merge(Registration.State.TO_REGISTER, missing, Long::sum);
        return new Counts(states, toCorrect);
    }

    /** Returns every unit that stands in a registry or should, in the order of what needs doing. */
    List<RegistryLine> lines(RegistryBook.Site site, Registry registry) {
        return lines(site, registry, u -> true);
    }

    /** Returns the same of some units only. */
    List<RegistryLine> lines(RegistryBook.Site site, Registry registry, Predicate<Unit> some) {
        var here = clock(site.id());
        var judge = judge(site, registry);
        var lines = new ArrayList<RegistryLine>();
        var there = new HashSet<Long>();
        for (var row : site.rows()) {
            var unit = site.units().get(row.endpointId());
            if (row.registryId() != registry.id() || unit == null || !some.test(unit)) continue;
            lines.add(line(registry, row, unit, here));
            if (row.endedAt() == null) there.add(unit.id());
        }
        for (var unit : site.units().values())
            if (some.test(unit) && registry.wants(unit) && !there.contains(unit.id()))
                lines.add(missing(registry, unit, judge, registry.proposal(unit, "", List.of())));
        lines.sort((a, b) -> a.state() == b.state()
                ? a.endpoint().compareToIgnoreCase(b.endpoint())
                : a.state().compareTo(b.state()));
        return lines;
    }

    RegistrationJudge judge(RegistryBook.Site site, Registry registry) {
        return new RegistrationJudge(
                registry, site.registrations(), site.units().values(), clock.instant());
    }

    /** Returns one entry as it stands, also that of a retired unit. */
    RegistryLine view(long id) {
        var row = get(id);
        return line(
                book.plain(registry(row.registryId())),
                row,
                book.unit(endpoints.find(row.endpointId())),
                clock(row.siteId()));
    }

    RegistryLine line(Registry registry, RegistrationRow row, Unit unit, SiteClock here) {
        var registration = RegistryBook.plain(row);
        var truth = registry.truth(unit, registration.held());
        var standing = registration.standing(registry.rules(), clock.instant());
        var stale = row.endedAt() == null
                ? registration.stale(registry.rules(), truth).stream()
                        .map(f -> new StaleFact(f, registration.held().value(f), truth.value(f)))
                        .toList()
                : List.<StaleFact>of();
        return new RegistryLine(
                row.id(),
                registry.id(),
                registry.name(),
                registry.type(),
                unit.id(),
                unit.name(),
                standing.state(),
                standing.restartPending(),
                stale.isEmpty() || standing.state() == Registration.State.TO_REGISTER
                        ? standing.next()
                        : "Correct it: it holds an old "
                                + String.join(
                                        " and ",
                                        stale.stream()
                                                .map(s -> s.fact() == Fact.MAC
                                                        ? "MAC"
                                                        : s.fact().name().toLowerCase(Locale.ROOT))
                                                .toList())
                                + ".",
                registration.held(),
                stale,
                List.of(),
                row.issued(),
                row.issuedUsed(),
                row.askedAt(),
                row.enteredAt(),
                row.endsAt(),
                row.endsAt() == null ? "" : Reminders.words(row.endsAt(), here),
                row.endedAt(),
                row.version());
    }

    RegistryLine missing(Registry registry, Unit unit, RegistrationJudge judge, RegistryEntry entry) {
        return new RegistryLine(
                null,
                registry.id(),
                registry.name(),
                registry.type(),
                unit.id(),
                unit.name(),
                Registration.State.TO_REGISTER,
                false,
                "Register it.",
                entry,
                List.of(),
                judge.judge(unit, entry),
                "",
                "",
                null,
                null,
                null,
                "",
                null,
                0);
    }

    /** Returns how an entry would be judged, with everything it would hold. */
    RegistryLine proposal(long registryId, EntryWish wish) {
        var row = registry(registryId);
        var site = book.site(row.siteId());
        var registry = site.registries().get(registryId);
        var unit = unit(site, wish.endpointId());
        return missing(registry, unit, judge(site, registry), entry(registry, unit, wish.people()));
    }

    static Unit unit(RegistryBook.Site site, long id) {
        return Optional.ofNullable(site.units().get(id))
                .orElseThrow(() -> Problem.notFound("There is no such endpoint at this site."));
    }

    static RegistryEntry entry(Registry registry, Unit unit, People people) {
        var base = registry.proposal(unit, people.owner(), people.sharedWith());
        return people.name()
                .map(name -> new RegistryEntry(
                        name, base.mac(), base.address(), base.serial(), base.model(), base.owner(), base.sharedWith()))
                .orElse(base);
    }

    static void refuse(List<Objection> objections, String reason) {
        var errors = objections.stream()
                .filter(o -> o.refuses() || reason.isEmpty())
                .map(o -> new FieldError(
                        "/" + (o.refuses() ? o.field() : "reason"),
                        Problem.word(o.code()),
                        o.message() + (o.refuses() ? "" : " To go on all the same, say why.")))
                .toList();
        if (!errors.isEmpty()) throw Problem.fields(errors);
    }
}
