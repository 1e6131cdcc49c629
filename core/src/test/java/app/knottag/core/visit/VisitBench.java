package app.knottag.core.visit;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.OptionalInt;
import java.util.Random;

/** Measures the plans of drawn visits: how near to the bound, how much shorter, how quickly again, how well steered. */
final class VisitBench {

    private VisitBench() {}

    /** How a plan does after a tie that came at another minute than planned. */
    record Again(long nanos, int moved) {}

    /** A visit after its first turn has ended, late or early: what is left, with minutes from then on. */
    static Brief afterFirstTie(Brief brief, VisitPlan plan, int late) {
        var first = plan.turns().get(0);
        int now = Math.max(1, first.until() + late);
        var units = new ArrayList<VisitUnit>();
        for (var u : brief.units()) {
            var begun = plan.turns().stream()
                    .filter(t -> t.unit() == u.id() && (t == first || t.from() < now))
                    .toList();
            var left = u.stretches().subList(begun.size(), u.stretches().size());
            int ready = begun.stream()
                    .mapToInt(t -> t.done() + (t == first ? late : 0) - now)
                    .max()
                    .orElse(u.ready() - now);
            if (!left.isEmpty()) units.add(u.with(left, Math.max(0, ready), 0));
        }
        var ids = units.stream().map(VisitUnit::id).toList();
        var hands = new ArrayList<Hands>();
        for (int p = 0; p < brief.hands().size(); p++) {
            int person = p;
            int free = plan.of(p).stream()
                    .filter(t -> t.from() < now)
                    .mapToInt(t -> t.until() + (t == first ? late : 0) - now)
                    .max()
                    .orElse(0);
            var h = brief.hands().get(person);
            hands.add(new Hands(h.name(), h.skills(), List.of(new Window(Math.max(0, free), Window.HORIZON)), ""));
        }
        return new Brief(
                units.stream()
                        .map(u -> u.after(
                                u.after().stream().filter(ids::contains).collect(java.util.stream.Collectors.toSet())))
                        .toList(),
                hands,
                brief.means(),
                OptionalInt.empty());
    }

    static Again again(Brief brief, VisitPlan plan, int late) {
        var rest = afterFirstTie(brief, plan, late);
        long from = System.nanoTime();
        var now = VisitPlanner.again(rest, plan).plan();
        return new Again(System.nanoTime() - from, plan.moved(now));
    }

    /** How much longer a day lasts that is steered moment by moment than one of which everything was known beforehand. */
    static double steered(Brief brief, VisitPlan plan, Random random) {
        Map<Long, int[]> hands = new HashMap<>();
        Map<Long, int[]> alone = new HashMap<>();
        Sureness.draw(brief, random, hands, alone);
        var known = new Brief(
                brief.units().stream().map(u -> known(u, hands, alone)).toList(),
                brief.hands(),
                new Means(
                        brief.means().bench(),
                        0,
                        brief.means().walk(),
                        brief.means().tools(),
                        brief.means().areas(),
                        brief.means().travel()),
                OptionalInt.empty());
        int best = VisitPlanner.quick(known).finish();
        return (double) Day.finish(brief, plan, hands, alone) / best;
    }

    private static VisitUnit known(VisitUnit u, Map<Long, int[]> hands, Map<Long, int[]> alone) {
        var stretches = new ArrayList<Stretch>();
        for (int i = 0; i < u.stretches().size(); i++) {
            var s = u.stretches().get(i);
            stretches.add(new Stretch(
                    s.steps(),
                    s.title(),
                    Minutes.exactly(hands.get(u.id())[i]),
                    Minutes.exactly(alone.get(u.id())[i]),
                    s.skill(),
                    0));
        }
        return u.with(stretches, u.ready(), u.running());
    }

    private static void line(String what, String value, String compared, String remark) {
        System.out.printf(Locale.ROOT, "| %-38s | %12s | %-20s | %s |%n", what, value, compared, remark);
    }

    public static void main(String[] args) {
        int visits = args.length > 0 ? Integer.parseInt(args[0]) : 50;
        for (int units : new int[] {12, 30}) measure(units, visits, false);
        measure(12, visits / 5, true);
    }

    private static void measure(int units, int visits, boolean twoSites) {
        double gap = 0;
        double worst = 0;
        double share = 0;
        double seconds = 0;
        double longest = 0;
        double moved = 0;
        double again = 0;
        double days = 0;
        int proven = 0;
        var random = new Random(5);
        for (int v = 0; v < visits; v++) {
            // Every fourth seed is a visit to two sites.
            long seed = 4L * (1_000L * units + v) + (twoSites ? 1 : 0);
            var brief = Visits.random(seed, units, 1 + v % 3);
            long from = System.nanoTime();
            var plan = VisitPlanner.plan(brief).plan();
            double took = (System.nanoTime() - from) / 1e9;
            seconds += took;
            longest = Math.max(longest, took);
            double over = (double) plan.finish() / plan.bound();
            gap += over;
            worst = Math.max(worst, over);
            if (plan.best()) proven++;
            share += (double) plan.finish() / Visits.oneAfterAnother(brief);
            var tie = again(brief, plan, random.nextInt(-3, 12));
            moved += tie.moved();
            again = Math.max(again, tie.nanos() / 1e9);
            for (int d = 0; d < 4; d++) days += steered(brief, plan, random);
        }
        String n = units + (twoSites ? " at two sites, " : " devices, ");
        line(
                n + "finish",
                String.format(Locale.ROOT, "%.3f", gap / visits),
                "bound 1.02",
                String.format(
                        Locale.ROOT,
                        "mean of %d visits, 1 to 3 people; worst %.3f, %d proven best; %.1f s, at most %.1f s",
                        visits,
                        worst,
                        proven,
                        seconds / visits,
                        longest));
        line(
                n + "one after another",
                String.format(Locale.ROOT, "%.2f", share / visits),
                "0.35",
                "mean share of the time");
        line(
                n + "again after a tie",
                String.format(Locale.ROOT, "%.2f moved", moved / visits),
                "2 moved, 1 s",
                String.format(Locale.ROOT, "mean; the slowest %.2f s", again));
        line(
                n + "steered",
                String.format(Locale.ROOT, "%.3f", days / visits / 4),
                "1.05",
                "of a day known beforehand, mean of " + visits * 4 + " days");
    }
}
