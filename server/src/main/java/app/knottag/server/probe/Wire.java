package app.knottag.server.probe;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Ipv4Prefix;
import app.knottag.core.hardware.Mac;
import app.knottag.core.intake.Form;
import app.knottag.core.intake.Recognised.Answer;
import app.knottag.core.intake.Recognised.Echo;
import app.knottag.core.intake.TextReader;
import app.knottag.core.reach.Here;
import app.knottag.core.reach.Neighbour;
import app.knottag.core.reach.ServiceReply;
import app.knottag.core.reach.Whois;
import java.io.IOException;
import java.net.DatagramPacket;
import java.net.DatagramSocket;
import java.net.Inet4Address;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.NetworkInterface;
import java.net.Socket;
import java.net.SocketException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.HexFormat;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.locks.LockSupport;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;

/** Questions below TCP: echoes, whose an address is, and what the kernel of this machine knows (iputils, iproute2). */
final class Wire {

    private static final Duration LONGEST = Duration.ofSeconds(5);

    /** The kernel has settled an entry that it asks about after so long (RFC 4861 sets the pace for both families). */
    private static final Duration SETTLED = Duration.ofSeconds(8);

    /** How long the kernel waits for the answer to its first question. */
    private static final Duration FIRST_ANSWER = Duration.ofMillis(1_100);

    /** The kernel trusts an entry for half a minute at most, and asks for a few seconds then. */
    private static final Duration FORGETS = Duration.ofSeconds(12);

    private static final Duration PAUSE = Duration.ofMillis(200);

    /** Nobody answers at the port for discarding (RFC 863); what matters is that the kernel asks for the MAC first. */
    private static final int DISCARD = 9;

    private static final Pattern ANSWERED_SIX = Pattern.compile("bytes from ([0-9a-f:]+)%");

    private Wire() {}

    /** Links that are up and running with an address; loopback is none. */
    static Here here() {
        try {
            return new Here(NetworkInterface.networkInterfaces()
                    .filter(Wire::up)
                    .flatMap(n -> n.getInterfaceAddresses().stream()
                            .filter(a -> a.getAddress() instanceof Inet4Address)
                            .map(a -> link(n.getName(), Dialer.plain(a.getAddress()), a.getNetworkPrefixLength())))
                    .toList());
        } catch (SocketException none) {
            return new Here(List.of());
        }
    }

    private static Here.Link link(String name, Ipv4Address address, int length) {
        return new Here.Link(name, address, Ipv4Prefix.around(address, length));
    }

    private static boolean up(NetworkInterface n) {
        try {
            return n.isUp() && !n.isLoopback();
        } catch (SocketException gone) {
            return false;
        }
    }

    /** Three echoes by the machine's own tool, which may send them without being root. */
    static Echo echo(Ipv4Address address) {
        return echo(address, "3");
    }

    /** One echo, for when many are asked. */
    static Echo echoOnce(Ipv4Address address) {
        return echo(address, "1");
    }

    private static Echo echo(Ipv4Address address, String count) {
        return Tool.run(LONGEST, "ping", "-n", "-c", count, "-i", "0.2", "-W", "1", address.toString())
                .map(said -> TextReader.read(said, Instant.now()))
                .filter(Echo.class::isInstance)
                .map(Echo.class::cast)
                .orElseGet(() -> notAllowed(address));
    }

    private static Echo notAllowed(Ipv4Address address) {
        return new Echo(Form.ECHO, Optional.of(address), Answer.NOT_ALLOWED, -1, Optional.empty(), Set.of());
    }

    /** Two questions of its own, broadcast, so that everybody who holds the address answers; else the kernel's table. */
    static Whois whois(Ipv4Address address) {
        return whois(address, "2");
    }

    /** The same with a second's patience, for when many are asked. */
    static Whois whoisQuickly(Ipv4Address address) {
        return whois(address, "1");
    }

    private static Whois whois(Ipv4Address address, String seconds) {
        var link = here().direct(address);
        if (link.isEmpty()) return Whois.NOT_FROM_HERE;
        if (link.get().address().equals(address)) return own(link.get());
        return Tool.run(
                        LONGEST,
                        "arping",
                        "-b",
                        "-c",
                        "2",
                        "-w",
                        seconds,
                        "-I",
                        link.get().name(),
                        address.toString())
                .map(said -> TextReader.read(said, Instant.now()))
                .filter(Echo.class::isInstance)
                .map(Echo.class::cast)
                .filter(e -> e.answer() != Answer.NOT_ALLOWED && e.answer() != Answer.CUT_OFF)
                .map(e -> new Whois(e.macs(), Whois.How.ASKED))
                .orElseGet(() -> byTable(address));
    }

    /**
     * Whether this machine asked the wrong MAC, because another one has the address since, and knows the new one now. Until its
     * kernel asks anew, whatever is sent goes to a device that is gone.
     */
    static boolean forgotten(Ipv4Address address) {
        if (here().direct(address).isEmpty()) return false;
        var before = mac(address);
        if (before.isEmpty()) return false;
        var now = whois(address);
        if (now.how() != Whois.How.ASKED || now.macs().isEmpty() || now.macs().contains(before.get())) return false;
        long end = System.nanoTime() + FORGETS.toNanos();
        while (System.nanoTime() < end) {
            poke(address);
            LockSupport.parkNanos(PAUSE.toNanos());
            if (!mac(address).equals(before)) return true;
        }
        return false;
    }

    private static Optional<Mac> mac(Ipv4Address address) {
        return neighbours().stream()
                .filter(n -> n.address().equals(address))
                .map(Neighbour::mac)
                .findFirst();
    }

    /** Nobody else is asked for this machine's own address. */
    private static Whois own(Here.Link link) {
        try {
            byte[] mac = NetworkInterface.getByName(link.name()).getHardwareAddress();
            return new Whois(
                    mac == null
                            ? Set.of()
                            : Set.of(Mac.parse(HexFormat.ofDelimiter(":").formatHex(mac))),
                    Whois.How.ASKED);
        } catch (SocketException gone) {
            return Whois.NOT_FROM_HERE;
        }
    }

    private static Whois byTable(Ipv4Address address) {
        poke(address);
        long begun = System.nanoTime();
        while (true) {
            LockSupport.parkNanos(PAUSE.toNanos());
            var entry = neighbours().stream()
                    .filter(n -> n.address().equals(address))
                    .findFirst();
            // What is not there yet is waited for as long as the kernel waits for the first answer.
            var patience = entry.isEmpty()
                    ? FIRST_ANSWER
                    : entry.get().state() == Neighbour.State.PENDING ? SETTLED : Duration.ZERO;
            if (System.nanoTime() - begun < patience.toNanos()) continue;
            // The kernel asks nobody anew whom it has heard of late; that somebody answers now says that he is still
            // there.
            return new Whois(
                    entry.filter(n -> n.confirmed() || n.state() == Neighbour.State.OLD && refuses(address))
                            .map(n -> Set.of(n.mac()))
                            .orElse(Set.of()),
                    Whois.How.TABLE);
        }
    }

    /** Makes the kernel ask for the MAC of an address; returns whether its table had room for the question. */
    static boolean poke(Ipv4Address address) {
        return poke(address.toString());
    }

    private static boolean poke(String address) {
        try (var socket = new DatagramSocket()) {
            // An address in figures is looked up nowhere.
            socket.send(
                    new DatagramPacket(new byte[1], 1, new InetSocketAddress(InetAddress.getByName(address), DISCARD)));
            return true;
        } catch (IOException full) {
            return false;
        }
    }

    /** Whether anything comes back from a port that hardly anybody opens. */
    static boolean refuses(Ipv4Address address) {
        try (var socket = new Socket()) {
            socket.connect(
                    new InetSocketAddress(InetAddress.getByAddress(NetworkProbes.bytes(address)), DISCARD),
                    Talks.CONNECT_MILLIS);
            return true;
        } catch (IOException e) {
            return Talks.ending(e) == ServiceReply.Ending.REFUSED;
        }
    }

    /** The kernel's table with its states; without the tool for those an entry may be from before, and proves nothing. */
    static List<Neighbour> neighbours() {
        return Kernel.neighbours().orElseGet(() -> {
            try {
                return Neighbour.readTable(Files.readString(Path.of("/proc/net/arp"))).stream()
                        .map(n -> new Neighbour(n.address(), n.mac(), Neighbour.State.OLD))
                        .toList();
            } catch (IOException none) {
                return List.of();
            }
        });
    }

    /** Returns the MACs of all that answer an echo to everybody over IPv6 (RFC 4291, all nodes) on a link. */
    static Set<Mac> overSix(String link) {
        var said = Tool.run(LONGEST, "ping", "-6", "-n", "-c", "2", "-i", "0.2", "-W", "1", "ff02::1%" + link);
        var answered = said.orElse("")
                .lines()
                .map(ANSWERED_SIX::matcher)
                .filter(Matcher::find)
                .map(m -> m.group(1))
                .collect(Collectors.toSet());
        if (answered.isEmpty()) return Set.of();
        // Who answers everybody need not be in the table: sending something back makes the kernel ask whose it is.
        for (String six : answered) poke(six + "%" + link);
        LockSupport.parkNanos(PAUSE.toNanos());
        return Kernel.overSix(link, answered);
    }
}
