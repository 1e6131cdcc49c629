package app.knottag.server.record;

import java.time.Instant;
import java.util.Set;

/** Whoever knows what becomes another by the clock alone, though nobody changes anything: a wait that is over. */
public interface ByClock {

    /** How an endpoint stands in this respect just now. */
    record Standing(long siteId, long endpointId, String how) {}

    /** Returns how everybody stands; whoever is in it and was not before, or the other way about, has become another. */
    Set<Standing> standing(Instant now);
}
