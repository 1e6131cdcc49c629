package app.knottag.server.register;

import app.knottag.core.log.Words;
import app.knottag.core.register.HandOver;
import app.knottag.core.register.RegisterFile;
import app.knottag.core.register.Registration;
import app.knottag.core.register.RegistrationJudge;
import app.knottag.core.register.RegistrationJudge.Objection;
import app.knottag.core.register.Registry;
import app.knottag.core.register.Registry.Fact;
import app.knottag.core.register.RegistryCompare;
import app.knottag.core.register.RegistryCompare.Outcome;
import app.knottag.core.register.RegistryCompare.Wanted;
import app.knottag.core.register.RegistryEntry;
import app.knottag.core.register.RegistryFile;
import app.knottag.core.register.RegistryForm;
import app.knottag.core.register.RegistryReader;
import app.knottag.core.register.Reminders;
import app.knottag.core.register.Unit;
import app.knottag.server.db.Json;
import app.knottag.server.log.Log;
import app.knottag.server.plan.EndpointStore;
import app.knottag.server.register.RegistrationStore.HandOverRow;
import app.knottag.server.register.RegistrationStore.RegistrationRow;
import app.knottag.server.runbook.Runbooks;
import app.knottag.server.site.Sites;
import app.knottag.server.web.Etags;
import app.knottag.server.web.Problem;
import app.knottag.server.web.Problem.FieldError;
import jakarta.validation.constraints.NotNull;
import java.time.Clock;
import java.time.Instant;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.function.Predicate;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;

/** Hands units in to registries, keeps how each entry stands, and compares with what is really there. */
@Service
public class Registrations {

    /** What is typed about an entry; the facts come from the unit. */
    public record EntryRequest(
            @NotNull Long endpointId,
            String name,
            String owner,
            List<String> sharedWith,
            String reason,
            @Nullable Boolean entered) {}

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

    /** One act; what is issued is for ISSUED, name and people for CHANGE. */
    public record ActRequest(
            @NotNull Act act,
            String reason,
            String issued,
            String issuedUsed,
            String name,
            String owner,
            List<String> sharedWith) {

        public static ActRequest of(Act act, String reason) {
            return new ActRequest(act, reason, null, null, null, null, null);
        }
    }

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

    /** A hand-over: owner and sharing are for the new entries that name none. */
    public record HandOverRequest(
            @NotNull RegistryForm form, Boolean onlyChanges, Boolean preview, String owner, List<String> sharedWith) {}

    /** What a hand-over holds, and what keeps units out of it. */
    public record HandOverView(
            String text,
            String file,
            long added,
            long changed,
            long gone,
            List<String> leftOut,
            List<RegistryLine> objected) {}

    /** What a registry really holds, compared. */
    public record HoldingsView(
            boolean preview, List<RegistryCompare.Compared> lines, int asWanted, List<RegisterFile.Problem> problems) {}

    private final RegistrationStore store;
    private final RegistryBook book;
    private final EndpointStore endpoints;
    private final Runbooks runbooks;
    private final Sites sites;
    private final Log log;
    private final Clock clock;
    private final JsonMapper json;

    Registrations(
            RegistrationStore store,
            RegistryBook book,
            EndpointStore endpoints,
            Runbooks runbooks,
            Sites sites,
            Log log,
            Clock clock,
            JsonMapper json) {
        this.store = store;
        this.book = book;
        this.endpoints = endpoints;
        this.runbooks = runbooks;
        this.sites = sites;
        this.log = log;
        this.clock = clock;
        this.json = json;
    }

    RegistrationStore.RegistryRow registry(long id) {
        return Optional.ofNullable(store.registry(id))
                .orElseThrow(() -> Problem.notFound("There is no such registry."));
    }

    private RegistrationRow get(long id) {
        return Optional.ofNullable(store.find(id))
                .orElseThrow(() -> Problem.notFound("There is no such registration."));
    }

    ZoneId zone(long siteId) {
        return ZoneId.of(sites.site(siteId).zone());
    }

    /** Returns every unit that stands in a registry or should, in the order of what needs doing. */
    List<RegistryLine> lines(RegistryBook.Site site, Registry registry) {
        return lines(site, registry, u -> true);
    }

    /** Returns the same of some units only. */
    List<RegistryLine> lines(RegistryBook.Site site, Registry registry, Predicate<Unit> some) {
        var judge = judge(site, registry);
        var lines = new ArrayList<RegistryLine>();
        var there = new HashSet<Long>();
        for (var row : site.rows()) {
            var unit = site.units().get(row.endpointId());
            if (row.registryId() != registry.id() || unit == null || !some.test(unit)) continue;
            lines.add(line(registry, row, unit));
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

    private RegistrationJudge judge(RegistryBook.Site site, Registry registry) {
        return new RegistrationJudge(
                registry, site.registrations(), site.units().values(), clock.instant());
    }

    /** Returns one entry as it stands, also that of a retired unit. */
    RegistryLine view(long id) {
        var row = get(id);
        return line(book.plain(registry(row.registryId())), row, book.unit(endpoints.find(row.endpointId())));
    }

    RegistryLine line(Registry registry, RegistrationRow row, Unit unit) {
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
                row.endsAt() == null ? "" : Reminders.words(row.endsAt(), zone(row.siteId())),
                row.endedAt(),
                row.version());
    }

    private RegistryLine missing(Registry registry, Unit unit, RegistrationJudge judge, RegistryEntry entry) {
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
    RegistryLine proposal(long registryId, EntryRequest b) {
        var row = registry(registryId);
        var site = book.site(row.siteId());
        var registry = site.registries().get(registryId);
        var unit = unit(site, b.endpointId());
        return missing(registry, unit, judge(site, registry), entry(registry, unit, b));
    }

    private static Unit unit(RegistryBook.Site site, long id) {
        return Optional.ofNullable(site.units().get(id))
                .orElseThrow(() -> Problem.notFound("There is no such endpoint at this site."));
    }

    private static RegistryEntry entry(Registry registry, Unit unit, EntryRequest b) {
        var shared = b.sharedWith() == null
                ? List.<String>of()
                : b.sharedWith().stream()
                        .map(String::strip)
                        .filter(s -> !s.isEmpty())
                        .toList();
        var base = registry.proposal(unit, b.owner() == null ? "" : b.owner().strip(), shared);
        return b.name() == null || b.name().isBlank()
                ? base
                : new RegistryEntry(
                        b.name().strip(),
                        base.mac(),
                        base.address(),
                        base.serial(),
                        base.model(),
                        base.owner(),
                        base.sharedWith());
    }

    /** Puts a unit into a registry: handed in, or seen standing there. */
    @Transactional
    public long add(long registryId, EntryRequest b, String by) {
        var row = registry(registryId);
        var site = book.site(row.siteId());
        var registry = site.registries().get(registryId);
        var unit = unit(site, b.endpointId());
        var entry = entry(registry, unit, b);
        String reason = words("reason", b.reason());
        words("owner", entry.owner());
        entry.sharedWith().forEach(s -> words("sharedWith", s));
        if (site.row(registryId, unit.id()).isPresent())
            throw Problem.conflict(
                    "endpointId", "registered", unit.name() + " stands in " + registry.name() + " already.", Map.of());
        refuse(judge(site, registry).judge(unit, entry), reason);
        long id = put(registry, unit, entry, Boolean.TRUE.equals(b.entered()), by, reason);
        runbooks.stand(unit.id());
        return id;
    }

    private static String words(String field, String text) {
        String words = text == null ? "" : text.strip();
        Words.problem(words, false).ifPresent(p -> {
            throw Problem.field(field, "bad-words", p);
        });
        return words;
    }

    private static void refuse(List<Objection> objections, String reason) {
        var errors = objections.stream()
                .filter(o -> o.refuses() || reason.isEmpty())
                .map(o -> new FieldError(
                        "/" + (o.refuses() ? o.field() : "reason"),
                        o.code().name(),
                        o.message() + (o.refuses() ? "" : " To go on all the same, say why.")))
                .toList();
        if (!errors.isEmpty()) throw Problem.fields(errors);
    }

    private long put(Registry registry, Unit unit, RegistryEntry e, boolean entered, String by, String reason) {
        var now = clock.instant();
        long siteId = registry(registry.id()).siteId();
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
                entered ? Registration.end(registry.rules(), now, zone(siteId)).orElse(null) : null,
                null,
                "",
                1));
        note(by, (entered ? "registered in " : "handed in to ") + registry.name(), null, store.find(id), reason);
        return id;
    }

    private void note(String by, String what, RegistrationRow before, RegistrationRow after, String reason) {
        log.write(Log.entry(by, what)
                .at(after.siteId(), after.endpointId())
                .before(before)
                .after(after)
                .because(reason));
    }

    /** Does one thing with an entry, from the version that was seen. */
    @Transactional
    public void act(long id, int expected, ActRequest b, String by) {
        var was = get(id);
        if (was.version() != expected) throw Etags.stale();
        if (was.endedAt() != null)
            throw Problem.of(HttpStatus.CONFLICT, "ended", "This entry was taken out. Register it anew.");
        var registry = book.plain(registry(was.registryId()));
        var unit = book.unit(endpoints.find(was.endpointId()));
        var is = done(registry, unit, was, b);
        if (store.change(is) == 0) throw Etags.stale();
        runbooks.stand(was.endpointId());
        note(by, said(b.act()) + " " + registry.name(), was, store.find(id), words("reason", b.reason()));
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

    private RegistrationRow done(Registry registry, Unit unit, RegistrationRow was, ActRequest b) {
        var now = clock.instant();
        var zone = zone(was.siteId());
        var draft = new Draft(was);
        switch (b.act()) {
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
                        .entered(now, living && same && was.restartedAt() != null && b.act() == Act.RENEW)
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
            case TAKE_OUT -> draft.ended(now, words("reason", b.reason()));
            case ISSUED -> draft.issued(words("issued", b.issued()), words("issuedUsed", b.issuedUsed()));
            case CHANGE -> {
                var entry = entry(
                        registry,
                        unit,
                        new EntryRequest(unit.id(), b.name(), b.owner(), b.sharedWith(), b.reason(), false));
                words("owner", entry.owner());
                entry.sharedWith().forEach(s -> words("sharedWith", s));
                refuse(judge(book.site(was.siteId()), registry).judge(unit, entry), words("reason", b.reason()));
                draft.people(entry);
            }
        }
        return draft.row();
    }

    @Scheduled(fixedDelay = 60_000, initialDelay = 60_000)
    @Transactional
    void ranOut() {
        store.ranOut(clock.instant()).forEach(runbooks::stand);
    }

    private List<RegistryEntry> entries(RegistryBook.Site site, Registry registry) {
        return site.rows().stream()
                .filter(r ->
                        r.registryId() == registry.id() && RegistryBook.plain(r).living(clock.instant()))
                .map(r -> Optional.ofNullable(site.units().get(r.endpointId()))
                        .map(u -> registry.truth(u, RegistryBook.held(r)))
                        .orElse(RegistryBook.held(r)))
                .toList();
    }

    private List<RegistryEntry> lastHandedOver(long registryId) {
        return Optional.ofNullable(store.lastHandOver(registryId))
                .map(h -> json.readValue(h.entries().text(), new TypeReference<List<RegistryEntry>>() {}))
                .orElse(List.of());
    }

    /** Writes the list of a registry as it should be, without handing anything in. */
    HandOverView list(long registryId, RegistryForm form, boolean onlyChanges) {
        var row = registry(registryId);
        var site = book.site(row.siteId());
        var registry = site.registries().get(registryId);
        return view(row.siteId(), registry, form, onlyChanges, entries(site, registry), List.of());
    }

    private HandOverView view(
            long siteId,
            Registry registry,
            RegistryForm form,
            boolean onlyChanges,
            List<RegistryEntry> entries,
            List<RegistryLine> objected) {
        var all = HandOver.between(lastHandedOver(registry.id()), entries);
        var list = onlyChanges ? all.changed() : all;
        var s = sites.site(siteId);
        var head = new RegistryFile.Head(
                s.name(),
                registry.name(),
                s.code().toLowerCase(Locale.ROOT) + ".internal",
                clock.instant(),
                onlyChanges);
        String file = s.code() + "-"
                + registry.name().toLowerCase(Locale.ROOT).replaceAll("[^a-z0-9]+", "-")
                + (onlyChanges ? "-changes." : ".") + form.ending();
        return new HandOverView(
                RegistryFile.write(form, head, list),
                file,
                all.count(HandOver.Change.NEW),
                all.count(HandOver.Change.CHANGED),
                all.count(HandOver.Change.GONE),
                RegistryFile.leftOut(form, list),
                objected);
    }

    /** Hands over everything that waits and nothing speaks against; units with objections stay, and are named. */
    @Transactional
    public HandOverView handOver(long registryId, HandOverRequest b, String by) {
        var row = registry(registryId);
        var site = book.site(row.siteId());
        var registry = site.registries().get(registryId);
        var objected = new ArrayList<RegistryLine>();
        var fresh = new ArrayList<Registration>();
        String owner = words("owner", b.owner());
        boolean preview = Boolean.TRUE.equals(b.preview());
        for (var unit : site.units().values()) {
            if (!registry.wants(unit) || site.row(registryId, unit.id()).isPresent()) continue;
            var entry = entry(registry, unit, new EntryRequest(unit.id(), null, owner, b.sharedWith(), "", false));
            // Those that are new in this very list are judged beside one another too.
            var known = new ArrayList<>(site.registrations());
            known.addAll(fresh);
            var judge = new RegistrationJudge(registry, known, site.units().values(), clock.instant());
            if (!judge.judge(unit, entry).isEmpty()) objected.add(missing(registry, unit, judge, entry));
            else {
                fresh.add(new Registration(
                        0,
                        registryId,
                        unit.id(),
                        entry,
                        Optional.of(clock.instant()),
                        Optional.empty(),
                        Optional.empty(),
                        Optional.empty(),
                        Optional.empty()));
                if (!preview) put(registry, unit, entry, false, by, "");
            }
        }
        var standing = new ArrayList<>(entries(site, registry));
        fresh.forEach(f -> standing.add(f.held()));
        var view = view(row.siteId(), registry, b.form(), Boolean.TRUE.equals(b.onlyChanges()), standing, objected);
        if (preview) return view;
        var now = clock.instant();
        var corrected = new ArrayList<Long>();
        for (var r : site.rows())
            if (r.registryId() == registryId && r.endedAt() == null && correct(site, registry, r, now))
                corrected.add(r.endpointId());
        store.handOver(
                new HandOverRow(0, registryId, now, by, b.form().name(), new Json(json.writeValueAsString(standing))));
        log.write(Log.entry(by, "handed over the list of " + registry.name())
                .at(row.siteId(), null)
                .after(Map.of("new", view.added(), "changed", view.changed(), "gone", view.gone())));
        fresh.forEach(f -> runbooks.stand(f.unit()));
        corrected.forEach(runbooks::stand);
        return view;
    }

    /** What stood there with an old fact has been handed in anew with the right one. */
    private boolean correct(RegistryBook.Site site, Registry registry, RegistrationRow r, Instant now) {
        var unit = site.units().get(r.endpointId());
        if (unit == null) return false;
        var truth = registry.truth(unit, RegistryBook.held(r));
        if (RegistryBook.plain(r).stale(registry.rules(), truth).isEmpty()) return false;
        return store.change(new Draft(r).holds(truth).asked(now).row()) > 0;
    }

    /** Compares what a registry really holds with what it should; when taken, what stands there counts as entered. */
    @Transactional
    public HoldingsView holdings(long registryId, RegistryForm form, String text, boolean preview, String by) {
        var row = registry(registryId);
        var site = book.site(row.siteId());
        var registry = site.registries().get(registryId);
        var read = RegistryReader.read(form, text);
        if (!read.problems().isEmpty()) return new HoldingsView(preview, List.of(), 0, read.problems());
        var wanted = site.units().values().stream()
                .filter(u -> site.row(registryId, u.id()).isPresent() || registry.wants(u))
                .map(u -> new Wanted(
                        u.id(),
                        site.row(registryId, u.id())
                                .map(r -> registry.truth(u, RegistryBook.held(r)))
                                .orElse(registry.proposal(u, "", List.of()))))
                .toList();
        var lines = new RegistryCompare(registry, form, everKnown(row.siteId(), site)).compare(wanted, read.entries());
        int asWanted = (int)
                lines.stream().filter(l -> l.outcome() == Outcome.AS_WANTED).count();
        if (!preview) take(site, registry, lines, read.entries(), by);
        return new HoldingsView(preview, lines, asWanted, List.of());
    }

    /** The living, and the retired as far as an old MAC may still stand somewhere. */
    private List<Unit> everKnown(long siteId, RegistryBook.Site site) {
        var units = new ArrayList<>(site.units().values());
        units.addAll(book.retired(siteId));
        return units;
    }

    private void take(
            RegistryBook.Site site,
            Registry registry,
            List<RegistryCompare.Compared> lines,
            List<RegistryReader.Read> held,
            String by) {
        var now = clock.instant();
        for (var line : lines) {
            if (line.unit() == null) continue;
            var unit = site.units().get(line.unit());
            var row = site.row(registry.id(), line.unit());
            if (line.outcome() == Outcome.AS_WANTED && row.isEmpty())
                put(registry, unit, registry.proposal(unit, "", List.of()), true, by, "Found in its list");
            if (row.isEmpty()) continue;
            var there = held.stream()
                    .filter(r -> Long.valueOf(r.line()).equals(line.line()))
                    .map(RegistryReader.Read::entry)
                    .findFirst();
            var draft = new Draft(row.get());
            if (line.outcome() == Outcome.MISSING) {
                if (row.get().enteredAt() == null) continue;
                draft.missing();
            } else {
                if (line.outcome() == Outcome.AS_WANTED)
                    draft.holds(registry.truth(unit, RegistryBook.held(row.get())));
                else there.ifPresent(draft::foundThere);
                if (row.get().enteredAt() == null)
                    draft.entered(now, false)
                            .ends(Registration.end(
                                            registry.rules(),
                                            now,
                                            zone(row.get().siteId()))
                                    .orElse(null));
            }
            store.change(draft.row());
            note(
                    by,
                    "compared with the list of " + registry.name(),
                    row.get(),
                    store.find(row.get().id()),
                    line.said());
        }
        lines.stream().filter(l -> l.unit() != null).forEach(l -> runbooks.stand(l.unit()));
    }
}
