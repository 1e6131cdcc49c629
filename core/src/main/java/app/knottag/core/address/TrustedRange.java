package app.knottag.core.address;

import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;

/** Shrinks a range that a device is told to trust to the hosts that need it. */
public final class TrustedRange {

    private TrustedRange() {}

    /**
     * What a range lets in, and the smaller list that does as well.
     *
     * @param prefixes the range as prefixes
     * @param warnings what it holds that must not be trusted
     * @param keep the single hosts that need trust
     * @param removed how many addresses lose it
     */
    public record Shrunk(
            long count, List<Ipv4Prefix> prefixes, List<String> warnings, List<Ipv4Address> keep, long removed) {}

    /**
     * Proposes the smallest set of hosts.
     *
     * @param needing hosts that need trust; those outside the range are named and kept
     * @param untrusted other ground that should never be trusted, such as guests or cameras, by name
     */
    public static Shrunk shrink(
            AddressRange range, Segment segment, Collection<Ipv4Address> needing, Map<String, AddressRange> untrusted) {
        var warnings = new ArrayList<String>();
        segment.gateway()
                .filter(range::contains)
                .ifPresent(
                        g -> warnings.add("It trusts the gateway " + g + ", and so everything that comes through it."));
        for (var pool : segment.pools())
            if (range.overlaps(new AddressRange(pool.from(), pool.to())))
                warnings.add("It trusts the pool " + pool + ": whoever plugs in there is let in.");
        untrusted.forEach((name, ground) -> {
            if (range.overlaps(ground)) warnings.add("It trusts " + name + ", " + ground + ".");
        });
        var keep = needing.stream().distinct().sorted().toList();
        for (var host : keep)
            if (!range.contains(host)) warnings.add(host + " needs trust but lies outside; add it by itself.");
        long inside = keep.stream().filter(range::contains).count();
        return new Shrunk(range.count(), range.prefixes(), List.copyOf(warnings), keep, range.count() - inside);
    }
}
