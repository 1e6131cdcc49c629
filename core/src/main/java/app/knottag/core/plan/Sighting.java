package app.knottag.core.plan;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.hardware.Mac;
import java.time.Instant;
import java.util.Optional;

/**
 * An address that something was seen to hold.
 *
 * @param seenAt when it was seen, which is when the list was made that says so
 * @param leaseEnds when its lease ends, if it comes from a lease list that says so
 */
public record Sighting(
        Ipv4Address address, Optional<Mac> mac, Source source, Instant seenAt, Optional<Instant> leaseEnds) {

    /** Where it was seen; the strength is the chance that the list is right, before it ages. */
    public enum Source {
        LEASES("lease list", 0.97),
        NEIGHBOURS("neighbour table", 0.95),
        HOSTS("hosts lines", 0.8),
        SHEET("spreadsheet", 0.7);

        private final String words;
        private final double strength;

        Source(String words, double strength) {
            this.words = words;
            this.strength = strength;
        }

        /** Returns what people call it. */
        public String words() {
            return words;
        }

        double strength() {
            return strength;
        }
    }
}
