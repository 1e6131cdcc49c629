package app.knottag.core.gear;

import app.knottag.core.gear.GearReading.Port;
import app.knottag.core.hardware.Mac;
import java.util.List;
import java.util.Optional;

/**
 * One port, as the gear tells of it and as it is on record.
 *
 * @param label as on record, or as the gear names it where which is which is not known
 * @param number on record, or 0
 * @param read what the gear tells; empty when it tells nothing of this port
 * @param through whether more hangs behind it than at it, as behind another switch
 * @param right whether everybody who is on record there was heard there
 */
public record PortLine(
        String label,
        int number,
        Optional<Port> read,
        boolean through,
        boolean right,
        List<Who> who,
        List<Remark> remarks) {

    /** @param endpoint number of the endpoint, or 0 for a MAC that is on no record */
    public record Who(long endpoint, String name, Mac mac) {}

    /**
     * What there is to say of a port.
     *
     * @param wrong whether somebody must do something about it
     * @param act the one act that helps, or empty
     */
    public record Remark(boolean wrong, String says, String act) {}

    /** Whether anything here is wrong. */
    public boolean wrong() {
        return remarks.stream().anyMatch(Remark::wrong);
    }
}
