package app.knottag.server.plan;

import app.knottag.core.kind.Kind;
import app.knottag.core.kind.Kinds;
import app.knottag.server.change.Numbering;
import app.knottag.server.record.EndpointStore;
import app.knottag.server.record.SiteStore.SegmentRow;
import app.knottag.server.record.SiteStore.SeriesRow;
import app.knottag.server.record.Sites;
import app.knottag.server.web.FormReader;
import app.knottag.server.web.Problem;
import jakarta.validation.constraints.NotNull;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.TreeSet;
import java.util.regex.Pattern;
import org.springframework.stereotype.Component;

/** Reads which many are wanted at once, with their numbers as people write them. */
@Component
class BatchForm {

    private static final int MOST = 250;
    private static final Pattern RUN = Pattern.compile("([0-9]{1,4})(?:\\s*(?:-|–|to|\\.\\.)\\s*([0-9]{1,4}))?");

    /** What is wanted; numbers as people write them: “1 to 8, 11”. */
    record BatchRequest(
            @NotNull String kind,
            @NotNull Long segmentId,
            Long seriesId,
            String numbers,
            Integer count,
            String place) {}

    /** Many of one kind in one segment: one for each number of a series, or as many without one. */
    record BatchWish(
            Kind kind, SegmentRow segment, Optional<SeriesRow> series, List<Optional<Integer>> members, String place) {}

    private final Numbering numbering;
    private final EndpointStore store;
    private final Sites sites;
    private final Kinds kinds;

    BatchForm(Numbering numbering, EndpointStore store, Sites sites, Kinds kinds) {
        this.numbering = numbering;
        this.store = store;
        this.sites = sites;
        this.kinds = kinds;
    }

    BatchWish read(long siteId, BatchRequest b) {
        var kind = kinds.find(b.kind())
                .orElseThrow(() -> Problem.field("kind", "no-such-kind", "There is no kind “" + b.kind() + "”."));
        var segment = sites.segmentOf(siteId, b.segmentId());
        var series = numbering
                .seriesOf(siteId, kind, b.seriesId())
                .filter(s -> s.segmentId() == null || s.segmentId().equals(segment.id()));
        String place = FormReader.words("place", b.place(), false);
        return new BatchWish(
                kind, segment, series, series.map(s -> numbered(s, b)).orElseGet(() -> counted(b)), place);
    }

    private List<Optional<Integer>> numbered(SeriesRow series, BatchRequest b) {
        var numbers = numbers(Objects.requireNonNullElse(b.numbers(), ""));
        if (numbers.isEmpty()) throw Problem.field("numbers", "missing", "Say which numbers, such as 1 to 8.");
        if (numbers.size() > MOST) throw tooMany("numbers");
        var taken = store.numbers(series.id());
        numbers.stream().filter(taken::contains).findFirst().ifPresent(n -> {
            throw Problem.conflict(
                    "numbers", "number-taken", "Number " + n + " is given already. Leave it out.", Map.of());
        });
        return numbers.stream().map(Optional::of).toList();
    }

    private static List<Optional<Integer>> counted(BatchRequest b) {
        int count = Objects.requireNonNullElse(b.count(), 0);
        if (count < 1) throw Problem.field("count", "missing", "Say how many.");
        if (count > MOST) throw tooMany("count");
        return Collections.nCopies(count, Optional.empty());
    }

    /** Reads “1 to 8, 11” as numbers in order. */
    private static TreeSet<Integer> numbers(String text) {
        var numbers = new TreeSet<Integer>();
        for (String part : text.split("[,;]")) {
            if (part.isBlank()) continue;
            var run = RUN.matcher(part.strip());
            if (!run.matches())
                throw Problem.field(
                        "numbers",
                        "bad-numbers",
                        "“" + part.strip() + "” is no number or run. Type 1 to 8, or 1, 3, 5.");
            int from = Integer.parseInt(run.group(1));
            int to = Optional.ofNullable(run.group(2)).map(Integer::parseInt).orElse(from);
            if (from < 1 || to < from)
                throw Problem.field(
                        "numbers", "bad-numbers", "“" + part.strip() + "” does not run upwards from 1 or more.");
            if (to - from >= MOST || numbers.size() > MOST) throw tooMany("numbers");
            for (int n = from; n <= to; n++) numbers.add(n);
        }
        return numbers;
    }

    private static Problem tooMany(String field) {
        return Problem.field(field, "too-many", "At most " + MOST + " at once.");
    }
}
