package app.knottag.core.runbook;

import app.knottag.core.kind.GateType;
import app.knottag.core.kind.Kind;
import app.knottag.core.runbook.Runbook.Pace;
import app.knottag.core.status.Status;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;

/**
 * Several runbooks and one pair of hands: what to do now, and what runs beside it. Waits cost nobody anything while
 * others run, so whatever has the longest waits still before it is started first; the longest tail first is the best
 * order for one machine before many that work alone. Whatever has waited long enough is looked at before anything else.
 *
 * @param lines all endpoints, the one to do now first
 */
public record Board(List<Turn> lines) {

    public Board {
        lines = List.copyOf(lines);
    }

    /** How an endpoint stands on the board. */
    public enum State {
        /** The one thing to do now. */
        NOW,
        /** Could be done now, and comes after. */
        NEXT,
        /** Runs by itself; too early to look. */
        RUNS
    }

    /** An endpoint that is being set up. */
    public record Job(long endpoint, String name, String place, Runbook runbook) {}

    /**
     * One endpoint on the board.
     *
     * @param minutes minutes until it is worth a look when it runs by itself, else 0
     * @param left usual minutes until it is ready, waits included
     * @param because why it stands where it stands, in one sentence
     */
    public record Turn(
            State state,
            long endpoint,
            String name,
            String place,
            String step,
            String title,
            Status status,
            long minutes,
            long left,
            String because) {

        private Turn saying(String why) {
            return new Turn(state, endpoint, name, place, step, title, status, minutes, left, why);
        }
    }

    /** Puts the jobs in order; those whose runbook is done up to the confirmation are not on the board. */
    public static Board of(List<Job> jobs, Instant now) {
        var ranked = new ArrayList<Ranked>();
        for (var job : jobs) {
            var step = job.runbook().current();
            if (step.isPresent() && step.get().gate().type() != GateType.CONFIRMED)
                ranked.add(rank(job, step.get(), now));
        }
        ranked.sort(Comparator.comparingInt((Ranked r) -> r.urgency().ordinal())
                .thenComparing(Comparator.comparingLong(Ranked::tail).reversed())
                .thenComparingLong(r -> r.line().minutes())
                .thenComparing(r -> r.line().name()));
        var hands = ranked.stream().filter(r -> r.urgency() == Urgency.HANDS).toList();
        int first = ranked.size()
                - (int) ranked.stream()
                        .filter(r -> r.urgency() == Urgency.RUNNING)
                        .count()
                - hands.size();
        var lines = new ArrayList<Turn>();
        for (int i = 0; i < ranked.size(); i++) {
            var r = ranked.get(i);
            var line = r.urgency() == Urgency.HANDS ? because(hands, i - first) : r.line();
            lines.add(lines.isEmpty() && line.state() == State.NEXT ? now(line) : line);
        }
        return new Board(lines);
    }

    /** The reason that decided: what tells it from the one behind it, which is seldom the only thing that could be said. */
    private static Turn because(List<Ranked> hands, int at) {
        var r = hands.get(at);
        String alone = r.tail() + " min of it run by themselves";
        if (hands.size() == 1) return r.line().saying("It is the only one that needs your hands now.");
        if (at > 0)
            return r.line()
                    .saying(
                            r.tail() == 0
                                    ? "Nothing of it runs by itself any more."
                                    : r.tail() < hands.get(at - 1).tail()
                                            ? alone + ", less than of "
                                                    + hands.get(at - 1).line().name() + "."
                                            : alone + ", as of "
                                                    + hands.get(at - 1).line().name() + ".");
        return r.line()
                .saying(
                        r.tail() > hands.get(1).tail()
                                ? alone + ", more than of any other: the sooner begun, the more runs beside you."
                                : "Nothing makes one of these more urgent than another; this is the first by name.");
    }

    /** Returns the one thing to do now, or empty when everything runs by itself. */
    public Optional<Turn> now() {
        return lines.stream().filter(l -> l.state() == State.NOW).findFirst();
    }

    private static Turn now(Turn l) {
        return new Turn(
                State.NOW,
                l.endpoint(),
                l.name(),
                l.place(),
                l.step(),
                l.title(),
                l.status(),
                l.minutes(),
                l.left(),
                l.because());
    }

    /** In this order. */
    private enum Urgency {
        FAILED_WAIT,
        READY_WAIT,
        FAILED,
        HANDS,
        RUNNING
    }

    private record Ranked(Urgency urgency, long tail, Turn line) {}

    private static Ranked rank(Job job, Kind.Step step, Instant now) {
        var record = job.runbook().record(step.key());
        long tail = tail(job.runbook(), step);
        if (step.waiting().isPresent()
                && record.startedAt().isPresent()
                && record.endedAt().isEmpty()) {
            var wait = step.waiting().get();
            var since = record.startedAt().get();
            long ran = Duration.between(since, now).toMinutes();
            long rest = Math.max(0, wait.usual() - ran);
            return switch (Runbook.pace(wait, since, now)) {
                case TOO_LONG ->
                    ranked(
                            Urgency.FAILED_WAIT,
                            job,
                            step,
                            record.status(),
                            0,
                            tail,
                            "It has taken longer than it ever does: " + ran + " min. Look for: " + wait.lookFor()
                                    + ".");
                case CLOCK_SET_BACK ->
                    ranked(
                            Urgency.READY_WAIT,
                            job,
                            step,
                            record.status(),
                            0,
                            tail,
                            "The clock here was set back since it began, so nobody can say how long it ran. Look for: "
                                    + wait.lookFor() + ".");
                case LATE ->
                    ranked(
                            Urgency.READY_WAIT,
                            job,
                            step,
                            record.status(),
                            0,
                            tail,
                            "It is usually ready by now. Look for: " + wait.lookFor() + ".");
                default ->
                    ranked(
                            Urgency.RUNNING,
                            job,
                            step,
                            record.status(),
                            rest,
                            tail + rest,
                            Runbook.pace(wait, since, now) == Pace.TOO_EARLY
                                    ? "Too early to judge."
                                    : "Not usually ready yet.");
            };
        }
        if (record.status() == Status.FAILED)
            return ranked(
                    Urgency.FAILED,
                    job,
                    step,
                    record.status(),
                    0,
                    tail,
                    record.wantsWaysOut()
                            ? "It failed " + record.tries() + " times: another way stands there."
                            : "Its last try failed.");
        return ranked(Urgency.HANDS, job, step, record.status(), 0, tail, "");
    }

    private static Ranked ranked(
            Urgency urgency, Job job, Kind.Step step, Status status, long minutes, long left, String because) {
        return new Ranked(
                urgency,
                waits(job.runbook()),
                new Turn(
                        urgency == Urgency.RUNNING ? State.RUNS : State.NEXT,
                        job.endpoint(),
                        job.name(),
                        job.place(),
                        step.key(),
                        step.title(),
                        status,
                        minutes,
                        left,
                        because));
    }

    /** Usual minutes that still run by themselves and have not been started. */
    private static long waits(Runbook runbook) {
        return runbook.kind().steps().stream()
                .filter(s -> !runbook.record(s.key()).done())
                .filter(s -> runbook.record(s.key()).startedAt().isEmpty())
                .flatMap(s -> s.waiting().stream())
                .mapToLong(Kind.Wait::usual)
                .sum();
    }

    /** Usual minutes from this step to the end, waits that run now left out. */
    private static long tail(Runbook runbook, Kind.Step from) {
        return waits(runbook)
                + runbook.kind().steps().stream()
                        .skip(runbook.kind().steps().indexOf(from))
                        .filter(s -> !runbook.record(s.key()).done())
                        .mapToInt(runbook.kind()::minutes)
                        .sum();
    }
}
