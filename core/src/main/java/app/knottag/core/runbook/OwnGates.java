package app.knottag.core.runbook;

import static app.knottag.core.runbook.GateJudge.finding;

import app.knottag.core.kind.Kind;
import app.knottag.core.kind.Outfit.Variant;
import app.knottag.core.kind.Signal.Beep;
import app.knottag.core.kind.Signal.Steadiness;
import app.knottag.core.kind.SignalReader;
import app.knottag.core.kind.VariantMatch;
import app.knottag.core.plan.LeaseCompare;
import app.knottag.core.reading.ReadingException;
import app.knottag.core.runbook.StepRecord.StepFinding;
import app.knottag.core.time.TimeReader;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.stream.IntStream;

/** The gates that only some kinds have: kit, variant, seals, lights, clock, drives, openings. */
final class OwnGates {

    private final Kind kind;
    private final Kind.Step step;
    private final EndpointPlan plan;
    private final EndpointContext around;
    private final Map<String, String> evidence;

    private OwnGates(Kind kind, Kind.Step step, EndpointPlan plan, Map<String, String> evidence) {
        this.kind = kind;
        this.step = step;
        this.plan = plan;
        this.around = plan.around();
        this.evidence = evidence;
    }

    static List<StepFinding> judge(Kind kind, Kind.Step step, EndpointPlan plan, Map<String, String> evidence) {
        var missing = GateForm.of(kind, step, plan).stream()
                .filter(i -> i.needed() && !i.field().equals(GateForm.PERSON))
                .filter(i -> evidence.getOrDefault(i.field(), "").isBlank())
                .map(i -> new StepFinding(i.field(), i.label() + ": this is missing.", ""))
                .toList();
        return missing.isEmpty() ? new OwnGates(kind, step, plan, evidence).judge() : missing;
    }

    private List<StepFinding> judge() {
        return switch (step.gate().type()) {
            case KIT -> kit();
            case MODEL -> model();
            case SEALS ->
                Seals.compare(
                        Seals.numbers(text(GateForm.READ)),
                        Seals.numbers(around.answers().getOrDefault(EndpointContext.SEALS, text(GateForm.REPORTED))),
                        GateForm.READ);
            case NEW_SEALS ->
                Seals.fresh(
                        Seals.numbers(text(GateForm.READ)),
                        around.beside().usedSeals().get(),
                        text(GateForm.CASE),
                        Optional.ofNullable(around.answers().get(EndpointContext.CASE)));
            case SAME -> same();
            case NAMES -> names();
            case SIGNAL -> signal();
            case LEARNED -> learned();
            case HOLD -> hold();
            case SIZE -> size();
            case RELEASE -> release();
            case COUNT -> count();
            case CLOCK -> clock();
            case WORKSHEET -> SheetGate.judge(step.gate(), around.beside());
            case OPENINGS -> openings();
            default ->
                throw new IllegalStateException(
                        "not judged here: " + step.gate().type());
        };
    }

    private String text(String field) {
        return evidence.getOrDefault(field, "").strip();
    }

    private List<StepFinding> kit() {
        var missing = IntStream.range(0, kind.outfit().kit().size())
                .filter(i -> !text(GateForm.ITEM + i).equals("true"))
                .mapToObj(i -> kind.outfit().kit().get(i))
                .toList();
        return missing.isEmpty()
                ? List.of()
                : finding(
                        "",
                        "Missing: " + String.join(", ", missing) + ".",
                        "Look in the box once more. Really missing: have it sent, and go on with another device.");
    }

    private List<StepFinding> model() {
        String model = text(GateForm.MODEL);
        var fitting = kind.outfit().variants().stream()
                .filter(Variant::fits)
                .map(Variant::model)
                .toList();
        if (!around.model().isEmpty()
                && !VariantMatch.of(model, List.of(around.model())).fits())
            return finding(
                    GateForm.MODEL,
                    "Planned is " + around.model() + ". "
                            + VariantMatch.of(model, List.of(around.model())).because(),
                    "Leave it in the box and have it exchanged, or change the plan if this one is meant.");
        var unfit = kind.outfit().variants().stream()
                .filter(v ->
                        !v.fits() && VariantMatch.of(model, List.of(v.model())).fits())
                .findFirst();
        if (unfit.isPresent())
            return finding(
                    GateForm.MODEL,
                    model + " is the wrong variant: " + unfit.get().because(),
                    "Leave it in the box and have it exchanged.");
        if (fitting.isEmpty() || VariantMatch.of(model, fitting).fits()) return List.of();
        return finding(
                GateForm.MODEL,
                VariantMatch.of(model, fitting).because(),
                "Read the label once more. Really another: ask the service whether it takes it.");
    }

    private List<StepFinding> same() {
        String first = text(GateForm.FIRST), second = text(GateForm.SECOND);
        if (first.equalsIgnoreCase(second)) return List.of();
        return finding(
                GateForm.SECOND,
                step.gate().compare().get(0) + " is " + first + ", "
                        + step.gate().compare().get(1) + " is " + second + ".",
                "They belong together. Look for the other half of each pair before you go on.");
    }

    private List<StepFinding> names() {
        String screen = text(GateForm.FIRST), pad = text(GateForm.SECOND);
        if (screen.equalsIgnoreCase(pad)) return List.of();
        var other = around.beside().others().get().stream()
                .filter(o -> o.name().equalsIgnoreCase(pad))
                .findFirst();
        String here = around.name();
        return other.map(o -> finding(
                        GateForm.SECOND,
                        "“" + pad + "” is the name of another one" + (o.place().isEmpty() ? "" : ", at " + o.place())
                                + ": the two are crossed.",
                        "Change the two over: this one goes to " + o.name() + ", and the one there belongs to " + here
                                + "."))
                .orElseGet(() -> finding(
                        GateForm.SECOND,
                        "One shows “" + screen + "”, the other “" + pad + "”.",
                        "Read both once more. Still different: the pair was joined wrongly; pair them again."));
    }

    private List<StepFinding> signal() {
        var steadiness = pick(Steadiness.values(), text(GateForm.STEADINESS));
        if (steadiness.isEmpty()) return finding(GateForm.STEADINESS, "Say what you see first.", "");
        var beeps = whole(GateForm.BEEPS);
        var beep = pick(Beep.values(), text(GateForm.BEEP)).orElse(Beep.NONE);
        int heard = beeps.orElse(0);
        if (heard > 0 && beep == Beep.NONE)
            return finding(GateForm.BEEP, "Say whether the beeps were short or long.", "");
        var meaning = SignalReader.read(
                kind.signals(),
                step.gate().part(),
                text(GateForm.COLOUR),
                steadiness.get(),
                heard,
                heard == 0 ? Beep.NONE : beep);
        return meaning.holds() ? List.of() : finding("", sentence(meaning.means()), meaning.act());
    }

    private static String sentence(String words) {
        return Character.toUpperCase(words.charAt(0)) + words.substring(1) + (words.endsWith(".") ? "" : ".");
    }

    private static <E extends Enum<E>> Optional<E> pick(E[] values, String name) {
        for (E value : values) if (value.name().equals(name)) return Optional.of(value);
        return Optional.empty();
    }

    private List<StepFinding> learned() {
        if (plan.address().isEmpty()) return finding("", "It has no address to compare with.", "Give it one at Plan.");
        var findings = LearnedLease.unreadable(evidence);
        if (!findings.isEmpty()) return findings;
        return LearnedLease.compare(plan, evidence).stream()
                .filter(l -> l.act() == LeaseCompare.Act.ALARM)
                .map(l -> new StepFinding(
                        l.field().toUpperCase(Locale.ROOT).replace(' ', '_'),
                        l.field() + " " + l.learned() + ", planned " + l.planned() + ". " + l.reason(),
                        "Type nothing yet. Look at the socket and the lead first."))
                .toList();
    }

    private OptionalInt whole(String field) {
        String digits = text(field);
        return digits.matches("\\d{1,9}") ? OptionalInt.of(Integer.parseInt(digits)) : OptionalInt.empty();
    }

    private List<StepFinding> notWhole(String field) {
        return finding(field, "“" + text(field) + "” is no whole number.", "Key in figures only.");
    }

    private List<StepFinding> hold() {
        if (whole(GateForm.SECONDS).isEmpty()) return notWhole(GateForm.SECONDS);
        if (whole(GateForm.BEEPS).isEmpty()) return notWhole(GateForm.BEEPS);
        if (kind.reset().isEmpty()) return List.of();
        var verdict = ButtonHold.of(
                kind.reset().get(),
                whole(GateForm.SECONDS).getAsInt(),
                whole(GateForm.BEEPS).getAsInt());
        return verdict.holds() ? List.of() : finding(GateForm.SECONDS, verdict.words(), verdict.remedy());
    }

    private List<StepFinding> size() {
        if (whole(GateForm.MAXIMUM).isEmpty()) return notWhole(GateForm.MAXIMUM);
        if (whole(GateForm.TYPED).isEmpty()) return notWhole(GateForm.TYPED);
        int left = whole(GateForm.MAXIMUM).getAsInt() - whole(GateForm.TYPED).getAsInt();
        if (left == 0) return List.of();
        return left < 0
                ? finding(
                        GateForm.TYPED,
                        "The size is larger than the largest possible by " + -left + ".",
                        "Type the largest size that it offers.")
                : finding(
                        GateForm.TYPED,
                        left + " is left over and nobody can use it later.",
                        "Type the whole size. Meant so? Leave the step out and say what the rest is for.");
    }

    private List<StepFinding> release() {
        if (!text(GateForm.ON_THEM).equals("UNKNOWN")) return List.of();
        return finding(
                GateForm.ON_THEM,
                "Nobody knows what is on " + text(GateForm.DRIVES) + ", and everything on them is wiped.",
                "Stop. Read them on another computer, or have the owner name the backup.");
    }

    private List<StepFinding> count() {
        var count = whole(GateForm.COUNT);
        if (count.isEmpty()) return notWhole(GateForm.COUNT);
        int least = step.gate().least();
        return count.getAsInt() >= least
                ? List.of()
                : finding(
                        GateForm.COUNT,
                        count.getAsInt() + " is not enough: at least " + least + " needed.",
                        step.waysOut().isEmpty()
                                ? "Do that first, then count again."
                                : step.waysOut().get(0));
    }

    private List<StepFinding> clock() {
        List<LocalDateTime> shown;
        try {
            shown = TimeReader.shown(text(GateForm.SHOWN));
        } catch (ReadingException e) {
            return finding(GateForm.SHOWN, e.getMessage(), "Look at its screen once more.");
        }
        if (shown.size() != 1)
            return finding(
                    GateForm.SHOWN,
                    shown.isEmpty()
                            ? "“" + text(GateForm.SHOWN) + "” is no date and time."
                            : "“" + text(GateForm.SHOWN) + "” leaves open which is the day and which the month.",
                    "Key it in as 2026-03-29 14:05 or 29.03.2026 14:05.");
        var reading = ClockReading.of(shown.get(0), around.clock());
        if (reading.holds()) return List.of();
        var lastRight = TimeReader.read(
                text(GateForm.LAST_RIGHT), TimeReader.Form.DAY, around.clock().style());
        if (!lastRight.usable() && !text(GateForm.LAST_RIGHT).isEmpty())
            return finding(
                    GateForm.LAST_RIGHT, lastRight.refusal().orElseThrow(), "Correct the day, or leave it empty.");
        var affected = reading.affected(Optional.ofNullable(lastRight.value()).map(LocalDate::parse), around.clock());
        return finding(
                GateForm.SHOWN, reading.words() + affected.map(a -> " " + a).orElse(""), reading.remedy());
    }

    private List<StepFinding> openings() {
        var today = around.clock().today();
        return around.openings().stream()
                .filter(o -> !o.settled(today))
                .map(o -> new StepFinding(
                        o.key(),
                        o.title()
                                + (o.overdue(today)
                                        ? " stands open longer than it may: " + o.owner() + " had until "
                                                + around.clock().day(o.ends().get()) + "."
                                        : " stands open."),
                        (o.closes().isEmpty() ? "Close it" : o.closes()) + " Not now? Say who closes it and by when."))
                .toList();
    }
}
