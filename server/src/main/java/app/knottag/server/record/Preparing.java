package app.knottag.server.record;

import app.knottag.core.register.LeadTimes;
import java.time.LocalDate;
import java.util.List;

/** Whoever keeps what must be ordered or asked for before somebody goes to a site. */
public interface Preparing {

    /** Puts on the list what is not there yet, in the transaction that plans the visit. */
    void prepare(long siteId, LocalDate on, List<LeadTimes.Item> needed, String by);

    /** Whatever stands on the list under one name goes by another from now on. */
    void rename(long siteId, String was, String name, String by);

    /** Takes off the list what nobody needs any more, unless somebody has seen to it already. */
    void withdraw(long siteId, String name, String by);
}
