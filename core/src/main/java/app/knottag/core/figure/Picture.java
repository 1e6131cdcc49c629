package app.knottag.core.figure;

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

    public Picture {
        rows = List.copyOf(rows);
        marks = List.copyOf(marks);
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
