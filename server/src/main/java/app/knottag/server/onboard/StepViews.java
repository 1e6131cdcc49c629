package app.knottag.server.onboard;

import app.knottag.core.kind.GateType;
import app.knottag.core.kind.Kind;
import app.knottag.core.kind.Signal;
import app.knottag.core.runbook.BootPattern;
import app.knottag.core.runbook.EndpointPlan;
import app.knottag.core.runbook.GateForm;
import app.knottag.core.runbook.GateForm.Input;
import app.knottag.core.runbook.GateJudge;
import app.knottag.core.runbook.Runbook;
import app.knottag.core.runbook.StepRecord;
import app.knottag.core.runbook.StepRecord.StepFinding;
import app.knottag.core.status.Status;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/** The steps of a runbook as the page shows them. */
final class StepViews {

    private StepViews() {}

    record WaitView(
            int shortest,
            int usual,
            int longest,
            String lookFor,
            boolean countsRestarts,
            int restarts,
            Runbook.@Nullable Pace pace,
            BootPattern.@Nullable Verdict verdict,
            String words) {}

    record GateView(
            GateType type,
            String ask,
            List<Kind.Option> options,
            List<Input> inputs,
            List<Signal> signals,
            String sheet,
            String part,
            String path) {}

    record StepView(
            String key,
            String title,
            List<String> hint,
            String caution,
            String needs,
            String recovery,
            boolean passed,
            List<String> waysOut,
            GateView gate,
            @Nullable WaitView waiting,
            Status status,
            @Nullable Instant startedAt,
            @Nullable Instant endedAt,
            Map<String, String> evidence,
            List<StepFinding> findings,
            List<String> unread,
            String reason,
            String by) {}

    static StepView of(Kind.Step step, Runbook runbook, EndpointPlan plan, Instant now) {
        var record = runbook.record(step.key());
        return new StepView(
                step.key(),
                step.title(),
                step.hint(),
                step.caution(),
                step.needs(),
                record.done() ? "" : step.recovery(),
                runbook.passed(step.key()),
                record.wantsWaysOut() ? step.waysOut() : List.of(),
                new GateView(
                        step.gate().type(),
                        step.gate().ask(),
                        step.gate().options(),
                        GateForm.of(runbook.kind(), step, plan),
                        runbook.kind().signals().stream()
                                .filter(s -> s.part().equals(step.gate().part()))
                                .toList(),
                        step.gate().sheet(),
                        step.gate().part(),
                        runbook.kind()
                                .menus()
                                .getOrDefault(step.gate().part(), runbook.kind().menuPath())),
                step.waiting().map(w -> waiting(w, record, now)).orElse(null),
                record.status(),
                record.startedAt().orElse(null),
                record.endedAt().orElse(null),
                record.evidence(),
                record.findings(),
                GateJudge.unread(runbook.kind(), step, plan, record),
                record.reason(),
                record.by());
    }

    private static WaitView waiting(Kind.Wait w, StepRecord record, Instant now) {
        var pace = record.startedAt()
                .map(s -> Runbook.pace(w, s, record.endedAt().orElse(now)))
                .orElse(null);
        var pattern = pace == null ? null : BootPattern.of(w, record.restarts(), pace);
        return new WaitView(
                w.shortest(),
                w.usual(),
                w.longest(),
                w.lookFor(),
                !w.restarts().isEmpty(),
                record.restarts(),
                pace,
                pattern == null ? null : pattern.verdict(),
                pattern == null ? "" : pattern.words());
    }
}
