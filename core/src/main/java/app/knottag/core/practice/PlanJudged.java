package app.knottag.core.practice;

import java.util.List;

/**
 * How good a plan is.
 *
 * @param score share of the best, 0 to 1
 * @param says what it reaches, and what can be reached
 * @param remarks what is wrong with it, or where it loses
 * @param best a plan that nothing is better than, in lines
 * @param proven whether it is known that nothing is better
 */
public record PlanJudged(double score, String says, List<String> remarks, List<String> best, boolean proven) {
    public PlanJudged {
        remarks = List.copyOf(remarks);
        best = List.copyOf(best);
    }
}
