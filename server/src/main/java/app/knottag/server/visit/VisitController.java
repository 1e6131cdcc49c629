package app.knottag.server.visit;

import app.knottag.core.time.DateStyle;
import app.knottag.server.record.Sites;
import app.knottag.server.visit.VisitForm.VisitPlanRequest;
import app.knottag.server.visit.VisitView.VisitLine;
import app.knottag.server.web.Etags;
import app.knottag.server.web.Idempotency;
import jakarta.validation.Valid;
import java.security.Principal;
import java.time.ZoneId;
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

/** Visits over HTTP. */
@RestController
class VisitController {

    record VisitCreated(long id) {}

    private final Visits visits;
    private final VisitPlans plans;
    private final Taking taking;
    private final VisitPreparation preparation;
    private final VisitViews views;
    private final Sites sites;
    private final Idempotency idempotency;

    VisitController(
            Visits visits,
            VisitPlans plans,
            Taking taking,
            VisitPreparation preparation,
            VisitViews views,
            Sites sites,
            Idempotency idempotency) {
        this.visits = visits;
        this.plans = plans;
        this.taking = taking;
        this.preparation = preparation;
        this.views = views;
        this.sites = sites;
        this.idempotency = idempotency;
    }

    /** Visits that are not over, of all sites. */
    @GetMapping("/api/visits")
    List<VisitLine> open() {
        return views.open();
    }

    @GetMapping("/api/sites/{siteId}/visits")
    List<VisitLine> ofSite(@PathVariable long siteId) {
        sites.site(siteId);
        return views.ofSite(siteId);
    }

    @PostMapping("/api/sites/{siteId}/visits")
    @ResponseStatus(HttpStatus.CREATED)
    VisitCreated create(
            @PathVariable long siteId,
            @Valid @RequestBody VisitPlanRequest b,
            @RequestHeader(name = "Idempotency-Key", required = false) String key,
            Principal by) {
        var asked = VisitForm.read(b, zone(siteId), style(siteId));
        return idempotency.once(
                by.getName(),
                key,
                List.of(siteId, b),
                VisitCreated.class,
                () -> new VisitCreated(visits.create(siteId, asked, by.getName())));
    }

    private ZoneId zone(long siteId) {
        return ZoneId.of(sites.site(siteId).zone());
    }

    private DateStyle style(long siteId) {
        return sites.site(siteId).dates();
    }

    /** What goes along, who is asked and what is ordered before it. */
    @GetMapping("/api/visits/{id}/preparation")
    VisitPreparation.PreparationView preparation(@PathVariable long id) {
        var row = visits.get(id);
        return preparation.view(row, visits.brief(row).people().size());
    }

    @GetMapping("/api/visits/{id}")
    ResponseEntity<VisitView> get(@PathVariable long id) {
        return shown(id);
    }

    private ResponseEntity<VisitView> shown(long id) {
        var view = views.view(id);
        return Etags.answer(HttpStatus.OK, view.version(), view);
    }

    @PutMapping("/api/visits/{id}")
    ResponseEntity<VisitView> change(
            @PathVariable long id,
            @RequestHeader(name = "If-Match", required = false) String ifMatch,
            @Valid @RequestBody VisitPlanRequest b,
            Principal by) {
        long siteId = visits.get(id).siteId();
        visits.change(id, Etags.required(ifMatch), VisitForm.read(b, zone(siteId), style(siteId)), by.getName());
        return shown(id);
    }

    /** Lays the plan, or lays it anew from what is really done by now. */
    @PostMapping("/api/visits/{id}/plan")
    ResponseEntity<VisitView> plan(@PathVariable long id) {
        plans.lay(id);
        return shown(id);
    }

    /** Begins, and lays the plan from now. */
    @PostMapping("/api/visits/{id}/begin")
    ResponseEntity<VisitView> begin(
            @PathVariable long id, @RequestHeader(name = "If-Match", required = false) String ifMatch, Principal by) {
        visits.begin(id, Etags.required(ifMatch), by.getName());
        plans.lay(id);
        return shown(id);
    }

    @PostMapping("/api/visits/{id}/end")
    ResponseEntity<VisitView> end(
            @PathVariable long id, @RequestHeader(name = "If-Match", required = false) String ifMatch, Principal by) {
        int expected = Etags.required(ifMatch);
        taking.settle(visits.get(id));
        visits.end(id, expected, by.getName());
        return shown(id);
    }
}
