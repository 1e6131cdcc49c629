package app.knottag.core.power;

import app.knottag.core.figure.Figures;
import app.knottag.core.figure.Judgement;
import app.knottag.core.figure.Judgement.Draft;
import app.knottag.core.figure.Picture;
import app.knottag.core.figure.Picture.PictureMark;
import app.knottag.core.figure.Picture.Tone;
import app.knottag.core.figure.SheetField;
import app.knottag.core.figure.Unit;
import app.knottag.core.figure.Worksheet;
import java.util.List;

/** What is left of the volts at the far end of a run of copper, there and back. */
public final class CableSheet implements Worksheet {

    @Override
    public String key() {
        return "cable";
    }

    @Override
    public String title() {
        return "Volts at the far end";
    }

    @Override
    public String purpose() {
        return "Takes what the two leads of the run lose from the supply, at 20 °C in stranded copper, and compares what is left "
                + "with the least the lock takes. Joints, clamps and a warm shaft lose more.";
    }

    @Override
    public List<SheetField> fields() {
        return List.of(
                SheetField.figure("volts", "Supply, volts", Unit.VOLT, 3, 60).usual("12"),
                SheetField.figure("length", "Length of the run, one way", Unit.METRE, 0.1, 1000),
                SheetField.figure("section", "Cross-section of one lead", Unit.SQUARE_MILLIMETRE, 0.05, 50)
                        .hint("On the cable, as 2 × 0.75 or AWG 18."),
                SheetField.figure("current", "Most that it draws", Unit.AMPERE, 0.001, 50)
                        .hint("With inrush, where its sheet names one."),
                SheetField.figure("least", "Least volts it works with", Unit.VOLT, 1, 60)
                        .hint("On its sheet; often nine tenths of its volts."));
    }

    @Override
    public Judgement judge(Figures f) {
        double volts = f.figure("volts"), length = f.figure("length"), section = f.figure("section");
        double current = f.figure("current"), least = f.figure("least");
        double drop = Conductor.drop(length, section, current), left = volts - drop, mayLose = volts - least;
        var draft = new Draft()
                .result("DROP", "Lost in the two leads", Unit.VOLT.write(drop))
                .result("LEFT", "Left at the far end", left > 0 ? Unit.VOLT.write(left) : "nothing");
        if (mayLose < 0) {
            draft.stop(
                    "LEAST_ABOVE",
                    "least",
                    "It wants at least " + Unit.VOLT.write(least) + ", and the supply gives " + Unit.VOLT.write(volts)
                            + ".",
                    "Read its sheet once more, or take another supply.");
            return draft.done();
        }
        double longest = mayLose / (2 * current * Conductor.perMetre(section));
        draft.result("LONGEST", "Longest run with this cable", Unit.METRE.write(Math.floor(longest * 10) / 10));
        if (drop > mayLose * (1 + 1e-9)) {
            var next = Conductor.enough(length, current, mayLose, section);
            draft.stop(
                    "TOO_THIN",
                    "section",
                    "Only " + Unit.VOLT.write(Math.max(left, 0)) + " arrive, and it wants at least "
                            + Unit.VOLT.write(least) + ".",
                    (next.isPresent()
                                    ? "Take " + Unit.SQUARE_MILLIMETRE.write(next.getAsDouble()) + ", "
                                    : "No cable that is usually sold is thick enough: ")
                            + (next.isPresent() ? "or " : "") + "put the supply within "
                            + Unit.METRE.write(Math.floor(longest * 10) / 10)
                            + " of it.");
        }
        return draft.draw(new Picture(
                        "From the supply to the lock",
                        Unit.VOLT,
                        volts,
                        List.of(
                                new Picture.Row("At the supply")
                                        .add(volts, Unit.VOLT.write(volts), Tone.GOOD)
                                        .row(),
                                new Picture.Row("At the far end")
                                        .add(
                                                Math.max(left, 0),
                                                "arrives",
                                                drop > mayLose * (1 + 1e-9) ? Tone.BAD : Tone.GOOD)
                                        .add(Math.min(drop, volts), "lost in the leads", Tone.SPARE)
                                        .row()),
                        List.of(new PictureMark(least, "least it works with"))))
                .done();
    }
}
