package app.knottag.server.visit;

import app.knottag.core.runbook.Board;
import java.time.Instant;
import java.util.List;

/**
 * What a person has in hand.
 *
 * @param steps keys of the steps of the stretch, in their order
 */
record Hand(int person, long endpointId, List<String> steps, Instant since) {

    /** Whether nothing of it is left for hands: its steps are done, or the wait at its end runs. */
    boolean over(Board.Job job) {
        return job.runbook().current().stream().allMatch(s -> {
            if (!steps.contains(s.key())) return true;
            var record = job.runbook().record(s.key());
            return record.startedAt().filter(t -> t.isAfter(since)).isPresent()
                    && record.endedAt().isEmpty();
        });
    }
}
