package app.knottag.core.today;

import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;

/**
 * The day at a glance.
 *
 * @param first what comes before everything else; what runs by itself only when nothing waits for hands
 * @param now what waits for hands after that, the most urgent first
 * @param running what runs by itself, the soonest to be looked at first
 * @param ahead visits to come, the soonest first
 */
public record Today(Optional<Notice> first, List<Notice> now, List<Notice> running, List<Notice> ahead) {

    private static final Comparator<Notice> BY_TIME = Comparator.comparing(Notice::at)
            .thenComparing(Notice::title)
            .thenComparing(n -> n.site().name());

    public Today {
        now = List.copyOf(now);
        running = List.copyOf(running);
        ahead = List.copyOf(ahead);
    }

    /** Puts notices in order; of those that are alike whatever has waited longest comes first. */
    public static Today of(List<Notice> all) {
        var now = all.stream()
                .filter(n -> n.what().now())
                .sorted(Comparator.comparing(Notice::what).thenComparing(BY_TIME))
                .toList();
        var running = of(all, Notice.What.RUNS);
        var first = Stream.concat(now.stream(), running.stream()).findFirst();
        return new Today(
                first,
                now.stream().skip(1).toList(),
                now.isEmpty() ? running.stream().skip(1).toList() : running,
                of(all, Notice.What.VISIT_AHEAD));
    }

    private static List<Notice> of(List<Notice> all, Notice.What what) {
        return all.stream().filter(n -> n.what() == what).sorted(BY_TIME).toList();
    }
}
