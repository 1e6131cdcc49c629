package app.knottag.core.practice;

import java.util.List;

/**
 * How it stands.
 *
 * @param next what can be done next; nothing when it is over
 * @param happened what came of each move
 */
public record PlanStand(List<PlanMove> next, List<String> happened) {
    public PlanStand {
        next = List.copyOf(next);
        happened = List.copyOf(happened);
    }
}
