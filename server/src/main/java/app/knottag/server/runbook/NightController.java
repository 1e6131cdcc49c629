package app.knottag.server.runbook;

import app.knottag.core.kind.Kinds;
import app.knottag.core.log.Words;
import app.knottag.core.runbook.Nightly;
import app.knottag.core.runbook.Nightly.Busy;
import app.knottag.core.runbook.Nightly.Restart;
import app.knottag.core.runbook.Surroundings;
import app.knottag.server.log.Log;
import app.knottag.server.plan.EndpointStore;
import app.knottag.server.runbook.OnboardStore.BusyRow;
import app.knottag.server.runbook.OnboardStore.FactRow;
import app.knottag.server.site.Sites;
import app.knottag.server.web.Problem;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import java.security.Principal;
import java.time.Clock;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;

/** When the devices of a site restart at night. */
@RestController
class NightController {

    private static final int MOST_HOURS = 20;

    record BusyTime(
            @NotNull LocalTime from,
            @NotNull LocalTime until,
            @NotNull String what) {}

    record BusyRequest(@NotNull List<@Valid BusyTime> busy) {}

    record NightView(List<BusyTime> busy, Nightly plan, String zone) {}

    private final OnboardStore onboard;
    private final EndpointStore endpoints;
    private final Sites sites;
    private final Kinds kinds;
    private final Log log;
    private final Clock clock;

    NightController(OnboardStore onboard, EndpointStore endpoints, Sites sites, Kinds kinds, Log log, Clock clock) {
        this.onboard = onboard;
        this.endpoints = endpoints;
        this.sites = sites;
        this.kinds = kinds;
        this.log = log;
        this.clock = clock;
    }

    @GetMapping("/api/sites/{siteId}/night")
    NightView night(@PathVariable long siteId) {
        String zone = sites.site(siteId).zone();
        var busy = onboard.busy(siteId);
        var set = onboard.factsOfSite(siteId).stream()
                .filter(f -> f.key().equals(Surroundings.RESTART_AT))
                .collect(Collectors.toMap(FactRow::endpointId, f -> LocalTime.parse(f.value())));
        var restarts = endpoints.all(siteId).stream()
                .filter(e -> kinds.get(e.kind(), e.kindVersion()).nightlyMinutes() > 0)
                .map(e -> new Restart(
                        e.id(),
                        e.name(),
                        kinds.get(e.kind(), e.kindVersion()).nightlyMinutes(),
                        Optional.ofNullable(set.get(e.id()))))
                .toList();
        var plan = Nightly.place(
                restarts,
                busy.stream()
                        .map(b -> new Busy(b.fromTime(), b.untilTime(), b.what()))
                        .toList(),
                ZoneId.of(zone),
                clock.instant());
        return new NightView(
                busy.stream()
                        .map(b -> new BusyTime(b.fromTime(), b.untilTime(), b.what()))
                        .toList(),
                plan,
                zone);
    }

    @Transactional
    @PutMapping("/api/sites/{siteId}/night/busy")
    public NightView busy(@PathVariable long siteId, @Valid @RequestBody BusyRequest body, Principal by) {
        sites.site(siteId);
        if (body.busy().size() > MOST_HOURS)
            throw Problem.field("busy", "too-many", "At most " + MOST_HOURS + " stretches of hours are kept.");
        for (int i = 0; i < body.busy().size(); i++) {
            String field = "busy/" + i + "/what";
            Words.problem(body.busy().get(i).what().strip(), true).ifPresent(p -> {
                throw Problem.field(field, "bad-words", p);
            });
        }
        var was = onboard.busy(siteId);
        onboard.dropBusy(siteId);
        for (var b : body.busy())
            onboard.keepBusy(siteId, new BusyRow(b.from(), b.until(), b.what().strip()));
        log.write(Log.entry(by.getName(), "busy hours changed")
                .at(siteId, null)
                .before(was)
                .after(onboard.busy(siteId)));
        return night(siteId);
    }

    /** Keeps the hours that were worked out; from then on they stand on the type sheets. */
    @Transactional
    @PostMapping("/api/sites/{siteId}/night/hours")
    public NightView keep(@PathVariable long siteId, Principal by) {
        var view = night(siteId);
        var changed = view.plan().slots().stream().filter(Nightly.Slot::changed).toList();
        for (var slot : changed)
            onboard.keepFact(
                    slot.endpoint(), Surroundings.RESTART_AT, slot.from().toString());
        if (!changed.isEmpty())
            log.write(Log.entry(by.getName(), "restarts at night placed")
                    .at(siteId, null)
                    .after(changed));
        return night(siteId);
    }
}
