package app.knottag.server.probe;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.reach.AllowedTargets;
import app.knottag.core.reach.Probes.Call;
import app.knottag.core.reach.ServiceReply;
import app.knottag.core.reach.ServiceReply.Ending;
import app.knottag.core.reading.ReadingException;
import java.io.IOException;
import java.io.InputStream;
import java.net.ConnectException;
import java.net.InetSocketAddress;
import java.net.NoRouteToHostException;
import java.net.PortUnreachableException;
import java.net.Socket;
import java.net.SocketTimeoutException;
import java.net.StandardSocketOptions;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.List;
import java.util.concurrent.TimeoutException;
import javax.net.ssl.SSLException;

/** Talks with services as far as it goes without signing in. Every talk ends by itself, and reads no more than it needs. */
final class Talks {

    static final int CONNECT_MILLIS = 1_500;
    static final Duration PATIENCE = Duration.ofSeconds(4);

    /** A device may answer with megabytes; what comes after this is not read. */
    static final int LONGEST = 16_384;

    private final Dialer dialer;

    Talks(Dialer dialer) {
        this.dialer = dialer;
    }

    /** A talk with one address. */
    private interface Talk {
        ServiceReply with(InetSocketAddress at, Call call, boolean ownGround) throws IOException;
    }

    ServiceReply talk(Call call) {
        List<Ipv4Address> found;
        try {
            found = List.of(Ipv4Address.parse(call.host()));
        } catch (ReadingException name) {
            found = dialer.lookup(call.host(), call.resolvers());
        }
        if (found.isEmpty()) return ServiceReply.ended(Ending.NAME_UNKNOWN, "the name");
        for (var address : found) {
            var problem = AllowedTargets.problem(call.host(), address, call.ground());
            if (problem.isPresent()) return ServiceReply.ended(Ending.FOREIGN, "the name", problem.get());
        }
        try {
            return of(call).with(
                            dialer.dialled(found.get(0), call.port()),
                            call,
                            AllowedTargets.own(found.get(0), call.ground()));
        } catch (SSLException e) {
            return ServiceReply.ended(Ending.STRANGE, "the upgrade to TLS", String.valueOf(e.getMessage()));
        } catch (IOException e) {
            var ending = ending(e);
            return ServiceReply.ended(ending, ending == Ending.REFUSED ? "the connection" : "its answer");
        }
    }

    /** How a talk ended, by what lies at the bottom of the exception, whatever library wrapped it. */
    static Ending ending(Throwable e) {
        for (Throwable t = e; t != null; t = t.getCause() == t ? null : t.getCause()) {
            String said = String.valueOf(t.getMessage()).toLowerCase(java.util.Locale.ROOT);
            if (t instanceof NoRouteToHostException
                    || t instanceof IOException
                            && (said.contains("unreachable") && !said.contains("port unreachable")
                                    || said.contains("no route to host"))) return Ending.UNREACHABLE;
            if (t instanceof PortUnreachableException || t instanceof ConnectException && said.contains("refused"))
                return Ending.REFUSED;
            if (t instanceof SocketTimeoutException || t instanceof TimeoutException || t instanceof ConnectException)
                return Ending.SILENT;
        }
        return Ending.STRANGE;
    }

    private static Talk of(Call call) {
        return switch (call.protocol()) {
            case HTTP, HTTPS -> PageTalk::hear;
            case IPP -> PrintTalk::hear;
            case SMTP -> MailTalk::hear;
            case DNS -> NameTalk::hear;
            case NTP -> TimeTalk::hear;
            case FILE -> FileTalk::hear;
            case RAW_PRINT, LINE -> Talks::open;
        };
    }

    /** A port that takes data keeps the line open; one that hangs up at once takes none. */
    private static ServiceReply open(InetSocketAddress at, Call call, boolean ownGround) throws IOException {
        try (var socket = new Socket()) {
            socket.connect(at, CONNECT_MILLIS);
            socket.setOption(StandardSocketOptions.TCP_NODELAY, true);
            socket.setSoTimeout(300);
            int first = socket.getInputStream().read();
            return first < 0
                    ? ServiceReply.ended(Ending.STRANGE, "its answer", "it hangs up at once")
                    : ServiceReply.answered(0, List.of());
        } catch (SocketTimeoutException waits) {
            return ServiceReply.answered(0, List.of());
        }
    }

    static List<String> lines(InputStream in) throws IOException {
        return new String(new BoundedSocket.Bounded(in).readNBytes(LONGEST), StandardCharsets.UTF_8)
                .lines()
                .limit(50)
                .toList();
    }
}
