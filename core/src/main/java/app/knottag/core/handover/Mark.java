package app.knottag.core.handover;

/** Something drawn on a label, in millimetres from the paper's upper left corner. */
public sealed interface Mark {

    /** Letters that are shipped: for words, and for figures that are copied by hand. */
    enum Face {
        WORDS,
        WORDS_BOLD,
        FIGURES,
        FIGURES_BOLD
    }

    /** How wide texts are, and which characters there are. */
    interface Letters {
        /** Returns the width in mm of a text of a size (of its em square) in mm. */
        double width(Face face, double size, String text);

        boolean has(int character);
    }

    /** A text on its base line; x is its left end. */
    record Words(double x, double y, double size, Face face, String text) implements Mark {}

    /** A thin line, such as where to fold. */
    record Line(double x1, double y1, double x2, double y2, boolean dashed) implements Mark {}

    /** A matrix code (ISO/IEC 18004) that fills a square with its quiet zone. */
    record Matrix(Area box, String text) implements Mark {}

    /** A bar code (ISO/IEC 15417, Code 128) that fills a box with its quiet zones. */
    record Bars(Area box, String text) implements Mark {}
}
