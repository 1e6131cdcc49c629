package app.knottag.server.demo;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Ipv4Prefix;
import app.knottag.core.address.Pool;
import app.knottag.core.address.Segment;
import app.knottag.core.hardware.Gear;
import app.knottag.core.kind.Protocol;
import app.knottag.core.plan.Method;
import app.knottag.core.runbook.EndpointContext;
import app.knottag.core.series.Series;
import app.knottag.core.time.DateStyle;
import app.knottag.server.change.EndpointForm;
import app.knottag.server.change.EndpointRequest;
import app.knottag.server.change.EndpointWork;
import app.knottag.server.change.Hand;
import app.knottag.server.onboard.Nights;
import app.knottag.server.onboard.Nights.BusyTime;
import app.knottag.server.plan.Sheet;
import app.knottag.server.record.Endpoints;
import app.knottag.server.record.SiteStore.ServiceRow;
import app.knottag.server.record.Sites;
import app.knottag.server.record.WiringStore.GearRow;
import app.knottag.server.record.WiringStore.PortRow;
import java.time.LocalTime;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.boot.autoconfigure.condition.ConditionalOnExpression;
import org.springframework.stereotype.Component;

/** A made-up animal clinic and a bookkeeping office, with every kind in some stage of its set-up. */
@Component
@ConditionalOnExpression("!'${knot.demo.control:}'.isEmpty()")
class DemoSites {

    /** Id on the bench, kind, host, place, how it is kept, port. */
    private static final String CLINIC = """
            staff-reader     | fingerprint-reader | 20 | Staff door        | FIXED    | 5005
            back-door        | door-reader        | 21 | Back door         | FIXED    | 4370
            picture-store    | storage-box        | 22 | Cupboard          | FIXED    | 10445
            clinic-copier    | copier             | 23 | Reception         | FIXED    | 9100
            waiting-hub      | meeting-room-hub   | 24 | Waiting room      | FIXED    | 8443
            kennel-camera    | camera             | 25 | Kennel yard       | FIXED    | 8554
            reception-pad    | signature-pad      | 26 | Reception         | LEARNED  | 7950
            line-outlet      | watched-outlet     | 27 | Cupboard          | FIXED    | 8001
            kiosk-1          | kiosk-set          | 28 | Table 1           | FIXED    | 8700
            kiosk-2          | kiosk-set          | 29 | Table 2           | FIXED    | 8700
            reception-pinpad | till-pin-pad       | 71 | Reception         | FIXED    | 7601
            pet-scale        | other-endpoint     | 40 | Treatment room 2  | FIXED    | 10080
            """;

    private static final String OFFICE = """
            desk-scanner     | document-scanner   | 20 | Front desk        | FIXED    | 8610
            fax-line         | fax-adapter        | 21 | Post room         | FIXED    | 10080
            hall-clock       | time-clock         | 22 | Hall              | FIXED    | 7300
            meeting-phone    | desk-phone         | 23 | Meeting room      | FIXED    | 8060
            ledger-store     | storage-box        | 24 | Server cupboard   | FIXED    | 10445
            front-door       | door-reader        | 25 | Front door        | FIXED    | 4370
            archive-printer  | label-printer      | 26 | Archive           | LEARNED  | 7100
            partner-tablet   | own-device         | 27 | Office of the partner | FIXED | 10080
            """;

    private final Sites sites;
    private final Sheet sheet;
    private final Endpoints endpoints;
    private final EndpointWork work;
    private final EndpointForm form;
    private final DemoHands hands;
    private final Nights nights;

    DemoSites(
            Sites sites,
            Sheet sheet,
            Endpoints endpoints,
            EndpointWork work,
            EndpointForm form,
            DemoHands hands,
            Nights nights) {
        this.nights = nights;
        this.sheet = sheet;
        this.sites = sites;
        this.endpoints = endpoints;
        this.work = work;
        this.form = form;
        this.hands = hands;
    }

    void fill(Map<String, Map<String, Object>> labels) {
        clinic(labels);
        office(labels);
    }

    private void clinic(Map<String, Map<String, Object>> labels) {
        var made = site(
                "Hollow Lane Animal Clinic",
                "HLC",
                "10.44.24.",
                "mail.hlc.example",
                Optional.of(new Series("PIN pad", 70, 7600)),
                CLINIC,
                labels);
        nights.busy(
                endpoints.get(made.get("back-door")).siteId(),
                List.of(
                        new BusyTime(LocalTime.of(8, 0), LocalTime.of(19, 0), "The clinic is open"),
                        new BusyTime(LocalTime.of(23, 30), LocalTime.of(1, 0), "Backup of the pictures")),
                DemoData.LEAD);
        work(made, "back-door", "confirm");
        hands.proved(made.get("back-door"));
        work(made, "clinic-copier", "mail");
        hands.failed(made.get("clinic-copier"), "mail", Map.of("seen", "security"));
        work(made, "picture-store", "format");
        hands.start(made.get("picture-store"), "format");
        work(made, "waiting-hub", "restart");
        hands.fact(made.get("kiosk-1"), Map.of(EndpointContext.SEALS, "551801 551802", EndpointContext.CASE, "K-1"));
        hands.fact(made.get("kiosk-2"), Map.of(EndpointContext.SEALS, "551803 551804", EndpointContext.CASE, "K-2"));
        work(made, "kiosk-1", "peripherals");
        work(made, "line-outlet", "times");
        work(made, "kennel-camera", "clock");
        work(made, "reception-pinpad", "read-back");
        work(made, "reception-pad", "learn");
        work(made, "staff-reader", "wire");
        for (int n = 1; n <= 3; n++)
            hands.failed(made.get("staff-reader"), "wire", Map.of("steadiness", "STEADY", "colour", "crossed out"));
    }

    private void office(Map<String, Map<String, Object>> labels) {
        var made = site(
                "Thornfield Bookkeeping", "TFB", "10.44.32.", "mail.tfb.example", Optional.empty(), OFFICE, labels);
        work(made, "ledger-store", "confirm");
        hands.proved(made.get("ledger-store"));
        work(made, "fax-line", "line");
        hands.start(made.get("fax-line"), "line");
        work(made, "desk-scanner", "find");
        work(made, "meeting-phone", "read-back");
    }

    /** What was done on paper was entered on the device as well; those that are whole were set up before. */
    private void work(Map<String, Long> made, String device, String before) {
        hands.work(made.get(device), before);
        if (!before.equals("confirm")) hands.enter(made.get(device), device);
    }

    /** What a site calls: a mail relay and a time server. */
    void services(long site, String router, String relay) {
        for (var row : List.of(
                new ServiceRow(0, site, "Mail relay", Protocol.SMTP, relay, 587, "copier"),
                new ServiceRow(0, site, "Time server", Protocol.NTP, router, 123, "")))
            sheet.service(new Hand(site, sites.site(site).version(), DemoData.LEAD), row);
    }

    void gear(long site, String name, Gear.Type type, String place, List<PortRow> ports) {
        sheet.gear(
                new Hand(site, sites.site(site).version(), DemoData.LEAD),
                new GearRow(0, site, name, type, null),
                place,
                ports);
    }

    /** Makes a site with the endpoints of some lines, and returns their numbers by their ids on the bench. */
    Map<String, Long> site(
            String name,
            String code,
            String net,
            String relay,
            Optional<Series> series,
            String lines,
            Map<String, Map<String, Object>> labels) {
        long site = sites.add(name, code, "Europe/Berlin", DateStyle.PERIODS, DemoData.LEAD);
        long segment = sites.addSegment(
                site,
                "House",
                new Segment(
                        Ipv4Prefix.parse(net + "0/24"),
                        Optional.of(Ipv4Address.parse(net + "1")),
                        List.of(new Pool(Ipv4Address.parse(net + "100"), Ipv4Address.parse(net + "199")))),
                List.of(Ipv4Address.parse(net + "1"), Ipv4Address.parse("203.0.113.9")),
                series,
                DemoData.LEAD);
        services(site, net + "1", relay);
        var made = new HashMap<String, Long>();
        lines.lines()
                .map(l -> l.split("\\|"))
                .forEach(f -> made.put(f[0].strip(), endpoint(site, segment, net, f, labels)));
        return made;
    }

    /** Kiosks are counted along the row, and there is one pad. */
    private static Integer number(String device) {
        return switch (device) {
            case "reception-pinpad", "kiosk-1" -> 1;
            case "kiosk-2" -> 2;
            default -> null;
        };
    }

    private long endpoint(long site, long segment, String net, String[] f, Map<String, Map<String, Object>> labels) {
        var label = labels.get(f[0].strip());
        String kind = f[1].strip();
        String partner =
                kind.equals("door-reader") ? "Access computer" : kind.equals("time-clock") ? "Hours computer" : null;
        String partnerAddress =
                partner == null ? null : net + (!net.endsWith("24.") && kind.equals("door-reader") ? 13 : 12);
        return work.add(
                site,
                form.read(
                        site,
                        EndpointRequest.of(segment, kind, (String) label.get("name"), net + f[2].strip(), "")
                                .numbered(number(f[0].strip()), null, Integer.parseInt(f[5].strip()))
                                .labelled(label.get("mac"), (String) label.get("serial"))
                                .wired(f[3].strip(), null, null)
                                .paired(partner, partnerAddress, partner == null ? null : 7500)
                                .kept(Method.valueOf(f[4].strip()))
                                .done()),
                DemoData.LEAD);
    }
}
