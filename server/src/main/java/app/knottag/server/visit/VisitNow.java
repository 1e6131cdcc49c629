package app.knottag.server.visit;

import app.knottag.core.runbook.Board;
import app.knottag.core.visit.Brief;
import app.knottag.core.visit.Hands;
import app.knottag.core.visit.Learned;
import app.knottag.core.visit.Means;
import app.knottag.core.visit.Minutes;
import app.knottag.core.visit.Packing;
import app.knottag.core.visit.RunbookWork;
import app.knottag.core.visit.Standing;
import app.knottag.core.visit.Stretch;
import app.knottag.core.visit.VisitUnit;
import app.knottag.core.visit.Window;
import app.knottag.server.visit.TaskStore.TaskRow;
import app.knottag.server.visit.VisitStore.UnitRow;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;

/**
 * A visit at one moment as core reckons with it: what is left of every runbook, who is at what, and who is there.
 *
 * @param at the moment that all minutes count from
 * @param brief what is left, as if nobody were at anything
 * @param standing who is at what
 * @param learned of how many steps the minutes are known from what was done before
 * @param aside what was left for another day
 * @param carry what somebody carries to each device
 */
record VisitNow(
        Instant at,
        Brief brief,
        Standing standing,
        Map<Integer, Hand> hands,
        int learned,
        List<VisitUnit> aside,
        Map<Long, List<String>> carry) {

    /** What was wanted of a visit: endpoints with their runbooks as they are, and tasks. */
    record Work(List<Board.Job> jobs, List<UnitRow> units, List<TaskRow> tasks) {}

    static VisitNow of(
            VisitBrief said, Optional<Instant> due, Instant at, Work work, List<Hand> taken, Learned learned) {
        // The bench and the line are those of the site itself.
        var bench = work.units.stream()
                .filter(u -> u.bench() && u.site().isEmpty())
                .map(UnitRow::endpointId)
                .collect(Collectors.toSet());
        var first = work.units.stream()
                .filter(UnitRow::first)
                .map(UnitRow::endpointId)
                .collect(Collectors.toSet());
        var left = new ArrayList<VisitUnit>();
        var aside = new ArrayList<VisitUnit>();
        var another = work.units.stream()
                .filter(UnitRow::aside)
                .map(UnitRow::endpointId)
                .collect(Collectors.toSet());
        first.removeAll(another);
        var progress = new HashMap<Long, Standing.Progress>();
        var open = work.tasks.stream().filter(t -> !t.done()).toList();
        var held = taken.stream().filter(h -> stillHeld(h, work.jobs, open)).toList();
        var areas = areas(work);
        var models = work.units.stream().collect(Collectors.toMap(UnitRow::endpointId, UnitRow::model));
        int count = 0;
        for (var job : work.jobs) {
            boolean here = !areas.containsKey(job.place());
            var known = learned.of(models.getOrDefault(job.endpoint(), ""));
            List<Stretch> stretches = RunbookWork.left(job.runbook(), known).stream()
                    .map(s -> here ? s : s.offline())
                    .toList();
            if (stretches.isEmpty()) continue;
            boolean onBench = bench.contains(job.endpoint());
            var after = first.contains(job.endpoint()) ? Set.<Long>of() : open(first, work.jobs, learned);
            var unit = unit(job, stretches, here, onBench, said, at).after(after);
            if (another.contains(unit.id())) {
                aside.add(unit);
                continue;
            }
            count += known.known(job.runbook().kind().id(), stretches);
            left.add(unit);
            progress.put(unit.id(), new Standing.Progress(0, unit.ready(), by(held, unit.id())));
        }
        for (var task : open) {
            left.add(task(task, open, said, at));
            progress.put(task.unit(), new Standing.Progress(0, 0, by(held, task.unit())));
        }
        var hands = said.people().stream()
                .map(p -> person(p, at).at(p.at().place()))
                .toList();
        var means = new Means(bench(said), said.megabits(), said.walk(), said.counts(), areas, said.travel());
        var brief = new Brief(
                left, hands, means, due.map(d -> OptionalInt.of(minutes(at, d))).orElse(OptionalInt.empty()));
        var people = IntStream.range(0, hands.size())
                .mapToObj(p -> new Standing.Person(
                        hands.get(p).at(), said.people().get(p).gone()))
                .toList();
        return new VisitNow(
                at,
                brief,
                new Standing(0, progress, people),
                held.stream().collect(Collectors.toMap(Hand::person, h -> h)),
                count,
                aside,
                work.jobs.stream().collect(Collectors.toMap(Board.Job::endpoint, j -> Packing.carry(j.runbook()))));
    }

    /** Which places lie at another site. */
    private static Map<String, String> areas(Work work) {
        var sites = work.units.stream().collect(Collectors.toMap(UnitRow::endpointId, UnitRow::site));
        return work.jobs.stream()
                .filter(j -> !sites.getOrDefault(j.endpoint(), "").isEmpty())
                .collect(Collectors.toMap(Board.Job::place, j -> sites.get(j.endpoint()), (a, b) -> a));
    }

    private static boolean stillHeld(Hand hand, List<Board.Job> jobs, List<TaskRow> open) {
        return open.stream().anyMatch(t -> t.unit() == hand.unitId())
                || jobs.stream().anyMatch(j -> j.endpoint() == hand.unitId() && !hand.over(j));
    }

    private static OptionalInt by(List<Hand> held, long unit) {
        return held.stream()
                .filter(h -> h.unitId() == unit)
                .mapToInt(Hand::person)
                .findFirst();
    }

    private static VisitUnit unit(
            Board.Job job, List<Stretch> left, boolean here, boolean onBench, VisitBrief said, Instant at) {
        return new VisitUnit(
                job.endpoint(),
                job.name(),
                onBench ? "the bench" : job.place(),
                left,
                RunbookWork.ready(job.runbook(), at),
                free(said, at, job.place(), onBench),
                Set.of(),
                onBench,
                said.tool(job.runbook().kind().id()),
                job.runbook().begun(),
                here ? RunbookWork.running(job.runbook(), said.megabits()) : 0);
    }

    /** A task is one stretch of hands, and waits for those of an earlier stage. */
    private static VisitUnit task(TaskRow t, List<TaskRow> open, VisitBrief said, Instant at) {
        var stretch = new Stretch(List.of(), t.title(), Minutes.about(t.minutes()), Minutes.NONE, t.skill(), 0);
        return new VisitUnit(
                t.unit(),
                t.title(),
                t.place(),
                List.of(stretch),
                0,
                free(said, at, t.place(), false),
                open.stream()
                        .filter(o -> o.stage() > 0 && o.stage() < t.stage())
                        .map(TaskRow::unit)
                        .collect(Collectors.toSet()),
                false,
                "",
                false,
                0);
    }

    /** Those that all others wait for, as far as they are not done. */
    private static Set<Long> open(Set<Long> first, List<Board.Job> jobs, Learned learned) {
        return jobs.stream()
                .filter(j -> first.contains(j.endpoint()))
                .filter(j -> !RunbookWork.left(j.runbook(), learned).isEmpty())
                .map(Board.Job::endpoint)
                .collect(Collectors.toSet());
    }

    /** What is left for a new plan, while some people are at something. */
    Brief rest() {
        return brief.rest(
                standing, hands.values().stream().collect(Collectors.toMap(Hand::person, h -> minutes(h.there(), at))));
    }

    private static Hands person(VisitBrief.Person p, Instant at) {
        int from = Optional.ofNullable(p.from())
                .map(f -> Math.max(0, minutes(at, f)))
                .orElse(0);
        int until = Optional.ofNullable(p.until())
                .map(u -> Math.min(Window.HORIZON, minutes(at, u)))
                .orElse(Window.HORIZON);
        var hands = new Hands(
                p.name(), Set.copyOf(p.skills()), from < until ? List.of(new Window(from, until)) : List.of(), "");
        return p.gone() ? hands.gone() : hands;
    }

    /** Places that nobody said anything of are free all the time, and so is the bench. */
    private static List<Window> free(VisitBrief said, Instant at, String place, boolean onBench) {
        var hours = said.places().stream().filter(p -> p.place().equals(place)).toList();
        if (hours.isEmpty() || onBench) return Window.ALWAYS;
        return hours.stream()
                .filter(h -> h.until().isAfter(at))
                .map(h -> new Window(
                        Math.max(0, minutes(at, h.from())),
                        Math.max(1, Math.min(Window.HORIZON, minutes(at, h.until())))))
                .toList();
    }

    private static int bench(VisitBrief said) {
        return Math.min(
                Optional.ofNullable(said.outlets()).orElse(Means.PLENTY),
                Optional.ofNullable(said.ports()).orElse(Means.PLENTY));
    }

    static int minutes(Instant from, Instant until) {
        return (int) Math.max(
                -Window.HORIZON,
                Math.min(Window.HORIZON, Duration.between(from, until).toMinutes()));
    }
}
