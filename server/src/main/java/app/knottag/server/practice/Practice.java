package app.knottag.server.practice;

import app.knottag.core.practice.Cases;
import app.knottag.core.practice.PracticeCase;
import app.knottag.core.practice.Review;
import app.knottag.core.reach.Fault;
import app.knottag.core.reach.Question;
import app.knottag.server.practice.PracticeStore.ResultRow;
import app.knottag.server.web.Problem;
import java.time.Clock;
import java.util.HashSet;
import java.util.List;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Cases to practise on. What is wrong in one leaves this server only when the case is over. */
@Service
public class Practice {

    private static final int MOST_LOOKS = 60;

    private final PracticeStore store;
    private final Clock clock;

    Practice(PracticeStore store, Clock clock) {
        this.store = store;
        this.clock = clock;
    }

    PracticeCase find(String id) {
        return Cases.find(id).orElseThrow(() -> Problem.notFound("There is no such case."));
    }

    /** Refuses looks that cannot be made at a case, or are made twice. */
    void check(PracticeCase c, List<Question> asked) {
        if (asked.size() > MOST_LOOKS || new HashSet<>(asked).size() < asked.size())
            throw Problem.field("asked", "asked-twice", "Each look is made once.");
        var possible = c.questions();
        for (var question : asked)
            if (!possible.contains(question))
                throw Problem.field("asked", "no-such-look", "“" + question.words() + "” cannot be looked at here.");
    }

    /** Ends a case: judges it, and keeps how somebody did. */
    @Transactional
    public Review end(PracticeCase c, List<Question> asked, List<Fault> named, String by) {
        if (named.isEmpty() || named.size() > 2)
            throw Problem.field("named", "no-cause", "Name what is wrong: one cause, or two at once.");
        check(c, asked);
        var review = Review.of(c, asked, named);
        store.add(
                by,
                new ResultRow(
                        c.id(),
                        c.kind(),
                        c.hard(),
                        clock.instant(),
                        review.right(),
                        review.minutes(),
                        review.par(),
                        review.score()));
        return review;
    }

    /** How somebody did so far, the latest first. */
    @Transactional(readOnly = true)
    public List<ResultRow> results(String person) {
        return store.of(person);
    }
}
