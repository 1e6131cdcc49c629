package app.knottag.server.visit;

import app.knottag.core.runbook.Board;
import java.time.Duration;
import java.time.Instant;
import java.util.List;

/**
 * What a person has in hand.
 *
 * @param unitId an endpoint, or a task counted below zero
 * @param steps keys of the steps of the stretch, in their order; none of a task
 * @param way minutes to get there
 */
record Hand(int person, long unitId, List<String> steps, Instant since, int way) {

    /** When its steps begin. */
    Instant there() {
        return since.plus(Duration.ofMinutes(way));
    }

    /** Whether nothing of an endpoint is left for hands: its steps are done, or the wait at its end runs. */
    boolean over(Board.Job job) {
        return job.runbook().current().stream().allMatch(s -> {
            if (!steps.contains(s.key())) return true;
            var record = job.runbook().record(s.key());
            return record.startedAt().filter(t -> t.isAfter(since)).isPresent()
                    && record.endedAt().isEmpty();
        });
    }
}
