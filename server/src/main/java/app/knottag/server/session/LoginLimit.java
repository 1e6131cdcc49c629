package app.knottag.server.session;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.time.Duration;
import java.util.Locale;
import java.util.concurrent.atomic.AtomicInteger;
import org.springframework.stereotype.Component;

/** Counts failed log-ins by name and by caller; past the limit nobody is let in until the window has passed. */
@Component
class LoginLimit {

    static final Duration WINDOW = Duration.ofMinutes(5);
    private static final int FAILURES_A_NAME = 5;
    private static final int FAILURES_A_CALLER = 30;

    private final Cache<String, AtomicInteger> failures =
            Caffeine.newBuilder().expireAfterWrite(WINDOW).maximumSize(10_000).build();

    boolean exceeded(String name, String caller) {
        return count(name(name)) >= FAILURES_A_NAME || count(caller(caller)) >= FAILURES_A_CALLER;
    }

    void failed(String name, String caller) {
        failures.get(name(name), k -> new AtomicInteger()).incrementAndGet();
        failures.get(caller(caller), k -> new AtomicInteger()).incrementAndGet();
    }

    void succeeded(String name) {
        failures.invalidate(name(name));
    }

    private int count(String key) {
        var counter = failures.getIfPresent(key);
        return counter == null ? 0 : counter.get();
    }

    private static String name(String name) {
        return "name " + name.toLowerCase(Locale.ROOT);
    }

    private static String caller(String caller) {
        return "caller " + caller;
    }
}
