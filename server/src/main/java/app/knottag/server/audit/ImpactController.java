package app.knottag.server.audit;

import app.knottag.core.impact.Change;
import app.knottag.core.impact.Change.Subject;
import app.knottag.core.impact.Impact;
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
    Impact impact(@PathVariable long siteId, @RequestParam Change change, @RequestParam String subject) {
        return impacts.impact(siteId, change, subject);
    }
}
