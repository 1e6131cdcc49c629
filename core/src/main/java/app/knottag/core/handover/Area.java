package app.knottag.core.handover;

/** A rectangle in millimetres, from the left and the upper edge of the paper. */
public record Area(double x, double y, double width, double height) {

    public double right() {
        return x + width;
    }

    public double bottom() {
        return y + height;
    }

    /** Returns what is left inside a margin all round. */
    public Area inside(double margin) {
        return new Area(x + margin, y + margin, width - 2 * margin, height - 2 * margin);
    }
}
