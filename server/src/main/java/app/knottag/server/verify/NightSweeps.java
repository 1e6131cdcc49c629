package app.knottag.server.verify;

import app.knottag.core.reach.Sweep;
import app.knottag.server.record.NightLook;
import app.knottag.server.record.SiteStore;
import app.knottag.server.record.SiteStore.SegmentRow;
import java.util.List;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;

/** Who is there: each segment is swept. What differs from the record is said by whoever holds all that was seen against it. */
@Component
@Order(1)
class NightSweeps implements NightLook {

    private final SiteStore store;
    private final Sweeps sweeps;

    NightSweeps(SiteStore store, Sweeps sweeps) {
        this.store = store;
        this.sweeps = sweeps;
    }

    @Override
    public List<Errand> errands(long siteId) {
        return store.segments(siteId).stream().map(this::errand).toList();
    }

    private Errand errand(SegmentRow segment) {
        String key = "sweep " + segment.id(), what = "Sweep of " + segment.name();
        long hosts = (1L << 32 - segment.prefix().prefixLength()) - 2;
        if (hosts > Sweep.MOST_HOSTS)
            return new Errand(
                    key,
                    what,
                    0,
                    false,
                    gently -> Told.not("It has more than " + Sweep.MOST_HOSTS + " addresses; so many are not swept."));
        return new Errand(key, what, (int) Math.max(1, hosts), false, gently -> sweeps.wait(segment.id(), gently));
    }
}
