package app.knottag.core.runbook;

import app.knottag.core.figure.Judgement;
import app.knottag.core.figure.SheetFinding.Weight;
import app.knottag.core.kind.GateType;
import app.knottag.core.kind.Kind;
import app.knottag.core.kind.Kind.Gate;
import app.knottag.core.runbook.EndpointContext.Beside;
import app.knottag.core.runbook.StepRecord.StepFinding;
import app.knottag.core.status.Status;
import app.knottag.core.worksheet.Worksheets;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** The gate of a worksheet: those of the kind until somebody keys in its own; what was counted at another step stands over both. */
public final class SheetGate {

    private SheetGate() {}

    /** Returns the fields that were counted at another step, with what was counted there. */
    public static Map<String, String> counted(Gate gate, Beside beside) {
        var counted = new LinkedHashMap<String, String>();
        gate.counted().forEach((field, step) -> beside.counted().apply(step).ifPresent(n -> counted.put(field, n)));
        return counted;
    }

    /** Returns everything that stands on the worksheet, by field. */
    public static Map<String, String> figures(Gate gate, Beside beside) {
        var own = beside.figures().apply(gate.sheet());
        var figures = new LinkedHashMap<>(own.isEmpty() ? gate.figures() : own);
        figures.putAll(counted(gate, beside));
        return figures;
    }

    /** Judges what stands on the worksheet. */
    public static Judgement judged(Gate gate, Beside beside) {
        return Worksheets.find(gate.sheet()).orElseThrow().judge(figures(gate, beside));
    }

    /** Returns the number that was counted at a step, if it counts. */
    public static Optional<String> count(StepRecord record) {
        return Optional.ofNullable(record.evidence().get(GateForm.COUNT));
    }

    /** Returns what the worksheet said when a step was completed, by the code of the result, to be kept as its evidence. */
    public static Map<String, String> said(Gate gate, Beside beside) {
        var said = new LinkedHashMap<String, String>();
        judged(gate, beside).results().forEach(r -> said.put(r.code(), r.text()));
        return said;
    }

    /** Returns the keys of the steps that were completed by a worksheet and no longer hold with what stands on it now. */
    public static List<String> shaken(Runbook runbook, Beside beside) {
        return runbook.kind().steps().stream()
                .filter(s -> s.gate().type() == GateType.WORKSHEET)
                .filter(s -> runbook.record(s.key()).status() == Status.PASSED)
                .filter(s -> !judged(s.gate(), beside).holds())
                .map(Kind.Step::key)
                .toList();
    }

    static List<StepFinding> judge(Gate gate, Beside beside) {
        return judged(gate, beside).findings().stream()
                .filter(f -> f.weight() == Weight.STOPS)
                .map(f -> new StepFinding(f.field(), f.message(), f.wayOut()))
                .toList();
    }
}
