package app.knottag.core.power;

import app.knottag.core.figure.Figures;
import java.util.List;

/** Things that draw from one source. */
final class Loads {

    /** Share of a rating that is used for long: the rest is for inrush, heat and age. */
    static final double KEPT = 0.8;

    private Loads() {}

    /** One of them, so many times. */
    record Load(String name, double each, int number) {
        double all() {
            return each * number;
        }

        /** Returns what it is called in a drawing. */
        String label() {
            return number == 1 ? name : number + " × " + name;
        }
    }

    static List<Load> of(List<Figures> rows, String draws) {
        return rows.stream()
                .map(r -> new Load(r.words("name"), r.figure(draws), r.count("number")))
                .toList();
    }

    static double sum(List<Load> loads) {
        return loads.stream().mapToDouble(Load::all).sum();
    }

    /** Whether a sum is above a limit by more than what rounding of decimal figures makes. */
    static boolean above(double sum, double limit) {
        return sum > limit * (1 + 1e-9);
    }
}
