package app.knottag.server.visit;

import app.knottag.server.web.Etags;
import java.security.Principal;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RestController;

/** Who is at what on a visit, over HTTP; after each of these the plan is laid again, with as little upheaval as can be. */
@RestController
class HandController {

    private final Taking taking;
    private final VisitPlans plans;
    private final VisitViews views;

    HandController(Taking taking, VisitPlans plans, VisitViews views) {
        this.taking = taking;
        this.plans = plans;
        this.views = views;
    }

    private ResponseEntity<VisitView> after(long id, Runnable change) {
        change.run();
        plans.lay(id);
        var view = views.view(id);
        return Etags.answer(HttpStatus.OK, view.version(), view);
    }

    /** Gives a person what comes next. */
    @PostMapping("/api/visits/{id}/people/{person}/take")
    ResponseEntity<VisitView> take(@PathVariable long id, @PathVariable int person, Principal by) {
        return after(id, () -> taking.take(id, person, by.getName()));
    }

    /** The task that they have in hand is done. */
    @PostMapping("/api/visits/{id}/people/{person}/done")
    ResponseEntity<VisitView> done(@PathVariable long id, @PathVariable int person, Principal by) {
        return after(id, () -> taking.done(id, person, by.getName()));
    }

    @PostMapping("/api/visits/{id}/people/{person}/drop")
    ResponseEntity<VisitView> drop(@PathVariable long id, @PathVariable int person, Principal by) {
        return after(id, () -> taking.drop(id, person, by.getName()));
    }

    /** What they have in hand is left for another day. */
    @PostMapping("/api/visits/{id}/people/{person}/set-aside")
    ResponseEntity<VisitView> setAside(@PathVariable long id, @PathVariable int person, Principal by) {
        return after(id, () -> taking.setAside(id, person, by.getName()));
    }

    /** What was left for another day is done on this one after all. */
    @PostMapping("/api/visits/{id}/units/{endpointId}/take-in")
    ResponseEntity<VisitView> takeIn(@PathVariable long id, @PathVariable long endpointId, Principal by) {
        return after(id, () -> taking.takeIn(id, endpointId, by.getName()));
    }

    /** Somebody leaves before their time: what they had in hand is free for others. */
    @PostMapping("/api/visits/{id}/people/{person}/leave")
    ResponseEntity<VisitView> leave(
            @PathVariable long id,
            @PathVariable int person,
            @RequestHeader(name = "If-Match", required = false) String ifMatch,
            Principal by) {
        return after(id, () -> taking.leave(id, person, Etags.required(ifMatch), by.getName()));
    }
}
