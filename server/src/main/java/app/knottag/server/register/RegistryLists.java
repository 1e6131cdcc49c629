package app.knottag.server.register;

import app.knottag.core.register.HandOver;
import app.knottag.core.register.RegisterFile;
import app.knottag.core.register.Registration;
import app.knottag.core.register.RegistrationJudge;
import app.knottag.core.register.Registry;
import app.knottag.core.register.RegistryCompare;
import app.knottag.core.register.RegistryCompare.Outcome;
import app.knottag.core.register.RegistryCompare.Wanted;
import app.knottag.core.register.RegistryEntry;
import app.knottag.core.register.RegistryFile;
import app.knottag.core.register.RegistryForm;
import app.knottag.core.register.RegistryReader;
import app.knottag.core.register.Unit;
import app.knottag.server.change.Consequences;
import app.knottag.server.db.Json;
import app.knottag.server.log.Log;
import app.knottag.server.record.RegistrationStore;
import app.knottag.server.record.RegistrationStore.HandOverRow;
import app.knottag.server.record.RegistrationStore.RegistrationRow;
import app.knottag.server.record.RegistryBook;
import app.knottag.server.record.Sites;
import app.knottag.server.register.EntryForm.ListWish;
import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;

/** Hands whole lists over and compares them with what is really there. */
@Service
class RegistryLists {

    /** What a hand-over holds, and what keeps units out of it. */
    public record HandOverView(
            String text,
            String file,
            long added,
            long changed,
            long gone,
            List<String> leftOut,
            List<RegistryLines.RegistryLine> objected) {}

    /** What a registry really holds, compared. */
    public record HoldingsView(
            boolean preview, List<RegistryCompare.Compared> lines, int asWanted, List<RegisterFile.Problem> problems) {}

    private final RegistrationStore store;
    private final RegistryBook book;
    private final RegistryLines shown;
    private final Registrations registrations;
    private final Consequences consequences;
    private final Sites sites;
    private final Log log;
    private final Clock clock;
    private final JsonMapper json;

    RegistryLists(
            RegistrationStore store,
            RegistryBook book,
            RegistryLines shown,
            Registrations registrations,
            Consequences consequences,
            Sites sites,
            Log log,
            Clock clock,
            JsonMapper json) {
        this.store = store;
        this.book = book;
        this.shown = shown;
        this.registrations = registrations;
        this.consequences = consequences;
        this.sites = sites;
        this.log = log;
        this.clock = clock;
        this.json = json;
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
        var row = shown.registry(registryId);
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
            List<RegistryLines.RegistryLine> objected) {
        var all = HandOver.between(lastHandedOver(registry.id()), entries);
        var list = onlyChanges ? all.changed() : all;
        var s = sites.site(siteId);
        var head = new RegistryFile.Head(
                s.name(),
                registry.name(),
                s.code().toLowerCase(Locale.ROOT) + ".internal",
                clock.instant(),
                onlyChanges);
        return new HandOverView(
                RegistryFile.write(form, head, list),
                RegistryFile.name(s.code(), registry.name(), form, onlyChanges),
                all.count(HandOver.Change.NEW),
                all.count(HandOver.Change.CHANGED),
                all.count(HandOver.Change.GONE),
                RegistryFile.leftOut(form, list),
                objected);
    }

    /** Hands over everything that waits and nothing speaks against; units with objections stay, and are named. */
    @Transactional
    public HandOverView handOver(long registryId, ListWish wish, String by) {
        var row = shown.registry(registryId);
        var site = book.site(row.siteId());
        var registry = site.registries().get(registryId);
        var objected = new ArrayList<RegistryLines.RegistryLine>();
        var fresh = new ArrayList<Registration>();
        for (var unit : site.units().values()) {
            if (!registry.wants(unit) || site.row(registryId, unit.id()).isPresent()) continue;
            var entry = RegistryLines.entry(registry, unit, wish.people());
            // Those that are new in this very list are judged beside one another too.
            var known = new ArrayList<>(site.registrations());
            known.addAll(fresh);
            var judge = new RegistrationJudge(registry, known, site.units().values(), clock.instant());
            if (!judge.judge(unit, entry).isEmpty()) objected.add(shown.missing(registry, unit, judge, entry));
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
                if (!wish.preview()) registrations.put(registry, unit, entry, false, by, "");
            }
        }
        var standing = new ArrayList<>(entries(site, registry));
        fresh.forEach(f -> standing.add(f.held()));
        var view = view(row.siteId(), registry, wish.form(), wish.onlyChanges(), standing, objected);
        if (wish.preview()) return view;
        var now = clock.instant();
        var corrected = new ArrayList<Long>();
        for (var r : site.rows())
            if (r.registryId() == registryId && r.endedAt() == null && correct(site, registry, r, now))
                corrected.add(r.endpointId());
        store.handOver(
                new HandOverRow(0, registryId, now, by, wish.form(), new Json(json.writeValueAsString(standing))));
        log.write(Log.entry(by, "handed over the list of " + registry.name())
                .at(row.siteId())
                .after(Map.of("new", view.added(), "changed", view.changed(), "gone", view.gone())));
        fresh.forEach(f -> consequences.stand(f.unit()));
        corrected.forEach(consequences::stand);
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
        var row = shown.registry(registryId);
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
                registrations.put(
                        registry, unit, registry.proposal(unit, "", List.of()), true, by, "Found in its list");
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
                                            shown.clock(row.get().siteId()).zone())
                                    .orElse(null));
            }
            store.change(draft.row());
            registrations.note(
                    by,
                    "compared with the list of " + registry.name(),
                    row.get(),
                    store.find(row.get().id()),
                    line.said());
        }
        lines.stream().filter(l -> l.unit() != null).forEach(l -> consequences.stand(l.unit()));
    }

    /** What was handed over last to a registry, if anything was. */
    Optional<HandOverRow> lastHandOver(long registryId) {
        return Optional.ofNullable(store.lastHandOver(registryId));
    }
}
