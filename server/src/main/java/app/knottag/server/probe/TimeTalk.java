package app.knottag.server.probe;

import app.knottag.core.reach.Probes.Call;
import app.knottag.core.reach.ServiceReply;
import app.knottag.core.reach.ServiceReply.Ending;
import java.io.IOException;
import java.net.InetSocketAddress;
import java.time.Duration;
import java.util.List;
import org.apache.commons.net.ntp.NTPUDPClient;

/** Asks a time server once and works out how far its time is from ours (RFC 5905). */
final class TimeTalk {

    private TimeTalk() {}

    static ServiceReply hear(InetSocketAddress at, Call call, boolean ownGround) throws IOException {
        try (var client = new NTPUDPClient()) {
            client.setDefaultTimeout(Duration.ofMillis(Talks.CONNECT_MILLIS));
            var info = client.getTime(at.getAddress(), at.getPort());
            info.computeDetails();
            return info.getOffset() == null
                    ? ServiceReply.ended(Ending.STRANGE, "its answer")
                    : ServiceReply.answered(0, List.of())
                            .telling(new ServiceReply.Time(
                                    Duration.ofMillis(info.getOffset()),
                                    info.getMessage().getStratum(),
                                    info.getMessage().getLeapIndicator()));
        }
    }
}
