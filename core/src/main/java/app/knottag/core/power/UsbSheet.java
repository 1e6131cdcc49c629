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

/** Whether USB devices can hang on one port, or need a hub with a supply of its own. */
public final class UsbSheet implements Worksheet {

    /** What a hub without a supply keeps for itself (USB 2.0, 7.2.1.1: one unit load of 100 mA, and 100 mA for each port). */
    private static final double HUB_ITSELF = 0.1, PER_HUB_PORT = 0.1;

    private static final int HUB_PORTS = 4;

    /** What the port gives (USB 2.0, 7.2.1; USB 3.2, 11.4.1), amperes. */
    enum Port {
        USB2("Black inside: 500 mA", 0.5),
        USB3("Blue inside: 900 mA", 0.9);

        private final String words;
        private final double amperes;

        Port(String words, double amperes) {
            this.words = words;
            this.amperes = amperes;
        }
    }

    @Override
    public String key() {
        return "usb";
    }

    @Override
    public String title() {
        return "USB ports and hubs";
    }

    @Override
    public String purpose() {
        return "Adds up what the devices on one port draw, and says which hub they need.";
    }

    @Override
    public List<SheetField> fields() {
        return List.of(
                SheetField.pick("port", "The port of the computer", Port.values(), p -> p.words)
                        .usual("USB3"),
                SheetField.rows(
                        "loads",
                        "What is plugged in",
                        1,
                        12,
                        SheetField.words("name", "Device"),
                        SheetField.figure("draws", "It draws", Unit.AMPERE, 0, 5)
                                .hint("On its label, in mA or A."),
                        SheetField.count("number", "How many", 1, 20).usual("1"),
                        SheetField.yesNo("own", "Has it a supply of its own?")));
    }

    @Override
    public Judgement judge(Figures f) {
        double port = f.pick("port", Port.class).amperes;
        var rows = f.rows("loads");
        var all = Loads.of(rows, "draws");
        var loads = new java.util.ArrayList<Loads.Load>();
        for (int i = 0; i < all.size(); i++) if (!rows.get(i).yes("own")) loads.add(all.get(i));
        int devices = all.stream().mapToInt(Loads.Load::number).sum();
        double sum = Loads.sum(loads);
        boolean hub = devices > 1;
        var draft = new Draft()
                .result("SUM", "Drawn from the computer", Unit.AMPERE.write(sum) + " of " + Unit.AMPERE.write(port));
        boolean bare = devices <= HUB_PORTS
                && loads.stream().allMatch(l -> !Loads.above(l.each(), PER_HUB_PORT))
                && !Loads.above(sum + HUB_ITSELF, port);
        if (hub)
            draft.result(
                    "HUB",
                    "Hub",
                    bare ? "one without a supply will do" : devices + " ports or more, with a supply of its own");
        else draft.result("HUB", "Hub", Loads.above(sum, port) ? "one with a supply of its own" : "none needed");
        if (Loads.above(sum, port))
            draft.warn(
                    "POWERED_HUB",
                    "loads",
                    Unit.AMPERE.write(sum) + " are more than the port gives: devices drop out one by one.",
                    "Take a hub with a supply of its own, of at least "
                            + Unit.AMPERE.write(Math.ceil(sum / Loads.KEPT * 10) / 10) + " at 5 V.");
        else if (hub && !bare)
            draft.warn(
                    "POWERED_HUB",
                    "loads",
                    "A hub without a supply gives each of its ports 100 mA, and these draw more.",
                    "Take one with a supply of its own.");
        var row = new Picture.Row("On the port");
        loads.forEach(l -> row.add(l.all(), l.label(), Loads.above(sum, port) ? Tone.BAD : Tone.GOOD));
        row.add(port - row.end(), "to spare", Tone.SPARE);
        return draft.draw(new Picture(
                        "Against the port",
                        Unit.AMPERE,
                        row.end(),
                        List.of(row.row()),
                        List.of(new PictureMark(port, "the port gives"))))
                .done();
    }
}
