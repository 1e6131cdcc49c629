package app.knottag.server.account;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.Optional;
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

    /** Counts a try; returns how long to wait first, when it may not be made now. */
    Optional<Duration> tryNow(String nameKey, String caller) {
        String pair = "pair " + nameKey + " " + caller;
        var wait = waits(pair, FREE_A_PAIR).or(() -> waits("caller " + caller, FREE_A_CALLER));
        if (wait.isEmpty() && known.getIfPresent(pair) == null) wait = waits("name " + nameKey, FREE_A_NAME);
        if (wait.isEmpty())
            for (String key : new String[] {pair, "caller " + caller, "name " + nameKey})
                tries.asMap()
                        .merge(
                                key,
                                new Tries(1, clock.instant()),
                                (was, one) -> new Tries(was.count() + 1, one.last()));
        return wait;
    }

    /** A try that succeeded takes all back that were counted for this person here. */
    void succeeded(String nameKey, String caller) {
        String pair = "pair " + nameKey + " " + caller;
        known.put(pair, true);
        tries.invalidate(pair);
        tries.asMap()
                .computeIfPresent(
                        "caller " + caller, (k, t) -> t.count() <= 1 ? null : new Tries(t.count() - 1, t.last()));
        tries.asMap()
                .computeIfPresent(
                        "name " + nameKey, (k, t) -> t.count() <= 1 ? null : new Tries(t.count() - 1, t.last()));
    }

    private Optional<Duration> waits(String key, int free) {
        var made = tries.getIfPresent(key);
        if (made == null || made.count() < free) return Optional.empty();
        long seconds = Math.min(LONGEST_WAIT, 2L << Math.min(5, made.count() - free));
        var until = made.last().plusSeconds(seconds);
        var now = clock.instant();
        return until.isAfter(now) ? Optional.of(Duration.between(now, until).plusMillis(999)) : Optional.empty();
    }
}
