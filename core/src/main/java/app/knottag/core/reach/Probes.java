package app.knottag.core.reach;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Ipv4Prefix;
import app.knottag.core.kind.Protocol;
import java.util.List;
import java.util.Optional;

/** What a vantage can do on the network. Every call ends by itself within a few seconds. */
public interface Probes {

    /** Returns the addresses of the machine that makes these probes. */
    List<Ipv4Address> own();

    /** Sends an echo request and returns whether the address answered. */
    boolean answers(Ipv4Address address);

    /** Whether somebody is at an address, asked lightly, since whole segments are asked so. */
    boolean there(Ipv4Address address);

    /** Returns what this machine cannot do and what to do about it, or empty. */
    String lacks();

    /** Returns the neighbour table as it stands now; empty when there is none to look at. */
    List<Neighbour> neighbours();

    /** Opens and closes a TCP connection. */
    Connection connect(Ipv4Address address, int port);

    /** Sends one line over TCP and returns the first line of the answer, without its end, or empty when none came. */
    Optional<String> ask(Ipv4Address address, int port, String line);

    /** Talks with a service as far as it goes without signing in, and tells what was heard. */
    Heard talk(Call call);

    /** How an attempt to connect ended. */
    enum Connection {
        OPEN,
        REFUSED,
        SILENT,
        /** There is no way there, as this machine or a router on the way says. */
        UNREACHABLE
    }

    /**
     * Whom to talk with.
     *
     * @param host an address, or a name to be looked up
     * @param ask path of a page, or empty
     * @param ground the site's segments; nothing else that is private may be asked
     */
    record Call(Protocol protocol, String host, int port, String ask, List<Ipv4Prefix> ground) {}
}
