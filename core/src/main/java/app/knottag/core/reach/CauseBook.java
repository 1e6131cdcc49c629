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
 */
public record CauseBook(
        Misreading misreading, double noneOfThese, Map<Cause, Entry> causes, Map<Look, List<String>> looks) {

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
        looks = new EnumMap<>(looks);
        for (var look : Look.values())
            if (looks.getOrDefault(look, List.of()).size() != look.outcomes().size())
                throw new IllegalArgumentException("causes.yaml does not name every outcome of " + look);
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

    /** Returns what people call an outcome. */
    public String words(Look look, String outcome) {
        return looks.get(look).get(look.outcomes().indexOf(outcome));
    }

    /** Returns what stands in the book of a cause. */
    public Entry of(Cause cause) {
        return causes.get(cause);
    }
}
