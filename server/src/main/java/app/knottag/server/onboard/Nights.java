package app.knottag.server.onboard;

import app.knottag.core.runbook.EndpointContext;
import app.knottag.core.runbook.Nightly;
import app.knottag.server.log.Log;
import app.knottag.server.record.NightPlans;
import app.knottag.server.record.OnboardStore;
import app.knottag.server.record.OnboardStore.BusyRow;
import app.knottag.server.record.Sites;
import app.knottag.server.web.FormReader;
import app.knottag.server.web.Problem;
import jakarta.validation.constraints.NotNull;
import java.time.LocalTime;
import java.util.List;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Works out and keeps when the devices of a site restart at night. */
@Service
public class Nights {

    private static final int MOST_HOURS = 20;

    /** Hours in which nothing may restart. */
    public record BusyTime(
            @NotNull LocalTime from,
            @NotNull LocalTime until,
            @NotNull String what) {}

    /** The night as it is planned. */
    public record NightView(List<BusyTime> busy, Nightly plan, String zone) {}

    private final OnboardStore onboard;
    private final NightPlans plans;
    private final Sites sites;
    private final Log log;

    Nights(OnboardStore onboard, NightPlans plans, Sites sites, Log log) {
        this.onboard = onboard;
        this.plans = plans;
        this.sites = sites;
        this.log = log;
    }

    NightView night(long siteId) {
        String zone = sites.site(siteId).zone();
        var busy = onboard.busy(siteId);
        var plan = plans.plan(siteId);
        return new NightView(
                busy.stream()
                        .map(b -> new BusyTime(b.fromTime(), b.untilTime(), b.what()))
                        .toList(),
                plan,
                zone);
    }

    @Transactional
    public NightView busy(long siteId, List<BusyTime> wanted, String by) {
        sites.site(siteId);
        if (wanted.size() > MOST_HOURS)
            throw Problem.field("busy", "too-many", "At most " + MOST_HOURS + " stretches of hours are kept.");
        for (int i = 0; i < wanted.size(); i++) {
            FormReader.words("busy/" + i + "/what", wanted.get(i).what(), true);
        }
        var was = onboard.busy(siteId);
        onboard.dropBusy(siteId);
        for (var b : wanted)
            onboard.keepBusy(siteId, new BusyRow(b.from(), b.until(), b.what().strip()));
        log.write(Log.entry(by, "busy hours changed").at(siteId).before(was).after(onboard.busy(siteId)));
        return night(siteId);
    }

    /** Keeps the hours that were worked out; from then on they stand on the type sheets. */
    @Transactional
    public NightView keep(long siteId, String by) {
        var view = night(siteId);
        var changed = view.plan().slots().stream().filter(Nightly.Slot::changed).toList();
        for (var slot : changed)
            onboard.keepFact(
                    slot.endpoint(), EndpointContext.RESTART_AT, slot.from().toString());
        if (!changed.isEmpty())
            log.write(Log.entry(by, "restarts at night placed").at(siteId).after(changed));
        return night(siteId);
    }
}
