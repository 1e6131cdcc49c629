package app.knottag.core.address;

import app.knottag.core.reading.Finding;
import app.knottag.core.reading.Finding.Code;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** Judges an address that was read: special blocks (RFC 6890), then the segment at hand. */
final class AddressJudge {

    private static final Ipv4Prefix THIS_NETWORK = Ipv4Prefix.parse("0.0.0.0/8");
    private static final Ipv4Prefix LOOPBACK = Ipv4Prefix.parse("127.0.0.0/8");
    private static final Ipv4Prefix LINK_LOCAL = Ipv4Prefix.parse("169.254.0.0/16");
    private static final Ipv4Prefix MULTICAST = Ipv4Prefix.parse("224.0.0.0/4");
    private static final Ipv4Prefix RESERVED = Ipv4Prefix.parse("240.0.0.0/4");

    private AddressJudge() {}

    /** Returns everything that speaks against the address for this purpose; empty when nothing does. */
    public static List<Finding> judge(Ipv4Address address, Purpose purpose, AddressContext context) {
        var special = special(address);
        if (special.isPresent()) return List.of(special.get());
        return context.segment()
                .map(segment -> inSegment(address, purpose, segment, context))
                .orElseGet(() -> taken(address, purpose, context).map(List::of).orElse(List.of()));
    }

    private static Optional<Finding> special(Ipv4Address a) {
        if (a.number() == 0) return found(Code.UNSPECIFIED, "0.0.0.0 means that the device has no address yet.");
        if (a.number() == 0xFFFF_FFFFL)
            return found(Code.LIMITED_BROADCAST, "255.255.255.255 calls every device at once; none can have it.");
        if (THIS_NETWORK.contains(a))
            return found(Code.THIS_NETWORK, a + " begins with 0; no device can have such an address.");
        if (LOOPBACK.contains(a))
            return found(Code.LOOPBACK, a + " always means the device itself; no other can reach it there.");
        if (LINK_LOCAL.contains(a))
            return found(
                    Code.LINK_LOCAL,
                    a
                            + " is what a device gives itself: it found no server to give it an address. Look at the "
                            + "cable and the DHCP server.");
        if (MULTICAST.contains(a))
            return found(Code.MULTICAST, a + " is a multicast address; a device cannot have it.");
        if (RESERVED.contains(a))
            return found(Code.RESERVED, a + " lies in a reserved block; a device cannot have it.");
        return Optional.empty();
    }

    private static Optional<Finding> found(Code code, String message) {
        return Optional.of(Finding.of(code, message));
    }

    private static List<Finding> inSegment(Ipv4Address a, Purpose purpose, Segment segment, AddressContext context) {
        var prefix = segment.prefix();
        if (!prefix.contains(a)) {
            if (purpose == Purpose.RESOLVER) return List.of();
            var outside = Finding.of(
                    Code.OUTSIDE_SEGMENT,
                    a + " is outside " + prefix + ", which runs from " + prefix.lowestUsable() + " to "
                            + prefix.highestUsable() + ".");
            return List.of(AddressReader.asking(outside, Candidates.insideSegment(a, context)));
        }
        if (!prefix.usable(a))
            return List.of(
                    a.equals(prefix.network())
                            ? Finding.of(
                                    Code.NETWORK_ADDRESS,
                                    a + " names the network " + prefix + " itself; no device can have it.")
                            : Finding.of(
                                    Code.BROADCAST_ADDRESS,
                                    a + " is the broadcast address of " + prefix + "; no device can have it."));
        var findings = new ArrayList<Finding>();
        if (purpose == Purpose.ADDRESS && segment.gateway().filter(a::equals).isPresent())
            findings.add(Finding.of(Code.IS_GATEWAY, a + " is the gateway of this segment."));
        if (purpose == Purpose.GATEWAY)
            segment.gateway()
                    .filter(g -> !g.equals(a))
                    .ifPresent(g -> findings.add(Finding.of(
                            Code.GATEWAY_DIFFERS, "The gateway of this segment is " + g + ", not " + a + ".")));
        if (purpose != Purpose.RESOLVER)
            segment.poolOf(a)
                    .ifPresent(pool -> findings.add(Finding.of(
                            Code.IN_POOL,
                            a + " lies in the pool " + pool
                                    + ", which is handed out automatically. Choose one outside it.")));
        taken(a, purpose, context).ifPresent(findings::add);
        return findings;
    }

    private static Optional<Finding> taken(Ipv4Address a, Purpose purpose, AddressContext context) {
        boolean matters = purpose == Purpose.ADDRESS || purpose == Purpose.GATEWAY;
        return matters && context.taken().contains(a)
                ? found(Code.TAKEN, a + " is taken by another endpoint. Choose a free one.")
                : Optional.empty();
    }
}
