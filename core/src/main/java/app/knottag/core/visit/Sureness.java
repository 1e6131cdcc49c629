package app.knottag.core.visit;

import java.util.Arrays;
import java.util.HashMap;
import java.util.Map;
import java.util.Random;
import java.util.stream.Collectors;

/**
 * How sure a plan is: the day is played many times, each with other durations, by what people are told at each moment.
 *
 * @param ends minutes at which the days ended, in order
 */
public record Sureness(int[] ends) {

    private static final int DAYS = 200;
    private static final int SEED = 11;

    /** Plays the day of a plan. */
    public static Sureness of(Brief whole, VisitPlan plan) {
        // What is not in the plan, since nobody may do it or it does not fit, is not waited for.
        var planned = plan.turns().stream().map(Turn::unit).collect(Collectors.toSet());
        var brief = whole.without(whole.units().stream()
                .map(VisitUnit::id)
                .filter(u -> !planned.contains(u))
                .collect(Collectors.toSet()));
        var random = new Random(SEED);
        var ends = new int[DAYS];
        for (int d = 0; d < DAYS; d++) {
            var hands = new HashMap<Long, int[]>();
            var alone = new HashMap<Long, int[]>();
            draw(brief, random, hands, alone);
            ends[d] = Day.finish(brief, plan, hands, alone);
        }
        Arrays.sort(ends);
        return new Sureness(ends);
    }

    /** Draws how long everything takes on one day. */
    static void draw(Brief brief, Random random, Map<Long, int[]> hands, Map<Long, int[]> alone) {
        for (var u : brief.units()) {
            hands.put(
                    u.id(),
                    u.stretches().stream().mapToInt(s -> s.hands().draw(random)).toArray());
            alone.put(
                    u.id(),
                    u.stretches().stream()
                            .mapToInt(s -> Downloads.minutes(s, brief.means().megabits())
                                    .draw(random))
                            .toArray());
        }
    }

    /** Returns the minute by which so many days of ten are done. */
    public int doneBy(int daysOfTen) {
        return ends[Math.min(ends.length - 1, (ends.length * daysOfTen + 9) / 10 - 1)];
    }

    /** Returns in how many days of a hundred everything is done by a minute. */
    public int ofHundred(int minute) {
        return (int) (100L * Arrays.stream(ends).filter(e -> e <= minute).count() / ends.length);
    }
}
