package app.knottag.server.account;

import static org.assertj.core.api.Assertions.assertThat;

import app.knottag.server.Running;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.concurrent.Callable;
import java.util.concurrent.CyclicBarrier;
import java.util.concurrent.Executors;
import java.util.concurrent.atomic.AtomicReference;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.springframework.transaction.PlatformTransactionManager;

class LoginLimitTest {

    private static final Instant START = Instant.parse("2026-11-29T10:00:00Z");

    private final AtomicReference<Instant> now = new AtomicReference<>(START);
    private final LoginLimit limit = new LoginLimit(
            Running.bean(SignInTryStore.class),
            new Clock() {
                @Override
                public Instant instant() {
                    return now.get();
                }

                @Override
                public Clock withZone(java.time.ZoneId zone) {
                    return this;
                }

                @Override
                public java.time.ZoneId getZone() {
                    return ZoneOffset.UTC;
                }
            },
            Running.bean(PlatformTransactionManager.class));

    private boolean may(String name, String from) {
        return limit.tryNow(name, from).isEmpty();
    }

    @DisplayName("Of sixteen at the same moment five are judged, whichever they are")
    @Test
    void noTwoTakeTheLastFreeOne() throws Exception {
        var pool = Executors.newFixedThreadPool(16);
        for (int round = 0; round < 300; round++) {
            String name = "guessed " + round, from = "10.0." + round / 200 + "." + round % 200;
            var together = new CyclicBarrier(16);
            var all = new ArrayList<Callable<Boolean>>();
            for (int n = 0; n < 16; n++)
                all.add(() -> {
                    together.await();
                    return may(name, from);
                });
            int judged = 0;
            for (var one : pool.invokeAll(all)) if (one.get()) judged++;
            assertThat(judged).isEqualTo(5);
        }
        pool.shutdown();
    }

    @DisplayName(
            "After five the waits double; whoever was here before is not slowed by others, and a success takes all back")
    @Test
    void waits() {
        for (int n = 0; n < 5; n++) assertThat(may("ida", "here")).isTrue();
        for (long seconds : new long[] {2, 4, 8, 16, 32, 60, 60}) {
            assertThat(limit.tryNow("ida", "here").orElseThrow().toSeconds()).isEqualTo(seconds);
            now.updateAndGet(i -> i.plusSeconds(seconds));
            assertThat(may("ida", "here")).isTrue();
        }
        limit.succeeded("ida", "here");
        for (int n = 0; n < 80; n++) may("ida", "elsewhere " + n);
        assertThat(may("ida", "nowhere")).as("sixty tries at one name").isFalse();
        assertThat(may("ida", "here")).isTrue();
    }

    @DisplayName("A try that is turned away is not counted anywhere")
    @Test
    void turnedAway() {
        for (int n = 0; n < 200; n++) may("ida", "here");
        now.updateAndGet(i -> i.plus(Duration.ofSeconds(2)));
        assertThat(may("joris", "here")).as("one of forty from this place").isTrue();
        assertThat(may("ida", "here")).isTrue();
    }
}
