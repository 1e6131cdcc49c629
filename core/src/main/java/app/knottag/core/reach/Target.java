package app.knottag.core.reach;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Segment;
import app.knottag.core.hardware.Mac;
import app.knottag.core.kind.Kind;
import java.util.Map;
import java.util.Optional;

/**
 * The endpoint to be proved, as it is on record.
 *
 * @param knownMacs names of the other living endpoints of the site by MAC, to name a stranger
 */
public record Target(
        Ipv4Address address,
        Mac mac,
        String serial,
        int port,
        Segment segment,
        Kind.Service service,
        Optional<Partner> partner,
        Map<Mac, String> knownMacs) {

    /**
     * What the endpoint must talk with.
     *
     * @param testPort port where the partner can be asked to test, or empty when only a person can
     */
    public record Partner(String name, Ipv4Address address, Optional<Integer> testPort) {}
}
