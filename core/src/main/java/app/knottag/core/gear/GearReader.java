package app.knottag.core.gear;

import static app.knottag.core.gear.GearColumn.*;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.gear.GearReading.Duplex;
import app.knottag.core.gear.GearReading.Link;
import app.knottag.core.gear.GearReading.Neighbour;
import app.knottag.core.gear.GearReading.Port;
import app.knottag.core.gear.GearReading.Power;
import app.knottag.core.gear.Walked.Cell;
import app.knottag.core.hardware.Mac;
import app.knottag.core.reading.Printable;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;

/** Makes a {@link GearReading} of the columns that a piece of gear told. Whatever it told, nothing is thrown. */
public final class GearReader {

    /** Kinds of interface that have a socket (IANA ifType): Ethernet under its old and new names. */
    private static final Set<Long> SOCKETS = Set.of(6L, 62L, 69L, 117L);

    private static final String NO_SOCKET =
            "(?i)(lo|br|br-.+|bond|docker|veth.*|tun|tap|wg|vlan|dummy|ppp|wlan|cpu|null)[-_ ]?\\d*|.*[.]\\d+";
    private static final int OCTETS = 6;
    private static final int V4 = 1;
    private static final long LEARNED = 3;
    private static final long INVALID = 2;
    private static final long STALE = 2;
    private static final long MILLION = 1_000_000;
    private static final long CENTISECONDS = 100;
    /** Neighbours that are there: reachable, being asked again, or of unknown state (RFC 4293); a stale one may be long gone. */
    private static final Set<Long> THERE = Set.of(1L, 3L, 4L, 6L);

    private final Walked walked;
    private final Map<Long, Long> bridgePorts = new HashMap<>();
    private final Map<Long, Set<Mac>> learned = new HashMap<>();
    private final Map<Long, String> others = new HashMap<>();
    private final List<String> remarks = new ArrayList<>();
    private boolean half;

    private GearReader(Walked walked) {
        this.walked = walked;
    }

    /** Reads what was told. */
    public static GearReading read(Walked walked) {
        return new GearReader(walked).read();
    }

    private GearReading read() {
        each(BRIDGE_PORT).forEach(bridgePorts::put);
        learn();
        others();
        var ports = ports();
        var neighbours = neighbours();
        if (ports.isEmpty()) remarks.add("It tells nothing of its ports.");
        if (learned.isEmpty() && !half)
            remarks.add("It tells no forwarding table, so it does not show who hangs at which port.");
        if (!walked.cut().isEmpty())
            remarks.add("It was not read to the end: what is not shown may be there all the same.");
        return new GearReading(
                first(NAME).map(c -> Printable.shown(c.text())).orElse(""),
                first(UP_TIME).map(c -> c.number() / CENTISECONDS),
                ports,
                neighbours,
                remarks);
    }

    private Optional<Cell> first(GearColumn column) {
        return walked.of(column).stream().findFirst();
    }

    /** The numbers of a column that has one index. */
    private Map<Long, Long> each(GearColumn column) {
        var all = new HashMap<Long, Long>();
        for (var c : walked.of(column))
            if (c.index().size() == 1) all.put(c.index().get(0), c.number());
        return all;
    }

    private Map<Long, String> words(GearColumn column) {
        var all = new HashMap<Long, String>();
        for (var c : walked.of(column))
            if (c.index().size() == 1 && !c.text().isEmpty()) all.put(c.index().get(0), c.text());
        return all;
    }

    private static Optional<Mac> mac(List<Long> six) {
        if (six.size() != OCTETS) return Optional.empty();
        long bits = 0;
        for (long octet : six) {
            if (octet < 0 || octet > 255) return Optional.empty();
            bits = bits << 8 | octet;
        }
        return Optional.of(new Mac(bits)).filter(m -> m.bits() != 0 && !m.group());
    }

    private static Optional<Mac> mac(byte[] octets) {
        var six = new ArrayList<Long>();
        for (byte octet : octets) six.add(octet & 0xFFL);
        return mac(six);
    }

    // Who was learned where

    private void learn() {
        var table = walked.of(VLAN_FORWARDING).isEmpty()
                ? List.of(FORWARDING, FORWARDING_STATUS)
                : List.of(VLAN_FORWARDING, VLAN_FORWARDING_STATUS);
        // Of half a table nothing can be said: who is missing may be in the other half, and few behind a port may be
        // many.
        half = walked.cut().contains(table.get(0)) || walked.cut().contains(BRIDGE_PORT);
        if (half) remarks.add("Its forwarding table was not read to the end, so who hangs at which port is not shown.");
        else learn(table.get(0), table.get(1), table.get(0) == FORWARDING ? 0 : 1);
    }

    private void learn(GearColumn ports, GearColumn states, int before) {
        var state = new HashMap<List<Long>, Long>();
        for (var c : walked.of(states)) state.put(c.index(), c.number());
        for (var c : walked.of(ports)) {
            if (c.index().size() != before + OCTETS || c.number() <= 0) continue;
            if (state.getOrDefault(c.index(), LEARNED) != LEARNED) continue;
            mac(c.index().subList(before, before + OCTETS))
                    .ifPresent(m -> learned.computeIfAbsent(interfaceOf(c.number()), p -> new LinkedHashSet<>())
                            .add(m));
        }
    }

    /** A bridge that does not say which interfaces its ports are is taken to number them alike. */
    private long interfaceOf(long bridgePort) {
        return bridgePorts.getOrDefault(bridgePort, bridgePort);
    }

    // Who is at the other end

    private void others() {
        var own = new HashMap<String, Long>();
        words(DESCRIPTION).forEach((i, name) -> own.put(name, i));
        words(SHORT_NAME).forEach((i, name) -> own.put(name, i));
        var names = new HashMap<Long, String>();
        words(LLDP_OWN_DESCRIPTION).forEach(names::put);
        words(LLDP_OWN_PORT).forEach((p, name) -> {
            if (own.containsKey(name)) names.put(p, name);
        });
        var ends = new HashMap<List<Long>, String>();
        for (var c : walked.of(LLDP_OTHER_PORT)) ends.put(c.index(), c.text());
        for (var c : walked.of(LLDP_OTHER_NAME)) {
            if (c.index().size() != 3) continue;
            var at = Optional.ofNullable(own.get(names.getOrDefault(c.index().get(1), "")));
            String end = ends.getOrDefault(c.index(), "");
            String name = c.text().isEmpty() ? end : c.text() + (end.isEmpty() ? "" : ", " + end);
            at.ifPresent(i -> others.merge(i, Printable.shown(name), (a, b) -> a + "; " + b));
        }
    }

    // Ports

    private List<Port> ports() {
        var types = each(TYPE);
        var descriptions = words(DESCRIPTION);
        var names = words(SHORT_NAME);
        var speeds = each(SPEED);
        var fast = each(FAST_SPEED);
        var switched = each(SWITCHED);
        var links = each(LINK);
        var errors = each(ERRORS);
        var packets = each(PACKETS);
        var duplexes = each(DUPLEX);
        var bridged = new HashSet<>(bridgePorts.values());
        var ports = new ArrayList<Port>();
        var power = power();
        var all = new TreeSet<>(types.keySet());
        all.addAll(learned.keySet());
        for (long i : all) {
            String label = names.getOrDefault(i, descriptions.getOrDefault(i, "no. " + i + " of its list"));
            // Whoever was learned at a group of ports or over the air was heard all the same.
            if (!learned.containsKey(i) && !socket(types.get(i), label, bridged.isEmpty() || bridged.contains(i)))
                continue;
            boolean up = links.getOrDefault(i, 0L) == 1;
            ports.add(new Port(
                    Printable.shown(label),
                    link(switched.getOrDefault(i, 0L), links.getOrDefault(i, 0L)),
                    up ? fast.getOrDefault(i, speed(speeds.getOrDefault(i, 0L))) : 0,
                    up ? duplex(duplexes.getOrDefault(i, 0L)) : Duplex.UNKNOWN,
                    errors.getOrDefault(i, 0L),
                    packets.getOrDefault(i, 0L),
                    PortNames.printed(label).map(n -> power.get((long) n)),
                    others.getOrDefault(i, ""),
                    List.copyOf(learned.getOrDefault(i, Set.of()))));
        }
        return ports;
    }

    private static boolean socket(long type, String label, boolean bridged) {
        return SOCKETS.contains(type) && !label.matches(NO_SOCKET) && (bridged || label.matches("(?i).*wan.*"));
    }

    private static Link link(long switched, long link) {
        if (switched == 2) return Link.SWITCHED_OFF;
        return link == 1 ? Link.UP : link == 2 || link == 7 || link == 6 ? Link.DOWN : Link.UNKNOWN;
    }

    /** In Mbit/s; the largest figure only says that it is faster than it can count (RFC 2863, 3.1.9). */
    private static long speed(long told) {
        return told == 0xFFFF_FFFFL ? 0 : told / MILLION;
    }

    private static Duplex duplex(long told) {
        return told == 2 ? Duplex.HALF : told == 3 ? Duplex.FULL : Duplex.UNKNOWN;
    }

    /** How each port feeds power, by its number in the first group: with several, which unit is which is not said. */
    private Map<Long, Power> power() {
        var power = new HashMap<Long, Power>();
        var groups = new HashSet<Long>();
        for (var c : walked.of(POWER))
            if (c.index().size() == 2) {
                groups.add(c.index().get(0));
                switch ((int) c.number()) {
                    case 1 -> power.put(c.index().get(1), Power.OFF);
                    case 2 -> power.put(c.index().get(1), Power.SEARCHING);
                    case 3 -> power.put(c.index().get(1), Power.FEEDING);
                    case 4, 6 -> power.put(c.index().get(1), Power.FAULT);
                    default -> {}
                }
            }
        return groups.size() > 1 ? Map.of() : power;
    }

    // Neighbours

    private List<Neighbour> neighbours() {
        var there = new TreeMap<Ipv4Address, Set<Mac>>();
        var states = new HashMap<List<Long>, Long>();
        for (var c : walked.of(NEIGHBOUR_STATE)) states.put(c.index(), c.number());
        int stale = 0;
        for (var c : walked.of(NEIGHBOUR)) {
            var index = c.index();
            if (index.size() != 7 || index.get(1) != V4 || index.get(2) != 4) continue;
            if (THERE.contains(states.getOrDefault(index, 6L))) add(there, index.subList(3, 7), c);
            else if (states.get(index) == STALE && mac(c.octets()).isPresent()) stale++;
        }
        // The old table says nothing of age, and is only asked where the new one is not there.
        if (walked.of(NEIGHBOUR).isEmpty()) {
            for (var c : walked.of(OLD_NEIGHBOUR_TYPE)) states.put(c.index(), c.number());
            for (var c : walked.of(OLD_NEIGHBOUR))
                if (c.index().size() == 5 && states.getOrDefault(c.index(), 3L) != INVALID)
                    add(there, c.index().subList(1, 5), c);
        }
        if (stale > 0)
            remarks.add((stale == 1
                            ? "One neighbour that it has not talked with lately may be gone, and is"
                            : stale + " neighbours that it has not talked with lately may be gone, and are")
                    + " not taken as seen.");
        return there.entrySet().stream()
                .flatMap(e -> e.getValue().stream().map(m -> new Neighbour(e.getKey(), m)))
                .toList();
    }

    private static void add(Map<Ipv4Address, Set<Mac>> there, List<Long> address, Cell cell) {
        if (address.stream().anyMatch(g -> g > 255)) return;
        long value = 0;
        for (long group : address) value = value << 8 | group;
        var at = Ipv4Address.ofNumber(value);
        mac(cell.octets())
                .ifPresent(m ->
                        there.computeIfAbsent(at, a -> new LinkedHashSet<>()).add(m));
    }
}
