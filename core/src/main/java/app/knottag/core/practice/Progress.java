package app.knottag.core.practice;

import app.knottag.core.reach.Fault;
import app.knottag.core.reach.FaultBook;
import app.knottag.core.reach.FaultBook.Stretch;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;

/**
 * What somebody is good at and where minutes go, of the cases that were played to their end. It is never set against what anybody
 * else has played.
 *
 * @param played the latest first
 */
public record Progress(List<Played> played) {

    /** So many cases are looked back at: what went badly long ago is forgotten once it goes well. */
    static final int LATEST = 5;

    /** From this share of the best possible on there is little left to gain. */
    static final double WELL = 0.8;

    /** So many at a level before it is said how somebody stands there; fewer are luck. */
    static final int ENOUGH = 3;

    /** So many others come between, before a case is played again: until then it is remembered. */
    private static final int BETWEEN = 3;

    /**
     * A case that was played to its end.
     *
     * @param minutes that the looks took
     * @param par that the best search takes
     * @param score share of the best possible, 0 to 1; 0 when something else was named
     */
    public record Played(
            String caseId,
            String kind,
            Level level,
            List<Fault> causes,
            boolean solved,
            double minutes,
            double par,
            double score) {

        /** Minutes that went beyond the best; all of them when nothing was found with them. */
        double lost() {
            return solved ? Math.max(0, minutes - par) : minutes;
        }
    }

    /**
     * How it goes with what cases have in common.
     *
     * @param of the id of a kind, or the title of the place of the way where the cause was
     * @param score the mean share of the best possible in the latest of them
     * @param lost the mean minutes lost in each of the latest of them
     */
    public record Part(String of, int played, double score, double lost) {}

    /**
     * The case that is worth most now.
     *
     * @param why in a sentence
     */
    public record Next(PracticeCase is, String why) {}

    private static final Map<Fault, String> PLACES = places();

    public Progress {
        played = List.copyOf(played);
    }

    private static Map<Fault, String> places() {
        var all = new LinkedHashMap<Fault, String>();
        for (Stretch s : FaultBook.shipped().places().values())
            for (var fault : s.faults()) all.putIfAbsent(fault, s.title());
        all.put(Fault.NOTHING, "Nothing wrong at all");
        return Map.copyOf(all);
    }

    /** By kind of device, where most minutes are lost first. */
    public List<Part> byKind() {
        return parts(p -> List.of(p.kind()));
    }

    /** By the place of the way where the cause was, where most minutes are lost first. */
    public List<Part> byPlace() {
        return parts(p -> placesOf(p.causes()));
    }

    private static List<String> placesOf(List<Fault> causes) {
        return causes.stream().map(PLACES::get).distinct().toList();
    }

    private List<Part> parts(Function<Played, List<String>> of) {
        var cases = new LinkedHashMap<String, List<Played>>();
        for (var p : played)
            for (var key : of.apply(p))
                cases.computeIfAbsent(key, k -> new ArrayList<>()).add(p);
        return cases.entrySet().stream()
                .map(e -> new Part(e.getKey(), e.getValue().size(), score(e.getValue()), lost(e.getValue())))
                .sorted(Comparator.comparingDouble(Part::lost).reversed().thenComparing(Part::of))
                .toList();
    }

    private static double score(List<Played> of) {
        return of.stream().limit(LATEST).mapToDouble(Played::score).average().orElse(0);
    }

    private static double lost(List<Played> of) {
        return of.stream().limit(LATEST).mapToDouble(Played::lost).average().orElse(0);
    }

    private List<Played> at(Level level) {
        return played.stream().filter(p -> p.level() == level).toList();
    }

    /** Whether somebody may be sent to what is so hard: the latest cases of that level were all found, and near the best. */
    public boolean ready(Level level) {
        var at = at(level);
        return at.size() >= LATEST && at.stream().limit(LATEST).allMatch(Played::solved) && score(at) >= WELL;
    }

    /** Whether it is time for harder ones. */
    private boolean goesWell(Level level) {
        return at(level).size() >= ENOUGH && score(at(level)) >= WELL;
    }

    /**
     * Returns which of some cases to play next: of the easiest level that does not go well yet one that was never played, or can go
     * better, where most minutes are lost; empty when all of them went well.
     */
    public Optional<Next> next(List<PracticeCase> cases) {
        for (var level : Level.values()) {
            if (goesWell(level) && level != Level.THIRD) continue;
            var at = of(cases.stream().filter(c -> c.hard() == level).toList());
            if (at.isPresent()) return at;
        }
        return of(cases);
    }

    private Optional<Next> of(List<PracticeCase> cases) {
        var kinds = lostBy(byKind());
        var places = lostBy(byPlace());
        var lately = played.stream().limit(BETWEEN).map(Played::caseId).toList();
        return cases.stream()
                .filter(c -> !lately.contains(c.id()) && best(c.id()) < WELL)
                .max(Comparator.comparing((PracticeCase c) -> best(c.id()) < 0)
                        .thenComparingDouble(c -> worth(c, kinds, places))
                        // Of several that are worth the same the first one.
                        .thenComparingInt(c -> -cases.indexOf(c)))
                .map(c -> new Next(c, why(c, kinds)));
    }

    /** The best score so far, below 0 when it was never played. */
    private double best(String caseId) {
        return played.stream()
                .filter(p -> p.caseId().equals(caseId))
                .mapToDouble(Played::score)
                .max()
                .orElse(-1);
    }

    private static Map<String, Part> lostBy(List<Part> parts) {
        var all = new LinkedHashMap<String, Part>();
        parts.stream().filter(p -> p.score() < WELL).forEach(p -> all.put(p.of(), p));
        return all;
    }

    private static double worth(PracticeCase c, Map<String, Part> kinds, Map<String, Part> places) {
        double place = placesOf(c.faults()).stream()
                .map(places::get)
                .flatMap(p -> Optional.ofNullable(p).stream())
                .mapToDouble(Part::lost)
                .max()
                .orElse(0);
        return place + Optional.ofNullable(kinds.get(c.kind())).map(Part::lost).orElse(0.0);
    }

    /** Says nothing of the cause: where minutes go is only named by the device, which the caller names too. */
    private String why(PracticeCase c, Map<String, Part> kinds) {
        double best = best(c.id());
        if (best >= 0) return best == 0 ? "You named something else the last times." : "It can go better.";
        if (kinds.containsKey(c.kind())) return "Minutes go at " + c.device().noun() + " cases.";
        return played.isEmpty() ? "An easy one to begin with." : "You have not played it yet.";
    }
}
