package app.knottag.core.figure;

import com.fasterxml.jackson.annotation.JsonProperty;
import java.util.ArrayList;
import java.util.List;

/**
 * What a worksheet draws: rows of parts along one axis, with marks across them.
 *
 * @param unit unit of the axis
 * @param to end of the axis; it begins at 0
 */
public record Picture(String title, Unit unit, double to, List<PictureRow> rows, List<PictureMark> marks) {

    /** What a stretch stands for. */
    public enum Tone {
        GOOD,
        RUNS,
        WAITS,
        BAD,
        SPARE
    }

    /** One line of the drawing. */
    public record PictureRow(String label, List<PicturePart> parts) {
        public PictureRow {
            parts = List.copyOf(parts);
        }
    }

    /** A stretch of a row; two may not overlap. */
    public record PicturePart(double from, double to, String label, Tone tone) {}

    /** A line across all rows. */
    public record PictureMark(double at, String label) {}

    private static final double[] STEPS = {1, 2, 5};
    private static final int[] SECONDS = {1, 5, 10, 30, 60, 120, 300, 600, 1800, 3600, 7200, 14_400, 43_200};
    private static final int MOST_TICKS = 6;

    public Picture {
        rows = List.copyOf(rows);
        marks = List.copyOf(marks);
    }

    /** Returns the places of the axis that are written out: round figures, six at most. */
    @JsonProperty("ticks")
    public List<PictureMark> ticks() {
        double step = step();
        var ticks = new ArrayList<PictureMark>();
        for (int n = 0; n * step <= to * (1 + 1e-9); n++)
            ticks.add(new PictureMark(
                    n * step, unit == Unit.SECOND ? Unit.duration((int) (n * step)) : unit.write(n * step)));
        return ticks;
    }

    private double step() {
        if (unit == Unit.SECOND) for (int step : SECONDS) if (to / step <= MOST_TICKS) return step;
        double power = Math.pow(10, Math.floor(Math.log10(Math.max(to, 1e-6) / MOST_TICKS)));
        for (double step : STEPS) if (to / (step * power) <= MOST_TICKS) return step * power;
        return 10 * power;
    }

    /** Gathers parts that follow one another. */
    public static final class Row {
        private final String label;
        private final List<PicturePart> parts = new ArrayList<>();
        private double at;

        public Row(String label) {
            this.label = label;
        }

        /** Adds a stretch of this length behind the last; nothing for length 0. */
        public Row add(double length, String words, Tone tone) {
            if (length > 0) parts.add(new PicturePart(at, at + length, words, tone));
            at += Math.max(length, 0);
            return this;
        }

        /** Returns where the last stretch ends. */
        public double end() {
            return at;
        }

        public PictureRow row() {
            return new PictureRow(label, parts);
        }
    }
}
