package app.knottag.core.reach;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Ipv4Prefix;
import app.knottag.core.intake.Recognised;
import app.knottag.core.kind.Protocol;
import java.util.List;
import java.util.Optional;

/** What a machine can ask the network from where it stands. Every question ends by itself within a few seconds. */
public interface Probes {

    /** Returns where this machine stands just now; asked anew each time, since a cable may be pulled in the middle. */
    Here here();

    /** Sends a few echoes and returns what came back, and from whom. */
    Recognised.Echo echo(Ipv4Address address);

    /** Asks the wire whose an address is, several times, and counts who answers. */
    Whois whois(Ipv4Address address);

    /** Returns the neighbour table as it stands now; empty when there is none to look at. */
    List<Neighbour> neighbours();

    /** Opens and closes a TCP connection. */
    Connection connect(Ipv4Address address, int port);

    /** Sends one line over TCP and returns the first line of the answer, without its end, or empty when none came. */
    Optional<String> ask(Ipv4Address address, int port, String line);

    /** Talks with a service as far as it goes without signing in, and tells what was heard. */
    ServiceReply talk(Call call);

    /** Asks many addresses once, as fast as this machine and the network can carry. */
    Swept sweep(List<Ipv4Address> hosts, Swept.Listener listener);

    /** How an attempt to connect ended. */
    enum Connection {
        OPEN,
        REFUSED,
        SILENT,
        /** There is no way there, as this machine, a router on the way, or the device itself says. */
        UNREACHABLE
    }

    /**
     * Whom to talk with.
     *
     * @param host an address, or a name to be looked up
     * @param ask path of a page, or empty
     * @param ground the site's segments; nothing else that is private may be asked
     * @param resolvers the site's own resolvers, which are asked for names
     */
    record Call(
            Protocol protocol,
            String host,
            int port,
            String ask,
            List<Ipv4Prefix> ground,
            List<Ipv4Address> resolvers) {}
}
