package app.knottag.server.verify;

import app.knottag.core.reach.Probes;
import app.knottag.core.reach.ServiceJudge;
import app.knottag.core.status.Status;
import app.knottag.core.watch.Seen;
import app.knottag.server.record.NightLook;
import app.knottag.server.record.SiteStore;
import app.knottag.server.record.SiteStore.ServiceRow;
import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;

/** Whether the services that a site lists answer, tell the right time, and how long their certificates hold. */
@Component
@Order(3)
class NightServices implements NightLook {

    /** A greeting, a sign-in that is looked for, a name and a certificate. */
    private static final int QUESTIONS = 4;

    private final SiteStore store;
    private final Targets targets;
    private final Probes probes;
    private final Clock clock;

    NightServices(SiteStore store, Targets targets, Probes probes, Clock clock) {
        this.store = store;
        this.targets = targets;
        this.probes = probes;
        this.clock = clock;
    }

    @Override
    public List<Errand> errands(long siteId) {
        return store.services(siteId).stream()
                .map(s -> new Errand(
                        "service " + s.id(), "Service “" + s.name() + "”", QUESTIONS, false, gently -> look(s)))
                .toList();
    }

    private Told look(ServiceRow service) {
        var call = targets.call(service.siteId(), service.id());
        var heard = probes.talk(call);
        var now = clock.instant();
        var judged = ServiceJudge.judge(call, heard, now);
        var seen = new ArrayList<Seen>();
        if (judged.status() == Status.FAILED)
            seen.add(new Seen(
                    "service",
                    "FAILED",
                    0,
                    "“" + service.name() + "” does not serve",
                    judged.seen() + " " + judged.remedy()));
        else if (ServiceJudge.endsSoon(heard, now))
            seen.add(new Seen(
                    "service", "ENDS", 0, "The certificate of “" + service.name() + "” ends soon", judged.seen()));
        return Told.saw(seen);
    }
}
