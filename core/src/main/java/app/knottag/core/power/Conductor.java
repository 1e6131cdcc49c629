package app.knottag.core.power;

import java.util.Map;
import java.util.NavigableMap;
import java.util.OptionalDouble;
import java.util.TreeMap;

/** Copper leads of a run, each way. */
final class Conductor {

    /** Highest resistance at 20 °C of stranded plain copper by cross-section, mm² to Ω/km (IEC 60228, class 5, plain copper). */
    private static final NavigableMap<Double, Double> SOLD =
            new TreeMap<>(Map.of(0.5, 39.0, 0.75, 26.0, 1.0, 19.5, 1.5, 13.3, 2.5, 7.98, 4.0, 4.95, 6.0, 3.30));

    /** Resistivity that those figures come from, Ω·mm²/m, for cross-sections between and below them. */
    private static final double OTHER = 0.0195;

    private Conductor() {}

    /** Returns the resistance of one lead, Ω/m. */
    static double perMetre(double squareMillimetres) {
        return SOLD.getOrDefault(squareMillimetres, OTHER / squareMillimetres * 1000) / 1000;
    }

    /** Returns the volts lost on the way there and back. */
    static double drop(double metres, double squareMillimetres, double amperes) {
        return 2 * metres * amperes * perMetre(squareMillimetres);
    }

    /** Returns the next cross-section that is sold and loses no more than that, or nothing. */
    static OptionalDouble enough(double metres, double amperes, double mayLose, double above) {
        return SOLD.keySet().stream()
                .filter(s -> s > above && drop(metres, s, amperes) <= mayLose)
                .mapToDouble(Double::doubleValue)
                .findFirst();
    }
}
