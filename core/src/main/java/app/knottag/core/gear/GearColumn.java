package app.knottag.core.gear;

import java.util.Arrays;
import java.util.List;

/** The columns of gear's tables that are read; nothing is ever set. */
public enum GearColumn {
    /** RFC 3418. */
    NAME("1.3.6.1.2.1.1.5"),
    UP_TIME("1.3.6.1.2.1.1.3"),
    /** RFC 2863, by number of the interface. */
    DESCRIPTION("1.3.6.1.2.1.2.2.1.2"),
    TYPE("1.3.6.1.2.1.2.2.1.3"),
    SPEED("1.3.6.1.2.1.2.2.1.5"),
    SWITCHED("1.3.6.1.2.1.2.2.1.7"),
    LINK("1.3.6.1.2.1.2.2.1.8"),
    PACKETS("1.3.6.1.2.1.2.2.1.11"),
    ERRORS("1.3.6.1.2.1.2.2.1.14"),
    SHORT_NAME("1.3.6.1.2.1.31.1.1.1.1"),
    FAST_SPEED("1.3.6.1.2.1.31.1.1.1.15"),
    /** RFC 3635. */
    DUPLEX("1.3.6.1.2.1.10.7.2.1.19"),
    /** RFC 4293: the old neighbour table, by interface and address. */
    OLD_NEIGHBOUR("1.3.6.1.2.1.4.22.1.2"),
    OLD_NEIGHBOUR_TYPE("1.3.6.1.2.1.4.22.1.4"),
    /** RFC 4293: the neighbour table of both families, by interface, family, length and address. */
    NEIGHBOUR("1.3.6.1.2.1.4.35.1.4"),
    NEIGHBOUR_STATE("1.3.6.1.2.1.4.35.1.7"),
    /** RFC 4188: the interface of each port of the bridge. */
    BRIDGE_PORT("1.3.6.1.2.1.17.1.4.1.2"),
    /** RFC 4188: the port of each MAC. */
    FORWARDING("1.3.6.1.2.1.17.4.3.1.2"),
    FORWARDING_STATUS("1.3.6.1.2.1.17.4.3.1.3"),
    /** RFC 4363: the port of each MAC, by filtering database. */
    VLAN_FORWARDING("1.3.6.1.2.1.17.7.1.2.2.1.2"),
    VLAN_FORWARDING_STATUS("1.3.6.1.2.1.17.7.1.2.2.1.3"),
    /** IEEE 802.1AB: names of its own ports, and of who is at the other end. */
    LLDP_OWN_PORT("1.0.8802.1.1.2.1.3.7.1.3"),
    LLDP_OWN_DESCRIPTION("1.0.8802.1.1.2.1.3.7.1.4"),
    LLDP_OTHER_PORT("1.0.8802.1.1.2.1.4.1.1.8"),
    LLDP_OTHER_NAME("1.0.8802.1.1.2.1.4.1.1.9"),
    /** RFC 3621, by group and port. */
    POWER("1.3.6.1.2.1.105.1.1.1.6");

    private final List<Integer> oid;

    GearColumn(String oid) {
        this.oid = Arrays.stream(oid.split("\\.")).map(Integer::valueOf).toList();
    }

    /** Returns the object identifier under which the column is, figure by figure. */
    public List<Integer> oid() {
        return oid;
    }
}
