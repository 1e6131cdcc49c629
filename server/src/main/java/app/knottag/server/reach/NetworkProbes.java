package app.knottag.server.reach;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Ipv4Prefix;
import app.knottag.core.reach.Heard;
import app.knottag.core.reach.Neighbour;
import app.knottag.core.reach.Probes;
import java.io.IOException;
import java.net.Inet4Address;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.NetworkInterface;
import java.net.Socket;
import java.net.SocketException;
import java.net.UnknownHostException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.TimeUnit;

/** Probes of the real network, made from this machine. */
class NetworkProbes implements Probes, Dialer {

    private static final int CONNECT_MILLIS = Talks.CONNECT_MILLIS;
    private static final int ANSWER_MILLIS = 2_000;
    private static final int LONGEST_ANSWER = 512;

    private static final int ECHO_PORT = 7;
    private static final int THERE_MILLIS = 1_000;
    private volatile boolean noPing;
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
    public List<Ipv4Address> lookup(String name, List<Ipv4Prefix> ground) {
        try {
            return Arrays.stream(InetAddress.getAllByName(name))
                    .filter(Inet4Address.class::isInstance)
                    .map(Dialer::plain)
                    .toList();
        } catch (UnknownHostException e) {
            return List.of();
        }
    }

    @Override
    public Heard talk(Call call) {
        return talks.talk(call);
    }

    @Override
    public List<Ipv4Address> own() {
        try {
            return NetworkInterface.networkInterfaces()
                    .flatMap(NetworkInterface::inetAddresses)
                    .filter(a -> !a.isLoopbackAddress() && a instanceof Inet4Address)
                    .map(Dialer::plain)
                    .toList();
        } catch (SocketException e) {
            return List.of();
        }
    }

    /** One echo by the machine's own tool, which may send them without being root. */
    @Override
    public boolean answers(Ipv4Address address) {
        try {
            var ping = new ProcessBuilder("ping", "-n", "-c", "1", "-W", "1", address.toString())
                    .redirectErrorStream(true)
                    .redirectOutput(ProcessBuilder.Redirect.DISCARD)
                    .start();
            if (!ping.waitFor(3, TimeUnit.SECONDS)) ping.destroyForcibly();
            else if (ping.exitValue() == 0) return true;
        } catch (IOException e) {
            noPing = true;
            var echo = connect(address, ECHO_PORT);
            return echo == Connection.OPEN || echo == Connection.REFUSED; // even a refusal is an answer
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
        return false;
    }

    @Override
    public String lacks() {
        return noPing ? "This machine cannot send echoes, so a refused connection counts: install iputils-ping." : "";
    }

    /** Hundreds of processes at once would be too much, so the Java machine asks; who is near shows in the table, too. */
    @Override
    public boolean there(Ipv4Address address) {
        try {
            return dialled(address).isReachable(THERE_MILLIS);
        } catch (IOException e) {
            return false;
        }
    }

    @Override
    public List<Neighbour> neighbours() {
        var states = Kernel.neighbours();
        if (states.isPresent()) return states.get();
        try {
            // Without its states an entry may be from before: it names who answered, and proves nothing.
            return Neighbour.readTable(Files.readString(Path.of("/proc/net/arp"))).stream()
                    .map(n -> new Neighbour(n.address(), n.mac(), Neighbour.State.OLD))
                    .toList();
        } catch (IOException e) {
            return List.of();
        }
    }

    @Override
    public Connection connect(Ipv4Address address, int port) {
        try (var socket = new Socket()) {
            socket.connect(dialled(address, port), CONNECT_MILLIS);
            return Connection.OPEN;
        } catch (IOException e) {
            return switch (Talks.ending(e)) {
                case REFUSED -> Connection.REFUSED;
                case UNREACHABLE -> Connection.UNREACHABLE;
                default -> Connection.SILENT;
            };
        }
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
