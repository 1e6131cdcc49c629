package app.knottag.core.plan;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Segment;
import app.knottag.core.hardware.Mac;
import app.knottag.core.plan.Sighting.Source;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * Whether an address is free, weighed from the segment and every source with its age. A record, or a lease that holds,
 * is a floor: no silence speaks against it. A sighting loses half its weight every thirty days. Silence counts only where
 * that source could have shown a device, and weakly, because devices are switched off and firewalls keep still. Never a
 * bare “free”.
 *
 * @param confidence chance that the verdict is right, in percent, 1..99
 * @param holder what holds it, as far as known, or empty
 */
public record FreeVerdict(Verdict verdict, int confidence, String holder, List<Voice> voices) {

    private static final double HALF_LIFE_DAYS = 30;
    private static final double UNRECORDED = 0.12;
    /** A neighbour table shows who talked with one machine lately: that is by far not everybody. */
    private static final double SILENCE = 0.3;

    private static final double RECORDED = 0.99;
    private static final double LEASED = 0.93;

    /** What can be said. */
    public enum Verdict {
        /** No device may be given it: gateway, pool, network or broadcast address, or no segment of this site. */
        NOT_TO_GIVE,
        TAKEN,
        DOUBTFUL,
        PROBABLY_FREE
    }

    /** What one source says, and how old that is. */
    public record Voice(String source, String says, Duration age) {}

    /**
     * Everything that is known.
     *
     * @param segments the site's segments
     * @param onRecord who holds an address by plan: endpoints, partners, resolvers, listed services
     * @param lookedAt when each source was last looked at
     */
    public record Evidence(
            List<Segment> segments,
            Map<Ipv4Address, String> onRecord,
            List<Sighting> sightings,
            Map<Source, Instant> lookedAt,
            Map<Mac, String> knownMacs) {}

    /** Weighs what is known of an address at a moment. */
    public static FreeVerdict of(Ipv4Address address, Evidence evidence, Instant now) {
        var seen = evidence.sightings().stream()
                .filter(s -> s.address().equals(address))
                .toList();
        return of(address, evidence, seen, now);
    }

    /** Weighs the same with the sightings of this address picked out already. */
    static FreeVerdict of(Ipv4Address address, Evidence evidence, Collection<Sighting> sightings, Instant now) {
        var voices = new ArrayList<Voice>();
        String holder = evidence.onRecord().get(address);
        double free = 1 - UNRECORDED, floor = 0;
        if (holder != null) {
            voices.add(new Voice("register", "Given to " + holder + ".", Duration.ZERO));
            floor = RECORDED;
        }
        var seen = new EnumMap<Source, Sighting>(Source.class);
        for (var s : sightings) seen.merge(s.source(), s, (a, b) -> a.seenAt().isAfter(b.seenAt()) ? a : b);
        for (var s : seen.values()) {
            free *= 1 - weight(s, now);
            if (leased(s, now)) floor = Math.max(floor, LEASED);
            String who = s.mac()
                    .map(m -> evidence.knownMacs().getOrDefault(m, m.toString()))
                    .orElse("something");
            if (holder == null) holder = who;
            voices.add(new Voice(s.source().words(), "Held by " + who + ".", Duration.between(s.seenAt(), now)));
        }
        double taken = 1 - free;
        for (var look : evidence.lookedAt().entrySet())
            if (!seen.containsKey(look.getKey())) {
                taken *= 1 - silence(look.getKey(), look.getValue(), seen.values(), now);
                voices.add(new Voice(look.getKey().words(), "Not in it.", Duration.between(look.getValue(), now)));
            }
        var why = notToGive(address, evidence.segments());
        if (why.isPresent()) {
            voices.add(0, new Voice("plan", "It is " + why.get() + ".", Duration.ZERO));
            return new FreeVerdict(Verdict.NOT_TO_GIVE, 99, holder == null ? why.get() : holder, List.copyOf(voices));
        }
        return judged(Math.max(taken, floor), Optional.ofNullable(holder).orElse(""), voices);
    }

    /** Why no device may be given the address, or empty. */
    private static Optional<String> notToGive(Ipv4Address address, List<Segment> segments) {
        var segment =
                segments.stream().filter(s -> s.prefix().contains(address)).findFirst();
        if (segment.isEmpty()) return Optional.of("in no segment of this site");
        var s = segment.get();
        if (!s.prefix().usable(address)) return Optional.of("the network or broadcast address of " + s.prefix());
        if (s.gateway().filter(address::equals).isPresent()) return Optional.of("the gateway of " + s.prefix());
        return s.poolOf(address).map(p -> "in the pool " + p);
    }

    /** What the silence of a source says: nothing where the device was seen later, or where the source shows only some. */
    private static double silence(Source source, Instant lookedAt, Collection<Sighting> seen, Instant now) {
        if (source != Source.NEIGHBOURS) return 0;
        if (seen.stream().anyMatch(s -> !s.seenAt().isBefore(lookedAt))) return 0;
        return SILENCE * source.strength() * decay(Duration.between(lookedAt, now));
    }

    private static FreeVerdict judged(double taken, String holder, List<Voice> voices) {
        var verdict = taken >= 0.8 ? Verdict.TAKEN : taken >= 0.25 ? Verdict.DOUBTFUL : Verdict.PROBABLY_FREE;
        double sure = verdict == Verdict.TAKEN ? taken : 1 - taken;
        int percent = (int) Math.round(100 * sure);
        return new FreeVerdict(verdict, Math.max(1, Math.min(99, percent)), holder, List.copyOf(voices));
    }

    private static boolean leased(Sighting s, Instant now) {
        return s.source() == Source.LEASES
                && s.leaseEnds().filter(now::isBefore).isPresent();
    }

    private static double weight(Sighting s, Instant now) {
        return s.source().strength() * (leased(s, now) ? 1 : decay(Duration.between(s.seenAt(), now)));
    }

    private static double decay(Duration age) {
        return Math.pow(0.5, Math.max(0, age.toHours()) / 24.0 / HALF_LIFE_DAYS);
    }
}
