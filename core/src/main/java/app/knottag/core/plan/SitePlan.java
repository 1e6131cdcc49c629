package app.knottag.core.plan;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Segment;
import app.knottag.core.hardware.Mac;
import app.knottag.core.hardware.Wiring;
import app.knottag.core.series.Series;
import java.time.Duration;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** A whole site as it is planned, for checking and renumbering. Ids are those of the records. */
public record SitePlan(
        List<PlannedSegment> segments,
        List<PlannedSeries> series,
        List<PlannedEndpoint> endpoints,
        List<PlannedPartner> partners,
        List<Wiring.Cord> cords,
        List<Wiring.Room> room,
        List<Sighting> sightings) {

    public SitePlan {
        segments = List.copyOf(segments);
        series = List.copyOf(series);
        endpoints = List.copyOf(endpoints);
        partners = List.copyOf(partners);
        cords = List.copyOf(cords);
        room = List.copyOf(room);
        sightings = List.copyOf(sightings);
    }

    /**
     * A segment with what is planned in it.
     *
     * @param lease how long the DHCP server lends an address
     */
    public record PlannedSegment(long id, String name, Segment segment, List<Ipv4Address> resolvers, Duration lease) {}

    /**
     * A numbered run.
     *
     * @param segmentId only for hosts
     * @param follows the run whose numbers this one takes over, such as a till's number for its listening port
     */
    public record PlannedSeries(
            long id, Optional<Long> segmentId, Series series, double perYear, Optional<Long> follows) {}

    /** Software or a host that endpoints talk with. */
    public record PlannedPartner(long id, String name, Ipv4Address address) {}

    /**
     * An endpoint as it is planned.
     *
     * @param proved whether it was signed off with this address, so that nobody has to key it in any more
     */
    public record PlannedEndpoint(
            long id,
            String name,
            String hostName,
            long segmentId,
            Optional<Ipv4Address> address,
            Method method,
            Optional<Long> seriesId,
            Optional<Integer> number,
            Optional<Mac> mac,
            Optional<Long> partnerId,
            Optional<Integer> port,
            Optional<Integer> partnerPort,
            boolean proved) {}

    /** Returns the names of those that hold addresses. */
    public Map<Ipv4Address, String> living() {
        var living = new HashMap<Ipv4Address, String>();
        partners.forEach(p -> living.put(p.address(), p.name()));
        endpoints.forEach(e -> e.address().ifPresent(a -> living.put(a, e.name())));
        return living;
    }
}
