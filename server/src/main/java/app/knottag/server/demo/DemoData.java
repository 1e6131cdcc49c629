package app.knottag.server.demo;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Ipv4Prefix;
import app.knottag.core.address.Pool;
import app.knottag.core.address.Segment;
import app.knottag.core.hardware.Gear;
import app.knottag.core.hardware.Mac;
import app.knottag.core.hardware.Outlet;
import app.knottag.core.plan.Sighting.Source;
import app.knottag.core.series.Series;
import app.knottag.core.time.DateStyle;
import app.knottag.server.account.DemoPeople;
import app.knottag.server.account.Invitations;
import app.knottag.server.change.EndpointForm;
import app.knottag.server.change.EndpointRequest;
import app.knottag.server.change.EndpointWork;
import app.knottag.server.change.Hand;
import app.knottag.server.plan.Sheet;
import app.knottag.server.plan.SiteForm;
import app.knottag.server.plan.SiteForm.SiteChangeRequest;
import app.knottag.server.probe.StandIns;
import app.knottag.server.record.SightingStore;
import app.knottag.server.record.SightingStore.SightingRow;
import app.knottag.server.record.SiteStore.SeriesRow;
import app.knottag.server.record.Sites;
import app.knottag.server.record.WiringStore;
import app.knottag.server.record.WiringStore.OutletRow;
import app.knottag.server.record.WiringStore.PlaceRow;
import app.knottag.server.record.WiringStore.PortRow;
import java.time.Clock;
import java.time.Duration;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.IntFunction;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.springframework.boot.ApplicationArguments;
import org.springframework.boot.ApplicationRunner;
import org.springframework.boot.autoconfigure.condition.ConditionalOnExpression;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;

/** Fills an empty demo with the made-up garden centre, through the same services that people use. */
@Component
@Order(1)
@ConditionalOnExpression("!'${knot.demo.control:}'.isEmpty()")
class DemoData implements ApplicationRunner {

    static final String LEAD = "Imke Rasmund";
    private static final String TERMINAL = "counter-payment-terminal";

    private final DemoPeople people;
    private final Invitations invitations;
    private final Sites sites;
    private final EndpointWork work;
    private final EndpointForm form;
    private final DemoHands hands;
    private final DemoSites others;
    private final StandIns standIns;
    private final Sheet sheet;
    private final WiringStore wires;
    private final DemoRegister register;
    private final SightingStore sightings;
    private final Clock clock;
    private final JsonMapper json;
    private Map<String, Map<String, Object>> labels = Map.of();

    DemoData(
            DemoPeople people,
            Invitations invitations,
            Sites sites,
            EndpointWork work,
            EndpointForm form,
            DemoHands hands,
            DemoSites others,
            StandIns standIns,
            Sheet sheet,
            WiringStore wires,
            DemoRegister register,
            SightingStore sightings,
            Clock clock,
            JsonMapper json) {
        this.people = people;
        this.invitations = invitations;
        this.sites = sites;
        this.work = work;
        this.form = form;
        this.hands = hands;
        this.others = others;
        this.standIns = standIns;
        this.sheet = sheet;
        this.wires = wires;
        this.register = register;
        this.sightings = sightings;
        this.clock = clock;
        this.json = json;
    }

    @Override
    @Transactional
    public void run(ApplicationArguments arguments) {
        if (!invitations.nobodyYet()) return;
        labels = new HashMap<>();
        for (var device : json.readValue(standIns.get("/devices"), new TypeReference<List<Map<String, Object>>>() {}))
            labels.put((String) device.get("id"), device);
        people.all().forEach(p -> invitations.add(p.name(), p.role(), p.password()));
        long site = sites.add("Pellworth Garden Barn", "PGB", "Europe/Berlin", DateStyle.WORDS, LEAD);
        long segment = sites.addSegment(
                site,
                "Shop floor",
                new Segment(Ipv4Prefix.parse("10.44.16.0/24"), Optional.of(a(1)), List.of(new Pool(a(100), a(199)))),
                List.of(a(1), Ipv4Address.parse("203.0.113.9")),
                Optional.of(new Series("Till", 50, 7450)),
                LEAD);
        long office = ground(site, segment);
        client(site);
        others.services(site, "10.44.16.1", "mail.pellworth.example");
        for (int n = 1; n <= 5; n++) sites.keepPartner(site, "Till " + n + " workstation", a(30 + n), 7500);
        long till1 = till(site, segment, 1, "Front counter left", "F-01", "Shop switch 3");
        long till2 = till(site, segment, 2, "Front counter right", "F-03", "Shop switch 4");
        long till3 = till(site, segment, 3, "Plant hall counter", "P-02", "Shop switch 9");
        long clock = add(
                site,
                segment,
                "staff-clock",
                "time-clock",
                null,
                "Staff time clock",
                20,
                "Staff entrance",
                "S-01",
                "Shop switch 15",
                "Attendance office",
                12);
        printers(site, segment);
        seen(site);
        hands.work(till1, "confirm");
        hands.proved(till1);
        hands.work(clock, "confirm");
        hands.proved(clock);
        hands.work(till2, "confirm");
        hands.work(till3, "first-start");
        hands.start(till3, "first-start");
        register.fill(site, office, LEAD);
        sites.add("Pellworth Farm Kitchen", "PFK", "Europe/Berlin", DateStyle.WORDS, LEAD);
        others.fill(labels);
    }

    private void printers(long site, long segment) {
        add(
                site,
                segment,
                null,
                "label-printer",
                null,
                "Goods-in label printer",
                36,
                "Goods-in desk",
                "G-02",
                "Shop switch 17",
                null,
                0);
        add(
                site,
                segment,
                "nursery-printer",
                "label-printer",
                null,
                "Nursery label printer",
                37,
                "Nursery bench",
                "N-01",
                "Shop switch 18",
                null,
                0);
        work.add(
                site,
                form.read(
                        site,
                        EndpointRequest.of(
                                        segment,
                                        "label-printer",
                                        "Yard label printer",
                                        a(140),
                                        "It had that address already")
                                .done()),
                LEAD);
    }

    /** What she finds there: a router, a switch with its patched outlets, an office network of its own. */
    private long ground(long site, long shop) {
        long office = sites.addSegment(
                site,
                "Office",
                new Segment(
                        Ipv4Prefix.parse("10.44.17.0/24"),
                        Optional.of(Ipv4Address.parse("10.44.17.1")),
                        List.of(new Pool(Ipv4Address.parse("10.44.17.100"), Ipv4Address.parse("10.44.17.199")))),
                List.of(Ipv4Address.parse("10.44.17.1"), Ipv4Address.parse("203.0.113.9")),
                Optional.empty(),
                LEAD);
        for (String place : List.of(
                "Front counter left", "Front counter right", "Plant hall counter", "Goods-in desk", "Nursery bench"))
            sheet.place(hand(site), new PlaceRow(0, site, place, 0));
        others.gear(
                site,
                "Router",
                Gear.Type.ROUTER,
                "Back office",
                ports(5, n -> n == 5 ? Gear.Role.WAN : Gear.Role.LAN, shop, Set.of(), office));
        others.gear(
                site,
                "Shop switch",
                Gear.Type.SWITCH,
                "Back office",
                ports(
                        24,
                        n -> n == 1 ? Gear.Role.UPLINK : n == 24 ? Gear.Role.OFF : Gear.Role.LAN,
                        shop,
                        Set.of(20, 21, 22, 23),
                        office));
        sheet.series(
                hand(site), new SeriesRow(0, site, shop, "PIN pad", Series.Counts.HOST, 70, 7600, 15, 3, null, null));
        var numbers = wires.ports(site).stream()
                .filter(p -> p.gear().equals("Shop switch"))
                .collect(Collectors.toMap(PortRow::number, PortRow::id));
        Map.of("F-01", 3, "F-03", 4, "P-02", 9, "S-01", 15, "N-01", 18, "F-07", 11)
                .forEach((outlet, port) -> sheet.outlet(
                        hand(site), new OutletRow(0, site, outlet, null, "", Outlet.State.PATCHED, numbers.get(port))));
        sheet.outlet(hand(site), new OutletRow(0, site, "G-02", null, "Goods-in desk", Outlet.State.DEAD, null));
        work.add(
                site,
                form.read(
                        site,
                        EndpointRequest.of(office, "copier", "Office copier", "10.44.17.40", "")
                                .done()),
                LEAD);
        return office;
    }

    private void client(long site) {
        long wan = wires.ports(site).stream()
                .filter(p -> p.role() == Gear.Role.WAN)
                .findFirst()
                .orElseThrow()
                .id();
        sheet.site(
                hand(site),
                SiteForm.read(new SiteChangeRequest(
                        sites.site(site).name(),
                        sites.site(site).zone(),
                        "Pellworth Gardens",
                        "{site}-{kind}{number}",
                        SiteChangeRequest.Feed.MODEM,
                        "On the shelf beside the router",
                        wan)));
    }

    private Hand hand(long site) {
        return new Hand(site, sites.site(site).version(), LEAD);
    }

    static List<PortRow> ports(
            int count, IntFunction<Gear.Role> role, long shop, Set<Integer> officePorts, long office) {
        return IntStream.rangeClosed(1, count)
                .mapToObj(n -> new PortRow(
                        0, 0, "", n, role.apply(n), officePorts.contains(n) ? office : shop, n >= 2 && n <= 12))
                .toList();
    }

    /** A neighbour table that somebody pasted in this morning. */
    private void seen(long site) {
        var at = clock.instant().minus(Duration.ofHours(3));
        var table = new ArrayList<SightingRow>();
        for (var label : labels.values())
            if (label.get("address") instanceof String address && address.startsWith("10.44.16."))
                table.add(SightingRow.heard(Ipv4Address.parse(address), Mac.parse((String) label.get("mac")), at));
        sightings.add(site, table, LEAD);
        sightings.looked(site, Source.NEIGHBOURS, at);
    }

    private static Ipv4Address a(int host) {
        return Ipv4Address.parse("10.44.16." + host);
    }

    private long till(long site, long segment, int number, String place, String outlet, String port) {
        return add(
                site,
                segment,
                "till-" + number,
                TERMINAL,
                number,
                "Till " + number + " payment terminal",
                50 + number,
                place,
                outlet,
                port,
                "Till " + number + " workstation",
                30 + number);
    }

    private long add(
            long site,
            long segment,
            String label,
            String kind,
            Integer number,
            String name,
            int host,
            String place,
            String outlet,
            String port,
            String partner,
            int partnerHost) {
        String mac = label == null ? null : (String) labels.get(label).get("mac"),
                serial = label == null ? null : (String) labels.get(label).get("serial");
        return work.add(
                site,
                form.read(
                        site,
                        EndpointRequest.of(segment, kind, name, a(host), "")
                                .numbered(number, null, null)
                                .labelled(mac, serial)
                                .wired(place, outlet, port)
                                .paired(partner, partner == null ? null : a(partnerHost), partner == null ? null : 7500)
                                .done()),
                LEAD);
    }
}
