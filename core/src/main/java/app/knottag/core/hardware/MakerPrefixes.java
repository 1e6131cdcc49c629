package app.knottag.core.hardware;

import java.util.Collection;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;

/**
 * Judges the maker prefix of a MAC (first 24 bits, IEEE 802 OUI) by what the register has taught: devices of one kind
 * at one client come from few makers. No list of makers is needed, and none goes out of date.
 */
public final class MakerPrefixes {

    /** So many devices of a kind with the same prefix make it the usual one. */
    private static final int ENOUGH = 3;

    private final Map<Long, Map<String, Integer>> kindsByPrefix = new HashMap<>();
    private final Map<String, Integer> byKind = new HashMap<>();

    /**
     * Devices on record.
     *
     * @param mac of one of them
     * @param count how many of the kind have its prefix, 1 or more
     */
    public record Known(Mac mac, String kind, int count) {}

    /** Learns from the living endpoints. */
    public MakerPrefixes(Collection<Known> known) {
        for (var k : known) {
            kindsByPrefix
                    .computeIfAbsent(prefix(k.mac()), p -> new HashMap<>())
                    .merge(k.kind(), k.count(), Integer::sum);
            byKind.merge(k.kind(), k.count(), Integer::sum);
        }
    }

    private static long prefix(Mac mac) {
        return mac.bits() >>> 24;
    }

    /**
     * Returns a warning when the MAC has a prefix that other kinds have and this kind never had, although enough of it
     * are known; empty when nothing speaks against it.
     */
    public Optional<String> oddFor(Mac mac, String kind) {
        var kinds = kindsByPrefix.getOrDefault(prefix(mac), Map.of());
        int same = kinds.getOrDefault(kind, 0);
        if (same > 0 || byKind.getOrDefault(kind, 0) < ENOUGH || kinds.isEmpty()) return Optional.empty();
        String other = kinds.entrySet().stream()
                .max(Map.Entry.<String, Integer>comparingByValue().thenComparing(Map.Entry.comparingByKey()))
                .orElseThrow()
                .getKey();
        return Optional.of(mac.toString().substring(0, 8) + " stands on the " + other.replace('-', ' ')
                + "s of this register, and on none of the " + byKind.get(kind)
                + " devices of this kind. Was the next line of the list copied, or is it an adapter?");
    }
}
