package app.knottag.core.power;

import app.knottag.core.figure.Figures;
import app.knottag.core.figure.Judgement;
import app.knottag.core.figure.Judgement.Draft;
import app.knottag.core.figure.SheetField;
import app.knottag.core.figure.Unit;
import app.knottag.core.figure.Worksheet;
import java.util.List;

/** Whether a power brick belongs to a device: volts, amperes, kind of current, polarity and plug. */
public final class BrickSheet implements Worksheet {

    /** Share of volts that a regulated brick may differ from the label of the device. */
    private static final double TOLERANCE = 0.05;

    /** What the drawing beside the plug says. */
    enum Current {
        INSIDE_PLUS("DC, plus inside"),
        INSIDE_MINUS("DC, minus inside"),
        AC("AC");

        private final String words;

        Current(String words) {
            this.words = words;
        }
    }

    @Override
    public String key() {
        return "brick";
    }

    @Override
    public String title() {
        return "Does this brick belong to it?";
    }

    @Override
    public String purpose() {
        return "Compares the label of the device with the label of the brick. A plug that fits says nothing.";
    }

    @Override
    public List<SheetField> fields() {
        return List.of(
                SheetField.figure("volts", "Device, volts", Unit.VOLT, 1, 400),
                SheetField.figure("amperes", "Device, amperes", Unit.AMPERE, 0.01, 100),
                SheetField.pick("current", "Device, drawing beside its socket", Current.values(), c -> c.words),
                SheetField.figure("brickVolts", "Brick, volts (output)", Unit.VOLT, 1, 400),
                SheetField.figure("brickAmperes", "Brick, amperes (output)", Unit.AMPERE, 0.01, 100),
                SheetField.pick("brickCurrent", "Brick, drawing on its label", Current.values(), c -> c.words),
                SheetField.yesNo("plug", "Does its plug go in to the stop and sit firmly?")
                        .usual("YES"));
    }

    @Override
    public Judgement judge(Figures f) {
        double volts = f.figure("volts"), brick = f.figure("brickVolts");
        double amperes = f.figure("amperes"), gives = f.figure("brickAmperes");
        var draft = new Draft()
                .result("VOLTS", "Volts", Unit.VOLT.write(brick) + " for " + Unit.VOLT.write(volts))
                .result("AMPERES", "Amperes", Unit.AMPERE.write(gives) + " for " + Unit.AMPERE.write(amperes));
        String other = "Leave it, and take the brick that came with the device, or one with its label.";
        var current = f.pick("current", Current.class);
        var brickCurrent = f.pick("brickCurrent", Current.class);
        if (Math.abs(brick - volts) > volts * TOLERANCE)
            draft.stop(
                    "VOLTS",
                    "brickVolts",
                    "The brick gives " + Unit.VOLT.write(brick) + ", the device wants " + Unit.VOLT.write(volts)
                            + (brick > volts ? ": too much destroys it." : ": it will not start, or only at times."),
                    other);
        if (current != brickCurrent)
            draft.stop(
                    "CURRENT",
                    "brickCurrent",
                    "The device wants " + current.words + ", the brick gives " + brickCurrent.words + "."
                            + (current == Current.AC || brickCurrent == Current.AC
                                    ? ""
                                    : " Plus and minus are the wrong way round."),
                    other);
        if (gives < amperes * (1 - 1e-9))
            draft.stop(
                    "AMPERES",
                    "brickAmperes",
                    "The device draws up to " + Unit.AMPERE.write(amperes) + ", the brick gives "
                            + Unit.AMPERE.write(gives) + ": it gets hot, and the device restarts.",
                    other);
        if (!f.yes("plug"))
            draft.stop(
                    "PLUG",
                    "plug",
                    "A plug that does not sit works loose.",
                    "Take the brick with its own plug, no adapter.");
        if (draft.done().holds() && gives > amperes)
            draft.note("MORE", "brickAmperes", "More amperes than it draws do no harm.");
        return draft.done();
    }
}
