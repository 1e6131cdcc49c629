package app.knottag.server.visit;

import app.knottag.core.runbook.Stage.Station;
import app.knottag.core.today.Notice;
import app.knottag.server.record.Noticing;
import app.knottag.server.visit.VisitStore.LineRow;
import app.knottag.server.web.Scope;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.OptionalLong;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.springframework.stereotype.Component;

/** Tells of visits that run, should have begun, or are to come. */
@Component
class VisitNotices implements Noticing {

    private final VisitStore store;
    private final HandStore inHand;
    private final Visits visits;

    VisitNotices(VisitStore store, HandStore inHand, Visits visits) {
        this.store = store;
        this.inHand = inHand;
        this.visits = visits;
    }

    @Override
    public List<Notice> notices(Instant now, Scope scope) {
        var held = inHand.running().stream().collect(Collectors.groupingBy(HandStore.HeldRow::visitId));
        return store.open(scope.list()).stream()
                .map(row -> notice(row, held.getOrDefault(row.id(), List.of()), now))
                .toList();
    }

    private Notice notice(LineRow row, List<HandStore.HeldRow> held, Instant now) {
        var names = visits.brief(row.brief(), row.whereabouts()).names();
        String people = String.join(", ", names);
        String units = row.units() == 1 ? "One endpoint" : row.units() + " endpoints";
        if (row.begun()) return told(row, Notice.What.VISIT_RUNS, "Go on with " + row.name(), hands(names, held));
        if (row.begins().isAfter(now))
            return told(row, Notice.What.VISIT_AHEAD, row.name(), units + "; " + people + ".");
        return told(
                row,
                Notice.What.VISIT_LATE,
                "Begin " + row.name(),
                "It should have begun. " + units + "; " + people + ".");
    }

    private static Notice told(LineRow row, Notice.What what, String title, String detail) {
        return new Notice(
                what,
                new Notice.Site(row.siteId(), row.site()),
                Station.ONBOARD,
                OptionalLong.of(row.id()),
                row.begins(),
                "",
                title,
                detail);
    }

    private static String hands(List<String> names, List<HandStore.HeldRow> held) {
        Map<Integer, String> at =
                held.stream().collect(Collectors.toMap(HandStore.HeldRow::person, HandStore.HeldRow::what));
        return IntStream.range(0, names.size())
                .mapToObj(
                        p -> names.get(p) + (at.containsKey(p) ? " is at " + at.get(p) + "." : " has nothing in hand."))
                .collect(Collectors.joining(" "));
    }
}
