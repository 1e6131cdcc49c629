package app.knottag.core.place;

import app.knottag.core.figure.Figures;
import app.knottag.core.figure.Judgement;
import app.knottag.core.figure.Judgement.Draft;
import app.knottag.core.figure.Picture;
import app.knottag.core.figure.Picture.PictureMark;
import app.knottag.core.figure.Picture.Tone;
import app.knottag.core.figure.SheetField;
import app.knottag.core.figure.Unit;
import app.knottag.core.figure.Worksheet;
import java.util.Arrays;
import java.util.List;

/** How long a lead must be, and whether the whole run of copper is short enough. */
public final class RunSheet implements Worksheet {

    /** Spare length for bends, joints and a second plug. */
    private static final double SPARE = 1.1;

    /** Longest run of copper between two boxes, with its leads (ISO/IEC 11801). */
    private static final double LONGEST = 100;

    /** Lengths that leads are sold in, metres. */
    private static final double[] SOLD = {0.5, 1, 2, 3, 5, 7.5, 10, 15, 20, 30, 50};

    @Override
    public String key() {
        return "run";
    }

    @Override
    public String title() {
        return "Lead and run";
    }

    @Override
    public String purpose() {
        return "Adds up the way of the lead, with a tenth to spare, and the whole run to the switch.";
    }

    @Override
    public List<SheetField> fields() {
        return List.of(
                SheetField.rows(
                        "pieces",
                        "The way of the lead",
                        1,
                        12,
                        SheetField.words("name", "From and to"),
                        SheetField.figure("length", "Length", Unit.METRE, 0.01, 500)),
                SheetField.figure("lead", "The lead you have", Unit.METRE, 0.1, 500)
                        .optional(),
                SheetField.figure("wall", "In the wall, from the outlet to the panel", Unit.METRE, 0, 500)
                        .usual("0"),
                SheetField.figure("panel", "From the panel to the switch", Unit.METRE, 0, 100)
                        .usual("0"),
                SheetField.yesNo("walked", "Does anybody walk over it?"),
                SheetField.yesNo("cover", "Is a cover or plate closed over it?"));
    }

    @Override
    public Judgement judge(Figures f) {
        double
                way =
                        f.rows("pieces").stream()
                                .mapToDouble(r -> r.figure("length"))
                                .sum(),
                needed = way * SPARE;
        double lead = f.find("lead").orElse(needed), run = lead + f.figure("wall") + f.figure("panel");
        double sold =
                Arrays.stream(SOLD).filter(s -> s >= needed - 1e-9).findFirst().orElse(Math.ceil(needed));
        var draft = new Draft()
                .result("NEEDED", "Lead needed", Unit.METRE.write(needed))
                .result("TAKE", "Take one of", Unit.METRE.write(sold))
                .result("RUN", "Whole run", Unit.METRE.write(run) + " of " + Unit.METRE.write(LONGEST));
        if (f.find("lead").isPresent() && lead < needed - 1e-9)
            draft.stop(
                    "TOO_SHORT",
                    "lead",
                    lead < way
                            ? "It does not reach: " + Unit.METRE.write(way - lead) + " are missing."
                            : "It reaches only when it is taut: nothing is left for bends.",
                    "Take one of " + Unit.METRE.write(sold) + ", and do not go over to wireless for it.");
        if (run > LONGEST)
            draft.stop(
                    "RUN_TOO_LONG",
                    "wall",
                    "The run is " + Unit.METRE.write(run) + ": beyond 100 m the link drops or stays slow.",
                    "Put a switch on the way, or have a nearer outlet patched.");
        if (f.yes("walked"))
            draft.warn(
                    "TRIP",
                    "walked",
                    "Somebody will trip over it.",
                    "Another way, along the wall; else tape it down over its whole length.");
        if (f.yes("cover")) draft.note("BEFORE_COVER", "cover", "Lay it and try the link before the cover is closed.");
        var row = new Picture.Row("The run");
        f.rows("pieces")
                .forEach(r -> row.add(r.figure("length"), r.words("name"), run > LONGEST ? Tone.BAD : Tone.GOOD));
        row.add(lead - way, "to spare", Tone.SPARE);
        row.add(f.figure("wall"), "in the wall", Tone.RUNS).add(f.figure("panel"), "panel to switch", Tone.WAITS);
        return draft.draw(new Picture(
                        "From the device to the switch",
                        Unit.METRE,
                        row.end(),
                        List.of(row.row()),
                        run > LONGEST * 0.5 ? List.of(new PictureMark(LONGEST, "100 m")) : List.of()))
                .done();
    }
}
