package app.knottag.core.intake;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.hardware.Mac;
import java.time.Instant;
import java.util.List;
import java.util.Optional;

/**
 * One line that was read, as far as it says something.
 *
 * @param line line in the text, counted from 1
 * @param kind id of a kind, or empty when the text names none
 * @param seen whether the text says for certain that the device was there, so that it speaks for an address being taken
 */
public record Draft(
        long line,
        Optional<Ipv4Address> address,
        Optional<Mac> mac,
        String name,
        String kind,
        Optional<Integer> number,
        String serial,
        String place,
        String outlet,
        String port,
        Optional<Instant> leaseEnds,
        boolean seen) {

    /** Makes a draft of a line of a list, which has no more than these. */
    static Draft of(
            long line,
            Optional<Ipv4Address> address,
            Optional<Mac> mac,
            String name,
            Optional<Instant> leaseEnds,
            boolean seen) {
        return new Draft(line, address, mac, name, "", Optional.empty(), "", "", "", "", leaseEnds, seen);
    }

    /** Something about one line: why it is left out, or what is wrong with it; the column may be empty. */
    public record Remark(long line, String column, String message) {}

    /**
     * What a reader gives.
     *
     * @param form what the text was recognised as, or empty when it is a sheet or nothing known
     * @param leftOut lines that say nothing to take over, each with the reason
     * @param problems what must be put right first; the drafts are only good when there are none
     */
    public record Parsed(Optional<Form> form, List<Draft> drafts, List<Remark> leftOut, List<Remark> problems) {
        public Parsed {
            drafts = List.copyOf(drafts);
            leftOut = List.copyOf(leftOut);
            problems = List.copyOf(problems);
        }

        static Parsed refused(String message) {
            return new Parsed(Optional.empty(), List.of(), List.of(), List.of(new Remark(1, "", message)));
        }
    }
}
