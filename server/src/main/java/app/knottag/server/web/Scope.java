package app.knottag.server.web;

import jakarta.servlet.http.HttpServletRequest;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.Supplier;
import java.util.function.ToLongFunction;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.web.context.request.RequestAttributes;
import org.springframework.web.context.request.RequestContextHolder;

/**
 * The sites that somebody sees: all of them, or those that a lead chose. What tells of several sites asks {@link #now}; whether
 * what is named in an address is within it is asked once, before any controller.
 *
 * @param only those of them, or empty when it is every site
 */
public record Scope(Optional<Set<Long>> only) {

    public static final Scope EVERYWHERE = new Scope(Optional.empty());

    private static final String OF_REQUEST = "knot.scope";

    public static Scope of(Collection<Long> sites) {
        return new Scope(Optional.of(Set.copyOf(sites)));
    }

    /** Returns that of whoever asks; what the server does by itself is done everywhere. */
    public static Scope now() {
        return Optional.ofNullable(RequestContextHolder.getRequestAttributes())
                .map(r -> r.getAttribute(OF_REQUEST, RequestAttributes.SCOPE_REQUEST))
                .map(Scope.class::cast)
                .orElse(EVERYWHERE);
    }

    public void keep(HttpServletRequest request) {
        request.setAttribute(OF_REQUEST, this);
    }

    /** Looks at every site, for whoever leaves out afterwards what is not seen. */
    public static <T> T everywhere(Supplier<T> look) {
        var scope = now();
        if (scope.only().isEmpty()) return look.get();
        var request = RequestContextHolder.currentRequestAttributes();
        request.setAttribute(OF_REQUEST, EVERYWHERE, RequestAttributes.SCOPE_REQUEST);
        try {
            return look.get();
        } finally {
            request.setAttribute(OF_REQUEST, scope, RequestAttributes.SCOPE_REQUEST);
        }
    }

    /** Refuses what is asked of a site that whoever asks does not see, as if it were not there. */
    public static void check(long siteId) {
        if (!now().sees(siteId)) throw Problem.notFound("There is no such site.");
    }

    public boolean sees(long siteId) {
        return only.map(s -> s.contains(siteId)).orElse(true);
    }

    /** Returns their numbers with blanks between them, as a query takes them, or null when it is every site. */
    public @Nullable String list() {
        return only.map(s -> s.stream().map(String::valueOf).collect(Collectors.joining(" ")))
                .orElse(null);
    }

    /** Returns what of a list is at a site that is seen. */
    public <T> List<T> seen(List<T> all, ToLongFunction<T> site) {
        return all.stream().filter(t -> sees(site.applyAsLong(t))).toList();
    }
}
