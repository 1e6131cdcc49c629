package app.knottag.core.address;

import java.util.List;
import java.util.Optional;

/**
 * Where segments may be drawn, since whatever lies in one may be asked by this machine: private ranges (RFC 1918, RFC 6598), or
 * what the operator names. Special ranges (RFC 6890) never.
 */
public record AllowedSegments(List<Ipv4Prefix> allowed) {

    private static final int WIDEST_FOR_ALL = 16;
    private static final List<Ipv4Prefix> PRIVATE =
            List.of(p("10.0.0.0/8"), p("172.16.0.0/12"), p("192.168.0.0/16"), p("100.64.0.0/10"));
    private static final List<Ipv4Prefix> SPECIAL = List.of(
            p("0.0.0.0/8"),
            p("127.0.0.0/8"),
            p("169.254.0.0/16"),
            p("192.0.0.0/24"),
            p("192.0.2.0/24"),
            p("192.88.99.0/24"),
            p("198.18.0.0/15"),
            p("198.51.100.0/24"),
            p("203.0.113.0/24"),
            p("224.0.0.0/3"));

    public AllowedSegments {
        allowed = List.copyOf(allowed);
    }

    private static Ipv4Prefix p(String text) {
        return Ipv4Prefix.parse(text);
    }

    /**
     * Returns why a segment may not be drawn so, or empty.
     *
     * @param lead whether a lead draws it; only they draw one wider than a /16
     */
    public Optional<String> problem(Ipv4Prefix segment, boolean lead) {
        var special = SPECIAL.stream().filter(segment::overlaps).findFirst();
        if (special.isPresent())
            return Optional.of(segment + " holds addresses of " + special.get()
                    + ", which no device of a site has (RFC 6890). Look at the figures again.");
        var ground = allowed.isEmpty() ? PRIVATE : allowed;
        if (ground.stream().noneMatch(g -> within(segment, g)))
            return Optional.of(segment
                    + (allowed.isEmpty()
                            ? " is public. Only private ranges may be drawn, unless whoever runs Knot Tag allows others (--allow)."
                            : " lies outside of what whoever runs Knot Tag allows: " + join(allowed) + "."));
        return segment.prefixLength() < WIDEST_FOR_ALL && !lead
                ? Optional.of(
                        "A segment wider than a /" + WIDEST_FOR_ALL + " is drawn by a lead. Is it really one network?")
                : Optional.empty();
    }

    private static boolean within(Ipv4Prefix inner, Ipv4Prefix outer) {
        return outer.contains(inner.network()) && inner.prefixLength() >= outer.prefixLength();
    }

    private static String join(List<Ipv4Prefix> prefixes) {
        return String.join(", ", prefixes.stream().map(Ipv4Prefix::toString).toList());
    }
}
