package app.knottag.core.practice;

import java.util.List;

/**
 * Something to be filled in.
 *
 * @param choices what there is to choose from; none where anything may be typed
 */
public record PlanBlank(String label, List<String> choices) {
    public PlanBlank {
        choices = List.copyOf(choices);
    }
}
