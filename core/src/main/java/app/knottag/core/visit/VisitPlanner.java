package app.knottag.core.visit;

import app.knottag.core.reading.ReadingException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.IntStream;

/**
 * Plans a visit: the earliest finish, then the least walking. First an order by rules is bettered by many small changes, then
 * the kept solver says how early anybody could be done and hands on its own order. Source: serial schedule generation with
 * local search, and CP-SAT for the bound; both with a fixed seed and a counted effort, so that the same brief gives the same
 * plan.
 */
public final class VisitPlanner {

    /** Changes tried for a whole plan, and for one that is made anew in the middle of a visit. */
    private static final int WHOLE = 160_000;

    private static final int ANEW = 20_000;

    /** What the solver puts into a bound, in its own count of work; a second or two of a usual machine. */
    private static final double EFFORT = 1;

    /** Minutes that a new plan must gain at least before people who follow the old one are asked to change. */
    private static final int WORTH = 3;

    /** And so many of a hundred of what is left. */
    private static final int WORTH_OF_HUNDRED = 3;

    private VisitPlanner() {}

    /** What cannot be done at all, and a plan for the rest. */
    public record Planned(VisitPlan plan, List<Obstacle> obstacles) {}

    /**
     * Plans a visit from its beginning.
     *
     * @throws app.knottag.core.reading.ReadingException if nobody is there, or devices wait for one another in a circle
     */
    public static Planned plan(Brief brief) {
        var obstacles = Obstacles.of(brief);
        var rest = brief.without(obstacles.stream().map(Obstacle::unit).collect(Collectors.toSet()));
        return fitting(rest, obstacles, WHOLE, EFFORT);
    }

    /**
     * Follows an order that somebody chose: each in turn is gone to and begun as early as can be.
     *
     * @param order ids of devices, once for each of their stretches that is begun; who fits into no window any more is left
     * @throws ReadingException if a device is named more often than it has stretches, or before what it waits for
     */
    public static VisitPlan following(Brief brief, List<Long> order) {
        var works = new Works(brief);
        var begun = new int[works.first.length - 1];
        for (long id : order) {
            int unit = brief.indexOf(id);
            var it = brief.units().get(unit);
            if (++begun[unit] > it.stretches().size())
                throw new ReadingException("There is no more to do at " + it.name() + ".");
            for (int other : works.after[unit])
                if (begun[other] < brief.units().get(other).stretches().size())
                    throw new ReadingException(
                            it.name() + " waits for " + brief.units().get(other).name() + ".");
        }
        var plan = Dispatch.of(works, order.stream().mapToInt(brief::indexOf).toArray(), anybody(works));
        var left = IntStream.range(0, works.size())
                .filter(s -> plan.start[s] < 0 && s - works.first[works.unit[s]] < begun[works.unit[s]])
                .mapToObj(s -> works.unitOf(s).id())
                .distinct()
                .toList();
        return shown(plan, Bounds.of(works), left);
    }

    /** Plans with less effort and without a proof, to compare. */
    static VisitPlan quick(Brief brief) {
        var obstacles = Obstacles.of(brief);
        var rest = brief.without(obstacles.stream().map(Obstacle::unit).collect(Collectors.toSet()));
        return fitting(rest, obstacles, ANEW, 0).plan();
    }

    /** Plans, and leaves devices out one by one as long as not all of them fit. */
    private static Planned fitting(Brief brief, List<Obstacle> obstacles, int tries, double effort) {
        var left = new ArrayList<Long>();
        var rest = brief;
        while (true) {
            var works = new Works(rest);
            var plan = search(works, tries);
            var out = leftOut(plan);
            if (out.isEmpty()) {
                int bound = Bounds.of(works);
                if (plan.finish > bound && effort > 0) {
                    var exact = Exact.of(works, plan, effort);
                    if (exact.isPresent()) {
                        bound = Math.max(bound, exact.get().bound());
                        plan = better(works, plan, exact.get(), tries);
                    }
                }
                return new Planned(shown(plan, bound, left), obstacles);
            }
            left.addAll(out);
            rest = rest.without(new HashSet<>(out));
        }
    }

    private static List<Long> leftOut(Dispatch plan) {
        return IntStream.range(0, plan.start.length)
                .filter(s -> plan.start[s] < 0)
                .mapToObj(s -> plan.works.unitOf(s).id())
                .distinct()
                .toList();
    }

    private static Dispatch search(Works works, int tries) {
        var search = new Search(works, Search::finishThenWalking);
        for (int[] order : Search.rules(works)) search.from(order, anybody(works));
        return search.tries(effort(works, tries), enough(Bounds.of(works)));
    }

    /** A small visit needs fewer changes. */
    private static int effort(Works works, int tries) {
        return Math.min(tries, 1_000 * works.size());
    }

    /** What a plan costs that ends at the bound without a step walked: nothing is better. */
    private static long enough(int bound) {
        return bound * Search.MINUTE;
    }

    private static Dispatch better(Works works, Dispatch plan, Exact.Answer exact, int tries) {
        if (exact.order().length == 0) return plan;
        var search = new Search(works, Search::finishThenWalking)
                .from(order(plan), plan.who)
                .from(exact.order(), exact.who())
                .from(exact.order(), anybody(works));
        return search.tries(effort(works, tries) / 4, enough(exact.bound()));
    }

    static int[] anybody(Works works) {
        var who = new int[works.size()];
        Arrays.fill(who, Dispatch.ANYBODY);
        return who;
    }

    /** The order that a plan comes of. */
    static int[] order(Dispatch plan) {
        return IntStream.range(0, plan.start.length)
                .boxed()
                .sorted((a, b) -> plan.start[a] != plan.start[b] ? plan.start[a] - plan.start[b] : a - b)
                .mapToInt(s -> plan.works.unit[s])
                .toArray();
    }

    static VisitPlan shown(Dispatch plan, int bound, List<Long> left) {
        var works = plan.works;
        int[] latest = Slack.of(plan, plan.finish);
        var turns = IntStream.range(0, works.size())
                .filter(s -> plan.start[s] >= 0)
                .mapToObj(s -> new Turn(
                        works.unitOf(s).id(),
                        s - works.first[works.unit[s]],
                        plan.who[s],
                        plan.start[s],
                        plan.start[s] + works.hands[s],
                        plan.start[s] + works.hands[s] + works.alone[s],
                        latest[s] - plan.start[s]))
                .toList();
        return new VisitPlan(
                turns,
                plan.finish,
                plan.walking,
                Math.min(bound, plan.finish),
                Exact.there() ? VisitPlan.BoundBy.SEARCH : VisitPlan.BoundBy.SUMS,
                left);
    }

    /**
     * Plans the rest of a visit that has begun, with as little upheaval as can be: people keep their turns in their order
     * unless another plan ends earlier by three minutes, and by three of a hundred of what is left.
     *
     * @param rest what is left, from now; minutes count from now
     * @param old the plan that people follow, of the same people in the same order
     */
    public static Planned again(Brief rest, VisitPlan old) {
        var obstacles = Obstacles.of(rest);
        var brief = rest.without(obstacles.stream().map(Obstacle::unit).collect(Collectors.toSet()));
        var works = new Works(brief);
        var kept = Kept.of(works, old);
        var keep = kept.flatMap(
                k -> Optional.of(Dispatch.of(works, k.order(), k.who())).filter(d -> d.left == 0));
        int bound = Bounds.of(works);
        if (keep.isPresent() && !worth(keep.get().finish, bound))
            return new Planned(shown(keep.get(), bound, List.of()), obstacles);
        var search = new Search(works, Search::finishThenWalking);
        kept.ifPresent(k -> search.from(k.order(), k.who()).from(k.order(), anybody(works)));
        for (int[] order : Search.rules(works)) search.from(order, anybody(works));
        var best = search.tries(effort(works, ANEW), enough(bound));
        if (best.left > 0) return fitting(brief, obstacles, ANEW, 0);
        if (keep.isPresent() && !worth(keep.get().finish, best.finish))
            return new Planned(shown(keep.get(), bound, List.of()), obstacles);
        return new Planned(shown(best, bound, List.of()), obstacles);
    }

    private static boolean worth(int kept, int other) {
        return kept - other >= Math.max(WORTH, kept * WORTH_OF_HUNDRED / 100);
    }
}
