package app.knottag.core.impact;

import app.knottag.core.impact.Impact.Errand;
import app.knottag.core.impact.Impact.ImpactStep;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.stream.Collectors;

/** Gathers steps that one person does in one go: those of one thing, then things of one stage in one place. */
final class Errands {

    private static final int LONGEST = 240;
    private static final int WIDEST = 120;

    private Errands() {}

    /** Steps of one thing that follow one another. */
    private record Row(List<ImpactStep> steps, int stage) {

        int minutes() {
            return steps.stream().mapToInt(ImpactStep::minutes).sum();
        }

        String place() {
            return steps.get(0).place();
        }

        String thing() {
            return steps.get(0).thing();
        }

        String what() {
            return steps.stream()
                    .map(s -> switch (s.act()) {
                        case CHANGE, MEND -> "set anew";
                        case RENEW -> "restart";
                        case PROVE -> "prove again";
                    })
                    .distinct()
                    .collect(Collectors.joining(" and "));
        }
    }

    static List<Errand> of(List<ImpactStep> steps) {
        var rows = new ArrayList<Row>();
        var rowOf = new ArrayList<Row>();
        for (var step : steps) {
            var before = step.after().stream().map(n -> rowOf.get(n - 1)).toList();
            var row = rows.stream()
                    .skip(Math.max(0, rows.size() - 1))
                    .filter(last -> last.thing().equals(step.thing()))
                    // What waits only for earlier steps of its own row goes on in it.
                    .filter(last -> before.stream().allMatch(b -> b == last || b.stage() < last.stage()))
                    .findFirst()
                    .orElseGet(() -> {
                        int stage = before.stream().mapToInt(Row::stage).max().orElse(0);
                        rows.add(new Row(new ArrayList<>(), stage + 1));
                        return rows.get(rows.size() - 1);
                    });
            row.steps().add(step);
            rowOf.add(row);
        }
        return gathered(rows);
    }

    private static List<Errand> gathered(List<Row> rows) {
        var errands = new ArrayList<Errand>();
        var open = new ArrayList<Row>();
        var sorted = rows.stream()
                .sorted(Comparator.comparing(Row::stage)
                        .thenComparing(Row::place)
                        .thenComparing(Row::what))
                .toList();
        for (var row : sorted) {
            if (!open.isEmpty() && !together(open, row)) {
                errands.add(errand(open));
                open.clear();
            }
            open.add(row);
        }
        if (!open.isEmpty()) errands.add(errand(open));
        return errands;
    }

    private static boolean together(List<Row> open, Row row) {
        var first = open.get(0);
        return first.stage() == row.stage()
                && first.place().equals(row.place())
                && first.what().equals(row.what())
                && open.stream().mapToInt(Row::minutes).sum() + row.minutes() <= LONGEST
                && title(open).length() + row.thing().length() + 2 <= WIDEST;
    }

    private static Errand errand(List<Row> rows) {
        int minutes = rows.stream().mapToInt(Row::minutes).sum();
        return new Errand(
                title(rows),
                rows.get(0).place(),
                Math.min(LONGEST, minutes),
                rows.get(0).stage());
    }

    private static String title(List<Row> rows) {
        var first = rows.get(0);
        String whole = capital(first.thing()) + ": " + first.steps().get(0).title();
        if (rows.size() == 1 && first.steps().size() == 1 && whole.length() <= WIDEST) return whole;
        String all =
                capital(first.what()) + ": " + rows.stream().map(Row::thing).collect(Collectors.joining(", "));
        return all.length() <= WIDEST ? all : all.substring(0, WIDEST - 1) + "…";
    }

    private static String capital(String text) {
        return text.substring(0, 1).toUpperCase(Locale.ROOT) + text.substring(1);
    }
}
