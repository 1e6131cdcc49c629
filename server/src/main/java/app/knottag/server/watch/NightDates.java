package app.knottag.server.watch;

import app.knottag.core.today.Notice;
import app.knottag.server.record.Appointments;
import app.knottag.server.record.Noticing;
import app.knottag.server.watch.NightStore.NightRow;
import app.knottag.server.web.Scope;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;

/** Tells in the morning what the night found, and of nights in which nobody looked. */
@Component
class NightDates implements Noticing, Appointments {

    /** A report that nobody read for so long is overtaken by others. */
    private static final Duration TOLD_FOR = Duration.ofDays(3);

    private static final Duration AS_EVENT = Duration.ofMinutes(15);

    private final NightStore store;
    private final WatchStore watches;
    private final NightRuns runs;
    private final Clock clock;

    NightDates(NightStore store, WatchStore watches, NightRuns runs, Clock clock) {
        this.store = store;
        this.watches = watches;
        this.runs = runs;
        this.clock = clock;
    }

    @Override
    public List<Notice> notices(Instant now, Scope scope) {
        var all = new ArrayList<Notice>();
        for (var n : store.unread(now.minus(TOLD_FOR)))
            if (runs.outcome(n).tells())
                all.add(Notice.night(
                        site(n), n.id(), n.endedAt(), runs.outcome(n).words()));
        var watched = watches.all();
        if (watched.isEmpty()) return all;
        var missed = lately(runs.missed(now), now);
        for (var w : watched)
            if (missed.containsKey(w.siteId()))
                all.add(Notice.nightsMissed(
                        new Notice.Site(w.siteId(), w.site()), missed.get(w.siteId()), w.dates(), now));
        return all;
    }

    /** Older ones are on the page; nobody can make up for them. */
    private static Map<Long, List<LocalDate>> lately(Map<Long, List<LocalDate>> missed, Instant now) {
        var since = LocalDate.ofInstant(now.minus(TOLD_FOR), ZoneOffset.UTC);
        return missed.entrySet().stream()
                .filter(e -> e.getValue().stream().anyMatch(d -> d.isAfter(since)))
                .collect(Collectors.toMap(Map.Entry::getKey, Map.Entry::getValue));
    }

    private static Notice.Site site(NightRow n) {
        return new Notice.Site(n.siteId(), n.site());
    }

    @Override
    public List<Appointment> of(long siteId) {
        var now = clock.instant();
        return store.lately(siteId).stream()
                .filter(n -> !n.goesOn() && n.endedAt().isAfter(now.minus(Duration.ofDays(14))))
                .filter(n -> runs.outcome(n).tells())
                .map(n -> new Appointment(
                        "night-" + n.id(),
                        n.endedAt(),
                        n.endedAt().plus(AS_EVENT),
                        false,
                        "What the night found",
                        runs.outcome(n).words()))
                .toList();
    }
}
