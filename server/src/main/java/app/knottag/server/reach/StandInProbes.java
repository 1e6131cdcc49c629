package app.knottag.server.reach;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Ipv4Prefix;
import app.knottag.core.reach.Neighbour;
import app.knottag.core.reach.SiteModel;
import java.io.IOException;
import java.net.DatagramPacket;
import java.net.DatagramSocket;
import java.net.InetAddress;
import java.net.NoRouteToHostException;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.List;

/**
 * Probes of the demo's stand-ins. They live on 127.A.x.y, where x.y are the last two groups of the planned address;
 * loopback answers every ping by itself, so the echo is asked over UDP (RFC 862).
 */
class StandInProbes extends NetworkProbes {

    private static final int ECHO_PORT = 10_007;
    private static final int ECHO_MILLIS = 700;

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

    @Override
    public String vantage() {
        return "this machine, to the stand-ins";
    }

    /** Somebody may have put this machine into another network on the bench. */
    private boolean away(Ipv4Address address) {
        return standIns.get("/away").lines().anyMatch(SiteModel.network(address)::equals);
    }

    /** The stand-ins' neighbour table is always at hand. */
    @Override
    public boolean standsIn(Ipv4Prefix prefix) {
        return !away(prefix.network());
    }

    @Override
    public boolean answers(Ipv4Address address) {
        byte[] sent = "knot".getBytes(StandardCharsets.US_ASCII);
        try (var socket = new DatagramSocket()) {
            socket.connect(dialled(address), ECHO_PORT);
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
    public List<Neighbour> neighbours() {
        return Neighbour.readTable(standIns.get("/neighbours")).stream()
                .filter(n -> !away(n.address()))
                .toList();
    }

    /** Loopback refuses for an address that nobody has; on a wire nobody would answer at all. */
    @Override
    public Connection connect(Ipv4Address address, int port) {
        return neighbours().stream().anyMatch(n -> n.address().equals(address))
                ? super.connect(address, port)
                : Connection.SILENT;
    }
}
