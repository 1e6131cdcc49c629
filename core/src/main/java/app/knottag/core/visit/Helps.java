package app.knottag.core.visit;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;

/** What would make a visit shorter, and by how much; each is planned anew to know it. */
public final class Helps {

    /** So many devices are named that may be left for another day. */
    private static final int LEFT = 2;

    private Helps() {}

    /**
     * Something that would help.
     *
     * @param minutes by which the visit would end earlier
     */
    public record Help(String what, int minutes) {}

    /** Returns what would help, the most first; nothing that would save less than a minute. */
    public static List<Help> of(Brief brief, VisitPlan plan) {
        var found = new ArrayList<Help>();
        add(found, plan, "one more person", brief.withOneMore());
        if (brief.units().stream().anyMatch(VisitUnit::bench))
            add(
                    found,
                    plan,
                    "one more outlet and port on the bench",
                    brief.with(brief.hands(), brief.means().widerBench()));
        boolean fetches =
                brief.units().stream().flatMap(u -> u.stretches().stream()).anyMatch(s -> s.megabytes() > 0);
        if (fetches && brief.means().megabits() > 0)
            add(
                    found,
                    plan,
                    "software on a stick instead of the download",
                    brief.with(brief.hands(), brief.means().withStick()));
        if (brief.due().isPresent() && plan.finish() > brief.due().getAsInt()) leaving(found, brief, plan);
        found.sort(Comparator.comparingInt(Help::minutes).reversed());
        return found;
    }

    /** Devices that would be missed least: nobody waits for them, and without one of them the rest is done soonest. */
    private static void leaving(List<Help> found, Brief brief, VisitPlan plan) {
        var waited = brief.units().stream().flatMap(u -> u.after().stream()).collect(Collectors.toSet());
        var all = new ArrayList<Help>();
        for (var u : brief.units())
            if (!waited.contains(u.id()) && !u.stretches().isEmpty())
                add(all, plan, "leaving " + u.name() + " for another day", brief.without(Set.of(u.id())));
        all.stream()
                .sorted(Comparator.comparingInt(Help::minutes).reversed())
                .limit(LEFT)
                .forEach(found::add);
    }

    private static void add(List<Help> found, VisitPlan plan, String what, Brief other) {
        int saved = plan.finish() - VisitPlanner.quick(other).finish();
        if (saved > 0) found.add(new Help(what, saved));
    }
}
