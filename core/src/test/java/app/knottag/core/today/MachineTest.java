package app.knottag.core.today;

import static org.assertj.core.api.Assertions.assertThat;

import app.knottag.core.today.Machine.Backups;
import app.knottag.core.today.Machine.Failed;
import app.knottag.core.today.Machine.Jump;
import app.knottag.core.today.Machine.State;
import java.time.Duration;
import java.time.Instant;
import java.util.Optional;
import java.util.OptionalLong;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class MachineTest {

    private static final Instant NOW = Instant.parse("2026-12-01T08:00:00Z");

    /** So many hours ago; empty when it never was. */
    private static Optional<Instant> ago(Integer hours) {
        return Optional.ofNullable(hours).map(h -> NOW.minus(Duration.ofHours(h)));
    }

    @DisplayName(
            "Backups: what was missed, what failed, what nobody has tried; and nothing when all is well or all is new")
    @ParameterizedTest(name = "there for {0} h, backed up {1} h ago, brought back {2} h ago, failed {3} h ago: {4}")
    @CsvSource(delimiter = '|', textBlock = """
            1    |     |     |     |
            35   |     |     |     |
            37   |     |     |     | No backup yet. There is none yet. One is made each night while Knot Tag runs
            3000 | 4   | 100 |     |
            3000 | 35  | 100 |     |
            3000 | 75  | 100 |     | No backup lately. The last good one was made 3 days ago. One is made each night
            3000 | 4   | 100 | 28  |
            3000 | 28  | 100 | 4   | A backup failed. Only 12 MB are free. The last good one was made 28 h ago.
            3000 | 28  | 3   | 4   |
            3000 |     |     | 4   | A backup failed. Only 12 MB are free. There is none yet.
            3000 | 4   | 239 |     |
            3000 | 4   | 264 |     | Nobody knows whether the backups can be brought back. That was tried last 11 days ago.
            300  | 4   |     |     | Nobody knows whether the backups can be brought back. That was never tried.
            200  | 4   |     |     |
            3000 | -2  | 100 |     |
            """)
    void backups(int since, Integer last, Integer rehearsed, Integer failed, String says) {
        var backups = new Backups(
                ago(since).orElseThrow(),
                ago(last),
                ago(rehearsed),
                ago(failed).map(at -> new Failed(at, "only 12 MB are free")));
        assertSays(new State(OptionalLong.empty(), Optional.of(backups), Optional.empty()), false, says);
    }

    @DisplayName("Disk and clock: said in time, and for a day")
    @ParameterizedTest(name = "{0} MB free, clock set by {1} min {2} h ago: {4}")
    @CsvSource(delimiter = '|', textBlock = """
            500 |     |    | false |
            499 |     |    | false | The disk is nearly full. Only 499 MB are left where the records lie. Below 100 MB nothing can be
            100 |     |    | false | The disk is nearly full.
            99  |     |    | true  | The disk is full. Only 99 MB are left where the records lie. Nothing is taken in
            0   |     |    | true  | The disk is full. Only 0 MB
            900 | -90 | 1  | false | This machine's clock was set back by 90 min. Waits that ran then began
            900 | 180 | 23 | false | This machine's clock was set forward by 3 h. Or it slept.
            900 | 180 | 25 | false |
            """)
    void diskAndClock(int free, Integer by, Integer at, boolean stops, String says) {
        var jump = ago(at).map(t -> new Jump(t, Duration.ofMinutes(by)));
        assertSays(new State(OptionalLong.of((long) free << 20), Optional.empty(), jump), stops, says);
    }

    private static void assertSays(State state, boolean stops, String says) {
        var told = Machine.of(state, NOW);
        if (says == null) assertThat(told).isEmpty();
        else
            assertThat(told).singleElement().satisfies(c -> {
                assertThat(c.title() + ". " + c.detail()).startsWith(says);
                assertThat(c.stops()).isEqualTo(stops);
            });
    }
}
