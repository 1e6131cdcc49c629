package app.knottag.core.reach;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Ipv4Prefix;
import java.util.List;
import java.util.Optional;

/** What a vantage can do on the network. Every call ends by itself within a few seconds. */
public interface Probes {

    /** Returns from where these probes are made, in words for a person. */
    String vantage();

    /** Whether these probes are made from inside a subnet, so that its neighbours are seen. */
    boolean standsIn(Ipv4Prefix prefix);

    /** Sends an echo request and returns whether the address answered. */
    boolean answers(Ipv4Address address);

    /** Returns the neighbour table as it stands now; empty when there is none to look at. */
    List<Neighbour> neighbours();

    /** Opens and closes a TCP connection. */
    Connection connect(Ipv4Address address, int port);

    /** Sends one line over TCP and returns the first line of the answer, without its end, or empty when none came. */
    Optional<String> ask(Ipv4Address address, int port, String line);

    /** How an attempt to connect ended. */
    enum Connection {
        OPEN,
        REFUSED,
        SILENT
    }
}
