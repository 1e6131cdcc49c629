package app.knottag.core.series;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Ipv4Prefix;
import app.knottag.core.address.Segment;
import java.util.Optional;
import java.util.OptionalInt;

/**
 * A numbered run of endpoints: member n has host number hostBase + n and listens on portBase + n. Numbers begin at 1.
 *
 * @param hostBase added to a number to get the host number in the segment, 0..65_534
 * @param portBase added to a number to get the TCP port, or 0 when members have no numbered port
 */
public record Series(String name, int hostBase, int portBase) {

    private static final int LAST_PORT = 65_535;

    public Series {
        if (hostBase < 0 || hostBase > 65_534)
            throw new IllegalArgumentException("host base must be 0..65534, was " + hostBase);
        if (portBase < 0 || portBase >= LAST_PORT)
            throw new IllegalArgumentException("port base must be 0..65534, was " + portBase);
    }

    /** Returns the address of member n, or empty when it would leave the usable range of the prefix. */
    public Optional<Ipv4Address> address(Ipv4Prefix prefix, int number) {
        long host = prefix.network().number() + hostBase + number;
        return host <= prefix.highestUsable().number() ? Optional.of(Ipv4Address.ofNumber(host)) : Optional.empty();
    }

    /** Returns the port of member n, 1..65535, or empty when members have none or it would be too high. */
    public OptionalInt port(int number) {
        return portBase == 0 || portBase + number > LAST_PORT ? OptionalInt.empty() : OptionalInt.of(portBase + number);
    }

    /** Returns the last number, counted from 1 without a gap, whose address can be fixed; 0 when not even the first. */
    public int lastFitting(Segment segment) {
        int number = 0;
        while (address(segment.prefix(), number + 1).filter(segment::fixable).isPresent()) number++;
        return number;
    }
}
