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
    static final double WORTHWHILE = 0.02;

    private static final double LN2 = Math.log(2);

    private Diagnosis() {}

    /**
     * A look that was made.
     *
     * @param how how one knows it, which says how often it is misread
     */
    public record Made(Question question, Outcome outcome, Evidence how) {
        public Made {
            if (!question.outcomes().contains(outcome))
                throw new ReadingException("“" + outcome + "” is nothing that " + question + " can show; there are "
                        + question.outcomes());
        }

        /** A look as it is usually made: measured by a machine, or seen by somebody who stands there. */
        public Made(Question question, Outcome outcome) {
            this(question, outcome, question.by() == Question.By.MACHINE ? Evidence.TOOL : Evidence.SEEN);
        }

        int index() {
            return question.outcomes().indexOf(outcome);
        }

        /** Returns how many times as often as usual it is misread. */
        double times(FaultBook book) {
            return switch (how) {
                case SPOKEN -> book.misreading().told();
                case PHOTO, READ_BACK -> book.misreading().shown();
                case SEEN, TOOL -> 1;
            };
        }

        Answer answer() {
            return new Answer(question, outcome);
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
            List<Fault> faults,
            double probability,
            int group,
            String title,
            List<Question> explains,
            List<Question> contradicts,
            List<String> remedy,
            String call) {}

    /**
     * The look to make next.
     *
     * @param gain expected gain in bits
     */
    public record NextQuestion(Question question, double gain, double minutes) {}

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
            List<Question> doubtful,
            Optional<NextQuestion> next,
            boolean found,
            String stop) {}

    /** Works out where the search stands after the looks that were made. */
    public static Verdict of(NetworkState intended, FaultBook book, List<Made> made) {
        return of(intended, book, made, Set.of());
    }

    /**
     * Works out where the search stands.
     *
     * @param made in the order in which they were made; of the same look the last one counts
     * @param passed looks that cannot be made here, and are not proposed
     */
    public static Verdict of(NetworkState intended, FaultBook book, List<Made> made, Set<Question> passed) {
        var latest = new LinkedHashMap<Question, Made>();
        for (var m : made) latest.put(m.question(), m);
        return new Diagnosis.Step(intended, book, List.copyOf(latest.values()), passed).verdict();
    }

    /** One step of a search. */
    private static final class Step {
        private final NetworkState intended;
        private final FaultBook book;
        private final List<Made> made;
        private final Search search;
        private final List<Question> left;

        Step(NetworkState intended, FaultBook book, List<Made> made, Set<Question> passed) {
            this.intended = intended;
            this.book = book;
            this.made = made;
            search = new Search(intended, book, made);
            var pointless = made.stream()
                    .flatMap(m -> book.pointless().getOrDefault(m.answer(), List.of()).stream())
                    .collect(Collectors.toSet());
            left = Arrays.stream(Question.values())
                    .filter(intended::possible)
                    .filter(l -> !passed.contains(l) && !pointless.contains(l))
                    .filter(l -> made.stream().noneMatch(m -> m.question() == l))
                    .toList();
        }

        Verdict verdict() {
            var suspects = suspects();
            var first = suspects.get(0);
            double group = suspects.stream()
                    .filter(s -> s.group() == first.group())
                    .collect(Collectors.summingDouble(Suspect::probability));
            var gainful = gainful();
            boolean certain = first.probability() >= CERTAIN;
            var direct = certain ? direct(first) : Optional.<NextQuestion>empty();
            var next =
                    direct.isPresent() ? direct : certain && proved(first) ? Optional.<NextQuestion>empty() : gainful;
            boolean found = next.isEmpty() && Math.max(group, first.probability()) >= CERTAIN;
            boolean contradictory = !made.isEmpty() && search.all.stream().noneMatch(search::fits);
            return new Verdict(
                    suspects,
                    search.none,
                    contradictory,
                    contradictory ? first.contradicts() : List.of(),
                    next,
                    found,
                    stop(first, next.isPresent(), found));
        }

        private boolean proved(Suspect s) {
            return s.faults().stream().allMatch(this::proved);
        }

        private boolean proved(Fault fault) {
            var direct = book.of(fault).direct();
            return direct.isEmpty() || made.stream().anyMatch(m -> direct.contains(m.answer()));
        }

        /** The look that proves what is nearly certain, while it was not made yet. */
        private Optional<NextQuestion> direct(Suspect s) {
            return s.faults().stream()
                    .filter(c -> !proved(c))
                    .flatMap(c -> book.of(c).direct().stream())
                    .map(Answer::question)
                    .filter(left::contains)
                    .findFirst()
                    .map(l -> new NextQuestion(l, gain(l, search.carrying()), l.minutes()));
        }

        private List<Suspect> suspects() {
            var best = new LinkedHashMap<List<Fault>, Search.Hypothesis>();
            var weight = new HashMap<List<Fault>, Double>();
            for (var h : search.all) {
                best.putIfAbsent(h.faults, h);
                weight.merge(h.faults, h.weight, Double::sum);
            }
            var numbers = new HashMap<List<Integer>, Integer>();
            var all = new ArrayList<Suspect>();
            for (var h : best.values()) {
                var shown = made.stream().map(m -> h.shows(m.question())).toList();
                int group = numbers.computeIfAbsent(shown, k -> numbers.size());
                all.add(suspect(h, weight.get(h.faults), group));
            }
            all.sort(Comparator.comparingDouble(Suspect::probability).reversed());
            return List.copyOf(all);
        }

        private Suspect suspect(Search.Hypothesis h, double probability, int group) {
            var explains = new ArrayList<Question>();
            var contradicts = new ArrayList<Question>();
            for (var m : made) {
                int shows = h.shows(m.question());
                if (shows == m.index() && m.index() != 0) explains.add(m.question());
                if (shows != m.index() && shows != NetworkState.ANYTHING) contradicts.add(m.question());
            }
            var entries = h.faults.stream().map(book::of).toList();
            return new Suspect(
                    h.faults,
                    probability,
                    group,
                    entries.stream().map(FaultBook.Entry::title).collect(Collectors.joining(", and: ")),
                    explains,
                    contradicts,
                    entries.stream().flatMap(e -> e.remedy().stream()).toList(),
                    entries.stream()
                            .map(FaultBook.Entry::call)
                            .filter(c -> !c.isEmpty())
                            .findFirst()
                            .orElse(""));
        }

        /** The look with the greatest expected gain for a minute, over what some look could tell apart at all. */
        private Optional<NextQuestion> gainful() {
            var carrying = search.carrying();
            NextQuestion best = null;
            // What can gain most for a minute first, so that most need not be followed at all.
            var promising = left.stream()
                    .sorted(Comparator.comparingDouble(Diagnosis::atMost).reversed())
                    .toList();
            for (var question : promising) {
                if (best != null && atMost(question) <= worth(best.gain(), best.minutes())) break;
                double gain = gain(question, carrying);
                if (gain < WORTHWHILE) continue;
                if (best == null || worth(gain, question.minutes()) > worth(best.gain(), best.minutes()))
                    best = new NextQuestion(question, gain, question.minutes());
            }
            return Optional.ofNullable(best);
        }

        /** Mutual information of the look's outcome and the cause, in bits. */
        private double gain(Question question, List<Search.Hypothesis> carrying) {
            int k = question.outcomes().size();
            double[][] table = search.table(question);
            double[] entropies = new double[k];
            for (int t = 0; t < k; t++) for (double q : table[t]) entropies[t] -= term(q);
            double[] outcome = new double[k];
            double sum = search.none, noise = 0;
            double[] spread = search.spread(question);
            for (int o = 0; o < k; o++) outcome[o] += search.none * spread[o];
            for (double q : spread) noise -= search.none * term(q);
            for (var h : carrying) {
                int shown = h.shows(question);
                sum += h.weight;
                noise += h.weight * (shown == NetworkState.ANYTHING ? Math.log(k) / LN2 : entropies[shown]);
                for (int o = 0; o < k; o++)
                    outcome[o] += h.weight * (shown == NetworkState.ANYTHING ? 1.0 / k : table[shown][o]);
            }
            double entropy = 0;
            for (double q : outcome) entropy -= term(q / sum);
            return Math.max(0, entropy - noise / sum);
        }

        private String stop(Suspect first, boolean goesOn, boolean found) {
            if (goesOn) return "";
            if (search.none > first.probability())
                return "None of the known causes explains this. Write down what was seen, and call a colleague.";
            if (found && first.faults().contains(Fault.NOTHING))
                return "Nothing is wrong now. Run the checks once more.";
            if (found && !first.call().isEmpty())
                return "Stop here and call " + first.call() + ": "
                        + first.title().toLowerCase(Locale.ROOT) + ".";
            if (found) return "";
            return "No further look tells these apart. Try their remedies in this order, or call"
                    + (first.call().isEmpty() ? " a colleague." : " " + first.call() + ".");
        }
    }

    /** What a look is worth when it tells apart as much as it has outcomes. */
    private static double atMost(Question question) {
        return worth(Math.log(question.outcomes().size()) / LN2, question.minutes());
    }

    /** What a look is worth: bits for a minute. */
    static double worth(double gain, double minutes) {
        return gain / minutes;
    }

    /** Uncertainty of what may be, in bits. */
    static double entropy(double[] shares) {
        double sum = 0;
        for (double q : shares) sum -= term(q);
        return sum;
    }

    private static double term(double q) {
        return q <= 0 ? 0 : q * Math.log(q) / LN2;
    }
}
