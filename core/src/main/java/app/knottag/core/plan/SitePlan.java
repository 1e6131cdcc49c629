package app.knottag.core.plan;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Segment;
import app.knottag.core.hardware.Mac;
import app.knottag.core.hardware.Wiring;
import app.knottag.core.plan.FreeVerdict.Evidence;
import app.knottag.core.plan.FreeVerdict.Verdict;
import app.knottag.core.series.Series;
import java.time.Duration;
import java.time.Instant;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;

/** A whole site as it is planned, for checking and renumbering. Ids are those of the records. */
public record SitePlan(
        List<PlannedSegment> segments,
        List<PlannedSeries> series,
        List<PlannedEndpoint> endpoints,
        List<PlannedPartner> partners,
        List<Wiring.Cable> cables,
        List<Wiring.Room> room,
        List<Sighting> sightings,
        List<Listed> services) {

    public SitePlan {
        segments = List.copyOf(segments);
        series = List.copyOf(series);
        endpoints = List.copyOf(endpoints);
        partners = List.copyOf(partners);
        cables = List.copyOf(cables);
        room = List.copyOf(room);
        sightings = List.copyOf(sightings);
        services = List.copyOf(services);
    }

    /** A plan of a site that lists no services. */
    public SitePlan(
            List<PlannedSegment> segments,
            List<PlannedSeries> series,
            List<PlannedEndpoint> endpoints,
            List<PlannedPartner> partners,
            List<Wiring.Cable> cables,
            List<Wiring.Room> room,
            List<Sighting> sightings) {
        this(segments, series, endpoints, partners, cables, room, sightings, List.of());
    }

    /** A service that the site lists by its address. */
    public record Listed(String name, Ipv4Address address) {}

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

    /** Returns the names of those that hold addresses: endpoints, partners, and what the site itself needs. */
    public Map<Ipv4Address, String> living() {
        var living = new HashMap<>(reserved());
        partners.forEach(p -> living.put(p.address(), p.name()));
        endpoints.forEach(e -> e.address().ifPresent(a -> living.put(a, e.name())));
        return living;
    }

    /** Returns what no endpoint may be given although nobody is on record there: gateways, resolvers, listed services. */
    public Map<Ipv4Address, String> reserved() {
        var reserved = new HashMap<Ipv4Address, String>();
        services.forEach(s -> reserved.put(s.address(), s.name()));
        for (var s : segments) s.resolvers().forEach(r -> reserved.put(r, "the resolver of " + s.name()));
        for (var s : segments) s.segment().gateway().ifPresent(g -> reserved.put(g, "the gateway of " + s.name()));
        return reserved;
    }

    /** Returns who is in the way of one more: who holds an address by plan, and who was seen at one. */
    public Occupied occupied(Instant now) {
        var held = living();
        var doubtful = new HashMap<Ipv4Address, String>();
        var macs = new HashMap<Mac, String>();
        endpoints.forEach(e -> e.mac().ifPresent(m -> macs.put(m, e.name())));
        var evidence = new Evidence(
                segments.stream().map(PlannedSegment::segment).toList(), Map.of(), sightings, Map.of(), macs);
        var byAddress = sightings.stream().collect(Collectors.groupingBy(Sighting::address));
        byAddress.forEach((address, seen) -> {
            if (held.containsKey(address)) return;
            var verdict = FreeVerdict.of(address, evidence, seen, now);
            if (verdict.verdict() == Verdict.TAKEN) held.put(address, verdict.holder() + ", seen there");
            if (verdict.verdict() == Verdict.DOUBTFUL) doubtful.put(address, verdict.holder() + " was seen there");
        });
        return new Occupied(held, doubtful);
    }
}
