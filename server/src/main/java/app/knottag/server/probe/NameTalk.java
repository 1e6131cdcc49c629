package app.knottag.server.probe;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.reach.Probes.Call;
import app.knottag.core.reach.ServiceReply;
import java.io.IOException;
import java.net.Inet4Address;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.UnknownHostException;
import java.time.Duration;
import java.util.Arrays;
import java.util.List;
import org.xbill.DNS.ARecord;
import org.xbill.DNS.DClass;
import org.xbill.DNS.Message;
import org.xbill.DNS.Name;
import org.xbill.DNS.Record;
import org.xbill.DNS.Section;
import org.xbill.DNS.SimpleResolver;
import org.xbill.DNS.Type;

/** Asks a resolver for the root's name servers, which every one that works can tell: over UDP, and over TCP when that is silent. */
final class NameTalk {

    private static final Duration PATIENCE = Duration.ofMillis(1_500);

    private static final int PORT = 53;

    private static final NamesOverTcp OVER_TCP = new NamesOverTcp();

    private NameTalk() {}

    static ServiceReply hear(InetSocketAddress at, Call call, boolean ownGround) throws IOException {
        try {
            return ask(at, false);
        } catch (IOException silent) {
            return ask(at, true);
        }
    }

    private static ServiceReply ask(InetSocketAddress at, boolean tcp) throws IOException {
        var answer = resolver(at, tcp).send(Message.newQuery(Record.newRecord(Name.root, Type.NS, DClass.IN)));
        return ServiceReply.answered(answer.getRcode(), List.of()).telling(new ServiceReply.Names(!tcp));
    }

    static SimpleResolver resolver(InetSocketAddress at, boolean tcp) {
        var resolver = new SimpleResolver(at);
        resolver.setTCP(tcp);
        resolver.setIoClientFactory(OVER_TCP);
        resolver.setTimeout(PATIENCE);
        resolver.setEDNS(-1);
        return resolver;
    }

    /** Returns what the first of these resolvers that answers knows of a name; without resolvers, what this machine's own know. */
    static List<Ipv4Address> lookup(String name, List<Ipv4Address> resolvers, Dialer dialer) {
        if (resolvers.isEmpty()) return own(name);
        for (var resolver : resolvers)
            try {
                var asked = Message.newQuery(Record.newRecord(Name.fromString(name + "."), Type.A, DClass.IN));
                return either(dialer.dialled(resolver, PORT), asked).getSection(Section.ANSWER).stream()
                        .filter(ARecord.class::isInstance)
                        .map(r -> Dialer.plain(((ARecord) r).getAddress()))
                        .toList();
            } catch (IOException silent) {
                // The next one may answer.
            }
        return List.of();
    }

    private static Message either(InetSocketAddress at, Message asked) throws IOException {
        try {
            return resolver(at, false).send(asked);
        } catch (IOException silent) {
            return resolver(at, true).send(asked);
        }
    }

    private static List<Ipv4Address> own(String name) {
        try {
            return Arrays.stream(InetAddress.getAllByName(name))
                    .filter(Inet4Address.class::isInstance)
                    .map(Dialer::plain)
                    .toList();
        } catch (UnknownHostException e) {
            return List.of();
        }
    }
}
