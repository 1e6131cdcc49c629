package app.knottag.server.register;

import app.knottag.core.register.FactGraph;
import app.knottag.core.register.Registration;
import app.knottag.core.register.Registry;
import app.knottag.core.register.SwapSheet;
import app.knottag.core.register.SwapSheet.Act;
import app.knottag.core.register.SwapSheet.Facts;
import app.knottag.core.register.SwapSheet.Step;
import app.knottag.server.change.ChangeRequest;
import app.knottag.server.change.Consequences;
import app.knottag.server.change.EndpointForm;
import app.knottag.server.change.EndpointWork;
import app.knottag.server.db.Json;
import app.knottag.server.log.Log;
import app.knottag.server.record.EndpointStore;
import app.knottag.server.record.Endpoints;
import app.knottag.server.record.RegistrationStore;
import app.knottag.server.record.RegistrationStore.RegistrationRow;
import app.knottag.server.record.RegistryBook;
import app.knottag.server.record.Runbooks;
import app.knottag.server.record.SiteStore;
import app.knottag.server.register.SwapForm.NewUnit;
import app.knottag.server.register.SwapStore.SwapRow;
import app.knottag.server.web.Etags;
import app.knottag.server.web.Problem;
import java.time.Clock;
import java.time.Instant;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.stream.Collectors;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;

/** Puts one unit in the place of another: the old facts out and the new in, place by place, each with its tick. */
@Service
public class Swaps {

    /** A line of the sheet; the tick of some is set by what was done elsewhere, such as the runbook. */
    public record SwapLine(Act act, String title, String detail, boolean ticked, boolean mayTick, String waits) {}

    public record SwapView(
            long id,
            long endpointId,
            String endpoint,
            String oldUnit,
            String newUnit,
            List<SwapLine> steps,
            List<String> leftovers,
            Instant startedAt,
            String startedBy,
            boolean ended,
            int version) {}

    private final SwapStore store;
    private final RegistrationStore registrations;
    private final RegistryBook book;
    private final Chains chains;
    private final Endpoints endpoints;
    private final EndpointWork work;
    private final EndpointForm form;
    private final EndpointStore endpointStore;
    private final SiteStore siteStore;
    private final Runbooks runbooks;
    private final Consequences consequences;
    private final Log log;
    private final Clock clock;
    private final JsonMapper json;

    Swaps(
            SwapStore store,
            RegistrationStore registrations,
            RegistryBook book,
            Chains chains,
            Endpoints endpoints,
            EndpointWork work,
            EndpointForm form,
            EndpointStore endpointStore,
            SiteStore siteStore,
            Runbooks runbooks,
            Consequences consequences,
            Log log,
            Clock clock,
            JsonMapper json) {
        this.store = store;
        this.registrations = registrations;
        this.book = book;
        this.chains = chains;
        this.endpoints = endpoints;
        this.work = work;
        this.form = form;
        this.endpointStore = endpointStore;
        this.siteStore = siteStore;
        this.runbooks = runbooks;
        this.consequences = consequences;
        this.log = log;
        this.clock = clock;
        this.json = json;
    }

    /** Begins: the record holds the new unit from now on, and the sheet says where the old one still stands. */
    @Transactional
    public long begin(long endpointId, int expected, NewUnit unit, String by) {
        var was = endpoints.get(endpointId);
        if (was.retiredAt() != null) throw Problem.of(HttpStatus.CONFLICT, "retired", "This endpoint is retired.");
        if (store.running(endpointId))
            throw Problem.of(
                    HttpStatus.CONFLICT,
                    "swap-running",
                    "A swap of " + was.name() + " is under way. Finish its sheet first.");
        var fresh = unit.facts();
        var old = new Facts(Optional.ofNullable(was.mac()), was.serial(), was.model());
        var held = registrations.ofEndpoint(endpointId);
        var standings = new ArrayList<SwapSheet.Held>();
        for (var row : held) {
            var registry = registrations.registry(row.registryId());
            if (registry != null) standings.add(new SwapSheet.Held(book.plain(registry), RegistryBook.plain(row)));
        }
        var partner = Optional.ofNullable(was.partnerId())
                .map(siteStore::partner)
                .map(SiteStore.PartnerRow::name)
                .orElse("");
        var steps = SwapSheet.of(
                was.name(), old, fresh, standings, partner, was.tagCode(), chains.notesName(endpointId, old));
        work.change(
                endpointId,
                expected,
                form.read(
                        was,
                        ChangeRequest.facts(
                                fresh.mac().orElseThrow().toString(), fresh.serial(), fresh.model(), unit.reason())),
                by);
        work.unitGone(endpointId, fresh.mac().orElseThrow());
        consequences.beginAnew(endpoints.get(endpointId));
        long id = store.add(new SwapRow(
                0,
                was.siteId(),
                endpointId,
                new Json(json.writeValueAsString(old)),
                new Json(json.writeValueAsString(fresh)),
                new Json(json.writeValueAsString(steps)),
                steps.stream().map(s -> "f").collect(Collectors.joining(",")),
                null,
                by,
                null,
                1));
        log.write(Log.entry(by, "swap begun")
                .at(was.siteId(), endpointId)
                .before(old)
                .after(fresh)
                .because(unit.reason()));
        return id;
    }

    SwapRow get(long id) {
        return Optional.ofNullable(store.find(id)).orElseThrow(() -> Problem.notFound("There is no such swap."));
    }

    List<SwapView> of(long siteId) {
        return store.of(siteId).stream().map(this::view).toList();
    }

    private List<Step> steps(SwapRow row) {
        return json.readValue(row.steps().text(), new TypeReference<List<Step>>() {});
    }

    private static List<Boolean> ticks(SwapRow row) {
        return Arrays.stream(row.ticked().split(","))
                .map(t -> t.startsWith("t"))
                .collect(Collectors.toList());
    }

    private Facts facts(Json kept) {
        return json.readValue(kept.text(), Facts.class);
    }

    SwapView view(SwapRow row) {
        var e = endpointStore.find(row.endpointId());
        var steps = steps(row);
        var ticks = done(row, e);
        var lines = new ArrayList<SwapLine>();
        for (int i = 0; i < steps.size(); i++) {
            String waits = ticks.get(i) ? "" : waits(steps, ticks, i);
            lines.add(new SwapLine(
                    steps.get(i).act(),
                    steps.get(i).title(),
                    steps.get(i).detail(),
                    ticks.get(i),
                    !ticks.get(i) && waits.isEmpty() && row.endedAt() == null,
                    waits));
        }
        return new SwapView(
                row.id(),
                e.id(),
                e.name(),
                facts(row.oldUnit()).toString(),
                facts(row.newUnit()).toString(),
                lines,
                chains.leftovers(e, facts(row.oldUnit()), facts(row.newUnit())),
                row.startedAt(),
                row.startedBy(),
                row.endedAt() != null,
                row.version());
    }

    /** What the runbook and the proof say ticks itself. */
    private List<Boolean> done(SwapRow row, EndpointStore.Row e) {
        var steps = steps(row);
        var ticks = ticks(row);
        for (int i = 0; i < steps.size(); i++) {
            if (steps.get(i).act() == Act.SET_UP)
                ticks.set(i, runbooks.runbook(e).readyToConfirm());
            if (steps.get(i).act() == Act.PROVE) ticks.set(i, e.confirmedAt() != null);
        }
        return ticks;
    }

    private static String waits(List<Step> steps, List<Boolean> ticks, int at) {
        var step = steps.get(at);
        if (step.act() == Act.SET_UP) return "The runbook does this.";
        if (step.act() == Act.PROVE) return "The sign-off at Confirm does this.";
        if (step.act() == Act.PUT_IN)
            for (int i = 0; i < at; i++)
                if (steps.get(i).act() == Act.TAKE_OUT
                        && Objects.equals(steps.get(i).registration(), step.registration())
                        && !ticks.get(i)) return "The old one goes out first.";
        return "";
    }

    /** Ticks or unticks a line; what it does to the registrations is done with it. */
    @Transactional
    public void tick(long id, int expected, int index, boolean set, String by) {
        var row = get(id);
        var e = endpoints.get(row.endpointId());
        var steps = new ArrayList<>(steps(row));
        if (index < 0 || index >= steps.size()) throw Problem.notFound("There is no such line on the sheet.");
        var ticks = done(row, e);
        var step = steps.get(index);
        if (ticks.get(index) == set) return;
        String waits = set ? waits(steps, ticks, index) : "";
        if (!waits.isEmpty()) throw Problem.of(HttpStatus.CONFLICT, "waits", waits);
        if (!set && step.act() == Act.TAKE_OUT && putIn(steps, ticks, step))
            throw Problem.of(HttpStatus.CONFLICT, "waits", "The new one stands there already. Untick that first.");
        switch (step.act()) {
            case TAKE_OUT -> takeOut(row, step, set, by);
            case PUT_IN -> steps.set(index, putIn(row, e, step, set, by));
            case SET_UP, PROVE ->
                throw Problem.of(HttpStatus.CONFLICT, "waits", "This line is ticked by the work itself.");
            default -> {}
        }
        ticks.set(index, set);
        boolean all = ticks.stream().allMatch(t -> t);
        boolean clean =
                chains.leftovers(e, facts(row.oldUnit()), facts(row.newUnit())).isEmpty();
        keep(row, expected, ticks, steps, all && clean ? clock.instant() : null);
        consequences.stand(e.id());
        log.write(Log.entry(by, (set ? "swap: done “" : "swap: taken back “") + step.title() + "”")
                .at(row.siteId(), e.id()));
    }

    private void keep(SwapRow row, int expected, List<Boolean> ticks, List<Step> steps, Instant ended) {
        String text = ticks.stream().map(t -> t ? "t" : "f").collect(Collectors.joining(","));
        if (store.tick(row.id(), expected, text, new Json(json.writeValueAsString(steps)), ended) == 0)
            throw Etags.stale();
    }

    /** Closes a sheet on which everything is done and nothing old is left. */
    @Transactional
    public void close(long id, int expected, String by) {
        var row = get(id);
        var e = endpoints.get(row.endpointId());
        var view = view(row);
        view.steps().stream().filter(s -> !s.ticked()).findFirst().ifPresent(s -> {
            throw Problem.of(HttpStatus.CONFLICT, "waits", "Still open: " + s.title() + ".");
        });
        if (!view.leftovers().isEmpty())
            throw Problem.of(
                    HttpStatus.CONFLICT,
                    "leftovers",
                    "The old unit still stands: " + String.join(" ", view.leftovers()));
        keep(row, expected, done(row, e), steps(row), clock.instant());
        log.write(Log.entry(by, "swap closed").at(row.siteId(), e.id()).after(Map.of("swap", id)));
    }

    private static boolean putIn(List<Step> steps, List<Boolean> ticks, Step out) {
        for (int i = 0; i < steps.size(); i++)
            if (steps.get(i).act() == Act.PUT_IN
                    && Objects.equals(steps.get(i).registration(), out.registration())
                    && ticks.get(i)) return true;
        return false;
    }

    private void takeOut(SwapRow row, Step step, boolean set, String by) {
        var was = registrations.find(step.registration());
        var draft = new Draft(was).ended(set ? clock.instant() : null, set ? "Swapped for another unit" : "");
        if (registrations.change(draft.row()) == 0) throw Etags.stale();
        log.write(Log.entry(by, set ? "taken out" : "put back")
                .at(row.siteId(), row.endpointId())
                .before(was)
                .after(registrations.find(was.id())));
    }

    /** Puts the new unit in under the old name and people; the line keeps pointing at the old entry. */
    private Step putIn(SwapRow row, EndpointStore.Row e, Step step, boolean set, String by) {
        var old = registrations.find(step.registration());
        Registry registry = book.plain(registrations.registry(old.registryId()));
        if (!set) {
            registrations.ofEndpoint(e.id()).stream()
                    .filter(r -> r.registryId() == old.registryId())
                    .forEach(r -> registrations.change(
                            new Draft(r).ended(clock.instant(), "Taken back").row()));
            return step;
        }
        var entry = registry.truth(book.unit(e), RegistryBook.held(old));
        var now = clock.instant();
        boolean herself = registry.rules().waitsFor().isEmpty();
        var zone = ZoneId.of(siteStore.site(row.siteId()).zone());
        long id = registrations.add(new RegistrationRow(
                0,
                old.registryId(),
                row.siteId(),
                e.id(),
                entry.name(),
                entry.mac().orElse(null),
                entry.address().orElse(null),
                entry.serial(),
                entry.model(),
                old.owner(),
                old.sharedWith(),
                old.issued(),
                old.issuedUsed(),
                now,
                herself ? now : null,
                null,
                herself ? Registration.end(registry.rules(), now, zone).orElse(null) : null,
                null,
                "",
                1));
        log.write(Log.entry(by, herself ? "put in" : "handed in")
                .at(row.siteId(), e.id())
                .after(registrations.find(id)));
        return step;
    }

    /** Returns who holds which fact about an endpoint. */
    List<FactGraph.FactLink> chain(long endpointId) {
        return chains.links(endpoints.get(endpointId));
    }
}
