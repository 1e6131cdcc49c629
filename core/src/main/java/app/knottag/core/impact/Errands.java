package app.knottag.core.impact;

import app.knottag.core.impact.Impact.Errand;
import app.knottag.core.impact.Impact.ImpactStep;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.TreeMap;
import java.util.stream.Collectors;
import java.util.stream.IntStream;

/** Gathers steps that one person does in one go: those of one thing, then things of one stage in one place. */
final class Errands {

    private static final int LONGEST = 240;
    private static final int WIDEST = 120;
    private static final int NAMED = 8;

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

        String listed() {
            return thing().startsWith("The ") ? "t" + thing().substring(1) : thing();
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
            var row = rows.subList(Math.max(0, rows.size() - 1), rows.size()).stream()
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

    private record Go(int stage, String place, String what) {}

    private static List<Errand> gathered(List<Row> rows) {
        var order = Comparator.comparing(Go::stage).thenComparing(Go::place).thenComparing(Go::what);
        var goes = rows.stream()
                .collect(Collectors.groupingBy(
                        r -> new Go(r.stage(), r.place(), r.what()), () -> new TreeMap<>(order), Collectors.toList()));
        var errands = new ArrayList<Errand>();
        goes.forEach((go, of) -> {
            var together = new ArrayList<Row>();
            int minutes = 0;
            for (var row : of) {
                if (minutes + row.minutes() > LONGEST && !together.isEmpty()) {
                    errands.add(errand(go, together, minutes));
                    together.clear();
                    minutes = 0;
                }
                together.add(row);
                minutes += row.minutes();
            }
            errands.add(errand(go, together, minutes));
        });
        return errands;
    }

    private static Errand errand(Go go, List<Row> rows, int minutes) {
        return new Errand(title(go, rows), go.place(), Math.min(LONGEST, minutes), go.stage());
    }

    private static String title(Go go, List<Row> rows) {
        var first = rows.get(0);
        String whole = first.thing() + ": " + first.steps().get(0).title();
        if (rows.size() == 1 && first.steps().size() == 1 && whole.length() <= WIDEST) return whole;
        // Of those with long names fewer are named.
        return IntStream.iterate(Math.min(NAMED, rows.size()), n -> n > 0, n -> n - 1)
                .mapToObj(n -> capital(go.what()) + ": " + listed(rows, n))
                .filter(s -> s.length() <= WIDEST)
                .findFirst()
                .orElseGet(() -> capital(go.what()) + ": " + rows.size() + " things");
    }

    private static String listed(List<Row> rows, int named) {
        return rows.stream().limit(named).map(Row::listed).collect(Collectors.joining(", "))
                + (named < rows.size() ? " and " + (rows.size() - named) + " more" : "");
    }

    private static String capital(String text) {
        return text.substring(0, 1).toUpperCase(Locale.ROOT) + text.substring(1);
    }
}
