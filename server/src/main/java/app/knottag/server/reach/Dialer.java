package app.knottag.server.reach;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Ipv4Prefix;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.util.List;

/** Where an address, a port and a name really lead; in the demo to the stand-ins on loopback. */
interface Dialer {

    InetSocketAddress dialled(Ipv4Address address, int port) throws IOException;

    /** Returns the addresses of a name, none when nobody knows it. */
    List<Ipv4Address> lookup(String name, List<Ipv4Prefix> ground);

    static Ipv4Address plain(InetAddress a) {
        return Ipv4Address.parse(a.getHostAddress());
    }
}
