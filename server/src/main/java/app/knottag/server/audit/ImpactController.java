package app.knottag.server.audit;

import app.knottag.core.impact.Bond.Act;
import app.knottag.core.impact.Change;
import app.knottag.core.impact.Change.Subject;
import app.knottag.core.impact.Impact;
import app.knottag.core.impact.Impact.Errand;
import java.util.Arrays;
import java.util.List;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** What a change would touch, over HTTP; nothing is changed by asking. */
@RestController
class ImpactController {

    /** @param subjects what it can happen to here; none when nothing of the sort is on record */
    record ChangeView(Change change, String words, List<Subject> subjects) {}

    /**
     * One thing to be done.
     *
     * @param endpointId 0 when it is done to something else
     * @param minutes of hands
     * @param alone minutes that it then runs by itself
     * @param after numbers of the steps that come before, counted from 1
     */
    record ImpactStepView(
            Act act,
            String thing,
            long endpointId,
            String place,
            String title,
            String why,
            int minutes,
            int alone,
            List<Integer> after) {}

    /**
     * @param unknown what no record says and may be touched as well
     * @param errands the same as tasks of a visit
     */
    record ImpactView(String says, List<ImpactStepView> steps, List<String> unknown, List<Errand> errands) {}

    private final Impacts impacts;

    ImpactController(Impacts impacts) {
        this.impacts = impacts;
    }

    @GetMapping("/api/sites/{siteId}/changes")
    List<ChangeView> changes(@PathVariable long siteId) {
        var site = impacts.load(siteId);
        return Arrays.stream(Change.values())
                .map(c -> new ChangeView(c, c.words(), c.subjects(site)))
                .toList();
    }

    @GetMapping("/api/sites/{siteId}/impact")
    ImpactView impact(@PathVariable long siteId, @RequestParam Change change, @RequestParam String subject) {
        var impact = impacts.impact(siteId, change, subject);
        return new ImpactView(
                impact.says(),
                impact.steps().stream().map(ImpactController::view).toList(),
                impact.unknown(),
                impact.errands());
    }

    private static ImpactStepView view(Impact.Step s) {
        return new ImpactStepView(
                s.act(), s.thing(), s.device(), s.place(), s.title(), s.why(), s.minutes(), s.alone(), s.after());
    }
}
