package app.knottag.core.visit;

import java.util.ArrayList;
import java.util.List;

/** Tries every order and every pair of hands on a tiny visit, each turn at the first minute at which no rule is broken. */
final class EveryPlan {

    private final Brief brief;
    private final int[] next;
    private final List<Turn> turns = new ArrayList<>();
    private int best = Integer.MAX_VALUE;

    private EveryPlan(Brief brief) {
        this.brief = brief;
        next = new int[brief.units().size()];
    }

    /** Returns the earliest finish of all plans, or {@link Integer#MAX_VALUE} when there is none. */
    static int finish(Brief brief) {
        var all = new EveryPlan(brief);
        all.go();
        return all.best;
    }

    private void go() {
        int end = turns.stream().mapToInt(Turn::done).max().orElse(0);
        if (end >= best) return;
        boolean whole = true;
        for (int u = 0; u < next.length; u++) {
            var unit = brief.units().get(u);
            if (next[u] == unit.stretches().size()) continue;
            whole = false;
            for (int p = 0; p < brief.hands().size(); p++) put(u, unit, p);
        }
        if (whole) best = end;
    }

    /** Turns are laid in the order in which they begin, so that each order of beginnings is tried once. */
    private void put(int u, VisitUnit unit, int p) {
        var stretch = unit.stretches().get(next[u]);
        int from = turns.stream().mapToInt(Turn::from).max().orElse(0);
        int hands = stretch.hands().usual();
        int alone = Downloads.minutes(stretch, brief.means().megabits()).usual();
        for (int t = from; t < Math.min(best, 200); t++) {
            var turn = new Turn(unit.id(), next[u], p, t, t + hands, t + hands + alone, 0);
            turns.add(turn);
            boolean holds =
                    PlanRules.broken(brief, turns).stream().noneMatch(b -> !b.contains(" turns") && !onlyBench(b));
            if (holds && benchHolds()) {
                next[u]++;
                go();
                next[u]--;
                turns.remove(turns.size() - 1);
                return;
            }
            turns.remove(turns.size() - 1);
        }
    }

    private static boolean onlyBench(String broken) {
        return broken.startsWith("bench");
    }

    /** A device that is not done keeps its place on the bench for good. */
    private boolean benchHolds() {
        int last = turns.get(turns.size() - 1).from();
        long taken = brief.units().stream()
                .filter(VisitUnit::bench)
                .filter(u -> turns.stream().anyMatch(t -> t.unit() == u.id()))
                .filter(u -> turns.stream().filter(t -> t.unit() == u.id()).count()
                                < u.stretches().size()
                        || turns.stream().anyMatch(t -> t.unit() == u.id() && t.done() > last))
                .count();
        return taken <= brief.means().bench();
    }
}
