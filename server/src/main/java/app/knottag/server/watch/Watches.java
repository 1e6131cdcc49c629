package app.knottag.server.watch;

import app.knottag.core.reading.ReadingException;
import app.knottag.core.watch.Morning;
import app.knottag.core.watch.MorningText;
import app.knottag.core.watch.Night;
import app.knottag.core.watch.WatchHours;
import app.knottag.server.log.Log;
import app.knottag.server.record.Sites;
import app.knottag.server.watch.NightStore.LineRow;
import app.knottag.server.watch.NightStore.NightRow;
import app.knottag.server.watch.WatchStore.WatchRow;
import app.knottag.server.web.Problem;
import java.time.Clock;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Which sites are looked at every night, how their next night is laid, and how the last ones went. */
@Service
public class Watches {

    private final WatchStore store;
    private final NightStore nights;
    private final NightRuns runs;
    private final Sites sites;
    private final Log log;
    private final Clock clock;

    Watches(WatchStore store, NightStore nights, NightRuns runs, Sites sites, Log log, Clock clock) {
        this.store = store;
        this.nights = nights;
        this.runs = runs;
        this.sites = sites;
        this.log = log;
        this.clock = clock;
    }

    /**
     * The nights of a site.
     *
     * @param watch since when it is looked at every night; empty when it is not
     * @param next the night that goes on or comes next, or would
     * @param laid its looks
     * @param setBack whether this machine's clock stands before looks that were made already
     */
    record Nights(
            Optional<WatchRow> watch,
            WatchHours hours,
            Night next,
            Night.Laid laid,
            List<String> hints,
            List<LocalDate> missed,
            boolean setBack,
            Optional<NightRuns.Progress> progress,
            List<NightRow> lately) {}

    Nights nights(long siteId) {
        var site = sites.site(siteId);
        var watch = store.find(siteId);
        var now = clock.instant();
        var hours = watch.map(w -> new WatchHours(w.fromTime(), w.untilTime())).orElse(WatchHours.USUAL);
        var zone = ZoneId.of(site.zone());
        var morning = hours.morning(now, zone);
        boolean done = nights.of(siteId, morning).filter(n -> !n.goesOn()).isPresent();
        var next = runs.night(siteId, hours, done ? morning.plusDays(1) : morning, zone);
        var from = next.whole().from().isAfter(now) ? next.whole().from() : now;
        return new Nights(
                watch,
                hours,
                next,
                next.lay(runs.works(siteId), from),
                runs.hints(siteId),
                watch.isEmpty() ? List.of() : runs.missed(now).getOrDefault(siteId, List.of()),
                runs.setBack(siteId, now),
                runs.progress(siteId),
                nights.lately(siteId));
    }

    /** Looks at a site every night from now on, in these hours of its own clock. */
    @Transactional
    public void watch(long siteId, LocalTime from, LocalTime until, String by) {
        sites.site(siteId);
        var hours = hours(from, until);
        var before = store.find(siteId);
        store.put(siteId, hours.from(), hours.until(), clock.instant(), by);
        var entry = Log.entry(by, "looks every night").at(siteId).after(Map.of("from", from, "until", until));
        log.write(before.map(b -> entry.before(Map.of("from", b.fromTime(), "until", b.untilTime())))
                .orElse(entry));
    }

    private static WatchHours hours(LocalTime from, LocalTime until) {
        try {
            return new WatchHours(from, until);
        } catch (ReadingException e) {
            throw Problem.field("until", "no-night", e.getMessage());
        }
    }

    @Transactional
    public void end(long siteId, String by) {
        if (store.end(siteId) == 0) throw Problem.notFound("This site is not looked at every night.");
        log.write(Log.entry(by, "looks no longer every night").at(siteId));
    }

    /** Makes the same looks right now. */
    public void now(long siteId, String by) {
        sites.site(siteId);
        if (!runs.now(siteId, by))
            throw Problem.of(HttpStatus.CONFLICT, "looks-running", "The looks of this site go on just now.");
    }

    /** Whether the looks of a site go on just now. */
    public boolean goOn(long siteId) {
        return runs.progress(siteId).isPresent();
    }

    /** One night with all it tells. */
    record Report(NightRow night, List<LineRow> lines, int more, List<MorningText.Left> left) {}

    /** So many lines of one night are shown. */
    private static final int MOST = 500;

    Morning.Outcome outcome(NightRow night) {
        return runs.outcome(night);
    }

    Report report(long id) {
        var night = night(id);
        var lines = nights.lines(id);
        int shown = Math.min(lines.size(), MOST);
        return new Report(night, lines.subList(0, shown), lines.size() - shown, NightRuns.left(nights.looks(id)));
    }

    private NightRow night(long id) {
        return nights.find(id).orElseThrow(() -> Problem.notFound("There is no such night."));
    }

    /** Somebody has read what it tells. */
    void read(long id) {
        night(id);
        nights.read(id, clock.instant());
    }
}
