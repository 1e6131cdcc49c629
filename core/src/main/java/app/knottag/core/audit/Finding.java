package app.knottag.core.audit;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.hardware.Mac;
import app.knottag.core.plan.Sighting.Source;
import java.time.Instant;
import java.util.Optional;
import java.util.Set;

/**
 * How one device stands, and the one act that mends it.
 *
 * @param endpoint number of the endpoint, or 0 for one that is on no record
 * @param mac the MAC that was seen, or that is on record when nothing was
 * @param stay where it was seen last, as far as anybody saw
 * @param sure chance that this is right, in percent, 1..99
 */
public record Finding(
        Standing standing,
        long endpoint,
        String name,
        Optional<Mac> mac,
        Optional<Stay> stay,
        int sure,
        Set<Source> sources,
        String says,
        String act) {

    /** At an address from when to when. */
    public record Stay(Ipv4Address at, Instant first, Instant last) {}
}
