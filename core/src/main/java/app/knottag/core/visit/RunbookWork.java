package app.knottag.core.visit;

import app.knottag.core.kind.Kind;
import app.knottag.core.runbook.Runbook;
import app.knottag.core.runbook.StepRecord;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;

/**
 * What is left of a runbook as a visit reckons with it: steps that follow one another without a wait are one stretch of hands,
 * a wait is what runs by itself after them, and a step that somebody else must do by law or trade begins a stretch of its own.
 */
public final class RunbookWork {

    /** To set a wait going, such as by switching on. */
    private static final Minutes SET_GOING = Minutes.exactly(1);

    private final Kind kind;
    private final Learned learned;
    private final List<Stretch> stretches = new ArrayList<>();
    private final List<String> steps = new ArrayList<>();
    private String title = "";
    private String skill = "";
    private Minutes hands = Minutes.NONE;

    private RunbookWork(Kind kind, Learned learned) {
        this.kind = kind;
        this.learned = learned;
    }

    /** Returns what is left, in order. */
    public static List<Stretch> left(Runbook runbook, Learned learned) {
        var work = new RunbookWork(runbook.kind(), learned);
        for (var step : runbook.kind().steps()) {
            var record = runbook.record(step.key());
            if (!record.done()) work.add(step, record);
        }
        work.close(Minutes.NONE, 0);
        return List.copyOf(work.stretches);
    }

    /** Returns in how many minutes what is left can be begun: 0, or what a wait that runs usually still takes. */
    public static int ready(Runbook runbook, Instant now) {
        return runbook.current()
                .filter(s -> running(runbook.record(s.key())))
                .flatMap(s -> s.waiting()
                        .map(w -> Duration.between(
                                        now,
                                        runbook.record(s.key())
                                                .startedAt()
                                                .orElse(now)
                                                .plus(Duration.ofMinutes(w.usual())))
                                .plusSeconds(59)
                                .toMinutes()))
                .map(m -> (int) Math.max(0, Math.min(m, Minutes.MOST)))
                .orElse(0);
    }

    /** Returns what a wait that runs takes of the line, in kbit/s, 0 when none runs or it fetches nothing. */
    public static int running(Runbook runbook, double megabits) {
        var kind = runbook.kind();
        return runbook.current()
                .filter(s -> running(runbook.record(s.key())))
                .flatMap(s -> s.waiting().map(w -> fetched(kind, s.key(), w)))
                .map(s -> Downloads.kilobits(s, megabits))
                .orElse(0);
    }

    private static Stretch fetched(Kind kind, String step, Kind.Wait wait) {
        return new Stretch(
                List.of(step),
                step,
                Minutes.NONE,
                alone(wait),
                "",
                kind.megabytes().getOrDefault(step, 0));
    }

    private static Minutes alone(Kind.Wait wait) {
        return new Minutes(wait.shortest(), wait.usual(), wait.longest());
    }

    private static boolean running(StepRecord record) {
        return record.startedAt().isPresent() && record.endedAt().isEmpty();
    }

    private void add(Kind.Step step, StepRecord record) {
        if (!step.needs().equals(skill)) close(Minutes.NONE, 0);
        skill = step.needs();
        if (step.waiting().isPresent() && !running(record)) {
            note(step, SET_GOING);
            close(alone(step.waiting().get()), kind.megabytes().getOrDefault(step.key(), 0));
            skill = step.needs();
        }
        note(step, learned.hands(kind.id(), step.key()).orElse(Minutes.about(kind.minutes(step))));
    }

    private void note(Kind.Step step, Minutes minutes) {
        if (steps.isEmpty()) title = step.title();
        steps.add(step.key());
        hands = hands.plus(minutes);
    }

    private void close(Minutes alone, int megabytes) {
        if (!steps.isEmpty()) stretches.add(new Stretch(steps, title, hands, alone, skill, megabytes));
        steps.clear();
        hands = Minutes.NONE;
        skill = "";
    }
}
