package app.knottag.server.register;

import app.knottag.core.register.Reminders;
import app.knottag.core.register.Reminders.Reminder;
import app.knottag.core.register.Reminders.What;
import app.knottag.core.runbook.Stage.Station;
import app.knottag.core.today.Notice;
import app.knottag.server.record.Noticing;
import app.knottag.server.record.RegistrationStore;
import app.knottag.server.record.RegistryBook;
import app.knottag.server.register.DueStore.DueRow;
import app.knottag.server.register.DueStore.DueSite;
import app.knottag.server.web.Scope;
import java.time.Instant;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.OptionalLong;
import java.util.Set;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;

/** Tells what was to be done about registrations and orders by today, at the sites where a date has come. */
@Component
class DueNotices implements Noticing {

    /** What is merely not registered yet stands with the work of its site. */
    private static final Set<What> TOLD = EnumSet.complementOf(EnumSet.of(What.REGISTER));

    /** What lets a device in no longer. */
    private static final Set<What> CUT_OFF = EnumSet.of(What.REGISTER_AGAIN, What.CORRECT);

    /** So many of a registry are looked at for one reason. */
    private static final int MOST = 13;

    private final DueStore store;
    private final RegistrationStore registrations;
    private final RegistryBook book;
    private final Housekeeping housekeeping;

    DueNotices(DueStore store, RegistrationStore registrations, RegistryBook book, Housekeeping housekeeping) {
        this.store = store;
        this.registrations = registrations;
        this.book = book;
        this.housekeeping = housekeeping;
    }

    @Override
    public List<Notice> notices(Instant now, Scope scope) {
        var sites = store.sites();
        if (sites.isEmpty()) return List.of();
        var due = store.due(sites.stream().map(DueSite::id).toList());
        var more = due.stream()
                .collect(Collectors.groupingBy(d -> Map.entry(d.registryId(), d.why()), Collectors.counting()))
                .entrySet()
                .stream()
                .filter(e -> e.getValue() > MOST)
                .map(e -> e.getKey().getKey())
                .collect(Collectors.toSet());
        var some = due.isEmpty()
                ? Map.<Long, RegistryBook.Site>of()
                : book.some(registrations.some(
                        due.stream().map(DueRow::id).distinct().toList()));
        var all = new ArrayList<Notice>();
        for (var site : sites) {
            if (some.containsKey(site.id())) all.addAll(reminders(site, some.get(site.id()), more, now));
            if (site.orders()) all.addAll(orders(site, now));
        }
        return all;
    }

    private static List<Notice> reminders(DueSite site, RegistryBook.Site some, Set<Long> more, Instant now) {
        var clock = site.clock(now);
        var told = Reminders.of(Housekeeping.subjects(some), List.of(), clock);
        return Reminders.bundled(told, some.registries(), more, clock.zone()).stream()
                .filter(r -> TOLD.contains(r.what()) && r.due(now, clock.zone()))
                .map(r -> notice(new Notice.Site(site.id(), site.name()), r))
                .toList();
    }

    private List<Notice> orders(DueSite site, Instant now) {
        var zone = site.clock(now).zone();
        return housekeeping.late(site.id()).stream()
                .map(o -> new Notice(
                        Notice.What.DUE,
                        new Notice.Site(site.id(), site.name()),
                        Station.REGISTER,
                        OptionalLong.empty(),
                        o.by().orElseThrow().atStartOfDay(zone).toInstant(),
                        o.item().who(),
                        "Order " + o.item().name(),
                        "It takes " + o.item().days() + " days, and the visit does not wait."))
                .toList();
    }

    private static Notice notice(Notice.Site where, Reminder r) {
        return new Notice(
                CUT_OFF.contains(r.what()) ? Notice.What.CUT_OFF : Notice.What.DUE,
                where,
                Station.REGISTER,
                OptionalLong.of(r.registry()),
                r.at(),
                "",
                r.title(),
                r.detail());
    }
}
