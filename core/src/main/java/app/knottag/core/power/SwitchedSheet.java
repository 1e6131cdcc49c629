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

/** What hangs on a switched outlet: within its rating, and nothing that must not be cut. */
public final class SwitchedSheet implements Worksheet {

    @Override
    public String key() {
        return "switched";
    }

    @Override
    public String title() {
        return "What hangs on the outlet";
    }

    @Override
    public String purpose() {
        return "Adds up what the outlet switches, and names what must never go off with the router.";
    }

    @Override
    public List<SheetField> fields() {
        return List.of(
                SheetField.figure("rating", "Rating of the outlet", Unit.WATT, 10, 10_000)
                        .hint("On its back."),
                SheetField.rows(
                        "loads",
                        "What hangs on it",
                        1,
                        12,
                        SheetField.words("name", "Device"),
                        SheetField.figure("watts", "It draws", Unit.WATT, 0.1, 10_000),
                        SheetField.count("number", "How many", 1, 20).usual("1"),
                        SheetField.yesNo("cut", "Harmed or missed when it goes off without warning?")));
    }

    @Override
    public Judgement judge(Figures f) {
        var loads = Loads.of(f.rows("loads"), "watts");
        double sum = Loads.sum(loads), rating = f.figure("rating");
        var draft = new Draft().result("SUM", "Together", Unit.WATT.write(sum) + " of " + Unit.WATT.write(rating));
        for (int i = 0; i < loads.size(); i++)
            if (f.rows("loads").get(i).yes("cut"))
                draft.stop(
                        "MUST_NOT_BE_CUT",
                        "loads/" + i + "/cut",
                        loads.get(i).name() + " goes off with every restart.",
                        "Plug it into the wall beside it: only router and modem belong here.");
        if (Loads.above(sum, rating))
            draft.stop(
                    "OVER_RATING",
                    "rating",
                    Unit.WATT.write(sum) + " hang on " + Unit.WATT.write(rating) + ": its contact burns or sticks.",
                    "Leave only router and modem on it.");
        var row = new Picture.Row("On the outlet");
        loads.forEach(l -> row.add(l.all(), l.label(), Loads.above(sum, rating) ? Tone.BAD : Tone.GOOD));
        row.add(rating - row.end(), "to spare", Tone.SPARE);
        return draft.draw(new Picture(
                        "Against its rating",
                        Unit.WATT,
                        row.end(),
                        List.of(row.row()),
                        List.of(new PictureMark(rating, "its rating"))))
                .done();
    }
}
