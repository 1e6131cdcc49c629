package app.knottag.core.reach;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Ipv4Prefix;
import app.knottag.core.address.Segment;
import app.knottag.core.hardware.Mac;
import app.knottag.core.kind.Kind;
import app.knottag.core.kind.Protocol;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * The endpoint to be proved, as it is on record.
 *
 * @param knownMacs names of the other living endpoints of the site by MAC, to name a stranger
 * @param resolvers the resolvers that it should ask, empty when it calls nobody outside
 * @param far services that it calls and that the site lists
 * @param ground the site's segments
 * @param told who has its address by the table of a router that was read lately
 */
public record Target(
        Ipv4Address address,
        Mac mac,
        String serial,
        int port,
        Segment segment,
        Kind.Service service,
        Optional<Partner> partner,
        Map<Mac, String> knownMacs,
        List<Ipv4Address> resolvers,
        List<Listed> far,
        List<Ipv4Prefix> ground,
        Optional<Told> told) {

    /**
     * What the endpoint must talk with.
     *
     * @param testPort port where the partner can be asked to test, or empty when only a person can
     */
    public record Partner(String name, Ipv4Address address, Optional<Integer> testPort) {}

    /**
     * A service that the site lists.
     *
     * @param host an address, or a name
     * @param certain whether somebody said that this kind calls it; otherwise only the port fits
     */
    public record Listed(String name, Protocol protocol, String host, int port, boolean certain) {}

    /**
     * What a router's own neighbour table said of the address.
     *
     * @param by name of the router
     * @param at when it was read
     */
    public record Told(Mac mac, String by, Instant at) {}

    /** Whether a MAC is most likely that of another interface of this very box: near its own, and nobody else's on record. */
    public boolean sibling(Mac other) {
        return other.neighbourOf(mac) && !knownMacs.containsKey(other);
    }

    /** Returns the checks that this endpoint has, in the order of the line. */
    public List<Check> checks() {
        var all = new ArrayList<Check>();
        for (var check : Check.values())
            if (switch (check) {
                case NAMES -> !resolvers.isEmpty();
                case FAR_SERVICE -> !far.isEmpty();
                case PARTNER, DEVICE_TO_PARTNER -> partner.isPresent();
                case GATEWAY -> segment.gateway().isPresent();
                case REFUSED -> !service.refuses().isEmpty();
                default -> true;
            }) all.add(check);
        return List.copyOf(all);
    }
}
