package app.knottag.core.reach;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Ipv4Prefix;
import app.knottag.core.address.PublicAddresses;
import java.util.List;
import java.util.Optional;

/** Only our own ground: which addresses may be asked at all. */
public final class AllowedTargets {

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
        if (own(found, segments) || PublicAddresses.include(found)) return Optional.empty();
        return Optional.of(host + (host.equals(found.toString()) ? "" : " leads to " + found + ", which")
                + " is a private address outside this site's segments. It is not asked.");
    }
}
