package app.knottag.core.reach;

import app.knottag.core.reach.Diagnosis.Made;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;

/**
 * Seeded cases of the diagnosis: small ones, on which every order of looks is tried, and whole ones against the ladder that
 * is climbed from the bottom up. Used by the tests and, through {@link #main}, by the measurements.
 */
final class DiagnosisBench {

    private static final CauseBook BOOK = CauseBook.shipped();
    private final Random random;

    DiagnosisBench(long seed) {
        random = new Random(seed);
    }

    /** Mean minutes until nothing can be told apart any more: by greatest gain, and by what it is compared with. */
    record Minutes(double greedy, double optimal) {}

    /** Causes of a small case with their weights, and the looks that may be made. */
    private record Small(List<Cause> causes, double[] weight, List<Look> looks, int[][] shows) {}

    private Small small() {
        var causes = new ArrayList<>(Arrays.asList(Cause.values()));
        var looks = new ArrayList<>(Arrays.asList(Look.values()));
        Collections.shuffle(causes, random);
        Collections.shuffle(looks, random);
        var some = List.copyOf(causes.subList(0, 6));
        var few = List.copyOf(looks.subList(0, 9));
        double[] weight = some.stream().mapToDouble(c -> BOOK.of(c).prior()).toArray();
        int[][] shows = new int[some.size()][few.size()];
        for (int i = 0; i < shows.length; i++)
            for (int j = 0; j < few.size(); j++)
                shows[i][j] = some.get(i).apply(DiagnosisTest.WHOLE).observe(few.get(j));
        return new Small(some, weight, few, shows);
    }

    Minutes smallCases(int rounds) {
        double greedy = 0, optimal = 0;
        for (int n = 0; n < rounds; n++) {
            var small = small();
            int all = (1 << small.causes().size()) - 1;
            greedy += greedy(small, all, 0);
            optimal += optimal(small, all, 0, new HashMap<>());
        }
        return new Minutes(greedy / rounds, optimal / rounds);
    }

    private static double mass(Small s, int alive) {
        double sum = 0;
        for (int i = 0; i < s.weight().length; i++) if ((alive >> i & 1) > 0) sum += s.weight()[i];
        return sum;
    }

    /** Splits the living causes by what a look shows; a single part means that it tells nothing. */
    private static List<Integer> parts(Small s, int alive, int look) {
        var parts = new HashMap<Integer, Integer>();
        for (int i = 0; i < s.causes().size(); i++)
            if ((alive >> i & 1) > 0) parts.merge(s.shows()[i][look], 1 << i, (a, b) -> a | b);
        return List.copyOf(parts.values());
    }

    /** Expected minutes, weighted by mass, under the best order of all. */
    private static double optimal(Small s, int alive, int used, Map<Integer, Double> known) {
        Double before = known.get(alive);
        if (before != null) return before;
        double best = Double.MAX_VALUE;
        for (int l = 0; l < s.looks().size(); l++) {
            var parts = parts(s, alive, l);
            if (parts.size() < 2) continue;
            double cost = mass(s, alive) * s.looks().get(l).minutes();
            for (int part : parts) cost += optimal(s, part, used, known);
            best = Math.min(best, cost);
        }
        double value = best == Double.MAX_VALUE ? 0 : best;
        known.put(alive, value);
        return value;
    }

    /** The same by the engine's own rule: the greatest gain for a minute. */
    private static double greedy(Small s, int alive, int used) {
        int best = -1;
        double rate = 0;
        for (int l = 0; l < s.looks().size(); l++) {
            double gain = 0;
            for (int part : parts(s, alive, l)) {
                double q = mass(s, part) / mass(s, alive);
                gain -= q * Math.log(q);
            }
            double r = Diagnosis.worth(gain / Math.log(2), s.looks().get(l).minutes());
            if (gain > 1e-9 && r > rate) {
                rate = r;
                best = l;
            }
        }
        if (best < 0) return 0;
        double cost = mass(s, alive) * s.looks().get(best).minutes();
        for (int part : parts(s, alive, best)) cost += greedy(s, part, used);
        return cost;
    }

    /** Against the ladder that is climbed rung by rung from power to the real job, until one cause is left. */
    Minutes againstLadder(int rounds) {
        var ladder = List.of(
                Look.POWER,
                Look.LINK,
                Look.SWITCH_LIGHT,
                Look.OTHER_SOCKET,
                Look.SOCKET,
                Look.ADDRESS_SHOWN,
                Look.FIELDS,
                Look.AFTER_RESTART,
                Look.RESTART_PING,
                Look.TRY_AUTOMATIC,
                Look.REGISTRY,
                Look.LEASES,
                Look.VANTAGE,
                Look.NEIGHBOUR,
                Look.PULL,
                Look.LABEL,
                Look.MODEL,
                Look.PING,
                Look.GATEWAY,
                Look.NAMES,
                Look.OUTSIDE,
                Look.OTHERS_OUTSIDE,
                Look.PORT,
                Look.SERIAL,
                Look.DEVICE_TEST,
                Look.PARTNER_TEST,
                Look.PAIR_NAME,
                Look.CLOCK,
                Look.REAL_JOB,
                Look.OTHER_LINE);
        double ours = 0, theirs = 0;
        for (int n = 0; n < rounds; n++) {
            var real = DiagnosisTest.drawn(random).apply(DiagnosisTest.WHOLE);
            ours += DiagnosisTest.isolate(DiagnosisTest.WHOLE, real, null, new ArrayList<>());
            var made = new ArrayList<Made>();
            for (var look : ladder) {
                if (Diagnosis.of(DiagnosisTest.WHOLE, BOOK, made).next().isEmpty()) break;
                theirs += look.minutes();
                made.add(DiagnosisTest.seen(look, real, null));
            }
        }
        return new Minutes(ours / rounds, theirs / rounds);
    }

    /** Prints what the measurements show, one line each. */
    public static void main(String[] words) {
        var small = new DiagnosisBench(1).smallCases(200);
        System.out.printf(
                "small cases: %.3f, best %.3f, ratio %.3f%n",
                small.greedy(), small.optimal(), small.greedy() / small.optimal());
        var ladder = new DiagnosisBench(2).againstLadder(500);
        System.out.printf("ladder: %.2f against %.2f minutes%n", ladder.greedy(), ladder.optimal());
        var random = new Random(3);
        int right = 0, rounds = 1000;
        for (int n = 0; n < rounds; n++) {
            var cause = DiagnosisTest.drawn(random);
            var made = new ArrayList<Made>();
            DiagnosisTest.isolate(DiagnosisTest.WHOLE, cause.apply(DiagnosisTest.WHOLE), random, made);
            var verdict = Diagnosis.of(DiagnosisTest.WHOLE, BOOK, made);
            int group = verdict.suspects().get(0).group();
            if (verdict.suspects().stream()
                    .anyMatch(s -> s.group() == group && s.causes().contains(cause))) right++;
        }
        System.out.printf("with 3%% misreadings: %.1f%% in the first group%n", 100.0 * right / rounds);
        var looks = List.of(new Made(Look.POWER, "off"), new Made(Look.LINK, "lit"), new Made(Look.SERIAL, "right"));
        for (int n = 0; n < 50; n++) Diagnosis.of(DiagnosisTest.WHOLE, BOOK, looks);
        long start = System.nanoTime();
        for (int n = 0; n < 50; n++) Diagnosis.of(DiagnosisTest.WHOLE, BOOK, looks);
        int pairs = Diagnosis.of(DiagnosisTest.WHOLE, BOOK, looks).suspects().size();
        System.out.printf("one step over %d causes: %.2f ms%n", pairs, (System.nanoTime() - start) / 50e6);
    }
}
