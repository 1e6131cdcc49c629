package app.knottag.server.watch;

import app.knottag.core.watch.Morning.News;
import app.knottag.core.watch.Night;
import app.knottag.core.watch.TimeSpan;
import app.knottag.server.record.Sites;
import app.knottag.server.watch.NightStore.LineRow;
import app.knottag.server.watch.NightStore.NightRow;
import app.knottag.server.watch.WatchStore.WatchRow;
import app.knottag.server.web.Dates;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import java.security.Principal;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalTime;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Looks at night and their reports, over HTTP. */
@RestController
class WatchController {

    record WatchRequest(@NotNull String from, @NotNull String until) {}

    /** Hours that are kept clear, and of what. */
    record ClearView(Instant from, Instant until, String what) {}

    /**
     * The night that goes on or comes next.
     *
     * @param ends when its last look is expected to be over; as the night ends when none can be made
     * @param unknown devices that restart at an hour that nobody put on record
     * @param tooLong looks for which the free hours are too short
     * @param hints what somebody can do so that more is looked at
     */
    record NextNightView(
            LocalDate morning,
            LocalTime from,
            LocalTime until,
            List<TimeSpan> free,
            List<ClearView> clear,
            List<String> unknown,
            int looks,
            Instant ends,
            List<String> tooLong,
            List<String> hints) {}

    /** @param now what is looked at */
    record ProgressView(int made, int of, String now) {}

    /**
     * @param morning null for looks that somebody asked for
     * @param endedAt null while it goes on
     * @param tells whether somebody should read it
     */
    record NightLineView(
            long id,
            @Nullable LocalDate morning,
            String by,
            Instant startedAt,
            @Nullable Instant endedAt,
            String words,
            boolean tells,
            boolean read) {}

    /**
     * @param watched whether the site is looked at every night
     * @param by who said so last
     * @param running at most one
     * @param setBack whether the clock stands before looks that were made already
     */
    record NightsView(
            boolean watched,
            String by,
            NextNightView next,
            List<LocalDate> missed,
            boolean setBack,
            List<ProgressView> running,
            List<NightLineView> nights) {}

    /**
     * @param look what saw it: checks, service, list or audit
     * @param endpointId 0 when it is about none
     */
    record ToldLineView(News news, String look, long endpointId, String title, String detail, Instant since) {}

    record NotLookedView(String why, List<String> what) {}

    /**
     * One night.
     *
     * @param lines what it tells, what is new first
     * @param more how many lines it tells beside these
     */
    record NightReportView(
            NightLineView night, int looked, List<ToldLineView> lines, int more, List<NotLookedView> left) {}

    private final Watches watches;
    private final Sites sites;

    WatchController(Watches watches, Sites sites) {
        this.watches = watches;
        this.sites = sites;
    }

    @GetMapping("/api/sites/{siteId}/nights")
    NightsView nights(@PathVariable long siteId) {
        var all = watches.nights(siteId);
        return new NightsView(
                all.watch().isPresent(),
                all.watch().map(WatchRow::by).orElse(""),
                view(all),
                all.missed(),
                all.setBack(),
                all.progress().map(p -> new ProgressView(p.made(), p.of(), p.now())).stream()
                        .toList(),
                all.lately().stream().map(this::view).toList());
    }

    @PostMapping("/api/sites/{siteId}/nights")
    @ResponseStatus(HttpStatus.ACCEPTED)
    void now(@PathVariable long siteId, Principal by) {
        watches.now(siteId, by.getName());
    }

    @PutMapping("/api/sites/{siteId}/watch")
    void watch(@PathVariable long siteId, @Valid @RequestBody WatchRequest b, Principal by) {
        var style = sites.site(siteId).dates();
        watches.watch(siteId, Dates.time("from", b.from(), style), Dates.time("until", b.until(), style), by.getName());
    }

    @DeleteMapping("/api/sites/{siteId}/watch")
    void end(@PathVariable long siteId, Principal by) {
        watches.end(siteId, by.getName());
    }

    @GetMapping("/api/nights/{nightId}")
    NightReportView report(@PathVariable long nightId) {
        var report = watches.report(nightId);
        return new NightReportView(
                view(report.night()),
                watches.outcome(report.night()).looked(),
                report.lines().stream().map(WatchController::view).toList(),
                report.more(),
                report.left().stream()
                        .map(l -> new NotLookedView(l.why(), l.what()))
                        .toList());
    }

    @PutMapping("/api/nights/{nightId}/read")
    void read(@PathVariable long nightId) {
        watches.read(nightId);
    }

    private static NextNightView view(Watches.Nights all) {
        var next = all.next();
        var placed = all.laid().placed();
        return new NextNightView(
                next.morning(),
                all.hours().from(),
                all.hours().until(),
                next.free(),
                next.clear().stream()
                        .map(c -> new ClearView(c.when().from(), c.when().until(), c.what()))
                        .toList(),
                next.unknown(),
                placed.size() + all.laid().left().size(),
                placed.isEmpty()
                        ? next.whole().from()
                        : placed.get(placed.size() - 1).until(),
                all.laid().left().stream().map(Night.Work::what).toList(),
                all.hints());
    }

    private NightLineView view(NightRow n) {
        var outcome = watches.outcome(n);
        return new NightLineView(
                n.id(),
                n.morning(),
                n.by(),
                n.startedAt(),
                n.endedAt(),
                n.goesOn() ? "It goes on." : outcome.words(),
                !n.goesOn() && outcome.tells(),
                n.read());
    }

    private static ToldLineView view(LineRow l) {
        return new ToldLineView(l.news(), l.about().split("[ :]")[0], l.endpointId(), l.title(), l.detail(), l.since());
    }
}
