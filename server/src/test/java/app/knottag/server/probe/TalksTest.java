package app.knottag.server.probe;

import static org.assertj.core.api.Assertions.assertThat;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Ipv4Prefix;
import app.knottag.core.kind.Protocol;
import app.knottag.core.reach.Probes.Call;
import app.knottag.core.reach.ServiceReply;
import java.io.BufferedReader;
import java.io.ByteArrayOutputStream;
import java.io.DataInputStream;
import java.io.DataOutputStream;
import java.io.IOException;
import java.io.InputStreamReader;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.xbill.DNS.DClass;
import org.xbill.DNS.Flags;
import org.xbill.DNS.Message;
import org.xbill.DNS.Name;
import org.xbill.DNS.Record;
import org.xbill.DNS.Type;

/** Talks with services that behave as badly as they can, over real sockets. */
class TalksTest {

    private static final List<Ipv4Prefix> GROUND = List.of(Ipv4Prefix.parse("10.7.0.0/24"));
    private static final int FLOOD = 4_000_000;

    /** Everything on the site's ground is dialled at one loopback port. */
    private record Here(int port) implements Dialer {
        @Override
        public InetSocketAddress dialled(Ipv4Address address, int asked) {
            return new InetSocketAddress(InetAddress.getLoopbackAddress(), port);
        }

        @Override
        public List<Ipv4Address> lookup(String name, List<Ipv4Address> resolvers) {
            return switch (name) {
                case "mail.here.example" -> List.of(Ipv4Address.parse("10.7.0.9"));
                case "elsewhere.example" -> List.of(Ipv4Address.parse("10.9.9.9"));
                case "two.example" -> List.of(Ipv4Address.parse("10.7.0.9"), Ipv4Address.parse("127.0.0.1"));
                default -> List.of();
            };
        }
    }

    /** Plays a script to whoever calls: {@code <} reads a line, {@code > text} says one, and worse. */
    private static void play(Socket socket, String script) throws IOException, InterruptedException {
        try (socket) {
            var in = new BufferedReader(new InputStreamReader(socket.getInputStream(), StandardCharsets.US_ASCII));
            var out = socket.getOutputStream();
            for (String act : script.split(";")) {
                String a = act.strip();
                if (a.equals("<")) in.readLine();
                else if (a.equals("headers")) while (!in.readLine().isEmpty()) continue;
                else if (a.startsWith(">"))
                    out.write((a.substring(1).strip() + "\r\n").getBytes(StandardCharsets.US_ASCII));
                else if (a.equals("flood")) out.write(new byte[FLOOD]);
                else if (a.equals("drip"))
                    for (int n = 0; n < 60; n++) {
                        out.write('x');
                        Thread.sleep(400);
                    }
                else if (a.equals("hang")) Thread.sleep(30_000);
            }
            Thread.sleep(300);
        }
    }

    private static ServiceReply talk(Protocol protocol, String host, String script) throws IOException {
        try (var server = new ServerSocket(0, 4, InetAddress.getLoopbackAddress())) {
            var thread = new Thread(() -> {
                try {
                    while (true) play(server.accept(), script);
                } catch (IOException | InterruptedException | NullPointerException gone) {
                    // The caller has had enough.
                }
            });
            thread.setDaemon(true);
            thread.start();
            return new Talks(new Here(server.getLocalPort()))
                    .talk(new Call(protocol, host, 587, "/", GROUND, List.of()));
        }
    }

    @DisplayName("Whatever it does, the talk ends by itself and says where")
    @ParameterizedTest(name = "{0}: {1}")
    @CsvSource(
            delimiter = '|',
            value = {
                "SMTP | > 421 too busy                                        | ANSWERED 421 the greeting [421 too busy]",
                "SMTP | > 554 not from there                                  | ANSWERED 554 the greeting [554 not from there]",
                "SMTP | > 220 hi; <; > 550 who are you                        | ANSWERED 550 the hello [550 who are you]",
                "SMTP | > 220 hi; <; > 250 SIZE 100; <; > 221 bye             | ANSWERED 250  [250 SIZE 100]",
                "SMTP | > 220 hi; <; > 250-x; > 250 STARTTLS; <; > 454 later  | ANSWERED 454 the upgrade to TLS [454 later]",
                "SMTP | > HELLO FROM A PRINTER                                | STRANGE",
                "SMTP | flood                                                 | STRANGE",
                "SMTP | drip                                                  | SILENT",
                "SMTP | hang                                                  | SILENT",
                "HTTP | headers; > HTTP/1.1 302 Found; > Location: http://10.9.9.9/; > Content-Length: 0; > | ANSWERED "
                        + "302  [http://10.9.9.9/]",
                "HTTP | headers; > HTTP/1.1 503 No; > Content-Length: 0; >    | ANSWERED 503  []",
                "HTTP | headers; > HTTP/1.1 200 OK; >; flood                  | ANSWERED 200",
                "HTTP | > SSH-2.0-thing                                       | STRANGE",
                "HTTPS | > not TLS at all                                     | STRANGE",
                "IPP  | headers; > HTTP/1.1 200 OK; > Content-Type: text/html; > Content-Length: 0; > | STRANGE",
                "RAW_PRINT | hang                                             | ANSWERED",
                "FILE | > nonsense                                            | STRANGE",
            })
    void endsByItself(Protocol protocol, String script, String wanted) throws IOException {
        long start = System.nanoTime();
        var heard = talk(protocol, "10.7.0.9", script);
        String said = heard.ending() + " " + heard.code() + " " + heard.step() + " " + heard.lines();
        assertThat(said).startsWith(wanted.strip());
        assertThat(Duration.ofNanos(System.nanoTime() - start)).isLessThan(Duration.ofSeconds(12));
        assertThat(heard.lines().toString().length()).isLessThan(20_000);
    }

    @DisplayName("The time that a page shows by the way is kept, to the second; what is no time is not")
    @ParameterizedTest(name = "{0}")
    @CsvSource(
            delimiter = '|',
            value = {
                "Thu, 01 Jan 1970 00:00:10 GMT | 10",
                "soon                          | ",
            })
    void clocks(String date, Long seconds) throws IOException {
        var heard = talk(
                Protocol.HTTP, "10.7.0.9", "headers; > HTTP/1.1 200 OK; > Content-Length: 0; > Date: " + date + "; >");
        assertThat(heard.told(ServiceReply.OwnClock.class)
                        .map(c -> Instant.now().plus(c.ahead()).getEpochSecond()))
                .isEqualTo(Optional.ofNullable(seconds));
    }

    @DisplayName("A name is followed to the site's own ground and nowhere else, whichever of its addresses comes first")
    @ParameterizedTest(name = "{0}: {1}")
    @CsvSource({
        "mail.here.example, ANSWERED",
        "elsewhere.example, FOREIGN",
        "two.example, FOREIGN",
        "nobody.example, NAME_UNKNOWN",
        "192.168.7.7, FOREIGN",
        "127.0.0.1, FOREIGN",
    })
    void names(String host, ServiceReply.Ending ending) throws IOException {
        assertThat(talk(Protocol.HTTP, host, "headers; > HTTP/1.1 200 OK; > Content-Length: 0; >")
                        .ending())
                .isEqualTo(ending);
    }

    @DisplayName("Who never came to a question over TCP is asked anew on a connection of its own")
    @Test
    void namesAnew() throws IOException {
        try (var server = new ServerSocket(0, 4, InetAddress.getLoopbackAddress())) {
            var thread = new Thread(() -> {
                try (var neverAnswered = server.accept();
                        var answered = server.accept()) {
                    var in = new DataInputStream(answered.getInputStream());
                    var asked = new Message(in.readNBytes(in.readUnsignedShort()));
                    asked.getHeader().setFlag(Flags.QR);
                    asked.addRecord(
                            Record.fromString(
                                    asked.getQuestion().getName(), Type.A, DClass.IN, 60, "10.7.0.9", Name.root),
                            1);
                    var out = new DataOutputStream(answered.getOutputStream());
                    out.writeShort(asked.toWire().length);
                    out.write(asked.toWire());
                    neverAnswered.getInputStream().read();
                } catch (IOException gone) {
                    // The caller has had enough.
                }
            });
            thread.setDaemon(true);
            thread.start();
            var dialer = new Here(server.getLocalPort());
            var resolvers = List.of(Ipv4Address.parse("10.7.0.1"));
            assertThat(NameTalk.lookup("mail.here.example", resolvers, dialer)).isEmpty();
            assertThat(NameTalk.lookup("mail.here.example", resolvers, dialer))
                    .containsExactly(Ipv4Address.parse("10.7.0.9"));
        }
    }

    @DisplayName("A printer tells its state, and nobody at the port is told from one that is silent")
    @Test
    void printersAndClosedPorts() throws IOException {
        try (var server = new ServerSocket(0, 4, InetAddress.getLoopbackAddress())) {
            var thread = new Thread(() -> {
                try (var socket = server.accept()) {
                    var body = new ByteArrayOutputStream();
                    var ipp = new DataOutputStream(body);
                    ipp.writeShort(0x0200);
                    ipp.writeShort(0x0507);
                    ipp.writeInt(1);
                    ipp.writeByte(3);
                    socket.getInputStream().read(new byte[4_096]);
                    socket.getOutputStream()
                            .write(("HTTP/1.1 200 OK\r\nContent-Type: application/ipp\r\nContent-Length: " + body.size()
                                            + "\r\n\r\n")
                                    .getBytes(StandardCharsets.US_ASCII));
                    socket.getOutputStream().write(body.toByteArray());
                } catch (IOException gone) {
                    // The caller has had enough.
                }
            });
            thread.setDaemon(true);
            thread.start();
            var call = new Call(Protocol.IPP, "10.7.0.9", 631, "", GROUND, List.of());
            assertThat(new Talks(new Here(server.getLocalPort())).talk(call).code())
                    .isEqualTo(0x0507);
        }
        int closed;
        try (var server = new ServerSocket(0)) {
            closed = server.getLocalPort();
        }
        for (var protocol : List.of(Protocol.SMTP, Protocol.HTTP, Protocol.RAW_PRINT, Protocol.FILE))
            assertThat(new Talks(new Here(closed))
                            .talk(new Call(protocol, "10.7.0.9", 80, "", GROUND, List.of()))
                            .ending())
                    .as(protocol.name())
                    .isEqualTo(ServiceReply.Ending.REFUSED);
    }
}
