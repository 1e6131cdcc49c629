package app.knottag.server.account;

import app.knottag.server.web.Problem;
import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicReference;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;

/**
 * Slows down whoever guesses. A try is counted before it is judged, so that many at once count as many. After a few wrong ones
 * the same caller may try that name once in a while, longer each time; nobody is shut out, and a person who signed in from a
 * place before is not slowed by what others try from elsewhere.
 */
@Component
class LoginLimit {

    private static final Duration WINDOW = Duration.ofMinutes(15);
    private static final int FREE_A_PAIR = 5;
    private static final int FREE_A_CALLER = 40;
    private static final int FREE_A_NAME = 60;
    private static final long LONGEST_WAIT = 60;

    /** How many tries in a row did not succeed, and when the last one was. */
    private record Tries(int count, Instant last) {}

    private final Cache<String, Tries> tries =
            Caffeine.newBuilder().expireAfterWrite(WINDOW).maximumSize(20_000).build();
    private final Cache<String, Boolean> known = Caffeine.newBuilder()
            .expireAfterWrite(Duration.ofDays(30))
            .maximumSize(20_000)
            .build();
    private final Clock clock;

    LoginLimit(Clock clock) {
        this.clock = clock;
    }

    /** What is answered to whoever has to wait. */
    static Problem tooMany(Duration wait) {
        return Problem.of(
                HttpStatus.TOO_MANY_REQUESTS,
                "too-many-tries",
                "Several wrong tries. Wait " + seconds(wait) + " s, then try again.");
    }

    static long seconds(Duration wait) {
        return Math.max(1, wait.toSeconds());
    }

    /** Counts a try; returns how long to wait first, when it may not be made now. */
    Optional<Duration> tryNow(String nameKey, String caller) {
        String pair = "pair " + nameKey + " " + caller;
        var limits = new LinkedHashMap<String, Integer>();
        limits.put(pair, FREE_A_PAIR);
        limits.put("caller " + caller, FREE_A_CALLER);
        limits.put("name " + nameKey, known.getIfPresent(pair) == null ? FREE_A_NAME : Integer.MAX_VALUE);
        var counted = new ArrayList<String>();
        for (var limit : limits.entrySet()) {
            var wait = take(limit.getKey(), limit.getValue());
            if (wait.isPresent()) {
                counted.forEach(this::giveBack);
                return wait;
            }
            counted.add(limit.getKey());
        }
        return Optional.empty();
    }

    /** Looks and counts in one step, so that of many at once no two take the last free one. */
    private Optional<Duration> take(String key, int free) {
        var wait = new AtomicReference<>(Optional.<Duration>empty());
        tries.asMap().compute(key, (k, was) -> {
            var now = clock.instant();
            wait.set(waits(was, free, now));
            if (wait.get().isPresent()) return was;
            return new Tries(was == null ? 1 : was.count() + 1, now);
        });
        return wait.get();
    }

    private void giveBack(String key) {
        tries.asMap().computeIfPresent(key, (k, t) -> t.count() <= 1 ? null : new Tries(t.count() - 1, t.last()));
    }

    /** A try that succeeded takes all back that were counted for this person here. */
    void succeeded(String nameKey, String caller) {
        String pair = "pair " + nameKey + " " + caller;
        known.put(pair, true);
        tries.invalidate(pair);
        giveBack("caller " + caller);
        giveBack("name " + nameKey);
    }

    private static Optional<Duration> waits(@Nullable Tries made, int free, Instant now) {
        if (made == null || made.count() < free) return Optional.empty();
        long seconds = Math.min(LONGEST_WAIT, 2L << Math.min(5, made.count() - free));
        var until = made.last().plusSeconds(seconds);
        return until.isAfter(now) ? Optional.of(Duration.between(now, until).plusMillis(999)) : Optional.empty();
    }
}
