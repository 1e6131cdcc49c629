package app.knottag.core.visit;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.OptionalInt;
import java.util.Random;
import java.util.Set;

/** Visits drawn by seed: devices of made-up manners, few hands, places, hours, a bench, a line and a tool. */
final class Visits {

    private Visits() {}

    /** Stretches as devices have them: hands, alone, hands, alone ... in usual minutes. */
    private static final int[][] MANNERS = {
        {14, 55, 11, 2, 9, 0},
        {12, 0},
        {8, 4, 6, 3, 7, 0},
        {20, 2, 9, 0},
        {10, 25, 12, 0},
        {6, 90, 8, 0},
        {18, 12, 10, 0},
    };

    static Brief random(long seed, int units, int people) {
        var r = new Random(seed);
        var all = new ArrayList<VisitUnit>();
        int places = 2 + r.nextInt(3);
        for (int u = 0; u < units; u++) all.add(unit(r, u, places));
        var hands = new ArrayList<Hands>();
        for (int p = 0; p < people; p++)
            hands.add(new Hands("P" + p, p == 0 ? Set.of("electrician") : Set.of(), Window.ALWAYS, ""));
        var means = new Means(
                4 + r.nextInt(units), r.nextBoolean() ? 20 + r.nextInt(80) : 0, 1, Map.of("lead", 2), areas(seed), 25);
        return new Brief(all, hands, means, OptionalInt.empty());
    }

    /** Of four visits one is to two sites. */
    private static Map<String, String> areas(long seed) {
        return seed % 4 == 1 ? Map.of("place 1", "the other site") : Map.of();
    }

    private static VisitUnit unit(Random r, int u, int places) {
        int[] manner = MANNERS[r.nextInt(MANNERS.length)];
        boolean fetches = r.nextInt(4) == 0;
        var stretches = new ArrayList<Stretch>();
        for (int i = 0; i < manner.length; i += 2)
            stretches.add(new Stretch(
                    List.of("s" + i),
                    "stretch " + i / 2,
                    Minutes.about(manner[i]),
                    Minutes.about(manner[i + 1]),
                    r.nextInt(12) == 0 ? "electrician" : "",
                    fetches && manner[i + 1] > 20 ? 400 + r.nextInt(800) : 0));
        var free = r.nextInt(8) == 0 ? List.of(new Window(0, 2_000), new Window(2_100, 4_000)) : Window.ALWAYS;
        boolean bench = r.nextInt(3) == 0;
        return new VisitUnit(
                u + 1L,
                "unit " + (u + 1),
                bench ? "bench" : "place " + r.nextInt(places),
                stretches,
                0,
                free,
                u > 0 && r.nextInt(10) == 0 ? Set.of(1L) : Set.of(),
                bench,
                r.nextInt(6) == 0 ? "lead" : "",
                false,
                0);
    }

    /** Small enough that everything can be tried: at most six stretches, two people. */
    static Brief tiny(long seed) {
        var r = new Random(seed);
        int people = 1 + r.nextInt(2);
        var all = new ArrayList<VisitUnit>();
        int left = 6;
        while (left > 0 && all.size() < 4) {
            int count = Math.min(left, 1 + r.nextInt(3));
            left -= count;
            var stretches = new ArrayList<Stretch>();
            for (int i = 0; i < count; i++)
                stretches.add(new Stretch(
                        List.of("s" + i),
                        "s" + i,
                        Minutes.exactly(1 + r.nextInt(9)),
                        Minutes.exactly(r.nextInt(12)),
                        r.nextInt(5) == 0 ? "electrician" : "",
                        r.nextInt(4) == 0 ? 60 : 0));
            int from = r.nextInt(12);
            var free = r.nextInt(4) == 0
                    ? List.of(new Window(from, from + 14), new Window(from + 20, 900))
                    : Window.ALWAYS;
            int ready = r.nextInt(3) == 0 ? r.nextInt(6) : 0;
            all.add(new VisitUnit(
                    all.size() + 1L,
                    "u" + all.size(),
                    "place " + r.nextInt(2),
                    stretches,
                    ready,
                    free,
                    all.isEmpty() || r.nextInt(4) > 0 ? Set.of() : Set.of(1L),
                    r.nextBoolean(),
                    r.nextInt(3) == 0 ? "lead" : "",
                    false,
                    ready > 0 && r.nextBoolean() ? 1_500 : 0));
        }
        var hands = new ArrayList<Hands>();
        for (int p = 0; p < people; p++)
            hands.add(new Hands(
                    "P" + p,
                    p == 0 ? Set.of("electrician") : Set.of(),
                    r.nextInt(3) == 0 ? List.of(new Window(r.nextInt(5), 25), new Window(30, 900)) : Window.ALWAYS,
                    r.nextBoolean() ? "place 0" : ""));
        return new Brief(
                all,
                hands,
                new Means(1 + r.nextInt(2), r.nextBoolean() ? 2 : 0, r.nextInt(3), Map.of("lead", 1), areas(seed), 4),
                OptionalInt.empty());
    }

    /** Usual minutes when one device is done after the other, and everybody stands beside each restart. */
    static int oneAfterAnother(Brief brief) {
        return brief.units().stream().mapToInt(VisitUnit::chain).sum();
    }
}
