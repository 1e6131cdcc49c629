package app.knottag.server.live;

import app.knottag.server.web.Scope;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;

/**
 * Where something was changed; what it was is asked for as always, by whoever may see it.
 *
 * @param sites the sites that are touched in any way
 * @param whole those of them of which any endpoint may be touched
 * @param endpoints the endpoints that are touched
 * @param everywhere whether something may have changed anywhere: of no site, or nobody can tell
 */
record Changed(Set<Long> sites, Set<Long> whole, Set<Long> endpoints, boolean everywhere) {

    /** So many endpoints are named; of more of them it is only said of which sites they are. */
    private static final int MOST_NAMED = 200;

    static final Changed NOTHING = new Changed(Set.of(), Set.of(), Set.of(), false);
    static final Changed EVERYWHERE = new Changed(Set.of(), Set.of(), Set.of(), true);

    /** Reads what the database tells: the site and the endpoint, each empty for none. */
    static Changed read(String told) {
        var parts = told.split(" ", -1);
        var site = number(parts[0]);
        var endpoint = parts.length > 1 ? number(parts[1]) : Optional.<Long>empty();
        return site.map(s -> endpoint.map(e -> at(s, e)).orElse(new Changed(Set.of(s), Set.of(s), Set.of(), false)))
                .orElse(EVERYWHERE);
    }

    static Changed at(long site, long endpoint) {
        return new Changed(Set.of(site), Set.of(), Set.of(endpoint), false);
    }

    private static Optional<Long> number(String text) {
        return text.matches("\\d{1,18}") ? Optional.of(Long.valueOf(text)) : Optional.empty();
    }

    Changed and(Changed other) {
        var all = together(endpoints, other.endpoints);
        var touched = together(sites, other.sites);
        boolean many = all.size() > MOST_NAMED;
        return new Changed(
                touched,
                many ? touched : together(whole, other.whole),
                many ? Set.of() : all,
                everywhere || other.everywhere);
    }

    /** Returns what of it somebody may be told who sees but some sites; which endpoints of them, only where no other site is touched. */
    Changed within(Scope scope) {
        var seen = sites.stream().filter(scope::sees).collect(Collectors.toSet());
        return seen.size() == sites.size() ? this : new Changed(seen, seen, Set.of(), everywhere);
    }

    private static Set<Long> together(Set<Long> one, Set<Long> two) {
        var all = new TreeSet<>(one);
        all.addAll(two);
        return all;
    }
}
