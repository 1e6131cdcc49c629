package app.knottag.core.reach;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.hardware.Mac;
import java.util.Map;
import java.util.Set;

/**
 * What came of asking many addresses once.
 *
 * @param there who answered, each with the MACs that were seen for it: none from another network, two when two have it
 * @param overSix MACs that answered over IPv6, whoever they are
 * @param how by which question, in words
 */
public record Swept(Map<Ipv4Address, Set<Mac>> there, Set<Mac> overSix, String how) {

    public Swept {
        there = Map.copyOf(there);
        overSix = Set.copyOf(overSix);
    }

    /** For whoever only wants to know what came of it. */
    public static final Listener QUIETLY = new Listener() {
        @Override
        public void asked(int count) {}

        @Override
        public void answered(Ipv4Address address) {}

        @Override
        public boolean stop() {
            return false;
        }
    };

    /** Told while a sweep runs, from any thread. */
    public interface Listener {
        /** Tells how many were asked to the end. */
        void asked(int count);

        /** Tells that somebody answered. */
        void answered(Ipv4Address address);

        /** Whether to ask no more. */
        boolean stop();
    }
}
