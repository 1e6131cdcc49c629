package app.knottag.core.kind;

import java.util.List;

/**
 * What must be known of one endpoint to say which steps apply to it: how it is fed, which firmware it has, what it is
 * joined to.
 *
 * @param key small letters and hyphens
 * @param usual the answer that is taken until somebody gives one
 * @param because why that one is usual, or empty
 */
public record KindQuestion(String key, String ask, List<Answer> options, String usual, String because) {

    public KindQuestion {
        options = KindCheck.orEmpty(options);
        because = KindCheck.orEmpty(because);
        if (!key.matches("[a-z][a-z-]{1,29}"))
            throw new IllegalArgumentException("a question's key must be small letters and hyphens, was " + key);
        String wanted = usual;
        if (options.stream().noneMatch(o -> o.value().equals(wanted)))
            throw new IllegalArgumentException(
                    "the usual answer to “" + ask + "” must be one of its options, was " + usual);
    }

    /** One answer. */
    public record Answer(String value, String label) {}

    /** Returns the words of an answer, or the answer itself. */
    public String label(String value) {
        return options.stream()
                .filter(o -> o.value().equals(value))
                .map(Answer::label)
                .findFirst()
                .orElse(value);
    }
}
