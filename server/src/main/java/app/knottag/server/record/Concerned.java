package app.knottag.server.record;

import app.knottag.core.today.Machine;
import java.util.List;

/** Whoever knows how the machine stands that keeps the records. */
public interface Concerned {

    /** Returns what somebody should know of it now, the worst first, by the clock of that machine. */
    List<Machine.Concern> concerns();
}
