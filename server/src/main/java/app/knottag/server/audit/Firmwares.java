package app.knottag.server.audit;

import app.knottag.core.hardware.Firmware;
import app.knottag.core.hardware.Firmware.Verdict;
import app.knottag.core.kind.Kinds;
import app.knottag.server.audit.FirmwareStore.FaultRow;
import app.knottag.server.audit.FirmwareStore.KindRow;
import app.knottag.server.audit.FirmwareStore.UnitRow;
import app.knottag.server.log.Log;
import app.knottag.server.record.Endpoints;
import app.knottag.server.record.Sites;
import app.knottag.server.web.Dates;
import app.knottag.server.web.FormReader;
import app.knottag.server.web.Problem;
import app.knottag.server.web.Scope;
import java.time.Clock;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Which firmware each unit has, with the day on which it was read, and who still has one of which a fault is known. */
@Service
class Firmwares {

    private final FirmwareStore store;
    private final Endpoints endpoints;
    private final Sites sites;
    private final Kinds kinds;
    private final Log log;
    private final Clock clock;

    Firmwares(FirmwareStore store, Endpoints endpoints, Sites sites, Kinds kinds, Log log, Clock clock) {
        this.store = store;
        this.endpoints = endpoints;
        this.sites = sites;
        this.kinds = kinds;
        this.log = log;
        this.clock = clock;
    }

    /** How a unit stands to a fault. */
    record Concerned(UnitRow unit, Verdict verdict) {}

    /** @param concerned all of its kind, but for other models */
    record Fault(FaultRow row, List<Concerned> concerned) {}

    /**
     * @param kind whose units are shown; empty when the site has none
     */
    record Listed(List<Fault> faults, List<KindRow> kinds, String kind, List<UnitRow> units) {}

    /** @param kind of which the units are wanted; anything else asks for the first that is worth a look */
    @Transactional(readOnly = true)
    Listed at(long siteId, String kind) {
        sites.site(siteId);
        var known = store.faults();
        var units = known.isEmpty()
                ? Map.<String, List<UnitRow>>of()
                : Scope.now().seen(store.concerned(), UnitRow::siteId).stream()
                        .collect(Collectors.groupingBy(UnitRow::kind));
        var faults = known.stream()
                .map(f -> new Fault(f, concerned(f, units.getOrDefault(f.kind(), List.of()))))
                .toList();
        var here = store.kinds(siteId);
        String shown = here.stream()
                .map(KindRow::kind)
                .filter(kind::equals)
                .findFirst()
                .or(() -> here.stream()
                        .map(KindRow::kind)
                        .filter(units::containsKey)
                        .findFirst())
                .or(() -> here.stream().map(KindRow::kind).findFirst())
                .orElse("");
        return new Listed(faults, here, shown, store.ofKind(siteId, shown));
    }

    private static List<Concerned> concerned(FaultRow f, List<UnitRow> units) {
        return units.stream()
                .map(u -> new Concerned(
                        u, Firmware.judge(f.model(), u.model(), Optional.ofNullable(u.version()), f.mendedIn())))
                .filter(c -> c.verdict() != Verdict.OTHER_MODEL)
                .toList();
    }

    String name(String kind) {
        return kinds.find(kind).map(k -> k.name()).orElse(kind);
    }

    /** @param day as it is typed; blank for today */
    @Transactional
    public void read(long endpointId, String version, String day, String by) {
        var endpoint = endpoints.get(endpointId);
        var site = sites.clock(endpoint.siteId());
        String text = version("version", version);
        var on = Optional.ofNullable(Dates.day("day", day, site.style())).orElse(site.today());
        if (on.isAfter(site.today())) throw Problem.field("day", "ahead", "It cannot have been read on a day to come.");
        if (on.isBefore(LocalDate.EPOCH)) throw Problem.field("day", "too-early", "That is before there was any.");
        store.read(endpointId, text, on, by);
        log.write(Log.entry(by, "firmware " + text + " was read")
                .at(endpoint.siteId(), endpointId)
                .after(Map.of("version", text, "day", on.toString())));
    }

    private static String version(String field, String typed) {
        String text = FormReader.words(field, typed, true);
        Firmware.problem(text).ifPresent(p -> {
            throw Problem.field(field, "no-version", p);
        });
        return text;
    }

    @Transactional
    public void know(String kind, String model, String mendedIn, String what, String by) {
        if (kinds.find(kind).isEmpty()) throw Problem.field("kind", "no-such-kind", "There is no such kind.");
        var fault = new FaultRow(
                0,
                kind,
                FormReader.words("model", model, false),
                version("mendedIn", mendedIn),
                FormReader.words("what", what, true),
                by,
                clock.instant());
        // The same word again is no second fault.
        if (store.add(fault) == 0) return;
        log.write(Log.entry(by, "a fault of firmware became known").after(told(fault)));
    }

    @Transactional
    public void forget(long id, String by) {
        var fault = store.forget(id).orElseThrow(() -> Problem.notFound("No such fault is known."));
        log.write(Log.entry(by, "a fault of firmware counts no longer").before(told(fault)));
    }

    private static Map<String, String> told(FaultRow f) {
        return Map.of("kind", f.kind(), "model", f.model(), "mendedIn", f.mendedIn(), "what", f.what());
    }
}
