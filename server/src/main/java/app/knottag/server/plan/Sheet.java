package app.knottag.server.plan;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.hardware.Outlet;
import app.knottag.core.reach.AllowedTargets;
import app.knottag.core.reading.ReadingException;
import app.knottag.core.series.Series;
import app.knottag.core.time.DateStyle;
import app.knottag.server.change.Consequences;
import app.knottag.server.change.Hand;
import app.knottag.server.log.Log;
import app.knottag.server.record.EndpointStore;
import app.knottag.server.record.SiteStore;
import app.knottag.server.record.SiteStore.SeriesRow;
import app.knottag.server.record.SiteStore.ServiceRow;
import app.knottag.server.record.SiteStore.SiteRow;
import app.knottag.server.record.Sites;
import app.knottag.server.record.WiringStore;
import app.knottag.server.record.WiringStore.GearRow;
import app.knottag.server.record.WiringStore.OutletRow;
import app.knottag.server.record.WiringStore.PlaceRow;
import app.knottag.server.record.WiringStore.PortRow;
import app.knottag.server.web.Etags;
import app.knottag.server.web.FormReader;
import app.knottag.server.web.Problem;
import java.time.Clock;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/**
 * Changes what is on record about a site itself: segments, series, places, gear, outlets, how it is fed. The sheet has
 * one version, so that of two people who change it from the same sight one wins and the other looks again.
 */
@Service
public class Sheet {

    private static final int LAST_PORT = 65_535;
    private static final int LONGEST_HOST = 253;
    private static final String LABEL = "[a-z0-9]([a-z0-9-]{0,61}[a-z0-9])?";
    private static final String HOST = LABEL + "(\\." + LABEL + ")+";

    private final SiteStore store;
    private final WiringStore wires;
    private final Sites sites;
    private final EndpointStore endpoints;
    private final Consequences consequences;
    private final Log log;
    private final Clock clock;

    Sheet(
            SiteStore store,
            WiringStore wires,
            Sites sites,
            EndpointStore endpoints,
            Consequences consequences,
            Log log,
            Clock clock) {
        this.store = store;
        this.wires = wires;
        this.sites = sites;
        this.endpoints = endpoints;
        this.consequences = consequences;
        this.log = log;
        this.clock = clock;
    }

    private <T> T changed(Hand hand, String action, Object before, Supplier<T> work) {
        endpoints.oneAtATime(hand.siteId());
        if (store.claim(hand.siteId(), hand.expected()) == 0) throw Etags.stale();
        T after = work.get();
        log.write(Log.entry(hand.by(), action).at(hand.siteId()).before(before).after(after));
        return after;
    }

    @Transactional
    public void site(Hand hand, SiteForm.SiteFacts is) {
        var was = sites.site(hand.siteId());
        changed(hand, "site changed", was, () -> {
            store.changeSite(new SiteRow(
                    hand.siteId(),
                    is.name(),
                    was.code(),
                    is.zone().getId(),
                    was.dates(),
                    is.client().isEmpty() ? null : Long.valueOf(store.keepClient(is.client())),
                    is.client(),
                    is.nameRule(),
                    is.feed().map(Enum::name).orElse(""),
                    is.feedNote(),
                    is.feedPortId(),
                    0));
            return sites.site(hand.siteId());
        });
    }

    /** Chooses how the site writes its days and times. */
    @Transactional
    public void dates(Hand hand, DateStyle dates) {
        var was = sites.site(hand.siteId());
        changed(hand, "dates written anew", was.dates(), () -> {
            store.writeDates(hand.siteId(), dates);
            return dates;
        });
    }

    @Transactional
    public void segment(Hand hand, SegmentForm.Filled filled) {
        var was = sites.segment(filled.row().id());
        if (was.nextPrefix() != null)
            throw Problem.conflict(
                    "prefix", "renumbering", "This segment is being renumbered. Finish that first.", Map.of());
        changed(hand, "segment changed", List.of(was, sites.plain(was).pools()), () -> {
            store.clearPools(was.id());
            store.changeSegment(filled.row());
            filled.segment().pools().forEach(p -> store.addPool(was.id(), p.from(), p.to()));
            return List.of(filled.row(), filled.segment().pools());
        });
        if (otherSettings(was, filled.row())) loosen(hand.siteId(), was.id());
    }

    private static boolean otherSettings(SiteStore.SegmentRow was, SiteStore.SegmentRow is) {
        return !Objects.equals(was.gateway(), is.gateway())
                || !was.prefix().equals(is.prefix())
                || !Sites.resolvers(was).equals(Sites.resolvers(is));
    }

    /** What was typed, read back and proved with the old mask, gateway or resolvers has to be done again. */
    private void loosen(long siteId, long segmentId) {
        for (var e : endpoints.all(siteId))
            if (Objects.equals(e.segmentId(), segmentId)) {
                consequences.told(e);
            }
    }

    @Transactional
    void removeSegment(Hand hand, long id) {
        endpoints.oneAtATime(hand.siteId());
        var was = sites.segment(id);
        var living = endpoints.namesIn(id);
        if (!living.isEmpty()) throw inUse("“" + was.name() + "”", living, "Move or retire them first.");
        var runs = store.series(was.siteId()).stream()
                .filter(s -> Objects.equals(s.segmentId(), id))
                .map(SeriesRow::name)
                .toList();
        if (!runs.isEmpty()) throw inUse("“" + was.name() + "”", runs, "Remove these series first.");
        changed(hand, "segment removed", was, () -> {
            store.clearPools(id);
            wires.leavePorts(id);
            store.retireSegment(id, clock.instant());
            return null;
        });
    }

    static Problem inUse(String what, List<String> by, String wayOut) {
        String names = by.size() <= 3
                ? String.join(", ", by)
                : String.join(", ", by.subList(0, 3)) + " and " + (by.size() - 3) + " more";
        return Problem.conflict("", "in-use", what + " is still used by " + names + ". " + wayOut, Map.of());
    }

    @Transactional
    public long series(Hand hand, SeriesRow row) {
        String name = FormReader.words("name", row.name(), true);
        try {
            Sites.plain(row);
        } catch (ReadingException e) {
            throw Problem.field("hostBase", "bad-base", e.getMessage());
        }
        boolean host = row.counts() == Series.Counts.HOST;
        boolean gear = row.counts() == Series.Counts.GEAR_PORT;
        if (host && row.segmentId() == null)
            throw Problem.field("segmentId", "missing", "Say in which segment it counts.");
        if (gear && row.gearId() == null) throw Problem.field("gearId", "missing", "Say whose ports it counts.");
        if (host) fitsAtAll(row);
        var clean = new SeriesRow(
                row.id(),
                row.siteId(),
                host ? row.segmentId() : null,
                name,
                row.counts(),
                row.hostBase(),
                row.portBase(),
                row.lastNumber(),
                row.perYear(),
                row.followsId(),
                gear ? row.gearId() : null);
        var was = row.id() == 0 ? null : store.oneSeries(row.id());
        return changed(hand, was == null ? "series added" : "series changed", was, () -> {
                    if (was == null) return store.oneSeries(store.addSeries(clean));
                    store.changeSeries(clean);
                    return store.oneSeries(row.id());
                })
                .id();
    }

    private void fitsAtAll(SeriesRow row) {
        var segment = sites.segmentOf(row.siteId(), row.segmentId());
        var plain = Sites.plain(row);
        int last = Math.max(1, row.lastNumber());
        if (plain.address(segment.prefix(), last).isEmpty())
            throw Problem.field(
                    last == 1 ? "hostBase" : "lastNumber",
                    "series-too-long",
                    "Number " + last + " would be host " + plain.figure(last) + ", which leaves " + segment.prefix()
                            + ": hosts end at "
                            + (segment.prefix().highestUsable().number()
                                    - segment.prefix().network().number())
                            + ".");
    }

    @Transactional
    void removeSeries(Hand hand, long id) {
        var was = store.oneSeries(id);
        var members = endpoints.namesInSeries(id);
        if (!members.isEmpty()) throw inUse("“" + was.name() + "”", members, "They keep their numbers by it.");
        changed(hand, "series removed", was, () -> {
            store.freeRetiredOf(id);
            store.removeSeries(id);
            return null;
        });
    }

    @Transactional
    public long place(Hand hand, PlaceRow row) {
        String name = FormReader.words("name", row.name(), true);
        return changed(hand, row.id() == 0 ? "place added" : "place changed", null, () -> {
                    if (row.id() == 0)
                        return new PlaceRow(wires.keepPlace(hand.siteId(), name), hand.siteId(), name, 0);
                    wires.changePlace(row.id(), name, row.walk());
                    wires.refreshFinder(hand.siteId());
                    return row;
                })
                .id();
    }

    @Transactional
    public long outlet(Hand hand, OutletRow row) {
        String name = FormReader.words("name", row.name(), true), place = FormReader.words("place", row.place(), false);
        if (row.state() == Outlet.State.PATCHED && row.portId() == null)
            throw Problem.field("port", "missing", "Say which port it is patched to, or mark it unknown.");
        return changed(hand, row.id() == 0 ? "outlet added" : "outlet changed", null, () -> {
                    Long placeId = place.isEmpty() ? null : Long.valueOf(wires.keepPlace(hand.siteId(), place));
                    long id = row.id() == 0 ? wires.keepOutlet(hand.siteId(), name, placeId) : row.id();
                    var clean = new OutletRow(
                            id,
                            hand.siteId(),
                            name,
                            placeId,
                            place,
                            row.state(),
                            row.state() == Outlet.State.PATCHED ? row.portId() : null);
                    wires.changeOutlet(clean);
                    wires.refreshFinder(hand.siteId());
                    return clean;
                })
                .id();
    }

    @Transactional
    public long gear(Hand hand, GearRow row, String place, List<PortRow> ports) {
        String name = FormReader.words("name", row.name(), true), where = FormReader.words("place", place, false);
        if (ports.size() > 96) throw Problem.field("ports", "too-many", "At most 96 ports on one piece of gear.");
        var numbers = ports.stream().map(PortRow::number).collect(Collectors.toSet());
        if (numbers.size() != ports.size())
            throw Problem.field("ports", "port-twice", "Two ports have the same number.");
        return changed(hand, row.id() == 0 ? "gear added" : "gear changed", null, () -> {
                    Long placeId = where.isEmpty() ? null : Long.valueOf(wires.keepPlace(hand.siteId(), where));
                    var clean = new GearRow(row.id(), hand.siteId(), name, row.type(), placeId);
                    long id = row.id() == 0 ? wires.keepGear(clean) : row.id();
                    if (row.id() != 0) wires.changeGear(clean);
                    for (var old : wires.ports(hand.siteId()))
                        if (old.gearId() == id && !numbers.contains(old.number())) removePort(old);
                    for (var p : ports)
                        wires.writePort(
                                hand.siteId(), new PortRow(0, id, name, p.number(), p.role(), p.segmentId(), p.poe()));
                    wires.refreshFinder(hand.siteId());
                    return new GearRow(id, hand.siteId(), name, clean.type(), placeId);
                })
                .id();
    }

    /** Puts a service that the site calls on its list; only what is listed, and what lies in its segments, is ever asked. */
    @Transactional
    public long service(Hand hand, ServiceRow row) {
        String name = FormReader.words("name", row.name(), true);
        String host = row.host() == null ? "" : row.host().strip().toLowerCase(Locale.ROOT);
        if (host.length() > LONGEST_HOST || !host.matches(HOST))
            throw Problem.field(
                    "host", "bad-host", "An address such as 10.44.16.9, or a name such as mail.shop.example.");
        if (host.matches("[0-9.]+")) ownGround(hand.siteId(), host);
        if (row.port() < 1 || row.port() > LAST_PORT)
            throw Problem.field("port", "bad-port", "A port is a number from 1 to 65535.");
        return changed(hand, row.id() == 0 ? "service listed" : "service changed", null, () -> {
            var clean = new ServiceRow(row.id(), hand.siteId(), name, row.protocol(), host, row.port(), row.kinds());
            if (row.id() == 0) return store.addService(clean);
            store.changeService(clean);
            return row.id();
        });
    }

    private void ownGround(long siteId, String host) {
        try {
            var segments = store.segments(siteId).stream()
                    .map(SiteStore.SegmentRow::prefix)
                    .toList();
            AllowedTargets.problem(host, Ipv4Address.parse(host), segments).ifPresent(p -> {
                throw Problem.field("host", "foreign-ground", p);
            });
        } catch (ReadingException e) {
            throw Problem.field("host", "bad-host", e.getMessage());
        }
    }

    private void removePort(PortRow port) {
        var users = wires.usersOfPort(port.id());
        if (!users.isEmpty()) throw inUse(port.gear() + " " + port.number(), users, "Plug them elsewhere first.");
        wires.freeRetiredPort(port.id());
        wires.removePort(port.id());
    }

    /** What can be taken off the sheet when nothing uses it. */
    enum Thing {
        PLACES,
        GEAR,
        OUTLETS,
        SERVICES
    }

    @Transactional
    void remove(Hand hand, Thing thing, long id) {
        var users = switch (thing) {
            case PLACES -> wires.usersOfPlace(id);
            case OUTLETS -> wires.usersOfOutlet(id);
            case GEAR -> wires.usersOfGear(id);
            case SERVICES -> List.<String>of();
        };
        if (!users.isEmpty()) throw inUse("This", users, "Move them first.");
        changed(hand, thing.name().toLowerCase(Locale.ROOT) + " removed", id, () -> {
            switch (thing) {
                case PLACES -> {
                    wires.freeRetiredPlace(id);
                    wires.removePlace(id);
                }
                case OUTLETS -> {
                    wires.freeRetiredOutlet(id);
                    wires.removeOutlet(id);
                }
                case SERVICES -> store.removeService(id);
                case GEAR -> {
                    for (var port : wires.ports(hand.siteId())) if (port.gearId() == id) removePort(port);
                    wires.removeGear(id);
                }
            }
            return null;
        });
    }
}
