package app.knottag.server.web;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.time.Clock;
import org.springframework.web.filter.OncePerRequestFilter;

/** Says in every answer what time it is here, since the clock of a browser may be wrong. */
class NowHeader extends OncePerRequestFilter {

    private static final String NAME = "Knot-Now";

    private final Clock clock;

    NowHeader(Clock clock) {
        this.clock = clock;
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        response.setHeader(NAME, clock.instant().toString());
        chain.doFilter(request, response);
    }
}
