package app.knottag.core.plan;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.hardware.Mac;
import app.knottag.core.plan.Sighting.Source;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * Whether an address is free, weighed from every source with its age. A sighting loses half its weight every thirty
 * days; silence counts little, because devices are switched off and firewalls keep still. Never a bare “free”.
 *
 * @param confidence chance that the verdict is right, in percent, 1..99
 * @param holder what holds it, as far as known, or empty
 */
public record FreeVerdict(Verdict verdict, int confidence, String holder, List<Voice> voices) {

    private static final double HALF_LIFE_DAYS = 30;
    private static final double UNRECORDED = 0.12;
    private static final double SILENCE = 0.5;

    /** What can be said. */
    public enum Verdict {
        TAKEN,
        DOUBTFUL,
        PROBABLY_FREE
    }

    /** What one source says, and how old that is. */
    public record Voice(String source, String says, Duration age) {}

    /** Everything that is known: who is on record, what was seen, and when each source was last looked at. */
    public record Evidence(
            Map<Ipv4Address, String> onRecord,
            List<Sighting> sightings,
            Map<Source, Instant> lookedAt,
            Map<Mac, String> knownMacs) {}

    /** Weighs what is known of an address at a moment. */
    public static FreeVerdict of(Ipv4Address address, Evidence evidence, Instant now) {
        var voices = new ArrayList<Voice>();
        String holder = evidence.onRecord().get(address);
        double free = 1 - UNRECORDED;
        if (holder != null) {
            voices.add(new Voice("register", "Given to " + holder + ".", Duration.ZERO));
            free = 0.01;
        }
        var seen = new EnumMap<Source, Sighting>(Source.class);
        for (var s : evidence.sightings())
            if (s.address().equals(address))
                seen.merge(s.source(), s, (a, b) -> a.seenAt().isAfter(b.seenAt()) ? a : b);
        for (var s : seen.values()) {
            free *= 1 - weight(s, now);
            String who = s.mac()
                    .map(m -> evidence.knownMacs().getOrDefault(m, m.toString()))
                    .orElse("something");
            if (holder == null) holder = who;
            voices.add(new Voice(s.source().words(), "Held by " + who + ".", Duration.between(s.seenAt(), now)));
        }
        double taken = 1 - free;
        for (var look : evidence.lookedAt().entrySet())
            if (!seen.containsKey(look.getKey())) {
                double fresh = decay(Duration.between(look.getValue(), now));
                taken *= 1 - SILENCE * fresh * look.getKey().strength();
                voices.add(new Voice(look.getKey().words(), "Not in it.", Duration.between(look.getValue(), now)));
            }
        return judged(taken, Optional.ofNullable(holder).orElse(""), voices);
    }

    private static FreeVerdict judged(double taken, String holder, List<Voice> voices) {
        var verdict = taken >= 0.8 ? Verdict.TAKEN : taken >= 0.25 ? Verdict.DOUBTFUL : Verdict.PROBABLY_FREE;
        double sure = verdict == Verdict.TAKEN ? taken : 1 - taken;
        int percent = (int) Math.round(100 * sure);
        return new FreeVerdict(verdict, Math.max(1, Math.min(99, percent)), holder, List.copyOf(voices));
    }

    private static double weight(Sighting s, Instant now) {
        boolean leased = s.leaseEnds().filter(now::isBefore).isPresent();
        return s.source().strength() * (leased ? 1 : decay(Duration.between(s.seenAt(), now)));
    }

    private static double decay(Duration age) {
        return Math.pow(0.5, Math.max(0, age.toHours()) / 24.0 / HALF_LIFE_DAYS);
    }
}
