package bench;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Ipv4Prefix;
import app.knottag.core.address.Segment;
import app.knottag.core.audit.Audit;
import app.knottag.core.audit.AuditSite;
import app.knottag.core.hardware.Mac;
import app.knottag.core.plan.Sighting;
import app.knottag.server.record.SightingStore;
import java.sql.Array;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.regex.Pattern;
import org.apache.ibatis.annotations.Insert;

/**
 * Five years of nightly looks at 200 sites of 50 endpoints, through the very statement with which the server keeps them: ten
 * sites night by night, and the others as copies of what is left of those.
 */
final class PastMeasure {

    private static final int FED = 10, SITES = 200, UNITS = 50, NIGHTS = 1825, GUESTS = 3;
    private static final Instant LAST = Instant.now().minus(Duration.ofHours(8));

    private PastMeasure() {}

    static void measure(Connection db) throws Exception {
        join();
        long first = sites(db);
        long start = System.nanoTime();
        for (int n = 0; n < FED; n++) feed(db, first + n, n);
        double night = (System.nanoTime() - start) / 1e6 / FED / NIGHTS;
        copy(db, first);
        long stays = Measure.number(db, "select count(*) from stay"),
                looks = Measure.number(db, "select sum(looks) from stay"),
                bytes = Measure.number(db, "select pg_total_relation_size('stay')");
        System.out.printf(
                "| %-38s | %9.2f ms | %-20s | a site's 50 endpoints and 3 guests, mean of %,d nights |%n",
                "a nightly look kept", night, "", FED * NIGHTS);
        System.out.printf(
                "| %-38s | %9d MB | %-20s | %,d sightings in %,d stays, with indexes |%n",
                "five years of them on disk", bytes / 1_000_000, "", looks, stays);
        long site = first + FED + 3;
        row("audit of a site with five years", "/api/sites/" + site + "/audit", 300);
        row("history of a MAC", "/api/sites/" + site + "/past?of=" + mac(3, 7), 100);
        row("history of an address", "/api/sites/" + site + "/past?of=10.80.0.17", 100);
        String then = LAST.minus(Duration.ofDays(730)).toString().substring(0, 16);
        row("who was there two years ago", "/api/sites/" + site + "/past?at=" + then, 300);
    }

    private record Row(AuditSite.Recorded byMac, AuditSite.Recorded byAddress, AuditSite.Seen seen) {}

    /** Ten thousand seen against ten thousand on record, and a bare hash join of the same rows, by MAC and by address. */
    private static void join() throws Exception {
        var random = new Random(5);
        var recorded = new ArrayList<AuditSite.Recorded>();
        var seen = new ArrayList<AuditSite.Seen>();
        for (int n = 0; n < 10_000; n++) {
            var mac = Mac.parse(String.format("00:00:5E:70:%02X:%02X", n / 256, n % 256));
            var address = Ipv4Address.parse("10.64." + n / 200 + "." + (10 + n % 200));
            recorded.add(
                    new AuditSite.Recorded(n + 1L, "Unit " + n, Optional.of(address), Optional.of(mac), List.of()));
            var at = random.nextInt(50) == 0 ? Ipv4Address.parse("10.64.200." + random.nextInt(250)) : address;
            seen.add(new AuditSite.Seen(mac, at, Sighting.Source.NEIGHBOURS, LAST.minus(Duration.ofDays(9)), LAST));
        }
        var segment = new Segment(Ipv4Prefix.parse("10.64.0.0/16"), Optional.empty(), List.of());
        var site = new AuditSite(
                List.of(segment), recorded, Map.of(), seen, Optional.of(LAST), Map.of(), Map.of(), Map.of(), List.of());
        double ours = Measure.median(() -> Audit.of(site, LAST).size(), 60, 101);
        double bare = Measure.median(() -> {
            var byMac = new HashMap<Mac, AuditSite.Recorded>();
            var byAddress = new HashMap<Ipv4Address, AuditSite.Recorded>();
            for (var r : recorded) {
                byMac.put(r.mac().get(), r);
                byAddress.put(r.address().get(), r);
            }
            var rows = new ArrayList<Row>();
            for (var s : seen) {
                rows.add(new Row(byMac.get(s.mac()), byAddress.get(s.address()), s));
            }
            return rows.size();
        }, 60, 101);
        System.out.printf(
                "| %-38s | %9.2f ms | bare join %7.2f ms | wanted at most 3 times |%n",
                "10 000 seen against 10 000 on record", ours, bare);
    }

    private static void row(String what, String path, int wanted) throws Exception {
        int[] size = new int[1];
        double millis = Measure.median(() -> size[0] = Measure.bytes("GET", path, "").length, 3, 9);
        System.out.printf("| %-38s | %9.2f ms | wanted < %8d ms | %,d kB |%n", what, millis, wanted, size[0] / 1000);
    }

    private static String mac(long site, int unit) {
        return String.format("00:00:5E:%02X:%02X:%02X", 0x60, site, unit);
    }

    private static long sites(Connection db) throws Exception {
        try (var statement = db.createStatement()) {
            statement.execute("insert into site (name, code, zone) "
                    + "select 'Past ' || n, 'P' || chr(65 + n / 26) || chr(65 + n % 26), 'UTC' from "
                    + "generate_series(1, " + SITES + ") n");
            String ours = " from site t where t.name like 'Past %'";
            statement.execute("insert into segment (site_id, name, prefix) select t.id, 'Shop', '10.80.0.0/24'" + ours);
            statement.execute("insert into pool (segment_id, from_address, to_address) select s.id, '10.80.0.100', '10.80.0.250'"
                    + " from segment s join site t on t.id = s.site_id where t.name like 'Past %'");
            statement.execute("""
                    insert into endpoint (site_id, segment_id, kind, kind_version, name, address, tag_code, station, status)
                    select s.site_id, s.id, 'label-printer', 1, 'Printer ' || n, '10.80.0.9'::inet + n,
                      t.code || '-L' || n || '-X', 'CONFIRM', 'PENDING'
                    from generate_series(1, %d) n, segment s join site t on t.id = s.site_id
                    where t.name like 'Past %%'""".formatted(UNITS));
            statement.execute("""
                    insert into interface (endpoint_id, site_id, mac) select e.id, e.site_id,
                    ('00005e60' || lpad(to_hex(e.site_id - (select min(id)%1$s)), 2, '0')
                      || lpad(to_hex(host(e.address)::inet - '10.80.0.10'::inet), 2, '0'))::macaddr
                    from endpoint e join site t on t.id = e.site_id where t.name like 'Past %%'""".formatted(ours));
        }
        return Measure.number(db, "select min(id) from site where name like 'Past %'");
    }

    /** Nearly everybody is seen where it belongs; now and then one is on automatic for a while, and guests come and go. */
    private static void feed(Connection db, long site, int n) throws Exception {
        var random = new Random(n);
        var at = new int[UNITS];
        String text = SightingStore.class
                .getMethod("keep", long.class, SightingStore.Columns.class, String.class, String.class)
                .getAnnotation(Insert.class)
                .value()[0];
        var names = Pattern.compile("#\\{([^,}]+)[^}]*}")
                .matcher(text)
                .results()
                .map(m -> m.group(1))
                .toList();
        try (var keep = db.prepareStatement(text.replaceAll("#\\{[^}]*}", "?"))) {
            for (int night = 0; night < NIGHTS; night++) {
                var when = LAST.minus(Duration.ofDays(NIGHTS - 1L - night)).toString();
                var addresses = new ArrayList<String>();
                var macs = new ArrayList<String>();
                for (int u = 0; u < UNITS; u++) {
                    if (at[u] == 0 && random.nextInt(400) == 0) at[u] = 100 + random.nextInt(100);
                    else if (at[u] != 0 && random.nextInt(5) == 0) at[u] = 0;
                    if (random.nextInt(33) == 0) continue;
                    addresses.add("10.80.0." + (at[u] == 0 ? 10 + u : at[u]));
                    macs.add(mac(n, u));
                }
                for (int g = 0; g < GUESTS; g++) {
                    addresses.add("10.80.0." + (200 + random.nextInt(50)));
                    macs.add(String.format(
                            "02:%02X:%02X:%02X:%02X:%02X",
                            n, g, random.nextInt(256), random.nextInt(256), random.nextInt(256)));
                }
                keep(db, keep, names, site, addresses, macs, when);
            }
        }
    }

    private static void keep(
            Connection db,
            PreparedStatement keep,
            List<String> names,
            long site,
            List<String> addresses,
            List<String> macs,
            String when)
            throws Exception {
        int many = addresses.size();
        for (int i = 0; i < names.size(); i++)
            switch (names.get(i)) {
                case "siteId" -> keep.setLong(i + 1, site);
                case "away" -> keep.setString(i + 1, Sighting.AWAY.toString());
                case "by" -> keep.setString(i + 1, "bench");
                case "c.addresses" -> keep.setArray(i + 1, texts(db, addresses));
                case "c.macs" -> keep.setArray(i + 1, texts(db, macs));
                case "c.sources" -> keep.setArray(i + 1, texts(db, java.util.Collections.nCopies(many, "NEIGHBOURS")));
                case "c.times" -> keep.setArray(i + 1, texts(db, java.util.Collections.nCopies(many, when)));
                case "c.ends" -> keep.setArray(i + 1, texts(db, Arrays.asList(new String[many])));
                default -> throw new IllegalStateException(names.get(i));
            }
        keep.executeUpdate();
    }

    private static Array texts(Connection db, List<String> values) throws Exception {
        return db.createArrayOf("text", values.toArray());
    }

    private static void copy(Connection db, long first) throws Exception {
        try (var statement = db.createStatement()) {
            statement.execute("""
                    insert into stay (site_id, address, mac, source, first_seen, last_seen, looks, by)
                    select s.site_id + %2$d * n, s.address,
                      case when s.mac < '02:00:00:00:00:00'
                        then overlay(s.mac::text placing lpad(to_hex(s.site_id - %1$d + %2$d * n), 2, '0') from 13 for 2)::macaddr
                        else s.mac end,
                      s.source, s.first_seen, s.last_seen, s.looks, s.by
                    from stay s, generate_series(1, %3$d) n
                    where s.site_id >= %1$d and s.site_id < %1$d + %2$d order by s.last_seen, s.id"""
                    .formatted(first, FED, SITES / FED - 1));
            statement.execute("vacuum analyze stay");
        }
    }
}
