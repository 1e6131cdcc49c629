package app.knottag.core.register;

import app.knottag.core.hardware.Mac;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/**
 * The sheet by which one unit takes the place of another: everywhere the old one out before the new one in, so that no
 * place ever refuses the new one or admits both. What takes longest is asked for first.
 */
public final class SwapSheet {

    private SwapSheet() {}

    /** Facts of the unit that goes or comes. */
    public record Facts(Optional<Mac> mac, String serial, String model) {
        @Override
        public String toString() {
            var parts = new ArrayList<String>();
            mac.ifPresent(m -> parts.add("MAC " + m));
            if (!serial.isEmpty()) parts.add("serial " + serial);
            if (!model.isEmpty()) parts.add("model " + model);
            return parts.isEmpty() ? "nothing on record" : String.join(", ", parts);
        }
    }

    /** What a step does to the record when it is ticked. */
    public enum Act {
        UNPLUG,
        TAKE_OUT,
        PUT_IN,
        TAG,
        NOTES,
        PARTNER,
        SET_UP,
        PROVE
    }

    /**
     * One place to mend.
     *
     * @param registration the registration it is about, or null
     * @param detail what to do there, in a sentence
     */
    public record Step(Act act, @Nullable Long registration, String title, String detail) {}

    /** A registration of the unit and the registry that it stands in. */
    public record Held(Registry registry, Registration registration) {}

    /**
     * Makes the sheet.
     *
     * @param standings living registrations of the unit
     * @param partner name of the software or host that knows the unit, or empty
     * @param notes whether the old facts stand in its notes
     */
    public static List<Step> of(
            String unit, Facts old, Facts fresh, List<Held> standings, String partner, String tagCode, boolean notes) {
        var steps = new ArrayList<Step>();
        steps.add(new Step(
                Act.UNPLUG,
                null,
                "Unplug the old unit",
                "Power and network off, and off the bench: two units with one address would answer by turns. It is "
                        + old + "."));
        var ordered = standings.stream()
                .sorted(Comparator.comparing((Held s) -> -s.registry().rules().leadDays())
                        .thenComparing(s -> s.registry().type()))
                .toList();
        for (var s : ordered) steps.add(takeOut(s));
        for (var s : ordered) steps.add(putIn(s, unit, fresh));
        if (!partner.isEmpty() && !old.serial().equals(fresh.serial()))
            steps.add(new Step(
                    Act.PARTNER,
                    null,
                    "Give " + partner + " the new serial",
                    "Old " + old.serial() + ", new " + fresh.serial()
                            + ". What it keeps by serial is looked up by the new one."));
        if (notes)
            steps.add(new Step(Act.NOTES, null, "Mend the notes of " + unit, "They name the old unit: " + old + "."));
        steps.add(new Step(
                Act.TAG,
                null,
                "Hang the tag " + tagCode + " on the new unit",
                "Take the old tag off the old one, so that two units never carry the same."));
        steps.add(
                new Step(
                        Act.SET_UP,
                        null,
                        "Plug it in and set it up",
                        "A new unit knows nothing: its runbook begins anew. It joins only with its first start after the entries."));
        steps.add(new Step(Act.PROVE, null, "Prove it", "Every proof belonged to the old unit."));
        return steps;
    }

    private static Step takeOut(Held s) {
        String place = s.registry().name();
        return new Step(
                Act.TAKE_OUT,
                s.registration().id(),
                "Take the old one out of " + place,
                "“" + s.registration().held().name() + "”, "
                        + s.registration().mac().map(Mac::toString).orElse("without a MAC")
                        + (s.registry().rules().waitsFor().isEmpty()
                                ? "."
                                : ". Ask " + s.registry().rules().waitsFor() + "; it takes "
                                        + s.registry().rules().leadDays() + " days."));
    }

    private static Step putIn(Held s, String unit, Facts fresh) {
        var rules = s.registry().rules();
        return new Step(
                Act.PUT_IN,
                s.registration().id(),
                "Put the new one into " + s.registry().name(),
                unit + ": "
                        + (rules.facts().contains(Registry.Fact.SERIAL)
                                ? fresh.toString()
                                : fresh.mac().map(m -> "MAC " + m).orElse("no MAC on record"))
                        + ".");
    }
}
