package app.knottag.server.visit;

import app.knottag.core.visit.Helps.Help;
import app.knottag.core.visit.Obstacle;
import app.knottag.core.visit.VisitPlan;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;

/**
 * A plan as it is kept.
 *
 * @param from the moment that its minutes count from
 * @param people names in the order that its turns count them
 * @param titles what each turn is, by its device and stretch
 * @param half minute by which everything is done on five days of ten
 * @param nine minute by which everything is done on nine days of ten
 * @param steps how many steps it is made of
 * @param learned of how many of them the minutes are known from what was done before
 * @param inTime days of a hundred on which everything is done when it is due, 100 when nothing is due
 */
record KeptPlan(
        Instant from,
        List<String> people,
        Map<String, String> titles,
        VisitPlan plan,
        List<Obstacle> obstacles,
        List<Help> helps,
        int half,
        int nine,
        int inTime,
        int steps,
        int learned) {

    /** What cannot be done, or does not fit, and so is in no turn. */
    List<Long> without() {
        return Stream.concat(obstacles.stream().map(Obstacle::unit), plan.left().stream())
                .distinct()
                .toList();
    }
}
