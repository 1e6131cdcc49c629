package app.knottag.core.handover;

import app.knottag.core.handover.Mark.Face;
import app.knottag.core.handover.Mark.Letters;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

/**
 * Draws one label: everything as large as its place allows, and nothing cut without a sign. What had to give way is said.
 * Sizes are in millimetres.
 */
public final class LabelDrawing {

    /** A code is read from 200 dots an inch when its smallest bar is about two dots wide. */
    private static final double LEAST_BAR = 0.27;
    /** Code 128: eleven bars a character, start, check and stop, and ten on either side kept clear. */
    private static final int BARS_BESIDE = 11 * 2 + 13 + 20;
    /** A short address of 47 capitals needs 29 modules a side, with four kept clear round it; capitals need half the modules. */
    private static final int MODULES = 37;

    private static final double LEAST_MATRIX = MODULES * 0.32;
    private static final double MARGIN = 1.8;
    private static final double SMALLEST = 1.7;
    private static final double LEAST_ROW = 2.1;
    private static final double WELL_READ = 2.4;
    /** Wider bars are no easier to read. */
    private static final double WIDEST_BAR = 0.4;
    /** The label's own margin is part of what is kept clear beside a bar code. */
    private static final double QUIET = 1;

    private static final String CUT = "\u2026";
    private static final String UNKNOWN = "\u25AF";

    private final Letters letters;
    private final Area box;
    private final List<Mark> marks = new ArrayList<>();
    private final List<String> said = new ArrayList<>();
    private final List<String> left = new ArrayList<>();

    /**
     * A label as it is printed.
     *
     * @param said what is shortened, left out or cannot be written on it, one sentence each
     * @param left labels of the facts that do not stand on it
     */
    public record Drawn(List<Mark> marks, List<String> said, List<String> left) {}

    private LabelDrawing(Area box, Letters letters) {
        this.box = box.inside(MARGIN);
        this.letters = letters;
    }

    /**
     * Draws a label.
     *
     * @param link what the matrix code leads to before the tag code, such as {@code http://shop:8780/t/}
     */
    public static Drawn draw(Label label, Area box, Letters letters, String link) {
        var drawing = new LabelDrawing(box, letters);
        if (label instanceof Label.Tag tag) drawing.tag(tag.facts(), link);
        else if (label instanceof Label.Flag flag) drawing.flag(flag);
        else if (label instanceof Label.Port port) drawing.port(port);
        else if (label instanceof Label.Card card) drawing.card(card);
        return new Drawn(List.copyOf(drawing.marks), List.copyOf(drawing.said), List.copyOf(drawing.left));
    }

    private void tag(TagFacts facts, String link) {
        double below = bars(facts);
        double side = matrix((link + TagCode.bare(facts.code())).toUpperCase(Locale.ROOT), box.height() - below);
        double width = box.width() - (side > 0 ? side + 1 : 0);
        double end = box.bottom() - below;
        double y = box.y() + name(facts.name(), width, end - box.y());
        if (facts.address().isPresent()) {
            double size =
                    fit(Face.FIGURES_BOLD, facts.address().get(), width, Math.min(7.5, (end - y) * 0.36), SMALLEST);
            y = line(Face.FIGURES_BOLD, size, facts.address().get(), width, y + size * 1.02, TagFacts.ADDRESS);
        }
        rows(facts, width, y + 1, end);
    }

    /**
     * Draws the bar code along the lower edge, with the code beside it to be read aloud, or below it where the label is narrow;
     * returns the height that it takes.
     */
    private double bars(TagFacts facts) {
        String bare = TagCode.bare(facts.code());
        double spoken = letters.width(Face.FIGURES_BOLD, 2.6, facts.code());
        int modules = bare.length() * 11 + BARS_BESIDE;
        double height = Math.min(6.5, box.height() * 0.18);
        if (box.width() / modules < LEAST_BAR || height < 4) {
            said.add("No room for the bar code.");
            return 0;
        }
        boolean beside = (box.width() - spoken) / modules >= LEAST_BAR;
        double width = Math.min(beside ? box.width() - spoken : box.width(), modules * WIDEST_BAR);
        double below = beside ? 0 : 2.9;
        double top = box.bottom() - height - below;
        marks.add(new Mark.Bars(new Area(box.x() - QUIET, top, width, height), bare));
        write(
                Face.FIGURES_BOLD,
                2.6,
                facts.code(),
                beside ? box.right() - spoken : box.x(),
                beside ? box.bottom() - height / 2 + 0.9 : box.bottom());
        return height + below + 1;
    }

    /** Draws the matrix code in the upper right corner; returns its side. */
    private double matrix(String text, double room) {
        double side = Math.min(Math.min(room, box.width() * 0.36), 24);
        if (side < LEAST_MATRIX) {
            said.add("No room for the matrix code.");
            return 0;
        }
        marks.add(new Mark.Matrix(new Area(box.right() - side, box.y(), side, side), text));
        return side;
    }

    /** Draws the name on one line or two; returns the height that it takes. */
    private double name(String name, double width, double room) {
        double largest = Math.min(4.4, room * 0.24), least = Math.min(2.6, largest);
        double size = fit(Face.WORDS_BOLD, name, width, largest, least);
        var lines = wrap(Face.WORDS_BOLD, size, name, width);
        double y = box.y();
        for (String line : lines.subList(0, Math.min(2, lines.size()))) {
            boolean last = y > box.y() && lines.size() > 2;
            y = line(Face.WORDS_BOLD, size, last ? line + CUT : line, width, y + size, TagFacts.NAME);
            if (last) said.add("Name is cut: “" + name + "” is too long.");
        }
        return y - box.y() + size * 0.2;
    }

    private void rows(TagFacts facts, double width, double from, double end) {
        var rows = new ArrayList<Row>();
        boolean coded = marks.stream().anyMatch(Mark.Bars.class::isInstance);
        if (!coded) rows.add(new Row(TagFacts.CODE, facts.code()));
        facts.facts().forEach((label, value) -> rows.add(new Row(label, value)));
        double fits = (end - from) / Math.max(1, rows.size()) / 1.25;
        // When not all have room, those that do are to be read well.
        double size = fits < LEAST_ROW ? WELL_READ : Math.min(2.7, fits);
        double labels = rows.stream()
                .mapToDouble(r -> letters.width(Face.WORDS, size * 0.9, r.label()))
                .max()
                .orElse(0);
        double y = from;
        for (var row : rows)
            if (y + size * 1.25 > end + 0.01) left.add(row.label());
            else {
                write(Face.WORDS, size * 0.9, row.label(), box.x(), y + size);
                double at = labels + 1.2;
                value(row, size, width - at, at, y + size);
                y += size * 1.25;
            }
        if (!left.isEmpty()) said.add("No room for: " + String.join(", ", left).toLowerCase(Locale.ROOT) + ".");
    }

    private record Row(String label, String value) {

        Face face() {
            return value.chars().anyMatch(Character::isDigit) && value.indexOf(' ') < 0 ? Face.FIGURES : Face.WORDS;
        }
    }

    private void value(Row row, double size, double width, double at, double y) {
        double fits = fit(row.face(), row.value(), width, size, SMALLEST);
        write(row.face(), fits, shortened(row.face(), fits, row.value(), width, row.label()), box.x() + at, y);
    }

    private void flag(Label.Flag flag) {
        double half = box.width() / 2;
        double middle = box.x() + half;
        marks.add(new Mark.Line(middle, box.y() - MARGIN, middle, box.bottom() + MARGIN, true));
        for (double x : new double[] {box.x(), middle + 1}) {
            double width = half - 1, size = Math.min(3.4, box.height() * 0.28);
            double y = box.y() + size;
            y = put(Face.WORDS_BOLD, size, flag.here(), x, width, y, "This end");
            y = put(Face.WORDS, size * 0.9, "to " + flag.there(), x, width, y + size * 0.25, "The other end");
            put(Face.FIGURES, Math.min(2.4, size * 0.8), flag.code(), x, width, y + size * 0.25, "Tag");
        }
    }

    private double put(Face face, double size, String text, double x, double width, double y, String what) {
        double fits = fit(face, text, width, size, SMALLEST);
        write(face, fits, shortened(face, fits, text, width, what), x, y);
        return y + size;
    }

    private void port(Label.Port port) {
        double size = Math.min(3, box.height() * 0.5);
        write(Face.FIGURES_BOLD, size, "" + port.number(), box.x(), box.y() + size * 0.8);
        double small = Math.min(2.2, (box.height() - size) * 0.95);
        double fits = fit(Face.WORDS, port.on(), box.width(), small, 1.2);
        write(
                Face.WORDS,
                fits,
                shortened(Face.WORDS, fits, port.on(), box.width(), "Port " + port.number()),
                box.x(),
                box.bottom());
    }

    private void card(Label.Card card) {
        double size = fit(Face.WORDS_BOLD, card.place(), box.width(), Math.min(9, box.height() * 0.22), 3);
        double y = line(Face.WORDS_BOLD, size, card.place(), box.width(), box.y() + size, "Place") + 1;
        y = line(Face.WORDS, 2.8, card.site(), box.width(), y + 2.2, "Site") + 1;
        double each = Math.min(5, (box.bottom() - y) / Math.max(1, card.lines().size()) / 1.25);
        double row = Math.max(2, each);
        int fit = (int) ((box.bottom() - y + 0.01) / (row * 1.25));
        var shown = card.lines().size() <= fit ? card.lines() : card.lines().subList(0, Math.max(0, fit - 1));
        for (String line : shown)
            y = line(Face.WORDS, fit(Face.WORDS, line, box.width(), row, 2), line, box.width(), y + row * 1.2, "Line");
        int more = card.lines().size() - shown.size();
        if (more == 0) return;
        line(Face.WORDS, row, "and " + more + " more" + CUT, box.width(), y + row * 1.2, "Line");
        said.add("No room for " + more + " of " + card.lines().size() + " devices at " + card.place() + ".");
    }

    /** Draws a text from the left edge on a base line; returns the lower end of the line. */
    private double line(Face face, double size, String text, double width, double y, String what) {
        write(face, size, shortened(face, size, text, width, what), box.x(), y);
        return y + size * 0.2;
    }

    private void write(Face face, double size, String text, double x, double y) {
        var known = new StringBuilder();
        text.codePoints().forEach(c -> known.append(letters.has(c) ? Character.toString(c) : UNKNOWN));
        if (!known.toString().equals(text))
            said.add("“" + text + "” has letters that are not in the fonts; " + UNKNOWN + " stands for them.");
        if (!text.isEmpty()) marks.add(new Mark.Words(x, y, size, face, known.toString()));
    }

    /** The largest size between two at which a text takes no more than a width, or the least. */
    private double fit(Face face, String text, double width, double largest, double least) {
        double at = letters.width(face, largest, text);
        return at <= width ? largest : Math.max(Math.min(least, largest), largest * width / at);
    }

    private String shortened(Face face, double size, String text, double width, String what) {
        if (letters.width(face, size, text) <= width + 0.01) return text;
        var points = text.codePoints().toArray();
        int keep = points.length;
        String cut;
        do cut = new String(points, 0, --keep) + CUT;
        while (keep > 0 && letters.width(face, size, cut) > width);
        said.add(what + " is cut: “" + text + "” is too long.");
        return cut;
    }

    private List<String> wrap(Face face, double size, String text, double width) {
        var lines = new ArrayList<String>();
        Optional<String> line = Optional.empty();
        for (String word : text.split(" ")) {
            String longer = line.map(l -> l + " " + word).orElse(word);
            if (line.isPresent() && letters.width(face, size, longer) > width + 0.01) {
                lines.add(line.get());
                line = Optional.of(word);
            } else line = Optional.of(longer);
        }
        line.ifPresent(lines::add);
        return lines;
    }
}
