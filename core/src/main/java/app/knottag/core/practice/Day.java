package app.knottag.core.practice;

import app.knottag.core.reading.ReadingException;
import app.knottag.core.visit.Brief;
import app.knottag.core.visit.Turn;
import app.knottag.core.visit.VisitPlan;
import app.knottag.core.visit.VisitPlanner;
import app.knottag.core.visit.VisitUnit;
import app.knottag.core.visit.Window;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.IntStream;

/**
 * Devices that one person carries through, each with hands and waits by turns. Counted is when all is done; a device that does not
 * get done counts as if the rest had taken that much longer.
 *
 * @param brief what there is to do, by one person
 * @param begins minute of the day at which the visit begins
 */
public record Day(Brief brief, int begins) implements PlanTask {

    @Override
    public String ask() {
        return brief.means().walk() == 0
                ? "While one restarts, work at another. In which order do you go to them, so that you are done early?"
                : "Counters are free at some hours only, and each walk takes its minutes. In which order do you go to them?";
    }

    @Override
    public List<PlanFact> facts() {
        var facts = new ArrayList<PlanFact>();
        for (var unit : brief.units())
            facts.add(new PlanFact(
                    unit.name(),
                    (walks() ? "at the " + unit.place() + ". " : "")
                            + unit.stretches().stream()
                                    .map(s -> s.hands().usual() + " min of hands"
                                            + (s.alone().usual() == 0
                                                    ? ""
                                                    : ", " + s.alone().usual() + " alone"))
                                    .collect(Collectors.joining("; then "))
                            + "."
                            + free(unit)));
        if (walks())
            facts.add(new PlanFact("From one place to another", brief.means().walk() + " min"));
        return List.copyOf(facts);
    }

    private boolean walks() {
        return brief.means().walk() > 0;
    }

    private String free(VisitUnit unit) {
        if (unit.free().equals(Window.ALWAYS)) return "";
        return " Free "
                + unit.free().stream()
                        .map(w -> clock(w.from()) + " to " + clock(w.until()))
                        .collect(Collectors.joining(" and "))
                + ".";
    }

    private String clock(int minute) {
        int at = begins + minute;
        return "%02d:%02d".formatted(at / 60, at % 60);
    }

    @Override
    public List<PlanBlank> blanks() {
        return List.of();
    }

    private VisitPlan follow(List<String> moves) {
        return VisitPlanner.following(brief, moves.stream().map(this::unit).toList());
    }

    private long unit(String id) {
        return brief.units().stream()
                .mapToLong(VisitUnit::id)
                .filter(u -> id.equals("" + u))
                .findFirst()
                .orElseThrow(() -> new ReadingException("There is no such device."));
    }

    private VisitUnit named(long id) {
        return brief.units().stream().filter(u -> u.id() == id).findFirst().orElseThrow();
    }

    @Override
    public PlanStand stand(List<String> moves) {
        var plan = follow(moves);
        int now = plan.turns().stream().mapToInt(Turn::until).max().orElse(0);
        var next = new ArrayList<PlanMove>();
        for (var unit : brief.units()) {
            if (plan.left().contains(unit.id())) continue;
            var mine = plan.turns().stream().filter(t -> t.unit() == unit.id()).toList();
            if (mine.size() == unit.stretches().size()) continue;
            var stretch = unit.stretches().get(mine.size());
            next.add(new PlanMove(
                    "" + unit.id(), unit.name() + ": " + lower(stretch.title()), when(plan, moves, unit, now)));
        }
        var happened = new ArrayList<>(lines(plan));
        happened.addAll(lost(plan));
        return new PlanStand(next, happened);
    }

    private static String lower(String title) {
        return title.substring(0, 1).toLowerCase() + title.substring(1);
    }

    private String when(VisitPlan plan, List<String> moves, VisitUnit unit, int now) {
        var more = new ArrayList<>(moves);
        more.add("" + unit.id());
        var then = follow(more);
        if (then.left().size() > plan.left().size()) return "not today any more";
        int from = then.turns().stream()
                .filter(t -> t.unit() == unit.id())
                .mapToInt(Turn::from)
                .max()
                .orElse(now);
        return from == now ? "at once" : "from " + clock(from) + ", in " + (from - now) + " min";
    }

    private List<String> lines(VisitPlan plan) {
        return plan.turns().stream()
                .map(t -> {
                    var unit = named(t.unit());
                    var title = lower(unit.stretches().get(t.stretch()).title());
                    return clock(t.from()) + " to " + clock(t.until()) + ", " + unit.name() + ": " + title
                            + (t.done() == t.until() ? "" : ", then alone until " + clock(t.done()));
                })
                .toList();
    }

    @Override
    public PlanJudged judge(List<String> answer) {
        var mine = follow(answer);
        long all = IntStream.range(0, brief.units().size())
                .map(u -> brief.units().get(u).stretches().size())
                .sum();
        if (mine.left().isEmpty() && mine.turns().size() < all)
            throw new ReadingException("There is something left to do.");
        var best = VisitPlanner.plan(brief).plan();
        double done = 1 - (double) mine.left().size() / brief.units().size();
        var remarks = new ArrayList<>(idle(mine));
        remarks.addAll(lost(mine));
        return new PlanJudged(
                done * Math.min(1, (double) best.finish() / Math.max(1, mine.finish())),
                "You are done at " + clock(mine.finish()) + ". The best plan is done at " + clock(best.finish())
                        + (best.best() ? "." : ", or no better one was found."),
                remarks,
                lines(best),
                best.best());
    }

    private List<String> lost(VisitPlan plan) {
        return plan.left().stream()
                .map(id -> named(id).name() + " does not get done: its place is not free any more.")
                .toList();
    }

    /** Minutes in which nothing is done, and what could have been. */
    private List<String> idle(VisitPlan plan) {
        var idle = new ArrayList<String>();
        var turns = plan.turns();
        for (int t = 1; t < turns.size(); t++) {
            var before = turns.get(t - 1);
            var turn = turns.get(t);
            int walk = brief.means()
                    .walk(named(before.unit()).place(), named(turn.unit()).place());
            int minutes = turn.from() - before.until() - walk;
            if (minutes > 0)
                idle.add("At " + clock(before.until()) + " you wait " + minutes + " min for "
                        + named(turn.unit()).name() + ".");
        }
        return idle;
    }
}
