package app.knottag.server.record;

import app.knottag.core.today.Notice;
import java.time.Instant;
import java.util.List;

/** Whoever knows something that somebody should know today, at whatever site. */
public interface Noticing {

    /** Returns what is known of now; never more than a page of it. */
    List<Notice> notices(Instant now);
}
