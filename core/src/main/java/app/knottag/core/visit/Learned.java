package app.knottag.core.visit;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** Minutes of hands as they really were, by kind and step; they count from the eighth on. */
public final class Learned {

    /** So many must be on record before they count. */
    public static final int LEAST = 8;

    /** Nothing is on record. */
    public static final Learned NOTHING = new Learned(List.of());

    /** Minutes that somebody stood beside one device at one step. */
    public record Seen(String kind, String step, int minutes) {}

    private record At(String kind, String step) {}

    private final Map<At, List<Integer>> seen = new HashMap<>();

    public Learned(List<Seen> all) {
        for (var s : all)
            seen.computeIfAbsent(new At(s.kind(), s.step()), a -> new ArrayList<>())
                    .add(s.minutes());
        seen.values().forEach(l -> l.sort(Comparator.naturalOrder()));
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

    /** The least value that so many of a hundred do not pass. */
    private static int at(List<Integer> sorted, int ofHundred) {
        return sorted.get((sorted.size() * ofHundred + 99) / 100 - 1);
    }
}
