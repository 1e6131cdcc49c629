package app.knottag.server.onboard;

import app.knottag.core.kind.GateType;
import app.knottag.core.kind.Kind;
import app.knottag.core.kind.KindQuestion;
import app.knottag.core.kind.KindQuestion.Answer;
import app.knottag.core.kind.Kinds;
import app.knottag.core.kind.Outfit;
import app.knottag.core.kind.Signal;
import app.knottag.core.plan.LeaseCompare;
import app.knottag.core.runbook.BootPattern;
import app.knottag.core.runbook.EndpointPlan;
import app.knottag.core.runbook.GateForm;
import app.knottag.core.runbook.GateForm.Input;
import app.knottag.core.runbook.LearnedLease;
import app.knottag.core.runbook.OpenState;
import app.knottag.core.runbook.Recipe;
import app.knottag.core.runbook.Runbook;
import app.knottag.core.runbook.StepRecord;
import app.knottag.core.runbook.StepRecord.StepFinding;
import app.knottag.core.runbook.TypeSheet;
import app.knottag.core.status.Status;
import app.knottag.server.record.EndpointStore;
import app.knottag.server.record.Runbooks;
import app.knottag.server.record.StepStore;
import java.time.Clock;
import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** The runbook of one endpoint as the page shows it. */
@Component
class RunbookViews {

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
            String sheet) {}

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
            String reason,
            String by) {}

    record QuestionView(String key, String ask, List<Answer> options, String answer, boolean given) {}

    record OpeningView(
            String key,
            String title,
            String closes,
            String owner,
            @Nullable LocalDate ends,
            boolean closed,
            boolean overdue) {}

    record ResetView(
            String how,
            String hold,
            String longer,
            List<String> keeps,
            List<String> loses,
            boolean data,
            List<String> redo) {}

    record RunbookView(
            long endpointId,
            int version,
            Instant now,
            @Nullable String current,
            String menuPath,
            String menuCaution,
            List<TypeSheet.SheetRow> sheet,
            List<ReadRow> readBack,
            List<LeaseCompare.Line> learned,
            List<StepView> steps,
            List<Recipe.LeftOut> leftOut,
            List<QuestionView> questions,
            Outfit outfit,
            List<OpeningView> openings,
            List<String> handOverWaits,
            @Nullable ResetView reset,
            boolean reportsSeals,
            Map<String, String> facts,
            int kindVersion,
            int latestVersion) {}

    /** A row of the read-back with the name of its field. */
    record ReadRow(String field, String label, String value, boolean figures, boolean leaveAlone) {}

    private final Runbooks runbooks;
    private final StepStore waits;
    private final Kinds kinds;
    private final Clock clock;

    RunbookViews(Runbooks runbooks, StepStore waits, Kinds kinds, Clock clock) {
        this.runbooks = runbooks;
        this.waits = waits;
        this.kinds = kinds;
        this.clock = clock;
    }

    RunbookView of(EndpointStore.Row endpoint) {
        var recipe = runbooks.recipe(endpoint);
        var runbook = runbooks.runbook(endpoint);
        var plan = runbooks.plan(endpoint);
        var whole = runbooks.kind(endpoint);
        var kind = runbook.kind();
        var now = clock.instant();
        var today = plan.around().clock().today();
        return new RunbookView(
                endpoint.id(),
                endpoint.version(),
                now,
                runbook.current().map(Kind.Step::key).orElse(null),
                kind.menuPath(),
                kind.menuCaution(),
                TypeSheet.of(kind, plan),
                TypeSheet.toReadBack(kind, plan).stream()
                        .map(r -> new ReadRow(TypeSheet.key(r), r.label(), r.value(), r.figures(), r.leaveAlone()))
                        .toList(),
                runbook.records().stream()
                        .filter(r -> r.done() && kind.step(r.key()).gate().type() == GateType.LEARNED)
                        .flatMap(r -> LearnedLease.compare(plan, r.evidence()).stream())
                        .toList(),
                kind.steps().stream().map(s -> step(s, runbook, plan, now)).toList(),
                recipe.leftOut(),
                whole.questions().stream()
                        .map(q -> question(q, plan.around().answers()))
                        .toList(),
                kind.outfit(),
                plan.around().openings().stream().map(o -> opening(o, today)).toList(),
                OpenState.holdUp(plan.around().openings(), plan.around().clock()),
                whole.reset().isPresent() ? reset(whole, kind) : null,
                whole.steps().stream().anyMatch(s -> s.gate().type() == GateType.SEALS),
                plan.around().answers(),
                kind.version(),
                kinds.get(endpoint.kind()).version());
    }

    private static QuestionView question(KindQuestion q, Map<String, String> answers) {
        return new QuestionView(
                q.key(), q.ask(), q.options(), answers.getOrDefault(q.key(), q.usual()), answers.containsKey(q.key()));
    }

    private static OpeningView opening(OpenState o, LocalDate today) {
        return new OpeningView(
                o.key(), o.title(), o.closes(), o.owner(), o.ends().orElse(null), o.closed(), o.overdue(today));
    }

    private static ResetView reset(Kind whole, Kind kind) {
        var rule = whole.reset().orElseThrow();
        return new ResetView(
                rule.how(),
                rule.seconds().isEmpty()
                        ? ""
                        : rule.seconds().get(0) + " to " + rule.seconds().get(1) + " s"
                                + (rule.beeps() == 0 ? "" : ", until it beeps"),
                rule.longer(),
                rule.keeps(),
                rule.loses(),
                rule.data(),
                Recipe.redo(whole, kind).stream().map(k -> kind.step(k).title()).toList());
    }

    private static StepView step(Kind.Step step, Runbook runbook, EndpointPlan plan, Instant now) {
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
                        step.gate().sheet()),
                step.waiting().map(w -> waiting(w, record, now)).orElse(null),
                record.status(),
                record.startedAt().orElse(null),
                record.endedAt().orElse(null),
                record.evidence(),
                record.findings(),
                record.reason(),
                record.by());
    }

    static WaitView waiting(Kind.Wait w, StepRecord record, Instant now) {
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

    /** Waits that run at any site. */
    List<StepStore.RunningRow> running() {
        return waits.running();
    }
}
