package app.knottag.core.audit;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Ipv4Prefix;
import app.knottag.core.address.Segment;
import app.knottag.core.hardware.Mac;
import app.knottag.core.plan.Sighting.Source;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * A site as far as an audit needs it.
 *
 * @param fixtures addresses of what is no endpoint: gateways, resolvers, partners, services, this machine, by name
 * @param pasted when a neighbour table was last pasted, which shows who talked with one machine lately and no more
 * @param swept when each segment was last asked for everybody, from within
 * @param alone when a check last asked an address more than once and nobody but its own device answered, as far as one did
 * @param former MACs of units that were taken out, such as by a swap
 */
public record AuditSite(
        List<Segment> segments,
        List<Recorded> recorded,
        Map<Ipv4Address, String> fixtures,
        List<Seen> seen,
        Optional<Instant> pasted,
        Map<Ipv4Prefix, Instant> swept,
        Map<Ipv4Address, Instant> alone,
        Map<Mac, Former> former,
        List<Decision> decisions) {

    /** Returns when everybody around an address was last asked. */
    Optional<Instant> sweptAt(Ipv4Address address) {
        return segmentOf(address).map(s -> swept.get(s.prefix()));
    }

    Optional<Segment> segmentOf(Ipv4Address address) {
        for (var segment : segments) if (segment.prefix().contains(address)) return Optional.of(segment);
        return Optional.empty();
    }

    /**
     * An endpoint on record.
     *
     * @param mac the one that counts
     * @param others MACs of its other interfaces
     */
    public record Recorded(long id, String name, Optional<Ipv4Address> address, Optional<Mac> mac, List<Mac> others) {}

    /** @param until when it was taken off the record */
    public record Former(String name, Instant until) {}

    /**
     * A MAC at an address, for as long as it stayed there.
     *
     * @param first when it was first seen there
     * @param last when it was last seen there; not before {@code first}
     */
    public record Seen(Mac mac, Ipv4Address address, Source source, Instant first, Instant last) {
        public Seen {
            if (last.isBefore(first)) throw new IllegalArgumentException("seen last before it was seen first: " + mac);
        }
    }

    /**
     * What somebody said of a MAC that is on no record.
     *
     * @param at where it was then; the word holds as long as it stays there, or on automatic
     */
    public record Decision(Mac mac, Ipv4Address at, String what, String by) {}
}
