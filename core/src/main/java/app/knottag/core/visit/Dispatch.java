package app.knottag.core.visit;

import java.util.Arrays;
import java.util.Map;
import java.util.TreeMap;

/**
 * Puts stretches one after the other, each to the earliest moment that hands, place, bench, line and tools leave to it. In
 * what order they are put, and who takes which, is given; every plan that leaves nobody idle for no reason comes of some order.
 */
final class Dispatch {

    /** Nobody in particular: whoever can begin first. */
    static final int ANYBODY = -1;

    final Works works;
    final int[] start;
    final int[] who;
    int finish;
    int walking;
    /** Stretches that fit nowhere. */
    int left;

    private final int[] free;
    private final int[] at;
    private final int[] next;
    private final int[] ready;
    private final int[] slots;
    private final int[] slotOf;
    private final Capacity line;
    private final Map<String, Capacity> tools = new TreeMap<>();

    private Dispatch(Works works) {
        this.works = works;
        start = new int[works.size()];
        who = new int[works.size()];
        Arrays.fill(start, -1);
        Arrays.fill(who, ANYBODY);
        // Nobody walks before he is there for the first time.
        free = works.brief.hands().stream()
                .mapToInt(h -> h.there().stream().mapToInt(Window::from).min().orElse(0))
                .toArray();
        at = works.at.clone();
        next = Arrays.copyOf(works.first, works.first.length - 1);
        ready = works.brief.units().stream().mapToInt(VisitUnit::ready).toArray();
        slots = new int[Math.min(works.bench(), next.length)];
        slotOf = new int[next.length];
        Arrays.fill(slotOf, -1);
        for (int u = 0; u < slotOf.length; u++) if (works.onBench[u]) takeSlot(u);
        line = new Capacity((int) (works.brief.means().megabits() * 1_000));
        for (var u : works.brief.units()) line.take(0, u.ready(), u.running());
    }

    /**
     * Lays a plan.
     *
     * @param order units, each as often as it has stretches; the k-th time stands for its k-th stretch
     * @param wanted who is to do each stretch, or {@link #ANYBODY}
     */
    static Dispatch of(Works works, int[] order, int[] wanted) {
        var plan = new Dispatch(works);
        int[] waiting = order.clone();
        int left = waiting.length;
        while (left > 0) {
            int at = 0;
            while (at < left && !plan.mayBegin(waiting[at])) at++;
            if (at == left) break;
            int unit = waiting[at];
            System.arraycopy(waiting, at + 1, waiting, at, left - at - 1);
            left--;
            if (!plan.put(unit, wanted)) {
                int kept = 0;
                for (int i = 0; i < left; i++) if (waiting[i] != unit) waiting[kept++] = waiting[i];
                plan.left += left - kept + 1;
                left = kept;
                plan.giveUp(unit);
            }
        }
        plan.left += left;
        return plan;
    }

    private boolean begun(int unit) {
        return next[unit] > works.first[unit];
    }

    private boolean done(int unit) {
        return next[unit] == works.first[unit + 1];
    }

    private boolean mayBegin(int unit) {
        if (begun(unit)) return true;
        for (int other : works.after[unit]) if (!done(other)) return false;
        return !works.brief.units().get(unit).bench() || slotOf[unit] >= 0 || freeSlot() >= 0;
    }

    private int freeSlot() {
        int best = -1;
        for (int i = 0; i < slots.length; i++)
            if (slots[i] != Integer.MAX_VALUE && (best < 0 || slots[i] < slots[best])) best = i;
        return best;
    }

    private void giveUp(int unit) {
        if (slotOf[unit] >= 0) slots[slotOf[unit]] = ready[unit];
    }

    private boolean put(int unit, int[] wanted) {
        int s = next[unit];
        if (!begun(unit)) open(unit);
        int best = -1;
        int when = Integer.MAX_VALUE;
        for (int p = 0; p < works.people(); p++) {
            if (!works.may[p][s] || wanted[s] != ANYBODY && wanted[s] != p) continue;
            int t = earliest(p, s);
            if (t < 0) continue;
            if (t < when || t == when && better(p, best, unit)) {
                best = p;
                when = t;
            }
        }
        if (best < 0) return false;
        take(best, s, when);
        return true;
    }

    /** Of two who can begin at the same minute the one who need not walk, then the one who has been idle for less. */
    private boolean better(int p, int other, int unit) {
        int mine = works.walk(at[p], works.place[unit]);
        int theirs = works.walk(at[other], works.place[unit]);
        return mine < theirs || mine == theirs && free[p] > free[other];
    }

    private void open(int unit) {
        for (int other : works.after[unit]) ready[unit] = Math.max(ready[unit], ready[other]);
        if (works.brief.units().get(unit).bench() && slotOf[unit] < 0) takeSlot(unit);
    }

    private void takeSlot(int unit) {
        slotOf[unit] = freeSlot();
        ready[unit] = Math.max(ready[unit], slots[slotOf[unit]]);
        slots[slotOf[unit]] = Integer.MAX_VALUE;
    }

    /** First minute at which a person can begin a stretch, or -1 when there is none. */
    private int earliest(int p, int s) {
        var unit = works.unitOf(s);
        var there = works.brief.hands().get(p).there();
        int hands = works.hands[s];
        int walk = works.walk(at[p], works.place[works.unit[s]]);
        int t = Math.max(ready[works.unit[s]], free[p] + walk);
        while (true) {
            int was = t;
            t = Window.earliest(there, t, hands);
            if (t < 0) return -1;
            t = Window.earliest(unit.free(), t, hands);
            if (t < 0) return -1;
            if (!unit.tool().isEmpty()) t = tool(unit.tool()).earliest(t, hands, 1);
            if (works.rate[s] > 0) t = line.earliest(t + hands, works.alone[s], works.rate[s]) - hands;
            if (t == was) return t;
        }
    }

    private Capacity tool(String name) {
        return tools.computeIfAbsent(name, n -> new Capacity(works.brief.means().of(n)));
    }

    private void take(int p, int s, int when) {
        int unit = works.unit[s];
        int end = when + works.hands[s];
        start[s] = when;
        who[s] = p;
        walking += works.walk(at[p], works.place[unit]);
        free[p] = end;
        at[p] = works.place[unit];
        next[unit]++;
        ready[unit] = end + works.alone[s];
        finish = Math.max(finish, ready[unit]);
        var u = works.unitOf(s);
        if (!u.tool().isEmpty()) tool(u.tool()).take(when, works.hands[s], 1);
        line.take(end, works.alone[s], works.rate[s]);
        if (done(unit) && slotOf[unit] >= 0) slots[slotOf[unit]] = ready[unit];
    }
}
