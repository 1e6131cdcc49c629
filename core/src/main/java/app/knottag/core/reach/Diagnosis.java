package app.knottag.core.reach;

import app.knottag.core.reading.ReadingException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;

/**
 * What can be the cause when an endpoint does not reach its service, by Bayes' rule over all causes: prior times the
 * likelihood of every look that was made, with a small rate of misreading. When no single cause explains what was seen, two
 * at once are weighed as well. The next look is the one with the greatest expected gain in certainty for a minute.
 */
public final class Diagnosis {

    /** From this certainty on the cause is taken for found. */
    public static final double CERTAIN = 0.9;

    /** A look that gains less than this many bits is not worth anybody's time. */
    private static final double WORTHWHILE = 0.02;

    private static final double LN2 = Math.log(2);

    private Diagnosis() {}

    /** A look that was made. */
    public record Made(Look look, String outcome) {
        public Made {
            if (!look.outcomes().contains(outcome))
                throw new ReadingException(
                        "“" + outcome + "” is nothing that " + look + " can show; there are " + look.outcomes());
        }

        int index() {
            return look.outcomes().indexOf(outcome);
        }
    }

    /**
     * One cause, or two at once.
     *
     * @param probability 0..1; all of them and none of these sum to 1
     * @param group causes with the same number cannot be told apart by what was seen so far
     * @param explains looks whose unhoped-for outcome it explains
     * @param contradicts looks that speak against it
     */
    public record Suspect(
            List<Cause> causes,
            double probability,
            int group,
            String title,
            List<Look> explains,
            List<Look> contradicts,
            List<String> remedy,
            String call) {}

    /**
     * The look to make next.
     *
     * @param gain expected gain in bits
     */
    public record NextLook(Look look, double gain, double minutes) {}

    /**
     * Where the search stands.
     *
     * @param suspects most likely first
     * @param noneOfThese probability of something that nobody thought of
     * @param contradictory whether the looks contradict one another whatever the cause; then ask {@code doubtful} again
     * @param doubtful the looks that fit the likeliest cause least
     * @param found whether the first group is certain enough to act on
     * @param stop why to stop looking, in a sentence, or empty
     */
    public record Verdict(
            List<Suspect> suspects,
            double noneOfThese,
            boolean contradictory,
            List<Look> doubtful,
            Optional<NextLook> next,
            boolean found,
            String stop) {}

    /** One hypothesis with what every look would show under it. */
    private record Hypothesis(List<Cause> causes, double prior, int[] shows) {}

    /** Works out where the search stands after the looks that were made. */
    public static Verdict of(Scene intended, CauseBook book, List<Made> made) {
        return of(intended, book, made, Set.of());
    }

    /**
     * Works out where the search stands.
     *
     * @param passed looks that cannot be made here, and are not proposed
     */
    public static Verdict of(Scene intended, CauseBook book, List<Made> made, Set<Look> passed) {
        var hypotheses = singles(intended, book);
        double sum = hypotheses.stream().collect(Collectors.summingDouble(Hypothesis::prior));
        if (hypotheses.stream().noneMatch(h -> fits(h, made))) hypotheses = withPairs(intended, book, hypotheses, sum);
        return judge(intended, book, made, passed, hypotheses);
    }

    private static List<Hypothesis> singles(Scene intended, CauseBook book) {
        var all = new ArrayList<Hypothesis>();
        int[] fine = shows(intended);
        for (var cause : Cause.values()) {
            int[] shows = shows(cause.apply(intended));
            // What no look would ever show is no cause here, such as a partner's where there is no partner.
            if (!Arrays.equals(shows, fine))
                all.add(new Hypothesis(List.of(cause), book.of(cause).prior(), shows));
        }
        return all;
    }

    private static List<Hypothesis> withPairs(Scene intended, CauseBook book, List<Hypothesis> singles, double sum) {
        var all = new ArrayList<>(singles);
        for (int i = 0; i < singles.size(); i++)
            for (int j = i + 1; j < singles.size(); j++) {
                var a = singles.get(i).causes().get(0);
                var b = singles.get(j).causes().get(0);
                all.add(new Hypothesis(
                        List.of(a, b),
                        singles.get(i).prior() * singles.get(j).prior() / sum,
                        shows(b.apply(a.apply(intended)))));
            }
        return all;
    }

    private static int[] shows(Scene scene) {
        int[] shows = new int[Look.values().length];
        for (var look : Look.values())
            shows[look.ordinal()] = scene.possible(look) ? scene.observe(look) : Scene.ANYTHING;
        return shows;
    }

    private static boolean fits(Hypothesis h, List<Made> made) {
        return made.stream()
                .allMatch(m -> h.shows()[m.look().ordinal()] == m.index()
                        || h.shows()[m.look().ordinal()] == Scene.ANYTHING);
    }

    private static double likelihood(Look look, int predicted, int seen, CauseBook book) {
        if (predicted == Scene.ANYTHING) return 1.0 / look.outcomes().size();
        double misread = book.misreading().of(look);
        return predicted == seen ? 1 - misread : misread / (look.outcomes().size() - 1);
    }

    private static Verdict judge(
            Scene intended, CauseBook book, List<Made> made, Set<Look> passed, List<Hypothesis> hypotheses) {
        int n = hypotheses.size();
        double[] weight = new double[n];
        double priors = hypotheses.stream().collect(Collectors.summingDouble(Hypothesis::prior)), total = 0;
        for (int i = 0; i < n; i++) {
            var h = hypotheses.get(i);
            weight[i] = (1 - book.noneOfThese()) * h.prior() / priors;
            for (var m : made)
                weight[i] *= likelihood(m.look(), h.shows()[m.look().ordinal()], m.index(), book);
            total += weight[i];
        }
        // Something that nobody thought of may show anything.
        double none = book.noneOfThese();
        for (var m : made) none /= m.look().outcomes().size();
        total += none;
        for (int i = 0; i < n; i++) weight[i] /= total;
        none /= total;
        int[] group = groups(hypotheses, made);
        var next = next(intended, book, made, passed, hypotheses, weight);
        var suspects = suspects(hypotheses, weight, group, made, book);
        double best = suspects.isEmpty() ? 0 : ofGroup(suspects, suspects.get(0).group());
        boolean contradictory = !made.isEmpty() && hypotheses.stream().noneMatch(h -> fits(h, made));
        boolean found = best >= CERTAIN && (next.isEmpty() || separable(hypotheses, weight, group) == 0);
        return new Verdict(
                suspects,
                none,
                contradictory,
                contradictory && !suspects.isEmpty() ? suspects.get(0).contradicts() : List.of(),
                found ? Optional.empty() : next,
                found,
                stop(suspects, next, found));
    }

    /** Numbers hypotheses by what they would show at the looks that were made. */
    private static int[] groups(List<Hypothesis> hypotheses, List<Made> made) {
        var numbers = new HashMap<List<Integer>, Integer>();
        int[] group = new int[hypotheses.size()];
        for (int i = 0; i < group.length; i++) {
            int[] shows = hypotheses.get(i).shows();
            var key = made.stream().map(m -> shows[m.look().ordinal()]).toList();
            group[i] = numbers.computeIfAbsent(key, k -> numbers.size());
        }
        return group;
    }

    /** Share of the first group that some look could still tell apart from its likeliest member. */
    private static double separable(List<Hypothesis> hypotheses, double[] weight, int[] group) {
        int best = 0;
        for (int i = 1; i < weight.length; i++) if (weight[i] > weight[best]) best = i;
        double apart = 0;
        for (int i = 0; i < weight.length; i++)
            if (!Arrays.equals(hypotheses.get(i).shows(), hypotheses.get(best).shows())) apart += weight[i];
        return apart <= 1 - CERTAIN ? 0 : apart;
    }

    private static double ofGroup(List<Suspect> suspects, int group) {
        return suspects.stream()
                .filter(s -> s.group() == group)
                .collect(Collectors.summingDouble(Suspect::probability));
    }

    private static List<Suspect> suspects(
            List<Hypothesis> hypotheses, double[] weight, int[] group, List<Made> made, CauseBook book) {
        var all = new ArrayList<Suspect>();
        for (int i = 0; i < weight.length; i++) {
            var h = hypotheses.get(i);
            var explains = new ArrayList<Look>();
            var contradicts = new ArrayList<Look>();
            for (var m : made) {
                int shows = h.shows()[m.look().ordinal()];
                if (shows == m.index() && m.index() != 0) explains.add(m.look());
                if (shows != m.index() && shows != Scene.ANYTHING) contradicts.add(m.look());
            }
            var remedy = new ArrayList<String>();
            h.causes().forEach(c -> remedy.addAll(book.of(c).remedy()));
            all.add(new Suspect(
                    h.causes(),
                    weight[i],
                    group[i],
                    String.join(
                            ", and: ",
                            h.causes().stream().map(c -> book.of(c).title()).toList()),
                    explains,
                    contradicts,
                    remedy,
                    h.causes().stream()
                            .map(c -> book.of(c).call())
                            .filter(c -> !c.isEmpty())
                            .findFirst()
                            .orElse("")));
        }
        all.sort(Comparator.comparingDouble(Suspect::probability).reversed());
        return List.copyOf(all);
    }

    /** The look with the greatest expected gain for a minute, over what some look could tell apart at all. */
    private static Optional<NextLook> next(
            Scene intended,
            CauseBook book,
            List<Made> made,
            Set<Look> passed,
            List<Hypothesis> hypotheses,
            double[] weight) {
        var apart = new LinkedHashMap<List<Integer>, Double>();
        for (int i = 0; i < weight.length; i++)
            apart.merge(Arrays.stream(hypotheses.get(i).shows()).boxed().toList(), weight[i], Double::sum);
        var shows = new ArrayList<>(apart.keySet());
        var p = List.copyOf(apart.values());
        NextLook best = null;
        for (var look : Look.values()) {
            if (!intended.possible(look)
                    || passed.contains(look)
                    || made.stream().anyMatch(m -> m.look() == look)) continue;
            double gain = gain(look, shows, p, book);
            if (gain < WORTHWHILE) continue;
            if (best == null || worth(gain, look.minutes()) > worth(best.gain(), best.minutes()))
                best = new NextLook(look, gain, look.minutes());
        }
        return Optional.ofNullable(best);
    }

    /** What a look is worth: bits for a minute. */
    static double worth(double gain, double minutes) {
        return gain / minutes;
    }

    /** Mutual information of the look's outcome and the cause, in bits. */
    private static double gain(Look look, List<List<Integer>> shows, List<Double> p, CauseBook book) {
        int k = look.outcomes().size();
        double misread = book.misreading().of(look);
        double[] outcome = new double[k];
        double sum = 0;
        double misreadEntropy = -term(1 - misread) - (k - 1) * term(misread / (k - 1)), noise = 0;
        for (int i = 0; i < p.size(); i++) {
            int shown = shows.get(i).get(look.ordinal());
            double share = p.get(i);
            sum += share;
            noise += share * (shown == Scene.ANYTHING ? Math.log(k) / LN2 : misreadEntropy);
            for (int o = 0; o < k; o++)
                outcome[o] +=
                        share * (shown == Scene.ANYTHING ? 1.0 / k : shown == o ? 1 - misread : misread / (k - 1));
        }
        if (sum <= 0) return 0;
        double entropy = 0;
        for (double q : outcome) entropy -= term(q / sum);
        noise /= sum;
        return Math.max(0, entropy - noise);
    }

    private static double term(double q) {
        return q <= 0 ? 0 : q * Math.log(q) / LN2;
    }

    private static String stop(List<Suspect> suspects, Optional<NextLook> next, boolean found) {
        if (suspects.isEmpty()) return "Nothing that is known can be the cause. Call a colleague.";
        var first = suspects.get(0);
        if (found && !first.call().isEmpty())
            return "Stop here and call " + first.call() + ": " + first.title().toLowerCase(Locale.ROOT) + ".";
        if (found) return "";
        return next.isEmpty()
                ? "No further look tells these apart. Try their remedies in this order, or call"
                        + (first.call().isEmpty() ? " a colleague." : " " + first.call() + ".")
                : "";
    }
}
