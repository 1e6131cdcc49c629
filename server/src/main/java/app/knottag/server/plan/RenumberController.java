package app.knottag.server.plan;

import app.knottag.server.change.Conflicts;
import app.knottag.server.plan.Renumberings.RenumberPlan;
import app.knottag.server.plan.Renumberings.RenumberView;
import app.knottag.server.plan.SegmentForm.RenumberRequest;
import app.knottag.server.record.Sites;
import app.knottag.server.web.Etags;
import app.knottag.server.web.Idempotency;
import jakarta.validation.Valid;
import java.security.Principal;
import java.util.List;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Renumbering over HTTP: looked at, begun, done step by step, taken back, given up. */
@RestController
class RenumberController {

    record Begun(long id) {}

    private final Renumberings renumberings;
    private final Sites sites;
    private final Conflicts conflicts;
    private final Idempotency idempotency;

    RenumberController(Renumberings renumberings, Sites sites, Conflicts conflicts, Idempotency idempotency) {
        this.renumberings = renumberings;
        this.sites = sites;
        this.conflicts = conflicts;
        this.idempotency = idempotency;
    }

    private SegmentForm.Filled read(long siteId, long segmentId, RenumberRequest body) {
        return SegmentForm.read(sites.segmentOf(siteId, segmentId), body);
    }

    @PostMapping("/api/sites/{siteId}/segments/{segmentId}/renumbering-plan")
    RenumberPlan preview(
            @PathVariable long siteId, @PathVariable long segmentId, @Valid @RequestBody RenumberRequest body) {
        return renumberings.preview(siteId, segmentId, read(siteId, segmentId, body));
    }

    @PostMapping("/api/sites/{siteId}/segments/{segmentId}/renumberings")
    @ResponseStatus(HttpStatus.CREATED)
    Begun begin(
            @PathVariable long siteId,
            @PathVariable long segmentId,
            @Valid @RequestBody RenumberRequest body,
            @RequestHeader(name = "Idempotency-Key", required = false) String key,
            Principal by) {
        return idempotency.once(
                by.getName(),
                key,
                List.of(siteId, segmentId, body),
                Begun.class,
                () -> new Begun(renumberings.start(siteId, segmentId, read(siteId, segmentId, body), by.getName())));
    }

    @GetMapping("/api/sites/{siteId}/renumberings")
    List<RenumberView> running(@PathVariable long siteId) {
        sites.site(siteId);
        return renumberings.running(siteId).stream().map(renumberings::view).toList();
    }

    @GetMapping("/api/renumberings/{id}")
    ResponseEntity<RenumberView> one(@PathVariable long id) {
        var view = renumberings.view(renumberings.get(id));
        return Etags.answer(HttpStatus.OK, view.version(), view);
    }

    @PostMapping("/api/renumberings/{id}/steps")
    ResponseEntity<RenumberView> complete(
            @PathVariable long id, @RequestHeader(name = "If-Match", required = false) String ifMatch, Principal by) {
        int expected = Etags.required(ifMatch);
        var row = renumberings.get(id);
        return conflicts.guard(row.siteId(), row.segmentId(), () -> {
            renumberings.tick(id, expected, by.getName());
            return one(id);
        });
    }

    @DeleteMapping("/api/renumberings/{id}/steps/last")
    ResponseEntity<RenumberView> reopen(
            @PathVariable long id, @RequestHeader(name = "If-Match", required = false) String ifMatch, Principal by) {
        int expected = Etags.required(ifMatch);
        var row = renumberings.get(id);
        return conflicts.guard(row.siteId(), row.segmentId(), () -> {
            renumberings.untick(id, expected, by.getName());
            return one(id);
        });
    }

    @DeleteMapping("/api/renumberings/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void giveUp(
            @PathVariable long id, @RequestHeader(name = "If-Match", required = false) String ifMatch, Principal by) {
        renumberings.giveUp(id, Etags.required(ifMatch), by.getName());
    }
}
