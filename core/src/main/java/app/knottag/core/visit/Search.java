package app.knottag.core.visit;

import java.util.Comparator;
import java.util.List;
import java.util.Random;
import java.util.function.ToLongFunction;
import java.util.stream.IntStream;

/**
 * Looks for a good order by small changes of the best one so far: something is put elsewhere, two change places, somebody
 * else takes a stretch. A worse one is taken now and then while it is still early. The seed is fixed: the same brief, the
 * same plan.
 */
final class Search {

    /** What a minute of the finish weighs. */
    static final long MINUTE = 100_000L;

    private static final int SEED = 7;
    private static final int ROUNDS = 4;

    /** Minutes of the finish that a change may lose at first. */
    private static final double HOT = 2;

    private final Works works;
    private final ToLongFunction<Dispatch> cost;
    private final Random random = new Random(SEED);
    private int[] order;
    private int[] who;
    private long now;
    private int[] bestOrder;
    private int[] bestWho;
    private Dispatch best;
    private long bestCost = Long.MAX_VALUE;

    /** @param cost what is least of the best plan */
    Search(Works works, ToLongFunction<Dispatch> cost) {
        this.works = works;
        this.cost = cost;
    }

    /** The finish counts first, then the walking; what is left out counts before all. */
    static long finishThenWalking(Dispatch d) {
        return d.left * 100_000_000_000L + d.finish * MINUTE + d.walking;
    }

    /** Returns some orders to begin with: the longest tail first, and place by place. */
    static List<int[]> rules(Works works) {
        var tails = works.tails();
        var byTail = Comparator.comparingInt((Integer s) -> -tails[s]);
        var byPlace = Comparator.comparingInt((Integer s) -> works.place[works.unit[s]]);
        var byTurn = Comparator.comparingInt((Integer s) -> s - works.first[works.unit[s]]);
        return List.of(
                units(works, byTail),
                units(works, byTurn.thenComparing(byTail)),
                units(works, byTurn.thenComparing(byPlace).thenComparing(byTail)),
                units(works, byPlace.thenComparing(byTurn)));
    }

    private static int[] units(Works works, Comparator<Integer> by) {
        return IntStream.range(0, works.size())
                .boxed()
                .sorted(by)
                .mapToInt(s -> works.unit[s])
                .toArray();
    }

    /** Takes an order to go on from, when it is better than what there is. */
    Search from(int[] units, int[] wanted) {
        var plan = Dispatch.of(works, units, wanted);
        long c = cost.applyAsLong(plan);
        if (c < bestCost) {
            best = plan;
            bestCost = c;
            bestOrder = units.clone();
            bestWho = wanted.clone();
        }
        return this;
    }

    /** Tries so many changes in some rounds and returns the best plan, at once when it cannot be better than the given cost. */
    Dispatch tries(int count, long enough) {
        for (int round = 0; round < ROUNDS; round++) {
            order = bestOrder.clone();
            who = bestWho.clone();
            now = bestCost;
            round(count / ROUNDS, enough, HOT * MINUTE / (round + 1));
        }
        return best;
    }

    private void round(int count, long enough, double hot) {
        for (int i = 0; i < count && bestCost > enough && order.length > 1; i++) {
            var nextOrder = order.clone();
            var nextWho = who.clone();
            change(nextOrder, nextWho);
            var plan = Dispatch.of(works, nextOrder, nextWho);
            long c = cost.applyAsLong(plan);
            double heat = hot * (1 - (double) i / count);
            if (c <= now || random.nextDouble() < Math.exp((now - c) / Math.max(1, heat))) {
                order = nextOrder;
                who = nextWho;
                now = c;
            }
            if (c < bestCost) {
                best = plan;
                bestCost = c;
                bestOrder = order;
                bestWho = who;
            }
        }
    }

    private void change(int[] units, int[] wanted) {
        int a = random.nextInt(units.length);
        int b = random.nextInt(units.length);
        switch (random.nextInt(works.people() > 1 ? 6 : 3)) {
            case 0 -> move(units, a, b);
            case 1 -> {
                int kept = units[a];
                units[a] = units[b];
                units[b] = kept;
            }
            case 2 -> beside(units, a, b);
            case 3 -> wanted[a] = Dispatch.ANYBODY;
            case 4 -> give(wanted, a, a + 1, random.nextInt(works.people()));
            default -> {
                int unit = works.unit[a];
                give(wanted, works.first[unit], works.first[unit + 1], random.nextInt(works.people()));
            }
        }
    }

    private static void move(int[] units, int from, int to) {
        int moved = units[from];
        if (from < to) System.arraycopy(units, from + 1, units, from, to - from);
        else System.arraycopy(units, to, units, to + 1, from - to);
        units[to] = moved;
    }

    /** Puts one right before the next that is at the same place, so that nobody walks between them. */
    private void beside(int[] units, int from, int start) {
        for (int i = 0; i < units.length; i++) {
            int to = (start + i) % units.length;
            if (units[to] == units[from] || works.place[units[to]] != works.place[units[from]]) continue;
            move(units, from, to);
            return;
        }
    }

    private void give(int[] wanted, int from, int until, int person) {
        for (int s = from; s < until; s++) if (works.may[person][s]) wanted[s] = person;
    }
}
