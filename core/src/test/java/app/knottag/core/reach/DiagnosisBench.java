package app.knottag.core.reach;

import app.knottag.core.reach.Diagnosis.Made;
import app.knottag.core.reach.Diagnosis.Verdict;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.stream.Collectors;

/**
 * Seeded cases of the diagnosis: small ones, on which every order of looks is tried, and whole ones against the ladder that
 * is climbed from the bottom up. Used by the tests and, through {@link #main}, by the measurements.
 */
final class DiagnosisBench {

    private static final FaultBook BOOK = FaultBook.shipped();
    static final NetworkState WHOLE = NetworkState.intended(new NetworkState.Traits(true, true, true, true));
    private final Random random;

    DiagnosisBench(long seed) {
        random = new Random(seed);
    }

    /** Mean minutes until nothing can be told apart any more: by greatest gain, and by what it is compared with. */
    record Minutes(double greedy, double optimal) {}

    /** Looks as the diagnosis asks for them until it has found something; returns the minutes it took. */
    static double isolate(NetworkState intended, NetworkState real, Random noise, List<Made> made) {
        double minutes = 0;
        var passed = EnumSet.noneOf(Question.class);
        Verdict verdict = Diagnosis.of(intended, BOOK, made);
        while (verdict.next().isPresent()) {
            var question = verdict.next().get().question();
            minutes += question.minutes();
            // Nobody looks for a light where there is no plug.
            if (question.by() == Question.By.EYES && real.observe(question) == NetworkState.ANYTHING)
                passed.add(question);
            else made.add(seen(question, real, noise));
            verdict = Diagnosis.of(intended, BOOK, made, passed);
        }
        return minutes;
    }

    static Made seen(Question question, NetworkState real, Random noise) {
        int seen = real.observe(question) == NetworkState.ANYTHING ? 1 : real.observe(question);
        if (noise != null) {
            double[] row = BOOK.misreading().table(question, 1)[seen];
            double at = noise.nextDouble();
            for (int o = 0; o < row.length; o++)
                if ((at -= row[o]) <= 0) {
                    seen = o;
                    break;
                }
        }
        return new Made(question, question.outcomes().get(seen));
    }

    /** Draws a cause by its prior. */
    static Fault drawn(Random random) {
        double sum = Arrays.stream(Fault.values())
                .collect(Collectors.summingDouble(c -> BOOK.of(c).prior()));
        double at = random.nextDouble() * sum;
        for (var fault : Fault.values()) if ((at -= BOOK.of(fault).prior()) <= 0) return fault;
        return Fault.NO_POWER;
    }

    /** Causes of a small case with their weights, and the looks that may be made. */
    private record Small(List<Fault> faults, double[] weight, List<Question> questions, int[][] shows) {}

    private Small small() {
        var faults = new ArrayList<>(Arrays.asList(Fault.values()));
        var questions = new ArrayList<>(Arrays.asList(Question.values()));
        Collections.shuffle(faults, random);
        Collections.shuffle(questions, random);
        var some = List.copyOf(faults.subList(0, 6));
        var few = List.copyOf(questions.subList(0, 9));
        double[] weight = new double[some.size()];
        for (int i = 0; i < weight.length; i++) weight[i] = BOOK.of(some.get(i)).prior();
        int[][] shows = new int[some.size()][few.size()];
        for (int i = 0; i < shows.length; i++)
            for (int j = 0; j < few.size(); j++)
                shows[i][j] = some.get(i).apply(WHOLE).observe(few.get(j));
        return new Small(some, weight, few, shows);
    }

    Minutes smallCases(int rounds) {
        double greedy = 0, optimal = 0;
        for (int n = 0; n < rounds; n++) {
            var small = small();
            int all = (1 << small.faults().size()) - 1;
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
    private static List<Integer> parts(Small s, int alive, int question) {
        var parts = new HashMap<Integer, Integer>();
        for (int i = 0; i < s.faults().size(); i++)
            if ((alive >> i & 1) > 0) parts.merge(s.shows()[i][question], 1 << i, (a, b) -> a | b);
        return List.copyOf(parts.values());
    }

    /** Expected minutes, weighted by mass, under the best order of all. */
    private static double optimal(Small s, int alive, int used, Map<Integer, Double> known) {
        Double before = known.get(alive);
        if (before != null) return before;
        double best = Double.MAX_VALUE;
        for (int l = 0; l < s.questions().size(); l++) {
            var parts = parts(s, alive, l);
            if (parts.size() < 2) continue;
            double cost = mass(s, alive) * s.questions().get(l).minutes();
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
        for (int l = 0; l < s.questions().size(); l++) {
            double gain = 0;
            for (int part : parts(s, alive, l)) {
                double q = mass(s, part) / mass(s, alive);
                gain -= q * Math.log(q);
            }
            double r = Diagnosis.worth(gain / Math.log(2), s.questions().get(l).minutes());
            if (gain > 1e-9 && r > rate) {
                rate = r;
                best = l;
            }
        }
        if (best < 0) return 0;
        double cost = mass(s, alive) * s.questions().get(best).minutes();
        for (int part : parts(s, alive, best)) cost += greedy(s, part, used);
        return cost;
    }

    /** Against the ladder that is climbed rung by rung from power to the real job, until one cause is left. */
    Minutes againstLadder(int rounds) {
        var ladder = List.of(
                Question.POWER,
                Question.LINK,
                Question.SWITCH_LIGHT,
                Question.OTHER_SOCKET,
                Question.SOCKET,
                Question.ADDRESS_SHOWN,
                Question.FIELDS,
                Question.AFTER_RESTART,
                Question.RESTART_PING,
                Question.TRY_AUTOMATIC,
                Question.REGISTRY,
                Question.LEASES,
                Question.VANTAGE,
                Question.NEIGHBOUR,
                Question.PULL,
                Question.LABEL,
                Question.MODEL,
                Question.PING,
                Question.GATEWAY,
                Question.NAMES,
                Question.OUTSIDE,
                Question.OTHERS_OUTSIDE,
                Question.PORT,
                Question.SERIAL,
                Question.DEVICE_TEST,
                Question.PARTNER_TEST,
                Question.PAIR_NAME,
                Question.CLOCK,
                Question.REAL_JOB,
                Question.OTHER_LINE);
        double ours = 0, theirs = 0;
        for (int n = 0; n < rounds; n++) {
            var real = drawn(random).apply(WHOLE);
            ours += isolate(WHOLE, real, null, new ArrayList<>());
            var made = new ArrayList<Made>();
            for (var question : ladder) {
                if (Diagnosis.of(WHOLE, BOOK, made).next().isEmpty()) break;
                theirs += question.minutes();
                made.add(seen(question, real, null));
            }
        }
        return new Minutes(ours / rounds, theirs / rounds);
    }

    /** Share of cases, read with mistakes, in which the true cause is in the first group. */
    double found(int rounds) {
        int right = 0;
        for (int n = 0; n < rounds; n++) {
            var fault = drawn(random);
            var made = new ArrayList<Made>();
            isolate(WHOLE, fault.apply(WHOLE), random, made);
            var verdict = Diagnosis.of(WHOLE, BOOK, made);
            int group = verdict.suspects().get(0).group();
            if (verdict.suspects().stream()
                    .anyMatch(s -> s.group() == group && s.faults().contains(fault))) right++;
        }
        return right / (double) rounds;
    }

    /** Prints what the measurements show, one row each. */
    public static void main(String[] words) {
        String row = "| %-38s | %12s | %-20s | %s |%n";
        var small = new DiagnosisBench(1).smallCases(200);
        System.out.printf(
                row,
                "diagnosis against the best order",
                "%.3f times".formatted(small.greedy() / small.optimal()),
                "wanted <  1.10 times",
                "mean minutes, 200 small cases on which every order is tried");
        var ladder = new DiagnosisBench(2).againstLadder(500);
        System.out.printf(
                row,
                "diagnosis against the ladder",
                "%.2f min".formatted(ladder.greedy()),
                "ladder %9.2f min".formatted(ladder.optimal()),
                "mean until one cause is left, 500 drawn by their priors");
        System.out.printf(
                row,
                "cause found, 3 % misread by eye",
                "%.1f %%".formatted(100 * new DiagnosisBench(3).found(1000)),
                "exact posterior",
                "true cause in the first group; the engine is the exact posterior, so nothing is lost to it");
        var questions = List.of(
                new Made(Question.POWER, Outcome.OFF),
                new Made(Question.LINK, Outcome.LIT),
                new Made(Question.SERIAL, Outcome.RIGHT));
        for (int n = 0; n < 50; n++) Diagnosis.of(WHOLE, BOOK, questions);
        long start = System.nanoTime();
        for (int n = 0; n < 50; n++) Diagnosis.of(WHOLE, BOOK, questions);
        System.out.printf(
                row,
                "one step of the diagnosis",
                "%.2f ms".formatted((System.nanoTime() - start) / 50e6),
                "wanted <       20 ms",
                Diagnosis.of(WHOLE, BOOK, questions).suspects().size() + " causes, pairs among them");
        var field = FieldCases.all();
        for (var group : List.of("single", "field", "misread", "double", "outside"))
            System.out.printf(
                    row,
                    "cases of the field, " + group,
                    "%.1f %%".formatted(100 * FieldCases.right(field, group)),
                    "wanted " + FieldCases.WANTED.get(group),
                    FieldCases.SAID.get(group));
        System.out.printf(
                row,
                "cases of the field, wrongly found",
                "%d of %d"
                        .formatted(
                                field.stream()
                                        .filter(FieldCases.Case::foundWrongly)
                                        .count(),
                                field.size()),
                "wanted under 1 %",
                "called found, and it was something else");
        System.out.printf(
                row,
                "a shared cause over 30 devices, new",
                "%.1f ms".formatted(ofThirty(5)),
                "wanted <      100 ms",
                "none of them was searched before");
        System.out.printf(
                row,
                "a shared cause over 30 devices, again",
                "%.1f ms".formatted(ofThirty(0)),
                "",
                "as it is after every answer");
    }

    /** Milliseconds for a case of thirty, a dozen of them silent on one switch; each count other devices, of which nothing is kept. */
    private static double ofThirty(int others) {
        CommonCause.of(thirty(0), BOOK);
        long start = System.nanoTime();
        int times = Math.max(1, others);
        for (int n = 1; n <= times; n++) CommonCause.of(thirty(others == 0 ? 0 : n), BOOK);
        return (System.nanoTime() - start) / 1e6 / times;
    }

    private static List<CommonCause.Member> thirty(int run) {
        var members = new ArrayList<CommonCause.Member>();
        for (int i = 0; i < 30; i++) {
            var usual = NetworkState.Layout.USUAL;
            var scene = NetworkState.intended(
                    new NetworkState.Traits(run % 2 == 0, true, true, true),
                    new NetworkState.Layout(
                            usual.prefix(),
                            usual.gateway(),
                            usual.endpoint().plus(i),
                            usual.pools(),
                            usual.partner(),
                            usual.resolver(),
                            Optional.of(usual.endpoint().plus(150 + run)),
                            false));
            boolean silent = i < 12;
            var made = List.of(
                    new Made(Question.GATEWAY, Outcome.ANSWERS),
                    new Made(Question.NEIGHBOUR, silent ? Outcome.NOBODY : Outcome.RIGHT),
                    new Made(Question.PING, silent ? Outcome.SILENT : Outcome.ANSWERS),
                    new Made(Question.PORT, silent ? Outcome.SILENT : Outcome.OPEN),
                    new Made(Question.SERIAL, silent ? Outcome.NONE : Outcome.RIGHT));
            members.add(new CommonCause.Member(
                    "Till " + i,
                    scene,
                    made,
                    Set.of(
                            new CommonCause.Common(FaultBook.Shared.SITE, ""),
                            new CommonCause.Common(
                                    FaultBook.Shared.SWITCH, silent ? "Shop switch" : "Office switch"))));
        }
        return members;
    }
}
