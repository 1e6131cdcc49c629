package app.knottag.server.audit;

import app.knottag.core.audit.Recheck;
import app.knottag.core.audit.Recheck.History;
import app.knottag.core.audit.Recheck.Line;
import app.knottag.core.audit.Recheck.Overdue;
import app.knottag.core.audit.Recheck.Proved;
import app.knottag.core.audit.Recheck.Weight;
import app.knottag.core.impact.Impact.Errand;
import app.knottag.core.impact.KindTraits;
import app.knottag.core.kind.Kinds;
import app.knottag.server.audit.RecheckStore.HistoryRow;
import app.knottag.server.audit.RecheckStore.OverdueRow;
import app.knottag.server.audit.RecheckStore.ProvedRow;
import app.knottag.server.record.Sites;
import java.time.Clock;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Which proofs to renew first, at one site and over all. */
@Service
class Rechecks {

    /** What one visit takes. */
    private static final int MOST = 30;

    private final RecheckStore store;
    private final Sites sites;
    private final Kinds kinds;
    private final Clock clock;

    Rechecks(RecheckStore store, Sites sites, Kinds kinds, Clock clock) {
        this.store = store;
        this.sites = sites;
        this.kinds = kinds;
        this.clock = clock;
    }

    /**
     * @param lines of one site
     * @param elsewhere all sites at which something is overdue, where it is worth most to go first
     * @param names of those sites by their numbers
     * @param errands what is overdue at the one site, as far as one visit goes
     */
    record Listed(List<Line> lines, List<Recheck.Place> elsewhere, Map<Long, String> names, List<Errand> errands) {}

    @Transactional(readOnly = true)
    public Listed at(long siteId) {
        sites.site(siteId);
        var now = clock.instant();
        var histories = store.histories().stream().collect(Collectors.toMap(HistoryRow::kind, this::history));
        var here = Recheck.of(
                store.proved(siteId).stream().map(r -> proved(siteId, r)).toList(), histories, now);
        var overdue = overdue(histories, now);
        return new Listed(
                here,
                Recheck.places(overdue.stream()
                        .map(r -> new Overdue(r.siteId(), weight(r.kind(), r.partner()), r.count()))
                        .toList()),
                overdue.stream().collect(Collectors.toMap(OverdueRow::siteId, OverdueRow::site, (a, b) -> a)),
                here.stream()
                        .filter(Line::overdue)
                        .limit(MOST)
                        .map(this::errand)
                        .toList());
    }

    private List<OverdueRow> overdue(Map<String, History> histories, Instant now) {
        var asked = histories.keySet().stream()
                .flatMap(k -> Stream.of(true, false).map(partner -> Map.entry(k, partner)))
                .toList();
        return store.overdue(
                asked.stream().map(Map.Entry::getKey).toArray(String[]::new),
                asked.stream().map(e -> e.getValue().toString()).toArray(String[]::new),
                asked.stream()
                        .map(e -> now.minus(Recheck.lasts(histories.get(e.getKey()), weight(e.getKey(), e.getValue()))))
                        .map(Instant::toString)
                        .toArray(String[]::new));
    }

    private Weight weight(String kind, boolean partner) {
        return Weight.of(partner, kinds.get(kind).reached());
    }

    private History history(HistoryRow row) {
        return new History(kinds.get(row.kind()).noun(), row.changes(), row.years());
    }

    private Proved proved(long siteId, ProvedRow row) {
        return new Proved(
                row.id(),
                row.name(),
                siteId,
                row.place(),
                row.kind(),
                weight(row.kind(), row.partner()),
                row.held(),
                Optional.ofNullable(row.failedSince()));
    }

    private Errand errand(Line line) {
        return Errand.proving(
                line.device().name(),
                line.device().place(),
                KindTraits.upkeep(kinds.get(line.device().kind())).proving());
    }
}
