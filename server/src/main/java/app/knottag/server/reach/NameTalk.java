package app.knottag.server.reach;

import app.knottag.core.reach.Heard;
import app.knottag.core.reach.Probes.Call;
import java.io.IOException;
import java.net.InetSocketAddress;
import java.time.Duration;
import java.util.List;
import org.xbill.DNS.DClass;
import org.xbill.DNS.Message;
import org.xbill.DNS.Name;
import org.xbill.DNS.Record;
import org.xbill.DNS.SimpleResolver;
import org.xbill.DNS.Type;

/** Asks a resolver for the root's name servers, which every one that works can tell: over UDP, and over TCP when that is silent. */
final class NameTalk {

    private static final Duration PATIENCE = Duration.ofMillis(1_500);

    private NameTalk() {}

    static Heard hear(InetSocketAddress at, Call call, boolean ownGround) throws IOException {
        try {
            return ask(at, false);
        } catch (IOException silent) {
            return ask(at, true);
        }
    }

    private static Heard ask(InetSocketAddress at, boolean tcp) throws IOException {
        var answer = resolver(at, tcp).send(Message.newQuery(Record.newRecord(Name.root, Type.NS, DClass.IN)));
        return Heard.answered(answer.getRcode(), List.of(tcp ? "over TCP" : "over UDP"));
    }

    static SimpleResolver resolver(InetSocketAddress at, boolean tcp) {
        var resolver = new SimpleResolver(at);
        resolver.setTCP(tcp);
        resolver.setTimeout(PATIENCE);
        resolver.setEDNS(-1);
        return resolver;
    }
}
