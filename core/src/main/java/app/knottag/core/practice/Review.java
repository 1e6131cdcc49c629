package app.knottag.core.practice;

import app.knottag.core.practice.Search.Stand;
import app.knottag.core.reach.Diagnosis;
import app.knottag.core.reach.Diagnosis.NextQuestion;
import app.knottag.core.reach.Diagnosis.Suspect;
import app.knottag.core.reach.Fault;
import app.knottag.core.reach.Outcome;
import app.knottag.core.reach.Question;
import app.knottag.core.reading.ReadingException;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * How somebody did at a case.
 *
 * @param right whether the cause that was named is there, or one that no look here can tell from it
 * @param minutes what the looks cost
 * @param par minutes that the best search takes on the same case
 * @param sure how sure the named cause was after those looks, 0..1
 * @param score 0..1: nothing when the wrong cause was named; else par by minutes, less when it was named before it was sure
 * @param looks what each look told, in the order in which they were made
 * @param best looks of the best search
 */
public record Review(
        boolean right, double minutes, double par, double sure, double score, List<Look> looks, List<Question> best) {

    /** A look that costs so many times what the best one would, for the same certainty, is worth a word. */
    private static final double WORSE = 2;

    /**
     * One look and what it was good for.
     *
     * @param seen what was seen, or empty when there was nothing to look at
     * @param truly what is there, when it was misread
     * @param nearer how many times likelier it made what is really wrong, in powers of two; below 0 when it led away from it
     * @param better the look that would have told far more for its minutes at that moment
     */
    public record Look(
            Question question,
            Optional<Outcome> seen,
            Optional<Outcome> truly,
            double nearer,
            Optional<NextQuestion> better) {}

    /**
     * Judges a case that was played.
     *
     * @param asked looks in the order in which they were made, each once
     * @param named the cause that was named, or two at once
     * @throws ReadingException when a look cannot be made here
     */
    public static Review of(PracticeCase c, List<Question> asked, List<Fault> named) {
        var possible = c.questions();
        var stand = Search.opening(c);
        var looks = new ArrayList<Look>();
        for (var question : asked) {
            if (!possible.contains(question))
                throw new ReadingException("“" + question.words() + "” cannot be looked at here.");
            var after = Search.after(c, stand, question);
            looks.add(look(c, stand, question, after));
            stand = after;
        }
        var best = Search.best(c);
        boolean right = Search.alike(c, c.faults(), named)
                || stand.verdict().next().isEmpty() && Search.sameGroup(stand, c.faults(), named);
        double sure = Search.sure(c, stand, named);
        double couldBe = Math.min(Diagnosis.CERTAIN, Search.sure(c, best.end(), c.faults()));
        double pace = Math.min(1, best.end().minutes() / Math.max(best.end().minutes(), stand.minutes()));
        return new Review(
                right,
                stand.minutes(),
                best.end().minutes(),
                sure,
                right ? pace * Math.min(1, sure / couldBe) : 0,
                looks,
                best.path());
    }

    private static Look look(PracticeCase c, Stand before, Question question, Stand after) {
        double nearer = Math.log(share(c, after) / share(c, before)) / Math.log(2);
        var better = before.verdict()
                .next()
                .filter(n -> n.question() != question)
                .filter(n -> n.gain() / n.minutes() > WORSE * Math.max(0, nearer) / question.minutes());
        var seen = c.seen(question);
        return new Look(
                question,
                seen,
                c.shows(question).filter(t -> seen.isPresent() && !seen.get().equals(t)),
                nearer,
                better);
    }

    /** The share of what is really wrong; what is not weighed at all counts as next to nothing. */
    private static double share(PracticeCase c, Stand stand) {
        return Math.max(
                LEAST, Search.find(stand, c.faults()).map(Suspect::probability).orElse(0.0));
    }

    private static final double LEAST = 1e-6;
}
