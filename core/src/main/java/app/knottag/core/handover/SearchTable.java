package app.knottag.core.handover;

import app.knottag.core.handover.PackDocument.Table;
import app.knottag.core.reach.Fault;
import app.knottag.core.reach.FaultBook;
import app.knottag.core.reach.PaperSearch;
import app.knottag.core.reach.PaperSearch.Branch;
import app.knottag.core.reach.PaperSearch.Cause;
import app.knottag.core.reach.Question;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.stream.Collectors;

/** A search on paper as the rows of a table, and the causes that it ends in as those of another. */
final class SearchTable {

    private static final FaultBook BOOK = FaultBook.shipped();
    private static final String CALL = "call a colleague, and say what you saw";

    private SearchTable() {}

    /** The look stands in its first row only; what leads to the same is one row. */
    static Table of(PaperSearch search) {
        var rows = new ArrayList<List<String>>();
        for (int i = 0; i < search.steps().size(); i++) {
            var step = search.steps().get(i);
            var together = step.branches().stream()
                    .collect(Collectors.groupingBy(
                            b -> then(step.question(), b),
                            LinkedHashMap::new,
                            Collectors.mapping(
                                    b -> BOOK.words(step.question(), b.outcome()), Collectors.joining("; or: "))));
            int before = rows.size();
            for (var one : together.entrySet()) {
                boolean first = rows.size() == before;
                rows.add(List.of(
                        first ? String.valueOf(i + 1) : "",
                        first ? step.question().words() : "",
                        one.getValue(),
                        one.getKey()));
            }
        }
        return new Table(List.of("Look", "At what", "You see", "Then"), List.of(), rows);
    }

    private static String then(Question question, Branch branch) {
        if (branch.step().isPresent()) return "Go on with " + branch.step().get();
        if (branch.causes().isEmpty() && question == Question.FIELDS) return "Put it right, and try once more";
        if (branch.causes().isEmpty()) return "Nothing known fits: " + CALL;
        var titles = branch.causes().stream().map(SearchTable::title).collect(Collectors.joining("; or: "));
        return branch.fits() ? titles : "Look once more. If it stays so: " + titles;
    }

    private static String title(Cause cause) {
        return cause.faults().stream().map(f -> BOOK.of(f).title()).collect(Collectors.joining(", and: "));
    }

    /** By their titles, as they are looked up. */
    static Table causes(List<Fault> faults) {
        return new Table(
                List.of("Cause", "What to do", "If that does not help"),
                List.of(),
                faults.stream()
                        .map(BOOK::of)
                        .sorted(Comparator.comparing(FaultBook.Entry::title))
                        .map(e -> List.of(
                                e.title(),
                                String.join(" ", e.remedy()),
                                e.call().isEmpty() ? "Call a colleague" : "Call " + e.call()))
                        .toList());
    }
}
