package app.knottag.server.probe;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Ipv4Prefix;
import app.knottag.core.hardware.Mac;
import app.knottag.core.intake.Form;
import app.knottag.core.intake.Recognised;
import app.knottag.core.reach.Here;
import app.knottag.core.reach.Neighbour;
import app.knottag.core.reach.SiteModel;
import app.knottag.core.reach.Swept;
import app.knottag.core.reach.Whois;
import java.io.IOException;
import java.net.DatagramPacket;
import java.net.DatagramSocket;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.NoRouteToHostException;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.locks.LockSupport;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/**
 * Probes of the demo's stand-ins. They live on 127.A.x.y, where x.y are the last two groups of the planned address;
 * loopback answers every ping by itself, so the echo is asked over UDP (RFC 862).
 */
class StandInProbes extends NetworkProbes {

    private static final int ECHO_PORT = 10_007;
    private static final int ECHO_MILLIS = 700;
    private static final int ECHOES = 3;

    private static final long EACH_NANOS = 4_000_000;
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

    /** This machine is on every network of the demo, unless somebody has put it elsewhere. */
    @Override
    public Here here() {
        var away = away();
        var own = Stream.of("10.44.16.250", "10.44.17.250", "10.44.24.250", "10.44.32.250", "10.44.40.250")
                .map(Ipv4Address::parse)
                .filter(a -> !away.contains(SiteModel.network(a)));
        return new Here((away.isEmpty() ? own : Stream.concat(Stream.of(ELSEWHERE), own))
                .map(a -> new Here.Link("lan0", a, Ipv4Prefix.around(a, 24)))
                .toList());
    }

    @Override
    public Recognised.Echo echo(Ipv4Address address) {
        int back = 0;
        if (!away(address)) for (int n = 0; n < ECHOES && (n == 0 || back > 0); n++) if (echoed(address)) back++;
        return new Recognised.Echo(
                Form.ECHO,
                Optional.of(address),
                away(address)
                        ? Recognised.Answer.UNREACHABLE
                        : back == ECHOES
                                ? Recognised.Answer.ANSWERED
                                : back > 0 ? Recognised.Answer.LOSS : Recognised.Answer.SILENT,
                -1,
                Optional.empty(),
                Set.of());
    }

    private boolean echoed(Ipv4Address address) {
        byte[] sent = "status".getBytes(StandardCharsets.US_ASCII);
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

    /** Everybody who holds an address answers for it, as on a wire. */
    @Override
    public Whois whois(Ipv4Address address) {
        if (away(address) || here().direct(address).isEmpty()) return Whois.NOT_FROM_HERE;
        return new Whois(
                Neighbour.readTable(standIns.get("/holders")).stream()
                        .filter(n -> n.address().equals(address))
                        .map(Neighbour::mac)
                        .collect(Collectors.toSet()),
                Whois.How.ASKED);
    }

    @Override
    public Swept sweep(List<Ipv4Address> hosts, Swept.Listener listener) {
        var away = away();
        var there = new HashMap<Ipv4Address, Set<Mac>>();
        for (var n : Neighbour.readTable(standIns.get("/holders")))
            if (!away.contains(SiteModel.network(n.address())) && hosts.contains(n.address())) {
                there.computeIfAbsent(n.address(), a -> new HashSet<>()).add(n.mac());
                listener.answered(n.address());
            }
        for (int i = 1; i <= hosts.size() && !listener.stop(); i++) {
            if (listener != Swept.QUIETLY) LockSupport.parkNanos(EACH_NANOS);
            listener.asked(i);
        }
        return new Swept(there, Set.of(), "by the question for its MAC");
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
        if (away(address) || standIns.get("/barred").lines().anyMatch((address + " " + port)::equals))
            return Connection.UNREACHABLE;
        return neighbours().stream().anyMatch(n -> n.address().equals(address))
                ? super.connect(address, port)
                : Connection.SILENT;
    }
}
