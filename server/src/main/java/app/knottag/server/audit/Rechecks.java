package app.knottag.server.audit;

import app.knottag.core.audit.Recheck;
import app.knottag.core.audit.Recheck.History;
import app.knottag.core.audit.Recheck.Line;
import app.knottag.core.audit.Recheck.Proved;
import app.knottag.core.audit.Recheck.Weight;
import app.knottag.core.impact.Impact.Errand;
import app.knottag.core.impact.KindTraits;
import app.knottag.core.kind.Kinds;
import app.knottag.server.audit.RecheckStore.HistoryRow;
import app.knottag.server.audit.RecheckStore.ProvedRow;
import app.knottag.server.record.Sites;
import java.time.Clock;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
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
        var rows = store.proved();
        var histories = store.histories().stream().collect(Collectors.toMap(HistoryRow::kind, this::history));
        var all = Recheck.of(rows.stream().map(this::proved).toList(), histories, clock.instant());
        var here = all.stream().filter(l -> l.device().siteId() == siteId).toList();
        return new Listed(
                here,
                Recheck.places(all),
                rows.stream().collect(Collectors.toMap(ProvedRow::siteId, ProvedRow::site, (a, b) -> a)),
                here.stream()
                        .filter(Line::overdue)
                        .limit(MOST)
                        .map(this::errand)
                        .toList());
    }

    private History history(HistoryRow row) {
        return new History(kinds.get(row.kind()).noun(), row.changes(), row.years());
    }

    private Proved proved(ProvedRow row) {
        var weight = row.partner() ? Weight.WAITED_ON : kinds.get(row.kind()).reached() ? Weight.REACHED : Weight.ALONE;
        return new Proved(row.id(), row.name(), row.siteId(), row.place(), row.kind(), weight, row.held());
    }

    private Errand errand(Line line) {
        return Errand.proving(
                line.device().name(),
                line.device().place(),
                KindTraits.upkeep(kinds.get(line.device().kind())).proving());
    }
}
