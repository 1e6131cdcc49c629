package app.knottag.server.today;

import app.knottag.core.runbook.Stage;
import app.knottag.core.runbook.Stage.Station;
import app.knottag.core.today.Notice;
import app.knottag.core.today.Today;
import app.knottag.server.record.Concerned;
import app.knottag.server.record.Noticing;
import app.knottag.server.today.TodayStore.WaitingRow;
import app.knottag.server.web.Scope;
import java.time.Clock;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Gathers what waits for somebody today, from whoever knows of it. */
@Component
class TodayViews {

    /** @param aboutId the endpoint, visit or registry it is about, by what it is; null when it is about several */
    record NoticeView(
            Notice.What what,
            long siteId,
            String site,
            Station station,
            @Nullable Long aboutId,
            Instant at,
            String who,
            String title,
            String detail) {}

    /** @param next the station that needs somebody next, or null when nothing waits there */
    record SiteToday(
            long siteId,
            String site,
            String zone,
            Map<Station, Long> waiting,
            @Nullable Station next,
            boolean broken) {}

    /** @param stops whether nothing can be changed until it is mended */
    record ConcernView(boolean stops, String title, String detail) {}

    record TodayView(
            List<ConcernView> concerns,
            @Nullable NoticeView first,
            List<NoticeView> now,
            List<NoticeView> running,
            List<NoticeView> ahead,
            List<SiteToday> sites,
            Instant at) {}

    private final List<Noticing> all;
    private final Concerned machine;
    private final TodayStore store;
    private final Clock clock;

    TodayViews(List<Noticing> all, Concerned machine, TodayStore store, Clock clock) {
        this.all = all;
        this.machine = machine;
        this.store = store;
        this.clock = clock;
    }

    TodayView today() {
        var now = clock.instant();
        var scope = Scope.now();
        var notices = Scope.everywhere(
                () -> all.stream().flatMap(n -> n.notices(now, scope).stream()).toList());
        var today = Today.of(scope.seen(notices, n -> n.site().id()));
        var sites = scope.seen(store.waiting(), WaitingRow::siteId).stream()
                .collect(Collectors.groupingBy(WaitingRow::siteId, LinkedHashMap::new, Collectors.toList()));
        return new TodayView(
                machine.concerns().stream()
                        .map(c -> new ConcernView(c.stops(), c.title(), c.detail()))
                        .toList(),
                today.first().map(TodayViews::view).orElse(null),
                views(today.now()),
                views(today.running()),
                views(today.ahead()),
                sites.values().stream().map(TodayViews::site).toList(),
                now);
    }

    private static List<NoticeView> views(List<Notice> notices) {
        return notices.stream().map(TodayViews::view).toList();
    }

    private static NoticeView view(Notice n) {
        return new NoticeView(
                n.what(),
                n.site().id(),
                n.site().name(),
                n.station(),
                n.about().isPresent() ? n.about().getAsLong() : null,
                n.at(),
                n.who(),
                n.title(),
                n.detail());
    }

    private static SiteToday site(List<WaitingRow> rows) {
        var waiting = rows.stream()
                .filter(r -> r.station() != Station.DONE && r.waiting() > 0)
                .collect(Collectors.toMap(WaitingRow::station, WaitingRow::waiting));
        return new SiteToday(
                rows.get(0).siteId(),
                rows.get(0).site(),
                rows.get(0).zone(),
                waiting,
                Stage.next(waiting).orElse(null),
                rows.stream().anyMatch(WaitingRow::failed));
    }
}
