package app.knottag.server.probe;

import app.knottag.core.reach.Probes.Call;
import app.knottag.core.reach.ServiceReply;
import com.hierynomus.smbj.SMBClient;
import com.hierynomus.smbj.SmbConfig;
import java.io.IOException;
import java.net.InetSocketAddress;
import java.net.Socket;
import java.time.Duration;
import java.util.List;
import java.util.concurrent.TimeUnit;

/** Agrees with a file server upon a dialect, and leaves before anybody would sign in. */
final class FileTalk {

    private FileTalk() {}

    static ServiceReply hear(InetSocketAddress at, Call call, boolean ownGround) throws IOException {
        // The library takes whatever goes wrong for the server's word; whether anybody is there is asked before.
        try (var socket = new Socket()) {
            socket.connect(at, Talks.CONNECT_MILLIS);
        }
        var config = SmbConfig.builder()
                .withTimeout(Talks.CONNECT_MILLIS, TimeUnit.MILLISECONDS)
                .withSoTimeout(Talks.CONNECT_MILLIS, TimeUnit.MILLISECONDS)
                .build();
        try (var client = new SMBClient(config);
                var connection = client.connect(at.getAddress().getHostAddress(), at.getPort())) {
            String dialect = connection.getNegotiatedProtocol().getDialect().name();
            long behind = connection.getConnectionContext().getTimeOffsetMillis();
            return ServiceReply.answered(
                            0, List.of("dialect " + dialect.replace("SMB_", "").replace('_', '.')))
                    .telling(new ServiceReply.OwnClock(Duration.ofMillis(-behind)));
        }
    }
}
