package app.knottag.core.intake;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.hardware.Mac;
import java.time.Instant;
import java.util.Optional;

/**
 * One line of a table that a machine printed.
 *
 * @param line line in the text, counted from 1
 * @param name host name, only where the form has one; without its domain
 * @param port port of a switch as printed, or empty
 * @param vlan VLAN id, only where the form says that the figure is one
 * @param leaseEnds when its lease ends; empty when it never does or nothing is said
 * @param sure whether every part was read by the rule of its form
 */
public record Row(
        long line,
        Optional<Ipv4Address> address,
        Optional<Mac> mac,
        String name,
        State state,
        String port,
        Optional<Integer> vlan,
        Optional<Instant> leaseEnds,
        boolean sure) {

    /** What the line says of the device. */
    public enum State {
        /** Seen when the table was made. */
        SEEN,
        /** Still in the table and not asked lately: it may be gone. */
        OLD,
        /** Asked and no answer. */
        SILENT,
        /** Has a lease that holds. */
        LEASED,
        /** Had a lease that is over. */
        ENDED,
        /** Written down by a person, not seen. */
        WRITTEN
    }

    static Row of(long line, Optional<Ipv4Address> address, Optional<Mac> mac, State state) {
        return new Row(line, address, mac, "", state, "", Optional.empty(), Optional.empty(), true);
    }

    Row named(String host) {
        String own = host.replaceFirst("\\..*", "");
        return new Row(line, address, mac, own, state, port, vlan, leaseEnds, sure);
    }

    Row in(State other) {
        return new Row(line, address, mac, name, other, port, vlan, leaseEnds, sure);
    }

    Row at(String where, Optional<Integer> id) {
        return new Row(line, address, mac, name, state, where, id, leaseEnds, sure);
    }

    Row until(Optional<Instant> end) {
        return new Row(line, address, mac, name, state, port, vlan, end, sure);
    }

    Row onLine(long other) {
        return new Row(other, address, mac, name, state, port, vlan, leaseEnds, sure);
    }

    Row unsure() {
        return new Row(line, address, mac, name, state, port, vlan, leaseEnds, false);
    }
}
