package app.knottag.core.visit;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;

/** What would make a visit shorter, and by how much; each is planned anew to know it. */
public final class Helps {

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
        found.sort(Comparator.comparingInt(Help::minutes).reversed());
        return found;
    }

    private static void add(List<Help> found, VisitPlan plan, String what, Brief other) {
        int saved = plan.finish() - VisitPlanner.quick(other).finish();
        if (saved > 0) found.add(new Help(what, saved));
    }
}
