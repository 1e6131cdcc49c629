package app.knottag.server.audit;

import static org.assertj.core.api.Assertions.assertThat;

import app.knottag.server.Api;
import app.knottag.server.Running;
import app.knottag.server.account.Role;
import java.sql.SQLException;
import java.util.List;
import java.util.stream.StreamSupport;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** Which proofs to renew first, out of sign-offs, checks, faults and resets as they were kept. */
class RecheckApiTest {

    private final Api api = Running.as(Role.TECHNICIAN);
    private long[] site;
    private final long[] tills = new long[3];

    @BeforeEach
    void threeTills() {
        Running.network("10.7.0.51", "00:00:5E:00:53:01", "x");
        site = Running.site(Running.as(Role.LEAD));
        for (int n = 1; n <= 3; n++) tills[n - 1] = Running.till(Running.as(Role.LEAD), site, n);
    }

    private JsonNode list() {
        return api.get("/api/sites/" + site[0] + "/rechecks").expect(200).json();
    }

    private List<String> lines() {
        return StreamSupport.stream(list().get("lines").spliterator(), false)
                .map(l -> l.get("name").asString() + (l.get("overdue").asBoolean() ? " overdue" : ""))
                .toList();
    }

    private static void signed(long till, int daysAgo) throws SQLException {
        Running.write("update endpoint set station = 'DONE', confirmed_by = 'x', confirmed_at = now() - interval '"
                + daysAgo + " days' where id = " + till);
        Running.write("insert into sign_off (endpoint_id, grade, note, at, by) values (" + till
                + ", 'FAIR', '', now() - interval '" + daysAgo + " days', 'x')");
    }

    private static void checked(long till, int daysAgo, String service, boolean failed) throws SQLException {
        String results = "[{\"check\":\"SERVICE\",\"status\":\"" + service + "\"}]";
        Running.write("""
                insert into check_run (endpoint_id, at, by, failed, results, basis)
                values (%d, now() - interval '%d days', 'x', %b, '%s', '{}')""".formatted(till, daysAgo, failed, results));
    }

    @DisplayName(
            "Who was never signed off is not on it; checks that held later count, those that failed or saw no service do not")
    @Test
    void held() throws SQLException {
        assertThat(lines()).isEmpty();
        signed(tills[0], 900);
        signed(tills[1], 900);
        signed(tills[2], 900);
        checked(tills[1], 2, "PASSED", false);
        checked(tills[2], 2, "FAILED", true);
        checked(tills[0], 2, "SKIPPED", false);
        assertThat(lines()).containsExactly("Till 1 overdue", "Till 3 overdue", "Till 2");
        var list = list();
        assertThat(list.get("overdue").asInt()).isEqualTo(2);
        assertThat(list.at("/lines/0/says").asString())
                .startsWith("Its checks held 900 days ago; its partner works through it.")
                .endsWith("payment terminals here.");
        assertThat(StreamSupport.stream(list.get("errands").spliterator(), false)
                        .map(e -> e.get("title").asString()))
                .containsExactly("Till 1: prove it again", "Till 3: prove it again");
        assertThat(StreamSupport.stream(list.get("sites").spliterator(), false)
                        .filter(s -> s.get("siteId").asLong() == site[0])
                        .map(s -> s.get("overdue").asInt()))
                .containsExactly(2);
        Running.write("update endpoint set station = 'CONFIRM', status = 'FAILED' where id = " + tills[2]);
        Running.write("update endpoint set confirmed_at = now() - interval '3 days' where id = " + tills[2]);
        assertThat(lines())
                .as("whose checks fail comes first")
                .containsExactly("Till 3 overdue", "Till 1 overdue", "Till 2");
        assertThat(list().at("/lines/0/chance").asInt()).isEqualTo(100);
        assertThat(list().at("/lines/0/says").asString()).startsWith("Its last checks failed");
        assertThat(StreamSupport.stream(list().get("sites").spliterator(), false)
                        .filter(s -> s.get("siteId").asLong() == site[0])
                        .map(s -> s.get("overdue").asInt()))
                .containsExactly(2);
        Running.write("update endpoint set station = 'DONE', status = 'PASSED' where id = " + tills[2]);
        Running.write("update endpoint set confirmed_at = now() - interval '900 days' where id = " + tills[2]);
        Running.write("update endpoint set name = repeat('x', 120) where id = " + tills[2]);
        String title = list().at("/errands/1/title").asString();
        assertThat(title).hasSize(120).endsWith("x…: prove it again");
        Running.write("update endpoint set name = 'Till 3' where id = " + tills[2]);
        Running.write("update endpoint set confirmed_at = null, confirmed_by = null where id = " + tills[0]);
        assertThat(lines()).containsExactly("Till 3 overdue", "Till 2");
    }

    @DisplayName(
            "Resets and faults after the first sign-off count for the kind, once a day, and what was found before does not")
    @Test
    void history() throws SQLException {
        signed(tills[0], 10);
        int before = chance();
        Running.write("insert into device_change (endpoint_id, what, at, by) values (" + tills[0]
                + ", 'RESET', now() - interval '200 days', 'x'), (" + tills[0] + ", 'MOVE', now(), 'x')");
        assertThat(chance()).isEqualTo(before);
        Running.write("insert into device_change (endpoint_id, what, at, by) select " + tills[0]
                + ", 'RESET', now() - n * interval '1 day', 'x' from generate_series(1, 9) n");
        int after = chance();
        assertThat(after).isGreaterThan(before);
        Running.write("insert into device_change (endpoint_id, what, at, by) select " + tills[0]
                + ", 'RESET', (now() - n * interval '1 day'), 'x' from generate_series(1, 9) n");
        assertThat(chance()).isEqualTo(after);
    }

    private int chance() {
        return list().at("/lines/0/chance").asInt();
    }
}
