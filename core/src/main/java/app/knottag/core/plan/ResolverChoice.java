package app.knottag.core.plan;

import app.knottag.core.address.Ipv4Address;
import java.util.List;
import java.util.stream.Stream;

/** The pair of resolvers that the devices of a segment should use, in order, and why; none when none at hand will do. */
public record ResolverChoice(List<Ipv4Address> resolvers, String reason) {

    private static final int PAIR = 2;

    /** The resolvers at hand: the site's own, the provider's, a public pair; each list in order, none may be empty. */
    public record Known(List<Ipv4Address> site, List<Ipv4Address> provider, List<Ipv4Address> open) {}

    /**
     * Chooses a pair. The site's own comes first, because only it knows the names inside; a public one second, unless
     * port 53 is closed towards the outside. A device asks the second one whenever the first is slow, and takes its “no
     * such name” for an answer, so that whoever needs names inside gets none that does not know them.
     *
     * @param insideNames whether a device needs names that only the site knows
     * @param outsideAllowed whether name lookup to hosts outside passes
     */
    public static ResolverChoice choose(Known known, boolean insideNames, boolean outsideAllowed) {
        if (insideNames)
            return of(
                    known.site().stream(),
                    "It needs names that only the site's own resolver knows; another one second would sometimes be asked "
                            + "and not know them.",
                    "It needs names that only a resolver of the site knows, and none is on record.");
        if (!outsideAllowed)
            return of(
                    Stream.concat(known.site().stream(), known.provider().stream()),
                    "Name lookup to the outside is closed here, so only these can answer.",
                    "Name lookup to the outside is closed here, and neither the site nor its provider has a resolver on "
                            + "record.");
        return of(
                Stream.of(known.site().stream().limit(1), known.open().stream(), known.provider().stream())
                        .flatMap(s -> s),
                (known.site().isEmpty()
                                ? "None of the site's own is on record; these two"
                                : "The site's own first, another second,")
                        + " so that one may fail.",
                "No resolver is at hand.");
    }

    private static ResolverChoice of(Stream<Ipv4Address> candidates, String reason, String none) {
        var pair = candidates.distinct().limit(PAIR).toList();
        return new ResolverChoice(pair, pair.isEmpty() ? none : reason);
    }
}
