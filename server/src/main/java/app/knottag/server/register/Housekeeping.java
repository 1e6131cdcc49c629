package app.knottag.server.register;

import app.knottag.core.hardware.Mac;
import app.knottag.core.reading.ReadingException;
import app.knottag.core.register.CleanUp;
import app.knottag.core.register.LeadTimes;
import app.knottag.core.register.Registry;
import app.knottag.core.register.Reminders;
import app.knottag.core.register.Reminders.Missing;
import app.knottag.core.register.Reminders.Reminder;
import app.knottag.core.register.Reminders.Subject;
import app.knottag.core.register.Unit;
import app.knottag.server.log.Log;
import app.knottag.server.record.EndpointStore;
import app.knottag.server.record.RegistrationStore;
import app.knottag.server.record.RegistryBook;
import app.knottag.server.record.SightingStore;
import app.knottag.server.register.PrerequisiteStore.PrerequisiteRow;
import app.knottag.server.web.FormReader;
import app.knottag.server.web.Problem;
import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** What is due, what waits for somebody outside, and what should not stand any more. */
@Service
class Housekeeping {

    /** After so many days without a sight an entry is proposed for taking out. */
    private static final int SILENT_DAYS = 60;

    private final RegistrationStore store;
    private final PrerequisiteStore prerequisites;
    private final RegistryBook book;
    private final RegistryLines shown;
    private final EndpointStore endpoints;
    private final SightingStore sightings;
    private final Log log;
    private final Clock clock;

    Housekeeping(
            RegistrationStore store,
            PrerequisiteStore prerequisites,
            RegistryBook book,
            RegistryLines shown,
            EndpointStore endpoints,
            SightingStore sightings,
            Log log,
            Clock clock) {
        this.store = store;
        this.prerequisites = prerequisites;
        this.book = book;
        this.shown = shown;
        this.endpoints = endpoints;
        this.sightings = sightings;
        this.log = log;
        this.clock = clock;
    }

    long siteOf(long endpointId) {
        return Optional.ofNullable(endpoints.find(endpointId))
                .orElseThrow(() -> Problem.notFound("There is no such endpoint."))
                .siteId();
    }

    /** Returns all that registrations of a site are about, loaded once for what is asked of it. */
    RegistryBook.Site site(long siteId) {
        return book.site(siteId);
    }

    /** The registrations of a site that stand, each with what it is about. */
    static List<Subject> subjects(RegistryBook.Site site) {
        var subjects = new ArrayList<Subject>();
        for (var row : site.rows()) {
            var registry = site.registries().get(row.registryId());
            var unit = site.units().get(row.endpointId());
            if (registry == null || unit == null || row.endedAt() != null) continue;
            subjects.add(
                    new Subject(registry, RegistryBook.plain(row), unit, registry.truth(unit, RegistryBook.held(row))));
        }
        return subjects;
    }

    /** Returns everything to do about registrations, soonest first; what is alike for many is one line. */
    List<Reminder> reminders(RegistryBook.Site site) {
        var subjects = subjects(site);
        var missing = new ArrayList<Missing>();
        for (var registry : site.registries().values())
            for (var unit : site.units().values())
                if (registry.wants(unit) && site.row(registry.id(), unit.id()).isEmpty())
                    missing.add(new Missing(registry, unit));
        var clock = shown.clock(site.id());
        return Reminders.bundled(Reminders.of(subjects, missing, clock), site.registries(), Set.of(), clock.zone());
    }

    /** Something to clean up, with the version of the registration that was looked at. */
    record Stale(CleanUp.Item item, int version) {}

    List<Stale> cleanUp(long siteId) {
        var site = book.site(siteId);
        var units = new HashMap<Long, Unit>(site.units());
        for (var row : site.rows()) units.computeIfAbsent(row.endpointId(), id -> book.unit(endpoints.find(id)));
        var byMac = new HashMap<Mac, Long>();
        for (var unit : units.values()) unit.interfaces().forEach(i -> byMac.put(i.mac(), unit.id()));
        var seen = new HashMap<Long, Instant>();
        for (var s : sightings.latest(siteId)) {
            Long unit = s.mac() == null ? null : byMac.get(s.mac());
            if (unit != null) seen.merge(unit, s.seenAt(), (a, b) -> a.isAfter(b) ? a : b);
        }
        var left = store.ownersLeft(siteId).stream()
                .map(n -> n.toLowerCase(Locale.ROOT))
                .collect(Collectors.toSet());
        var versions = site.rows().stream()
                .collect(Collectors.toMap(
                        RegistrationStore.RegistrationRow::id, RegistrationStore.RegistrationRow::version));
        var items = CleanUp.of(
                site.registries(),
                site.registrations(),
                units,
                new CleanUp.Known(left, seen, SILENT_DAYS),
                clock.instant());
        return items.stream()
                .map(i -> new Stale(i, versions.get(i.registration())))
                .toList();
    }

    /** Who owns something that is registered, in the order of the alphabet. */
    List<String> owners(long siteId) {
        return store.ofSite(siteId).stream()
                .filter(r -> r.endedAt() == null && !r.owner().isEmpty())
                .map(RegistrationStore.RegistrationRow::owner)
                .distinct()
                .sorted()
                .toList();
    }

    List<String> ownersLeft(long siteId) {
        return store.ownersLeft(siteId);
    }

    @Transactional
    public void owner(long siteId, String name, boolean left, String by) {
        String words = FormReader.words("name", name, true);
        int changed = left ? store.ownerLeft(siteId, words, clock.instant(), by) : store.ownerBack(siteId, words);
        if (changed > 0)
            log.write(Log.entry(by, left ? "owner has left" : "owner is back")
                    .at(siteId)
                    .after(Map.of("name", words)));
    }

    /** Works backwards from the visit: what must be ordered or asked for by when. */
    LeadTimes leadTimes(long siteId) {
        return leadTimes(book.site(siteId));
    }

    LeadTimes leadTimes(RegistryBook.Site site) {
        return leadTimes(
                site.id(),
                site.registries().values(),
                r -> site.units().values().stream()
                        .anyMatch(u -> r.wants(u) && site.row(r.id(), u.id()).isEmpty()));
    }

    /** What should have been ordered by now; the whole site is only looked at where its entries would be among that. */
    List<LeadTimes.OrderBy> late(long siteId) {
        var registries = store.registries(siteId).stream()
                .map(book::plain)
                .filter(r -> r.rules().leadDays() > 0)
                .toList();
        var late = late(leadTimes(siteId, registries, r -> true));
        return late.stream()
                        .anyMatch(o -> registries.stream()
                                .anyMatch(r -> o.item().name().equals(entriesIn(r))))
                ? late(leadTimes(siteId))
                : late;
    }

    private static List<LeadTimes.OrderBy> late(LeadTimes all) {
        return all.items().stream().filter(o -> o.late() && !o.item().done()).toList();
    }

    private static String entriesIn(Registry registry) {
        return "Entries in " + registry.name();
    }

    /** @param wants whether a registry wants a unit that it does not have */
    private LeadTimes leadTimes(long siteId, Collection<Registry> registries, Predicate<Registry> wants) {
        var items = new ArrayList<LeadTimes.Item>();
        for (PrerequisiteRow p : prerequisites.of(siteId))
            items.add(new LeadTimes.Item(p.name(), p.who(), p.days(), p.after(), p.doneAt() != null));
        for (var registry : registries) {
            String name = entriesIn(registry);
            if (registry.rules().leadDays() > 0
                    && items.stream().noneMatch(i -> i.name().equals(name))
                    && wants.test(registry))
                items.add(new LeadTimes.Item(
                        name, registry.rules().waitsFor(), registry.rules().leadDays(), "", false));
        }
        var visit = prerequisites.visit(siteId);
        try {
            return LeadTimes.of(
                    items,
                    Optional.ofNullable(visit.visitOn()),
                    visit.visitSlack(),
                    shown.clock(siteId).today());
        } catch (ReadingException e) {
            throw Problem.field("after", "waits-wrongly", e.getMessage());
        }
    }
}
