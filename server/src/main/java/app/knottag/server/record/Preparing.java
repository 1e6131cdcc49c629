package app.knottag.server.record;

import app.knottag.core.register.LeadTimes;
import java.time.LocalDate;
import java.util.List;

/** Whoever keeps what must be ordered or asked for before somebody goes to a site. */
public interface Preparing {

    /** Puts on the list what is not there yet, in the transaction that plans the visit. */
    void prepare(long siteId, LocalDate on, List<LeadTimes.Item> needed, String by);
}
