package app.knottag.server.web;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ReadListener;
import jakarta.servlet.ServletException;
import jakarta.servlet.ServletInputStream;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletRequestWrapper;
import jakarta.servlet.http.HttpServletResponse;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.security.authentication.AnonymousAuthenticationToken;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.web.filter.OncePerRequestFilter;

/**
 * Bounds what a request of the signed-in may bring before anything reads it: bytes, and time, so that a body that never ends
 * lets go. What strangers bring is bounded by {@link Crowd}.
 */
class BodyGuard extends OncePerRequestFilter {

    static final long SIGNED_JSON = 1_500_000;
    static final long SIGNED_FILE = 12_000_000;
    private static final long DRAINED = 64_000_000;
    private static final Duration SIGNED_TIME = Duration.ofSeconds(60);

    /** More came than is read. */
    static final class TooLarge extends IOException {
        TooLarge(long has, long most) {
            super(tooLarge(has, most));
        }
    }

    static String tooLarge(long has, long most) {
        return "This has " + size(has) + "; at most " + size(most) + " are read here. Split it.";
    }

    private static String size(long bytes) {
        return bytes >= 1_000_000 ? (bytes + 999_999) / 1_000_000 + " MB" : (bytes + 999) / 1_000 + " kB";
    }

    /** The body came too slowly. */
    static final class TooSlow extends IOException {
        TooSlow() {
            super("The request came too slowly and was given up. Send it again.");
        }
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        boolean body = request.getContentLengthLong() > 0 || request.getHeader("Transfer-Encoding") != null;
        if (!body) {
            chain.doFilter(request, response);
            return;
        }
        boolean signed = signed();
        long most = !signed ? Crowd.SMALL : json(request) ? SIGNED_JSON : SIGNED_FILE;
        if (request.getContentLengthLong() > most) {
            // A browser sees an answer only when its upload was taken; strangers are not waited for.
            if (!signed || !drained(request)) response.setHeader("Connection", "close");
            Refusal.write(
                    response,
                    HttpStatus.CONTENT_TOO_LARGE,
                    "too-large",
                    tooLarge(request.getContentLengthLong(), most));
            return;
        }
        chain.doFilter(new Bounded(request, most, SIGNED_TIME), response);
    }

    private static boolean drained(HttpServletRequest request) throws IOException {
        if (request.getContentLengthLong() > DRAINED) return false;
        long end = System.nanoTime() + SIGNED_TIME.toNanos();
        byte[] away = new byte[65_536];
        var in = request.getInputStream();
        while (System.nanoTime() < end) if (in.read(away) < 0) return true;
        return false;
    }

    private static boolean signed() {
        var known = SecurityContextHolder.getContext().getAuthentication();
        return known != null && known.isAuthenticated() && !(known instanceof AnonymousAuthenticationToken);
    }

    private static boolean json(HttpServletRequest request) {
        String type = request.getContentType();
        return type == null || type.startsWith(MediaType.APPLICATION_JSON_VALUE);
    }

    private static final class Bounded extends HttpServletRequestWrapper {
        private final long most;
        private final long deadline;
        private ServletInputStream stream;

        Bounded(HttpServletRequest request, long most, Duration time) {
            super(request);
            this.most = most;
            deadline = System.nanoTime() + time.toNanos();
        }

        @Override
        public ServletInputStream getInputStream() throws IOException {
            if (stream == null) stream = new Counted(super.getInputStream(), most, deadline);
            return stream;
        }

        @Override
        public BufferedReader getReader() throws IOException {
            return new BufferedReader(new InputStreamReader(getInputStream(), StandardCharsets.UTF_8));
        }
    }

    private static final class Counted extends ServletInputStream {
        private final ServletInputStream in;
        private final long most;
        private final long deadline;
        private long read;

        Counted(ServletInputStream in, long most, long deadline) {
            this.in = in;
            this.most = most;
            this.deadline = deadline;
        }

        private int counted(int count) throws IOException {
            if (System.nanoTime() > deadline) throw new TooSlow();
            if (count > 0) read += count;
            if (read > most) throw new TooLarge(read, most);
            return count;
        }

        @Override
        public int read() throws IOException {
            int b = in.read();
            counted(b < 0 ? 0 : 1);
            return b;
        }

        @Override
        public int read(byte[] bytes, int from, int length) throws IOException {
            return counted(in.read(bytes, from, length));
        }

        @Override
        public boolean isFinished() {
            return in.isFinished();
        }

        @Override
        public boolean isReady() {
            return in.isReady();
        }

        @Override
        public void setReadListener(ReadListener listener) {
            in.setReadListener(listener);
        }
    }
}
