package app.knottag.server.practice;

import app.knottag.core.kind.Kind;
import app.knottag.core.kind.Kinds;
import app.knottag.core.practice.Cases;
import app.knottag.core.practice.Level;
import app.knottag.core.practice.PracticeCase;
import app.knottag.core.practice.Progress;
import app.knottag.core.practice.Progress.Part;
import app.knottag.core.practice.Review;
import app.knottag.core.reach.Fault;
import app.knottag.core.reach.FaultBook;
import app.knottag.core.reach.FaultBook.Stretch;
import app.knottag.core.reach.Outcome;
import app.knottag.core.reach.Question;
import app.knottag.server.practice.PracticeStore.ResultRow;
import app.knottag.server.web.Idempotency;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import java.security.Principal;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Practice over HTTP: which cases there are, what looks show there, and how it went. */
@RestController
class PracticeController {

    /** A case in the list; {@code best} is one's own best score, below 0 when it was never played. */
    record CaseLine(String id, String title, String device, Level level, double best) {}

    record LevelView(Level level, String words) {}

    record ResultView(String title, boolean solved, double score, double minutes, double par, Instant at) {}

    /**
     * The case to play next.
     *
     * @param why in a sentence
     */
    record NextCase(String id, String title, String why) {}

    /**
     * How it goes with a kind of device, or with causes at one place of the way.
     *
     * @param score the mean share of the best possible in the latest of them
     * @param lost the mean minutes lost in each of the latest of them
     */
    record PracticePart(String title, int played, double score, double lost) {}

    /**
     * All cases that come along, and what one has played, the latest first.
     *
     * @param ready the levels that one is ready for
     * @param shown whether leads may see that
     */
    record PracticeView(
            List<LevelView> levels,
            List<CaseLine> cases,
            List<ResultView> results,
            NextCase next,
            List<PracticePart> kinds,
            List<PracticePart> places,
            List<Level> ready,
            boolean shown) {}

    record ShownRequest(@NotNull Boolean shown) {}

    record PracticeReady(String name, List<Level> levels) {}

    record LookView(Question question, String words, double minutes, boolean eyes) {}

    record CauseView(Fault fault, String title) {}

    /** A stretch of the way, what can be looked at there, and what could be wrong there. */
    record PlaceView(String title, List<LookView> looks, List<CauseView> causes) {}

    record PracticeCaseView(
            String id,
            String title,
            String device,
            Level level,
            String levelWords,
            String call,
            List<String> lately,
            List<PlaceView> way) {}

    record LooksRequest(@NotNull List<@NotNull Question> asked) {}

    /** What a look showed, in a sentence. */
    record ShownView(Question question, String said) {}

    record ShownAnswer(List<ShownView> looks, double minutes) {}

    record ReviewRequest(
            @NotNull List<@NotNull Question> asked, @NotNull List<@NotNull Fault> named) {}

    /**
     * A look and what it was good for.
     *
     * @param truly what is really there, when something else was seen; else empty
     * @param nearer in powers of two; below 0 when it led away
     * @param better the look that would have told far more for its minutes; else empty
     */
    record ReviewLineView(String words, String said, String truly, double minutes, double nearer, String better) {}

    record ReviewView(
            boolean right,
            List<String> truth,
            List<String> remedy,
            String call,
            double minutes,
            double par,
            double sure,
            double score,
            List<ReviewLineView> looks,
            List<ReviewLineView> best,
            NextCase next) {}

    private static final Kinds KINDS = Kinds.shipped();
    private static final PlaceView ALL_WELL = new PlaceView(
            "All in order",
            List.of(),
            List.of(new CauseView(
                    Fault.NOTHING, FaultBook.shipped().of(Fault.NOTHING).title())));

    private final Practice practice;
    private final Idempotency idempotency;
    private final FaultBook book = FaultBook.shipped();

    PracticeController(Practice practice, Idempotency idempotency) {
        this.practice = practice;
        this.idempotency = idempotency;
    }

    @GetMapping("/api/practice")
    PracticeView all(Principal by) {
        var results = practice.results(by.getName());
        var best = results.stream().collect(Collectors.toMap(ResultRow::caseId, ResultRow::score, Math::max));
        var progress = Practice.progress(results);
        var titles = Cases.shipped().stream().collect(Collectors.toMap(PracticeCase::id, Function.identity()));
        return new PracticeView(
                List.of(Level.values()).stream()
                        .map(l -> new LevelView(l, l.words()))
                        .toList(),
                Cases.shipped().stream()
                        .map(c -> new CaseLine(
                                c.id(), c.title(), c.device().noun(), c.hard(), best.getOrDefault(c.id(), -1.0)))
                        .toList(),
                results.stream()
                        .map(r -> new ResultView(
                                Optional.ofNullable(titles.get(r.caseId()))
                                        .map(PracticeCase::title)
                                        .orElse("Drawn case"),
                                r.solved(),
                                r.score(),
                                r.minutes(),
                                r.par(),
                                r.at()))
                        .toList(),
                next(progress, results.size()),
                progress.byKind().stream()
                        .map(p -> part(p, KINDS.find(p.of()).map(Kind::noun).orElse(p.of())))
                        .toList(),
                progress.byPlace().stream().map(p -> part(p, p.of())).toList(),
                Stream.of(Level.values()).filter(progress::ready).toList(),
                practice.shown(by.getName()));
    }

    private static NextCase next(Progress progress, int played) {
        return progress.next(Cases.shipped())
                .map(n -> new NextCase(n.is().id(), n.is().title(), n.why()))
                .orElseGet(() -> new NextCase("drawn-" + played, "A drawn case", "All that come along went well."));
    }

    private static PracticePart part(Part p, String title) {
        return new PracticePart(title, p.played(), p.score(), p.lost());
    }

    /** Lets leads see for what one is ready, or not any more. It is nobody's to say but one's own. */
    @PutMapping("/api/me/practice-shown")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void show(@Valid @RequestBody ShownRequest body, Principal by) {
        practice.show(body.shown(), by.getName());
    }

    /** For leads: those who agreed to it, by name, and for what they are ready. */
    @GetMapping("/api/practice-readiness")
    List<PracticeReady> ready() {
        return practice.ready().stream()
                .map(r -> new PracticeReady(r.name(), r.levels()))
                .toList();
    }

    @GetMapping("/api/practice/{caseId}")
    PracticeCaseView one(@PathVariable String caseId) {
        var c = practice.find(caseId);
        var questions = c.questions();
        var suspects = c.suspects();
        return new PracticeCaseView(
                c.id(),
                c.title(),
                c.device().noun(),
                c.hard(),
                c.hard().words(),
                c.call(),
                c.lately().stream().map(l -> book.lately().get(l).words()).toList(),
                Stream.concat(
                                book.places().values().stream().map(s -> stretch(s, questions, suspects)),
                                Stream.of(ALL_WELL))
                        .filter(s -> !s.looks().isEmpty() || !s.causes().isEmpty())
                        .toList());
    }

    private PlaceView stretch(Stretch s, List<Question> questions, List<Fault> suspects) {
        return new PlaceView(
                s.title(),
                s.questions().stream()
                        .filter(questions::contains)
                        .map(q -> new LookView(q, q.words(), q.minutes(), q.by() == Question.By.EYES))
                        .toList(),
                s.faults().stream()
                        .filter(suspects::contains)
                        .map(f -> new CauseView(f, book.of(f).title()))
                        .toList());
    }

    /** What these looks show; keeps nothing. */
    @PostMapping("/api/practice/{caseId}/looks")
    ShownAnswer looks(@PathVariable String caseId, @Valid @RequestBody LooksRequest body) {
        var c = practice.find(caseId);
        practice.check(c, body.asked());
        return new ShownAnswer(
                body.asked().stream()
                        .map(q -> new ShownView(q, said(q, c.seen(q))))
                        .toList(),
                body.asked().stream().mapToDouble(Question::minutes).sum());
    }

    private String said(Question question, Optional<Outcome> seen) {
        return seen.map(o -> book.said(question, o)).orElse("There is nothing to be seen of that here");
    }

    /** Ends a case with the cause that somebody names, and tells how it went. */
    @PostMapping("/api/practice/{caseId}/reviews")
    @ResponseStatus(HttpStatus.CREATED)
    ReviewView review(
            @PathVariable String caseId,
            @RequestHeader(name = "Idempotency-Key", required = false) String key,
            @Valid @RequestBody ReviewRequest body,
            Principal by) {
        var c = practice.find(caseId);
        return idempotency.once(
                by.getName(),
                key,
                List.of(caseId, body),
                ReviewView.class,
                () -> view(c, practice.end(c, body.asked(), body.named(), by.getName()), by.getName()));
    }

    private ReviewView view(PracticeCase c, Review review, String by) {
        var results = practice.results(by);
        var entries = c.faults().stream().map(book::of).toList();
        return new ReviewView(
                review.right(),
                entries.stream().map(FaultBook.Entry::title).toList(),
                entries.stream().flatMap(e -> e.remedy().stream()).toList(),
                entries.stream()
                        .map(FaultBook.Entry::call)
                        .filter(w -> !w.isEmpty())
                        .collect(Collectors.joining(", ")),
                review.minutes(),
                review.par(),
                review.sure(),
                review.score(),
                review.looks().stream().map(this::line).toList(),
                best(c, review.best()),
                next(Practice.progress(results), results.size()));
    }

    private ReviewLineView line(Review.Look look) {
        return new ReviewLineView(
                look.question().words(),
                said(look.question(), look.seen()),
                look.truly().map(o -> book.said(look.question(), o)).orElse(""),
                look.question().minutes(),
                look.nearer(),
                look.better().map(b -> b.question().words()).orElse(""));
    }

    private List<ReviewLineView> best(PracticeCase c, List<Question> path) {
        var lines = new ArrayList<ReviewLineView>();
        for (var q : path) lines.add(new ReviewLineView(q.words(), said(q, c.seen(q)), "", q.minutes(), 0, ""));
        return lines;
    }
}
