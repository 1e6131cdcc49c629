package app.knottag.core.runbook;

import static org.assertj.core.api.Assertions.assertThat;

import app.knottag.core.kind.GateType;
import app.knottag.core.kind.Kind;
import app.knottag.core.kind.Kinds;
import app.knottag.core.runbook.Board.Job;
import app.knottag.core.runbook.Board.State;
import app.knottag.core.status.Status;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class BoardTest {

    private static final Instant START = Instant.parse("2026-11-25T08:00:00Z");
    private static final Kind TERMINAL = Kinds.shipped().get("counter-payment-terminal");
    private static final Kind PRINTER = Kinds.shipped().get("label-printer");

    private static Instant at(long minute) {
        return START.plus(Duration.ofMinutes(minute));
    }

    private static StepRecord record(String key, Status status, Long started) {
        boolean done = status == Status.PASSED;
        return new StepRecord(
                key,
                status,
                Optional.ofNullable(started).map(BoardTest::at),
                done ? Optional.of(START) : Optional.empty(),
                Map.of(),
                List.of(),
                "",
                "",
                0,
                0);
    }

    /** A job whose first steps are done; the next one may have failed, or a wait that runs since a minute. */
    private static Job job(long id, Kind kind, int done, Status next, Long started) {
        var records = new HashMap<String, StepRecord>();
        for (int i = 0; i < done; i++)
            records.put(kind.steps().get(i).key(), record(kind.steps().get(i).key(), Status.PASSED, null));
        String key = kind.steps().get(done).key();
        if (next != Status.PENDING) records.put(key, record(key, next, started));
        return new Job(id, "Unit " + id, "", Runbook.of(kind, records));
    }

    @DisplayName("A wait that runs is left alone, looked at, or taken for failed")
    @ParameterizedTest(name = "after {0} min: {1}")
    @CsvSource(
            delimiter = '|',
            value = {
                "0   | RUNS | 55 | Too early to judge.",
                "19  | RUNS | 36 | Too early to judge.",
                "20  | RUNS | 35 | Not usually ready yet.",
                "54  | RUNS | 1  | Not usually ready yet.",
                "55  | NOW  | 0  | It is usually ready by now. Look for: The welcome screen with a clock.",
                "120 | NOW  | 0  | It has taken longer than it ever does: 120 min. Look for: The welcome screen with a clock.",
            })
    void judgesWaits(long minute, State state, long minutes, String because) {
        var board = Board.of(List.of(job(1, TERMINAL, 5, Status.ACTIVE, 0L)), at(minute));
        assertThat(board.lines()).singleElement().satisfies(l -> {
            assertThat(l.state()).isEqualTo(state);
            assertThat(l.minutes()).isEqualTo(minutes);
            assertThat(l.because()).isEqualTo(because);
        });
    }

    @Test
    void whatIsReadyComesBeforeWhatFailedAndThatBeforeNewWork() {
        var board = Board.of(
                List.of(
                        job(1, PRINTER, 0, Status.PENDING, null),
                        job(2, TERMINAL, 0, Status.PENDING, null),
                        job(3, TERMINAL, 4, Status.FAILED, null),
                        job(4, TERMINAL, 5, Status.ACTIVE, 0L),
                        job(5, TERMINAL, 5, Status.ACTIVE, -70L),
                        job(6, TERMINAL, 5, Status.ACTIVE, 30L)),
                at(60));
        assertThat(board.lines().stream().map(l -> l.state() + " " + l.endpoint()))
                .containsExactly("NOW 5", "NEXT 4", "NEXT 3", "NEXT 2", "NEXT 1", "RUNS 6");
        assertThat(board.lines().get(3).because())
                .isEqualTo(
                        "57 min of it run by themselves, more than of any other: the sooner begun, the more runs beside you.");
        assertThat(board.lines().get(4).because()).endsWith(" min of it run by themselves, less than of Unit 2.");
        assertThat(Board.of(List.of(job(1, PRINTER, 0, Status.PENDING, null)), at(0))
                        .lines()
                        .get(0)
                        .because())
                .isEqualTo("It is the only one that needs your hands now.");
        assertThat(Board.of(
                                List.of(
                                        job(1, PRINTER, 0, Status.PENDING, null),
                                        job(2, PRINTER, 0, Status.PENDING, null)),
                                at(0))
                        .lines()
                        .get(0)
                        .because())
                .isEqualTo("Nothing makes one of these more urgent than another; this is the first by name.");
        assertThat(Board.of(List.of(), at(0)).now()).isEmpty();
        assertThat(Board.of(List.of(job(1, PRINTER, 7, Status.PENDING, null)), at(0))
                        .lines())
                .as("only the confirmation is left")
                .isEmpty();
    }

    private static final int HANDS = 3;

    /** A technician who follows the board to the letter, with steps of three minutes and waits as usual. */
    private static long follow(List<Kind> kinds) {
        var done = new int[kinds.size()];
        var since = new Long[kinds.size()];
        for (long minute = 0; ; minute++) {
            var jobs = new ArrayList<Job>();
            for (int i = 0; i < kinds.size(); i++)
                if (kinds.get(i).steps().get(done[i]).gate().type() != GateType.CONFIRMED)
                    jobs.add(
                            job(i, kinds.get(i), done[i], since[i] == null ? Status.PENDING : Status.ACTIVE, since[i]));
            if (jobs.isEmpty()) return minute;
            var now = Board.of(jobs, at(minute)).now();
            if (now.isEmpty()) continue;
            int i = (int) now.get().endpoint();
            var step = kinds.get(i).steps().get(done[i]);
            minute += HANDS - 1;
            if (step.waiting().isPresent() && since[i] == null) since[i] = minute + 1;
            else {
                done[i]++;
                since[i] = null;
            }
        }
    }

    private static long alone(Kind kind) {
        return follow(List.of(kind));
    }

    @DisplayName("Whoever follows the board lets the waits run beside one another")
    @ParameterizedTest(name = "{0} terminals")
    @ValueSource(ints = {1, 2, 3, 6})
    void theBoardOverlapsTheWaits(int terminals) {
        var kinds = new ArrayList<Kind>();
        for (int i = 0; i < terminals; i++) kinds.add(TERMINAL);
        long together = follow(kinds);
        // Nobody can be quicker than the hands that all of it needs, nor than one terminal from end to end.
        long hands = (long) terminals * (alone(TERMINAL) - 57);
        long bound = Math.max(alone(TERMINAL), hands);
        assertThat(together).isGreaterThanOrEqualTo(bound).isLessThanOrEqualTo(bound + 57);
        if (terminals > 1) assertThat(together).isLessThan(terminals * alone(TERMINAL) * 3 / 4);
    }

    @Test
    void whatHasTheLongestWaitsIsBegunFirst() {
        long best = follow(List.of(TERMINAL, PRINTER, PRINTER));
        assertThat(best).isEqualTo(follow(List.of(PRINTER, PRINTER, TERMINAL)));
        assertThat(best).isLessThan(alone(TERMINAL) + alone(PRINTER));
    }
}
