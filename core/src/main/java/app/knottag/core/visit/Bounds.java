package app.knottag.core.visit;

import java.util.stream.IntStream;

/**
 * Minutes before which no plan ends, by sums alone: the longest device with whatever must be done before it, and the work of
 * all hands beside the least that follows it.
 */
final class Bounds {

    private Bounds() {}

    static int of(Works works) {
        int units = works.first.length - 1;
        var end = new int[units];
        int longest = 0;
        for (int round = 0; round < units; round++)
            for (int u = 0; u < units; u++) {
                int from = works.brief.units().get(u).ready();
                for (int other : works.after[u]) from = Math.max(from, end[other]);
                end[u] = from + chain(works, u);
                longest = Math.max(longest, end[u]);
            }
        return Math.max(longest, hands(works));
    }

    private static int chain(Works works, int u) {
        return IntStream.range(works.first[u], works.first[u + 1])
                .map(s -> works.hands[s] + works.alone[s])
                .sum();
    }

    /** The first stretch of all comes no earlier than something is ready; after the last, its device still runs alone. */
    private static int hands(Works works) {
        if (works.size() == 0) return 0;
        int sum = IntStream.of(works.hands).sum();
        int early = works.brief.units().stream()
                .filter(u -> !u.stretches().isEmpty())
                .mapToInt(VisitUnit::ready)
                .min()
                .orElse(0);
        int late = IntStream.range(0, works.first.length - 1)
                .filter(u -> works.first[u] < works.first[u + 1])
                .map(u -> works.alone[works.first[u + 1] - 1])
                .min()
                .orElse(0);
        return early + (sum + works.people() - 1) / works.people() + late;
    }
}
