package app.knottag.core.place;

import app.knottag.core.figure.Figures;
import app.knottag.core.figure.Judgement;
import app.knottag.core.figure.Judgement.Draft;
import app.knottag.core.figure.Picture;
import app.knottag.core.figure.Picture.Tone;
import app.knottag.core.figure.SheetField;
import app.knottag.core.figure.Unit;
import app.knottag.core.figure.Worksheet;
import java.util.ArrayList;
import java.util.List;

/** How long several units take to fetch their software over one line, and how many are best begun together. */
public final class DownloadSheet implements Worksheet {

    private static final int SHOWN = 12;

    @Override
    public String key() {
        return "download";
    }

    @Override
    public String title() {
        return "Downloads and first starts";
    }

    @Override
    public String purpose() {
        return "Shares one line out between units that fetch at the same time, and says when it is quicker to bring the file. It takes the "
                + "line to be otherwise idle, so it is the least it can be.";
    }

    @Override
    public List<SheetField> fields() {
        return List.of(
                SheetField.figure("size", "Each fetches", Unit.MEGABYTE, 1, 1_000_000)
                        .hint("Its system or update."),
                SheetField.figure("speed", "The line, downwards", Unit.MEGABIT_PER_SECOND, 0.1, 10_000)
                        .hint("Measured at the site, not from the contract."),
                SheetField.count("units", "How many units", 1, 200).usual("1"),
                SheetField.figure("start", "First start without the download", Unit.MINUTE, 0, 600)
                        .usual("15"),
                SheetField.count("sockets", "Power sockets on the bench", 1, 100)
                        .usual("6"),
                SheetField.count("ports", "Free network ports", 1, 96).usual("4"),
                SheetField.figure("patience", "Longest download you wait for", Unit.MINUTE, 1, 600)
                        .usual("30"));
    }

    /** Returns the minutes that one of so many takes that fetch at the same time. */
    static double minutes(double megabytes, double megabitPerSecond, int together) {
        return megabytes * 8 * together / megabitPerSecond / 60;
    }

    @Override
    public Judgement judge(Figures f) {
        double size = f.figure("size"),
                speed = f.figure("speed"),
                patience = f.figure("patience"),
                start = f.figure("start");
        int units = f.count("units"), places = Math.min(units, Math.min(f.count("sockets"), f.count("ports")));
        double alone = minutes(size, speed, 1);
        int carried = (int) Math.floor(patience / alone + 1e-9);
        int together = Math.max(1, Math.min(places, carried));
        int rounds = (units + together - 1) / together;
        var draft = new Draft()
                .result("ALONE", "One by itself fetches for", Unit.MINUTE.write(alone))
                .result("ALL", "All " + units + " at once", Unit.MINUTE.write(minutes(size, speed, units)))
                .result("TOGETHER", "Begin together", together + (rounds == 1 ? "" : ", in " + rounds + " rounds"));
        double end = 0;
        var rows = new ArrayList<Picture.PictureRow>();
        for (int round = 0; round < rounds; round++) {
            int here = Math.min(together, units - round * together);
            double fetching = minutes(size, speed, here);
            var row = new Picture.Row("Round " + (round + 1) + ": " + here + (here == 1 ? " unit" : " units"));
            row.add(end, "", Tone.SPARE).add(fetching, "fetch", Tone.RUNS).add(start, "start", Tone.WAITS);
            end = row.end();
            if (round < SHOWN) rows.add(row.row());
        }
        draft.result("END", "All have started after", Unit.MINUTE.write(Math.ceil(end)));
        if (alone > patience)
            draft.warn(
                    "BRING_FILE",
                    "speed",
                    "One unit alone fetches for " + Unit.MINUTE.write(Math.ceil(alone)) + ".",
                    "Bring the file on a stick with a name on it, fetched over a quicker line.");
        else if (carried < places)
            draft.note("LINE_LIMITS", "speed", "The line is what limits: more at once only makes each slower.");
        else if (places < units) draft.note("PLACES_LIMIT", "ports", "Sockets or ports are what limits.");
        return draft.draw(new Picture("Round by round", Unit.MINUTE, end, rows, List.of()))
                .done();
    }
}
