package app.knottag.core.series;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Ipv4Prefix;
import app.knottag.core.address.Segment;
import app.knottag.core.reading.ReadingException;
import java.util.Optional;
import java.util.OptionalInt;

/**
 * A numbered run: member n has the figure base + n, so that it can be worked out in the head. Numbers begin at 1.
 *
 * @param counts what the figure is
 * @param base added to a number to get the figure, 0..65_534
 * @param portBase added to a number to get the TCP port of a member of a run of hosts, or 0 when it has none
 * @param last last number that is meant, 1..9_999, or 0 when the run goes as far as it fits
 */
public record Series(String name, Counts counts, int base, int portBase, int last) {

    private static final int LAST_PORT = 65_535;
    private static final int LAST_NUMBER = 9_999;

    /** What the figures of a run are. */
    public enum Counts {
        /** Host numbers of a segment. */
        HOST,
        /** Listening ports on one address that several stations share, such as a terminal server's. */
        LISTENING_PORT,
        /** Numbers in a program, such as devices of the clock software, or operators. */
        NUMBER,
        /** Ports of one piece of gear, such as the LAN ports of a router. */
        GEAR_PORT
    }

    public Series {
        if (base < 0 || base > LAST_PORT - 1)
            throw new ReadingException("the base of a series must be 0..65534, was " + base);
        if (portBase < 0 || portBase >= LAST_PORT)
            throw new ReadingException("port base must be 0..65534, was " + portBase);
        if (last < 0 || last > LAST_NUMBER) throw new ReadingException("the last number must be 0..9999, was " + last);
    }

    /** Makes a run of hosts that goes as far as it fits. */
    public Series(String name, int base, int portBase) {
        this(name, Counts.HOST, base, portBase, 0);
    }

    /** Returns the figure of member n. */
    public int figure(int number) {
        return base + number;
    }

    /** Returns the address of member n, or empty when it would leave the usable range or the run counts no hosts. */
    public Optional<Ipv4Address> address(Ipv4Prefix prefix, int number) {
        if (counts != Counts.HOST) return Optional.empty();
        long host = prefix.network().number() + figure(number);
        return host <= prefix.highestUsable().number() ? Optional.of(Ipv4Address.ofNumber(host)) : Optional.empty();
    }

    /** Returns the port of member n, 1..65535, or empty when members have none or it would be too high. */
    public OptionalInt port(int number) {
        int port = counts == Counts.LISTENING_PORT ? figure(number) : portBase == 0 ? 0 : portBase + number;
        return port == 0 || port > LAST_PORT ? OptionalInt.empty() : OptionalInt.of(port);
    }

    /** Returns the last number, counted from 1 without a gap, whose address can be fixed; 0 when not even the first. */
    public int lastFitting(Segment segment) {
        int number = 0;
        while (number < (last == 0 ? LAST_NUMBER : last)
                && address(segment.prefix(), number + 1)
                        .filter(segment::fixable)
                        .isPresent()) number++;
        return number;
    }

    /** Returns the number whose figure this is, or empty when the run does not reach it. */
    public OptionalInt numberOf(long figure) {
        long number = figure - base;
        return number < 1 || number > (last == 0 ? LAST_NUMBER : last)
                ? OptionalInt.empty()
                : OptionalInt.of((int) number);
    }
}
