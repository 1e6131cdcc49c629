package app.knottag.core.visit;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** Minutes of hands as they really were, by kind, model and step; they count from the eighth on. */
public final class Learned {

    /** So many must be on record before they count. */
    public static final int LEAST = 8;

    /** Nothing is on record. */
    public static final Learned NOTHING = new Learned(List.of());

    /**
     * Minutes that somebody stood beside one device at one step.
     *
     * @param model its model, or empty when nobody noted it
     */
    public record Seen(String kind, String model, String step, int minutes) {}

    private record At(String kind, String step) {}

    private final List<Seen> all;
    private final Map<At, List<Integer>> seen = new HashMap<>();

    public Learned(List<Seen> all) {
        this.all = List.copyOf(all);
        for (var s : all)
            seen.computeIfAbsent(new At(s.kind(), s.step()), a -> new ArrayList<>())
                    .add(s.minutes());
        seen.values().forEach(l -> l.sort(Comparator.naturalOrder()));
    }

    /** Returns the same as one model is known: where enough is on record of that model, others of its kind do not count. */
    public Learned of(String model) {
        if (model.isEmpty()) return this;
        var own = new Learned(all.stream().filter(s -> s.model().equals(model)).toList());
        return new Learned(all.stream()
                .filter(s -> s.model().equals(model) || own.count(s.kind(), s.step()) < LEAST)
                .toList());
    }

    /** Returns the least, the median and the most, or empty while too few are on record. */
    public Optional<Minutes> hands(String kind, String step) {
        return Optional.ofNullable(seen.get(new At(kind, step)))
                .filter(l -> l.size() >= LEAST)
                .map(l -> new Minutes(l.get(0), at(l, 50), at(l, 100)));
    }

    /** Returns what four of five did not pass, or empty while too few are on record. */
    public Optional<Integer> fourOfFive(String kind, String step) {
        return Optional.ofNullable(seen.get(new At(kind, step)))
                .filter(l -> l.size() >= LEAST)
                .map(l -> at(l, 80));
    }

    /** Returns how often a step is on record. */
    public int count(String kind, String step) {
        return seen.getOrDefault(new At(kind, step), List.of()).size();
    }

    /** Returns of how many steps of a kind enough is on record. */
    public int known(String kind, List<Stretch> stretches) {
        return (int) stretches.stream()
                .flatMap(s -> s.steps().stream())
                .filter(s -> count(kind, s) >= LEAST)
                .count();
    }

    /**
     * What an offer for the same steps should say: of each what four of five did not pass, or what was planned while too few
     * are on record.
     *
     * @param known of how many of them enough is on record
     */
    public record Offer(int minutes, int known, int steps) {}

    /** Returns the offer for steps, each with the minutes that were planned for it. */
    public Offer offer(List<Seen> planned) {
        return new Offer(
                planned.stream()
                        .mapToInt(p ->
                                of(p.model()).fourOfFive(p.kind(), p.step()).orElse(p.minutes()))
                        .sum(),
                (int) planned.stream()
                        .filter(p -> count(p.kind(), p.step()) >= LEAST)
                        .count(),
                planned.size());
    }

    /** The least value that so many of a hundred do not pass. */
    private static int at(List<Integer> sorted, int ofHundred) {
        return sorted.get((sorted.size() * ofHundred + 99) / 100 - 1);
    }
}
