package app.knottag.server.account;

import app.knottag.server.account.SignInTryStore.TryRow;
import app.knottag.server.web.Idempotency;
import app.knottag.server.web.Problem;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.Arrays;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import org.springframework.http.HttpStatus;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import org.springframework.transaction.PlatformTransactionManager;
import org.springframework.transaction.TransactionDefinition;
import org.springframework.transaction.support.TransactionTemplate;

/**
 * Slows down whoever guesses. A try is counted before it is judged, so that many at once count as many. After a few wrong ones
 * the same caller may try that name once in a while, longer each time; nobody is shut out, and a person who signed in from a
 * place before is not slowed by what others try from elsewhere. All servers of one base count together.
 */
@Component
class LoginLimit {

    private static final Duration WINDOW = Duration.ofMinutes(15);
    private static final Duration KNOWN = Duration.ofDays(30);
    private static final int FREE_A_PAIR = 5;
    private static final int FREE_A_CALLER = 40;
    private static final int FREE_A_NAME = 60;
    private static final long LONGEST_WAIT = 60;

    private final SignInTryStore store;
    private final Clock clock;
    private final TransactionTemplate apart;

    LoginLimit(SignInTryStore store, Clock clock, PlatformTransactionManager transactions) {
        this.store = store;
        this.clock = clock;
        apart = new TransactionTemplate(transactions);
        apart.setPropagationBehavior(TransactionDefinition.PROPAGATION_REQUIRES_NEW);
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

    /** What tries at a name from a place are counted for; nobody's name stands in it. */
    private record Keys(byte[] pair, byte[] caller, byte[] name) {

        static Keys of(String nameKey, String caller) {
            return new Keys(
                    Idempotency.sha256("pair " + nameKey + " " + caller),
                    Idempotency.sha256("caller " + caller),
                    Idempotency.sha256("name " + nameKey));
        }

        List<byte[]> all() {
            return List.of(pair, caller, name);
        }
    }

    /** How tries stand for one of the keys. */
    private record Stand(byte[] key, TryRow row, Instant now) {

        int tries() {
            return row.lastAt().isBefore(now.minus(WINDOW)) ? 0 : row.tries();
        }

        boolean known() {
            var at = row.knownAt();
            return at != null && at.isAfter(now.minus(KNOWN));
        }

        Optional<Duration> waits(int free) {
            if (tries() < free) return Optional.empty();
            long seconds = Math.min(LONGEST_WAIT, 2L << Math.min(5, tries() - free));
            var until = row.lastAt().plusSeconds(seconds);
            return until.isAfter(now) ? Optional.of(Duration.between(now, until).plusMillis(999)) : Optional.empty();
        }
    }

    private List<Stand> hold(Keys keys, Instant now) {
        var rows = store.hold(keys.all(), now);
        return keys.all().stream()
                .map(key -> new Stand(
                        key,
                        rows.stream()
                                .filter(r -> Arrays.equals(r.key(), key))
                                .findFirst()
                                .orElseThrow(),
                        now))
                .toList();
    }

    /**
     * Counts a try; returns how long to wait first, when it may not be made now. It is counted by itself, whatever becomes of the
     * transaction of whoever asks.
     */
    Optional<Duration> tryNow(String nameKey, String caller) {
        return Objects.requireNonNull(apart.execute(t -> {
            var wait = count(nameKey, caller);
            // Whoever has to wait leaves no trace, however many names they try.
            if (wait.isPresent()) t.setRollbackOnly();
            return wait;
        }));
    }

    private Optional<Duration> count(String nameKey, String caller) {
        var now = clock.instant();
        var stands = hold(Keys.of(nameKey, caller), now);
        var pair = stands.get(0);
        var wait = pair.waits(FREE_A_PAIR)
                .or(() -> stands.get(1).waits(FREE_A_CALLER))
                .or(() -> pair.known() ? Optional.empty() : stands.get(2).waits(FREE_A_NAME));
        if (wait.isEmpty()) stands.forEach(s -> store.count(s.key(), s.tries() + 1, now));
        return wait;
    }

    /** A try that succeeded takes all back that were counted for this person here. */
    void succeeded(String nameKey, String caller) {
        var now = clock.instant();
        var keys = Keys.of(nameKey, caller);
        apart.executeWithoutResult(t -> {
            for (var s : hold(keys, now))
                store.count(
                        s.key(),
                        s.key() == keys.pair() ? 0 : Math.max(0, s.tries() - 1),
                        s.row().lastAt());
            store.known(keys.pair(), now);
        });
    }

    /** Whoever has not tried for long is forgotten. */
    @Scheduled(fixedDelay = 600_000, initialDelay = 600_000)
    void forget() {
        var now = clock.instant();
        store.forget(now.minus(WINDOW), now.minus(KNOWN));
    }
}
