package app.knottag.core.figure;

import app.knottag.core.reading.Finding;
import app.knottag.core.reading.Finding.Code;
import app.knottag.core.reading.Note;
import app.knottag.core.reading.Reading;
import app.knottag.core.reading.Typed;
import java.math.BigDecimal;
import java.math.MathContext;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Pattern;

/**
 * Reads a figure with its unit as people write it: {@code 1,5 A}, {@code 500 mA}, {@code AWG 22}. Takes it only when it has
 * one meaning; a figure without a unit is in the unit that was asked for.
 */
public final class QuantityReader {

    private static final Pattern FIGURE = Pattern.compile("([+-]?)([0-9]+(?:[.,][0-9]+)*|[.,][0-9]+)\\s*(.*)");
    private static final Pattern GAUGE = Pattern.compile("(awg|#)\\s*[0-9]{1,2}|[0-9]{1,2}\\s*awg");
    private static final int THICKEST_GAUGE = 0, THINNEST_GAUGE = 40;

    private QuantityReader() {}

    /**
     * Reads a figure.
     *
     * @param least least figure that makes sense, in the unit
     * @param most greatest figure that makes sense, in the unit
     * @return with the figure in the unit as plain decimal text, or with what speaks against it
     */
    public static Reading read(String text, Unit unit, double least, double most) {
        if (text.length() > Typed.MAX_LENGTH) return no(Code.TOO_LONG, "That is too long for a figure.");
        String plain = Typed.of(text).plain().strip().toLowerCase(Locale.ROOT).replace('−', '-');
        if (plain.isEmpty()) return no(Code.EMPTY, "Key in a figure" + in(unit) + ".");
        var gauge = GAUGE.matcher(plain);
        if (unit == Unit.SQUARE_MILLIMETRE && gauge.matches())
            return gauge(Integer.parseInt(plain.replaceAll("[^0-9]", "")), least, most);
        var figure = FIGURE.matcher(plain);
        if (!figure.matches())
            return no(
                    Code.UNREADABLE,
                    "“" + text.strip() + "” is no figure. Key in one such as "
                            + unit.write(Math.max(least, Math.min(most, 12))) + ".");
        String spelled = figure.group(3).strip().replaceAll("\\.$", "");
        var factor = spelled.isEmpty() ? Optional.of(1.0) : unit.factor(spelled);
        if (factor.isEmpty()) return otherUnit(spelled, unit);
        var meanings = new ArrayList<Double>();
        for (double digits : figures(figure.group(2))) {
            double value = (figure.group(1).equals("-") ? -digits : digits) * factor.get();
            if (value >= least && value <= most) meanings.add(value);
        }
        var all = figures(figure.group(2));
        if (all.isEmpty())
            return no(Code.UNREADABLE, "“" + figure.group(2) + "” has more than one point. Key in 1.5 or 1500.");
        if (meanings.size() == 2)
            return no(
                    Code.TWO_MEANINGS,
                    "“" + figure.group(2) + "” can be " + Unit.plain(all.get(0)) + " or " + Unit.plain(all.get(1))
                            + ". Key it in the one way or the other.");
        if (meanings.isEmpty())
            return outside((figure.group(1).equals("-") ? -all.get(0) : all.get(0)) * factor.get(), unit, least, most);
        double value = meanings.get(0);
        return Reading.taken(exact(value), notes(figure.group(2), spelled, unit, value));
    }

    private static String in(Unit unit) {
        return unit.symbol().isEmpty() ? "" : " in " + unit.symbol();
    }

    private static List<Note> notes(String digits, String spelled, Unit unit, double value) {
        boolean other =
                !spelled.isEmpty() && unit.factor(spelled).filter(f -> f != 1).isPresent();
        return other || digits.contains(",")
                ? List.of(new Note(Note.Code.SAID, "Read as " + unit.write(value) + "."))
                : List.of();
    }

    /** The figures that a row of digits with points or commas can mean: “1,500” is one and a half, or fifteen hundred. */
    private static List<Double> figures(String digits) {
        var marks = digits.replaceAll("[0-9]", "");
        if (marks.isEmpty()) return List.of(Double.valueOf(digits));
        boolean thousands = digits.matches("[1-9][0-9]{0,2}([.,][0-9]{3})+");
        if (marks.length() == 1) {
            double decimal = Double.parseDouble(digits.replace(',', '.'));
            return thousands ? List.of(decimal, decimal * 1000) : List.of(decimal);
        }
        if (digits.matches("[1-9][0-9]{0,2}(,[0-9]{3})+(\\.[0-9]+)?"))
            return List.of(Double.valueOf(digits.replace(",", "")));
        if (digits.matches("[1-9][0-9]{0,2}(\\.[0-9]{3})+(,[0-9]+)?"))
            return List.of(Double.valueOf(digits.replace(".", "").replace(',', '.')));
        return List.of();
    }

    private static Reading otherUnit(String spelled, Unit unit) {
        String here = unit.symbol().isEmpty() ? "pieces" : unit.symbol();
        return no(
                Code.OTHER_UNIT,
                unit.confused(spelled)
                        .map(way -> "“" + spelled + "” is asked for in " + here + " here. " + way)
                        .orElse(
                                Unit.known(spelled)
                                        ? "“" + spelled + "” is another unit: " + here + " are asked for."
                                        : "“" + spelled + "” is no unit that is known here. Key it in" + in(unit)
                                                + "."));
    }

    /** American wire gauge as a cross-section, by ASTM B258: the diameter is 0.127 mm times 92 to the power of (36 − n) / 39. */
    private static Reading gauge(int n, double least, double most) {
        if (n < THICKEST_GAUGE || n > THINNEST_GAUGE) return no(Code.OUT_OF_RANGE, "AWG runs from 0 to 40 here.");
        double diameter = 0.127 * Math.pow(92, (36 - n) / 39.0), value = Math.PI / 4 * diameter * diameter;
        if (value < least || value > most) return outside(value, Unit.SQUARE_MILLIMETRE, least, most);
        return Reading.taken(
                exact(value),
                List.of(new Note(Note.Code.SAID, "AWG " + n + " is " + Unit.SQUARE_MILLIMETRE.write(value) + ".")));
    }

    private static Reading outside(double value, Unit unit, double least, double most) {
        return no(
                Code.OUT_OF_RANGE,
                unit.write(value) + " cannot be: from " + unit.write(least) + " to " + unit.write(most)
                        + " make sense here.");
    }

    /** What the conversion of a decimal figure adds beyond the twelfth place is no figure of anybody's. */
    private static String exact(double value) {
        var digits = BigDecimal.valueOf(value).round(new MathContext(12));
        return digits.signum() == 0 ? "0" : digits.stripTrailingZeros().toPlainString();
    }

    private static Reading no(Code code, String message) {
        return Reading.refused(Finding.of(code, message));
    }
}
