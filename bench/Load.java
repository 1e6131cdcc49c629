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
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.SplittableRandom;
import java.util.TreeMap;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.Executors;
import java.util.concurrent.TimeUnit;
import java.util.regex.Pattern;

/**
 * Fifty people at work on 50 000 endpoints in 200 sites, four of them with 5 000: each opens pages as the page does, reads a MAC key by
 * key, completes a step and takes it back, changes a word, looks for a piece, with a pause between what they do.
 */
public class Load {
    private static final int PEOPLE = 50, SITES = 200, LARGE = 4, LARGE_SITE = 5_000, SMALL_SITE = 153;
    private static final int WARM_SECONDS = 20, SECONDS = Integer.getInteger("knot.load.seconds", 60);
    private static final String SIGN_IN = "{\"name\":\"load %d\",\"password\":\"bench bench bench\"}";
    private static final String JOIN = "{\"token\":\"%s\",\"name\":\"load %d\",\"password\":\"bench bench bench\"}";
    private static final String KEY = "{\"text\":\"%s\",\"siteId\":%d,\"endpointId\":%d}";
    private static final String ADDRESS = "{\"text\":\"10.96.0.77\",\"purpose\":\"ADDRESS\",\"endpointId\":%d}";
    private static final String COMPLETE = "{\"action\":\"COMPLETE\",\"evidence\":{\"unit\":\"%s\"}}";
    private static final Pattern VERSION = Pattern.compile("\"version\":(\\d+)");

    private record Site(long id, long segment, long first, long count) {}

    private record Timed(String what, long nanos, int status) {}

    private static final ConcurrentLinkedQueue<Timed> TIMED = new ConcurrentLinkedQueue<>();
    private static String base;
    private static volatile boolean counts, over;

    public static void main(String[] args) throws Exception {
        base = args[0];
        List<Site> sites;
        try (Connection db = DriverManager.getConnection(args[1], "knot_owner", args[2])) {
            fill(db);
            sites = sites(db);
        }
        people();
        var threads = Executors.newFixedThreadPool(PEOPLE);
        for (int n = 0; n < PEOPLE; n++) {
            int person = n;
            threads.submit(() -> {
                try {
                    new Person(person, sites).work();
                } catch (Exception e) {
                    TIMED.add(new Timed("broke off: " + e, Long.MAX_VALUE, 0));
                }
            });
        }
        Thread.sleep(WARM_SECONDS * 1000L);
        counts = true;
        Thread.sleep(SECONDS * 1000L);
        over = true;
        threads.shutdown();
        threads.awaitTermination(60, TimeUnit.SECONDS);
        print();
    }

    private static void print() {
        var all = TIMED.stream().mapToLong(Timed::nanos).sorted().toArray();
        long wrong =
                TIMED.stream().filter(t -> t.status() >= 500 || t.status() == 0).count();
        System.out.printf(
                "| %-38s | %9.1f ms | wanted < %8d ms | %,d answers in %d s, %d of them 5xx or none;"
                        + " half under %.1f ms, 99 of 100 under %.1f |%n",
                "50 people at work, 95 of 100 under",
                at(all, 0.95),
                150,
                all.length,
                SECONDS,
                wrong,
                at(all, 0.5),
                at(all, 0.99));
        System.out.printf(
                "| %-38s | %9.1f ms | wanted < %8d ms | 50 000 endpoints in 200 sites, four people at sites of 5 000 |%n",
                "50 people at work, slowest", at(all, 1), 2_000);
        Map<String, List<Long>> kinds = new TreeMap<>();
        for (var t : TIMED)
            kinds.computeIfAbsent(t.what(), k -> new ArrayList<>()).add(t.nanos());
        if (Boolean.getBoolean("knot.load.kinds"))
            kinds.forEach((what, times) -> {
                var sorted = times.stream().mapToLong(Long::longValue).sorted().toArray();
                System.out.printf(
                        "%-32s %6d   p50 %7.1f   p95 %7.1f   most %7.1f%n",
                        what, sorted.length, at(sorted, 0.5), at(sorted, 0.95), at(sorted, 1));
            });
    }

    private static double at(long[] sorted, double share) {
        return sorted.length == 0 ? 0 : sorted[Math.min(sorted.length - 1, (int) (sorted.length * share))] / 1e6;
    }

    /** One of them; the first four work at the large sites. */
    private static final class Person {
        private final int number;
        private final List<Site> sites;
        private final SplittableRandom random;
        private final HttpClient http =
                HttpClient.newBuilder().cookieHandler(new CookieManager()).build();

        Person(int number, List<Site> sites) {
            this.number = number;
            this.sites = sites;
            this.random = new SplittableRandom(number);
        }

        void work() throws Exception {
            // Nobody comes at the same moment as fifty others; who tries so from one address is slowed down.
            Thread.sleep(number * 250L);
            send("sign in", "GET", "/api/welcome", "", null);
            send("sign in", "POST", "/api/session", SIGN_IN.formatted(number), null);
            while (!over) {
                var site = number < LARGE ? sites.get(number) : sites.get(LARGE + random.nextInt(SITES - LARGE));
                String at = "/api/sites/" + site.id();
                for (String page : List.of("/stations", "/endpoints?limit=500", "/board", "/due", "/conflicts")) {
                    send(page.replaceAll("\\?.*", ""), "GET", at + page, "", null);
                    pause();
                }
                send("/today", "GET", "/api/today", "", null);
                pause();
                for (int n = 0; n < 4 && !over; n++) one(site, site.first() + random.nextLong(site.count()));
            }
        }

        private void one(Site site, long id) throws Exception {
            String at = "/api/endpoints/" + id;
            send("endpoint", "GET", at, "", null);
            String version = version(send("runbook", "GET", at + "/runbook", "", null));
            pause();
            String mac = "00:00:53:%02x:%02x:%02x".formatted(id >> 16 & 255, id >> 8 & 255, id & 255);
            for (int n = 12; n <= mac.length(); n += 1 + n % 2)
                send(
                        "a key of a MAC",
                        "POST",
                        "/api/mac/read",
                        KEY.formatted(mac.substring(0, n), site.id(), id),
                        null);
            send("a key of an address", "POST", "/api/address/read", ADDRESS.formatted(id), null);
            pause();
            String unit = mac.replace(":", "").substring(8);
            String step = at + "/runbook/steps/label";
            String done = send("complete a step", "PUT", step, COMPLETE.formatted(unit), version);
            pause();
            send("take a step back", "PUT", step, "{\"action\":\"REOPEN\"}", version(done));
            pause();
            String piece = URLEncoder.encode("printer " + random.nextInt(5000), StandardCharsets.UTF_8);
            send("find", "GET", "/api/find?siteId=" + site.id() + "&q=" + piece, "", null);
            pause();
            String model = "{\"model\":\"M-" + random.nextInt(99) + "\"}";
            send("change a word", "PATCH", at, model, version(send("endpoint", "GET", at, "", null)));
            send("log", "GET", "/api/sites/" + site.id() + "/log?endpointId=" + id, "", null);
            pause();
        }

        private void pause() throws InterruptedException {
            Thread.sleep(over ? 0 : 200 + random.nextInt(800));
        }

        private static String version(String body) {
            var found = VERSION.matcher(body);
            return found.find() ? "\"" + found.group(1) + "\"" : "\"0\"";
        }

        private String send(String what, String method, String path, String body, String version) throws Exception {
            var jar = http.cookieHandler().orElseThrow().get(URI.create(base), Map.of());
            String cookies = jar.getOrDefault("Cookie", List.of()).toString();
            var request = HttpRequest.newBuilder(URI.create(base + path))
                    .header("Content-Type", "application/json")
                    .header("X-XSRF-TOKEN", cookies.replaceAll(".*XSRF-TOKEN=([^;,\\]]+).*", "$1"))
                    .method(method, HttpRequest.BodyPublishers.ofString(body));
            if (version != null) request.header("If-Match", version);
            long start = System.nanoTime();
            var answer = http.send(request.build(), HttpResponse.BodyHandlers.ofString());
            if (counts && !over) TIMED.add(new Timed(what, System.nanoTime() - start, answer.statusCode()));
            if (answer.statusCode() >= 500 || List.of(400, 401, 403, 422, 429).contains(answer.statusCode()))
                throw new IllegalStateException(method + " " + path + ": " + answer.statusCode() + " " + answer.body());
            return answer.body();
        }
    }

    /** Each is invited by the lead and accepts, as people do. */
    private static void people() throws Exception {
        var lead = new Person(-1, List.of());
        lead.send("sign in", "GET", "/api/welcome", "", null);
        lead.send("sign in", "POST", "/api/session", "{\"name\":\"bench\",\"password\":\"bench bench bench\"}", null);
        for (int n = 0; n < PEOPLE; n++) {
            String invited = lead.send("invite", "POST", "/api/invitations", "{\"role\":\"TECHNICIAN\"}", null);
            String token = invited.replaceAll(".*/join/([^\"]+)\".*", "$1");
            var person = new Person(n, List.of());
            person.send("join", "GET", "/api/welcome", "", null);
            person.send("join", "POST", "/api/invitations/acceptance", JOIN.formatted(token, n), null);
        }
    }

    private static void fill(Connection db) throws Exception {
        try (var statement = db.createStatement()) {
            statement.execute("""
                    create temporary table wanted as select n, chr(65 + n / 26) || chr(65 + n %% 26) || 'X' as code,
                        case when n < %d then %d else %d end as endpoints from generate_series(0, %d) n""".formatted(LARGE,
                        LARGE_SITE, SMALL_SITE, SITES - 1));
            statement.execute("insert into site (name, code, zone) select 'Load ' || n, code, 'UTC' from wanted");
            statement.execute("""
                    insert into segment (site_id, name, prefix, gateway) select s.id, 'Shop', '10.96.0.0/16', '10.96.0.1'
                    from wanted w join site s on s.code = w.code""");
            statement.execute("""
                    insert into place (site_id, name, walk) select s.id, 'Room ' || i, i
                    from wanted w join site s on s.code = w.code, generate_series(1, 9) i""");
            statement.execute("""
                    insert into endpoint (site_id, segment_id, kind, kind_version, name, address, serial, tag_code, station, status, \
                    place_id)
                    select s.id, g.id, 'label-printer', 2, 'Printer ' || i, '10.96.0.10'::inet + i * 3,
                        'LW-' || lpad(i::text, 5, '0') || 'A',
                        w.code || '-L' || i || '-X', 'ONBOARD', 'PENDING', p.id
                    from wanted w join site s on s.code = w.code join segment g on g.site_id = s.id,
                        generate_series(1, w.endpoints) i, place p
                    where p.site_id = s.id and p.walk = 1 + i % 9 order by s.id, i""");
            statement.execute("""
                    insert into interface (endpoint_id, site_id, mac)
                    select e.id, e.site_id, ('000053' || lpad(to_hex(e.id % 16777216), 6, '0'))::macaddr
                    from endpoint e join site s on s.id = e.site_id join wanted w on w.code = s.code""");
            statement.execute("""
                    insert into registry (site_id, name, type, rules) select s.id, 'Router', 'RESERVATIONS',
                        '{"naming":"WORDS","longestName":40,"ownerNeeded":false,"sharing":"NONE","most":0,"lifetime":null,"restart":true,
                        "facts":["MAC","NAME"],"models":[],"waitsFor":"","leadDays":0,"form":"CSV"}'
                    from wanted w join site s on s.code = w.code""");
            statement.execute("""
                    insert into registration (registry_id, site_id, endpoint_id, name, mac, address, asked_at, entered_at)
                    select r.id, r.site_id, e.id, e.name, i.mac, e.address, now() - interval '2 days', now() - interval '1 day'
                    from registry r join endpoint e on e.site_id = r.site_id join interface i on i.endpoint_id = e.id
                    join site s on s.id = r.site_id join wanted w on w.code = s.code where e.id % 3 <> 0""");
            statement.execute("vacuum analyze");
        }
    }

    private static List<Site> sites(Connection db) throws Exception {
        var sites = new ArrayList<Site>();
        try (var statement = db.createStatement();
                var rows = statement.executeQuery("""
                        select s.id, min(e.segment_id), min(e.id), count(*)
                        from endpoint e join site s on s.id = e.site_id join wanted w on w.code = s.code
                        group by s.id, w.n order by w.n""")) {
            while (rows.next()) sites.add(new Site(rows.getLong(1), rows.getLong(2), rows.getLong(3), rows.getLong(4)));
        }
        return sites;
    }
}
