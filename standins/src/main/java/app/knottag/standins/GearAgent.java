package app.knottag.standins;

import app.knottag.core.reach.Neighbour;
import app.knottag.core.reach.SiteModel;
import app.knottag.core.reach.SiteModel.Station;
import java.io.IOException;
import java.net.InetAddress;
import java.util.List;
import java.util.Map;
import java.util.NavigableMap;
import java.util.TreeMap;
import java.util.function.Supplier;
import java.util.stream.IntStream;
import org.snmp4j.CommandResponder;
import org.snmp4j.CommandResponderEvent;
import org.snmp4j.MessageDispatcherImpl;
import org.snmp4j.MessageException;
import org.snmp4j.PDU;
import org.snmp4j.Snmp;
import org.snmp4j.mp.MPv2c;
import org.snmp4j.mp.StatusInformation;
import org.snmp4j.smi.Address;
import org.snmp4j.smi.Counter32;
import org.snmp4j.smi.Gauge32;
import org.snmp4j.smi.Integer32;
import org.snmp4j.smi.Null;
import org.snmp4j.smi.OID;
import org.snmp4j.smi.OctetString;
import org.snmp4j.smi.TimeTicks;
import org.snmp4j.smi.UdpAddress;
import org.snmp4j.smi.Variable;
import org.snmp4j.smi.VariableBinding;
import org.snmp4j.transport.DefaultUdpTransportMapping;

/**
 * A router and a switch that tell of themselves over SNMP v2c, and of nothing to whoever has other words (RFC 3416, RFC 2863,
 * RFC 4188). What hangs at the switch follows the wires of the shop, which in one place are not as on record.
 */
final class GearAgent implements CommandResponder {

    static final String COMMUNITY = "barn-read";

    private static final int PORT = 10_161;
    private static final int SWITCH_PORTS = 24;
    private static final int UPLINK = 1;
    private static final String IF = "1.3.6.1.2.1.2.2.1.";
    private static final String SWITCH_MAC = "00:00:5E:00:53:F0";

    /** At which port of the switch each device really hangs; everybody else is behind the uplink. */
    private static final Map<String, Integer> LEADS = Map.of(
            "till-1",
            3,
            "till-2",
            4,
            "till-3",
            9,
            "till-4",
            11,
            "staff-clock",
            16,
            "goods-in-printer",
            17,
            "nursery-printer",
            18);

    private static final Map<Integer, Long> BROKEN = Map.of(9, 4_211L);
    private static final int HALF = 18;

    private final Supplier<NavigableMap<OID, Variable>> rows;

    private GearAgent(Supplier<NavigableMap<OID, Variable>> rows) {
        this.rows = rows;
    }

    /** Lets both answer at their addresses. */
    static void serve(Bench bench, InetAddress router, InetAddress shopSwitch) throws IOException {
        listen(router, () -> router(bench.model()));
        listen(shopSwitch, () -> shopSwitch(bench.model()));
    }

    private static void listen(InetAddress at, Supplier<NavigableMap<OID, Variable>> rows) throws IOException {
        var dispatcher = new MessageDispatcherImpl();
        dispatcher.addMessageProcessingModel(new MPv2c());
        var snmp = new Snmp(dispatcher, new DefaultUdpTransportMapping(new UdpAddress(at, PORT)));
        snmp.addCommandResponder(new GearAgent(rows));
        snmp.listen();
    }

    // What they tell

    private static NavigableMap<OID, Variable> named(String name, int days) {
        var rows = new TreeMap<OID, Variable>();
        rows.put(new OID("1.3.6.1.2.1.1.3.0"), new TimeTicks(days * 8_640_000L));
        rows.put(new OID("1.3.6.1.2.1.1.5.0"), new OctetString(name));
        return rows;
    }

    private static void socket(NavigableMap<OID, Variable> rows, int index, String name, boolean up) {
        rows.put(new OID(IF + "2." + index), new OctetString(name));
        rows.put(new OID(IF + "3." + index), new Integer32(6));
        rows.put(new OID(IF + "7." + index), new Integer32(1));
        rows.put(new OID(IF + "8." + index), new Integer32(up ? 1 : 2));
        rows.put(new OID("1.3.6.1.2.1.31.1.1.1.15." + index), new Gauge32(up ? 1_000 : 0));
        rows.put(new OID("1.3.6.1.2.1.10.7.2.1.19." + index), new Integer32(up ? 3 : 1));
    }

    private static NavigableMap<OID, Variable> router(SiteModel model) {
        var rows = named("barn-router", 41);
        for (int n = 1; n <= 4; n++) socket(rows, n, "lan" + n, n <= 2);
        socket(rows, 5, "wan", true);
        for (Neighbour n : model.neighbours()) {
            String net = SiteModel.network(n.address());
            if (net.startsWith("10.44.16") || net.startsWith("10.44.17"))
                rows.put(
                        new OID("1.3.6.1.2.1.4.22.1.2." + (net.startsWith("10.44.16") ? 1 : 2) + "." + n.address()),
                        octets(n.mac().toString()));
        }
        return rows;
    }

    private static NavigableMap<OID, Variable> shopSwitch(SiteModel model) {
        var rows = named("barn-switch", 12);
        var there = model.stations().stream()
                .filter(s -> s.planned().toString().startsWith("10.44.16."))
                .filter(s -> s.role() != SiteModel.Role.GATEWAY || s.id().equals("router"))
                .toList();
        IntStream.rangeClosed(1, SWITCH_PORTS).forEach(n -> {
            socket(rows, 100 + n, "Port " + n, n == UPLINK || there.stream().anyMatch(s -> port(s) == n));
            rows.put(new OID("1.3.6.1.2.1.17.1.4.1.2." + n), new Integer32(100 + n));
            rows.put(new OID(IF + "11." + (100 + n)), new Counter32(n == UPLINK ? 90_412_877 : 301_544));
            rows.put(new OID(IF + "14." + (100 + n)), new Counter32(BROKEN.getOrDefault(n, 0L)));
        });
        rows.put(new OID("1.3.6.1.2.1.10.7.2.1.19." + (100 + HALF)), new Integer32(2));
        rows.put(new OID("1.3.6.1.2.1.31.1.1.1.15." + (100 + HALF)), new Gauge32(100));
        rows.put(new OID(IF + "7.124"), new Integer32(2));
        for (var station : there) learned(rows, station.answering().toString(), port(station));
        rows.put(mac("1.3.6.1.2.1.17.4.3.1.3", SWITCH_MAC), new Integer32(4));
        rows.put(new OID("1.0.8802.1.1.2.1.3.7.1.3.1"), new OctetString("Port " + UPLINK));
        rows.put(new OID("1.0.8802.1.1.2.1.4.1.1.8.0.1.1"), new OctetString("lan2"));
        rows.put(new OID("1.0.8802.1.1.2.1.4.1.1.9.0.1.1"), new OctetString("barn-router"));
        return rows;
    }

    private static int port(Station station) {
        return LEADS.getOrDefault(station.id(), UPLINK);
    }

    private static void learned(NavigableMap<OID, Variable> rows, String mac, int port) {
        rows.put(mac("1.3.6.1.2.1.17.4.3.1.2", mac), new Integer32(port));
        rows.put(mac("1.3.6.1.2.1.17.4.3.1.3", mac), new Integer32(3));
    }

    private static OID mac(String column, String mac) {
        var oid = new StringBuilder(column);
        for (String pair : mac.split(":")) oid.append('.').append(Integer.parseInt(pair, 16));
        return new OID(oid.toString());
    }

    private static OctetString octets(String mac) {
        return OctetString.fromHexString(mac, ':');
    }

    // How they answer

    @Override
    public <A extends Address> void processPdu(CommandResponderEvent<A> event) {
        var asked = event.getPDU();
        if (!new OctetString(event.getSecurityName()).equals(new OctetString(COMMUNITY))) return;
        event.setProcessed(true);
        var told = rows.get();
        var answer = new PDU(PDU.RESPONSE, List.of());
        answer.setRequestID(asked.getRequestID());
        for (var binding : asked.getVariableBindings()) {
            var at = binding.getOid();
            if (asked.getType() == PDU.GET)
                answer.add(new VariableBinding(at, told.getOrDefault(at, Null.noSuchInstance)));
            else
                for (int n = asked.getType() == PDU.GETBULK ? asked.getMaxRepetitions() : 1; n > 0; n--) {
                    var next = told.higherEntry(at);
                    answer.add(
                            next == null
                                    ? new VariableBinding(at, Null.endOfMibView)
                                    : new VariableBinding(next.getKey(), next.getValue()));
                    if (next == null) break;
                    at = next.getKey();
                }
        }
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
            System.err.println("An answer of the gear could not be sent: " + e.getMessage());
        }
    }
}
