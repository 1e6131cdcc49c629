package app.knottag.core.plan;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.hardware.Mac;
import java.time.Duration;
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

    /** What was seen within this time of each other is held for one moment. */
    public static final Duration TOGETHER = Duration.ofHours(12);

    /** When it was not seen for longer than this it may have been away, though it is back at the same address. */
    public static final Duration AWAY = Duration.ofDays(14);

    /** Whether two moments are held for one. */
    public static boolean together(Instant a, Instant b) {
        return Duration.between(a, b).abs().compareTo(TOGETHER) <= 0;
    }

    /** Whether one sight says better where a device is: the later one, but of about the same time the wire's own word. */
    public static boolean outdoes(Source source, Instant at, Source other, Instant otherAt) {
        if (together(at, otherAt)) {
            if (source.outweighs(other)) return true;
            if (other.outweighs(source)) return false;
        }
        return at.isAfter(otherAt);
    }

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

        /** A lease goes on in its list when the device has long been given a fixed address; a neighbour table has talked with it. */
        public boolean outweighs(Source other) {
            return this == NEIGHBOURS && other == LEASES;
        }

        /** Whether it looked at the network, and is not what people wrote down. */
        public boolean sees() {
            return this == NEIGHBOURS || this == LEASES;
        }

        double strength() {
            return strength;
        }
    }
}
