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

/** Devices fed over their network lead against the ports and the whole of a switch. */
public final class PoeSheet implements Worksheet {

    /** Power that a switch sets aside for a class at its port, watts (IEEE 802.3-2022, clause 145). */
    enum PowerClass {
        UNKNOWN("Not known", 15.4),
        CLASS_1("Class 1", 4),
        CLASS_2("Class 2", 7),
        CLASS_3("Class 3", 15.4),
        CLASS_4("Class 4", 30),
        CLASS_5("Class 5", 45),
        CLASS_6("Class 6", 60),
        CLASS_7("Class 7", 75),
        CLASS_8("Class 8", 90);

        private final String words;
        private final double watts;

        PowerClass(String words, double watts) {
            this.words = words;
            this.watts = watts;
        }
    }

    @Override
    public String key() {
        return "poe";
    }

    @Override
    public String title() {
        return "Power over the network lead";
    }

    @Override
    public String purpose() {
        return "Adds up what the switch sets aside for each device by its class, against each port and the whole switch.";
    }

    @Override
    public List<SheetField> fields() {
        return List.of(
                SheetField.figure("budget", "Switch, for all ports", Unit.WATT, 1, 5000)
                        .hint("On its sheet: PoE budget."),
                SheetField.figure("port", "Switch, for one port", Unit.WATT, 1, 100)
                        .usual("30"),
                SheetField.count("ports", "Ports that feed", 1, 96),
                SheetField.rows(
                        "loads",
                        "What they feed",
                        1,
                        24,
                        SheetField.words("name", "Device"),
                        SheetField.pick("class", "Class", PowerClass.values(), c -> c.words),
                        SheetField.count("number", "How many", 1, 96).usual("1")));
    }

    @Override
    public Judgement judge(Figures f) {
        double budget = f.figure("budget"), port = f.figure("port");
        var loads = f.rows("loads").stream()
                .map(r -> new Loads.Load(r.words("name"), r.pick("class", PowerClass.class).watts, r.count("number")))
                .toList();
        int devices = loads.stream().mapToInt(Loads.Load::number).sum();
        double sum = Loads.sum(loads);
        var draft = new Draft()
                .result("SUM", "Set aside", Unit.WATT.write(sum) + " of " + Unit.WATT.write(budget))
                .result("PORTS", "Ports", devices + " of " + f.count("ports"));
        for (int i = 0; i < loads.size(); i++)
            if (Loads.above(loads.get(i).each(), port))
                draft.stop(
                        "PORT_TOO_WEAK",
                        "loads/" + i + "/class",
                        loads.get(i).name() + " wants "
                                + Unit.WATT.write(loads.get(i).each()) + " and a port gives " + Unit.WATT.write(port)
                                + ": it starts and goes off again.",
                        "Feed it by its own brick, or by an injector of its class.");
        if (Loads.above(sum, budget))
            draft.stop(
                    "OVER_BUDGET",
                    "budget",
                    Unit.WATT.write(sum) + " are more than the switch has: the last that was plugged in stays dark.",
                    "Feed " + Unit.WATT.write(sum - budget) + " of it in another way, or take a larger switch.");
        if (devices > f.count("ports"))
            draft.stop(
                    "TOO_FEW_PORTS",
                    "ports",
                    devices + " devices, " + f.count("ports") + " ports that feed.",
                    "Take a larger switch.");
        if (f.rows("loads").stream().anyMatch(r -> r.pick("class", PowerClass.class) == PowerClass.UNKNOWN))
            draft.note("CLASS_UNKNOWN", "loads", "A device without a class is set aside 15.4 W.");
        var row = new Picture.Row("The switch");
        loads.forEach(l -> row.add(l.all(), l.label(), Loads.above(sum, budget) ? Tone.BAD : Tone.GOOD));
        row.add(budget - row.end(), "to spare", Tone.SPARE);
        return draft.draw(new Picture(
                        "Against the switch",
                        Unit.WATT,
                        row.end(),
                        List.of(row.row()),
                        List.of(new PictureMark(budget, "budget"))))
                .done();
    }
}
