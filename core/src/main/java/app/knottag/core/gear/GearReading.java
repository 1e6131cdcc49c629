package app.knottag.core.gear;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.hardware.Mac;
import java.util.List;
import java.util.Optional;

/**
 * What a piece of gear told of itself at one moment.
 *
 * @param name as it calls itself, or empty
 * @param upSeconds how long its agent has run, if it says so; counters count from there at most
 * @param ports in its own order
 * @param neighbours who talked with it lately
 * @param remarks what it did not tell, or not to the end
 */
public record GearReading(
        String name, Optional<Long> upSeconds, List<Port> ports, List<Neighbour> neighbours, List<String> remarks) {

    /** Whether a port carries anything. */
    public enum Link {
        UP,
        DOWN,
        /** Somebody has switched it off in its settings. */
        SWITCHED_OFF,
        UNKNOWN
    }

    /** Whether both ends may talk at once. */
    public enum Duplex {
        HALF,
        FULL,
        UNKNOWN
    }

    /** How a port stands that feeds power (RFC 3621). */
    public enum Power {
        OFF,
        SEARCHING,
        FEEDING,
        FAULT
    }

    /**
     * One socket of the gear.
     *
     * @param label as the gear names it
     * @param megabits speed of its link in Mbit/s, 0 when it has none or does not say
     * @param errors packets with errors that came in since its agent started; the counter starts anew after 4 294 967 295
     * @param packets packets for one receiver that came in since then
     * @param other who it says is at the other end, or empty
     * @param macs what it has learned there
     */
    public record Port(
            String label,
            Link link,
            long megabits,
            Duplex duplex,
            long errors,
            long packets,
            Optional<Power> power,
            String other,
            List<Mac> macs) {}

    /** Who talked with the gear at an address. */
    public record Neighbour(Ipv4Address address, Mac mac) {}
}
