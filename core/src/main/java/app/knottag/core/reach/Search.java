package app.knottag.core.reach;

import app.knottag.core.reach.Diagnosis.Made;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.EnumMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;

/**
 * All hypotheses with their weights after what was seen: one for each way of each cause, for each pair when no cause alone
 * explains it, and one for whatever nobody thought of. What a hypothesis would show is followed only for the looks that matter.
 */
final class Search {

    private static final int UNKNOWN = -2;
    private static final int KEPT_MOST = 32;
    private static final Look[] LOOKS = Look.values();

    /** A pair that explains so much less than the best is not weighed to its end. */
    private static final double HOPELESS = 1e-6;

    /** Hypotheses are carried on until so little is left. */
    private static final double REST = 1e-4;

    /** One cause in one way, or two at once; what a look shows under it is followed when it is asked for, and kept. */
    private static final class Shown {
        private final List<Cause> causes;
        private final NetworkState state;
        private final int way;
        private final int[] shows = new int[LOOKS.length];

        Shown(List<Cause> causes, NetworkState state, int way) {
            this.causes = causes;
            this.state = state;
            this.way = way;
            Arrays.fill(shows, UNKNOWN);
        }

        int at(Look look) {
            int known = shows[look.ordinal()];
            if (known != UNKNOWN) return known;
            int seen = state.possible(look) ? state.observe(look) : NetworkState.ANYTHING;
            shows[look.ordinal()] = seen;
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
            for (var cause : Cause.values())
                if (cause.shows(intended)) {
                    var ways = cause.ways(intended);
                    for (int way = 0; way < ways.size(); way++) all.add(new Shown(List.of(cause), ways.get(way), way));
                }
            return List.copyOf(all);
        });
    }

    /** One hypothesis. */
    static final class Hypothesis {
        final List<Cause> causes;
        final double prior;
        private final Shown shown;
        double weight;

        private Hypothesis(Shown shown, double prior) {
            causes = shown.causes;
            this.prior = prior;
            this.shown = shown;
        }

        int shows(Look look) {
            return shown.at(look);
        }
    }

    private final CauseBook book;
    private final List<Made> made;
    private final Map<Look, double[][]> tables = new EnumMap<>(Look.class);
    private final Map<Look, double[]> nobodyThoughtOf = new EnumMap<>(Look.class);
    final List<Hypothesis> singles = new ArrayList<>();
    final List<Hypothesis> all = new ArrayList<>();
    double none;
    private double odd;
    private double quiet;

    Search(NetworkState intended, CauseBook book, List<Made> made) {
        this.book = book;
        this.made = made;
        var shown = singles(intended);
        for (var one : shown) {
            var cause = one.causes.get(0);
            long ways = shown.stream().filter(o -> o.causes.get(0) == cause).count();
            singles.add(new Hypothesis(one, book.of(cause).prior() / ways));
        }
        weigh();
    }

    double[][] table(Look look) {
        return tables.computeIfAbsent(look, l -> book.misreading().table(l, 1));
    }

    private double likelihood(Hypothesis h, Made m, double[][] table) {
        int shows = h.shows(m.look());
        return shows == NetworkState.ANYTHING ? 1.0 / m.look().outcomes().size() : table[shows][m.index()];
    }

    /** Whether it explains all that was seen without any misreading. */
    boolean fits(Hypothesis h) {
        return made.stream()
                .allMatch(m -> h.shows(m.look()) == m.index() || h.shows(m.look()) == NetworkState.ANYTHING);
    }

    private void weigh() {
        var read = made.stream()
                .map(m ->
                        m.times(book) == 1 ? table(m.look()) : book.misreading().table(m.look(), m.times(book)))
                .toList();
        double priors = 0;
        for (var h : singles) priors += h.prior;
        double best = 0;
        for (var h : singles) {
            weigh(h, read, priors, 0);
            best = Math.max(best, h.weight);
        }
        all.addAll(singles);
        if (singles.stream().noneMatch(this::fits)) addPairs(read, priors, best);
        odd = book.noneOfThese() / 2;
        quiet = odd;
        for (int i = 0; i < made.size(); i++) {
            var look = made.get(i).look();
            odd *= spread(known(look), read.get(i))[made.get(i).index()];
            quiet *= spread(quietly(look), read.get(i))[made.get(i).index()];
        }
        none = odd + quiet;
        double total = none;
        for (var h : all) total += h.weight;
        for (var h : all) h.weight /= total;
        none /= total;
        odd /= total;
        quiet /= total;
        all.sort((a, b) -> Double.compare(b.weight, a.weight));
    }

    private void weigh(Hypothesis h, List<double[][]> read, double priors, double hopeless) {
        h.weight = (1 - book.noneOfThese()) * h.prior / priors;
        for (int i = 0; i < read.size() && h.weight >= hopeless; i++)
            h.weight *= likelihood(h, made.get(i), read.get(i));
    }

    private void addPairs(List<double[][]> read, double priors, double best) {
        for (int i = 0; i < singles.size(); i++)
            for (int j = i + 1; j < singles.size(); j++) {
                var a = singles.get(i);
                var b = singles.get(j);
                var one = a.causes.get(0);
                var two = b.causes.get(0);
                if (one == two || one == Cause.NOTHING || two == Cause.NOTHING) continue;
                double prior = a.prior * b.prior / priors;
                var h = new Hypothesis(new Shown(List.of(one, two), two.apply(a.shown.state, b.shown.way), 0), prior);
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
    double[] spread(Look look) {
        var table = table(look);
        var seen = spread(known(look), table);
        var well = spread(quietly(look), table);
        for (int o = 0; o < seen.length; o++) seen[o] = none == 0 ? seen[o] : (odd * seen[o] + quiet * well[o]) / none;
        return seen;
    }

    private static double[] spread(double[] truth, double[][] table) {
        var seen = new double[truth.length];
        for (int t = 0; t < truth.length; t++) for (int s = 0; s < seen.length; s++) seen[s] += truth[t] * table[t][s];
        return seen;
    }

    private double[] quietly(Look look) {
        if (look == Look.REAL_JOB) return known(look);
        var truth = new double[look.outcomes().size()];
        truth[0] = 1;
        return truth;
    }

    private double[] known(Look look) {
        return nobodyThoughtOf.computeIfAbsent(look, this::overAll);
    }

    private double[] overAll(Look look) {
        var truth = new double[look.outcomes().size()];
        double sum = 0;
        for (var h : singles) {
            if (h.causes.get(0) == Cause.NOTHING) continue;
            int shows = h.shows(look);
            for (int t = 0; t < truth.length; t++)
                if (shows == NetworkState.ANYTHING) truth[t] += h.prior / truth.length;
                else if (shows == t) truth[t] += h.prior;
            sum += h.prior;
        }
        for (int t = 0; t < truth.length; t++) truth[t] /= sum;
        return truth;
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
