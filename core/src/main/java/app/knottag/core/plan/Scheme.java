package app.knottag.core.plan;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Ipv4Prefix;
import app.knottag.core.address.Pool;
import app.knottag.core.address.Segment;
import app.knottag.core.reading.ReadingException;
import app.knottag.core.series.Series;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * How a network is laid out, free of its prefix: host numbers of gateway and pools, and the numbered runs. Taken from
 * one segment it fills another, so that every shop of a client, or of a provider, looks alike.
 */
public record Scheme(
        int prefixLength,
        Optional<Long> gatewayHost,
        List<HostRange> pools,
        List<Ipv4Address> resolvers,
        List<Series> series) {

    /** Host numbers from one to another. */
    public record HostRange(long from, long to) {}

    /** A segment laid out after a scheme. */
    public record Filled(Segment segment, List<Ipv4Address> resolvers, List<Series> series) {}

    /** Reads the scheme off a segment. Resolvers inside the segment move along with it. */
    public static Scheme of(Segment segment, List<Ipv4Address> resolvers, List<Series> series) {
        long network = segment.prefix().network().number();
        return new Scheme(
                segment.prefix().prefixLength(),
                segment.gateway().map(g -> g.number() - network),
                segment.pools().stream()
                        .map(p -> new HostRange(p.from().number() - network, p.to().number() - network))
                        .toList(),
                resolvers.stream()
                        .map(r -> segment.prefix().contains(r) ? new Ipv4Address((int) (r.number() - network)) : r)
                        .toList(),
                List.copyOf(series));
    }

    /**
     * Lays a prefix out after this scheme.
     *
     * @throws IllegalArgumentException if the prefix has another length, which means another provider's sheet
     */
    public Filled fill(Ipv4Prefix prefix) {
        if (prefix.prefixLength() != prefixLength)
            throw new ReadingException("This scheme is for a /" + prefixLength + ", the prefix found is " + prefix
                    + ": another provider's sheet, or another kind of site.");
        long network = prefix.network().number();
        var pools = new ArrayList<Pool>();
        for (var p : this.pools)
            pools.add(new Pool(Ipv4Address.ofNumber(network + p.from()), Ipv4Address.ofNumber(network + p.to())));
        return new Filled(
                new Segment(prefix, gatewayHost.map(h -> Ipv4Address.ofNumber(network + h)), pools),
                resolvers.stream()
                        .map(r -> r.number() <= prefix.last().number() - network ? r.plus(network) : r)
                        .toList(),
                series);
    }
}
