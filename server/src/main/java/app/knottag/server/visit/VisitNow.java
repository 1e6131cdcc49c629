package app.knottag.server.visit;

import app.knottag.core.runbook.Board;
import app.knottag.core.visit.Brief;
import app.knottag.core.visit.Hands;
import app.knottag.core.visit.Learned;
import app.knottag.core.visit.Means;
import app.knottag.core.visit.RunbookWork;
import app.knottag.core.visit.Standing;
import app.knottag.core.visit.Stretch;
import app.knottag.core.visit.VisitUnit;
import app.knottag.core.visit.Window;
import app.knottag.server.visit.VisitStore.UnitRow;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.OptionalInt;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;

/**
 * A visit at one moment as core reckons with it: what is left of every runbook, who is at what, and who is there.
 *
 * @param at the moment that all minutes count from
 * @param brief what is left, as if nobody were at anything
 * @param standing who is at what
 */
record VisitNow(Instant at, Brief brief, Standing standing, Map<Integer, Hand> hands) {

    static VisitNow of(
            VisitBrief said,
            @Nullable Instant due,
            Instant at,
            List<Board.Job> jobs,
            List<UnitRow> units,
            List<Hand> taken,
            Learned learned) {
        var bench =
                units.stream().filter(UnitRow::bench).map(UnitRow::endpointId).collect(Collectors.toSet());
        var left = new ArrayList<VisitUnit>();
        var progress = new HashMap<Long, Standing.Progress>();
        var held = taken.stream()
                .filter(h -> jobs.stream().anyMatch(j -> j.endpoint() == h.endpointId() && !h.over(j)))
                .toList();
        for (var job : jobs) {
            List<Stretch> stretches = RunbookWork.left(job.runbook(), learned);
            if (stretches.isEmpty()) continue;
            int ready = RunbookWork.ready(job.runbook(), at);
            left.add(new VisitUnit(
                    job.endpoint(),
                    job.name(),
                    bench.contains(job.endpoint()) ? "the bench" : job.place(),
                    stretches,
                    ready,
                    free(said, at, job.place(), bench.contains(job.endpoint())),
                    Set.of(),
                    bench.contains(job.endpoint()),
                    "",
                    job.runbook().begun()));
            var by = held.stream()
                    .filter(h -> h.endpointId() == job.endpoint())
                    .mapToInt(Hand::person)
                    .findFirst();
            progress.put(job.endpoint(), new Standing.Progress(0, ready, by));
        }
        var hands = said.people().stream().map(p -> person(p, at)).toList();
        var means = new Means(bench(said), said.megabits(), said.walk(), Map.of());
        var brief = new Brief(left, hands, means, due == null ? OptionalInt.empty() : OptionalInt.of(minutes(at, due)));
        var people = IntStream.range(0, hands.size())
                .mapToObj(p -> new Standing.Person("", said.people().get(p).gone()))
                .toList();
        return new VisitNow(
                at,
                brief,
                new Standing(0, progress, people),
                held.stream().collect(Collectors.toMap(Hand::person, h -> h)));
    }

    /**
     * Returns what is left for a new plan: whoever is at something is free when that usually ends, and what comes after it
     * waits until then.
     */
    Brief rest() {
        var people = new ArrayList<Hands>(brief.hands());
        var units = new ArrayList<VisitUnit>();
        for (var unit : brief.units()) {
            var by = standing.units().get(unit.id()).by();
            if (by.isEmpty()) {
                units.add(unit);
                continue;
            }
            var stretch = unit.stretches().get(0);
            var since = hands.get(by.getAsInt()).since();
            int busy = Math.max(1, stretch.hands().usual() - minutes(since, at));
            people.set(by.getAsInt(), people.get(by.getAsInt()).from(busy));
            if (unit.stretches().size() > 1)
                units.add(unit.with(
                        unit.stretches().subList(1, unit.stretches().size()),
                        busy + stretch.alone().usual()));
        }
        return new Brief(units, people, brief.means(), brief.due());
    }

    private static Hands person(VisitBrief.Person p, Instant at) {
        int from = p.from() == null ? 0 : Math.max(0, minutes(at, p.from()));
        int until = p.until() == null ? Window.HORIZON : Math.min(Window.HORIZON, minutes(at, p.until()));
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
        int outlets = said.outlets() == null ? Means.PLENTY : said.outlets();
        int ports = said.ports() == null ? Means.PLENTY : said.ports();
        return Math.min(outlets, ports);
    }

    static int minutes(Instant from, Instant until) {
        return (int) Math.max(
                -Window.HORIZON,
                Math.min(Window.HORIZON, Duration.between(from, until).toMinutes()));
    }
}
