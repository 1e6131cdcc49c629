package app.knottag.core.reach;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import tools.jackson.databind.DeserializationFeature;
import tools.jackson.dataformat.yaml.YAMLMapper;

/**
 * Priors, words and remedies of the causes, and how often a look is misread.
 *
 * @param noneOfThese share of what nobody thought of, 0..1
 * @param looks what the outcomes of each look are called, in their order
 * @param sentences what each outcome means, as one sentence without its full stop
 */
public record CauseBook(
        Misreading misreading,
        double noneOfThese,
        Map<Cause, Entry> causes,
        Map<Look, List<String>> looks,
        Map<Look, List<String>> sentences) {

    private static final CauseBook SHIPPED = read();

    /** Share of looks that are misread, 0..1; some looks have a share of their own. */
    public record Misreading(double eyes, double machine, Map<Look, Double> looks) {
        /** Returns the share for one look. */
        public double of(Look look) {
            return looks.getOrDefault(look, look.by() == Look.By.EYES ? eyes : machine);
        }
    }

    /**
     * One cause.
     *
     * @param prior how often it is met, in parts of all
     * @param reason why it is met that often
     * @param call whom to call when the remedies do not help, or empty
     * @param remedy what to do, in the order good technicians try
     */
    public record Entry(double prior, String title, String reason, String call, List<String> remedy) {}

    public CauseBook {
        causes = new EnumMap<>(causes);
        for (var cause : Cause.values())
            if (!causes.containsKey(cause)) throw new IllegalArgumentException("causes.yaml has no " + cause);
        looks = named(looks);
        sentences = named(sentences);
    }

    private static Map<Look, List<String>> named(Map<Look, List<String>> looks) {
        for (var look : Look.values())
            if (looks.getOrDefault(look, List.of()).size() != look.outcomes().size())
                throw new IllegalArgumentException("causes.yaml does not name every outcome of " + look);
        return new EnumMap<>(looks);
    }

    /** Returns the book that comes with Knot Tag. */
    public static CauseBook shipped() {
        return SHIPPED;
    }

    private static CauseBook read() {
        var yaml = YAMLMapper.builder()
                .enable(DeserializationFeature.FAIL_ON_UNKNOWN_PROPERTIES)
                .enable(DeserializationFeature.FAIL_ON_NULL_FOR_PRIMITIVES)
                .build();
        try (var in = CauseBook.class.getResourceAsStream("/reach/causes.yaml")) {
            return yaml.readValue(in, CauseBook.class);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** So many faults must have been found at a site before its own history counts. */
    public static final int ENOUGH = 8;

    /** The shipped priors weigh as much as this many faults of the site's own. */
    private static final double SHIPPED_WEIGHS = 20;

    /**
     * Returns the book as a site's own history corrects it: the shipped priors with what was found there added, once that is
     * enough to say anything.
     *
     * @param found how often each cause was found at the site
     */
    public CauseBook learned(Map<Cause, Integer> found) {
        if (found.values().stream().mapToInt(Integer::intValue).sum() < ENOUGH) return this;
        double all = 0;
        for (var entry : causes.values()) all += entry.prior();
        var corrected = new EnumMap<Cause, Entry>(Cause.class);
        for (var cause : Cause.values()) {
            var e = causes.get(cause);
            double prior = e.prior() / all * SHIPPED_WEIGHS + found.getOrDefault(cause, 0);
            corrected.put(cause, new Entry(prior, e.title(), e.reason(), e.call(), e.remedy()));
        }
        return new CauseBook(misreading, noneOfThese, corrected, looks, sentences);
    }

    /** Returns what people call an outcome. */
    public String words(Look look, String outcome) {
        return looks.get(look).get(look.outcomes().indexOf(outcome));
    }

    /** Returns an outcome as one sentence, without its full stop. */
    public String said(Look look, String outcome) {
        return sentences.get(look).get(look.outcomes().indexOf(outcome));
    }

    /** Returns what stands in the book of a cause. */
    public Entry of(Cause cause) {
        return causes.get(cause);
    }
}
