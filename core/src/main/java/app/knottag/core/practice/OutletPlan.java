package app.knottag.core.practice;

import app.knottag.core.figure.Unit;
import app.knottag.core.guard.Outage;
import app.knottag.core.guard.OutageSheet;
import app.knottag.core.guard.OutletTimes;
import app.knottag.core.reading.ReadingException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.OptionalInt;

/**
 * The times of a watched outlet. Counted is how soon a router that hangs is online again when the first restart does not help; a
 * plan that does not hold counts for nothing, and each warning halves it.
 *
 * @param start seconds that the router takes from power to online, at its slowest
 * @param blip seconds that the line drops out now and then, by itself
 * @param night seconds that the line is down when the provider works at it
 * @param needsOff seconds without power that the router needs to forget
 */
public record OutletPlan(int start, int blip, int night, int needsOff) implements PlanTask {

    private static final List<Integer> EVERY = List.of(20, 30, 60, 120, 300);
    private static final List<Integer> TRIES = List.of(1, 2, 3, 4, 5);
    private static final List<Integer> OFF = List.of(5, 10, 20, 30, 60);
    private static final List<Integer> PAUSE = List.of(30, 60, 120, 180, 240, 300, 420, 600);
    private static final List<Integer> MOST = List.of(1, 2, 3, 5, 0);
    private static final int RESTARTS_NEEDED = 2;

    @Override
    public String ask() {
        return "Set the outlet so that a router that hangs is online again soon, and that it never does harm.";
    }

    @Override
    public List<PlanFact> facts() {
        return List.of(
                new PlanFact("Router, from power to online", "up to " + Unit.duration(start)),
                new PlanFact("Without power, to forget", "at least " + Unit.duration(needsOff)),
                new PlanFact("One restart", "does not always help; a second one did so far"),
                new PlanFact(
                        "The line drops out by itself", "for up to " + Unit.duration(blip) + ", several times a day"),
                new PlanFact("The provider works at the line", "for " + Unit.duration(night) + ", some nights"),
                new PlanFact("It looks at", "three names outside, of different hands; all must fail"));
    }

    @Override
    public List<PlanBlank> blanks() {
        return List.of(
                new PlanBlank("It looks every", seconds(EVERY)),
                new PlanBlank("Looks in a row that must fail", plain(TRIES)),
                new PlanBlank("It stays off for", seconds(OFF)),
                new PlanBlank("It waits before it looks again", seconds(PAUSE)),
                new PlanBlank(
                        "It gives up after",
                        MOST.stream()
                                .map(n -> n == 0 ? "never" : n == 1 ? "1 restart" : n + " restarts")
                                .toList()));
    }

    private static List<String> seconds(List<Integer> figures) {
        return figures.stream().map(Unit::duration).toList();
    }

    private static List<String> plain(List<Integer> figures) {
        return figures.stream().map(f -> "" + f).toList();
    }

    @Override
    public PlanStand stand(List<String> moves) {
        throw new ReadingException("Here times are chosen.");
    }

    /** What a choice comes to. */
    private record Found(OutletTimes times, List<String> stops, List<String> warnings, int back) {
        double good() {
            return stops.isEmpty() ? Math.pow(0.5, warnings.size()) / back : 0;
        }
    }

    @Override
    public PlanJudged judge(List<String> answer) {
        var mine = found(read(answer));
        var best = best();
        var remarks = new ArrayList<>(mine.stops());
        remarks.addAll(mine.warnings());
        String says = (mine.stops().isEmpty()
                        ? "The router is online again after " + Unit.duration(mine.back()) + " at most."
                        : "So it cannot stay.")
                + " The best times bring it back after " + Unit.duration(best.back()) + ".";
        return new PlanJudged(mine.good() / best.good(), says, remarks, lines(best.times()), true);
    }

    private OutletTimes read(List<String> answer) {
        var blanks = blanks();
        if (answer.size() != blanks.size()) throw new ReadingException("Choose all five.");
        var at = new int[blanks.size()];
        for (int b = 0; b < at.length; b++) {
            at[b] = blanks.get(b).choices().indexOf(answer.get(b));
            if (at[b] < 0)
                throw new ReadingException("“" + blanks.get(b).label() + "” is one of "
                        + String.join(", ", blanks.get(b).choices()) + ".");
        }
        return times(EVERY.get(at[0]), TRIES.get(at[1]), OFF.get(at[2]), PAUSE.get(at[3]), MOST.get(at[4]));
    }

    private static OutletTimes times(int every, int tries, int off, int pause, int most) {
        return new OutletTimes(every, tries, off, pause, most == 0 ? OptionalInt.empty() : OptionalInt.of(most));
    }

    private Found found(OutletTimes times) {
        var stops = new ArrayList<String>();
        var warnings = new ArrayList<String>();
        for (var finding : new OutageSheet().judge(typed(times)).findings())
            switch (finding.weight()) {
                case STOPS -> stops.add(finding.message());
                case WARNS -> warnings.add(finding.message());
                default -> {}
            }
        if (!Outage.line(times, start, blip).restarts().isEmpty())
            stops.add("It restarts the router when the line drops out for " + Unit.duration(blip)
                    + ", which ends by itself: its looks may all fall into that.");
        if (times.off() < needsOff)
            stops.add("After " + Unit.duration(times.off()) + " without power the router has not forgotten: it needs "
                    + Unit.duration(needsOff) + ".");
        var back = Outage.hangs(times, start, RESTARTS_NEEDED).online();
        if (back.isEmpty() && times.most().orElse(RESTARTS_NEEDED) < RESTARTS_NEEDED)
            stops.add("It gives up after the first restart, and the router may need a second one.");
        return new Found(times, stops, warnings, back.orElse(Integer.MAX_VALUE));
    }

    private Map<String, String> typed(OutletTimes times) {
        var typed = new HashMap<String, String>();
        typed.put("start", start + " s");
        typed.put("every", times.every() + " s");
        typed.put("tries", "" + times.tries());
        typed.put("off", times.off() + " s");
        typed.put("pause", times.pause() + " s");
        typed.put("most", "" + times.most().orElse(0));
        typed.put("looks", "OUTSIDE");
        typed.put("targets", "3");
        typed.put("lost", "1");
        typed.put("own", "0.1");
        typed.put("line", night + " s");
        return typed;
    }

    private Found best() {
        var best = new Found(times(1, 1, 1, 0, 0), List.of("Nothing is tried yet."), List.of(), 0);
        for (int every : EVERY)
            for (int tries : TRIES)
                for (int off : OFF)
                    for (int pause : PAUSE)
                        for (int most : MOST) {
                            var found = found(times(every, tries, off, pause, most));
                            if (found.good() > best.good()) best = found;
                        }
        if (!best.stops().isEmpty()) throw new IllegalStateException("No times of this task hold: " + this);
        return best;
    }

    private List<String> lines(OutletTimes t) {
        var chosen = List.of(
                Unit.duration(t.every()),
                "" + t.tries(),
                Unit.duration(t.off()),
                Unit.duration(t.pause()),
                blanks().get(4).choices().get(MOST.indexOf(t.most().orElse(0))));
        var lines = new ArrayList<String>();
        for (int b = 0; b < chosen.size(); b++) lines.add(blanks().get(b).label() + ": " + chosen.get(b));
        return lines;
    }
}
