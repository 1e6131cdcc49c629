package app.knottag.standins;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.kind.Protocol;
import app.knottag.core.reach.Outcome;
import app.knottag.core.reach.SiteModel;
import app.knottag.core.reach.SiteModel.Role;
import app.knottag.core.reach.SiteModel.Station;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.OutputStream;
import java.net.ConnectException;
import java.net.DatagramPacket;
import java.net.DatagramSocket;
import java.net.InetSocketAddress;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.Optional;

/** What one station offers on the network: an echo over UDP and, if it has a port, its service. */
final class LineServer {

    private static final int ECHO_PORT = 10_007;
    /** Ports under 1024 belong to the machine, so they are ten thousand higher here. */
    private static final int FIRST_FREE_PORT = 1024;

    private static final int HIGHER = 10_000;
    private static final int PATIENCE_MILLIS = 2_000;

    private final Bench bench;
    private final Station station;
    private final Sockets sockets;

    LineServer(Bench bench, Offer offer) throws IOException {
        this.bench = bench;
        this.station = offer.station();
        sockets = new Sockets(station.id());
        var address = bench.loopback(offer.at());
        int port = station.port() < FIRST_FREE_PORT ? station.port() + HIGHER : station.port();
        var at = new InetSocketAddress(address, port);
        if (offer.echo() != Outcome.SILENT) {
            var echo = sockets.keep(new DatagramSocket(new InetSocketAddress(address, ECHO_PORT)));
            sockets.listen(() -> echo(echo, offer.echo() == Outcome.LOSSY));
        }
        if (station.role() == Role.GATEWAY) Network.serve(sockets, bench, address, offer.network());
        if (station.role() == Role.RELAY) relay(at, offer.network());
        else if (offer.port() == Outcome.SILENT || offer.port() == Outcome.UNREACHABLE) sockets.swallow(at);
        else if (offer.port() == Outcome.OPEN) serve(at, offer.service());
    }

    private void relay(InetSocketAddress at, Offer.Network network) throws IOException {
        if (!network.provider()) sockets.swallow(at);
        else if (network.server())
            sockets.keep(MailServer.start(at, bench.certificates().context(network.certificate())));
    }

    private void serve(InetSocketAddress at, Outcome service) throws IOException {
        switch (station.protocol()) {
            case HTTP -> sockets.keep(PageServer.start(at, station, service, Optional.empty()));
            case HTTPS ->
                sockets.keep(PageServer.start(
                        at,
                        station,
                        service,
                        Optional.of(bench.certificates().context(station.scene().certificateGood()))));
            default -> {
                var server = sockets.server(at);
                sockets.listen(() -> {
                    while (true) {
                        var socket = server.accept();
                        sockets.run(() -> answer(socket, service));
                    }
                });
            }
        }
    }

    /** A bad lead loses one in three. */
    private static void echo(DatagramSocket socket, boolean lossy) throws IOException {
        var packet = new DatagramPacket(new byte[512], 512);
        for (int n = 1; ; n++) {
            packet.setLength(512);
            socket.receive(packet);
            if (!lossy || n % 3 != 0) socket.send(packet);
        }
    }

    private void answer(Socket socket, Outcome service) throws IOException {
        try (socket) {
            socket.setSoTimeout(PATIENCE_MILLIS);
            if (station.protocol() == Protocol.FILE) {
                FileServer.agree(socket, Device.shown(station.scene(), Instant.now()));
                return;
            }
            if (station.protocol() == Protocol.RAW_PRINT) {
                socket.getInputStream().transferTo(OutputStream.nullOutputStream());
                return;
            }
            String line = reader(socket).readLine();
            if (line == null || service == Outcome.NONE || service == Outcome.BARRED) return;
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
        var asSetUp = bench.partnerSide(address);
        if (asSetUp == Outcome.NONE) return "";
        if (asSetUp == Outcome.OTHER) return "REACHED " + SiteModel.OTHER_SERIAL;
        // Loopback refuses for an address that nobody has; on a wire nobody would answer at all.
        if (bench.model().at(address).isEmpty()) return "NO ANSWER from " + words[1];
        int port = Integer.parseInt(words[2]) + (asSetUp == Outcome.REFUSED ? 1 : 0);
        try (var socket = new Socket()) {
            socket.connect(new InetSocketAddress(bench.loopback(address), port), PATIENCE_MILLIS);
            socket.setSoTimeout(PATIENCE_MILLIS);
            socket.getOutputStream().write((station.ask() + "\n").getBytes(StandardCharsets.UTF_8));
            String answer = reader(socket).readLine();
            String expected = station.answer().replace("{serial}", "");
            if (answer == null) return "NO ANSWER: " + words[1] + " hangs up";
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

    void close() {
        sockets.close();
    }
}
