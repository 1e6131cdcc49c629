package app.knottag.core.runbook;

import app.knottag.core.address.AddressReader;
import app.knottag.core.address.Purpose;
import app.knottag.core.kind.GateType;
import app.knottag.core.kind.Kind;
import app.knottag.core.kind.Kind.Option;
import app.knottag.core.reading.Finding;
import app.knottag.core.reading.Reading;
import app.knottag.core.runbook.StepRecord.StepFinding;
import app.knottag.core.status.Status;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;

/** Judges whether what was read or seen lets a step be completed. */
public final class GateJudge {

    /** Field name of the one answer of a choice. */
    public static final String SEEN = "seen";

    private static final int SHORTEST_UNIT = 4;

    private GateJudge() {}

    /**
     * Returns everything that speaks against completing the step; empty when it may be completed.
     *
     * @param evidence what was keyed in or chosen, by field name
     */
    public static List<StepFinding> judge(Kind kind, Kind.Step step, EndpointPlan plan, Map<String, String> evidence) {
        var findings = new ArrayList<>(ofGate(kind, step, plan, evidence));
        if (!step.needs().isEmpty()
                && evidence.getOrDefault(GateForm.PERSON, "").isBlank())
            findings.add(new StepFinding(
                    GateForm.PERSON,
                    "This is done by a " + step.needs() + ", and no name is on record.",
                    "Wait for that person and key in the name; go on with another device meanwhile."));
        return List.copyOf(findings);
    }

    private static List<StepFinding> ofGate(
            Kind kind, Kind.Step step, EndpointPlan plan, Map<String, String> evidence) {
        return switch (step.gate().type()) {
            case CHOICE -> choice(step, evidence.getOrDefault(SEEN, ""));
            case FACTS -> facts(plan, evidence.getOrDefault(GateForm.UNIT, ""));
            case TYPE_SHEET -> typeSheet(plan);
            case READ_BACK -> readBack(kind, step.gate().part(), plan, evidence);
            case ADDRESS_SHOWN -> addressShown(plan, evidence.getOrDefault(Kind.Field.ADDRESS.name(), ""));
            case CONFIRMED ->
                plan.confirmed()
                        ? List.of()
                        : finding("", "It is not signed off yet.", "Run the checks at Confirm and sign it off.");
            default -> OwnGates.judge(kind, step, plan, evidence);
        };
    }

    static List<StepFinding> finding(String field, String message, String remedy) {
        return List.of(new StepFinding(field, message, remedy));
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

    private static List<StepFinding> facts(EndpointPlan plan, String unit) {
        var findings = new ArrayList<StepFinding>();
        if (plan.mac().isEmpty())
            findings.add(new StepFinding("mac", "The MAC is not on record yet.", "Key it in from the label."));
        if (plan.serial().isEmpty())
            findings.add(new StepFinding("serial", "The serial is not on record yet.", "Key it in from the label."));
        return findings.isEmpty() ? inHand(plan, plain(unit)) : findings;
    }

    /** The unit in hand is told by the end of its serial or MAC; whose it is otherwise is said. */
    private static List<StepFinding> inHand(EndpointPlan plan, String unit) {
        if (unit.length() < SHORTEST_UNIT)
            return finding(
                    GateForm.UNIT,
                    "Key in the last four of the serial or the MAC, from the label in your hand.",
                    "So a device that was taken by mistake shows now and not at the end.");
        if (plain(plan.serial().get()).endsWith(unit)
                || plain(plan.mac().get().toString()).endsWith(unit)) return List.of();
        String whose = plan.around().beside().others().get().stream()
                .filter(o -> plain(o.serial()).endsWith(unit)
                        || o.mac()
                                .filter(m -> plain(m.toString()).endsWith(unit))
                                .isPresent())
                .map(o -> "It is " + o.name() + (o.place().isEmpty() ? "." : ", which belongs to " + o.place() + "."))
                .findFirst()
                .orElse("Nothing on record at this site ends like that.");
        return finding(
                GateForm.UNIT,
                "“" + unit + "” is not the end of serial " + plan.serial().get() + " nor of MAC "
                        + plan.mac().get() + ". " + whose,
                "Take the right device, or correct the label above if it was read wrongly.");
    }

    private static String plain(String text) {
        return text.toUpperCase(Locale.ROOT).replaceAll("[^0-9A-Z]", "");
    }

    private static List<StepFinding> typeSheet(EndpointPlan plan) {
        return plan.address().isPresent()
                ? List.of()
                : List.of(new StepFinding("", "It has no address to enter.", "Give it one at Plan."));
    }

    private static List<StepFinding> readBack(Kind kind, String part, EndpointPlan plan, Map<String, String> evidence) {
        var findings = new ArrayList<StepFinding>();
        for (var row : TypeSheet.toReadBack(kind, plan, part)) {
            String field = TypeSheet.key(row),
                    text = evidence.getOrDefault(field, "").strip();
            if (!row.figures())
                words(row, field, text).map(f -> crossed(f, row, plan, text)).ifPresent(findings::add);
            else {
                var reading = AddressReader.read(text, EndpointPlan.purpose(row.field()), plan.context(row.value()));
                if (!row.value().equals(reading.value()))
                    findings.add(new StepFinding(
                            field,
                            row.label() + ": " + said(reading, row.value()),
                            "Correct it on the device, save, and read it back again."));
            }
        }
        return findings;
    }

    /**
     * Returns what was passed without being read back, as it is called: words of a menu that does not show them again. That they
     * stand there as they should is nobody's knowledge.
     */
    public static List<String> unread(Kind kind, Kind.Step step, EndpointPlan plan, StepRecord record) {
        if (step.gate().type() != GateType.READ_BACK || record.status() != Status.PASSED) return List.of();
        return TypeSheet.toReadBack(kind, plan, step.gate().part()).stream()
                .filter(r -> !r.figures()
                        && record.evidence().getOrDefault(TypeSheet.key(r), "").isBlank())
                .map(TypeSheet.SheetRow::label)
                .toList();
    }

    /** How a MAC or serial is written, with dots, dashes or blanks, is the other side's own. */
    private static boolean same(Kind.Field field, String text, String value) {
        return field == Kind.Field.MAC || field == Kind.Field.SERIAL
                ? plain(text).equals(plain(value))
                : text.equalsIgnoreCase(value);
    }

    /** A number of another one tells that the two were taken for one another. */
    private static StepFinding crossed(StepFinding finding, TypeSheet.SheetRow row, EndpointPlan plan, String text) {
        if (row.field() != Kind.Field.NUMBER) return finding;
        return plan.around().beside().others().get().stream()
                .filter(o ->
                        o.number().map(String::valueOf).filter(text::equals).isPresent())
                .findFirst()
                .map(
                        o -> new StepFinding(
                                finding.field(),
                                finding.message() + " " + text + " is the number of " + o.placed() + ".",
                                "Are the two in one another's place? Then change them over; otherwise correct the number here."))
                .orElse(finding);
    }

    /** Words may go unread, since not every menu shows them again; what is read must be as it should. */
    private static Optional<StepFinding> words(TypeSheet.SheetRow row, String field, String text) {
        if (text.isEmpty() && row.field().decides())
            return Optional.of(new StepFinding(field, row.label() + " is not read yet.", "Key in what stands there."));
        if (text.isEmpty() || same(row.field(), text, row.value())) return Optional.empty();
        return Optional.of(new StepFinding(
                field,
                row.label() + ": “" + text + "” instead of “" + row.value() + "”"
                        + (row.leaveAlone() ? ", which it has from the factory." : "."),
                row.leaveAlone() ? "Put it back: this field is left alone." : "Correct it on the device and save."));
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

    static String said(Reading reading, String planned) {
        if (reading.slip() != null) return reading.slip().message();
        return reading.findings().isEmpty()
                ? reading.value() + " instead of " + planned + "."
                : reading.findings().get(0).message();
    }
}
