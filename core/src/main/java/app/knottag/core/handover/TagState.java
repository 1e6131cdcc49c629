package app.knottag.core.handover;

import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * Whether the tag of an endpoint hangs, and says what is so.
 *
 * @param wrong what it says that is no longer so, one sentence each
 */
public record TagState(State state, List<String> wrong) {

    /** How it stands, the most urgent first. */
    public enum State {
        HANGS_WRONG("hangs wrong"),
        NOT_PRINTED("not printed yet"),
        TO_HANG("printed, not hung yet"),
        HANGS("hangs");

        private final String words;

        State(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /**
     * What is on record of the latest print.
     *
     * @param facts what stood on it, by label
     * @param hung when somebody said that it hangs
     */
    public record Printed(Map<String, String> facts, Instant at, Optional<Instant> hung) {}

    /** Compares the latest print with what is so now. A printed tag that does not hang yet and is wrong is printed anew. */
    public static TagState of(TagFacts now, Optional<Printed> printed) {
        if (printed.isEmpty()) return new TagState(State.NOT_PRINTED, List.of());
        var wrong = now.otherThan(printed.get().facts());
        if (!wrong.isEmpty())
            return new TagState(printed.get().hung().isPresent() ? State.HANGS_WRONG : State.NOT_PRINTED, wrong);
        return new TagState(printed.get().hung().isPresent() ? State.HANGS : State.TO_HANG, List.of());
    }
}
