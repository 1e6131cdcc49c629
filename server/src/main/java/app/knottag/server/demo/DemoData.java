package app.knottag.server.demo;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Ipv4Prefix;
import app.knottag.core.address.Pool;
import app.knottag.core.address.Segment;
import app.knottag.core.kind.Kind;
import app.knottag.core.kind.Kind.GateType;
import app.knottag.core.runbook.TypeSheet;
import app.knottag.core.series.Series;
import app.knottag.server.plan.Endpoints;
import app.knottag.server.reach.Confirm;
import app.knottag.server.reach.StandIns;
import app.knottag.server.runbook.Runbooks;
import app.knottag.server.runbook.StepWork;
import app.knottag.server.runbook.StepWork.Action;
import app.knottag.server.session.DemoPeople;
import app.knottag.server.session.Invitations;
import app.knottag.server.site.Sites;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.boot.ApplicationArguments;
import org.springframework.boot.ApplicationRunner;
import org.springframework.boot.autoconfigure.condition.ConditionalOnExpression;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;

/** Fills an empty demo with the made-up garden centre, through the same services that people use. */
@Component
@ConditionalOnExpression("!'${knot.demo.control:}'.isEmpty()")
class DemoData implements ApplicationRunner {

    private static final String LEAD = "Imke Rasmund";
    private static final String TERMINAL = "counter-payment-terminal";

    private final DemoPeople people;
    private final Invitations invitations;
    private final Sites sites;
    private final Endpoints endpoints;
    private final Runbooks runbooks;
    private final StepWork steps;
    private final Confirm confirm;
    private final StandIns standIns;
    private final JsonMapper json;
    private Map<String, Map<String, Object>> labels = Map.of();

    DemoData(
            DemoPeople people,
            Invitations invitations,
            Sites sites,
            Endpoints endpoints,
            Runbooks runbooks,
            StepWork steps,
            Confirm confirm,
            StandIns standIns,
            JsonMapper json) {
        this.people = people;
        this.invitations = invitations;
        this.sites = sites;
        this.endpoints = endpoints;
        this.runbooks = runbooks;
        this.steps = steps;
        this.confirm = confirm;
        this.standIns = standIns;
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
        long site = sites.add("Pellworth Garden Barn", "PGB", "Europe/Berlin", LEAD);
        long segment = sites.addSegment(
                site,
                "Shop floor",
                new Segment(Ipv4Prefix.parse("10.44.16.0/24"), Optional.of(a(1)), List.of(new Pool(a(100), a(199)))),
                List.of(a(1), Ipv4Address.parse("203.0.113.9")),
                Optional.of(new Series("Till", 50, 7450)),
                LEAD);
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
        work(till1, "confirm");
        proved(till1);
        work(clock, "confirm");
        proved(clock);
        work(till2, "confirm");
        work(till3, "first-start");
        act(till3, "first-start", Action.START, Map.of());
        sites.add("Pellworth Farm Kitchen", "PFK", "Europe/Berlin", LEAD);
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
        return endpoints.add(
                site,
                new Endpoints.Wanted(
                        segment,
                        kind,
                        number,
                        name,
                        a(host).toString(),
                        mac,
                        serial,
                        place,
                        outlet,
                        port,
                        partner,
                        partner == null ? null : a(partnerHost).toString(),
                        partner == null ? null : 7500,
                        null,
                        ""),
                LEAD);
    }

    /** Ties every step before the named one, with what a careful person would have read. */
    private void work(long endpoint, String before) {
        var row = endpoints.get(endpoint);
        var kind = runbooks.runbook(row).kind();
        for (Kind.Step step : kind.steps()) {
            if (step.key().equals(before)) return;
            var evidence = new HashMap<String, String>();
            step.gate().options().stream()
                    .filter(Kind.Option::holds)
                    .findFirst()
                    .ifPresent(o -> evidence.put("seen", o.value()));
            if (step.gate().type() == GateType.READ_BACK || step.gate().type() == GateType.ADDRESS_SHOWN)
                TypeSheet.toReadBack(kind, runbooks.plan(row))
                        .forEach(r -> evidence.put(r.field().name(), r.value()));
            act(endpoint, step.key(), Action.TIE, evidence);
        }
    }

    private void act(long endpoint, String key, Action action, Map<String, String> evidence) {
        steps.act(endpoint, key, endpoints.get(endpoint).version(), action, evidence, null, LEAD);
    }

    private void proved(long endpoint) {
        confirm.round(endpoint, LEAD);
        confirm.signOff(endpoint, endpoints.get(endpoint).version(), "", LEAD);
    }
}
