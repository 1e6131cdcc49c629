package app.knottag.server.onboard;

import app.knottag.core.kind.GateType;
import app.knottag.core.kind.Kind;
import app.knottag.core.kind.KindQuestion;
import app.knottag.core.kind.KindQuestion.Answer;
import app.knottag.core.kind.Kinds;
import app.knottag.core.kind.Outfit;
import app.knottag.core.plan.LeaseCompare;
import app.knottag.core.runbook.EndpointPlan;
import app.knottag.core.runbook.LearnedLease;
import app.knottag.core.runbook.OpenState;
import app.knottag.core.runbook.Recipe;
import app.knottag.core.runbook.TypeSheet;
import app.knottag.server.record.Endpoints;
import app.knottag.server.record.Runbooks;
import java.time.Clock;
import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Isolation;
import org.springframework.transaction.annotation.Transactional;

/** The runbook of one endpoint as the page shows it. */
@Component
class RunbookViews {

    record QuestionView(String key, String ask, List<Answer> options, String answer, boolean given, String because) {}

    /** @param secret whether it is closed by a new secret, of which only the place is on record where it is kept */
    record OpeningView(
            String key,
            String title,
            String closes,
            String owner,
            @Nullable LocalDate ends,
            boolean closed,
            boolean overdue,
            boolean secret,
            String note) {}

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
            String menuCaution,
            List<TypeSheet.SheetRow> sheet,
            List<ReadRow> readBack,
            List<LeaseCompare.Line> learned,
            List<StepViews.StepView> steps,
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
    record ReadRow(
            String field,
            String label,
            String value,
            boolean figures,
            boolean leaveAlone,
            boolean needed,
            String part) {}

    private final Endpoints endpoints;
    private final Runbooks runbooks;
    private final Kinds kinds;
    private final Clock clock;

    RunbookViews(Endpoints endpoints, Runbooks runbooks, Kinds kinds, Clock clock) {
        this.endpoints = endpoints;
        this.runbooks = runbooks;
        this.kinds = kinds;
        this.clock = clock;
    }

    /** The runbook of one moment, so that its version is that of all that it shows. */
    @Transactional(readOnly = true, isolation = Isolation.REPEATABLE_READ)
    public RunbookView of(long endpointId) {
        var endpoint = endpoints.get(endpointId);
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
                kind.menuCaution(),
                TypeSheet.of(kind, plan),
                readBack(kind, plan),
                runbook.records().stream()
                        .filter(r -> r.done() && kind.step(r.key()).gate().type() == GateType.LEARNED)
                        .flatMap(r -> LearnedLease.compare(plan, r.evidence()).stream())
                        .toList(),
                kind.steps().stream()
                        .map(s -> StepViews.of(s, runbook, plan, now))
                        .toList(),
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

    private static List<ReadRow> readBack(Kind kind, EndpointPlan plan) {
        return TypeSheet.of(kind, plan).stream()
                .filter(r -> !r.value().isEmpty())
                .map(r -> new ReadRow(
                        TypeSheet.key(r),
                        r.label(),
                        r.value(),
                        r.figures(),
                        r.leaveAlone(),
                        r.field().decides(),
                        r.part()))
                .toList();
    }

    private static QuestionView question(KindQuestion q, Map<String, String> answers) {
        return new QuestionView(
                q.key(),
                q.ask(),
                q.options(),
                answers.getOrDefault(q.key(), q.usual()),
                answers.containsKey(q.key()),
                q.because());
    }

    private static OpeningView opening(OpenState o, LocalDate today) {
        return new OpeningView(
                o.key(),
                o.title(),
                o.closes(),
                o.owner(),
                o.ends().orElse(null),
                o.closed(),
                o.overdue(today),
                o.danger().secret(),
                o.note());
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
}
