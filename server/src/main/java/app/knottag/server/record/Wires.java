package app.knottag.server.record;

import app.knottag.core.hardware.Gear;
import app.knottag.core.hardware.Gear.Port;
import app.knottag.core.hardware.Gear.Type;
import app.knottag.core.hardware.Outlet;
import app.knottag.core.hardware.Wiring;
import app.knottag.core.hardware.Wiring.CableEnd;
import app.knottag.server.record.WiringStore.GearRow;
import java.util.List;
import java.util.Optional;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;

/** Places, outlets and ports by the words that people write for them; what is not on record yet is put there. */
@Service
public class Wires {

    private static final Pattern PORT = Pattern.compile("(.*\\S)\\s+(\\d{1,3})");
    private final WiringStore store;
    private final SiteStore sites;

    Wires(WiringStore store, SiteStore sites) {
        this.store = store;
        this.sites = sites;
    }

    @Transactional(propagation = Propagation.MANDATORY)
    public Long place(long siteId, String name) {
        return name.isEmpty() ? null : Long.valueOf(store.keepPlace(siteId, name));
    }

    @Transactional(propagation = Propagation.MANDATORY)
    public Long outlet(long siteId, String name, Long placeId) {
        return name.isEmpty() ? null : Long.valueOf(store.keepOutlet(siteId, name, placeId));
    }

    /** Returns what is wrong with the words for a port, or empty. */
    public static Optional<String> portProblem(String label) {
        var match = PORT.matcher(label);
        boolean good = label.isEmpty() || (match.matches() && Integer.parseInt(match.group(2)) > 0);
        return good
                ? Optional.empty()
                : Optional.of("Name the gear and the number of its port, such as “Shop switch 11”.");
    }

    @Transactional(propagation = Propagation.MANDATORY)
    public Long port(long siteId, String label) {
        var match = PORT.matcher(label);
        if (!match.matches()) return null;
        long gear = store.keepGear(new GearRow(0, siteId, match.group(1), Type.SWITCH, null));
        return store.keepPort(siteId, gear, Integer.parseInt(match.group(2)));
    }

    public List<Gear> gear(long siteId) {
        var ports = store.ports(siteId).stream().collect(Collectors.groupingBy(WiringStore.PortRow::gearId));
        return store.gear(siteId).stream()
                .map(g -> new Gear(
                        g.id(),
                        g.name(),
                        g.type(),
                        ports.getOrDefault(g.id(), List.of()).stream()
                                .map(p -> new Port(
                                        p.id(), p.number(), p.role(), Optional.ofNullable(p.segmentId()), p.poe()))
                                .toList()))
                .toList();
    }

    public Wiring wiring(long siteId) {
        var outlets = store.outlets(siteId).stream()
                .map(o -> new Outlet(
                        o.id(),
                        o.name(),
                        o.place() == null ? "" : o.place(),
                        o.state(),
                        Optional.ofNullable(o.portId())))
                .toList();
        var names = sites.segments(siteId).stream()
                .collect(Collectors.toMap(SiteStore.SegmentRow::id, SiteStore.SegmentRow::name));
        var ends = store.cableEnds(siteId).stream()
                .map(l -> new CableEnd(
                        l.id(),
                        l.name(),
                        l.place(),
                        l.walk(),
                        l.segmentId(),
                        Optional.ofNullable(l.outletId()),
                        Optional.ofNullable(l.portId()),
                        l.pluggedIn()))
                .toList();
        return new Wiring(gear(siteId), outlets, names, ends);
    }
}
