package app.knottag.core.reach;

import app.knottag.core.reach.Diagnosis.Made;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.EnumMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;

/**
 * All hypotheses with their weights after what was seen: one for each way of each cause, for each pair when no cause alone
 * explains it, and one for whatever nobody thought of. What a hypothesis would show is followed only for the looks that matter.
 */
final class Search {

    private static final int UNKNOWN = -2;
    private static final int KEPT_MOST = 32;
    private static final Question[] LOOKS = Question.values();

    /** A pair that explains so much less than the best is not weighed to its end. */
    private static final double HOPELESS = 1e-6;

    /** Where nobody knows what it is and all else is well, so many looks show something odd all the same. */
    private static final double ODD_BESIDE = 0.05;

    /** Hypotheses are carried on until so little is left. */
    private static final double REST = 1e-4;

    /** One cause in one way, or two at once; what a look shows under it is followed when it is asked for, and kept. */
    private static final class Shown {
        private final List<Fault> faults;
        private final NetworkState state;
        private final int way;
        /** Whether it shows at the endpoint itself, and not only where somebody looks at the network. */
        private final boolean atEndpoint;

        private final int[] shows = new int[LOOKS.length];

        Shown(List<Fault> faults, NetworkState state, int way, boolean atEndpoint) {
            this.faults = faults;
            this.state = state;
            this.way = way;
            this.atEndpoint = atEndpoint;
            Arrays.fill(shows, UNKNOWN);
        }

        int at(Question question) {
            int known = shows[question.ordinal()];
            if (known != UNKNOWN) return known;
            int seen = state.possible(question) ? state.observe(question) : NetworkState.ANYTHING;
            shows[question.ordinal()] = seen;
            return seen;
        }
    }

    /** What single causes show is the same at every step of a search, so it is kept for the endpoints that were searched last. */
    private static final Map<NetworkState.Meant, List<Shown>> KEPT =
            Collections.synchronizedMap(new LinkedHashMap<>(KEPT_MOST, 0.75f, true) {
                @Override
                protected boolean removeEldestEntry(Map.Entry<NetworkState.Meant, List<Shown>> eldest) {
                    return size() > KEPT_MOST;
                }
            });

    private static List<Shown> singles(NetworkState intended) {
        return KEPT.computeIfAbsent(intended.meant(), m -> {
            var all = new ArrayList<Shown>();
            for (var fault : Fault.values())
                if (fault.showsAnywhere(intended)) {
                    boolean atEndpoint = fault.shows(intended);
                    var ways = fault.ways(intended);
                    for (int way = 0; way < ways.size(); way++)
                        all.add(new Shown(List.of(fault), ways.get(way), way, atEndpoint));
                }
            return List.copyOf(all);
        });
    }

    /** One hypothesis. */
    static final class Hypothesis {
        final List<Fault> faults;
        final double prior;
        private final Shown shown;
        double likelihood;
        double weight;

        private Hypothesis(Shown shown, double prior) {
            faults = shown.faults;
            this.prior = prior;
            this.shown = shown;
        }

        int shows(Question question) {
            return shown.at(question);
        }
    }

    private final FaultBook book;
    private final List<Made> made;
    private final Map<Question, double[][]> tables = new EnumMap<>(Question.class);
    private final Map<Question, double[]> nobodyThoughtOf = new EnumMap<>(Question.class);
    final List<Hypothesis> singles = new ArrayList<>();
    final List<Hypothesis> all = new ArrayList<>();
    double none;
    /** How likely all that was seen is, whatever the cause. */
    double evidence;

    private double odd;
    private double quiet;

    Search(NetworkState intended, FaultBook book, List<Made> made) {
        this(intended, book, made, true);
    }

    /** A search that weighs no two causes at once. */
    static Search ofSingles(NetworkState intended, FaultBook book, List<Made> made) {
        return new Search(intended, book, made, false);
    }

    private Search(NetworkState intended, FaultBook book, List<Made> made, boolean pairs) {
        this.book = book;
        this.made = made;
        var shown = singles(intended).stream()
                .filter(o -> o.atEndpoint || shownElsewhere(o))
                .toList();
        for (var one : shown) {
            var fault = one.faults.get(0);
            long ways = shown.stream().filter(o -> o.faults.get(0) == fault).count();
            // The first way is the one that is met most.
            singles.add(new Hypothesis(one, book.of(fault).prior() * (one.way == 0 ? 2 : 1) / (ways + 1)));
        }
        weigh(pairs);
    }

    /** Whether something odd that was seen of the network is what it shows, though it does not touch the endpoint. */
    private boolean shownElsewhere(Shown one) {
        return made.stream().anyMatch(m -> m.index() > 0 && one.at(m.question()) == m.index());
    }

    double[][] table(Question question) {
        return tables.computeIfAbsent(question, l -> book.misreading().table(l, 1));
    }

    private double likelihood(Hypothesis h, Made m, double[][] table) {
        int shows = h.shows(m.question());
        return shows == NetworkState.ANYTHING ? 1.0 / m.question().outcomes().size() : table[shows][m.index()];
    }

    /** Whether it explains all that was seen without any misreading. */
    boolean fits(Hypothesis h) {
        return made.stream()
                .allMatch(m -> h.shows(m.question()) == m.index() || h.shows(m.question()) == NetworkState.ANYTHING);
    }

    private void weigh(boolean pairs) {
        var read = made.stream()
                .map(m -> m.times(book) == 1
                        ? table(m.question())
                        : book.misreading().table(m.question(), m.times(book)))
                .toList();
        double priors = 0;
        for (var h : singles) priors += h.prior;
        double best = 0;
        for (var h : singles) {
            weigh(h, read, priors, 0);
            best = Math.max(best, h.weight);
        }
        all.addAll(singles);
        if (pairs && singles.stream().noneMatch(this::fits)) addPairs(read, priors, best);
        odd = book.noneOfThese() / 2;
        quiet = odd;
        for (int i = 0; i < made.size(); i++) {
            var question = made.get(i).question();
            odd *= spread(known(question), read.get(i))[made.get(i).index()];
            quiet *= spread(quietly(question), read.get(i))[made.get(i).index()];
        }
        none = odd + quiet;
        evidence = none;
        for (var h : all) evidence += h.weight;
        for (var h : all) h.weight /= evidence;
        none /= evidence;
        odd /= evidence;
        quiet /= evidence;
        all.sort((a, b) -> Double.compare(b.weight, a.weight));
    }

    private void weigh(Hypothesis h, List<double[][]> read, double priors, double hopeless) {
        double prior = (1 - book.noneOfThese()) * h.prior / priors;
        h.likelihood = 1;
        for (int i = 0; i < read.size() && prior * h.likelihood >= hopeless; i++)
            h.likelihood *= likelihood(h, made.get(i), read.get(i));
        h.weight = prior * h.likelihood;
    }

    private void addPairs(List<double[][]> read, double priors, double best) {
        for (int i = 0; i < singles.size(); i++)
            for (int j = i + 1; j < singles.size(); j++) {
                var a = singles.get(i);
                var b = singles.get(j);
                var one = a.faults.get(0);
                var two = b.faults.get(0);
                if (one == two || one == Fault.NOTHING || two == Fault.NOTHING) continue;
                double prior = a.prior * b.prior / priors;
                var h = new Hypothesis(
                        new Shown(List.of(one, two), two.apply(a.shown.state, b.shown.way), 0, true), prior);
                weigh(h, read, priors, best * HOPELESS);
                best = Math.max(best, h.weight);
                if (h.weight >= best * HOPELESS) all.add(h);
            }
    }

    /**
     * What somebody would see if it were none of these. Nobody knows what it would show: either each look shows what it does over
     * all that is known, apart from the others, or all is well but the job. So a look that finds all well does not speak against
     * it, and what nothing explains speaks for it.
     */
    double[] spread(Question question) {
        var table = table(question);
        var seen = spread(known(question), table);
        var well = spread(quietly(question), table);
        for (int o = 0; o < seen.length; o++) seen[o] = none == 0 ? seen[o] : (odd * seen[o] + quiet * well[o]) / none;
        return seen;
    }

    private static double[] spread(double[] truth, double[][] table) {
        var seen = new double[truth.length];
        for (int t = 0; t < truth.length; t++) for (int s = 0; s < seen.length; s++) seen[s] += truth[t] * table[t][s];
        return seen;
    }

    private double[] quietly(Question question) {
        if (question == Question.REAL_JOB) return known(question);
        var truth = known(question).clone();
        for (int t = 0; t < truth.length; t++) truth[t] *= ODD_BESIDE;
        truth[0] += 1 - ODD_BESIDE;
        return truth;
    }

    private double[] known(Question question) {
        return nobodyThoughtOf.computeIfAbsent(question, this::overAll);
    }

    private double[] overAll(Question question) {
        var truth = new double[question.outcomes().size()];
        double sum = 0;
        for (var h : singles) {
            if (h.faults.get(0) == Fault.NOTHING) continue;
            int shows = h.shows(question);
            for (int t = 0; t < truth.length; t++)
                if (shows == NetworkState.ANYTHING) truth[t] += h.prior / truth.length;
                else if (shows == t) truth[t] += h.prior;
            sum += h.prior;
        }
        for (int t = 0; t < truth.length; t++) truth[t] /= sum;
        return truth;
    }

    private List<Hypothesis> of(Fault fault) {
        return singles.stream().filter(h -> h.faults.get(0) == fault).toList();
    }

    /** Whether a cause can be one here at all. */
    boolean has(Fault fault) {
        return !of(fault).isEmpty();
    }

    /** Whether it explains, in one of its ways, all that was seen without any misreading. */
    boolean explains(Fault fault) {
        return of(fault).stream().anyMatch(this::fits);
    }

    /** How likely what was seen is under one cause, over its ways. */
    double likelihood(Fault fault) {
        double sum = 0, priors = 0;
        for (var h : of(fault)) {
            sum += h.prior * h.likelihood;
            priors += h.prior;
        }
        return sum / priors;
    }

    /** What a look would show: under one cause, or under all that is known of the device by itself. */
    double[] shown(Question question, Optional<Fault> under) {
        var table = table(question);
        var shown = new double[question.outcomes().size()];
        double sum = 0;
        for (var h : under.filter(this::has).map(this::of).orElse(singles)) {
            int truth = h.shows(question);
            for (int o = 0; o < shown.length; o++)
                shown[o] += h.weight * (truth == NetworkState.ANYTHING ? 1.0 / shown.length : table[truth][o]);
            sum += h.weight;
        }
        for (int o = 0; o < shown.length; o++) shown[o] = sum == 0 ? 1.0 / shown.length : shown[o] / sum;
        return shown;
    }

    /** The hypotheses that carry nearly all the weight, likeliest first. */
    List<Hypothesis> carrying() {
        double left = all.stream().collect(Collectors.summingDouble(h -> h.weight));
        var some = new ArrayList<Hypothesis>();
        for (var h : all) {
            if (left < REST && !some.isEmpty()) break;
            some.add(h);
            left -= h.weight;
        }
        return some;
    }
}
