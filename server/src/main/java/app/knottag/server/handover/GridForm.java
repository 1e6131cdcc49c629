package app.knottag.server.handover;

import app.knottag.core.figure.QuantityReader;
import app.knottag.core.figure.Unit;
import app.knottag.core.handover.LabelGrid;
import app.knottag.server.web.FormReader;
import jakarta.validation.constraints.NotNull;

/** Reads a sheet of labels of the shop's own: lengths with or without their unit. */
final class GridForm {

    record GridRequest(
            @NotNull String name,
            @NotNull String paperWidth,
            @NotNull String paperHeight,
            @NotNull String columns,
            @NotNull String rows,
            @NotNull String left,
            @NotNull String top,
            @NotNull String labelWidth,
            @NotNull String labelHeight,
            @NotNull String acrossGap,
            @NotNull String downGap) {}

    private static final double LONGEST = 1200;
    private static final double MOST = 400;

    private final FormReader form = new FormReader();

    private GridForm() {}

    static LabelGrid read(GridRequest b) {
        return new GridForm().grid(b);
    }

    private LabelGrid grid(GridRequest b) {
        String name = form.text("name", b.name(), true);
        if (name.length() > 60) form.add("name", "too-long", "At most 60 characters.");
        var grid = new LabelGrid(
                name,
                length("paperWidth", b.paperWidth()),
                length("paperHeight", b.paperHeight()),
                count("columns", b.columns()),
                count("rows", b.rows()),
                length("left", b.left()),
                length("top", b.top()),
                length("labelWidth", b.labelWidth()),
                length("labelHeight", b.labelHeight()),
                length("acrossGap", b.acrossGap()),
                length("downGap", b.downGap()));
        form.refuse();
        grid.problems().forEach((field, said) -> form.add(field, "does-not-fit", said));
        form.refuse();
        return grid;
    }

    private double length(String field, String text) {
        return form.value(field, QuantityReader.read(text, Unit.MILLIMETRE, 0, LONGEST))
                .map(Double::parseDouble)
                .orElse(0.0);
    }

    private int count(String field, String text) {
        double count = form.value(field, QuantityReader.read(text, Unit.PIECES, 1, MOST))
                .map(Double::parseDouble)
                .orElse(1.0);
        if (count != Math.rint(count)) form.add(field, "not-whole", "“" + text + "” is no whole number.");
        return (int) count;
    }
}
