package app.knottag.server.record;

import app.knottag.core.kind.Kind;
import app.knottag.core.kind.Kinds;
import app.knottag.core.runbook.EndpointContext;
import app.knottag.core.runbook.Nightly;
import app.knottag.core.runbook.Nightly.Busy;
import app.knottag.core.runbook.Nightly.Restart;
import app.knottag.server.record.OnboardStore.FactRow;
import java.time.LocalTime;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import org.springframework.stereotype.Service;

/** Loads what goes on at a site at night, and when. */
@Service
public class NightPlans {

    private final OnboardStore onboard;
    private final EndpointStore endpoints;
    private final Sites sites;
    private final Kinds kinds;

    NightPlans(OnboardStore onboard, EndpointStore endpoints, Sites sites, Kinds kinds) {
        this.onboard = onboard;
        this.endpoints = endpoints;
        this.sites = sites;
        this.kinds = kinds;
    }

    /** What goes on at a site at night as it is now, whether it goes together or not. */
    public record Doings(List<Restart> restarts, List<Busy> busy) {}

    public Doings doings(long siteId) {
        var set = onboard.factsOfSite(siteId).stream()
                .filter(f -> f.key().equals(EndpointContext.RESTART_AT))
                .collect(Collectors.toMap(FactRow::endpointId, f -> LocalTime.parse(f.value())));
        var restarts = endpoints.all(siteId).stream()
                .filter(e -> minutes(e) > 0)
                .map(e -> new Restart(e.id(), e.name(), minutes(e), Optional.ofNullable(set.get(e.id()))))
                .toList();
        return new Doings(
                restarts,
                onboard.busy(siteId).stream()
                        .map(b -> new Busy(b.fromTime(), b.untilTime(), b.what()))
                        .toList());
    }

    public Nightly plan(long siteId) {
        var doings = doings(siteId);
        return Nightly.place(doings.restarts(), doings.busy(), sites.clock(siteId));
    }

    private int minutes(EndpointStore.Row e) {
        return kinds.find(e.kind(), e.kindVersion()).map(Kind::nightlyMinutes).orElse(0);
    }
}
