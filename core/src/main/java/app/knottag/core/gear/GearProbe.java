package app.knottag.core.gear;

import app.knottag.core.address.Ipv4Address;

/** Reads gear where this machine stands; ends by itself within a minute. */
@FunctionalInterface
public interface GearProbe {

    /**
     * Reads every column.
     *
     * @throws GearSilent if nothing was read at all
     */
    Walked walk(Ipv4Address address, GearAccess access);

    /** Nothing was read, with the reason and the way out in a sentence. */
    final class GearSilent extends RuntimeException {

        private static final long serialVersionUID = 1L;

        public GearSilent(String message) {
            super(message);
        }
    }
}
