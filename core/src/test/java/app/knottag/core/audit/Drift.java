package app.knottag.core.audit;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.audit.AuditSite.Recorded;
import app.knottag.core.audit.AuditSite.Seen;
import app.knottag.core.hardware.Mac;
import app.knottag.core.plan.Sighting.Source;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/**
 * A site of fifty devices to which things happen: some are reset, moved, swapped with another, switched off, plugged in by
 * their other socket, doubled by a stranger. Then it is looked at: each look misses some, leases stay in the list of those who
 * no longer use them, a proxy answers for an address that nobody has, and the table keeps a line from before the move.
 */
final class Drift {

    static final int DEVICES = 50;
    private static final Instant BEFORE = AuditTest.NOW.minus(Duration.ofDays(40));

    final Map<Long, Standing> truth = new LinkedHashMap<>();
    final List<Mac> strangers = new ArrayList<>();
    private final Random random;
    private final List<Recorded> recorded = new ArrayList<>();
    private final List<Seen> seen = new ArrayList<>();
    private int pool = 100;
    private int free = 60;

    Drift(long seed) {
        random = new Random(seed);
        for (int i = 1; i <= DEVICES; i++)
            recorded.add(new Recorded(
                    i,
                    "Device " + i,
                    Optional.of(address(1 + i)),
                    Optional.of(mac(16 * i)),
                    random.nextInt(4) == 0 ? List.of(mac(16 * i + 1)) : List.of()));
        for (int i = 0; i < DEVICES; i++) happen(i);
        for (int i = 0; i < random.nextInt(4); i++) stranger(address(free++));
        leftovers();
    }

    private static Ipv4Address address(int last) {
        return AuditTest.at(String.valueOf(last));
    }

    private static Mac mac(int n) {
        return new Mac(0x00005E100000L + n);
    }

    private void happen(int i) {
        var r = recorded.get(i);
        long id = r.id();
        if (truth.containsKey(id)) return;
        var own = r.mac().orElseThrow();
        var home = r.address().orElseThrow();
        switch (random.nextInt(16)) {
            case 0 -> now(id, Standing.AUTOMATIC, own, address(pool++));
            case 1 -> now(id, Standing.MOVED, own, address(free++));
            case 2 -> {
                var other = i + 1 < DEVICES ? recorded.get(i + 1) : r;
                if (other == r) now(id, Standing.AS_RECORDED, own, home);
                else {
                    now(id, Standing.MOVED, own, other.address().orElseThrow());
                    now(other.id(), Standing.MOVED, other.mac().orElseThrow(), home);
                }
            }
            case 3 -> truth.put(id, Standing.SILENT);
            case 4 -> {
                // Its other socket, on record or not.
                var other = r.others().isEmpty()
                        ? mac(16 * (i + 1) + 1 + random.nextInt(3))
                        : r.others().get(0);
                now(id, Standing.OTHER_INTERFACE, other, random.nextBoolean() ? home : address(pool++));
            }
            case 5 -> {
                now(id, Standing.DUPLICATE, own, home);
                stranger(home);
            }
            default -> now(id, Standing.AS_RECORDED, own, home);
        }
        if (random.nextInt(3) == 0) seen.add(new Seen(own, home, Source.NEIGHBOURS, BEFORE, BEFORE));
    }

    private void stranger(Ipv4Address at) {
        var mac = new Mac(0x00005E800000L + 32L * random.nextInt(200_000));
        strangers.add(mac);
        look(mac, at);
    }

    private void now(long id, Standing standing, Mac mac, Ipv4Address at) {
        truth.put(id, standing);
        look(mac, at);
    }

    /** Three looks of the last hours, each of which misses some; what was seen more than once is one stay. */
    private void look(Mac mac, Ipv4Address at) {
        var times = Stream.of(9L, 5L, 1L)
                .filter(h -> random.nextInt(100) < 80)
                .map(h -> AuditTest.NOW.minus(Duration.ofHours(h)))
                .toList();
        if (!times.isEmpty()) seen.add(new Seen(mac, at, Source.NEIGHBOURS, times.get(0), times.get(times.size() - 1)));
    }

    private void leftovers() {
        for (var r : recorded) {
            // A lease from the day of its set-up goes on in the list.
            if (random.nextInt(8) == 0)
                seen.add(new Seen(r.mac().orElseThrow(), address(pool++), Source.LEASES, BEFORE, AuditTest.NOW));
            // A line from before, which the table kept.
            if (truth.get(r.id()) == Standing.MOVED && random.nextInt(4) == 0)
                seen.add(new Seen(
                        r.mac().orElseThrow(),
                        r.address().orElseThrow(),
                        Source.NEIGHBOURS,
                        BEFORE,
                        AuditTest.NOW.minus(Duration.ofHours(10))));
        }
        // The router answers for an address that nobody has.
        seen.add(new Seen(mac(2), address(1), Source.NEIGHBOURS, BEFORE, AuditTest.NOW));
    }

    Set<Mac> recordedMacs() {
        return recorded.stream()
                .flatMap(r -> Stream.concat(r.mac().stream(), r.others().stream()))
                .collect(Collectors.toSet());
    }

    AuditSite site() {
        return new AuditSite(
                AuditTest.SEGMENTS,
                recorded,
                Map.of(address(1), "the gateway of Shop"),
                seen,
                Optional.empty(),
                Map.of(AuditTest.SEGMENTS.get(0).prefix(), AuditTest.NOW.minus(Duration.ofHours(1))),
                Map.of(),
                Map.of(),
                List.of());
    }
}
