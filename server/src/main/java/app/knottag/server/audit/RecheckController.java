package app.knottag.server.audit;

import app.knottag.core.audit.Recheck.Line;
import app.knottag.core.impact.Impact.Errand;
import app.knottag.server.web.Scope;
import java.time.Instant;
import java.util.List;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RestController;

/** Proofs that age, over HTTP. */
@RestController
class RecheckController {

    /**
     * @param chance that something has changed since, in percent; 100 when its checks fail
     * @param due when to look again, or since when its checks fail
     */
    record RecheckLineView(
            long endpointId, String name, String place, int chance, Instant due, boolean overdue, String says) {}

    /** A site at which proofs are overdue. */
    record RecheckSiteView(long siteId, String site, int overdue) {}

    /**
     * @param sites at which something is overdue, where it is worth most to go first
     * @param errands what is overdue here, as tasks of one visit
     */
    record RecheckView(int overdue, List<RecheckLineView> lines, List<RecheckSiteView> sites, List<Errand> errands) {}

    private final Rechecks rechecks;

    RecheckController(Rechecks rechecks) {
        this.rechecks = rechecks;
    }

    @GetMapping("/api/sites/{siteId}/rechecks")
    RecheckView rechecks(@PathVariable long siteId) {
        var listed = rechecks.at(siteId);
        return new RecheckView(
                (int) listed.lines().stream().filter(Line::overdue).count(),
                listed.lines().stream().map(RecheckController::view).toList(),
                Scope.now().seen(listed.elsewhere(), p -> p.siteId()).stream()
                        .map(p -> new RecheckSiteView(
                                p.siteId(), listed.names().getOrDefault(p.siteId(), ""), p.overdue()))
                        .toList(),
                listed.errands());
    }

    private static RecheckLineView view(Line line) {
        return new RecheckLineView(
                line.device().endpoint(),
                line.device().name(),
                line.device().place(),
                line.chance(),
                line.due(),
                line.overdue(),
                line.says());
    }
}
