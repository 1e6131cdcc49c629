package app.knottag.core.runbook;

import app.knottag.core.kind.Kind;
import app.knottag.core.kind.Opening.Danger;
import app.knottag.core.time.SiteClock;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * Something that stands open on an endpoint, or did: a factory password, an administrator, a firewall. Whatever its
 * kind has open from the factory counts as open until somebody says that it is closed.
 *
 * @param closes how it is closed
 * @param owner who closes it, or empty while nobody does
 * @param ends last day that it may stand open
 * @param closed whether it is closed
 * @param note what was said of it, such as where the new secret is kept; never the secret itself
 */
public record OpenState(
        String key,
        Danger danger,
        String title,
        String closes,
        String owner,
        Optional<LocalDate> ends,
        boolean closed,
        String note) {

    /** What is on record of an opening; those that the kind does not know carry their own words. */
    public record Record(
            String key,
            Danger danger,
            String title,
            String owner,
            Optional<LocalDate> ends,
            boolean closed,
            String note) {}

    /** Returns all openings of an endpoint: the open ones first, and of these the worst. */
    public static List<OpenState> of(Kind kind, Map<String, Record> records) {
        var all = new ArrayList<OpenState>();
        for (var o : kind.openings()) {
            var r = records.get(o.key());
            all.add(new OpenState(
                    o.key(),
                    o.danger(),
                    o.title(),
                    o.closes(),
                    r == null ? "" : r.owner(),
                    r == null ? Optional.empty() : r.ends(),
                    r != null && r.closed(),
                    r == null ? "" : r.note()));
        }
        records.values().stream()
                .filter(r -> kind.openings().stream().noneMatch(o -> o.key().equals(r.key())))
                .map(r -> new OpenState(r.key(), r.danger(), r.title(), "", r.owner(), r.ends(), r.closed(), r.note()))
                .forEach(all::add);
        all.sort(Comparator.comparing(OpenState::closed)
                .thenComparing(OpenState::danger)
                .thenComparing(OpenState::title));
        return List.copyOf(all);
    }

    /** Whether its day has passed; the day itself still counts. */
    public boolean overdue(LocalDate today) {
        return !closed && ends.filter(today::isAfter).isPresent();
    }

    /** Whether it may stand for now: it is closed, or somebody closes it by a day that has not passed. */
    public boolean settled(LocalDate today) {
        return closed || !owner.isEmpty() && ends.isPresent() && !overdue(today);
    }

    /** Returns what the hand-over waits for, one sentence for each opening; empty when nothing stands open. */
    public static List<String> holdUp(List<OpenState> openings, SiteClock clock) {
        return openings.stream()
                .filter(o -> !o.closed())
                .map(o -> o.title() + ": "
                        + (o.owner().isEmpty()
                                ? "open, and nobody has it in hand."
                                : o.owner() + " closes it by "
                                        + o.ends().map(clock::day).orElse("a day not set")
                                        + (o.overdue(clock.today()) ? ", which has passed." : ".")))
                .toList();
    }
}
