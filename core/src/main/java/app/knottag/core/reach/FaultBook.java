package app.knottag.core.reach;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import tools.jackson.databind.DeserializationFeature;
import tools.jackson.dataformat.yaml.YAMLMapper;

/**
 * Priors, words and remedies of the causes, and how often a look is misread.
 *
 * @param noneOfThese share of what nobody thought of, 0..1
 * @param shared what each cause is shared by, when several devices have it at once
 * @param places which causes sit on each stretch of the way, and which looks are made there
 * @param lately what was changed in the last days, and how many times likelier that makes which causes
 * @param pointless questions that an answer makes pointless
 * @param questions what the outcomes of each look are called, in their order
 * @param sentences what each outcome means, as one sentence without its full stop
 */
public record FaultBook(
        Misreading misreading,
        double noneOfThese,
        Map<Shared, List<Fault>> shared,
        Map<Place, Stretch> places,
        Map<Lately, Change> lately,
        Map<Answer, List<Question>> pointless,
        Map<Fault, Entry> faults,
        Map<Question, List<String>> questions,
        Map<Question, List<String>> sentences) {

    private static final FaultBook SHIPPED = read();

    /**
     * How often a look is misread.
     *
     * @param eyes share of looks by people that overlook something or take it for something else, 0..1
     * @param imagined share of looks by people that see something odd where all is well, 0..1
     * @param machine share of looks by machines, 0..1
     * @param told how many times as often when somebody only says it
     * @param shown how many times as often when it was photographed or read back
     * @param questions shares of their own: for what is really there, what is seen instead
     */
    public record Misreading(
            double eyes,
            double imagined,
            double machine,
            double told,
            double shown,
            Map<Question, Map<Outcome, Map<Outcome, Double>>> questions) {

        private static final double MOST = 0.45;

        /** Returns what may be seen, by what is really there: {@code [truth][seen]}, each row a whole. */
        double[][] table(Question question, double times) {
            int k = question.outcomes().size();
            var table = new double[k][k];
            for (int truth = 0; truth < k; truth++) {
                var own = questions
                        .getOrDefault(question, Map.of())
                        .getOrDefault(question.outcomes().get(truth), Map.of());
                double usual = (question.by() == Question.By.MACHINE ? machine : truth == 0 ? imagined : eyes) * times;
                double wrong = 0;
                for (int seen = 0; seen < k; seen++) {
                    if (seen == truth) continue;
                    double share = own.getOrDefault(question.outcomes().get(seen), usual / (k - 1) / times) * times;
                    table[truth][seen] = share;
                    wrong += share;
                }
                double cut = wrong > MOST ? MOST / wrong : 1;
                for (int seen = 0; seen < k; seen++) table[truth][seen] *= cut;
                table[truth][truth] = 1 - wrong * cut;
            }
            return table;
        }
    }

    /**
     * One cause.
     *
     * @param prior how often it is met, in parts of all
     * @param direct answers that prove it, the best first; empty when none does by itself
     * @param reason why it is met that often
     * @param call whom to call when the remedies do not help, or empty
     * @param remedy what to do, in the order good technicians try
     */
    public record Entry(
            double prior, List<Answer> direct, String title, String reason, String call, List<String> remedy) {

        Entry with(double other) {
            return new Entry(other, direct, title, reason, call, remedy);
        }
    }

    /** What several devices may hang on together. */
    public enum Shared {
        STRIP,
        SWITCH,
        SEGMENT,
        SITE,
        PARTNER,
        SERVICE,
        MACHINE,
        CHANGE
    }

    /** Stretches of the way from the machine that looks, over the device, to what the device calls. */
    public enum Place {
        HERE,
        WIRE,
        DEVICE,
        SERVICE,
        PARTNER,
        REGISTRY,
        ROUTER,
        NAMES,
        LINE,
        FAR
    }

    /** A stretch of the way. */
    public record Stretch(String title, List<Fault> faults, List<Question> questions) {}

    /** What may have been changed in the last days. */
    public enum Lately {
        RENUMBERED,
        SWAPPED,
        RESET,
        MOVED,
        FACTS,
        SHEET,
        REGISTERED
    }

    /**
     * What a change makes likelier.
     *
     * @param words what was changed, as it follows “It was” or “The site’s sheet was”
     * @param times how many times likelier
     */
    public record Change(String words, Map<Fault, Double> times) {}

    public FaultBook {
        faults = new EnumMap<>(faults);
        for (var fault : Fault.values())
            if (!faults.containsKey(fault)) throw new IllegalArgumentException("faults.yaml has no " + fault);
        for (var fault : Fault.values())
            if (fault != Fault.NOTHING
                    && places.values().stream().noneMatch(p -> p.faults().contains(fault)))
                throw new IllegalArgumentException("faults.yaml says of " + fault + " at no place where it sits");
        questions = named(questions);
        sentences = named(sentences);
    }

    private static Map<Question, List<String>> named(Map<Question, List<String>> questions) {
        for (var question : Question.values())
            if (questions.getOrDefault(question, List.of()).size()
                    != question.outcomes().size())
                throw new IllegalArgumentException("faults.yaml does not name every outcome of " + question);
        return new EnumMap<>(questions);
    }

    /** Returns the book that comes with Knot Tag. */
    public static FaultBook shipped() {
        return SHIPPED;
    }

    private static FaultBook read() {
        var yaml = YAMLMapper.builder()
                .enable(DeserializationFeature.FAIL_ON_UNKNOWN_PROPERTIES)
                .enable(DeserializationFeature.FAIL_ON_NULL_FOR_PRIMITIVES)
                .build();
        try (var in = FaultBook.class.getResourceAsStream("/reach/faults.yaml")) {
            return yaml.readValue(in, FaultBook.class);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** So many faults must have been found at a site before its own history counts. */
    public static final int ENOUGH = 8;

    /** The shipped priors weigh as much as this many faults of the site's own. */
    private static final double SHIPPED_WEIGHS = 20;

    /** However often it was found at a site, a cause is taken for at most so many times as likely as the book says. */
    public static final double LEARNS_AT_MOST = 3;

    /**
     * Returns the book as a site's own history corrects it: the shipped priors with what was found there added, once that is
     * enough to say anything.
     *
     * @param found how often each cause was found at the site
     */
    public FaultBook learned(Map<Fault, Integer> found) {
        if (found.values().stream().mapToInt(Integer::intValue).sum() < ENOUGH) return this;
        double all = 0;
        for (var entry : faults.values()) all += entry.prior();
        var corrected = new EnumMap<Fault, Entry>(Fault.class);
        for (var fault : Fault.values()) {
            var e = faults.get(fault);
            double shipped = e.prior() / all * SHIPPED_WEIGHS;
            corrected.put(fault, e.with(Math.min(shipped * LEARNS_AT_MOST, shipped + found.getOrDefault(fault, 0))));
        }
        return with(corrected);
    }

    /** Returns the book as it is right after something was changed, which makes some causes likelier. */
    public FaultBook after(Set<Lately> changes) {
        var corrected = new EnumMap<>(faults);
        for (var change : changes)
            lately.get(change)
                    .times()
                    .forEach((fault, times) -> corrected.computeIfPresent(fault, (c, e) -> e.with(e.prior() * times)));
        return changes.isEmpty() ? this : with(corrected);
    }

    private FaultBook with(Map<Fault, Entry> other) {
        return new FaultBook(misreading, noneOfThese, shared, places, lately, pointless, other, questions, sentences);
    }

    /** Returns the book with other shares of misreading, and another of what nobody thought of. */
    public FaultBook with(Misreading other, double none) {
        return new FaultBook(other, none, shared, places, lately, pointless, faults, questions, sentences);
    }

    /** Returns what people call an outcome. */
    public String words(Question question, Outcome outcome) {
        return questions.get(question).get(question.outcomes().indexOf(outcome));
    }

    /** Returns what an outcome of a check is called. */
    public String words(Check check, Outcome outcome) {
        return check.question().map(q -> words(q, outcome)).orElseGet(() -> switch (outcome) {
            case REFUSED -> "It is refused";
            case LET_IN -> "It is let in";
            case REACHED -> "The office reaches it";
            default -> "The office does not reach it";
        });
    }

    /** Returns an outcome as one sentence, without its full stop. */
    public String said(Question question, Outcome outcome) {
        return sentences.get(question).get(question.outcomes().indexOf(outcome));
    }

    /** Returns what stands in the book of a cause. */
    public Entry of(Fault fault) {
        return faults.get(fault);
    }
}
