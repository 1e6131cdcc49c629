package app.knottag.core.audit;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.audit.AuditSite.Decision;
import app.knottag.core.audit.AuditSite.Recorded;
import app.knottag.core.audit.Places.Place;
import app.knottag.core.hardware.Mac;
import app.knottag.core.plan.Sighting;
import app.knottag.core.plan.Sighting.Source;
import app.knottag.core.status.Status;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/**
 * Compares what was seen with what is on record: by MAC first, since that stays with the device, then by address. A device on
 * record is never called a stranger. Silence is weak: it is only said when somebody looked after the device was last seen, and
 * it grows surer with the time between.
 */
public final class Audit {

    /** An unknown MAC that was not seen for so long is gone. */
    static final Duration GONE = Duration.ofDays(30);

    private static final double HALF_LIFE_DAYS = 30;
    private static final double SILENCE_HALF_DAYS = 7;

    /** A MAC beside one on record is most likely the other interface of its box, or another unit of the same delivery. */
    private static final double NEIGHBOUR = 0.8;

    private final AuditSite site;
    private final Instant now;
    private final Map<Mac, String> ports;
    private final Places places;
    private final Map<Mac, Decision> decisions = new HashMap<>();
    /** Looks are few, and sightings many. */
    private final Map<Instant, Double> weights = new HashMap<>();

    /** Whoever was seen last before it was in no table that was pasted for a month. */
    private final Instant pastedSilence;

    private final Set<Mac> settled = new HashSet<>();

    private Audit(AuditSite site, Instant now, Map<Mac, String> ports) {
        this.site = site;
        this.now = now;
        this.ports = ports;
        pastedSilence = site.pasted().map(t -> t.minus(GONE)).orElse(Instant.MIN);
        site.decisions().forEach(d -> decisions.put(d.mac(), d));
        places = new Places(site);
    }

    /** Returns how everything at a site stands, what costs most first, then by name; who is as recorded stands as recorded. */
    public static List<Finding> of(AuditSite site, Instant now) {
        return of(site, now, Map.of());
    }

    /**
     * Returns the same where switches were read.
     *
     * @param ports where each MAC was heard last, such as “Shop switch 7”
     */
    public static List<Finding> of(AuditSite site, Instant now, Map<Mac, String> ports) {
        var audit = new Audit(site, now, ports);
        var found = new EnumMap<Standing, List<Finding>>(Standing.class);
        for (var standing : Standing.values()) found.put(standing, new ArrayList<>());
        var own = audit.places.recorded().iterator();
        for (var r : site.recorded()) {
            var finding = audit.recorded(r, own.next());
            found.get(finding.standing()).add(finding);
        }
        for (var place : audit.places.unknown())
            if (!audit.settled.contains(place.mac()))
                audit.unknown(place).ifPresent(f -> found.get(f.standing()).add(f));
        var all = new ArrayList<Finding>(site.recorded().size());
        found.forEach((standing, of) -> {
            if (standing != Standing.AS_RECORDED) of.sort(Comparator.comparing(Finding::name));
            all.addAll(of);
        });
        return Collections.unmodifiableList(all);
    }

    /** Returns how a whole site stands: it is as on record only when everybody on record was seen to be. */
    public static Status together(List<Finding> found) {
        if (found.stream().anyMatch(f -> f.standing().drifted())) return Status.FAILED;
        if (found.stream().noneMatch(f -> f.standing() == Standing.AS_RECORDED)) return Status.PENDING;
        return found.stream().anyMatch(f -> f.standing() == Standing.UNSEEN) ? Status.ACTIVE : Status.PASSED;
    }

    private Finding recorded(Recorded r, Optional<Place> own) {
        if (own.isPresent() && !silentSince(own.get())) return seen(r, own.get());
        var other = r.others().stream()
                .flatMap(m -> places.of(m).stream())
                .filter(p -> !silentSince(p))
                .max(Comparator.comparing(Place::last));
        if (other.isPresent())
            return finding(Standing.OTHER_INTERFACE, r, other.get(), 1)
                    .says("It is seen by " + other.get().mac() + " at "
                            + other.get().address() + ", which is not the one that counts.")
                    .act("Let that one count, or put the lead into the socket that is planned.");
        var beside = beside(r);
        if (beside.isPresent()) {
            settled.add(beside.get().mac());
            return finding(Standing.OTHER_INTERFACE, r, beside.get(), NEIGHBOUR)
                    .says("It is not seen itself, but " + beside.get().mac() + " right beside its MAC is, at "
                            + beside.get().address() + ": its other interface, or another unit of the same delivery.")
                    .act("Read its label. Put that MAC on record, or move the lead to the socket that is planned.");
        }
        return unseen(r, own);
    }

    /** Whether everybody there was asked after it was last seen; of a pasted table, which shows only some, not for a month. */
    private boolean silentSince(Place place) {
        if (place.last().isBefore(pastedSilence)) return true;
        return !site.swept().isEmpty()
                && site.sweptAt(place.address())
                        .filter(t -> t.isAfter(place.last().plus(Sighting.TOGETHER)))
                        .isPresent();
    }

    private Finding seen(Recorded r, Place own) {
        var rivals = rivals(own);
        boolean home = r.address().filter(own.address()::equals).isPresent();
        if (home && rivals.isEmpty()) return asRecorded(r, own);
        if (home)
            return finding(Standing.DUPLICATE, r, own, 1)
                    .says("Two answer for " + own.address() + ": its own MAC, and " + who(rivals) + ".")
                    .act(rivals.stream()
                            .map(p -> giveWay(p, own.address()))
                            .sorted()
                            .collect(Collectors.joining(" ")));
        String pool = pool(own.address());
        String held = r.address().map(a -> holder(a, own.mac())).orElse("");
        return finding(pool.isEmpty() ? Standing.MOVED : Standing.AUTOMATIC, r, own, 1)
                .says(r.address().map(a -> "Planned at " + a).orElse("It has no address on record") + ", seen at "
                        + own.address() + pool + where(r, own.address()) + "."
                        + (held.isEmpty() ? "" : " " + held + " answers at its own address."))
                .act(r.address()
                        .map(a -> (held.isEmpty() ? "" : "Move " + held + " away first. ") + "Put " + a
                                + " back on the device, or give the new one to everything that calls it.")
                        .orElse("Plan its address."));
    }

    /** Nearly all are, so it is made without a step between. */
    private Finding asRecorded(Recorded r, Place own) {
        return new Finding(
                Standing.AS_RECORDED,
                r.id(),
                r.name(),
                r.mac(),
                Optional.of(new Finding.Stay(own.address(), own.first(), own.last())),
                sure(own, 1),
                own.sources(),
                "There, with its own MAC.",
                "");
    }

    /** Who else has the same address at the same time. */
    private List<Place> rivals(Place own) {
        if (!places.shared(own.address())) return List.of();
        return places.at(own.address()).stream()
                .filter(p -> !p.mac().equals(own.mac()) && Sighting.together(p.last(), own.last()))
                .filter(p -> p.sources().contains(Source.NEIGHBOURS))
                // One sweep may miss one of two; a check asks this very address, several times.
                .filter(p ->
                        !site.alone().getOrDefault(own.address(), Instant.MIN).isAfter(p.last()))
                .filter(p -> places.owner(p.mac()).isEmpty()
                        || !places.owner(p.mac()).equals(places.owner(own.mac())))
                .toList();
    }

    private String giveWay(Place rival, Ipv4Address from) {
        return "Unplug " + who(rival.mac()) + " first, and give it "
                + places.owner(rival.mac())
                        .flatMap(Recorded::address)
                        .filter(a -> !a.equals(from))
                        .map(a -> "back its own address " + a)
                        .orElse("an address of its own")
                + ".";
    }

    private String who(List<Place> places) {
        return places.stream().map(p -> who(p.mac())).sorted().collect(Collectors.joining(" and "));
    }

    private String who(Mac mac) {
        return places.owner(mac).map(o -> o.name() + " (" + mac + ")").orElseGet(mac::toString);
    }

    private String holder(Ipv4Address address, Mac but) {
        return places.at(address).stream()
                .filter(p -> !p.mac().equals(but) && !silentSince(p))
                .map(p -> who(p.mac()))
                .sorted()
                .findFirst()
                .orElse("");
    }

    private String pool(Ipv4Address address) {
        return site.segmentOf(address).flatMap(s -> s.poolOf(address)).isPresent()
                ? ", an address that is handed out: reset, or never saved"
                : "";
    }

    /** Whether it stands in another network than it is planned in. */
    private String where(Recorded r, Ipv4Address at) {
        var meant = r.address().flatMap(site::segmentOf);
        return meant.filter(s -> !s.prefix().contains(at)).isPresent()
                ? ", in another network: another socket or VLAN"
                : "";
    }

    /** A MAC beside its own that nobody knows: at its own address, or the only one anywhere beside no other silent one. */
    private Optional<Place> beside(Recorded r) {
        if (r.mac().isEmpty()) return Optional.empty();
        var mac = r.mac().get();
        var near = Stream.concat(
                        r.address().map(places::at).orElse(List.of()).stream(),
                        beside(mac).flatMap(m -> places.of(m).stream()))
                .filter(p -> places.owner(p.mac()).isEmpty() && !decisions.containsKey(p.mac()))
                .filter(p -> p.mac().neighbourOf(mac) && !silentSince(p) && !settled.contains(p.mac()))
                // A router or partner of the same delivery is where it belongs.
                .filter(p -> !site.fixtures().containsKey(p.address())
                        || places.planned(p.address()).isPresent())
                .distinct()
                .toList();
        var home = near.stream()
                .filter(p -> r.address().filter(p.address()::equals).isPresent())
                .findFirst();
        return home.isPresent()
                ? home
                : near.size() == 1 && onlySilent(near.get(0).mac(), r) ? Optional.of(near.get(0)) : Optional.empty();
    }

    private boolean onlySilent(Mac mac, Recorded r) {
        return beside(mac)
                .flatMap(m -> places.owner(m).stream())
                .distinct()
                .filter(o ->
                        o.mac().flatMap(places::of).filter(p -> !silentSince(p)).isEmpty())
                .allMatch(r::equals);
    }

    /** The MACs of which {@link Mac#neighbourOf} says that they are beside one. */
    private static Stream<Mac> beside(Mac mac) {
        return Stream.iterate(-8L, by -> by <= 8, by -> by + 1)
                .filter(by -> by != 0 && (mac.bits() & 0xFFFFFF) + by >= 0 && (mac.bits() & 0xFFFFFF) + by <= 0xFFFFFF)
                .map(by -> new Mac(mac.bits() + by));
    }

    private Finding unseen(Recorded r, Optional<Place> own) {
        var swept = own.map(Place::address).or(r::address).flatMap(site::sweptAt);
        String held = r.address()
                .map(a -> holder(a, r.mac().orElse(new Mac(0))))
                .filter(h -> !h.isEmpty())
                .map(h -> " " + h + " answers at its address.")
                .orElse("");
        if (r.mac().isEmpty())
            return unseen(r)
                    .says("Its MAC is not on record, so it cannot be told from others." + held)
                    .act("Read its label.");
        var look = own.isPresent() && swept.isEmpty() ? site.pasted() : swept;
        if (look.isEmpty())
            return unseen(r)
                    .says((site.pasted().isEmpty()
                                    ? "Nobody has looked yet."
                                    : "It is in no table that was pasted, and those show only who talked lately.")
                            + held)
                    .act("Sweep its segment.");
        double days = own.map(p -> Duration.between(p.last(), look.get()).toMinutes() / 1440.0)
                .orElse(SILENCE_HALF_DAYS);
        double sure = 1 - 0.5 * Math.pow(0.5, days / SILENCE_HALF_DAYS);
        return new Draft(Standing.SILENT, r.id(), r.name(), r.mac(), own, percent(sure * decay(look.get())))
                .says((own.isPresent()
                                ? "Others were seen since, it was not."
                                : "It was never seen, though everybody there was asked.")
                        + held)
                .act(
                        held.isEmpty()
                                ? "Is it on? Check it, and retire it when it is gone."
                                : "See whether it was replaced: compare the label of what stands there.");
    }

    private static Draft unseen(Recorded r) {
        return new Draft(Standing.UNSEEN, r.id(), r.name(), r.mac(), Optional.empty(), 99);
    }

    private Optional<Finding> unknown(Place place) {
        if (Duration.between(place.last(), now).compareTo(GONE) > 0) return Optional.empty();
        if (site.fixtures().containsKey(place.address())
                && places.planned(place.address()).isEmpty()) return Optional.empty();
        // Seen while it was ours, and not since: it is gone with the unit.
        var former = Optional.ofNullable(site.former().get(place.mac()));
        if (former.filter(f -> !place.last().isAfter(f.until())).isPresent()) return Optional.empty();
        boolean leased = !pool(place.address()).isEmpty();
        var decision = Optional.ofNullable(decisions.get(place.mac()));
        var holds = decision.filter(
                d -> d.at().equals(place.address()) || leased && !pool(d.at()).isEmpty());
        if (holds.isPresent())
            return Optional.of(stranger(Standing.KNOWN, place, holds.get().what())
                    .says(holds.get().by() + " said what it is.")
                    .act(""));
        var rightful = places.planned(place.address());
        String ours = former.map(f -> " It was " + f.name() + " on record, was taken out, and has been seen since.")
                .orElse("");
        String before = decision.map(d -> " It was known as " + d.what() + " at " + d.at() + ", and has moved since.")
                .orElse("");
        return Optional.of(stranger(
                        leased ? Standing.GUEST : Standing.STRANGER,
                        place,
                        place.mac().toString())
                .says((leased
                                ? "On a lease in the pool; nobody has said what it is."
                                : rightful.map(Audit::atItsAddress)
                                        .orElse("It has a fixed address that is planned for nobody." + beside(place)))
                        + before
                        + ours)
                .act(
                        leased
                                ? "Say what it is, if it is to stay."
                                : rightful.filter(r -> r.mac().isEmpty()).isPresent()
                                        ? "Read the label of what stands there, and put that MAC on record if it is the same."
                                        : rightful.map(this::settleFirst).orElseGet(() -> findIt(place))));
    }

    private String settleFirst(Recorded r) {
        boolean there = r.mac().flatMap(places::of).filter(p -> !silentSince(p)).isPresent();
        return "Settle " + r.name() + " first: " + (there ? "" : "it was replaced, or ") + "this one is in its way.";
    }

    private String findIt(Place place) {
        return "Find it "
                + Optional.ofNullable(ports.get(place.mac()))
                        .map(p -> "at " + p)
                        .orElse("by its MAC at the switch")
                + ". Take it in, or say what it is.";
    }

    private static String atItsAddress(Recorded r) {
        return "It answers at the address of " + r.name()
                + (r.mac().isEmpty() ? ", whose MAC is not on record: it may be that one." : ".");
    }

    private String beside(Place place) {
        var rivals = rivals(place);
        return rivals.isEmpty() ? "" : " " + who(rivals) + " answers there too: neither works for long.";
    }

    private Draft finding(Standing standing, Recorded r, Place place, double sure) {
        return new Draft(standing, r.id(), r.name(), Optional.of(place.mac()), Optional.of(place), sure(place, sure));
    }

    private Draft stranger(Standing standing, Place place, String name) {
        return new Draft(standing, 0, name, Optional.of(place.mac()), Optional.of(place), sure(place, 1));
    }

    private int sure(Place place, double sure) {
        double strength = place.sources().contains(Source.NEIGHBOURS) ? 0.97 : 0.8;
        return percent(sure * strength * (place.denied() ? 0.85 : 1) * decay(place.last()));
    }

    /** What was seen loses half its weight every thirty days. */
    private double decay(Instant at) {
        return weights.computeIfAbsent(
                at, t -> Math.pow(0.5, Math.max(0, Duration.between(t, now).toMinutes()) / 1440.0 / HALF_LIFE_DAYS));
    }

    private static int percent(double share) {
        return Math.max(1, Math.min(99, (int) Math.round(100 * share)));
    }

    /** A finding before its two sentences. */
    private record Draft(
            Standing standing, long endpoint, String name, Optional<Mac> mac, Optional<Place> place, int sure) {

        private Said says(String says) {
            return new Said(this, says);
        }
    }

    private record Said(Draft draft, String says) {
        private Finding act(String act) {
            return new Finding(
                    draft.standing(),
                    draft.endpoint(),
                    draft.name(),
                    draft.mac(),
                    draft.place().map(p -> new Finding.Stay(p.address(), p.first(), p.last())),
                    draft.sure(),
                    draft.place().map(Place::sources).orElse(Set.of()),
                    says,
                    act);
        }
    }
}
