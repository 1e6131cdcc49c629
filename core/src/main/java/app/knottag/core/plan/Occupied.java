package app.knottag.core.plan;

import app.knottag.core.address.Ipv4Address;
import java.util.Map;

/**
 * The addresses of a site that are not to be given.
 *
 * @param held who holds an address, by plan or as it was seen for certain
 * @param doubtful why an address had better not be given, though it can be
 */
public record Occupied(Map<Ipv4Address, String> held, Map<Ipv4Address, String> doubtful) {

    public Occupied {
        held = Map.copyOf(held);
        doubtful = Map.copyOf(doubtful);
    }

    /** Makes one of which nothing is doubtful. */
    public static Occupied of(Map<Ipv4Address, String> held) {
        return new Occupied(held, Map.of());
    }
}
