package app.knottag.core.runbook;

import app.knottag.core.kind.Kind;
import app.knottag.core.kind.Signal;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.stream.IntStream;

/** What a gate asks to be keyed in; the page shows it and knows nothing of gates. */
public final class GateForm {

    /** Field of whoever must do the step by law or trade. */
    public static final String PERSON = "person";

    static final String UNIT = "unit";
    static final String MODEL = "model";
    static final String READ = "read";
    static final String REPORTED = "reported";
    static final String CASE = "case";
    static final String FIRST = "first";
    static final String SECOND = "second";
    static final String COLOUR = "colour";
    static final String STEADINESS = "steadiness";
    static final String BEEPS = "beeps";
    static final String BEEP = "beep";
    static final String SECONDS = "seconds";
    static final String TYPED = "typed";
    static final String MAXIMUM = "maximum";
    static final String DRIVES = "drives";
    static final String ON_THEM = "onThem";
    static final String OWNER = "owner";
    static final String COUNT = "count";
    static final String SHOWN = "shown";
    static final String LAST_RIGHT = "lastRight";
    static final String ITEM = "item-";

    private GateForm() {}

    /** How something is keyed in. */
    public enum Form {
        /** Free words. */
        WORDS,
        /** Numbers and letters copied by hand. */
        CODE,
        /** An address, in groups. */
        FIGURES,
        /** A whole number. */
        NUMBER,
        /** One of a few. */
        PICK,
        /** There or not. */
        TICK,
        /** A date and time as a device shows it. */
        MOMENT,
        /** A day. */
        DAY
    }

    /** One of the things that can be picked. */
    public record Pick(String value, String label) {}

    /**
     * One thing to key in.
     *
     * @param needed whether the step cannot be completed without it
     */
    public record Input(String field, String label, Form form, List<Pick> picks, boolean needed) {}

    /** Returns the inputs of a step in their order; the read-back and the address shown have fields of their own. */
    public static List<Input> of(Kind kind, Kind.Step step, EndpointPlan plan) {
        var inputs = new ArrayList<>(ofGate(kind, step, plan));
        if (!step.needs().isEmpty())
            inputs.add(input(PERSON, "Done by (" + step.needs() + "), name", Form.WORDS, true));
        return List.copyOf(inputs);
    }

    private static List<Input> ofGate(Kind kind, Kind.Step step, EndpointPlan plan) {
        return switch (step.gate().type()) {
            case FACTS ->
                plan.serial().isEmpty() || plan.mac().isEmpty()
                        ? List.of()
                        : List.of(input(UNIT, "Last four of the serial or the MAC in your hand", Form.CODE, true));
            case KIT ->
                IntStream.range(0, kind.outfit().kit().size())
                        .mapToObj(i -> input(ITEM + i, kind.outfit().kit().get(i), Form.TICK, false))
                        .toList();
            case MODEL -> List.of(input(MODEL, "Model on the label, to its last letter", Form.CODE, true));
            case SEALS ->
                plan.around().answers().containsKey(EndpointContext.SEALS)
                        ? List.of(input(READ, "Seal numbers you read", Form.CODE, true))
                        : List.of(
                                input(READ, "Seal numbers you read", Form.CODE, true),
                                input(REPORTED, "Seal numbers reported to you", Form.CODE, true));
            case NEW_SEALS ->
                List.of(
                        input(CASE, "Number on the case", Form.CODE, true),
                        input(READ, "Numbers of the new seals", Form.CODE, true));
            case SAME, NAMES -> {
                var labels = step.gate().compare().size() == 2
                        ? step.gate().compare()
                        : List.of("Name on its screen", "Name on the other screen");
                yield List.of(
                        input(FIRST, labels.get(0), Form.CODE, true), input(SECOND, labels.get(1), Form.CODE, true));
            }
            case SIGNAL -> signal(kind, step.gate().part());
            case LEARNED ->
                List.of(
                        input("ADDRESS", "Address it was given", Form.FIGURES, true),
                        input("MASK", "Mask", Form.FIGURES, true),
                        input("GATEWAY", "Gateway", Form.FIGURES, true),
                        input("RESOLVER_1", "First resolver", Form.FIGURES, false),
                        input("RESOLVER_2", "Second resolver", Form.FIGURES, false));
            case HOLD ->
                List.of(
                        input(SECONDS, "Seconds it was held", Form.NUMBER, true),
                        input(BEEPS, "Beeps you heard", Form.NUMBER, true));
            case SIZE ->
                List.of(
                        input(MAXIMUM, "Largest size it offers", Form.NUMBER, true),
                        input(TYPED, "Size you typed", Form.NUMBER, true));
            case RELEASE ->
                List.of(
                        input(DRIVES, "Serials of the drives", Form.CODE, true),
                        new Input(
                                ON_THEM,
                                "What is on them",
                                Form.PICK,
                                List.of(
                                        new Pick("NEW", "Nothing: they come sealed from the shop"),
                                        new Pick("SAVED", "Data, and a backup was opened and looked at"),
                                        new Pick("UNKNOWN", "Not known")),
                                true),
                        input(OWNER, "Who releases them for wiping, in writing", Form.WORDS, true));
            case COUNT -> List.of(input(COUNT, step.gate().ask(), Form.NUMBER, true));
            case CLOCK ->
                List.of(
                        input(SHOWN, "Date and time it shows", Form.MOMENT, true),
                        input(LAST_RIGHT, "Last day its time was known to be right", Form.DAY, false));
            case CHOICE, TYPE_SHEET, READ_BACK, ADDRESS_SHOWN, CONFIRMED, WORKSHEET, OPENINGS -> List.of();
        };
    }

    private static List<Input> signal(Kind kind, String part) {
        var table = kind.signals().stream().filter(s -> s.part().equals(part)).toList();
        var inputs = new ArrayList<Input>();
        inputs.add(new Input(
                STEADINESS,
                part,
                Form.PICK,
                List.of(
                        new Pick("STEADY", "Steady"),
                        new Pick("BLINKING", "Blinking"),
                        new Pick("OFF", "Off, nothing to see")),
                true));
        inputs.add(new Input(
                COLOUR,
                "Colour or drawing",
                Form.PICK,
                table.stream()
                        .map(Signal::colour)
                        .distinct()
                        .map(c -> new Pick(c, c))
                        .toList(),
                false));
        if (table.stream().anyMatch(s -> s.beeps() > 0)) {
            inputs.add(input(BEEPS, "Beeps, 0 for none", Form.NUMBER, true));
            inputs.add(new Input(
                    BEEP,
                    "How long a beep",
                    Form.PICK,
                    Arrays.stream(Signal.Beep.values())
                            .filter(b -> b != Signal.Beep.NONE)
                            .map(b -> new Pick(b.name(), b == Signal.Beep.SHORT ? "Short" : "Long"))
                            .toList(),
                    false));
        }
        return inputs;
    }

    private static Input input(String field, String label, Form form, boolean needed) {
        return new Input(field, label, form, List.of(), needed);
    }
}
