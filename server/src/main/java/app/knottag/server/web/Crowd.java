package app.knottag.server.web;

import jakarta.servlet.ServletException;
import java.io.IOException;
import java.time.Duration;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.Semaphore;
import java.util.concurrent.atomic.AtomicBoolean;
import org.apache.catalina.connector.Request;
import org.apache.catalina.connector.Response;
import org.apache.catalina.valves.ValveBase;
import org.apache.coyote.ActionCode;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.http.HttpStatus;

/**
 * Stands before everything else, so that whoever sends half of a body holds no worker but the few that are set aside for it:
 * a few for each caller, others for those who bring the cookie of a session. Those turned away are not waited for.
 */
class Crowd extends ValveBase {

    /** What is taken from those without a session. */
    static final int SMALL = 16_384;

    private static final Logger LOG = LoggerFactory.getLogger(Crowd.class);
    private static final int OF_ONE_CALLER = 24;
    private static final long SWALLOWED = 2_000_000;
    private static final Duration PATIENCE = Duration.ofSeconds(5);
    private final Semaphore strangers = new Semaphore(40);
    private final Semaphore known = new Semaphore(100);
    private final ConcurrentHashMap<String, Integer> callers = new ConcurrentHashMap<>();

    public Crowd() {
        super(true);
    }

    @Override
    public void invoke(Request request, Response response) throws IOException, ServletException {
        long length = request.getContentLengthLong();
        if (length <= 0 && request.getHeader("Transfer-Encoding") == null) {
            getNext().invoke(request, response);
            return;
        }
        boolean cookie = String.valueOf(request.getHeader("Cookie")).contains("KNOTSESSION=");
        String caller = request.getRemoteAddr() + cookie;
        int own = callers.merge(caller, 1, Integer::sum);
        var room = cookie ? known : strangers;
        boolean let = own <= (cookie ? 2 * OF_ONE_CALLER : OF_ONE_CALLER) && room.tryAcquire();
        try {
            if (let && !cookie && length > SMALL) {
                String detail = BodyGuard.tooLarge(length, SMALL);
                refused(response, HttpStatus.CONTENT_TOO_LARGE, "too-large", detail);
                settle(request, true);
                return;
            }
            if (let) {
                getNext().invoke(request, response);
                if (response.getStatus() >= 400) settle(request, cookie);
                return;
            }
            response.setHeader("Retry-After", "5");
            refused(
                    response,
                    HttpStatus.TOO_MANY_REQUESTS,
                    "too-many-at-once",
                    "Too many come at this moment. Try again in a few seconds.");
            settle(request, false);
        } finally {
            if (let) room.release();
            callers.computeIfPresent(caller, (a, n) -> n <= 1 ? null : n - 1);
        }
    }

    private static void refused(Response response, HttpStatus status, String code, String detail) throws IOException {
        response.setHeader("Connection", "close");
        response.setSuspended(false); // it is, when the container has refused the address already
        Refusal.write(response.getResponse(), status, code, detail);
    }

    /**
     * What nobody read of a refused request: what has come is taken, so that the answer is seen; the rest is waited for only
     * in the place that is held for it, and not for long. Then the connection ends.
     */
    private static void settle(Request request, boolean waits) {
        var coyote = request.getCoyoteRequest();
        long end = System.nanoTime() + PATIENCE.toNanos();
        byte[] away = new byte[SMALL];
        try {
            for (long taken = 0; taken < SWALLOWED && System.nanoTime() < end; ) {
                if (waits) coyote.setAvailable(1);
                else coyote.action(ActionCode.AVAILABLE, Boolean.TRUE);
                int count = coyote.getAvailable() > 0 ? request.getStream().read(away) : -1;
                if (count < 0) break;
                taken += count;
            }
        } catch (IOException | IllegalStateException gone) {
            LOG.debug("The rest of a refused request did not come: {}", gone.getMessage());
        }
        var read = new AtomicBoolean();
        coyote.action(ActionCode.REQUEST_BODY_FULLY_READ, read);
        if (!read.get()) coyote.action(ActionCode.DISABLE_SWALLOW_INPUT, null);
    }
}
