package app.knottag.server.visit;

import app.knottag.core.runbook.Board;
import app.knottag.server.record.Runbooks;
import app.knottag.server.visit.VisitStore.UnitRow;
import java.util.Collection;
import java.util.List;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;

/** The runbooks of a visit's devices, at the site itself and at others on the way. */
@Component
class Route {

    private final Runbooks runbooks;

    Route(Runbooks runbooks) {
        this.runbooks = runbooks;
    }

    /** A place at another site is called by that site, so that no two are taken for one. */
    List<Board.Job> jobs(List<UnitRow> units) {
        return units.stream().collect(Collectors.groupingBy(UnitRow::siteId)).entrySet().stream()
                .map(e -> jobs(e.getKey(), e.getValue()))
                .flatMap(Collection::stream)
                .toList();
    }

    private List<Board.Job> jobs(long siteId, List<UnitRow> units) {
        var ids = units.stream().map(UnitRow::endpointId).collect(Collectors.toSet());
        String site = units.get(0).site();
        return runbooks.jobs(siteId, ids).stream()
                .map(j -> site.isEmpty() ? j : new Board.Job(j.endpoint(), j.name(), at(site, j.place()), j.runbook()))
                .toList();
    }

    private static String at(String site, String place) {
        return place.isEmpty() ? site : site + ": " + place;
    }
}
