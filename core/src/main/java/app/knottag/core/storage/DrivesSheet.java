package app.knottag.core.storage;

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

/** The drives on the bench and how they are to be joined. */
public final class DrivesSheet implements Worksheet {

    private static final double TIB = 1.099511627776;
    private static final double NIGHT_HOURS = 4;
    private static final double WORTH_SAYING = 0.05;

    /** How often a drive meets a spot that it cannot read, from its sheet. */
    enum Drive {
        DESK("Desktop: 1 in 10¹⁴ bits", 1e14),
        ALL_DAY("For all-day use: 1 in 10¹⁵ bits", 1e15),
        FLASH("Flash: 1 in 10¹⁶ bits", 1e16);

        private final String words;
        private final double oneIn;

        Drive(String words, double oneIn) {
            this.words = words;
            this.oneIn = oneIn;
        }
    }

    @Override
    public String key() {
        return "drives";
    }

    @Override
    public String title() {
        return "Drives and how they are joined";
    }

    @Override
    public String purpose() {
        return "Tells what is usable, what a failed drive costs, and how long building takes. Joined drives are no backup: that "
                + "lies somewhere else.";
    }

    @Override
    public List<SheetField> fields() {
        return List.of(
                SheetField.rows(
                        "drives",
                        "Drives on the bench",
                        1,
                        24,
                        SheetField.words("name", "Bay or serial"),
                        SheetField.figure("size", "Size on its label", Unit.TERABYTE, 0.01, 100)),
                SheetField.pick("joined", "They are", Arrangement.values(), Arrangement::words)
                        .usual("MIRRORED"),
                SheetField.pick("type", "Type of drive", Drive.values(), d -> d.words)
                        .usual("ALL_DAY"),
                SheetField.figure("rate", "Written for long at", Unit.MEGABYTE_PER_SECOND, 1, 20_000)
                        .usual("150"),
                SheetField.figure("needed", "Room that is needed", Unit.TERABYTE, 0.001, 2000)
                        .optional(),
                SheetField.figure("typed", "Largest size its menu offers", Unit.TERABYTE, 0.001, 2000)
                        .hint("When the menu asks for one.")
                        .optional());
    }

    @Override
    public Judgement judge(Figures f) {
        var names = f.rows("drives").stream().map(r -> r.words("name")).toList();
        var drives = f.rows("drives").stream().map(r -> r.figure("size")).toList();
        var joined = f.pick("joined", Arrangement.class);
        var draft = new Draft();
        if (drives.size() < joined.fewest() || drives.size() > joined.most()) {
            draft.stop(
                    "NUMBER",
                    "joined",
                    joined.words() + " takes " + joined.fewest() + " to " + joined.most() + " drives; here "
                            + (drives.size() == 1 ? "is one." : "are " + drives.size() + "."),
                    drives.size() == 1
                            ? "Put a second one in, or take each by itself."
                            : "Choose another way, or other drives.");
            return draft.done();
        }
        double usable = joined.usable(drives),
                lost = joined.lost(drives),
                hours = joined.hours(drives, f.figure("rate"));
        double sum = drives.stream().mapToDouble(Double::doubleValue).sum();
        int outlives = joined.outlives(drives.size());
        draft.result(
                        "USABLE",
                        "Usable",
                        Unit.TERABYTE.write(usable) + ", which computers show as " + Unit.plain(usable / TIB) + " TiB")
                .result("OUTLIVES", "Drives that may fail with nothing lost", String.valueOf(outlives))
                .result("LOST", "Nobody can use", lost == 0 ? "nothing" : Unit.TERABYTE.write(lost))
                .result("HOURS", "One full pass", Unit.plain(hours) + " h");
        draft.note(
                "WIPED",
                "drives",
                "Everything on "
                        + (drives.size() == 1
                                ? "the drive"
                                : drives.size() == 2 ? "both drives" : "all " + drives.size() + " drives")
                        + " is wiped: " + Unit.TERABYTE.write(sum) + ".");
        if (hours >= NIGHT_HOURS)
            draft.note(
                    "OVERNIGHT",
                    "rate",
                    "Let it run over night; go on with another device, and come back for its address.");
        weighs(draft, joined, drives, lost, f);
        return draft.draw(picture(names, drives, joined)).done();
    }

    private static void weighs(Draft draft, Arrangement joined, List<Double> drives, double lost, Figures f) {
        double usable = joined.usable(drives);
        if (lost > 0)
            draft.warn(
                    "MISMATCH",
                    "drives",
                    "The drives differ: of each only the size of the smallest counts, and " + Unit.TERABYTE.write(lost)
                            + " lie idle.",
                    "Take drives of one size.");
        if (drives.size() > 1 && joined.outlives(drives.size()) == 0)
            draft.warn(
                    joined == Arrangement.SINGLE ? "ONE_COPY" : "ALL_LOST",
                    "joined",
                    joined == Arrangement.STRIPED
                            ? "One failed drive takes everything with it."
                            : joined == Arrangement.JOINED
                                    ? "One failed drive takes what lies on it, and often everything."
                                    : "A failed drive takes everything on it.",
                    drives.size() == 2
                            ? "Mirror them, unless everything lies somewhere else too."
                            : "Parity outlives any one.");
        double fails = joined.rebuildFails(drives, f.pick("type", Drive.class).oneIn);
        if (joined.outlives(drives.size()) == 1)
            draft.result("REBUILD", "Chance that a rebuild meets an unreadable spot", Unit.PERCENT.write(fails * 100));
        if (fails >= WORTH_SAYING)
            draft.warn(
                    "REBUILD_RISK",
                    "type",
                    "After one failed drive the rest is read whole, and in " + Unit.PERCENT.write(fails * 100)
                            + " of cases a spot cannot be read.",
                    "Take drives for all-day use, or double parity.");
        f.find("needed")
                .filter(n -> n > usable * (1 + 1e-9))
                .ifPresent(n -> draft.stop(
                        "TOO_LITTLE",
                        "needed",
                        Unit.TERABYTE.write(n) + " are needed, " + Unit.TERABYTE.write(usable) + " are usable.",
                        "Larger drives, or another way of joining them."));
        f.find("typed")
                .filter(t -> t > usable * 1.001)
                .ifPresent(t -> draft.stop(
                        "TOO_LARGE",
                        "typed",
                        "More than there is: " + Unit.TERABYTE.write(usable) + " at most.",
                        "Read the menu once more."));
        f.find("typed")
                .filter(t -> t < usable * 0.9)
                .ifPresent(t -> draft.warn(
                        "LEFT_OVER",
                        "typed",
                        Unit.TERABYTE.write(usable - t) + " are left over, and nobody can use them later.",
                        "A menu in TiB shows nine tenths of TB; anything less is a choice."));
    }

    private static Picture picture(List<String> names, List<Double> drives, Arrangement joined) {
        int spare = joined == Arrangement.PARITY
                ? 1
                : joined == Arrangement.DOUBLE_PARITY ? 2 : joined == Arrangement.MIRRORED ? drives.size() - 1 : 0;
        var rows = new ArrayList<Picture.PictureRow>();
        for (int i = 0; i < drives.size(); i++) {
            double used = joined.usedOfEach(drives, drives.get(i));
            boolean copy = i >= drives.size() - spare;
            rows.add(new Picture.Row(names.get(i))
                    .add(
                            used,
                            copy ? joined == Arrangement.MIRRORED ? "the same again" : "to rebuild from" : "data",
                            copy ? Tone.WAITS : Tone.GOOD)
                    .add(drives.get(i) - used, "idle", Tone.SPARE)
                    .row());
        }
        double largest = drives.stream().mapToDouble(Double::doubleValue).max().orElse(1);
        return new Picture("The drives as they lie on the bench", Unit.TERABYTE, largest, rows, List.of());
    }
}
