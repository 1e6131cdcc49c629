package app.knottag.core.handover;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;

/**
 * How labels lie on a sheet, all in millimetres. A roll is a sheet with one label.
 *
 * @param left from the paper's edge to the first label
 * @param acrossGap between two labels side by side
 */
public record LabelGrid(
        String name,
        double paperWidth,
        double paperHeight,
        int columns,
        int rows,
        double left,
        double top,
        double labelWidth,
        double labelHeight,
        double acrossGap,
        double downGap) {

    private static final double LEAST_WIDTH = 12;
    private static final double LEAST_HEIGHT = 6;
    private static final double MOST = 1200;
    private static final int MOST_LABELS = 400;
    /** A tenth of a hair: sums of millimetres typed with one decimal may miss by that. */
    private static final double SLACK = 0.01;

    /** A label's place: sheet, counted from 0, and what it covers. */
    public record Place(int sheet, Area box) {}

    public int labels() {
        return columns * rows;
    }

    public Area size() {
        return new Area(0, 0, labelWidth, labelHeight);
    }

    /** Returns what cannot be, by field; empty when the sheet can be printed. */
    public Map<String, String> problems() {
        var found = new LinkedHashMap<String, String>();
        between(found, "paperWidth", paperWidth, LEAST_WIDTH);
        between(found, "paperHeight", paperHeight, LEAST_HEIGHT);
        between(found, "labelWidth", labelWidth, LEAST_WIDTH);
        between(found, "labelHeight", labelHeight, LEAST_HEIGHT);
        for (var e : Map.of("left", left, "top", top, "acrossGap", acrossGap, "downGap", downGap)
                .entrySet())
            if (!(e.getValue() >= 0 && e.getValue() <= MOST)) found.put(e.getKey(), "From 0 mm upwards.");
        if (columns < 1 || columns > MOST_LABELS) found.put("columns", "At least one label stands side by side.");
        if (rows < 1 || rows > MOST_LABELS) found.put("rows", "At least one label stands below the other.");
        if (!found.isEmpty()) return found;
        if (labels() > MOST_LABELS) found.put("rows", "At most " + MOST_LABELS + " labels on a sheet.");
        double wide = left + columns * labelWidth + (columns - 1) * acrossGap;
        double high = top + rows * labelHeight + (rows - 1) * downGap;
        if (wide > paperWidth + SLACK)
            found.put(
                    "columns",
                    "They need " + mm(wide) + " and the paper is " + mm(paperWidth) + " wide: " + mm(wide - paperWidth)
                            + " too much.");
        if (high > paperHeight + SLACK)
            found.put(
                    "rows",
                    "They need " + mm(high) + " and the paper is " + mm(paperHeight) + " high: "
                            + mm(high - paperHeight) + " too much.");
        return found;
    }

    private static void between(Map<String, String> found, String field, double value, double least) {
        if (!(value >= least && value <= MOST)) found.put(field, mm(least) + " to " + mm(MOST) + ".");
    }

    /** Returns a length as people write it, such as 70 mm or 37.1 mm. */
    static String mm(double length) {
        return String.format(Locale.ROOT, "%.1f", length).replace(".0", "") + " mm";
    }

    /**
     * Lays labels out, row by row.
     *
     * @param first place of the first label on a half-used sheet, counted from 1
     * @throws IllegalArgumentException if the sheet has no such place
     */
    public List<Place> lay(int first, int count) {
        if (first < 1 || first > labels())
            throw new IllegalArgumentException(
                    "The sheet has " + labels() + " places; there is no place " + first + ".");
        var places = new ArrayList<Place>(count);
        for (int n = first - 1; n < first - 1 + count; n++) {
            int on = n % labels();
            places.add(new Place(
                    n / labels(),
                    new Area(
                            left + on % columns * (labelWidth + acrossGap),
                            top + on / columns * (labelHeight + downGap),
                            labelWidth,
                            labelHeight)));
        }
        return List.copyOf(places);
    }
}
