package app.knottag.core.hardware;

import app.knottag.core.reading.ReadingException;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;

/** A router, switch or access point with its ports. */
public record Gear(long id, String name, Type type, List<Port> ports) {

    public Gear {
        ports = ports.stream().sorted(Comparator.comparingInt(Port::number)).toList();
        if (ports.stream().map(Port::number).distinct().count() != ports.size())
            throw new ReadingException("two ports of " + name + " have the same number");
    }

    /** What a piece of gear is. */
    public enum Type {
        ROUTER,
        SWITCH,
        ACCESS_POINT,
        MODEM
    }

    /** What a port is for: LAN for endpoints, WAN and UPLINK only upwards, OFF for nothing. */
    public enum Role {
        LAN,
        WAN,
        UPLINK,
        OFF
    }

    /**
     * One port.
     *
     * @param number as printed on the gear, 1..999
     * @param segmentId segment that it is a member of, or empty when that is not known
     * @param poe whether it feeds power (IEEE 802.3af and later)
     */
    public record Port(long id, int number, Role role, Optional<Long> segmentId, boolean poe) {
        public Port {
            if (number < 1 || number > 999) throw new ReadingException("a port number must be 1..999, was " + number);
        }
    }

    /** Returns what the label of a port says, such as “Shop switch 11”. */
    public String label(Port port) {
        return name + " " + port.number();
    }

    /**
     * Returns the port of member k of a run of ports: the k-th LAN port, so that cables lie in order; empty when there
     * are not so many.
     *
     * @param k counted from 1
     */
    public Optional<Port> portOf(int k) {
        var lan = ports.stream().filter(p -> p.role() == Role.LAN).toList();
        return k >= 1 && k <= lan.size() ? Optional.of(lan.get(k - 1)) : Optional.empty();
    }
}
