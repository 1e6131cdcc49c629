package app.knottag.server.demo;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import app.knottag.server.Api;
import app.knottag.server.Running;
import app.knottag.server.account.Role;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneOffset;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class DemoClockTest {

    private static final Instant SEVEN = Instant.parse("2026-11-30T07:00:00Z");

    @ParameterizedTest(name = "{0} s at {1} times: {2} min")
    @CsvSource({"0, 60, 0", "10, 60, 10", "90, 1, 1.5", "-5, 60, -5", "3600, 120, 7200"})
    void goesSeveralTimesAsFast(int seconds, int pace, double minutes) {
        var machine = Clock.fixed(SEVEN.plusSeconds(seconds), ZoneOffset.UTC);
        assertThat(new DemoClock(machine, SEVEN, pace).instant()).isEqualTo(SEVEN.plusSeconds((long) (minutes * 60)));
    }

    @Test
    void standsBackWhileThePastIsMadeUp() {
        var clock = new DemoClock(Clock.fixed(SEVEN, ZoneOffset.UTC), SEVEN, 1);
        clock.back(Duration.ofDays(62));
        assertThat(clock.instant()).isEqualTo("2026-09-29T07:00:00Z");
        assertThat(clock.withZone(ZoneOffset.MAX).instant()).isEqualTo(clock.instant());
        clock.back(Duration.ZERO);
        assertThat(clock.instant()).isEqualTo(SEVEN);
    }

    @ParameterizedTest
    @ValueSource(ints = {0, -1, 121})
    void otherPacesAreRefused(int pace) {
        assertThatThrownBy(() -> new DemoClock(Clock.systemUTC(), SEVEN, pace))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining("1 to 120");
    }

    @Test
    void everyAnswerSaysWhatTimeItIs() {
        for (var answer : new Api.Answer[] {
            Running.as(Role.LEAD).get("/api/today").expect(200),
            Running.as(Role.LEAD).get("/api/sites/999999/visits").expect(404)
        }) {
            var said = Instant.parse(
                    answer.response().headers().firstValue("Knot-Now").orElseThrow());
            assertThat(Duration.between(said, Instant.now()).abs()).isLessThan(Duration.ofMinutes(1));
        }
    }
}
