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
import java.net.DatagramPacket;
import java.net.DatagramSocket;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.ByteBuffer;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.function.BiFunction;
import java.util.stream.Collectors;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.snmp4j.PDU;
import org.snmp4j.asn1.BER;
import org.snmp4j.asn1.BERInputStream;
import org.snmp4j.asn1.BEROutputStream;
import org.snmp4j.asn1.BERSerializable;
import org.snmp4j.smi.Integer32;
import org.snmp4j.smi.Null;
import org.snmp4j.smi.OID;
import org.snmp4j.smi.OctetString;
import org.snmp4j.smi.VariableBinding;

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
        try (var agent = new DatagramSocket(0, InetAddress.getLoopbackAddress())) {
            var thread = new Thread(() -> {
                try {
                    while (true) answer(agent, answers);
                } catch (IOException closed) {
                    // The caller has had enough.
                }
            });
            thread.setDaemon(true);
            thread.start();
            var at = (InetSocketAddress) agent.getLocalSocketAddress();
            return new GearTalk(new Dialer() {
                        @Override
                        public InetSocketAddress dialled(Ipv4Address address, int asked) {
                            return at;
                        }

                        @Override
                        public List<Ipv4Address> lookup(String name, List<Ipv4Address> resolvers) {
                            return List.of();
                        }
                    })
                    .walk(SWITCH, ACCESS);
        }
    }

    /** Reads a message of version, community and question (RFC 3416, RFC 1901), and says what comes back. */
    private static void answer(DatagramSocket agent, BiFunction<OID, Integer, List<VariableBinding>> answers)
            throws IOException {
        var packet = new DatagramPacket(new byte[4_096], 4_096);
        agent.receive(packet);
        var in = new BERInputStream(ByteBuffer.wrap(packet.getData(), 0, packet.getLength()));
        BER.decodeHeader(in, new BER.MutableByte());
        var version = new Integer32();
        var community = new OctetString();
        var asked = new PDU();
        for (var part : List.of(version, community, asked)) part.decodeBER(in);
        var said = answers.apply(asked.get(0).getOid(), asked.getMaxRepetitions());
        if (said.isEmpty()) return;
        var told = new PDU(PDU.RESPONSE, said);
        told.setRequestID(asked.getRequestID());
        var parts = List.of(version, community, told);
        int length = parts.stream().mapToInt(BERSerializable::getBERLength).sum();
        var out = new BEROutputStream(ByteBuffer.allocate(length + 8));
        BER.encodeHeader(out, BER.SEQUENCE, length);
        for (var part : parts) part.encodeBER(out);
        byte[] bytes = Arrays.copyOf(out.getBuffer().array(), out.getBuffer().position());
        agent.send(new DatagramPacket(bytes, bytes.length, packet.getSocketAddress()));
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
