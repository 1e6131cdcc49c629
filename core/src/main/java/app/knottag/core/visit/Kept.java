package app.knottag.core.visit;

import java.util.HashMap;
import java.util.Optional;

/**
 * An old plan as an order for what is left of it.
 *
 * @param order units, each as often as it has stretches left
 * @param who who was to take each stretch; whoever can begin first where nobody was, or no longer may
 */
record Kept(int[] order, int[] who) {

    /**
     * Reads what is left out of an old plan; what is new comes last. A unit's last stretches are the ones that are left.
     * Empty when nothing of it is left.
     */
    static Optional<Kept> of(Works works, VisitPlan old) {
        int n = works.size();
        var who = VisitPlanner.anybody(works);
        var order = new int[n];
        var unitOf = new HashMap<Long, Integer>();
        for (int u = 0; u + 1 < works.first.length; u++)
            unitOf.put(works.brief.units().get(u).id(), u);
        var all = new HashMap<Long, Integer>();
        for (var t : old.turns()) all.merge(t.unit(), 1, Integer::sum);
        int size = 0;
        var put = new int[works.first.length];
        for (var t : old.turns()) {
            if (!unitOf.containsKey(t.unit())) continue;
            int u = unitOf.get(t.unit());
            int count = works.first[u + 1] - works.first[u];
            int place = t.stretch() - (Math.max(all.get(t.unit()), count) - count);
            if (place < 0 || place >= count) continue;
            int s = works.first[u] + place;
            if (t.who() < works.people() && works.may[t.who()][s]) who[s] = t.who();
            order[size++] = u;
            put[u]++;
        }
        if (size == 0) return Optional.empty();
        for (int u = 0; u + 1 < works.first.length; u++)
            while (put[u] < works.first[u + 1] - works.first[u]) {
                order[size++] = u;
                put[u]++;
            }
        return Optional.of(new Kept(order, who));
    }
}
