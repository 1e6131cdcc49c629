package app.knottag.core.address;

import java.util.Optional;
import java.util.Set;

/**
 * What is known where an address is typed.
 *
 * @param taken addresses of the other living endpoints
 * @param expected canonical text that was planned, when the typed text is a read-back
 */
public record AddressContext(Optional<Segment> segment, Set<Ipv4Address> taken, Optional<String> expected) {

    /** Nothing is known: no segment, nothing taken, nothing expected. */
    public static final AddressContext NONE = new AddressContext(Optional.empty(), Set.of(), Optional.empty());

    public AddressContext {
        taken = Set.copyOf(taken);
    }

    /** Returns the same context with a canonical text that should be read here. */
    public AddressContext expecting(String text) {
        return new AddressContext(segment, taken, Optional.of(text));
    }
}
