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

    public static final AddressContext NONE = new AddressContext(Optional.empty(), Set.of(), Optional.empty());

    public AddressContext {
        taken = Set.copyOf(taken);
    }

    public AddressContext expecting(String text) {
        return new AddressContext(segment, taken, Optional.of(text));
    }
}
