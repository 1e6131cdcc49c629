package app.knottag.server.probe;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.intake.Recognised;
import app.knottag.core.reach.Here;
import app.knottag.core.reach.Neighbour;
import app.knottag.core.reach.Probes;
import app.knottag.core.reach.ServiceReply;
import app.knottag.core.reach.Swept;
import app.knottag.core.reach.Whois;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.TimeUnit;

/** Probes of the real network, made from this machine. */
class NetworkProbes implements Probes, Dialer {

    private static final int CONNECT_MILLIS = Talks.CONNECT_MILLIS;
    private static final int ANSWER_MILLIS = 2_000;
    private static final int LONGEST_ANSWER = 512;

    private final Talks talks = new Talks(this);

    /** Where an address is really dialled; the stand-ins of the demo live on loopback. */
    InetAddress dialled(Ipv4Address address) throws IOException {
        return InetAddress.getByAddress(bytes(address));
    }

    static byte[] bytes(Ipv4Address a) {
        return new byte[] {(byte) a.group(0), (byte) a.group(1), (byte) a.group(2), (byte) a.group(3)};
    }

    @Override
    public InetSocketAddress dialled(Ipv4Address address, int port) throws IOException {
        return new InetSocketAddress(dialled(address), port);
    }

    @Override
    public List<Ipv4Address> lookup(String name, List<Ipv4Address> resolvers) {
        return NameTalk.lookup(name, resolvers, this);
    }

    @Override
    public ServiceReply talk(Call call) {
        return talks.talk(call);
    }

    @Override
    public Here here() {
        return Wire.here();
    }

    @Override
    public Recognised.Echo echo(Ipv4Address address) {
        var first = Wire.echo(address);
        return first.answer() == Recognised.Answer.SILENT && Wire.forgotten(address) ? Wire.echo(address) : first;
    }

    @Override
    public Whois whois(Ipv4Address address) {
        return Wire.whois(address);
    }

    @Override
    public List<Neighbour> neighbours() {
        return Wire.neighbours();
    }

    @Override
    public Swept sweep(List<Ipv4Address> hosts, Swept.Listener listener) {
        try (var sweep = new SweepRun(hosts, listener)) {
            return sweep.run();
        }
    }

    @Override
    public Connection connect(Ipv4Address address, int port) {
        var first = once(address, port);
        return first == Connection.SILENT && Wire.forgotten(address) ? once(address, port) : first;
    }

    private Connection once(Ipv4Address address, int port) {
        try (var socket = new Socket()) {
            socket.connect(dialled(address, port), CONNECT_MILLIS);
            return Connection.OPEN;
        } catch (IOException e) {
            return switch (Talks.ending(e)) {
                case REFUSED -> Connection.REFUSED;
                case UNREACHABLE -> nobody(address) ? Connection.SILENT : Connection.UNREACHABLE;
                default -> Connection.SILENT;
            };
        }
    }

    /** On its own link the kernel says “no route” of an address for which nobody answered: that is silence. */
    private static boolean nobody(Ipv4Address address) {
        return Wire.here().direct(address).isPresent()
                && Wire.neighbours().stream().noneMatch(n -> n.address().equals(address));
    }

    @Override
    public Optional<String> ask(Ipv4Address address, int port, String line) {
        try (var socket = new Socket()) {
            socket.connect(dialled(address, port), CONNECT_MILLIS);
            socket.getOutputStream().write((line + "\n").getBytes(StandardCharsets.UTF_8));
            socket.getOutputStream().flush();
            return firstLine(socket);
        } catch (IOException e) {
            return Optional.empty();
        }
    }

    /** A device may drip or flood: the answer is cut after a line, 512 bytes or two seconds, whichever comes first. */
    private static Optional<String> firstLine(Socket socket) throws IOException {
        long end = System.nanoTime() + TimeUnit.MILLISECONDS.toNanos(ANSWER_MILLIS);
        var answer = new StringBuilder();
        while (answer.length() < LONGEST_ANSWER) {
            int left = (int) TimeUnit.NANOSECONDS.toMillis(end - System.nanoTime());
            if (left <= 0) break;
            socket.setSoTimeout(left);
            int b = socket.getInputStream().read();
            if (b < 0 || b == '\n') break;
            if (b != '\r') answer.append((char) b);
        }
        return answer.isEmpty() ? Optional.empty() : Optional.of(answer.toString());
    }
}
