package app.knottag.server.probe;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.gear.GearAccess;
import app.knottag.core.gear.GearAccess.Auth;
import app.knottag.core.gear.GearAccess.Privacy;
import app.knottag.core.gear.GearAccess.Version;
import app.knottag.core.gear.GearColumn;
import app.knottag.core.gear.GearProbe.GearSilent;
import app.knottag.core.gear.GearReader;
import app.knottag.core.gear.Walked;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.function.BiFunction;
import java.util.stream.Collectors;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.snmp4j.CommandResponder;
import org.snmp4j.CommandResponderEvent;
import org.snmp4j.MessageDispatcherImpl;
import org.snmp4j.MessageException;
import org.snmp4j.PDU;
import org.snmp4j.Snmp;
import org.snmp4j.mp.MPv2c;
import org.snmp4j.mp.StatusInformation;
import org.snmp4j.smi.Address;
import org.snmp4j.smi.Integer32;
import org.snmp4j.smi.Null;
import org.snmp4j.smi.OID;
import org.snmp4j.smi.OctetString;
import org.snmp4j.smi.UdpAddress;
import org.snmp4j.smi.VariableBinding;
import org.snmp4j.transport.DefaultUdpTransportMapping;

/** Gear that behaves as badly as it can, over real sockets. */
class GearTalkTest {

    private static final Ipv4Address SWITCH = Ipv4Address.parse("10.7.0.2");
    private static final GearAccess ACCESS = new GearAccess(Version.V2C, "words", Auth.NONE, "", Privacy.NONE, "");
    private static final OID NAME = oid(GearColumn.NAME);
    private static final OID PORTS = oid(GearColumn.FORWARDING);

    private static OID oid(GearColumn column) {
        return new OID(column.oid().stream().map(String::valueOf).collect(Collectors.joining(".")));
    }

    /** What comes of walking gear that answers what is asked for with this many rows. */
    private static Walked walk(BiFunction<OID, Integer, List<VariableBinding>> answers) throws IOException {
        var dispatcher = new MessageDispatcherImpl();
        dispatcher.addMessageProcessingModel(new MPv2c());
        var loopback = InetAddress.getLoopbackAddress();
        try (var transport = new DefaultUdpTransportMapping(new UdpAddress(loopback, 0));
                var agent = new Snmp(dispatcher, transport)) {
            agent.addCommandResponder(new Answering(answers));
            agent.listen();
            int port = transport.getListenAddress().getPort();
            return new GearTalk(new Dialer() {
                        @Override
                        public InetSocketAddress dialled(Ipv4Address address, int asked) {
                            return new InetSocketAddress(loopback, port);
                        }

                        @Override
                        public List<Ipv4Address> lookup(String name, List<Ipv4Address> resolvers) {
                            return List.of();
                        }
                    })
                    .walk(SWITCH, ACCESS);
        }
    }

    private record Answering(BiFunction<OID, Integer, List<VariableBinding>> answers) implements CommandResponder {
        @Override
        public <A extends Address> void processPdu(CommandResponderEvent<A> event) {
            var asked = event.getPDU();
            event.setProcessed(true);
            var said = answers.apply(asked.get(0).getOid(), asked.getMaxRepetitions());
            if (said.isEmpty()) return;
            var answer = new PDU(PDU.RESPONSE, said);
            answer.setRequestID(asked.getRequestID());
            try {
                event.getMessageDispatcher()
                        .returnResponsePdu(
                                event.getMessageProcessingModel(),
                                event.getSecurityModel(),
                                event.getSecurityName(),
                                event.getSecurityLevel(),
                                answer,
                                event.getMaxSizeResponsePDU(),
                                event.getStateReference(),
                                new StatusInformation());
            } catch (MessageException e) {
                throw new IllegalStateException(e);
            }
        }
    }

    private static List<VariableBinding> end(OID at) {
        return List.of(new VariableBinding(at, Null.endOfMibView));
    }

    private static List<VariableBinding> named(OID at, String name) {
        return at.equals(NAME) ? List.of(new VariableBinding(new OID(NAME + ".0"), new OctetString(name))) : List.of();
    }

    @DisplayName("A table without an end is cut, and said to be")
    @Test
    void endless() throws IOException {
        var walked = walk((at, rows) -> {
            if (at.startsWith(NAME)) return at.equals(NAME) ? named(at, "sw") : end(at);
            if (!at.startsWith(PORTS)) return end(at);
            var said = new ArrayList<VariableBinding>();
            long last = at.size() > PORTS.size() ? at.last() & 0xFFFF_FFFFL : 0;
            for (int n = 1; n <= rows; n++)
                said.add(new VariableBinding(
                        new OID(PORTS + ".0.0.94." + ((last + n) >> 16) + "." + ((last + n) >> 8 & 255) + "."
                                + (last + n)),
                        new Integer32(n)));
            return said;
        });
        assertThat(walked.cut()).containsExactly(GearColumn.FORWARDING);
        assertThat(walked.of(GearColumn.FORWARDING).size()).isBetween(20_000, 20_100);
        assertThat(GearReader.read(walked).remarks()).anyMatch(r -> r.startsWith("It was not read to the end"));
    }

    @DisplayName("Whoever goes round in circles is asked no more")
    @Test
    void circles() throws IOException {
        int[] asked = new int[1];
        var walked = walk((at, rows) -> {
            asked[0]++;
            if (at.startsWith(NAME)) return at.equals(NAME) ? named(at, "sw") : end(at);
            if (!at.startsWith(PORTS)) return end(at);
            return List.of(
                    new VariableBinding(new OID(PORTS + ".0.0.94.0.83.2"), new Integer32(2)),
                    new VariableBinding(new OID(PORTS + ".0.0.94.0.83.1"), new Integer32(1)));
        });
        assertThat(walked.cut()).containsExactly(GearColumn.FORWARDING);
        assertThat(walked.of(GearColumn.FORWARDING)).hasSize(1);
        assertThat(asked[0]).isLessThan(2 * GearColumn.values().length);
    }

    @DisplayName("Long and hostile words are cut and shown harmless; a row of another shape is nobody")
    @Test
    void hostile() throws IOException {
        var walked = walk((at, rows) -> {
            if (at.equals(NAME)) return named(at, "<script>\u0000\u001b[2J" + "x".repeat(400));
            if (at.equals(PORTS))
                return List.of(
                        new VariableBinding(new OID(PORTS + ".0.0.94.0.83.1.9.9"), new Integer32(2)),
                        new VariableBinding(new OID(PORTS + ".0.0.94.0.999.1"), new Integer32(2)),
                        new VariableBinding(new OID(PORTS + ".1"), new OctetString("where")));
            return end(at);
        });
        assertThat(walked.of(GearColumn.NAME).get(0).octets()).hasSize(255);
        var read = GearReader.read(walked);
        assertThat(read.name()).startsWith("<script>??[2Jxxx").hasSizeLessThan(70);
        assertThat(read.remarks()).anyMatch(r -> r.startsWith("It tells no forwarding table"));
    }

    @DisplayName(
            "Gear that is silent at many rows at once is asked for few; one that falls silent is not read to the end")
    @Test
    void slow() throws IOException {
        long begun = System.nanoTime();
        var walked = walk((at, rows) -> {
            if (at.equals(NAME)) return named(at, "sw");
            if (rows > 4) return List.of();
            if (at.equals(PORTS))
                return List.of(new VariableBinding(new OID(PORTS + ".0.0.94.0.83.1"), new Integer32(7)));
            return at.startsWith(PORTS) ? List.of() : end(at);
        });
        assertThat(walked.of(GearColumn.FORWARDING)).hasSize(1);
        assertThat(walked.cut()).containsExactly(GearColumn.FORWARDING);
        assertThat(Duration.ofNanos(System.nanoTime() - begun)).isLessThan(Duration.ofSeconds(30));
    }

    @DisplayName("Whoever says nothing at all is told so, with what to look at")
    @Test
    void silent() {
        assertThatThrownBy(() -> walk((at, rows) -> List.of()))
                .isInstanceOf(GearSilent.class)
                .hasMessageStartingWith("10.7.0.2 did not answer. Is SNMP switched on there")
                .hasMessageNotContaining("words");
    }
}
