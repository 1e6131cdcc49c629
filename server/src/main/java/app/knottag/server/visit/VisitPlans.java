package app.knottag.server.visit;

import app.knottag.core.reading.ReadingException;
import app.knottag.core.visit.Brief;
import app.knottag.core.visit.Helps;
import app.knottag.core.visit.Sureness;
import app.knottag.core.visit.VisitPlanner;
import app.knottag.server.db.Json;
import app.knottag.server.web.Problem;
import java.util.HashMap;
import java.util.Map;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Service;
import tools.jackson.databind.json.JsonMapper;

/** Lays the plans of visits; they are worked out by core from the runbooks as they are. */
@Service
public class VisitPlans {

    private final Visits visits;
    private final VisitStore store;
    private final JsonMapper json;

    VisitPlans(Visits visits, VisitStore store, JsonMapper json) {
        this.visits = visits;
        this.store = store;
        this.json = json;
    }

    /**
     * Lays a plan and keeps it. Nothing is locked meanwhile: a plan of a visit that changed in the meantime is thrown away.
     * Once people have begun, they keep their turns in their order unless another plan is worth the change.
     */
    void lay(long id) {
        var row = visits.get(id);
        if (row.over()) throw Visits.over();
        var now = visits.now(row);
        var old = visits.plan(row).filter(p -> row.begun());
        var rest = now.rest();
        try {
            var planned = old.map(o -> VisitPlanner.again(rest, o.plan())).orElseGet(() -> VisitPlanner.plan(rest));
            var sure = Sureness.of(rest, planned.plan());
            var kept = new KeptPlan(
                    now.at(),
                    visits.brief(row).names(),
                    titles(rest),
                    planned.plan(),
                    planned.obstacles(),
                    old.isPresent() ? old.get().helps() : Helps.of(rest, planned.plan()),
                    sure.doneBy(5),
                    sure.doneBy(9),
                    rest.due().isPresent() ? sure.ofHundred(rest.due().getAsInt()) : 100,
                    now.brief().units().stream()
                            .flatMap(u -> u.stretches().stream())
                            .mapToInt(s -> s.steps().size())
                            .sum(),
                    now.learned());
            store.plan(id, row.version(), new Json(json.writeValueAsString(kept)));
        } catch (ReadingException e) {
            throw Problem.of(HttpStatus.UNPROCESSABLE_CONTENT, "no-plan", e.getMessage());
        }
    }

    private static Map<String, String> titles(Brief brief) {
        var titles = new HashMap<String, String>();
        for (var u : brief.units())
            for (int s = 0; s < u.stretches().size(); s++)
                titles.put(u.id() + " " + s, u.stretches().get(s).title());
        return titles;
    }
}
