package app.knottag.core.reach;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Ipv4Prefix;
import java.util.List;
import java.util.Optional;

/** Only our own ground: which addresses may be asked at all. */
public final class AllowedTargets {

    /** Private and shared addresses (RFC 1918, RFC 6598), loopback, link-local and multicast (RFC 6890). */
    private static final List<Ipv4Prefix> NEVER_ELSEWHERE = List.of(
            Ipv4Prefix.parse("0.0.0.0/8"),
            Ipv4Prefix.parse("10.0.0.0/8"),
            Ipv4Prefix.parse("100.64.0.0/10"),
            Ipv4Prefix.parse("127.0.0.0/8"),
            Ipv4Prefix.parse("169.254.0.0/16"),
            Ipv4Prefix.parse("172.16.0.0/12"),
            Ipv4Prefix.parse("192.168.0.0/16"),
            Ipv4Prefix.parse("224.0.0.0/3"));

    private AllowedTargets() {}

    /** Whether an address lies in one of the site's segments. */
    public static boolean own(Ipv4Address address, List<Ipv4Prefix> segments) {
        return segments.stream().anyMatch(p -> p.contains(address));
    }

    /**
     * Judges where the name of a service that the site lists has led.
     *
     * @return why it must not be asked, or empty
     */
    public static Optional<String> problem(String host, Ipv4Address found, List<Ipv4Prefix> segments) {
        if (own(found, segments) || NEVER_ELSEWHERE.stream().noneMatch(p -> p.contains(found))) return Optional.empty();
        return Optional.of(host + (host.equals(found.toString()) ? "" : " leads to " + found + ", which")
                + " is a private address outside this site's segments. It is not asked.");
    }
}
