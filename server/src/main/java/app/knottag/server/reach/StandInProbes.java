package app.knottag.server.reach;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Ipv4Prefix;
import app.knottag.core.reach.Neighbour;
import app.knottag.core.reach.SiteModel;
import java.io.IOException;
import java.net.DatagramPacket;
import java.net.DatagramSocket;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.NoRouteToHostException;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.List;
import java.util.stream.Stream;
import org.xbill.DNS.ARecord;
import org.xbill.DNS.DClass;
import org.xbill.DNS.Message;
import org.xbill.DNS.Name;
import org.xbill.DNS.Record;
import org.xbill.DNS.Section;
import org.xbill.DNS.Type;

/**
 * Probes of the demo's stand-ins. They live on 127.A.x.y, where x.y are the last two groups of the planned address;
 * loopback answers every ping by itself, so the echo is asked over UDP (RFC 862).
 */
class StandInProbes extends NetworkProbes {

    private static final int ECHO_PORT = 10_007;
    private static final int ECHO_MILLIS = 700;

    private static final int DNS_PORT = 53;
    private static final int FIRST_FREE_PORT = 1024;
    private static final int HIGHER = 10_000;
    private static final Ipv4Address ELSEWHERE = Ipv4Address.parse("192.0.2.44");

    private final int secondGroup;
    private final StandIns standIns;

    StandInProbes(StandIns standIns) {
        this.secondGroup = standIns.secondGroup();
        this.standIns = standIns;
    }

    @Override
    InetAddress dialled(Ipv4Address address) throws IOException {
        if (away(address)) throw new NoRouteToHostException(address + " is in another network");
        return InetAddress.getByAddress(
                new byte[] {127, (byte) secondGroup, (byte) address.group(2), (byte) address.group(3)});
    }

    /** Somebody may have put this machine into another network on the bench. */
    private List<String> away() {
        return standIns.get("/away").lines().toList();
    }

    private boolean away(Ipv4Address address) {
        return away().contains(SiteModel.network(address));
    }

    /** Ports under 1024 are for the machine's own services, so the stand-ins have theirs ten thousand higher. */
    @Override
    public InetSocketAddress dialled(Ipv4Address address, int port) throws IOException {
        return new InetSocketAddress(dialled(address), port < FIRST_FREE_PORT ? port + HIGHER : port);
    }

    /** Asks the site's own resolver, which is a stand-in as well. */
    @Override
    public List<Ipv4Address> lookup(String name, List<Ipv4Prefix> ground) {
        for (var segment : ground)
            try {
                var resolver = NameTalk.resolver(dialled(segment.lowestUsable(), DNS_PORT), false);
                var asked = Record.newRecord(Name.fromString(name + "."), Type.A, DClass.IN);
                return resolver.send(Message.newQuery(asked)).getSection(Section.ANSWER).stream()
                        .filter(ARecord.class::isInstance)
                        .map(r -> Dialer.plain(((ARecord) r).getAddress()))
                        .toList();
            } catch (IOException e) {
                // The next segment may have a resolver that answers.
            }
        return List.of();
    }

    /** This machine is on every network of the demo, unless somebody has put it elsewhere. */
    @Override
    public List<Ipv4Address> own() {
        var away = away();
        var own = Stream.of("10.44.16.250", "10.44.17.250", "10.44.24.250", "10.44.32.250")
                .map(Ipv4Address::parse)
                .filter(a -> !away.contains(SiteModel.network(a)));
        return away.isEmpty()
                ? own.toList()
                : Stream.concat(Stream.of(ELSEWHERE), own).toList();
    }

    @Override
    public boolean answers(Ipv4Address address) {
        byte[] sent = "knot".getBytes(StandardCharsets.US_ASCII);
        try (var socket = new DatagramSocket()) {
            socket.connect(dialled(address, ECHO_PORT));
            socket.setSoTimeout(ECHO_MILLIS);
            socket.send(new DatagramPacket(sent, sent.length));
            var answer = new DatagramPacket(new byte[sent.length], sent.length);
            socket.receive(answer);
            return Arrays.equals(sent, answer.getData());
        } catch (IOException e) {
            return false;
        }
    }

    @Override
    public boolean there(Ipv4Address address) {
        return answers(address);
    }

    @Override
    public List<Neighbour> neighbours() {
        var away = away();
        return Neighbour.readTable(standIns.get("/neighbours")).stream()
                .filter(n -> !away.contains(SiteModel.network(n.address())))
                .toList();
    }

    /** Loopback refuses for an address that nobody has; on a wire nobody would answer at all. */
    @Override
    public Connection connect(Ipv4Address address, int port) {
        if (away(address)) return Connection.UNREACHABLE;
        return neighbours().stream().anyMatch(n -> n.address().equals(address))
                ? super.connect(address, port)
                : Connection.SILENT;
    }
}
