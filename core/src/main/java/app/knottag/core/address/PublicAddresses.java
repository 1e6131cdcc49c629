package app.knottag.core.address;

import java.util.List;
import java.util.stream.Stream;

/** Addresses that are reached over the internet only. */
public final class PublicAddresses {

    /** Private and shared addresses (RFC 1918, RFC 6598), loopback, link-local, multicast and reserved (RFC 6890). */
    private static final List<Ipv4Prefix> NEVER_ELSEWHERE = Stream.of(
                    "0.0.0.0/8",
                    "10.0.0.0/8",
                    "100.64.0.0/10",
                    "127.0.0.0/8",
                    "169.254.0.0/16",
                    "172.16.0.0/12",
                    "192.168.0.0/16",
                    "224.0.0.0/3")
            .map(Ipv4Prefix::parse)
            .toList();

    private PublicAddresses() {}

    /** Whether an address can be one of the internet. */
    public static boolean include(Ipv4Address address) {
        return NEVER_ELSEWHERE.stream().noneMatch(p -> p.contains(address));
    }
}
