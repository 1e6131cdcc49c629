package app.knottag.core.address;

import java.util.List;
import java.util.Optional;

/** One subnet as far as an address must be judged against it. The gateway is empty while it is not known. */
public record Segment(Ipv4Prefix prefix, Optional<Ipv4Address> gateway, List<Pool> pools) {

    public Segment {
        pools = List.copyOf(pools);
    }

    /** Returns the pool that may hand out the address, or empty. */
    public Optional<Pool> poolOf(Ipv4Address address) {
        return pools.stream().filter(p -> p.contains(address)).findFirst();
    }

    /** Returns whether a device may be given the address for good: usable, not the gateway, in no pool. */
    public boolean fixable(Ipv4Address address) {
        return prefix.usable(address)
                && gateway.filter(address::equals).isEmpty()
                && poolOf(address).isEmpty();
    }

    /** Returns how many addresses can be fixed on devices, taken or not. */
    public long fixableHosts() {
        long pooled = pools.stream()
                .mapToLong(p -> Math.max(
                        0,
                        Math.min(p.to().number(), prefix.highestUsable().number())
                                - Math.max(
                                        p.from().number(), prefix.lowestUsable().number())
                                + 1))
                .sum();
        boolean gatewayCounts =
                gateway.filter(g -> prefix.usable(g) && poolOf(g).isEmpty()).isPresent();
        return prefix.usableHosts() - pooled - (gatewayCounts ? 1 : 0);
    }
}
