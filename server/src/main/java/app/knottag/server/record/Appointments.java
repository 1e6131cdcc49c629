package app.knottag.server.record;

import java.time.Instant;
import java.util.List;

/** Whoever knows when people are expected at a site. */
public interface Appointments {

    /** @param key stable from one time to the next, for calendars */
    record Appointment(String key, Instant from, Instant until, String title, String detail) {}

    List<Appointment> of(long siteId);
}
