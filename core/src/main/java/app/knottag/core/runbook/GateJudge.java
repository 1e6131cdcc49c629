package app.knottag.core.runbook;

import app.knottag.core.address.AddressReader;
import app.knottag.core.address.Purpose;
import app.knottag.core.kind.Kind;
import app.knottag.core.kind.Kind.Option;
import app.knottag.core.reading.Finding;
import app.knottag.core.reading.Reading;
import app.knottag.core.runbook.StepRecord.StepFinding;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;

/** Judges whether what was read or seen lets a step be tied. */
public final class GateJudge {

    /** Field name of the one answer of a choice. */
    public static final String SEEN = "seen";

    private GateJudge() {}

    /**
     * Returns everything that speaks against tying the step; empty when it may be tied.
     *
     * @param evidence what was keyed in or chosen, by field name
     */
    public static List<StepFinding> judge(Kind kind, Kind.Step step, EndpointPlan plan, Map<String, String> evidence) {
        return switch (step.gate().type()) {
            case CHOICE -> choice(step, evidence.getOrDefault(SEEN, ""));
            case FACTS -> facts(plan);
            case TYPE_SHEET -> typeSheet(plan);
            case READ_BACK -> readBack(kind, plan, evidence);
            case ADDRESS_SHOWN -> addressShown(plan, evidence.getOrDefault(Kind.Field.ADDRESS.name(), ""));
            case CONFIRMED ->
                plan.confirmed()
                        ? List.of()
                        : List.of(new StepFinding(
                                "", "It is not signed off yet.", "Run the checks at Confirm and sign it off."));
        };
    }

    private static List<StepFinding> choice(Kind.Step step, String seen) {
        var option = step.gate().options().stream()
                .filter(o -> o.value().equals(seen))
                .findFirst();
        if (option.isEmpty()) return List.of(new StepFinding(SEEN, "Say what you see first.", ""));
        return option.filter(Option::holds).isPresent()
                ? List.of()
                : List.of(new StepFinding(
                        SEEN, option.get().label() + ".", option.get().remedy()));
    }

    private static List<StepFinding> facts(EndpointPlan plan) {
        var findings = new ArrayList<StepFinding>();
        if (plan.mac().isEmpty())
            findings.add(new StepFinding("mac", "The MAC is not on record yet.", "Key it in from the label."));
        if (plan.serial().isEmpty())
            findings.add(new StepFinding("serial", "The serial is not on record yet.", "Key it in from the label."));
        return findings;
    }

    private static List<StepFinding> typeSheet(EndpointPlan plan) {
        return plan.address().isPresent()
                ? List.of()
                : List.of(new StepFinding("", "It has no address to enter.", "Give it one at Plan."));
    }

    private static List<StepFinding> readBack(Kind kind, EndpointPlan plan, Map<String, String> evidence) {
        var findings = new ArrayList<StepFinding>();
        for (var row : TypeSheet.toReadBack(kind, plan)) {
            String field = row.field().name();
            var reading = AddressReader.read(
                    evidence.getOrDefault(field, ""), EndpointPlan.purpose(row.field()), plan.context(row.value()));
            if (!row.value().equals(reading.value()))
                findings.add(new StepFinding(
                        field,
                        row.label() + ": " + said(reading, row.value()),
                        "Correct it on the device, save, and read it back again."));
        }
        return findings;
    }

    private static List<StepFinding> addressShown(EndpointPlan plan, String shown) {
        if (plan.address().isEmpty()) return typeSheet(plan);
        String planned = plan.address().get().toString();
        var reading = AddressReader.read(shown, Purpose.ADDRESS, plan.context(planned));
        if (planned.equals(reading.value())) return List.of();
        boolean automatic = reading.findings().stream()
                .anyMatch(f -> f.code() == Finding.Code.IN_POOL || f.code() == Finding.Code.LINK_LOCAL);
        return List.of(new StepFinding(
                Kind.Field.ADDRESS.name(),
                said(reading, planned),
                automatic
                        ? "It is back on automatic: the address was not saved. Enter it again and leave the menu the proper way."
                        : "Enter the address again, save, and restart."));
    }

    private static String said(Reading reading, String planned) {
        if (reading.slip() != null) return reading.slip().message();
        return reading.findings().isEmpty()
                ? reading.value() + " instead of " + planned + "."
                : reading.findings().get(0).message();
    }
}
