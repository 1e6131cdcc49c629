package app.knottag.server.probe;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.gear.GearAccess;
import app.knottag.core.gear.GearAccess.Auth;
import app.knottag.core.gear.GearAccess.Privacy;
import app.knottag.core.gear.GearAccess.Version;
import app.knottag.core.gear.GearColumn;
import app.knottag.core.gear.GearProbe;
import app.knottag.core.gear.Walked;
import app.knottag.core.gear.Walked.Cell;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.EnumMap;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import org.snmp4j.AbstractTarget;
import org.snmp4j.CommunityTarget;
import org.snmp4j.MessageDispatcherImpl;
import org.snmp4j.PDU;
import org.snmp4j.ScopedPDU;
import org.snmp4j.Snmp;
import org.snmp4j.UserTarget;
import org.snmp4j.mp.MPv2c;
import org.snmp4j.mp.MPv3;
import org.snmp4j.mp.SnmpConstants;
import org.snmp4j.security.AuthHMAC192SHA256;
import org.snmp4j.security.AuthMD5;
import org.snmp4j.security.AuthSHA;
import org.snmp4j.security.PrivAES128;
import org.snmp4j.security.PrivDES;
import org.snmp4j.security.SecurityLevel;
import org.snmp4j.security.SecurityProtocols;
import org.snmp4j.security.SecurityProtocols.SecurityProtocolSet;
import org.snmp4j.security.USM;
import org.snmp4j.security.UsmUser;
import org.snmp4j.smi.Null;
import org.snmp4j.smi.OID;
import org.snmp4j.smi.OctetString;
import org.snmp4j.smi.UdpAddress;
import org.snmp4j.smi.Variable;
import org.snmp4j.smi.VariableBinding;
import org.snmp4j.transport.DefaultUdpTransportMapping;

/** Reads gear by SNMP v2c (RFC 3416) or v3 with its users (RFC 3414); asks for what comes next and nothing else. */
final class GearTalk implements GearProbe {

    private static final int PORT = 161;
    private static final Duration PATIENCE = Duration.ofMillis(1_500);
    private static final Duration LONGEST = Duration.ofSeconds(45);
    private static final int RETRIES = 1;
    private static final int AT_ONCE = 24;
    private static final int AT_ONCE_IF_SLOW = 4;

    /** Cells of one column; a switch of a large house has learned a few thousand MACs. */
    private static final int MOST_CELLS = 20_000;

    private static final int LONGEST_TEXT = 255;

    private static final Map<Auth, OID> AUTH =
            Map.of(Auth.MD5, AuthMD5.ID, Auth.SHA, AuthSHA.ID, Auth.SHA256, AuthHMAC192SHA256.ID);
    private static final Map<Privacy, OID> PRIVACY = Map.of(Privacy.DES, PrivDES.ID, Privacy.AES, PrivAES128.ID);

    /** Stands where a user has no key, and is never sent. */
    private static final String NO_KEY = "none.none";

    private final Dialer dialer;

    GearTalk(Dialer dialer) {
        this.dialer = dialer;
    }

    @Override
    public Walked walk(Ipv4Address address, GearAccess access) {
        try (var transport = new DefaultUdpTransportMapping();
                var snmp = new Snmp(new MessageDispatcherImpl(), transport)) {
            var target = target(snmp, access);
            target.setAddress(new UdpAddress(
                    dialer.dialled(address, PORT).getAddress(),
                    dialer.dialled(address, PORT).getPort()));
            target.setTimeout(PATIENCE.toMillis());
            target.setRetries(RETRIES);
            snmp.listen();
            return new Walk(snmp, target, access).all(address);
        } catch (IOException e) {
            throw new GearSilent(address + " cannot be asked from here: " + e.getMessage() + ".");
        }
    }

    private static AbstractTarget<UdpAddress> target(Snmp snmp, GearAccess access) {
        var dispatcher = snmp.getMessageDispatcher();
        if (access.version() == Version.V2C) {
            dispatcher.addMessageProcessingModel(new MPv2c());
            var target = new CommunityTarget<UdpAddress>();
            target.setCommunity(octets(access.name()));
            target.setVersion(SnmpConstants.version2c);
            return target;
        }
        var usm = new USM(
                new SecurityProtocols(SecurityProtocolSet.maxCompatibility),
                new OctetString(MPv3.createLocalEngineID()),
                0);
        dispatcher.addMessageProcessingModel(new MPv3(usm));
        usm.addUser(new UsmUser(
                octets(access.name()),
                AUTH.get(access.auth()),
                octets(access.auth() == Auth.NONE ? NO_KEY : access.authKey()),
                PRIVACY.get(access.privacy()),
                octets(access.privacy() == Privacy.NONE ? NO_KEY : access.privacyKey())));
        var target = new UserTarget<UdpAddress>();
        target.setVersion(SnmpConstants.version3);
        target.setSecurityName(octets(access.name()));
        target.setSecurityLevel(
                access.auth() == Auth.NONE
                        ? SecurityLevel.NOAUTH_NOPRIV
                        : access.privacy() == Privacy.NONE ? SecurityLevel.AUTH_NOPRIV : SecurityLevel.AUTH_PRIV);
        return target;
    }

    private static OctetString octets(String text) {
        return new OctetString(text.getBytes(StandardCharsets.UTF_8));
    }

    /** One reading, column by column. */
    private static final class Walk {

        private final Snmp snmp;
        private final AbstractTarget<UdpAddress> target;
        private final GearAccess access;
        private final long end = System.nanoTime() + LONGEST.toNanos();
        private int atOnce = AT_ONCE;

        Walk(Snmp snmp, AbstractTarget<UdpAddress> target, GearAccess access) {
            this.snmp = snmp;
            this.target = target;
            this.access = access;
        }

        Walked all(Ipv4Address address) throws IOException {
            Map<GearColumn, List<Cell>> columns = new EnumMap<>(GearColumn.class);
            var cut = EnumSet.noneOf(GearColumn.class);
            for (var column : GearColumn.values()) {
                var cells = new ArrayList<Cell>();
                if (!column(column, cells, address)) cut.add(column);
                if (!cells.isEmpty()) columns.put(column, cells);
                if (column == GearColumn.NAME && cut.contains(column)) throw new GearSilent(silent(address));
            }
            return new Walked(columns, cut);
        }

        /** Reads a column, and says whether it was read to its end. */
        private boolean column(GearColumn column, List<Cell> cells, Ipv4Address address) throws IOException {
            var base = new OID(column.oid().stream().mapToInt(Integer::intValue).toArray());
            var at = base;
            while (System.nanoTime() < end && cells.size() < MOST_CELLS) {
                var answer = next(column, at, address);
                if (answer.isEmpty() && atOnce > AT_ONCE_IF_SLOW && column != GearColumn.NAME) {
                    atOnce = AT_ONCE_IF_SLOW;
                    continue;
                }
                if (answer.isEmpty()) return false;
                for (var binding : answer.get()) {
                    var oid = binding.getOid();
                    if (binding.isException() || !oid.startsWith(base)) return true;
                    // An agent that goes backwards would be asked for ever.
                    if (oid.compareTo(at) <= 0) return false;
                    at = oid;
                    cells.add(cell(oid, base, binding.getVariable()));
                }
            }
            return false;
        }

        private Optional<List<? extends VariableBinding>> next(GearColumn column, OID at, Ipv4Address address)
                throws IOException {
            var pdu = access.version() == Version.V3 ? new ScopedPDU() : new PDU();
            pdu.setType(PDU.GETBULK);
            pdu.setMaxRepetitions(column == GearColumn.NAME ? 1 : atOnce);
            pdu.add(new VariableBinding(at, Null.instance));
            var response = Optional.ofNullable(snmp.send(pdu, target).getResponse());
            if (response.filter(r -> r.getType() == PDU.REPORT).isPresent())
                throw new GearSilent(address + " " + refusal(response.get()));
            return response.filter(r -> r.getErrorStatus() == PDU.noError && r.size() > 0)
                    .map(PDU::getVariableBindings);
        }

        private String silent(Ipv4Address address) {
            return address + " did not answer. Is SNMP switched on there, for this machine, and is the "
                    + (access.version() == Version.V2C
                            ? "community right? To a wrong one gear says nothing at all."
                            : "password right, with its kind? To a wrong one some gear says nothing at all.");
        }
    }

    /** Why an agent refuses a user (RFC 3414, 5: usmStats). */
    private static String refusal(PDU report) {
        var oid = report.get(0).getOid();
        if (oid.startsWith(SnmpConstants.usmStatsUnknownUserNames)) return "knows no such user.";
        if (oid.startsWith(SnmpConstants.usmStatsWrongDigests))
            return "does not take the password, or proves it by another kind.";
        if (oid.startsWith(SnmpConstants.usmStatsUnsupportedSecLevels)) return "does not read this user in that way.";
        if (oid.startsWith(SnmpConstants.usmStatsDecryptionErrors))
            return "could not make out what was hidden: the second password or its kind is another.";
        return "refused: " + oid + ".";
    }

    private static Cell cell(OID oid, OID base, Variable value) {
        var index = Arrays.stream(oid.getValue(), base.size(), oid.size())
                .mapToObj(i -> i & 0xFFFF_FFFFL)
                .toList();
        if (value instanceof OctetString octets) {
            byte[] all = octets.getValue();
            return Cell.of(index, all.length > LONGEST_TEXT ? Arrays.copyOf(all, LONGEST_TEXT) : all);
        }
        try {
            return Cell.of(index, Objects.requireNonNull(value).toLong());
        } catch (UnsupportedOperationException otherType) {
            return Cell.of(index, new byte[0]);
        }
    }
}
