package app.knottag.core.plan;

import app.knottag.core.address.Ipv4Address;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;

/**
 * The pair of resolvers that a device should use, in order, and why.
 *
 * @param needsTest whether both must answer a test name before they are trusted
 */
public record ResolverChoice(List<Ipv4Address> resolvers, String reason, boolean needsTest) {

    /** The resolvers at hand: the site's own, the provider's, a public pair; each list in order, none may be empty. */
    public record Known(List<Ipv4Address> site, List<Ipv4Address> provider, List<Ipv4Address> open) {}

    /**
     * Chooses a pair. The site's own comes first, because only it knows the names inside; a public one second, unless
     * port 53 is closed towards the outside.
     *
     * @param insideNames whether the device needs names that only the site knows
     * @param outsideAllowed whether name lookup to hosts outside passes
     */
    public static ResolverChoice choose(Known known, boolean insideNames, boolean outsideAllowed) {
        var outside = Stream.concat(known.open().stream(), known.provider().stream());
        var own = known.site().stream();
        if (!outsideAllowed) {
            var pair = Stream.concat(own, known.provider().stream())
                    .distinct()
                    .limit(2)
                    .toList();
            return new ResolverChoice(
                    pair,
                    "Name lookup to the outside is closed here, so only the site's own"
                            + (pair.size() > known.site().size() ? " and the provider's" : "") + " can answer.",
                    true);
        }
        if (insideNames)
            return known.site().isEmpty()
                    ? new ResolverChoice(
                            List.of(),
                            "It needs names that only a resolver of the site knows, and none is on record.",
                            true)
                    : new ResolverChoice(
                            known.site().stream().limit(2).toList(),
                            "It needs names that only the site's own resolver knows; a public one second would "
                                    + "sometimes be asked and not know them.",
                            true);
        var pair = Stream.concat(own.limit(1), outside).distinct().limit(2).toList();
        return new ResolverChoice(pair, first(known) + " first, another second, so that one may fail.", true);
    }

    private static String first(Known known) {
        return Optional.of(known.site())
                .filter(s -> !s.isEmpty())
                .map(s -> "The site's own")
                .orElse("A public one");
    }
}
