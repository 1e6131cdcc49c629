package app.knottag.server.demo;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.hardware.Gear;
import app.knottag.core.plan.Sighting.Source;
import app.knottag.core.reach.Fault;
import app.knottag.core.reach.Probes;
import app.knottag.core.reach.Sweep;
import app.knottag.core.reach.Swept;
import app.knottag.server.probe.StandIns;
import app.knottag.server.record.Endpoints;
import app.knottag.server.record.SightingStore;
import app.knottag.server.record.SightingStore.SightingRow;
import app.knottag.server.record.SiteStore;
import app.knottag.server.record.Sites;
import app.knottag.server.watch.Watches;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.locks.LockSupport;
import java.util.stream.Collectors;
import org.springframework.boot.ApplicationArguments;
import org.springframework.boot.ApplicationRunner;
import org.springframework.boot.autoconfigure.condition.ConditionalOnExpression;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;

/**
 * A made-up accounting office that was set up two months ago and has drifted since: the days go by one after the other, each with
 * its sweep of what stands on the bench that day.
 */
@Component
@Order(2)
@ConditionalOnExpression("!'${knot.demo.control:}'.isEmpty()")
class DemoOffice implements ApplicationRunner {

    private static final String CODE = "LCA";
    private static final String NET = "10.44.40.";
    private static final int DAYS = 62;
    private static final String SPARE = "desk-two-scanner";

    private static final String ENDPOINTS = """
            front-copier     | copier             | 20 | Front office      | FIXED | 9100
            post-scanner     | document-scanner   | 21 | Post desk         | FIXED | 8610
            accounts-clock   | time-clock         | 22 | Staff entrance    | FIXED | 7300
            file-printer     | label-printer      | 24 | File room         | FIXED | 7100
            partner-phone    | desk-phone         | 25 | Partners’ room    | FIXED | 8060
            file-door        | door-reader        | 26 | File room         | FIXED | 4370
            year-store       | storage-box        | 27 | Cupboard          | FIXED | 10445
            desk-two-scanner | document-scanner   | 28 | Second desk       | FIXED | 8610
            """;

    private static final Set<String> STRANGERS = Set.of("kitchen-screen", "brought-tablet", "visitor-phone");

    /** Who did what on which day before today. */
    private static final Map<Integer, List<Drift>> DRIFT = Map.of(
            47, List.of(new Drift("kitchen-screen", Fault.NO_POWER, false)),
            40, List.of(new Drift("front-copier", Fault.NOTHING, true)),
            21, List.of(new Drift("post-scanner", Fault.STILL_AUTOMATIC, true)),
            12, List.of(new Drift("brought-tablet", Fault.NO_POWER, false)),
            9, List.of(new Drift("file-door", Fault.WRONG_UNIT, true)),
            6, List.of(new Drift("partner-phone", Fault.NO_POWER, true)),
            3,
                    List.of(
                            new Drift("year-store", Fault.OTHER_INTERFACE_ON_RECORD, true),
                            new Drift("visitor-phone", Fault.NO_POWER, false)));

    private final Sites sites;
    private final SiteStore store;
    private final Endpoints endpoints;
    private final DemoSites others;
    private final DemoHands hands;
    private final StandIns standIns;
    private final Probes probes;
    private final SightingStore sightings;
    private final Watches watches;
    private final DemoClock clock;
    private final JsonMapper json;

    DemoOffice(
            Sites sites,
            SiteStore store,
            Endpoints endpoints,
            DemoSites others,
            DemoHands hands,
            StandIns standIns,
            Probes probes,
            SightingStore sightings,
            Watches watches,
            DemoClock clock,
            JsonMapper json) {
        this.sites = sites;
        this.store = store;
        this.endpoints = endpoints;
        this.others = others;
        this.hands = hands;
        this.standIns = standIns;
        this.probes = probes;
        this.sightings = sightings;
        this.watches = watches;
        this.clock = clock;
        this.json = json;
    }

    /** Something that is wrong with a device from a day on, or no longer; nothing wrong means that it was typed anew. */
    private record Drift(String device, Fault fault, boolean on) {}

    @Override
    public void run(ApplicationArguments arguments) {
        if (store.summaries().stream().anyMatch(s -> s.code().equals(CODE))) return;
        STRANGERS.forEach(s -> upset(new Drift(s, Fault.NO_POWER, true)));
        standBack(DAYS);
        try {
            var made = setUp();
            long site = endpoints.get(made.get(SPARE)).siteId();
            for (int day = DAYS; day > 0; day--) {
                standBack(day);
                DRIFT.getOrDefault(day, List.of()).forEach(d -> befall(made, d));
                look(site);
            }
            standBack(0);
            watches.now(site, DemoData.LEAD);
            while (watches.goOn(site)) LockSupport.parkNanos(50_000_000);
        } finally {
            standBack(0);
        }
    }

    private void standBack(int days) {
        clock.back(Duration.ofDays(days));
        standIns.send("PUT", "/clock", Duration.ofDays(days).toString());
    }

    private Map<String, Long> setUp() {
        Map<String, Map<String, Object>> labels =
                json.readValue(standIns.get("/devices"), new TypeReference<List<Map<String, Object>>>() {}).stream()
                        .collect(Collectors.toMap(d -> (String) d.get("id"), d -> d));
        var made = others.site("Larch Court Accounting", CODE, NET, NET + "9", Optional.empty(), ENDPOINTS, labels);
        long site = endpoints.get(made.get(SPARE)).siteId();
        long segment = store.segments(site).get(0).id();
        others.gear(
                site,
                "Router",
                Gear.Type.ROUTER,
                "Cupboard",
                DemoData.ports(5, n -> n == 5 ? Gear.Role.WAN : Gear.Role.LAN, segment, Set.of(), segment));
        made.values().parallelStream().forEach(e -> {
            hands.work(e, "confirm");
            hands.proved(e);
        });
        return made;
    }

    private void befall(Map<String, Long> made, Drift d) {
        if (d.fault() == Fault.NOTHING) hands.retype(made.get(d.device()), d.device(), Ipv4Address.parse(NET + "60"));
        else upset(d);
    }

    private void upset(Drift d) {
        standIns.send(d.on() ? "PUT" : "DELETE", "/devices/" + d.device() + "/faults/" + d.fault(), "");
    }

    private void look(long site) {
        var at = clock.instant();
        var segment = sites.plain(store.segments(site).get(0));
        var there = probes.sweep(Sweep.hosts(segment), Swept.QUIETLY).there();
        sightings.add(
                site,
                there.entrySet().stream()
                        .flatMap(e -> e.getValue().stream().map(mac -> SightingRow.heard(e.getKey(), mac, at)))
                        .toList(),
                DemoData.LEAD);
        sightings.looked(site, Source.NEIGHBOURS, at);
    }
}
