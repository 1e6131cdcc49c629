package app.knottag.core.kind;

import java.util.List;
import java.util.stream.Collectors;

/** A kind whose parts do not go together; tells of each fault where in the file it stands. */
public final class KindFault extends IllegalArgumentException {

    private static final long serialVersionUID = 1;
    private final transient List<Fault> faults;

    /**
     * One thing that is wrong.
     *
     * @param path where it stands, such as {@code steps/2/after}; indexes count from 0
     */
    public record Fault(String path, String message) {}

    KindFault(List<Fault> faults) {
        super(faults.stream().map(Fault::message).collect(Collectors.joining("; ")));
        this.faults = List.copyOf(faults);
    }

    /** Returns everything that is wrong, in the order of the file. */
    public List<Fault> faults() {
        return faults;
    }
}
