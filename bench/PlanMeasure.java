package bench;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Ipv4Prefix;
import app.knottag.core.address.Pool;
import app.knottag.core.address.Segment;
import app.knottag.core.hardware.Interface;
import app.knottag.core.hardware.Mac;
import app.knottag.core.plan.Method;
import app.knottag.core.plan.Placement;
import app.knottag.core.plan.Placement.Placed;
import app.knottag.core.plan.Placement.Request;
import app.knottag.core.plan.Sighting;
import app.knottag.core.plan.SiteCheck;
import app.knottag.core.plan.SitePlan;
import app.knottag.core.plan.SitePlan.PlannedEndpoint;
import app.knottag.core.plan.SitePlan.PlannedSegment;
import app.knottag.core.plan.SitePlan.PlannedSeries;
import app.knottag.core.register.HandOver;
import app.knottag.core.register.Registry;
import app.knottag.core.register.RegistryCompare;
import app.knottag.core.register.RegistryFile;
import app.knottag.core.register.RegistryForm;
import app.knottag.core.register.RegistryReader;
import app.knottag.core.register.Unit;
import app.knottag.core.series.Series;
import app.knottag.core.time.DateStyle;
import app.knottag.core.time.SiteClock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/** What core works out for a plan: warmed loops, medians. */
public class PlanMeasure {
    private static final int WARM = 40;
    private static final int ROUNDS = 101;
    private static final Instant NOW = Instant.parse("2026-11-24T10:00:00Z");
    private static final SiteClock CLOCK = new SiteClock(NOW, ZoneOffset.UTC, DateStyle.WORDS);

    public static void main(String[] args) {
        var site = site(2_000);
        int found = SiteCheck.conflicts(site, CLOCK, List.of()).size();
        row(
                "site of 2 000 endpoints, checked whole",
                median(() -> SiteCheck.conflicts(site, CLOCK, List.of())),
                50,
                found + " conflicts and risks " + "found");
        var shop = new Segment(
                Ipv4Prefix.parse("10.60.0.0/22"),
                Optional.of(a("10.60.0.1")),
                List.of(new Pool(a("10.60.1.0"), a("10.60.1.199"))));
        var living = new HashMap<Ipv4Address, String>();
        for (int n = 0; n < 120; n++) living.put(a("10.60.0.20").plus(n * 3L), "L" + n);
        var wishes = new ArrayList<Request>();
        for (int n = 1; n <= 200; n++)
            wishes.add(new Request("E" + n, Optional.of(a("10.60.0.10").plus(n)), List.of()));
        var placed = (Placed) new Placement(shop, living).place(wishes);
        long asWanted =
                placed.given().stream().filter(Placement.Given::asWanted).count();
        row(
                "200 endpoints placed in a /22",
                median(() -> new Placement(shop, living).place(wishes)),
                200,
                asWanted + " as wanted, the rest " + "where " + "slips hurt least");
        registry();
    }

    /** A registry's list of 2 000 entries as host blocks: written, read back and compared with what it should hold. */
    private static void registry() {
        var registry = new Registry(
                1,
                "R",
                Registry.Type.RESERVATIONS,
                Optional.empty(),
                Optional.empty(),
                Set.of(),
                Registry.Rules.usual(Registry.Type.RESERVATIONS));
        var units = new ArrayList<Unit>();
        for (int n = 0; n < 2_000; n++)
            units.add(new Unit(
                    n,
                    "E" + n,
                    "e" + n,
                    "copier",
                    false,
                    1,
                    List.of(new Interface(Interface.Medium.WIRED, new Mac(0x00005E005300L + n), "", true)),
                    Optional.of(a("10.62.0.10").plus(n)),
                    "S" + n,
                    "",
                    true,
                    false,
                    false));
        var entries =
                units.stream().map(u -> registry.proposal(u, "", List.of())).toList();
        var wanted = units.stream()
                .map(u -> new RegistryCompare.Wanted(u.id(), registry.proposal(u, "", List.of())))
                .toList();
        var head = new RegistryFile.Head("S", "R", "x", NOW, false);
        double millis = median(() -> {
            var read = RegistryReader.read(
                    RegistryForm.HOST_BLOCKS,
                    RegistryFile.write(RegistryForm.HOST_BLOCKS, head, HandOver.between(List.of(), entries)));
            int lines = new RegistryCompare(registry, RegistryForm.HOST_BLOCKS, units)
                    .compare(wanted, read.entries())
                    .size();
            if (lines != 2_000) throw new IllegalStateException("compared " + lines);
        });
        row("list of 2 000 written, read, compared", millis, 500, "reservations as host blocks");
    }

    private static Ipv4Address a(String text) {
        return Ipv4Address.parse(text);
    }

    /** Eight segments of 250, with pools, series, sightings; every tenth a little wrong. */
    private static SitePlan site(int count) {
        var segments = new ArrayList<PlannedSegment>();
        var series = new ArrayList<PlannedSeries>();
        var endpoints = new ArrayList<PlannedEndpoint>();
        var sightings = new ArrayList<Sighting>();
        for (int s = 0; s < 8; s++) {
            var prefix = Ipv4Prefix.parse("10.61." + 4 * s + ".0/22");
            var base = prefix.network();
            segments.add(new PlannedSegment(
                    s,
                    "S" + s,
                    new Segment(prefix, Optional.of(base.plus(1)), List.of(new Pool(base.plus(600), base.plus(899)))),
                    List.of(base.plus(1)),
                    Duration.ofHours(12)));
            series.add(new PlannedSeries(s, Optional.of((long) s), new Series("R" + s, 50, 7400), 3, Optional.empty()));
        }
        for (int n = 0; n < count; n++) {
            int s = n % 8, number = n / 8 + 1;
            var base = Ipv4Prefix.parse("10.61." + 4 * s + ".0/22").network();
            var address = n % 10 == 0 ? base.plus(600 + number) : base.plus(50 + number);
            var mac = new Mac(0x00005E005300L + n);
            endpoints.add(new PlannedEndpoint(
                    n,
                    "E" + n,
                    "e" + n,
                    s,
                    Optional.of(address),
                    Method.FIXED,
                    Optional.of((long) s),
                    Optional.of(number),
                    Optional.of(mac),
                    Optional.empty(),
                    Optional.of(7400),
                    Optional.empty(),
                    false));
            sightings.add(new Sighting(
                    n % 25 == 0 ? base.plus(700 + number) : address,
                    Optional.of(mac),
                    Sighting.Source.NEIGHBOURS,
                    NOW.minus(Duration.ofHours(n % 2000)),
                    Optional.empty()));
        }
        return new SitePlan(segments, series, endpoints, List.of(), List.of(), List.of(), sightings);
    }

    private static void row(String what, double millis, int most, String remark) {
        System.out.printf("| %-38s | %9.2f ms | wanted < %8d ms | %s |%n", what, millis, most, remark);
    }

    private static double median(Runnable work) {
        for (int i = 0; i < WARM; i++) work.run();
        long[] nanos = new long[ROUNDS];
        for (int i = 0; i < ROUNDS; i++) {
            long start = System.nanoTime();
            work.run();
            nanos[i] = System.nanoTime() - start;
        }
        Arrays.sort(nanos);
        return nanos[ROUNDS / 2] / 1e6;
    }
}
