package app.knottag.server.register;

import app.knottag.core.register.LeadTimes;
import app.knottag.server.log.Log;
import app.knottag.server.record.Preparing;
import app.knottag.server.register.PrerequisiteStore.PrerequisiteRow;
import app.knottag.server.web.FormReader;
import app.knottag.server.web.Problem;
import java.time.Clock;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;

/** Keeps what must be ordered or asked for before the next visit. */
@Service
public class Orders implements Preparing {

    private final PrerequisiteStore store;
    private final Housekeeping housekeeping;
    private final Log log;
    private final Clock clock;

    Orders(PrerequisiteStore store, Housekeeping housekeeping, Log log, Clock clock) {
        this.store = store;
        this.housekeeping = housekeeping;
        this.log = log;
        this.clock = clock;
    }

    @Transactional
    public long add(long siteId, String name, String who, int days, String after, String by) {
        if (days < 0 || days > 365) throw Problem.field("days", "out-of-range", "It takes 0 to 365 days.");
        var row = new PrerequisiteRow(
                0,
                siteId,
                FormReader.words("name", name, true),
                FormReader.words("who", who, false),
                days,
                FormReader.words("after", after, false),
                null);
        try {
            long id = store.add(row);
            // What waits in a circle or for nothing is refused here, and so never kept.
            housekeeping.leadTimes(siteId);
            log.write(Log.entry(by, "to be ordered").at(siteId).after(row));
            return id;
        } catch (DuplicateKeyException e) {
            throw Problem.conflict("name", "name-taken", "That stands in the list already.", Map.of());
        }
    }

    @Transactional
    public void done(long siteId, long id, boolean done, String by) {
        if (store.done(siteId, id, done ? clock.instant() : null) == 0) return;
        log.write(Log.entry(by, done ? "it is there" : "it is not there after all")
                .at(siteId)
                .after(store.of(siteId).stream()
                        .filter(p -> p.id() == id)
                        .findFirst()
                        .orElse(null)));
    }

    @Transactional
    public void visit(long siteId, LocalDate on, int slack, String by) {
        if (slack < 0 || slack > 60) throw Problem.field("slack", "out-of-range", "0 to 60 days can be kept free.");
        store.setVisit(siteId, on, slack);
        log.write(Log.entry(by, "visit planned")
                .at(siteId)
                .after(Map.of(
                        "on", Optional.ofNullable(on).map(Object::toString).orElse("none"))));
    }

    /** What stands on the list already stays as it is; the visit is the soonest that is planned. */
    @Override
    @Transactional(propagation = Propagation.MANDATORY)
    public void prepare(long siteId, LocalDate on, List<LeadTimes.Item> needed, String by) {
        var there = store.of(siteId).stream()
                .map(p -> p.name().toLowerCase(Locale.ROOT))
                .collect(Collectors.toSet());
        for (var item : needed) {
            if (there.contains(item.name().toLowerCase(Locale.ROOT))) continue;
            var row = new PrerequisiteRow(0, siteId, item.name(), item.who(), item.days(), item.after(), null);
            store.add(row);
            log.write(Log.entry(by, "to be ordered").at(siteId).after(row));
        }
        var was = store.visit(siteId);
        var today = LocalDate.ofInstant(clock.instant(), ZoneOffset.UTC);
        if (Optional.ofNullable(was.visitOn())
                .filter(d -> !d.isAfter(on) && !d.isBefore(today))
                .isEmpty()) store.setVisit(siteId, on, was.visitSlack());
    }

    @Override
    @Transactional(propagation = Propagation.MANDATORY)
    public void rename(long siteId, String was, String name, String by) {
        if (was.equals(name)) return;
        if (store.rename(siteId, was, name) == 0) {
            withdraw(siteId, was, by);
            return;
        }
        store.follow(siteId, was, name);
        log.write(Log.entry(by, "order renamed")
                .at(siteId)
                .before(Map.of("name", was))
                .after(Map.of("name", name)));
    }

    @Override
    @Transactional(propagation = Propagation.MANDATORY)
    public void withdraw(long siteId, String name, String by) {
        if (store.withdraw(siteId, name) == 0) return;
        store.follow(siteId, name, "");
        log.write(Log.entry(by, "no longer to be ordered").at(siteId).before(Map.of("name", name)));
    }

    List<PrerequisiteRow> of(long siteId) {
        return store.of(siteId);
    }

    PrerequisiteStore.VisitRow visit(long siteId) {
        return store.visit(siteId);
    }
}
