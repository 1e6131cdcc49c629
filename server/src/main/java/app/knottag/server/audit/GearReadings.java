package app.knottag.server.audit;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.gear.GearAccess;
import app.knottag.core.gear.GearProbe;
import app.knottag.core.gear.GearProbe.GearSilent;
import app.knottag.core.gear.GearReader;
import app.knottag.core.gear.GearReading;
import app.knottag.core.gear.PortJudge;
import app.knottag.core.gear.PortJudge.Device;
import app.knottag.core.gear.PortLine;
import app.knottag.core.gear.PortNames;
import app.knottag.core.hardware.Gear;
import app.knottag.core.hardware.Mac;
import app.knottag.core.hardware.Outlet;
import app.knottag.core.plan.Sighting;
import app.knottag.core.plan.Sighting.Source;
import app.knottag.core.reach.AllowedTargets;
import app.knottag.server.audit.GearStore.HeardAt;
import app.knottag.server.audit.GearStore.PortRow;
import app.knottag.server.audit.GearStore.ReadingRow;
import app.knottag.server.db.Claims;
import app.knottag.server.db.Claims.Work;
import app.knottag.server.db.Json;
import app.knottag.server.log.Log;
import app.knottag.server.record.EvidenceStore;
import app.knottag.server.record.EvidenceStore.RecordedRow;
import app.knottag.server.record.SightingStore;
import app.knottag.server.record.SightingStore.SightingRow;
import app.knottag.server.record.SiteStore;
import app.knottag.server.record.SiteStore.SegmentRow;
import app.knottag.server.record.Sites;
import app.knottag.server.record.Wires;
import app.knottag.server.record.WiringStore;
import app.knottag.server.record.WiringStore.CableRow;
import app.knottag.server.record.WiringStore.OutletRow;
import app.knottag.server.web.Problem;
import java.time.Clock;
import java.time.Instant;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.stream.Collectors;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionTemplate;
import tools.jackson.databind.json.JsonMapper;

/** Reads routers and switches, keeps what they told, and holds it against the record. */
@Service
class GearReadings {

    private final GearStore store;
    private final WiringStore wiring;
    private final Wires wires;
    private final SiteStore siteStore;
    private final Sites sites;
    private final EvidenceStore evidence;
    private final SightingStore sightings;
    private final GearProbe probe;
    private final Log log;
    private final Clock clock;
    private final TransactionTemplate transactions;
    private final JsonMapper json;
    private final Claims claims;

    GearReadings(
            GearStore store,
            WiringStore wiring,
            Wires wires,
            SiteStore siteStore,
            Sites sites,
            EvidenceStore evidence,
            SightingStore sightings,
            GearProbe probe,
            Log log,
            Clock clock,
            TransactionTemplate transactions,
            JsonMapper json,
            Claims claims) {
        this.store = store;
        this.wiring = wiring;
        this.wires = wires;
        this.siteStore = siteStore;
        this.sites = sites;
        this.evidence = evidence;
        this.sightings = sightings;
        this.probe = probe;
        this.log = log;
        this.clock = clock;
        this.transactions = transactions;
        this.json = json;
        this.claims = claims;
    }

    /** When, by whom and where a piece of gear was read, and what it told. */
    record Read(Instant at, String by, GearReading reading) {}

    /**
     * A piece of gear with what it told.
     *
     * @param address where it was read last, or where a router is taken to be
     * @param why why its ports could not be told apart, or empty
     */
    record Told(Gear gear, Optional<Ipv4Address> address, Optional<Read> read, String why, List<PortLine> lines) {}

    /** Returns all gear of a site. */
    @Transactional(readOnly = true)
    public List<Told> all(long siteId) {
        sites.site(siteId);
        var read = store.readings(siteId).stream().collect(Collectors.toMap(ReadingRow::gearId, r -> r));
        var devices = read.isEmpty() ? List.<Device>of() : devices(siteId);
        var gateway = siteStore.segments(siteId).stream()
                .map(SegmentRow::gateway)
                .filter(Objects::nonNull)
                .findFirst();
        return wires.gear(siteId).stream()
                .map(g -> Optional.ofNullable(read.get(g.id()))
                        .map(r -> told(g, r, devices))
                        .orElseGet(() -> new Told(
                                g, gateway.filter(a -> g.type() == Gear.Type.ROUTER), Optional.empty(), "", List.of())))
                .toList();
    }

    private Told told(Gear gear, ReadingRow row, List<Device> devices) {
        var reading = json.readValue(row.reading().text(), GearReading.class);
        return new Told(
                gear,
                Optional.of(row.address()),
                Optional.of(new Read(row.at(), row.by(), reading)),
                PortNames.match(gear, reading.ports()).why(),
                PortJudge.of(gear, reading, devices));
    }

    private List<Device> devices(long siteId) {
        var ports = new HashMap<Long, String>();
        wiring.ports(siteId).forEach(p -> ports.put(p.id(), p.gear() + " " + p.number()));
        var outlets = new HashMap<Long, Long>();
        for (OutletRow o : wiring.outlets(siteId))
            if (o.state() == Outlet.State.PATCHED) outlets.put(o.id(), Objects.requireNonNull(o.portId()));
        var cables = wiring.cableEnds(siteId).stream().collect(Collectors.toMap(CableRow::id, c -> c));
        var macs = evidence.recorded(siteId).stream().collect(Collectors.groupingBy(RecordedRow::id));
        return macs.entrySet().stream()
                .map(e -> {
                    var cable = Optional.ofNullable(cables.get(e.getKey()));
                    var port = cable.map(CableRow::portId)
                            .or(() -> cable.map(CableRow::outletId).map(outlets::get));
                    return new Device(
                            e.getKey(),
                            e.getValue().get(0).name(),
                            e.getValue().stream()
                                    .map(RecordedRow::mac)
                                    .filter(Objects::nonNull)
                                    .toList(),
                            port,
                            port.map(ports::get).orElse(""));
                })
                .toList();
    }

    /** Reads a piece of gear now; what it told is kept, and the words by which it let itself be read are not. */
    void read(long gearId, Ipv4Address address, GearAccess access, String by) {
        long siteId =
                Optional.ofNullable(store.siteOf(gearId)).orElseThrow(() -> Problem.notFound("There is no such gear."));
        var ground = siteStore.segments(siteId).stream().map(SegmentRow::prefix).toList();
        if (!AllowedTargets.own(address, ground))
            throw Problem.field(
                    "address",
                    "not-ours",
                    address
                            + " is in none of this site's segments, and nothing else is asked. Plan its segment first.");
        if (!claims.alone(Work.GEAR, gearId, () -> readAlone(siteId, gearId, address, access, by)))
            throw Problem.of(HttpStatus.CONFLICT, "reading-runs", "This is being read just now. Wait for that.");
    }

    private void readAlone(long siteId, long gearId, Ipv4Address address, GearAccess access, String by) {
        try {
            var reading = GearReader.read(probe.walk(address, access));
            transactions.executeWithoutResult(t -> keep(siteId, gearId, address, reading, by));
        } catch (GearSilent e) {
            throw Problem.of(HttpStatus.CONFLICT, "gear-silent", e.getMessage());
        }
    }

    private void keep(long siteId, long gearId, Ipv4Address address, GearReading reading, String by) {
        var at = clock.instant();
        var gear = wires.gear(siteId).stream()
                .filter(g -> g.id() == gearId)
                .findFirst()
                .orElseThrow(() -> Problem.notFound("It was taken off the record while it was read."));
        store.keep(new ReadingRow(gearId, siteId, address, at, by, new Json(json.writeValueAsString(reading))));
        var ground = siteStore.segments(siteId).stream().map(SegmentRow::prefix).toList();
        var near = reading.neighbours().stream()
                .filter(n -> AllowedTargets.own(n.address(), ground))
                .map(n -> SightingRow.heard(n.address(), n.mac(), at))
                .toList();
        sightings.add(siteId, near, by);
        if (!near.isEmpty()) sightings.looked(siteId, Source.NEIGHBOURS, at);
        var heard = PortJudge.of(gear, reading, List.of()).stream()
                .filter(l -> !l.through())
                .flatMap(l -> l.read().stream()
                        .flatMap(p -> p.macs().stream().map(m -> new HeardAt(port(gear, l), m.toString()))))
                .toList();
        if (!heard.isEmpty()) store.heard(siteId, gearId, heard, at, Sighting.AWAY.toString());
        log.write(Log.entry(by, "read " + gear.name())
                .at(siteId)
                .after(Map.of("address", address, "ports", reading.ports().size(), "neighbours", near.size())));
    }

    /** Its name without the gear's. */
    private static String port(Gear gear, PortLine line) {
        return line.label().substring(gear.name().length()).strip();
    }

    /** Returns at which port each MAC was heard last. */
    Map<Mac, String> ports(long siteId) {
        return store.ports(siteId, Sighting.TOGETHER.toString()).stream()
                .collect(Collectors.toMap(
                        PortRow::mac, GearReadings::label, (a, b) -> a.equals(b) ? a : a + " or " + b));
    }

    private static String label(PortRow row) {
        return row.gear() + " " + row.port();
    }
}
