package app.knottag.server.verify;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyInt;
import static org.mockito.Mockito.when;

import app.knottag.core.reach.Probes;
import app.knottag.server.Api;
import app.knottag.server.Running;
import app.knottag.server.account.Role;
import java.time.Duration;
import java.time.Instant;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.JsonNode;

/** What people see, and tell when the network is back. */
class ObservationApiTest {

    private final Api api = Running.as(Role.LEAD);
    private final Api colleague = Running.as(Role.TECHNICIAN);
    private long[] site;
    private String till;

    @BeforeEach
    void till() {
        site = Running.site(api);
        till = "/api/endpoints/" + Running.till(api, site, 1);
    }

    private JsonNode check(String check) {
        for (var c : api.get(till + "/verification").expect(200).json().get("checks"))
            if (c.get("check").asString().equals(check)) return c;
        throw new AssertionError(check);
    }

    private static String saw(String check, String outcome, Instant at, String restsOn) {
        return "{'check':'%s','outcome':'%s','evidence':'SEEN','at':'%s','restsOn':'%s'}"
                .formatted(check, outcome, at, restsOn);
    }

    private static Instant ago(long minutes) {
        return Instant.now().minus(Duration.ofMinutes(minutes));
    }

    @DisplayName("What is told later counts from when it was seen, and once however often it is told")
    @Test
    void toldLater() {
        var at = ago(40);
        String lit = saw("LINK", "LIT", at, check("LINK").get("restsOn").asString());
        for (int n = 0; n < 3; n++) api.post(till + "/observations", lit).expect(200);
        assertThat(check("LINK").get("status").asString()).isEqualTo("PASSED");
        assertThat(Duration.between(at, Instant.parse(check("LINK").get("at").asString()))
                        .abs())
                .isLessThan(Duration.ofSeconds(1));
        String said =
                api.get("/api/sites/" + site[0] + "/log").expect(200).json().toString();
        assertThat(said.split("looked: ", -1)).hasSize(2);
    }

    @DisplayName("Of two who looked the later one counts, whoever tells it first")
    @Test
    void theLaterLookCounts() {
        String rests = check("LINK").get("restsOn").asString();
        colleague
                .post(till + "/observations", saw("LINK", "DARK", ago(5), rests))
                .expect(200);
        api.post(till + "/observations", saw("LINK", "LIT", ago(20), rests)).expect(200);
        assertThat(check("LINK").get("status").asString()).isEqualTo("FAILED");
        api.post(till + "/observations", saw("LINK", "LIT", ago(2), rests)).expect(200);
        assertThat(check("LINK").get("status").asString()).isEqualTo("PASSED");
    }

    @DisplayName("What was changed since takes along only what rests on it")
    @ParameterizedTest(name = "{0}: {1}")
    @CsvSource({"LINK, false", "ADDRESS_SHOWN, true", "REAL_JOB, true"})
    void changedSince(String check, boolean loosened) {
        var shown = check(check);
        String good = shown.get("outcomes").get(0).get("outcome").asString();
        long id = Long.parseLong(till.substring(till.lastIndexOf('/') + 1));
        colleague.seen(id).patch(till, "{'address':'10.7.0.61'}").expect(200);
        String body = saw(check, good, ago(10), shown.get("restsOn").asString());
        if (loosened) {
            api.post(till + "/observations", body).refused(409, "another-since");
            assertThat(check(check).get("status").asString()).isEqualTo("PENDING");
        } else api.post(till + "/observations", body).expect(200);
        String now = check(check).get("restsOn").asString();
        api.post(till + "/observations", saw(check, good, Instant.now(), now)).expect(200);
    }

    @DisplayName("A look from before a run does not answer what that run asks")
    @Test
    void beforeTheRun() {
        Running.network("10.7.0.99", "00:00:5E:00:53:F1", "");
        when(Running.PROBES.connect(any(), anyInt())).thenReturn(Probes.Connection.SILENT);
        String rests = check("LINK").get("restsOn").asString();
        api.post(till + "/check-runs", "").expect(201);
        api.post(till + "/observations", saw("LINK", "LIT", ago(10), rests)).expect(200);
        assertThat(asked()).doesNotContain("LINK");
        api.post(till + "/observations", saw("LINK", "LIT", Instant.now(), rests))
                .expect(200);
        assertThat(asked()).contains("LINK");
    }

    private String asked() {
        return api.get(till + "/diagnosis").expect(200).json().get("seen").toString();
    }

    @ParameterizedTest(name = "{0} minutes ago: {1} {2}")
    @CsvSource({"-60, 422, in-the-future", "1500, 422, too-late"})
    void badTimes(long minutes, int status, String code) {
        String rests = check("LINK").get("restsOn").asString();
        var refused = api.post(till + "/observations", saw("LINK", "LIT", ago(minutes), rests))
                .expect(status)
                .json();
        assertThat(refused.get("errors").get(0).get("code").asString()).isEqualTo(code);
        assertThat(check("LINK").get("status").asString()).isEqualTo("PENDING");
    }
}
