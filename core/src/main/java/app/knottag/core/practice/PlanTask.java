package app.knottag.core.practice;

import java.util.List;

/** Something that is thought through before hands touch anything, judged against the best that can be reached. */
public sealed interface PlanTask permits LayOut, Renumber, Day, OutletPlan {

    /** Returns what is to be planned, in a sentence or two. */
    String ask();

    /** Returns what is known. */
    List<PlanFact> facts();

    /** Returns what is to be filled in; none where moves are made one after the other. */
    List<PlanBlank> blanks();

    /**
     * Returns how it stands.
     *
     * @param moves ids of what was done so far, in order
     * @throws app.knottag.core.reading.ReadingException if one of them cannot be done
     */
    PlanStand stand(List<String> moves);

    /**
     * Judges a plan.
     *
     * @param answer what was filled in, one for each blank, or what was done, in order
     * @throws app.knottag.core.reading.ReadingException if it is not complete or cannot be read
     */
    PlanJudged judge(List<String> answer);
}
