package app.knottag.server.record;

import java.time.Instant;
import java.util.List;

/** Whoever knows when people are expected at a site, or what must be done there by a day. */
public interface Appointments {

    /**
     * @param key stable from one time to the next, for calendars
     * @param wholeDay whether it is the day that counts, not the hour
     */
    record Appointment(String key, Instant from, Instant until, boolean wholeDay, String title, String detail) {}

    List<Appointment> of(long siteId);
}
