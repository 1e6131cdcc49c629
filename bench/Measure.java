package bench;

import java.net.CookieManager;
import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.sql.Connection;
import java.sql.DriverManager;
import java.util.Arrays;
import java.util.concurrent.Callable;

/** List and finder with 50 000 endpoints, over HTTP and as bare SQL over JDBC: warmed loops, medians. */
public class Measure {
    private static final int WARM = 60;
    private static final int ROUNDS = 101;
    private static final String COLUMNS = "select e.id, e.site_id, e.name, e.kind, e.address, e.address - "
            + "host(network(s.prefix))::inet as host, e.segment_id, i.mac, e.serial,"
            + " coalesce(pl.name, ''), coalesce(o.name, ''), coalesce(g.name || ' ' || po.number, ''), e.tag_code, "
            + "e.station, e.status from endpoint e join segment s on s.id = e.segment_id"
            + " left join place pl on pl.id = e.place_id left join outlet o on o.id = e.outlet_id left join port po on "
            + "po.id = e.port_id left join gear g on g.id = po.gear_id"
            + " left join interface i on i.endpoint_id = e.id and i.retired_at is null and i.medium = 'WIRED' ";
    private static final HttpClient HTTP =
            HttpClient.newBuilder().cookieHandler(new CookieManager()).build();
    private static String base;

    public static void main(String[] args) throws Exception {
        base = args[0];
        signIn(args[1]);
        try (Connection db = DriverManager.getConnection(args[2], "knot_owner", args[3])) {
            long site = fill(db);
            compare(
                    "list, first page of 500",
                    "/api/sites/" + site + "/endpoints",
                    db,
                    COLUMNS + "where e.site_id = " + site + " and e.retired_at is null and (coalesce(e.address, "
                            + "'0.0.0.0'), e.id) > ('0.0.0.0'::inet, 0) order by coalesce(e.address, '0.0.0.0'), e.id "
                            + "limit 500");
            whole(db);
            for (String piece : new String[] {"53:0a:1f", "10.96.77.9", "serial-049", "counter 31", "no such thing"})
                compare(
                        "finder, “" + piece + "”",
                        "/api/find?siteId=" + site + "&q=" + URLEncoder.encode(piece, StandardCharsets.UTF_8),
                        db,
                        COLUMNS + "where e.retired_at is null and e.finder like '%" + piece
                                + "%' order by (e.site_id = " + "" + site + ") desc, e.address, e.id limit 12");
            Paper.measure(db);
            PastMeasure.measure(db);
        }
    }

    private static void signIn(String token) throws Exception {
        send("GET", "/api/welcome", "");
        send(
                "POST",
                "/api/invitations/acceptance",
                "{\"token\":\"" + token + "\",\"name\":\"bench\",\"password\":\"bench bench bench\"}");
        send("POST", "/api/session", "{\"name\":\"bench\",\"password\":\"bench bench bench\"}");
    }

    private static String send(String method, String path, String body) throws Exception {
        return new String(bytes(method, path, body), StandardCharsets.UTF_8);
    }

    static byte[] bytes(String method, String path, String body) throws Exception {
        String token = HTTP.cookieHandler()
                .orElseThrow()
                .get(URI.create(base), java.util.Map.of())
                .getOrDefault("Cookie", java.util.List.of())
                .toString()
                .replaceAll(".*XSRF-TOKEN=([^;," + "\\]]+).*", "$1");
        var request = HttpRequest.newBuilder(URI.create(base + path))
                .header("Content-Type", "application/json")
                .header("X-XSRF-TOKEN", token)
                .method(method, HttpRequest.BodyPublishers.ofString(body))
                .build();
        var answer = HTTP.send(request, HttpResponse.BodyHandlers.ofByteArray());
        if (answer.statusCode() >= 300)
            throw new IllegalStateException(method + " " + path + ": " + answer.statusCode() + " "
                    + new String(answer.body(), StandardCharsets.UTF_8));
        return answer.body();
    }

    private static long fill(Connection db) throws Exception {
        try (var statement = db.createStatement()) {
            statement.execute("insert into site (name, code, zone) values ('Fifty thousand', 'FIFTY', 'UTC')");
            statement.execute(
                    "insert into segment (site_id, name, prefix) select max(id), 'Wide', '10.96.0.0/12' from site");
            statement.execute("""
                    insert into place (site_id, name, walk) select max(id), 'Counter ' || n, n from site, generate_series(0,
                    499) n group by n""");
            statement.execute("""
                    insert into endpoint (site_id, segment_id, kind, kind_version, name, number, address, serial, place_id, tag_code, \
                    station, status)
                    select s.site_id, s.id, 'label-printer', 1, 'Printer ' || n, null, '10.96.0.10'::inet + n, 'SERIAL-' || \
                    lpad(n::text, 6, '0'),
                        (select id from place p where p.site_id = s.site_id and p.walk = n % 500),
                        'FIFTY-L' || n || '-X', 'ONBOARD', 'PENDING' from generate_series(1, 50000) n,
                        (select max(site_id) site_id, max(id) id from segment) s""");
            tapeSite(statement);
            // A few first and their statistics, so that the triggers' plans are those of a grown database.
            String interfaces = "insert into interface (endpoint_id, site_id, mac) select id, site_id, ('0000530a' || "
                    + "lpad(to_hex(id % 65536), 4, '0'))::macaddr from endpoint"
                    + " where site_id = (select id from site where code = 'FIFTY') and not exists (select 1 from "
                    + "interface i where i.endpoint_id = endpoint.id)";
            statement.execute(interfaces + " limit 2000");
            statement.execute("analyze");
            statement.execute(interfaces);
            statement.execute("vacuum analyze");
            var id = statement.executeQuery("select id from site where code = 'FIFTY'");
            id.next();
            return id.getLong(1);
        }
    }

    /** A /16 with 5 000 endpoints, for zooming on its tape. */
    private static void tapeSite(java.sql.Statement statement) throws Exception {
        statement.execute("insert into site (name, code, zone) values ('Five thousand', 'FIVE', 'UTC')");
        statement.execute("insert into segment (site_id, name, prefix, gateway) select id, 'Wide', '10.40.0.0/16', "
                + "'10.40.0.1' from site where code = 'FIVE'");
        statement.execute("""
                insert into endpoint (site_id, segment_id, kind, kind_version, name, address, tag_code, station, status)
                select s.site_id, s.id, 'label-printer', 1, 'Printer ' || n, '10.40.0.2'::inet + n * 13, 'FIVE-L' || n || '-X', \
                'REGISTER', 'PENDING'
                from generate_series(1, 5000) n, (select s.site_id,
                s.id from segment s join site t on t.id = s.site_id where t.code = 'FIVE') s""");
        String five = "(select id from site where code = 'FIVE')";
        statement.execute("insert into place (site_id, name, walk) select " + five
                + ", 'Room ' || n, n from generate_series(1, 250) n");
        statement.execute("insert into gear (site_id, name, type) select " + five + ", 'Switch ' || n, 'SWITCH' from "
                + "generate_series(1, 110) n");
        statement.execute("insert into port (site_id, gear_id, number) select g.site_id, g.id, n from gear g, "
                + "generate_series(1, 48) n where g.site_id = " + five);
        statement.execute("""
                with p as (select id, row_number() over (order by id) n from port where site_id = %1$s),
                    r as (select id, row_number() over (order by id) n from place where site_id = %1$s)
                insert into outlet (site_id, name, place_id, state, port_id)
                select %1$s, 'F-' || p.n, r.id, 'PATCHED', p.id from p join r on r.n = 1 + p.n %% 250 where p.n <= 5200""".formatted(five));
        statement.execute("""
                with o as (select id, place_id, port_id, row_number() over (order by id) n from outlet where site_id = %1$s),
                    e as (select id, row_number() over (order by id) n from endpoint where site_id = %1$s)
                update endpoint set outlet_id = o.id, place_id = o.place_id,
                port_id = o.port_id from o join e on e.n = o.n where endpoint.id = e.id""".formatted(five));
        statement.execute(("insert into interface (endpoint_id, site_id, mac) select id, site_id, ('0000530b' || "
                        + "lpad(to_hex(id %% 65536), 4, '0'))::macaddr from endpoint where site_id = %s")
                .formatted(five));
        statement.execute("""
                insert into registry (site_id, name, type, rules)
                select %s, 'List ' || n, (array['RESERVATIONS', 'ACCESS_LIST', 'PORTAL', 'ACCESS_LIST', 'SERVICE'])[n],
                    '{"naming":"WORDS","longestName":40,"ownerNeeded":false,"sharing":"NONE","most":0,"lifetime":null,\
                    "restart":true,"facts":["MAC","NAME","ADDRESS"],"models":[],"waitsFor":"","leadDays":0,"form":"CSV"}'
                from generate_series(1, 5) n""".formatted(five));
        statement.execute("""
                insert into registration (registry_id, site_id, endpoint_id, name, mac, address, asked_at, entered_at)
                select r.id, r.site_id, e.id, e.name, i.mac, e.address, now() - interval '2 days', now() - interval '1 day'
                from registry r join endpoint e on e.site_id = r.site_id join interface i on i.endpoint_id = e.id
                where r.site_id = %s and (e.id + r.id) %% 3 <> 0""".formatted(five));
    }

    /** A site of 5 000 with all its cables and entries, each page that shows the whole of it asked over HTTP. */
    private static void whole(Connection db) throws Exception {
        long site = number(db, "select id from site where code = 'FIVE'"),
                segment =
                        number(
                                db,
                                "select s.id from segment s "
                                        + "join site t on t.id = s.site_id where t.code = 'FIVE'");
        long registry =
                number(db, "select min(r.id) from registry r join site t on t.id = r.site_id where t.code = 'FIVE'");
        String at = "/api/sites/" + site;
        for (String path : new String[] {
            "/conflicts",
            "/segments/" + segment + "/tape",
            "/growth",
            "/wiring",
            "/registries",
            "/due",
            "/reminders.ics",
            "/clean-up",
            "/board",
            "/stations",
            "/handover",
            "/logbook?q=anything",
            "/proposal?kind=label-printer&segmentId=" + segment,
            "/audit",
            "/changes",
            "/impact?change=PROVIDER&subject=LINE:"
        }) row5(path.replaceAll("segments/\\d+/|\\?.*", ""), at + path);
        row5("/today", "/api/today");
        row5("/registries/…/lines", "/api/registries/" + registry + "/lines");
        signOffAll(db);
        row5("/rechecks", at + "/rechecks");
        row5("/nights", at + "/nights");
    }

    /** Everybody at every site was proved within the last two years, and now and then something was found. */
    private static void signOffAll(Connection db) throws Exception {
        try (var change = db.createStatement()) {
            change.execute("""
                    insert into sign_off (endpoint_id, grade, note, at, by)
                    select id, 'FAIR', '', now() - id % 700 * interval '1 day', 'bench' from endpoint""");
            change.execute("""
                    update endpoint set confirmed_by = 'bench', confirmed_at = now() - id % 700 * interval '1 day'""");
            change.execute("""
                    insert into device_change (endpoint_id, what, at, by)
                    select id, 'RESET', now() - id % 300 * interval '1 day', 'bench' from endpoint where id % 20 = 0""");
        }
    }

    private static void row5(String what, String path) throws Exception {
        var sizes = new int[1];
        double millis = median(() -> sizes[0] = send("GET", path, "").length(), 3, 9);
        System.out.printf(
                "| %-38s | %9.2f ms | wanted < %8d ms | %,d kB |%n",
                "site of 5 000: " + what.substring(1), millis, 300, sizes[0] / 1000);
    }

    static long number(Connection db, String sql) throws Exception {
        try (var statement = db.createStatement();
                var result = statement.executeQuery(sql)) {
            result.next();
            return result.getLong(1);
        }
    }

    private static void compare(String what, String path, Connection db, String sql) throws Exception {
        double http = median(() -> send("GET", path, ""));
        double bare;
        try (var statement = db.prepareStatement(sql)) {
            int[] rows = new int[1];
            bare = median(() -> {
                rows[0] = 0;
                try (var result = statement.executeQuery()) {
                    int columns = result.getMetaData().getColumnCount();
                    while (result.next()) {
                        rows[0]++;
                        for (int c = 1; c <= columns; c++) result.getString(c);
                    }
                }
                return null;
            });
            System.out.printf("| %-38s | %9.2f ms | bare SQL %8.2f ms | %d rows |%n", what, http, bare, rows[0]);
        }
    }

    private static double median(Callable<?> work) throws Exception {
        return median(work, WARM, ROUNDS);
    }

    static double median(Callable<?> work, int warm, int rounds) throws Exception {
        for (int i = 0; i < warm; i++) work.call();
        long[] nanos = new long[rounds];
        for (int i = 0; i < rounds; i++) {
            long start = System.nanoTime();
            work.call();
            nanos[i] = System.nanoTime() - start;
        }
        Arrays.sort(nanos);
        return nanos[rounds / 2] / 1e6;
    }
}
