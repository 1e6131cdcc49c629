package app.knottag.server.record;

import app.knottag.core.address.AllowedSegments;
import app.knottag.core.address.Ipv4Prefix;
import app.knottag.server.web.Problem;
import java.util.Arrays;
import java.util.Optional;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.stereotype.Component;

/** What the operator lets this machine ask; the person who draws a segment does not fence herself. */
@Component
public class SegmentGuard {

    private final AllowedSegments allowed;

    SegmentGuard(@Value("${knot.allow:}") String prefixes) {
        allowed = new AllowedSegments(Arrays.stream(prefixes.split("[,; ]+"))
                .filter(p -> !p.isBlank())
                .map(Ipv4Prefix::parse)
                .toList());
    }

    /** Why a segment may not be drawn by whoever is signed in, or empty. */
    public Optional<String> problem(Ipv4Prefix prefix) {
        var known = SecurityContextHolder.getContext().getAuthentication();
        boolean lead =
                known == null || known.getAuthorities().stream().anyMatch(a -> "ROLE_LEAD".equals(a.getAuthority()));
        return allowed.problem(prefix, lead);
    }

    /** Refuses a segment that may not be drawn by whoever is signed in. */
    public void check(Ipv4Prefix prefix) {
        problem(prefix).ifPresent(why -> {
            throw Problem.field("prefix", "ground-not-allowed", why);
        });
    }
}
