package app.knottag.standins;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.reach.Scene;
import app.knottag.core.reach.SiteModel;
import app.knottag.core.reach.SiteModel.Role;
import app.knottag.core.reach.SiteModel.Station;
import java.io.BufferedReader;
import java.io.Closeable;
import java.io.IOException;
import java.io.InputStreamReader;
import java.net.ConnectException;
import java.net.DatagramPacket;
import java.net.DatagramSocket;
import java.net.InetSocketAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.channels.SocketChannel;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;

/** What one station offers on the network: an echo over UDP and, if it has a port, one line each way over TCP. */
final class LineServer {

    private static final int ECHO_PORT = 10_007;
    private static final int PATIENCE_MILLIS = 2_000;
    private static final int CLOSE_MILLIS = 1_000;

    private final Bench bench;
    private final Station station;
    private final List<Closeable> sockets = new ArrayList<>();
    private final List<Thread> listening = new ArrayList<>();

    /** All that decides what a station offers at an address; when it changes the sockets are opened anew. */
    static String offer(Station s, Ipv4Address at) {
        return String.join(
                " ",
                s.id(),
                at.toString(),
                "" + s.port(),
                s.scene().portState(),
                s.says(),
                "" + s.scene().answersBack(),
                "" + s.scene().letsCallersIn());
    }

    LineServer(Bench bench, Station station, Ipv4Address at) throws IOException {
        this.bench = bench;
        this.station = station;
        var address = bench.loopback(at);
        if (!station.scene().answersBack()) {
            if (station.port() > 0) swallow(new InetSocketAddress(address, station.port()));
            return;
        }
        var echo = new DatagramSocket(new InetSocketAddress(address, ECHO_PORT));
        sockets.add(echo);
        listening.add(run(() -> echo(echo)));
        if (station.port() == 0) return;
        switch (station.scene().stands() == Scene.Stands.POOL
                ? "open"
                : station.scene().portState()) {
            case "open" -> {
                var server = new ServerSocket();
                server.setReuseAddress(true);
                server.bind(new InetSocketAddress(address, station.port()));
                sockets.add(server);
                listening.add(run(() -> serve(server)));
            }
            case "silent" -> swallow(new InetSocketAddress(address, station.port()));
            default -> {
                // Nothing listens, so the machine refuses.
            }
        }
    }

    /** A firewall that swallows what comes: a queue that is full and never emptied answers nobody. */
    private void swallow(InetSocketAddress at) throws IOException {
        var server = new ServerSocket();
        server.setReuseAddress(true);
        server.bind(at, 1);
        sockets.add(server);
        for (int n = 0; n < 2; n++) {
            var filler = SocketChannel.open();
            filler.configureBlocking(false);
            filler.connect(at);
            sockets.add(filler);
        }
    }

    private interface Work {
        void run() throws IOException;
    }

    private Thread run(Work work) {
        var thread = new Thread(
                () -> {
                    try {
                        work.run();
                    } catch (IOException closed) {
                        // Closing the socket is how a stand-in is unplugged.
                    }
                },
                station.id());
        thread.setDaemon(true);
        thread.start();
        return thread;
    }

    private static void echo(DatagramSocket socket) throws IOException {
        var packet = new DatagramPacket(new byte[512], 512);
        while (true) {
            packet.setLength(512);
            socket.receive(packet);
            socket.send(packet);
        }
    }

    private void serve(ServerSocket server) throws IOException {
        while (true) {
            var socket = server.accept();
            run(() -> answer(socket));
        }
    }

    private void answer(Socket socket) throws IOException {
        try (socket) {
            socket.setSoTimeout(PATIENCE_MILLIS);
            String line = reader(socket).readLine();
            if (line == null || !station.scene().letsCallersIn()) return;
            String answer =
                    station.role() == Role.PARTNER ? test(line) : line.equals(station.ask()) ? station.says() : "?";
            if (!answer.isEmpty()) socket.getOutputStream().write((answer + "\n").getBytes(StandardCharsets.UTF_8));
        }
    }

    /** The partner's own test: dial the endpoint as it would in daily work, and say what came of it. */
    private String test(String line) {
        if (!line.matches("TEST [0-9.]{7,15} [0-9]{1,5}")) return "?";
        String[] words = line.split(" ");
        var address = Ipv4Address.parse(words[1]);
        String asSetUp = bench.partnerSide(address);
        if (asSetUp.equals("none")) return "";
        if (asSetUp.equals("other")) return "REACHED " + SiteModel.OTHER_SERIAL;
        // Loopback refuses for an address that nobody has; on a wire nobody would answer at all.
        if (bench.model().at(address).isEmpty()) return "NO ANSWER from " + words[1];
        int port = Integer.parseInt(words[2]) + (asSetUp.equals("refused") ? 1 : 0);
        try (var socket = new Socket()) {
            socket.connect(new InetSocketAddress(bench.loopback(address), port), PATIENCE_MILLIS);
            socket.setSoTimeout(PATIENCE_MILLIS);
            socket.getOutputStream().write((station.ask() + "\n").getBytes(StandardCharsets.UTF_8));
            String answer = reader(socket).readLine();
            String expected = station.answer().replace("{serial}", "");
            if (answer == null) return "REFUSED: " + words[1] + " hangs up";
            return answer.startsWith(expected)
                    ? "REACHED " + answer.substring(expected.length())
                    : "REFUSED: a strange answer from " + words[1];
        } catch (ConnectException e) {
            return "REFUSED by " + words[1] + " port " + port;
        } catch (IOException | IllegalArgumentException e) {
            return "NO ANSWER from " + words[1];
        }
    }

    private static BufferedReader reader(Socket socket) throws IOException {
        return new BufferedReader(new InputStreamReader(socket.getInputStream(), StandardCharsets.UTF_8), 256);
    }

    /** Returns when the addresses are free again: a blocked listener gives its socket back only as it wakes. */
    void close() {
        try {
            for (var socket : sockets) socket.close();
            for (var thread : listening) thread.join(CLOSE_MILLIS);
        } catch (IOException e) {
            System.err.println(station.id() + ": " + e.getMessage());
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }
}
