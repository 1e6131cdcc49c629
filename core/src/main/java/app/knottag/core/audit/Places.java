package app.knottag.core.audit;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.audit.AuditSite.Recorded;
import app.knottag.core.audit.AuditSite.Seen;
import app.knottag.core.hardware.Mac;
import app.knottag.core.plan.Sighting;
import app.knottag.core.plan.Sighting.Source;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.EnumMap;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;

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
     * @param seen from when to when, and by the best of its sources
     * @param sources what says so
     * @param denied whether another source says otherwise at about the same time
     */
    record Place(Seen seen, Set<Source> sources, boolean denied) {
        Mac mac() {
            return seen.mac();
        }

        Ipv4Address address() {
            return seen.address();
        }

        Instant first() {
            return seen.first();
        }

        Instant last() {
            return seen.last();
        }
    }

    private static final Map<Source, Set<Source>> ALONE = Arrays.stream(Source.values())
            .collect(Collectors.toMap(s -> s, Set::of, (a, b) -> a, () -> new EnumMap<>(Source.class)));

    /** An endpoint on record, and where the MAC is that counts. */
    private static final class Home {
        private final Recorded of;
        private Optional<Place> place = Optional.empty();

        private Home(Recorded of) {
            this.of = of;
        }

        private boolean counts(Mac mac) {
            return of.mac().filter(mac::equals).isPresent();
        }
    }

    private static final Home NOBODYS = new Home(new Recorded(0, "", Optional.empty(), Optional.empty(), List.of()));

    private final List<Home> homes;
    private final Map<Ipv4Address, Home> planned;
    private final Map<Mac, Home> owners;
    /** MACs that do not count for anybody on record. */
    private final Map<Mac, Place> strays = new HashMap<>();
    /** Whoever is not where it is planned. */
    private final Map<Ipv4Address, List<Place>> away = new HashMap<>();

    Places(AuditSite site) {
        int many = site.recorded().size();
        homes = new ArrayList<>(many);
        planned = new HashMap<>(2 * many);
        owners = new HashMap<>(2 * many);
        for (var r : site.recorded()) {
            var home = new Home(r);
            homes.add(home);
            r.address().ifPresent(a -> planned.put(a, home));
        }
        // Nearly all were seen once, where they are planned: they are never looked up by their MAC.
        var odd = new HashMap<Mac, List<Seen>>();
        for (var s : site.seen())
            if (s.source() == Source.NEIGHBOURS || s.source() == Source.LEASES && !unused(site, s)) {
                var home = planned.getOrDefault(s.address(), NOBODYS);
                if (home.place.isEmpty() && home.counts(s.mac())) home.place = Optional.of(alone(s));
                else odd.computeIfAbsent(s.mac(), m -> new ArrayList<>(1)).add(s);
            }
        odd.forEach(this::settle);
    }

    private void own(Home home) {
        home.of.mac().ifPresent(m -> owners.put(m, home));
        home.of.others().forEach(m -> owners.put(m, home));
    }

    /** Finds out where a MAC is that was seen more than once, or elsewhere. */
    private void settle(Mac mac, List<Seen> of) {
        var home = home(mac).orElse(NOBODYS);
        boolean counts = home.counts(mac);
        if (counts) home.place.ifPresent(p -> of.add(p.seen()));
        var place = of.size() == 1 ? alone(of.get(0)) : place(mac, of, counts ? home.of.address() : Optional.empty());
        if (counts) home.place = Optional.of(place);
        else strays.put(mac, place);
        if (!counts || planned.getOrDefault(place.address(), NOBODYS) != home)
            away.computeIfAbsent(place.address(), a -> new ArrayList<>(1)).add(place);
    }

    private static Place alone(Seen s) {
        return new Place(s, ALONE.get(s.source()), false);
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
                new Seen(mac, address, best.source(), first, last),
                sources,
                lately.stream().anyMatch(s -> !s.address().equals(address)));
    }

    private static boolean better(Seen a, Seen b, Optional<Ipv4Address> planned) {
        if (a.source() != b.source()) return a.source().outweighs(b.source());
        if (!a.last().equals(b.last())) return a.last().isAfter(b.last());
        return planned.filter(a.address()::equals).isPresent();
    }

    /** Where each endpoint on record is, by the MAC that counts, in the order of the record. */
    List<Optional<Place>> recorded() {
        return homes.stream().map(h -> h.place).toList();
    }

    /** Whose a MAC is, by whichever of its interfaces. */
    Optional<Recorded> owner(Mac mac) {
        return home(mac).map(h -> h.of);
    }

    private Optional<Home> home(Mac mac) {
        if (owners.isEmpty()) homes.forEach(this::own);
        return Optional.ofNullable(owners.get(mac));
    }

    /** Who is meant to have an address. */
    Optional<Recorded> planned(Ipv4Address address) {
        return Optional.ofNullable(planned.get(address)).map(h -> h.of);
    }

    Optional<Place> of(Mac mac) {
        return Optional.ofNullable(strays.get(mac))
                .or(() -> home(mac).filter(h -> h.counts(mac)).flatMap(h -> h.place));
    }

    /** Whoever is on nobody's record. */
    List<Place> unknown() {
        return strays.values().stream().filter(p -> owner(p.mac()).isEmpty()).toList();
    }

    /** Whether more than one was seen there. */
    boolean shared(Ipv4Address address) {
        return away.containsKey(address) && at(address).size() > 1;
    }

    List<Place> at(Ipv4Address address) {
        var here = planned
                .getOrDefault(address, NOBODYS)
                .place
                .filter(p -> p.address().equals(address))
                .stream();
        return Stream.concat(here, away.getOrDefault(address, List.of()).stream())
                .toList();
    }
}
