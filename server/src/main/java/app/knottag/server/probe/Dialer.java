package app.knottag.server.probe;

import app.knottag.core.address.Ipv4Address;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.util.List;

/** Where an address, a port and a name really lead; in the demo to the stand-ins on loopback. */
interface Dialer {

    InetSocketAddress dialled(Ipv4Address address, int port) throws IOException;

    /** Returns the addresses of a name as the site's own resolvers tell it, none when nobody knows it. */
    List<Ipv4Address> lookup(String name, List<Ipv4Address> resolvers);

    static Ipv4Address plain(InetAddress a) {
        return Ipv4Address.parse(a.getHostAddress());
    }
}
