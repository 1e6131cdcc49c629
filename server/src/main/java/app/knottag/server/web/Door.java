package app.knottag.server.web;

import app.knottag.server.db.SqlErrors;
import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.StandardCharsets;
import java.util.concurrent.atomic.AtomicLong;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;

/**
 * The first filter of all. A query that is no UTF-8 goes no further. What breaks before a controller is reached, such as a
 * session that cannot be loaded because the database is gone, is answered as a problem too; and while the database is gone
 * the next ones are told at once instead of waiting for it one after the other.
 */
@Component
@Order(Ordered.HIGHEST_PRECEDENCE)
class Door extends OncePerRequestFilter {

    private static final Logger LOG = LoggerFactory.getLogger(Door.class);
    private static final long PAUSE_NANOS = 1_000_000_000L;
    private static final String GONE = "The database cannot be reached. Nothing was changed; try again in a moment.";
    static final String PERHAPS =
            "The database went away while this was kept. Look whether it is there before you do it again.";
    private final AtomicLong goneUntil = new AtomicLong(Long.MIN_VALUE);

    /** Says that the database was not there just now. That only all its connections were taken says nothing of it. */
    void databaseGone(Throwable e) {
        if (!SqlErrors.unreachable(e)) return;
        goneUntil.set(System.nanoTime() + PAUSE_NANOS);
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        if (!wellEncoded(request.getQueryString())) {
            Refusal.write(
                    response,
                    HttpStatus.BAD_REQUEST,
                    "bad-encoding",
                    "The address of this request is not well encoded (UTF-8, percent signs). Open the page anew.");
            return;
        }
        boolean api = request.getRequestURI().startsWith("/api");
        long until = goneUntil.get();
        if (api && until != Long.MIN_VALUE && System.nanoTime() - until < 0) {
            Refusal.write(response, HttpStatus.SERVICE_UNAVAILABLE, "database-unreachable", GONE);
            return;
        }
        try {
            chain.doFilter(request, response);
        } catch (RuntimeException | ServletException | IOException e) {
            if (response.isCommitted()) throw e;
            if (SqlErrors.gone(e)) {
                databaseGone(e);
                LOG.error("The database cannot be reached: {}", e.getMessage());
                boolean read = "GET".equals(request.getMethod());
                Refusal.write(response, HttpStatus.SERVICE_UNAVAILABLE, "database-unreachable", read ? GONE : PERHAPS);
            } else {
                LOG.error("{} {} failed before it was understood", request.getMethod(), request.getRequestURI(), e);
                Refusal.write(
                        response,
                        HttpStatus.INTERNAL_SERVER_ERROR,
                        "unexpected",
                        "Something went wrong here, not with what you typed. The server's log says more.");
            }
        }
    }

    private static boolean wellEncoded(String query) {
        if (query == null) return true;
        byte[] plain = new byte[query.length()];
        int n = 0;
        for (int i = 0; i < query.length(); i++) {
            char c = query.charAt(i);
            if (c != '%') {
                if (c > 126 || c < 33) return false;
                plain[n++] = (byte) c;
                continue;
            }
            if (i + 2 >= query.length()) return false;
            int high = Character.digit(query.charAt(i + 1), 16), low = Character.digit(query.charAt(i + 2), 16);
            if (high < 0 || low < 0 || high == 0 && low == 0) return false;
            plain[n++] = (byte) (high << 4 | low);
            i += 2;
        }
        try {
            StandardCharsets.UTF_8.newDecoder().decode(ByteBuffer.wrap(plain, 0, n));
            return true;
        } catch (CharacterCodingException e) {
            return false;
        }
    }
}
