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

/** Reader, lock and controller against their supply, held for long and in the moment the lock is thrown. */
public final class SupplySheet implements Worksheet {

    /** Sizes that supplies are sold in, amperes. */
    private static final double[] SOLD = {1, 2, 3, 5, 7, 10};

    /** A part and what it draws, amperes. */
    private record Part(String name, double volts, double hold, double inrush) {}

    @Override
    public String key() {
        return "supply";
    }

    @Override
    public String title() {
        return "What hangs on the supply";
    }

    @Override
    public String purpose() {
        return "Adds up what reader, lock and controller draw, held and in the moment of inrush, against the label of the supply. "
                + "What the door needs in a fire, and who may wire it, is for the local code and the licensed fitter.";
    }

    @Override
    public List<SheetField> fields() {
        return List.of(
                SheetField.figure("volts", "Supply, volts", Unit.VOLT, 3, 60).usual("12"),
                SheetField.figure("supply", "Supply, amperes on its label", Unit.AMPERE, 0.05, 100),
                SheetField.figure("peak", "Supply, peak for a second", Unit.AMPERE, 0.05, 200)
                        .hint("Empty when its label names none: then its amperes are the peak.")
                        .optional(),
                SheetField.rows(
                        "parts",
                        "What hangs on it",
                        1,
                        12,
                        SheetField.words("name", "Part"),
                        SheetField.figure("volts", "Volts", Unit.VOLT, 3, 60).usual("12"),
                        SheetField.figure("hold", "Held for long", Unit.AMPERE, 0, 50),
                        SheetField.figure("inrush", "When switched", Unit.AMPERE, 0, 200)
                                .hint("From its sheet; empty when it draws no more than it holds.")
                                .optional()));
    }

    @Override
    public Judgement judge(Figures f) {
        double volts = f.figure("volts"),
                supply = f.figure("supply"),
                peak = f.find("peak").orElse(supply);
        var parts = f.rows("parts").stream()
                .map(r -> new Part(
                        r.words("name"),
                        r.figure("volts"),
                        r.figure("hold"),
                        Math.max(r.find("inrush").orElse(0.0), r.figure("hold"))))
                .toList();
        double held = parts.stream().mapToDouble(Part::hold).sum();
        double surge = held
                + parts.stream().mapToDouble(p -> p.inrush() - p.hold()).max().orElse(0);
        var draft = new Draft()
                .result(
                        "HELD",
                        "Held for long",
                        Unit.AMPERE.write(held) + " of " + Unit.AMPERE.write(supply * Loads.KEPT))
                .result(
                        "SURGE",
                        "In the moment of inrush",
                        Unit.AMPERE.write(surge) + " of " + Unit.AMPERE.write(peak));
        for (int i = 0; i < parts.size(); i++) volts(draft, parts.get(i), i, volts);
        if (peak < supply)
            draft.stop(
                    "PEAK_BELOW",
                    "peak",
                    "A peak below what it gives for long cannot be.",
                    "Read its label once more.");
        if (Loads.above(held, supply * Loads.KEPT))
            draft.stop(
                    "TOO_SMALL",
                    "supply",
                    "They hold " + Unit.AMPERE.write(held) + ", and of " + Unit.AMPERE.write(supply)
                            + " four fifths are for long: " + Unit.AMPERE.write(supply * Loads.KEPT) + ".",
                    size(held / Loads.KEPT, volts));
        else if (Loads.above(surge, peak))
            draft.stop(
                    "INRUSH",
                    "supply",
                    "When the lock is thrown they draw " + Unit.AMPERE.write(surge)
                            + ": the supply drops and the reader restarts.",
                    size(Math.max(surge, held / Loads.KEPT), volts));
        return draft.draw(picture(parts, supply, peak, held, surge)).done();
    }

    private static void volts(Draft draft, Part part, int row, double volts) {
        if (Math.abs(part.volts() - volts) <= volts * 0.1) return;
        draft.stop(
                "OTHER_VOLTS",
                "parts/" + row + "/volts",
                part.name() + " wants " + Unit.VOLT.write(part.volts()) + ", and the supply gives "
                        + Unit.VOLT.write(volts)
                        + (volts > part.volts() ? ": that destroys it." : ": it will not work, or only at times."),
                "Give it a supply of its own of " + Unit.VOLT.write(part.volts())
                        + ", with the minus leads joined where its sheet says so.");
    }

    private static String size(double needed, double volts) {
        for (double sold : SOLD)
            if (!Loads.above(needed, sold))
                return "Take a supply of " + Unit.VOLT.write(volts) + ", " + Unit.AMPERE.write(sold) + ".";
        return "Give the lock a supply of its own.";
    }

    private static Picture picture(List<Part> parts, double supply, double peak, double held, double surge) {
        var hold = new Picture.Row("Held for long");
        parts.forEach(p -> hold.add(p.hold(), p.name(), Loads.above(held, supply * Loads.KEPT) ? Tone.BAD : Tone.GOOD));
        hold.add(supply - hold.end(), "to spare", Tone.SPARE);
        var rush = new Picture.Row("With inrush");
        double above = surge - held;
        parts.forEach(p -> rush.add(p.hold(), p.name(), Loads.above(surge, peak) ? Tone.BAD : Tone.GOOD));
        rush.add(above, "inrush", Loads.above(surge, peak) ? Tone.BAD : Tone.RUNS);
        rush.add(peak - rush.end(), "to spare", Tone.SPARE);
        return new Picture(
                "Against the supply",
                Unit.AMPERE,
                Math.max(Math.max(hold.end(), rush.end()), peak),
                List.of(hold.row(), rush.row()),
                List.of(new PictureMark(supply * Loads.KEPT, "four fifths"), new PictureMark(supply, "its label")));
    }
}
