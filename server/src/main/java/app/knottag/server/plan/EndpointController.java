package app.knottag.server.plan;

import app.knottag.core.address.Ipv4Address;
import app.knottag.server.change.ChangeRequest;
import app.knottag.server.change.Conflicts;
import app.knottag.server.change.EndpointForm;
import app.knottag.server.change.EndpointRequest;
import app.knottag.server.change.EndpointWork;
import app.knottag.server.record.EndpointStore;
import app.knottag.server.record.Endpoints;
import app.knottag.server.record.Sites;
import app.knottag.server.web.Etags;
import app.knottag.server.web.Idempotency;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import java.security.Principal;
import java.util.List;
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

    private final Endpoints endpoints;
    private final EndpointWork work;
    private final EndpointForm form;
    private final Sites sites;
    private final Conflicts conflicts;
    private final Idempotency idempotency;

    private final EndpointViews views;

    EndpointController(
            Endpoints endpoints,
            EndpointWork work,
            EndpointForm form,
            Sites sites,
            Conflicts conflicts,
            Idempotency idempotency,
            EndpointViews views) {
        this.views = views;
        this.endpoints = endpoints;
        this.work = work;
        this.form = form;
        this.sites = sites;
        this.conflicts = conflicts;
        this.idempotency = idempotency;
    }

    @GetMapping("/api/sites/{siteId}/stations")
    List<EndpointViews.StationView> stations(@PathVariable long siteId) {
        return views.stations(siteId);
    }

    /** Those without an address come first, as if they had 0.0.0.0; the last of a page says where the next one begins. */
    @GetMapping("/api/sites/{siteId}/endpoints")
    List<EndpointStore.EndpointLine> page(
            @PathVariable long siteId,
            @RequestParam(defaultValue = "0.0.0.0") String afterAddress,
            @RequestParam(defaultValue = "0") long afterId,
            @RequestParam(defaultValue = "500") int limit) {
        return views.page(siteId, Ipv4Address.parse(afterAddress), afterId, limit);
    }

    @GetMapping("/api/find")
    List<EndpointStore.EndpointLine> find(@RequestParam String q, @RequestParam(defaultValue = "0") long siteId) {
        return views.find(q, siteId);
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
                        List.of(siteId, b),
                        Created.class,
                        () -> new Created(work.add(siteId, form.read(siteId, b), by.getName()))));
    }

    @GetMapping("/api/endpoints/{id}")
    ResponseEntity<EndpointView> one(@PathVariable long id) {
        var view = views.view(endpoints.get(id));
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
            work.change(id, expected, form.read(was, b), by.getName());
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
}
