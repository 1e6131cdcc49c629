package app.knottag.server.db;

import static org.assertj.core.api.Assertions.assertThat;

import app.knottag.core.handover.TagCode;
import app.knottag.server.Api;
import app.knottag.server.App;
import app.knottag.server.Running;
import app.knottag.server.account.Invitations;
import app.knottag.server.account.Role;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.function.UnaryOperator;
import java.util.zip.GZIPInputStream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;
import java.util.zip.ZipOutputStream;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.springframework.boot.builder.SpringApplicationBuilder;
import org.springframework.boot.web.server.context.WebServerApplicationContext;
import org.springframework.context.ConfigurableApplicationContext;

/**
 * What an earlier version left, as its own PostgreSQL wrote it out: a garden centre in the middle of its work. Brought up to date
 * nothing of it is lost, and whoever worked goes on.
 */
class UpgradeTest {

    private static final String URL = System.getenv("KNOT_DB_URL").replaceFirst("/knot$", "/upgrade");
    /** Tables and states by the words they had, and the ones they have. */
    private static final Map<String, String> NOW = Map.of(
            "round", "check_run",
            "witness", "observation",
            "diagnosis_look", "diagnosis_answer",
            "cause_found", "fault_found",
            "OPEN", "PENDING",
            "HALF_DRAWN", "ACTIVE",
            "TIGHT", "PASSED",
            "FRAYED", "FAILED",
            "LEFT_OUT", "SKIPPED",
            "sighting", "stay");

    /** Ten nights at one address, a night elsewhere, back again, and once more after a month; a list without MACs beside it. */
    private static final String NIGHTS = """
            insert into public.sighting (site_id, address, mac, source, seen_at, by)
            select (select min(id) from public.site), case n when 10 then '10.9.9.130'::inet else '10.9.9.30' end,
              '00:00:5e:00:53:f1'::macaddr, 'NEIGHBOURS', timestamptz '2026-03-01 02:00Z' + n * interval '1 day', 'x'
            from (select generate_series(0, 14) union all select 44) t (n)
            union all select min(id), '10.9.9.30', null, 'SHEET', '2026-03-02 12:00Z', 'x' from public.site""";

    private static Map<String, Long> rows;
    private static List<String> stations;
    private static ConfigurableApplicationContext app;
    private static Api lead;

    @BeforeAll
    static void upgrade() throws IOException, SQLException {
        try (var dump = new GZIPInputStream(UpgradeTest.class.getResourceAsStream("/upgrade/V8.sql.gz"));
                var db = owner();
                var statement = db.createStatement()) {
            statement.execute(new String(dump.readAllBytes(), StandardCharsets.UTF_8));
            statement.execute(NIGHTS);
        }
        rows = rows();
        stations = stations("knot");
        app = new SpringApplicationBuilder(App.class, Running.FakedNetwork.class)
                .run("--server.port=0", "--spring.datasource.url=" + URL, "--spring.flyway.url=" + URL);
        lead = new Api("http://127.0.0.1:"
                + ((WebServerApplicationContext) app).getWebServer().getPort());
        lead.get("/api/welcome");
        lead.post("/api/session", "{'name':'Imke Rasmund','password':'tie-it-well-1'}")
                .expect(200);
    }

    @AfterAll
    static void stop() {
        app.close();
    }

    private static Connection owner() throws SQLException {
        return DriverManager.getConnection(URL, "knot_owner", System.getenv("KNOT_DB_OWNER_PASSWORD"));
    }

    private static List<String> list(String sql) {
        try (var db = owner();
                var statement = db.createStatement();
                var result = statement.executeQuery(sql)) {
            var all = new ArrayList<String>();
            while (result.next()) all.add(result.getString(1));
            return all;
        } catch (SQLException e) {
            throw new UncheckedIOException(new IOException(e));
        }
    }

    /** How many rows each table has, but for what comes and goes with sessions and versions. */
    private static Map<String, Long> rows() {
        var rows = new TreeMap<String, Long>();
        for (var table : list("select table_name from information_schema.tables where table_schema = 'public'"))
            if (!table.matches("flyway.*|spring_session.*|kind_file|idempotency"))
                rows.put(
                        NOW.getOrDefault(table, table),
                        Long.parseLong(
                                list("select count(*) from public." + table).get(0)));
        return rows;
    }

    private static List<String> stations(String column) {
        return list("select id || ' ' || station || ' ' || " + column
                        + " from public.endpoint where retired_at is null order by id")
                .stream()
                .map(line -> {
                    String state = line.substring(line.lastIndexOf(' ') + 1);
                    return line.substring(0, line.length() - state.length()) + NOW.getOrDefault(state, state);
                })
                .toList();
    }

    @DisplayName("Every row is still there, and the log's chain is whole")
    @Test
    void nothingIsLost() {
        assertThat(rows)
                .hasSizeGreaterThan(25)
                .containsKeys("endpoint", "step", "registration", "check_run", "log_entry");
        // Sixteen looks of one device are four stays of it.
        assertThat(rows.put("stay", rows.get("stay") - 16 + 4)).isEqualTo(17);
        assertThat(rows()).containsAllEntriesOf(rows);
        assertThat(list("select address || ' ' || to_char(first_seen at time zone 'UTC', 'DD.MM') || ' '"
                        + " || to_char(last_seen at time zone 'UTC', 'DD.MM') || ' ' || looks from public.stay"
                        + " where mac = '00:00:5e:00:53:f1' order by first_seen"))
                .containsExactly(
                        "10.9.9.30/32 01.03 10.03 10",
                        "10.9.9.130/32 11.03 11.03 1",
                        "10.9.9.30/32 12.03 15.03 4",
                        "10.9.9.30/32 14.04 14.04 1");
        var check = lead.get("/api/log/check").expect(200).json();
        assertThat(check.get("whole").asBoolean()).as(check.toString()).isTrue();
        assertThat(check.get("entries").asLong()).isEqualTo(rows.get("log_entry"));
    }

    @DisplayName("Every endpoint opens, waits where it waited, and its runbook goes on at the step where it was")
    @Test
    void runbooksGoOn() {
        assertThat(stations).hasSizeGreaterThan(20);
        assertThat(stations("status"))
                .as("what was proved waits to be handed over")
                .isEqualTo(stations.stream()
                        .map(s -> s.replace("DONE PASSED", "HANDOVER PASSED"))
                        .toList());
        assertThat(list("select tag_code from public.endpoint"))
                .as("codes get the check characters that they end in now")
                .hasSizeGreaterThan(20)
                .allMatch(TagCode::holds);
        int begun = 0;
        for (var line : stations) {
            long id = Long.parseLong(line.split(" ")[0]);
            for (String part : List.of("", "/verification", "/registrations", "/chain", "/interfaces", "/labels"))
                lead.get("/api/endpoints/" + id + part).expect(200);
            var book = lead.get("/api/endpoints/" + id + "/runbook").expect(200).json();
            var done = list("select key from public.step where endpoint_id = " + id + " and status = 'PASSED'");
            int shown = 0;
            for (var step : book.get("steps")) {
                if (!done.contains(step.get("key").asString())) continue;
                assertThat(step.get("status").asString()).as(line + " " + step).isEqualTo("PASSED");
                shown++;
            }
            assertThat(shown).as(line).isEqualTo(done.size());
            if (line.contains("ONBOARD") && shown > 0) {
                begun++;
                assertThat(book.get("current").isNull()).as(line).isFalse();
            }
        }
        assertThat(begun).as("runbooks that were under way").isPositive();
    }

    @DisplayName("Every page of every site opens")
    @Test
    void everyPageOpens() {
        for (var site : list("select id from public.site"))
            for (String page : List.of(
                    "",
                    "/sheet",
                    "/conflicts",
                    "/growth",
                    "/wiring",
                    "/board",
                    "/night",
                    "/registries",
                    "/due",
                    "/swaps",
                    "/clean-up",
                    "/firewall",
                    "/stations",
                    "/endpoints",
                    "/log",
                    "/register.csv",
                    "/reminders.ics")) lead.get("/api/sites/" + site + page).expect(200);
    }

    private static Map<String, byte[]> unpacked(byte[] zip) throws IOException {
        var files = new TreeMap<String, byte[]>();
        try (var in = new ZipInputStream(new ByteArrayInputStream(zip))) {
            for (var e = in.getNextEntry(); e != null; e = in.getNextEntry()) files.put(e.getName(), in.readAllBytes());
        }
        return files;
    }

    private static byte[] packed(Map<String, byte[]> files) throws IOException {
        var bytes = new ByteArrayOutputStream();
        try (var out = new ZipOutputStream(bytes)) {
            for (var f : files.entrySet()) {
                out.putNextEntry(new ZipEntry(f.getKey()));
                out.write(f.getValue());
            }
        }
        return bytes.toByteArray();
    }

    private static byte[] with(byte[] zip, String name, UnaryOperator<String> change) throws IOException {
        var files = unpacked(zip);
        files.put(
                name,
                change.apply(new String(files.getOrDefault(name, new byte[0]), StandardCharsets.UTF_8))
                        .getBytes(StandardCharsets.UTF_8));
        return packed(files);
    }

    @DisplayName(
            "A whole site goes as one file into an empty Knot Tag and comes out of it the same; a changed file does not")
    @Test
    void aWholeSiteAsOneFile() throws IOException {
        String site = list("select site_id from public.endpoint group by site_id order by count(*) desc")
                .get(0);
        byte[] zip = lead.file("GET", "/api/sites/" + site + "/site.zip", "");
        String url = URL.replaceFirst("/upgrade$", "/taken");
        try (var other = new SpringApplicationBuilder(App.class, Running.FakedNetwork.class)
                .run("--server.port=0", "--spring.datasource.url=" + url, "--spring.flyway.url=" + url)) {
            other.getBean(Invitations.class).add("Wiebke Sand", Role.LEAD, Running.PASSWORD);
            var fresh = new Api("http://127.0.0.1:"
                    + ((WebServerApplicationContext) other).getWebServer().getPort());
            fresh.get("/api/welcome");
            fresh.post("/api/session", "{'name':'Wiebke Sand','password':'" + Running.PASSWORD + "'}")
                    .expect(200);
            var refused = new LinkedHashMap<byte[], String>();
            refused.put(new byte[] {1, 2, 3}, "no-site-file");
            refused.put(Arrays.copyOf(zip, zip.length / 2), "torn");
            refused.put(with(zip, "data/endpoint.json", t -> t.replaceFirst("10\\.44", "10.45")), "changed");
            refused.put(with(zip, "data/person.json", t -> "[]"), "changed");
            refused.put(with(zip, "../../etc/passwd", t -> "x"), "no-site-file");
            refused.put(
                    with(zip, "manifest.json", t -> t.replaceFirst("\"format\" : \\d+", "\"format\" : 9999")), "newer");
            refused.put(
                    with(zip, "manifest.json", t -> t.replaceFirst("\"format\" : \\d+", "\"format\" : 1")), "older");
            refused.put(with(zip, "manifest.json", t -> "{"), "no-manifest");
            for (var r : refused.entrySet())
                fresh.sendBytes("POST", "/api/site-file", "application/zip", r.getKey())
                        .refused(422, "site-file-" + r.getValue());
            assertThat(fresh.get("/api/sites").json()).as("nothing was taken").isEmpty();
            long id = fresh.sendBytes("POST", "/api/site-file", "application/zip", zip)
                    .expect(200)
                    .json()
                    .get("id")
                    .asLong();
            var was = unpacked(zip);
            var is = unpacked(fresh.file("GET", "/api/sites/" + id + "/site.zip", ""));
            assertThat(is.keySet()).isEqualTo(was.keySet()).hasSizeGreaterThan(40);
            for (String name : was.keySet())
                if (name.startsWith("data/"))
                    assertThat(new String(is.get(name), StandardCharsets.UTF_8))
                            .as(name)
                            .isEqualTo(new String(was.get(name), StandardCharsets.UTF_8));
            assertThat(new String(was.get("manifest.json"), StandardCharsets.UTF_8))
                    .as("the format is counted up with the tables")
                    .contains("\"format\" : "
                            + list("select max(version::int) from public.flyway_schema_history")
                                    .get(0) + ",");
            for (String table : list("select table_name from information_schema.tables where table_schema = 'public'"))
                if (!table.matches(
                        "flyway.*|spring_session.*|idempotency|person|invitation|log_entry|log_head|calendar_feed|"
                                + "claim|sign_in_try|practice_result|person_site|label_grid|"
                                + "morning_mail|firmware_fault|backup|sign_in|user_entities|user_credentials"))
                    assertThat(was).as("nothing of a site is left out").containsKey("data/" + table + ".json");
            assertThat(new String(was.get("data/endpoint.json"), StandardCharsets.UTF_8))
                    .contains("\"tag_code\"");
            for (String page : List.of("/sheet", "/conflicts", "/board", "/due", "/handover", "/packs/TECHNICIAN.html"))
                fresh.get("/api/sites/" + id + page).expect(200);
            fresh.seenSite(id)
                    .post(
                            "/api/sites/" + id + "/segments",
                            "{'name':'Later','prefix':'10.99.0.0/24','gateway':'10.99.0.1','resolvers':[]}")
                    .expect(201);
            likeAnother(fresh, id);
            fresh.sendBytes("POST", "/api/site-file", "application/zip", zip).refused(409, "not-empty");
        }
    }

    private static List<String> values(Api api, String path, String... fields) {
        var values = new ArrayList<String>();
        for (var line : api.get(path).expect(200).json()) {
            var value = new StringBuilder();
            for (String field : fields)
                value.append(line.get(field).asString("")).append(' ');
            values.add(value.toString());
        }
        Collections.sort(values);
        return values;
    }

    /** The next shop begins like this one: the same layout and plan, and nothing of any unit. */
    private static void likeAnother(Api api, long id) {
        String asked = "{'name':'The next shop','code':'NXT','zone':'Europe/Berlin','likeSiteId':%d}";
        api.post("/api/sites", asked, 4711).refused(404, "not-found");
        assertThat(api.get("/api/sites").json()).as("nothing half done").hasSize(1);
        long next =
                api.post("/api/sites", asked, id).expect(201).json().get("id").asLong();
        String was = "/api/sites/" + id, is = "/api/sites/" + next;
        var plan = new String[] {"name", "kind", "address", "place", "outlet", "switchPort"};
        assertThat(values(api, is + "/endpoints", plan))
                .hasSizeGreaterThan(5)
                .isEqualTo(values(api, was + "/endpoints", plan));
        for (String line : values(api, is + "/endpoints", "mac", "serial", "tagCode", "station")) {
            assertThat(line).matches(" *NXT-\\S+ (REGISTER|PLAN) ");
            assertThat(TagCode.holds(line.strip().split(" ")[0])).as(line).isTrue();
        }
        for (String part : List.of("segments", "series", "places", "gear", "outlets", "services"))
            assertThat(api.get(is + "/sheet").json().get(part))
                    .as(part)
                    .hasSameSizeAs(api.get(was + "/sheet").json().get(part));
        assertThat(values(api, is + "/registries", "name", "type"))
                .isEqualTo(values(api, was + "/registries", "name", "type"));
        for (String page : List.of("/conflicts", "/growth", "/wiring", "/board", "/handover", "/firewall"))
            api.get(is + page).expect(200);
    }
}
