package app.knottag.core.audit;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.audit.AuditSite.Seen;
import app.knottag.core.hardware.Mac;
import app.knottag.core.plan.Sighting;
import app.knottag.core.plan.Sighting.Source;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.EnumMap;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;

/**
 * Where each MAC is, out of all that was seen of it. A neighbour table shows who talks at an address; a lease list shows what
 * was lent, and goes on to show it when the device has long been given a fixed one. So a lease only counts where no neighbour
 * table knows better at about the same time, and where nobody has swept its segment since without finding the device
 * there. What people wrote into lists was never seen at all.
 */
final class Places {

    /**
     * A MAC and where it is.
     *
     * @param sources what says so
     * @param denied whether another source says otherwise at about the same time
     */
    record Place(Mac mac, Ipv4Address address, Instant first, Instant last, Set<Source> sources, boolean denied) {}

    private static final Map<Source, Set<Source>> ALONE = Arrays.stream(Source.values())
            .collect(Collectors.toMap(s -> s, Set::of, (a, b) -> a, () -> new EnumMap<>(Source.class)));

    private final Map<Mac, Place> byMac;
    private final Map<Ipv4Address, Place> byAddress;
    private final Map<Ipv4Address, List<Place>> shared = new HashMap<>();

    /** @param planned where each MAC is meant to be; of two addresses at once it is there that it counts */
    Places(AuditSite site, Function<Mac, Optional<Ipv4Address>> planned) {
        byMac = new HashMap<>(2 * site.seen().size());
        byAddress = new HashMap<>(2 * site.seen().size());
        // Nearly all were seen once, at one address, by one source.
        var several = new HashMap<Mac, List<Seen>>();
        for (var s : site.seen())
            if (s.source() == Source.NEIGHBOURS || s.source() == Source.LEASES && !unused(site, s)) {
                var before = byMac.put(s.mac(), alone(s));
                if (before != null)
                    several.computeIfAbsent(s.mac(), m -> new ArrayList<>(List.of(seen(before))))
                            .add(s);
            }
        several.forEach((mac, of) -> byMac.put(mac, place(mac, of, planned.apply(mac))));
        for (var p : byMac.values()) {
            var before = byAddress.put(p.address(), p);
            if (before != null)
                shared.computeIfAbsent(p.address(), a -> new ArrayList<>(List.of(before)))
                        .add(p);
        }
    }

    private static Place alone(Seen s) {
        return new Place(s.mac(), s.address(), s.first(), s.last(), ALONE.get(s.source()), false);
    }

    private static Seen seen(Place alone) {
        return new Seen(alone.mac(), alone.address(), alone.sources().iterator().next(), alone.first(), alone.last());
    }

    private static boolean unused(AuditSite site, Seen lease) {
        return site.sweptAt(lease.address())
                .filter(t -> t.isAfter(lease.last().minus(Sighting.TOGETHER)))
                .isPresent();
    }

    private static Place place(Mac mac, List<Seen> of, Optional<Ipv4Address> planned) {
        var newest = of.stream().map(Seen::last).max(Instant::compareTo).orElseThrow();
        var lately =
                of.stream().filter(s -> Sighting.together(s.last(), newest)).toList();
        var best = lately.get(0);
        for (var s : lately) if (better(s, best, planned)) best = s;
        var address = best.address();
        var first = best.first();
        var last = best.last();
        var sources = EnumSet.noneOf(Source.class);
        for (var s : lately)
            if (s.address().equals(address)) {
                sources.add(s.source());
                if (s.first().isBefore(first)) first = s.first();
                if (s.last().isAfter(last)) last = s.last();
            }
        return new Place(
                mac,
                address,
                first,
                last,
                sources,
                lately.stream().anyMatch(s -> !s.address().equals(address)));
    }

    private static boolean better(Seen a, Seen b, Optional<Ipv4Address> planned) {
        if (a.source() != b.source()) return a.source().outweighs(b.source());
        if (!a.last().equals(b.last())) return a.last().isAfter(b.last());
        return planned.filter(a.address()::equals).isPresent();
    }

    Optional<Place> of(Mac mac) {
        return Optional.ofNullable(byMac.get(mac));
    }

    Collection<Place> all() {
        return byMac.values();
    }

    /** Whether more than one was seen there. */
    boolean shared(Ipv4Address address) {
        return shared.containsKey(address);
    }

    List<Place> at(Ipv4Address address) {
        return shared(address)
                ? shared.get(address)
                : Optional.ofNullable(byAddress.get(address)).map(List::of).orElse(List.of());
    }
}
