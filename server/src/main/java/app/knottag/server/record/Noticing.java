package app.knottag.server.record;

import app.knottag.core.today.Notice;
import app.knottag.server.web.Scope;
import java.time.Instant;
import java.util.List;

/** Whoever knows something that somebody should know today, at whatever site. */
public interface Noticing {

    /**
     * Returns what is known of now; never more than a page of it.
     *
     * @param scope the sites it is for; what is of one that it does not see is left out afterwards
     */
    List<Notice> notices(Instant now, Scope scope);
}
