package app.knottag.core.reach;

import app.knottag.core.hardware.Mac;
import java.util.Set;

/**
 * Who answered when the wire was asked whose an address is (RFC 826), every answerer counted.
 *
 * @param macs who answered in this run; two when two devices have the address
 */
public record Whois(Set<Mac> macs, How how) {

    public Whois {
        macs = Set.copyOf(macs);
    }

    /** How it was asked. */
    public enum How {
        /** By a question of its own, repeated: every answerer is seen. */
        ASKED,
        /** Through the machine's own table, which keeps one answerer only. */
        TABLE,
        /** The address is not on a link of this machine, or its link is down. */
        NOT_FROM_HERE
    }

    /** Nobody can be asked from here. */
    public static final Whois NOT_FROM_HERE = new Whois(Set.of(), How.NOT_FROM_HERE);
}
