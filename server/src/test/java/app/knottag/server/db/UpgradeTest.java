package app.knottag.server.db;

import static org.assertj.core.api.Assertions.assertThat;

import app.knottag.core.handover.TagCode;
import app.knottag.server.Api;
import app.knottag.server.App;
import app.knottag.server.Running;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.zip.GZIPInputStream;
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
            "LEFT_OUT", "SKIPPED");

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
        assertThat(rows()).containsAllEntriesOf(rows);
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
                        .map(s -> s.replace("DONE PASSED", "HANDOVER ACTIVE"))
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
}
