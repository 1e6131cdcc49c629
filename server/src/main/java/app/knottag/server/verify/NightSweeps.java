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
        return store.segments(siteId).stream()
                .filter(s -> hosts(s) <= Sweep.MOST_HOSTS)
                .map(s -> new Errand(
                        "sweep " + s.id(),
                        "Sweep of " + s.name(),
                        (int) Math.max(1, hosts(s)),
                        false,
                        gently -> sweeps.wait(s.id(), gently)))
                .toList();
    }

    @Override
    public List<String> hints(long siteId) {
        return store.segments(siteId).stream()
                .filter(s -> hosts(s) > Sweep.MOST_HOSTS)
                .map(s -> s.name() + " has more than " + Sweep.MOST_HOSTS
                        + " addresses; so many are not swept. Paste a neighbour table of its router instead.")
                .toList();
    }

    private static long hosts(SegmentRow segment) {
        return (1L << 32 - segment.prefix().prefixLength()) - 2;
    }
}
