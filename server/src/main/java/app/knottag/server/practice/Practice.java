package app.knottag.server.practice;

import app.knottag.core.practice.Cases;
import app.knottag.core.practice.Level;
import app.knottag.core.practice.PracticeCase;
import app.knottag.core.practice.Progress;
import app.knottag.core.practice.Progress.Played;
import app.knottag.core.practice.Review;
import app.knottag.core.reach.Fault;
import app.knottag.core.reach.Question;
import app.knottag.server.practice.PracticeStore.ResultRow;
import app.knottag.server.web.Problem;
import java.time.Clock;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
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
                        c.faults().stream().map(Enum::name).collect(Collectors.joining(",")),
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

    /** What that says of them. */
    static Progress progress(List<ResultRow> results) {
        return new Progress(results.stream().map(Practice::played).toList());
    }

    private static Played played(ResultRow r) {
        return new Played(r.caseId(), r.kind(), r.level(), causes(r), r.solved(), r.minutes(), r.par(), r.score());
    }

    /** What is no cause any more, or was not kept then, is left out. */
    private static List<Fault> causes(ResultRow r) {
        return Stream.of(Fault.values())
                .filter(f -> Set.of(r.causes().split(",")).contains(f.name()))
                .toList();
    }

    boolean shown(String person) {
        return store.shown(person);
    }

    @Transactional
    public void show(boolean shown, String person) {
        store.show(person, shown);
    }

    /** Somebody who agreed that leads see it, and the levels for which they are ready. */
    record Ready(String name, List<Level> levels) {}

    @Transactional(readOnly = true)
    List<Ready> ready() {
        return store.agreed().stream()
                .map(p -> {
                    var progress = progress(store.of(p.name()));
                    return new Ready(
                            p.name(),
                            Stream.of(Level.values()).filter(progress::ready).toList());
                })
                .toList();
    }
}
