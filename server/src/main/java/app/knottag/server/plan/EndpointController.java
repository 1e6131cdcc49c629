package app.knottag.server.plan;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.kind.Kinds;
import app.knottag.core.knot.Knot;
import app.knottag.core.plan.Planner;
import app.knottag.core.runbook.Standing;
import app.knottag.core.runbook.Standing.Station;
import app.knottag.server.change.ChangeRequest;
import app.knottag.server.change.Conflicts;
import app.knottag.server.change.EndpointRequest;
import app.knottag.server.change.EndpointWork;
import app.knottag.server.record.EndpointStore;
import app.knottag.server.record.Endpoints;
import app.knottag.server.record.Runbooks;
import app.knottag.server.record.SiteStore;
import app.knottag.server.record.Sites;
import app.knottag.server.web.Etags;
import app.knottag.server.web.Idempotency;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import java.security.Principal;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Collectors;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PatchMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Endpoints over HTTP: lists, proposals, adding, changing, retiring. */
@RestController
class EndpointController {

    record RetirementRequest(@NotNull String reason) {}

    record AwayRequest(boolean away, String why) {}

    record Created(long id) {}

    record StationView(Station station, long waiting, Knot knot, boolean next) {}

    private final Endpoints endpoints;
    private final EndpointWork work;
    private final EndpointStore store;
    private final SiteStore siteStore;
    private final Sites sites;
    private final Runbooks runbooks;
    private final Kinds kinds;
    private final Conflicts conflicts;
    private final Idempotency idempotency;

    EndpointController(
            Endpoints endpoints,
            EndpointWork work,
            EndpointStore store,
            SiteStore siteStore,
            Sites sites,
            Runbooks runbooks,
            Kinds kinds,
            Conflicts conflicts,
            Idempotency idempotency) {
        this.endpoints = endpoints;
        this.work = work;
        this.store = store;
        this.siteStore = siteStore;
        this.sites = sites;
        this.runbooks = runbooks;
        this.kinds = kinds;
        this.conflicts = conflicts;
        this.idempotency = idempotency;
    }

    @GetMapping("/api/sites/{siteId}/stations")
    List<StationView> stations(@PathVariable long siteId) {
        var rows = store.waiting(siteId).stream().collect(Collectors.toMap(w -> w.station(), w -> w));
        var waiting = new HashMap<Station, Long>();
        rows.forEach((station, row) -> waiting.put(station, row.waiting()));
        var next = Standing.next(waiting);
        var views = new ArrayList<StationView>();
        for (Station station : List.of(Station.PLAN, Station.REGISTER, Station.ONBOARD, Station.CONFIRM)) {
            var row = rows.get(station);
            long count = row == null ? 0 : row.waiting();
            Knot knot = Standing.together(count, row != null && row.frayed(), row != null && row.halfDrawn());
            views.add(new StationView(
                    station, count, knot, next.filter(station::equals).isPresent()));
        }
        return views;
    }

    /** Those without an address come first, as if they had 0.0.0.0; the last of a page says where the next one begins. */
    @GetMapping("/api/sites/{siteId}/endpoints")
    List<EndpointStore.EndpointLine> page(
            @PathVariable long siteId,
            @RequestParam(defaultValue = "0.0.0.0") String afterAddress,
            @RequestParam(defaultValue = "0") long afterId,
            @RequestParam(defaultValue = "500") int limit) {
        return store.page(siteId, Ipv4Address.parse(afterAddress), afterId, Math.max(1, Math.min(limit, 500)));
    }

    @GetMapping("/api/find")
    List<EndpointStore.EndpointLine> find(@RequestParam String q, @RequestParam(defaultValue = "0") long siteId) {
        String text = q.strip().toLowerCase(Locale.ROOT);
        if (text.isEmpty() || text.length() > 60) return List.of();
        return store.search(
                siteId, "%" + text.replace("\\", "\\\\").replace("%", "\\%").replace("_", "\\_") + "%");
    }

    @PostMapping("/api/sites/{siteId}/endpoints")
    @ResponseStatus(HttpStatus.CREATED)
    Created add(
            @PathVariable long siteId,
            @Valid @RequestBody EndpointRequest b,
            @RequestHeader(name = "Idempotency-Key", required = false) String key,
            Principal by) {
        sites.site(siteId);
        return conflicts.guard(
                siteId,
                b.segmentId(),
                () -> idempotency.once(
                        by.getName(),
                        key,
                        Proposals.fingerprint(siteId, b),
                        Created.class,
                        () -> new Created(work.add(siteId, b, by.getName()))));
    }

    @GetMapping("/api/endpoints/{id}")
    ResponseEntity<EndpointView> one(@PathVariable long id) {
        var view = view(endpoints.get(id));
        return Etags.answer(HttpStatus.OK, view.version(), view);
    }

    @PatchMapping("/api/endpoints/{id}")
    ResponseEntity<EndpointView> change(
            @PathVariable long id,
            @RequestHeader(name = "If-Match", required = false) String ifMatch,
            @Valid @RequestBody ChangeRequest b,
            Principal by) {
        var was = endpoints.get(id);
        int expected = Etags.required(ifMatch);
        return conflicts.guard(was.siteId(), was.segmentId(), () -> {
            work.change(id, expected, b, by.getName());
            return one(id);
        });
    }

    @PostMapping("/api/endpoints/{id}/retirement")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void retire(
            @PathVariable long id,
            @RequestHeader(name = "If-Match", required = false) String ifMatch,
            @Valid @RequestBody RetirementRequest body,
            Principal by) {
        work.retire(id, Etags.required(ifMatch), body.reason(), by.getName());
    }

    @PutMapping("/api/endpoints/{id}/away")
    ResponseEntity<EndpointView> away(
            @PathVariable long id,
            @RequestHeader(name = "If-Match", required = false) String ifMatch,
            @Valid @RequestBody AwayRequest body,
            Principal by) {
        work.away(id, Etags.required(ifMatch), body.away(), body.why(), by.getName());
        return one(id);
    }

    private EndpointView view(EndpointStore.Row e) {
        var segment = sites.segment(e.segmentId());
        var ground = sites.ground(segment, e.address()).segment();
        var kind = kinds.get(e.kind());
        var partner = Optional.ofNullable(e.partnerId()).map(siteStore::partner);
        var others = new HashMap<Ipv4Address, String>();
        store.holders(e.siteId()).stream()
                .filter(h -> h.id() != e.id() && h.address() != null)
                .forEach(h -> others.put(h.address(), h.name()));
        var slips = e.address() == null
                ? List.<String>of()
                : new Planner(ground, others).choice(e.address()).oneSlipFrom();
        return new EndpointView(
                e.id(),
                e.siteId(),
                e.segmentId(),
                segment.name(),
                ground.prefix(),
                e.kind(),
                kind.name(),
                kind.labelPlace(),
                e.name(),
                e.number(),
                e.address(),
                ground.prefix().mask(),
                e.method(),
                e.method().words(),
                e.hostName(),
                e.mac(),
                e.serial(),
                e.model(),
                e.awaySince(),
                e.awayWhy(),
                e.servicePort(),
                partner.map(SiteStore.PartnerRow::name).orElse(""),
                partner.map(SiteStore.PartnerRow::address).orElse(null),
                e.partnerPort(),
                e.place(),
                e.outlet(),
                e.switchPort(),
                e.tagCode(),
                e.station(),
                e.knot(),
                standing(e),
                slips,
                e.confirmedAt(),
                e.confirmedBy(),
                e.retiredAt() != null,
                e.version());
    }

    private String standing(EndpointStore.Row e) {
        if (e.retiredAt() != null) return "Retired";
        var runbook = runbooks.runbook(e);
        return switch (e.station()) {
            case PLAN -> "Needs an address";
            case REGISTER ->
                e.mac() == null || e.serial().isEmpty()
                        ? "Needs MAC and serial from the label"
                        : switch (e.knot()) {
                            case FRAYED -> "A registration has run out";
                            case HALF_DRAWN -> "Handed in, not seen there yet";
                            default -> "Waits to be registered";
                        };
            case ONBOARD -> runbook.current().map(s -> "Next: " + s.title()).orElse("Being set up");
            case CONFIRM -> e.knot() == Knot.FRAYED ? "A check failed" : "Set up, not yet proved";
            case DONE -> "Proved and signed off by " + e.confirmedBy();
        };
    }
}
