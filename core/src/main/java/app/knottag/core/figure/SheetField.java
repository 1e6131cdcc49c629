package app.knottag.core.figure;

import java.util.Arrays;
import java.util.List;
import java.util.function.Function;

/**
 * One thing that a worksheet asks for.
 *
 * @param unit what a figure counts
 * @param least least figure that makes sense, in the unit; for rows the fewest of them
 * @param most greatest figure that makes sense, in the unit; for rows the most of them
 * @param usual what is taken while nothing is keyed in, or empty when it must be keyed in
 * @param hint where to read it, or empty
 * @param columns what each row asks for, for rows
 */
public record SheetField(
        String key,
        String label,
        Form form,
        Unit unit,
        double least,
        double most,
        String usual,
        String hint,
        boolean needed,
        List<SheetPick> picks,
        List<SheetField> columns) {

    /** How it is keyed in. */
    public enum Form {
        FIGURE,
        PICK,
        WORDS,
        /** Several lines, such as a pasted list. */
        LINES,
        ROWS
    }

    /** One of the things that can be picked. */
    public record SheetPick(String value, String label) {}

    public SheetField {
        picks = List.copyOf(picks);
        columns = List.copyOf(columns);
    }

    /** A figure that must be keyed in. */
    public static SheetField figure(String key, String label, Unit unit, double least, double most) {
        return new SheetField(key, label, Form.FIGURE, unit, least, most, "", "", true, List.of(), List.of());
    }

    /** A whole number of things. */
    public static SheetField count(String key, String label, int least, int most) {
        return figure(key, label, Unit.PIECES, least, most);
    }

    /** One of a few; the first is usual. */
    public static <E extends Enum<E>> SheetField pick(String key, String label, E[] values, Function<E, String> words) {
        var picks = Arrays.stream(values)
                .map(v -> new SheetPick(v.name(), words.apply(v)))
                .toList();
        return new SheetField(
                key, label, Form.PICK, Unit.PIECES, 0, 0, picks.get(0).value(), "", true, picks, List.of());
    }

    /** Yes or no; no is usual. */
    public static SheetField yesNo(String key, String label) {
        return new SheetField(
                key,
                label,
                Form.PICK,
                Unit.PIECES,
                0,
                0,
                "NO",
                "",
                true,
                List.of(new SheetPick("NO", "No"), new SheetPick("YES", "Yes")),
                List.of());
    }

    /** A few words. */
    public static SheetField words(String key, String label) {
        return new SheetField(key, label, Form.WORDS, Unit.PIECES, 0, 0, "", "", true, List.of(), List.of());
    }

    /** Several lines of text. */
    public static SheetField lines(String key, String label) {
        return new SheetField(key, label, Form.LINES, Unit.PIECES, 0, 0, "", "", true, List.of(), List.of());
    }

    /** Rows of the same columns. */
    public static SheetField rows(String key, String label, int fewest, int most, SheetField... columns) {
        return new SheetField(
                key, label, Form.ROWS, Unit.PIECES, fewest, most, "", "", fewest > 0, List.of(), List.of(columns));
    }

    /** Returns the same with what is taken while nothing is keyed in. */
    public SheetField usual(String text) {
        return new SheetField(key, label, form, unit, least, most, text, hint, needed, picks, columns);
    }

    /** Returns the same with where to read it. */
    public SheetField hint(String text) {
        return new SheetField(key, label, form, unit, least, most, usual, text, needed, picks, columns);
    }

    /** Returns the same as something that may stay empty. */
    public SheetField optional() {
        return new SheetField(key, label, form, unit, least, most, usual, hint, false, picks, columns);
    }
}
