package app.knottag.server.audit;

import static org.assertj.core.api.Assertions.assertThat;

import app.knottag.server.Api;
import app.knottag.server.Running;
import app.knottag.server.account.Role;
import java.sql.SQLException;
import java.util.List;
import java.util.stream.StreamSupport;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** Which firmware units have, and who has one of which a fault is known, at this site and the others. */
class FirmwareApiTest {

    private static final String TILL = "counter-payment-terminal";

    private final Api api = Running.as(Role.TECHNICIAN);
    private long[] site;
    private long[] other;
    private final long[] tills = new long[3];

    @BeforeEach
    void threeTillsAndOneElsewhere() throws SQLException {
        Running.network("10.7.0.51", "00:00:5E:00:53:01", "x");
        Running.write("delete from firmware_fault");
        site = Running.site(Running.as(Role.LEAD));
        for (int n = 1; n <= 3; n++) tills[n - 1] = Running.till(Running.as(Role.LEAD), site, n);
        other = Running.site(Running.as(Role.LEAD));
        Running.till(Running.as(Role.LEAD), other, 1);
    }

    @AfterEach
    void noFault() throws SQLException {
        Running.write("delete from firmware_fault");
    }

    private JsonNode firmware() {
        return api.get("/api/sites/" + site[0] + "/firmware").expect(200).json();
    }

    private List<String> here() {
        return StreamSupport.stream(firmware().at("/faults/0/here").spliterator(), false)
                .map(c -> c.at("/unit/name").asString() + " " + c.get("verdict").asString())
                .toList();
    }

    private Api.Answer read(int till, String version, String day) {
        return api.post(
                "/api/endpoints/" + tills[till - 1] + "/firmware",
                "{'version':'%s','day':'%s'}".formatted(version, day));
    }

    @DisplayName("Who has the fault stands first, then those of whom it cannot be told; another unit was not read yet")
    @Test
    void whoStillHasIt() throws SQLException {
        assertThat(firmware().get("faults")).isEmpty();
        assertThat(firmware().get("kind").asString()).isEqualTo(TILL);
        assertThat(firmware().get("units")).hasSize(3);
        read(1, "2.3.9", "2026-11-02").expect(200);
        read(1, "2.3.9", "2026-11-02").expect(200);
        read(2, "2.4b", "").expect(200);
        assertThat(firmware().at("/units/0/version").asString()).isEqualTo("2.3.9");
        assertThat(firmware().at("/units/0/readOn").asString()).isEqualTo("2026-11-02");
        api.put("/api/firmware-faults", "{'kind':'%s','mendedIn':'2.4','what':'It hangs on Sundays'}".formatted(TILL))
                .expect(200);
        assertThat(here()).containsExactly("Till 1 OLD", "Till 2 UNSURE", "Till 3 UNREAD");
        assertThat(StreamSupport.stream(firmware().at("/faults/0/elsewhere").spliterator(), false)
                        .anyMatch(s -> s.get("siteId").asLong() == other[0]
                                && s.get("concerned").asInt() == 1))
                .isTrue();
        read(1, "2.4", "").expect(200);
        assertThat(here()).containsExactly("Till 2 UNSURE", "Till 3 UNREAD");
        // Put back on the same day: what was read last counts.
        read(1, "2.3.9", "").expect(200);
        assertThat(here()).contains("Till 1 OLD");
        read(1, "2.4", "").expect(200);
        // What was read later, of a day before, says nothing of now.
        read(1, "2.3.8", "2026-11-03").expect(200);
        assertThat(here()).hasSize(2);
        Running.write("update endpoint set serial = 'OC2-NEW-1' where id = " + tills[0]);
        assertThat(here()).contains("Till 1 UNREAD");
        api.put("/api/firmware-faults", "{'kind':'%s','mendedIn':'2.4','what':'It hangs on Mondays'}".formatted(TILL))
                .expect(200);
        api.put("/api/firmware-faults", "{'kind':'%s','mendedIn':'2.4','what':'It hangs on Mondays'}".formatted(TILL))
                .expect(200);
        assertThat(firmware().get("faults"))
                .as("one version may mend two faults; the same word again is no third")
                .hasSize(2);
        assertThat(firmware().at("/faults/0/what").asString()).isEqualTo("It hangs on Mondays");
        long id = firmware().at("/faults/0/id").asLong();
        api.delete("/api/firmware-faults/" + id).expect(200);
        api.delete("/api/firmware-faults/" + id).refused(404, "not-found");
        assertThat(api.get("/api/sites/" + site[0] + "/logbook?q=2.3.9").json()).hasSize(3);
    }

    @DisplayName("What is no version, no day or no kind is refused, with its place")
    @Test
    void badInput() {
        read(1, "new", "").refused(422, "no-version");
        read(1, "2.4", "soon").refused(422, "bad-day");
        read(1, "2.4", "2099-01-01").refused(422, "ahead");
        read(1, " ", "").refused(422, "bad-words");
        api.put("/api/firmware-faults", "{'kind':'toaster','mendedIn':'2','what':'It burns'}")
                .refused(422, "no-such-kind");
        api.put("/api/firmware-faults", "{'kind':'%s','mendedIn':'later','what':'It hangs'}".formatted(TILL))
                .refused(422, "no-version");
        Running.as(Role.OFFICE)
                .put("/api/firmware-faults", "{'kind':'%s','mendedIn':'2','what':'It hangs'}".formatted(TILL))
                .refused(403, "not-allowed");
        api.get("/api/sites/999999/firmware").refused(404, "not-found");
        assertThat(api.get("/api/sites/" + site[0] + "/firmware?kind=toaster")
                        .json()
                        .get("kind")
                        .asString())
                .isEqualTo(TILL);
    }
}
