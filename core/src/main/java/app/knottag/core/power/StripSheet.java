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
import java.util.ArrayList;
import java.util.List;

/** How many strips a row of kiosks needs, none of them plugged into another. */
public final class StripSheet implements Worksheet {

    @Override
    public String key() {
        return "strip";
    }

    @Override
    public String title() {
        return "Strips";
    }

    @Override
    public String purpose() {
        return "Shares devices out over strips, each at no more than four fifths of its rating and none behind another. The circuit in "
                + "the wall has a limit of its own: ask whoever looks after it.";
    }

    @Override
    public List<SheetField> fields() {
        return List.of(
                SheetField.figure("rating", "Rating of one strip", Unit.WATT, 100, 10_000)
                        .usual("3500"),
                SheetField.count("sockets", "Sockets of one strip", 1, 24).usual("6"),
                SheetField.yesNo("chained", "Is one plugged into another?"),
                SheetField.rows(
                        "loads",
                        "What hangs on them",
                        1,
                        12,
                        SheetField.words("name", "Device"),
                        SheetField.figure("watts", "Each draws", Unit.WATT, 0.1, 10_000),
                        SheetField.count("number", "How many", 1, 100).usual("1")));
    }

    @Override
    public Judgement judge(Figures f) {
        double limit = f.figure("rating") * Loads.KEPT;
        var loads = Loads.of(f.rows("loads"), "watts");
        double sum = Loads.sum(loads);
        var draft = new Draft().result("SUM", "Together", Unit.WATT.write(sum));
        if (f.yes("chained"))
            draft.stop(
                    "CHAINED",
                    "chained",
                    "A strip behind a strip carries both loads on one lead.",
                    "Give each a socket in the wall.");
        for (int i = 0; i < loads.size(); i++)
            if (Loads.above(loads.get(i).each(), limit))
                draft.stop(
                        "TOO_BIG",
                        "loads/" + i + "/watts",
                        loads.get(i).name() + " alone is more than " + Unit.WATT.write(limit)
                                + ", four fifths of a strip.",
                        "Plug it into the wall.");
        if (!draft.done().holds() && loads.stream().anyMatch(l -> Loads.above(l.each(), limit))) return draft.done();
        var strips = share(loads, limit, f.count("sockets"));
        int fewest = fewest(loads, limit, f.count("sockets"));
        draft.result(
                "STRIPS",
                "Strips needed",
                strips.size() == fewest
                        ? String.valueOf(fewest)
                        : strips.size() + "; fewer than " + fewest + " is impossible");
        var rows = new ArrayList<Picture.PictureRow>();
        for (int i = 0; i < strips.size(); i++) {
            var row = new Picture.Row("Strip " + (i + 1));
            strips.get(i).forEach(l -> row.add(l.all(), l.label(), Tone.GOOD));
            rows.add(row.add(f.figure("rating") - row.end(), "to spare", Tone.SPARE)
                    .row());
        }
        return draft.draw(new Picture(
                        "Shared out",
                        Unit.WATT,
                        f.figure("rating"),
                        rows,
                        List.of(new PictureMark(limit, "four fifths"))))
                .done();
    }

    /** Of devices that draw at least so much only so many go on one strip; the whole sum and the sockets have their say too. */
    private static int fewest(List<Loads.Load> loads, double limit, int sockets) {
        int fewest = (int) Math.ceil(Loads.sum(loads) / limit - 1e-9);
        for (var load : loads) {
            int all = loads.stream()
                    .filter(l -> l.each() >= load.each())
                    .mapToInt(Loads.Load::number)
                    .sum();
            int together = Math.min(sockets, (int) Math.floor(limit / load.each() + 1e-9));
            fewest = Math.max(fewest, (all + together - 1) / together);
        }
        return fewest;
    }

    /** The hungriest first, each onto the first strip that still takes it. */
    private static List<List<Loads.Load>> share(List<Loads.Load> loads, double limit, int sockets) {
        var strips = new ArrayList<List<Loads.Load>>();
        loads.stream().sorted((a, b) -> Double.compare(b.each(), a.each())).forEach(load -> {
            for (int n = 0; n < load.number(); n++) {
                var one = new Loads.Load(load.name(), load.each(), 1);
                var strip = strips.stream()
                        .filter(s -> s.size() < sockets && !Loads.above(Loads.sum(s) + one.each(), limit))
                        .findFirst();
                strip.orElseGet(() -> {
                            strips.add(new ArrayList<>());
                            return strips.get(strips.size() - 1);
                        })
                        .add(one);
            }
        });
        return strips;
    }
}
