package app.knottag.server.plan;

import app.knottag.server.change.Conflicts;
import app.knottag.server.plan.BatchForm.BatchRequest;
import app.knottag.server.plan.Batches.BatchView;
import app.knottag.server.web.Idempotency;
import jakarta.validation.Valid;
import java.security.Principal;
import java.util.List;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Many endpoints at once over HTTP: looked at first, then made all or nothing. */
@RestController
class BatchController {

    private final Batches batches;
    private final BatchForm form;
    private final Conflicts conflicts;
    private final Idempotency idempotency;

    BatchController(Batches batches, BatchForm form, Conflicts conflicts, Idempotency idempotency) {
        this.batches = batches;
        this.form = form;
        this.conflicts = conflicts;
        this.idempotency = idempotency;
    }

    @PostMapping("/api/sites/{siteId}/endpoint-batches")
    BatchView batch(
            @PathVariable long siteId,
            @RequestParam(defaultValue = "true") boolean preview,
            @Valid @RequestBody BatchRequest b,
            @RequestHeader(name = "Idempotency-Key", required = false) String key,
            Principal by) {
        if (preview) return batches.preview(form.read(siteId, b));
        return conflicts.guard(
                siteId,
                b.segmentId(),
                () -> idempotency.once(
                        by.getName(),
                        key,
                        List.of(siteId, b),
                        BatchView.class,
                        () -> batches.make(form.read(siteId, b), by.getName())));
    }
}
