package app.knottag.server.worksheet;

import static org.assertj.core.api.Assertions.assertThat;

import app.knottag.core.worksheet.Worksheets;
import app.knottag.server.Api;
import app.knottag.server.Hands;
import app.knottag.server.Running;
import app.knottag.server.account.Role;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Worksheets: tried, kept, and what hangs on them in the runbook. */
class WorksheetApiTest {

    private static final JsonMapper JSON = new JsonMapper();

    private final Api api = Running.as(Role.LEAD);
    private long[] site;
    private long outlet;

    @BeforeEach
    void aWatchedOutlet() {
        site = Running.site(api);
        outlet = api.post(
                        "/api/sites/" + site[0] + "/endpoints",
                        "{'segmentId':%d,'kind':'watched-outlet','name':'Router watch','address':'10.7.0.57',"
                                + "'mac':'00:00:5E:00:53:39','serial':'WO110473','method':'FIXED'}",
                        site[1])
                .expect(201)
                .json()
                .get("id")
                .asLong();
    }

    private Api.Answer keep(Api who, String path, int version, Map<String, String> figures) {
        who.ifMatch = "\"" + version + "\"";
        return who.send("PUT", path, JSON.writeValueAsString(Map.of("figures", figures)));
    }

    private String sheet(String key) {
        return "/api/endpoints/" + outlet + "/worksheets/" + key;
    }

    private JsonNode filled(String key) {
        for (var one :
                api.get("/api/endpoints/" + outlet + "/worksheets").expect(200).json())
            if (one.get("sheet").asString().equals(key)) return one;
        throw new AssertionError("no worksheet " + key);
    }

    private String status(String key) {
        return Hands.step(hands().book(), key).get("status").asString();
    }

    private Hands hands() {
        return new Hands(api, outlet);
    }

    private void complete(String key, Map<String, String> evidence) {
        hands().act(key, "COMPLETE", evidence).expect(200);
    }

    @Test
    void everyWorksheetIsThereAndIsTriedWithoutBeingKept() {
        var all = Running.as(Role.OFFICE).get("/api/worksheets").expect(200).json();
        assertThat(all).hasSize(Worksheets.all().size());
        var viewer = Running.as(Role.OFFICE);
        var said = viewer.post(
                        "/api/worksheets/cable/judgement",
                        "{'figures':{'length':'40','section':'AWG 22','current':'0.6','least':'10.8'}}")
                .expect(200)
                .json();
        assertThat(said.get("holds").asBoolean()).isFalse();
        assertThat(said.at("/judgement/findings/0/wayOut").asString())
                .isEqualTo("Take 1 mm², or put the supply within 16.6 m of it.");
        viewer.post("/api/worksheets/no-such/judgement", "{'figures':{}}").refused(404, "not-found");
        keep(viewer, sheet("cable"), 0, Map.of("length", "4")).refused(403, "not-allowed");
    }

    @DisplayName("What is no figure, no field or a secret is refused with its place")
    @ParameterizedTest(name = "{0} {1}: {2}")
    @CsvSource(delimiter = '|', textBlock = """
            supply | supply           | 24 V                     | other-unit
            supply | supply           | 1e9                      | other-unit
            supply | parts/0/hold     | -1                       | out-of-range
            supply | parts/0/name     | =cmd()                   | bad-words
            supply | parts/0/name     | password: Hunter2secret  | bad-words
            supply | parts/x/name     | Lock                     | no-such-field
            supply | nothing          | 1                        | no-such-field
            drives | joined           | GLUED                    | no-such
            outage | most             | 2.5                      | not-whole
            """)
    void refuses(String key, String field, String text, String code) {
        var refused = keep(api, sheet(key), 0, Map.of(field, text)).expect(422).json();
        assertThat(refused.at("/errors/0/pointer").asString()).isEqualTo("/figures/" + field);
        assertThat(refused.at("/errors/0/code").asString()).isEqualTo(code);
    }

    @Test
    void whatIsMissingMayComeLaterAndOfTwoWhoKeepOneLooksAgain() {
        keep(api, sheet("scan"), 0, Map.of("limit", "10 MB")).expect(200);
        assertThat(filled("scan").get("version").asInt()).isEqualTo(1);
        keep(api, sheet("scan"), 0, Map.of("limit", "20")).refused(412, "changed-meanwhile");
        keep(api, sheet("scan"), 1, Map.of("limit", "10 MB", "pages", "15", "measured", "0,5"))
                .expect(200);
        assertThat(filled("scan").get("holds").asBoolean()).isFalse();
        keep(api, sheet("scan"), 1, Map.of()).refused(412, "changed-meanwhile");
        var log = api.get("/api/sites/" + site[0] + "/log?endpointId=" + outlet)
                .expect(200)
                .body();
        assertThat(log).contains("How many pages go into a mail").contains("10 MB");
    }

    @Test
    void aSiteHasWorksheetsOfItsOwn() {
        String path = "/api/sites/" + site[0] + "/worksheets/";
        keep(api, path + "poe", 0, Map.of("budget", "60", "ports", "4", "loads/0/name", "Camera"))
                .expect(200);
        var kept = api.get("/api/sites/" + site[0] + "/worksheets").expect(200).json();
        assertThat(kept).hasSize(1);
        assertThat(kept.at("/0/judgement/results/0/text").asString()).isEqualTo("15.4 W of 60 W");
        assertThat(api.get("/api/endpoints/" + outlet + "/worksheets").json().findValuesAsString("sheet"))
                .doesNotContain("poe");
    }

    @Test
    void theStepWaitsForTheSumAndOpensAgainWhenARouterTakesLonger() {
        hands().carry("boot-time");
        complete("boot-time", Map.of("count", "100"));
        complete("names", Map.of("count", "3"));
        assertThat(filled("outage").at("/counted/start").asString()).isEqualTo("100");
        assertThat(filled("outage").at("/figures/off").asString())
                .as("from the kind")
                .isEqualTo("15");
        complete("times", Map.of());
        assertThat(status("times")).as("nobody said how long it waits").isEqualTo("FAILED");
        keep(api, sheet("outage"), 0, Map.of("every", "60", "tries", "3", "off", "15", "most", "3", "pause", "60"))
                .expect(200);
        complete("times", Map.of());
        assertThat(status("times")).isEqualTo("PASSED");
        // A router that was counted anew and takes longer than it is given.
        complete("boot-time", Map.of("count", "200"));
        assertThat(status("times")).isEqualTo("PENDING");
        complete("times", Map.of());
        var failed = api.get("/api/endpoints/" + outlet + "/runbook").json();
        assertThat(failed.toString()).contains("the router needs 3 min 20 s, and is switched off again after 3 min");
        keep(api, sheet("outage"), 1, Map.of("every", "60", "tries", "3", "off", "15", "most", "3", "pause", "120"))
                .expect(200);
        complete("times", Map.of());
        assertThat(status("times")).isEqualTo("PASSED");
    }

    @Test
    void whatWasCountedIsNotKeptASecondTime() {
        hands().carry("boot-time");
        complete("boot-time", Map.of("count", "100"));
        keep(api, sheet("outage"), 0, Map.of("start", "20", "pause", "60")).expect(200);
        assertThat(filled("outage").at("/figures/start").asString()).isEqualTo("100");
        hands().act("boot-time", "REOPEN", Map.of()).expect(200);
        assertThat(filled("outage").get("figures").has("start")).isFalse();
        assertThat(filled("outage").at("/figures/pause").asString()).isEqualTo("60");
    }
}
