package app.knottag.core.kind;

import java.util.List;
import java.util.stream.Collectors;

/** A kind whose parts do not go together; tells of each mistake where in the file it stands. */
public final class KindFileException extends IllegalArgumentException {

    private static final long serialVersionUID = 1;
    private final transient List<Mistake> mistakes;

    /**
     * One thing that is wrong.
     *
     * @param path where it stands, such as {@code steps/2/after}; indexes count from 0
     */
    public record Mistake(String path, String message) {}

    KindFileException(List<Mistake> mistakes) {
        super(mistakes.stream().map(Mistake::message).collect(Collectors.joining("; ")));
        this.mistakes = List.copyOf(mistakes);
    }

    /** Returns everything that is wrong, in the order of the file. */
    public List<Mistake> mistakes() {
        return mistakes;
    }
}
