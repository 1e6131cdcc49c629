package app.knottag.server.register;

import app.knottag.core.register.Reminders.Reminder;
import app.knottag.core.register.Reminders.What;
import app.knottag.core.runbook.Stage.Station;
import app.knottag.core.today.Notice;
import app.knottag.server.record.Noticing;
import java.time.Instant;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.OptionalLong;
import java.util.Set;
import org.springframework.stereotype.Component;

/** Tells what was to be done about registrations and orders by today, at the sites where a date has come. */
@Component
class DueNotices implements Noticing {

    /** What is merely not registered yet stands with the work of its site. */
    private static final Set<What> TOLD = EnumSet.complementOf(EnumSet.of(What.REGISTER));

    /** What lets a device in no longer. */
    private static final Set<What> CUT_OFF = EnumSet.of(What.REGISTER_AGAIN, What.CORRECT);

    private final DueStore store;
    private final Housekeeping housekeeping;
    private final RegistryLines shown;

    DueNotices(DueStore store, Housekeeping housekeeping, RegistryLines shown) {
        this.store = store;
        this.housekeeping = housekeeping;
        this.shown = shown;
    }

    @Override
    public List<Notice> notices(Instant now) {
        var all = new ArrayList<Notice>();
        for (var row : store.sites()) {
            var where = new Notice.Site(row.id(), row.name());
            var site = housekeeping.site(row.id());
            var zone = shown.clock(row.id()).zone();
            housekeeping.reminders(site).stream()
                    .filter(r -> TOLD.contains(r.what()) && r.due(now, zone))
                    .map(r -> notice(where, r))
                    .forEach(all::add);
            for (var o : housekeeping.leadTimes(site).items())
                if (o.late() && !o.item().done())
                    all.add(new Notice(
                            Notice.What.DUE,
                            where,
                            Station.REGISTER,
                            OptionalLong.empty(),
                            o.by().orElseThrow().atStartOfDay(zone).toInstant(),
                            o.item().who(),
                            "Order " + o.item().name(),
                            "It takes " + o.item().days() + " days, and the visit does not wait."));
        }
        return all;
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
