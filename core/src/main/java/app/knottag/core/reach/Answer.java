package app.knottag.core.reach;

/** One outcome of one question. */
public record Answer(Question question, Outcome outcome) {

    public Answer {
        if (!question.outcomes().contains(outcome))
            throw new IllegalArgumentException(question + " cannot show " + outcome);
    }

    /** Reads it as it is written in faults.yaml: {@code LINK=DARK}. */
    public static Answer valueOf(String text) {
        int at = text.indexOf('=');
        return new Answer(Question.valueOf(text.substring(0, at)), Outcome.valueOf(text.substring(at + 1)));
    }

    @Override
    public String toString() {
        return question + "=" + outcome;
    }
}
