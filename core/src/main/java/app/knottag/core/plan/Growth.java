package app.knottag.core.plan;

import app.knottag.core.address.AddressRange;
import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Segment;
import app.knottag.core.series.SeriesFit;
import java.time.LocalDate;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** How the numbered runs of a site fill up, and where a new one has room. */
public final class Growth {

    private static final int SMALLEST_BLOCK = 4;

    private Growth() {}

    /** A run and how it fits. */
    public record Run(long seriesId, String name, SeriesFit fit) {}

    /**
     * Returns the runs of the site, the one that will be full first in front.
     *
     * @param lanPorts how many LAN ports the gear of a run of gear ports has, by the id of the run
     */
    public static List<Run> runs(SitePlan plan, LocalDate today, Map<Long, Integer> lanPorts) {
        var members = SeriesCheck.members(plan);
        return plan.series().stream()
                .map(s -> new Run(
                        s.id(),
                        s.series().name(),
                        SeriesCheck.fit(plan, s, members, today, lanPorts.getOrDefault(s.id(), 0))))
                .sorted(Comparator.comparing((Run r) -> r.fit().fullOn() == null
                                ? LocalDate.MAX
                                : r.fit().fullOn())
                        .thenComparing(Run::name))
                .toList();
    }

    /** Returns the longest free stretch of a segment when it is long enough for a new run. */
    public static Optional<AddressRange> newBlock(Segment segment, Map<Ipv4Address, String> living) {
        return new Placement(segment, living)
                .freeStretches().stream().findFirst().filter(r -> r.count() >= SMALLEST_BLOCK);
    }
}
