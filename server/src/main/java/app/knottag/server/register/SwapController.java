package app.knottag.server.register;

import app.knottag.core.register.FactGraph.FactLink;
import app.knottag.server.change.Conflicts;
import app.knottag.server.record.Endpoints;
import app.knottag.server.record.Sites;
import app.knottag.server.register.SwapForm.SwapRequest;
import app.knottag.server.register.Swaps.SwapView;
import app.knottag.server.web.Etags;
import app.knottag.server.web.Idempotency;
import jakarta.validation.Valid;
import java.security.Principal;
import java.util.List;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Swaps of units, and who holds which fact, over HTTP. */
@RestController
class SwapController {

    record SwapBegun(long id) {}

    record TickRequest(boolean ticked) {}

    private final Swaps swaps;
    private final SwapForm form;
    private final Endpoints endpoints;
    private final Sites sites;
    private final Conflicts conflicts;
    private final Idempotency idempotency;

    SwapController(
            Swaps swaps,
            SwapForm form,
            Endpoints endpoints,
            Sites sites,
            Conflicts conflicts,
            Idempotency idempotency) {
        this.swaps = swaps;
        this.form = form;
        this.endpoints = endpoints;
        this.sites = sites;
        this.conflicts = conflicts;
        this.idempotency = idempotency;
    }

    @GetMapping("/api/endpoints/{id}/chain")
    List<FactLink> chain(@PathVariable long id) {
        return swaps.chain(id);
    }

    @PostMapping("/api/endpoints/{id}/swaps")
    @ResponseStatus(HttpStatus.CREATED)
    SwapBegun begin(
            @PathVariable long id,
            @RequestHeader(name = "If-Match", required = false) String ifMatch,
            @RequestHeader(name = "Idempotency-Key", required = false) String key,
            @Valid @RequestBody SwapRequest b,
            Principal by) {
        int expected = Etags.required(ifMatch);
        var e = endpoints.get(id);
        return conflicts.guard(
                e.siteId(),
                e.segmentId(),
                () -> idempotency.once(
                        by.getName(),
                        key,
                        List.of(id, b),
                        SwapBegun.class,
                        () -> new SwapBegun(swaps.begin(id, expected, form.read(e, b), by.getName()))));
    }

    @GetMapping("/api/sites/{siteId}/swaps")
    List<SwapView> of(@PathVariable long siteId) {
        sites.site(siteId);
        return swaps.of(siteId);
    }

    @GetMapping("/api/swaps/{id}")
    ResponseEntity<SwapView> one(@PathVariable long id) {
        var view = swaps.view(swaps.get(id));
        return Etags.answer(HttpStatus.OK, view.version(), view);
    }

    @PutMapping("/api/swaps/{id}/steps/{index}")
    ResponseEntity<SwapView> tick(
            @PathVariable long id,
            @PathVariable int index,
            @RequestHeader(name = "If-Match", required = false) String ifMatch,
            @Valid @RequestBody TickRequest b,
            Principal by) {
        int expected = Etags.required(ifMatch);
        return RegistryConflicts.guard(() -> {
            swaps.tick(id, expected, index, b.ticked(), by.getName());
            return one(id);
        });
    }

    @PostMapping("/api/swaps/{id}/closing")
    ResponseEntity<SwapView> close(
            @PathVariable long id, @RequestHeader(name = "If-Match", required = false) String ifMatch, Principal by) {
        swaps.close(id, Etags.required(ifMatch), by.getName());
        return one(id);
    }
}
