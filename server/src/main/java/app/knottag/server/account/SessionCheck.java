package app.knottag.server.account;

import app.knottag.server.web.Refusal;
import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import jakarta.servlet.http.HttpSession;
import java.io.IOException;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.Optional;
import org.springframework.http.HttpStatus;
import org.springframework.security.authentication.UsernamePasswordAuthenticationToken;
import org.springframework.security.core.authority.AuthorityUtils;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.web.filter.OncePerRequestFilter;

/**
 * Whether a session still stands, asked on each request: the person is there, nobody has ended its sessions since (its epoch is
 * that of the sign-in), and it is not older than a day. The role and the sites are those of now, not of
 * the sign-in.
 */
class SessionCheck extends OncePerRequestFilter {

    static final String PERSON = "knot.person";
    static final String EPOCH = "knot.epoch";
    private static final Duration LONGEST = Duration.ofHours(24);

    private final People people;
    private final Clock clock;

    SessionCheck(People people, Clock clock) {
        this.people = people;
        this.clock = clock;
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        var known = SecurityContextHolder.getContext().getAuthentication();
        var session = request.getSession(false);
        if (!(known instanceof UsernamePasswordAuthenticationToken) || session == null) {
            chain.doFilter(request, response);
            return;
        }
        var stands = stands(session);
        if (stands.isEmpty()) {
            session.invalidate();
            SecurityContextHolder.clearContext();
            Refusal.write(response, HttpStatus.UNAUTHORIZED, "session-ended", "Your session has ended. Sign in again.");
            return;
        }
        stands.get().scope().keep(request);
        var authorities =
                AuthorityUtils.createAuthorityList("ROLE_" + stands.get().role().name());
        if (!known.getAuthorities().containsAll(authorities)) {
            var context = SecurityContextHolder.createEmptyContext();
            context.setAuthentication(
                    UsernamePasswordAuthenticationToken.authenticated(known.getPrincipal(), null, authorities));
            SecurityContextHolder.setContext(context);
        }
        chain.doFilter(request, response);
    }

    private Optional<People.Now> stands(HttpSession session) {
        if (!(session.getAttribute(PERSON) instanceof Long person)
                || !(session.getAttribute(EPOCH) instanceof Integer epoch)) return Optional.empty();
        boolean old =
                Instant.ofEpochMilli(session.getCreationTime()).plus(LONGEST).isBefore(clock.instant());
        return old ? Optional.empty() : people.now(person).filter(now -> now.epoch() == epoch);
    }
}
