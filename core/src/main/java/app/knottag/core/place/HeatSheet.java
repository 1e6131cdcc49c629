package app.knottag.core.place;

import app.knottag.core.figure.Figures;
import app.knottag.core.figure.Judgement;
import app.knottag.core.figure.Judgement.Draft;
import app.knottag.core.figure.SheetField;
import app.knottag.core.figure.Worksheet;
import java.util.List;

/** What stands on what: warm things beside one another, never under or on. */
public final class HeatSheet implements Worksheet {

    /** How warm something gets. */
    enum Warmth {
        COOL("Stays cool"),
        WARM("Gets warm"),
        HOT("Gets hot, or has slots on top");

        private final String words;

        Warmth(String words) {
            this.words = words;
        }
    }

    @Override
    public String key() {
        return "heat";
    }

    @Override
    public String title() {
        return "What stands on what";
    }

    @Override
    public String purpose() {
        return "Looks through a stack from the bottom to the top for things that warm one another.";
    }

    @Override
    public List<SheetField> fields() {
        return List.of(
                SheetField.rows(
                        "stack",
                        "The stack, from the bottom",
                        1,
                        10,
                        SheetField.words("name", "Device"),
                        SheetField.pick("warmth", "It", Warmth.values(), w -> w.words)),
                SheetField.yesNo("closed", "Does it stand in a closed cupboard?"));
    }

    @Override
    public Judgement judge(Figures f) {
        var stack = f.rows("stack");
        var draft = new Draft();
        for (int i = 0; i + 1 < stack.size(); i++) {
            var below = stack.get(i).pick("warmth", Warmth.class);
            var above = stack.get(i + 1).pick("warmth", Warmth.class);
            if (below == Warmth.HOT || below == Warmth.WARM && above != Warmth.COOL)
                draft.stop(
                        "ON_WARM",
                        "stack/" + (i + 1) + "/name",
                        stack.get(i + 1).words("name") + " stands on "
                                + stack.get(i).words("name") + ", which "
                                + (below == Warmth.HOT ? "gets hot" : "gets warm")
                                + ": it restarts by itself on warm days.",
                        "Put them beside one another, a hand’s breadth apart.");
            else if (above == Warmth.HOT)
                draft.warn(
                        "HOT_ABOVE",
                        "stack/" + i + "/name",
                        stack.get(i).words("name") + " is under "
                                + stack.get(i + 1).words("name") + ", which gets hot.",
                        "Put them beside one another.");
        }
        long warm = stack.stream()
                .filter(r -> r.pick("warmth", Warmth.class) != Warmth.COOL)
                .count();
        if (f.yes("closed") && warm > 0)
            draft.warn(
                    "CLOSED",
                    "closed",
                    "In a closed cupboard warmth stays.",
                    "Leave a gap at the top and at the bottom, or take the door off.");
        return draft.result("WARM", "Get warm", warm + " of " + stack.size()).done();
    }
}
