package app.knottag.server.visit;

import app.knottag.server.record.Appointments;
import app.knottag.server.visit.VisitStore.VisitRow;
import java.util.List;
import org.springframework.stereotype.Component;

/** Visits to come as calendars show them. */
@Component
class VisitDates implements Appointments {

    private final VisitStore store;
    private final Visits visits;

    VisitDates(VisitStore store, Visits visits) {
        this.store = store;
        this.visits = visits;
    }

    @Override
    public List<Appointment> of(long siteId) {
        return store.openOf(siteId).stream().map(this::appointment).toList();
    }

    private Appointment appointment(VisitRow row) {
        return new Appointment(
                "visit-" + row.id(),
                row.begins(),
                visits.end(row),
                false,
                row.name(),
                String.join(", ", visits.brief(row).names())
                        + row.latest().map(d -> ". It must be done in time.").orElse("."));
    }
}
