package app.knottag.server.verify;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyInt;
import static org.mockito.Mockito.when;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.intake.Recognised;
import app.knottag.core.reach.Probes;
import app.knottag.server.Api;
import app.knottag.server.Running;
import app.knottag.server.account.Role;
import java.util.List;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Several endpoints that fail at the same time, as one case. */
class CaseApiTest {

    private final Api api = Running.as(Role.LEAD);
    private final long[] tills = new long[3];
    private long[] site;
    private String path;

    @BeforeEach
    void threeTillsOnOneSwitch() {
        site = Running.site(api);
        for (int n = 0; n < 3; n++) {
            tills[n] = Running.till(api, site, n + 1);
            api.seen(tills[n])
                    .patch("/api/endpoints/" + tills[n], "{'switchPort':'Shop switch %d'}", n + 1)
                    .expect(200);
        }
        path = "/api/sites/" + site[0] + "/case";
    }

    private String told(String... words) {
        var members = new StringBuilder();
        for (int n = 0; n < words.length; n++)
            members.append(n == 0 ? "" : ",").append("{'endpointId':" + tills[n] + ",'word':'" + words[n] + "'}");
        return "{'members':[" + members + "],'answers':[]}";
    }

    @DisplayName(
            "Three that are silent on one switch are one case; the switch is asked about once, and that settles it")
    @Test
    void oneSwitch() {
        var silent = told("SILENT", "SILENT", "SILENT");
        var c = api.post(path, silent).expect(200).json();
        assertThat(c.get("oneCase").asBoolean()).isTrue();
        var first = c.get("suspects").get(0);
        assertThat(first.get("title").asString()).isEqualTo("The switch is dead");
        assertThat(first.get("says").asString())
                .isEqualTo("Till 1, Till 2 and Till 3 fail together: all hang on Shop switch.");
        var next = c.get("next");
        assertThat(next.get("question").asString()).isEqualTo("LINK");
        assertThat(next.get("endpointIds")).hasSize(1);
        var answer = "{'question':'LINK','outcome':'DARK','endpointIds':" + next.get("endpointIds")
                + "},{'question':'OTHERS_HERE','outcome':'NONE_ON_SWITCH','endpointIds':"
                + List.of(tills[0], tills[1], tills[2]) + "}";
        var after = api.post(path, silent.replace("'answers':[]", "'answers':[" + answer + "]"))
                .expect(200)
                .json();
        assertThat(after.get("found").asBoolean()).isTrue();
        assertThat(after.get("next").isNull()).isTrue();
    }

    @DisplayName(
            "What was seen is kept with the runs after which somebody looked, never with a later one; and taken back")
    @Test
    void answersAreKept() {
        Running.network("10.7.0.1", "00:00:5E:00:53:F1", "");
        when(Running.PROBES.connect(any(), anyInt())).thenReturn(Probes.Connection.SILENT);
        for (int n = 1; n <= tills.length; n++)
            when(Running.PROBES.echo(Ipv4Address.parse("10.7.0.5" + n)))
                    .thenReturn(Running.echo(null, Recognised.Answer.SILENT));
        for (long till : tills)
            api.post("/api/endpoints/" + till + "/check-runs", "").expect(201);
        var checked = told("CHECKED", "CHECKED", "CHECKED");
        var next = api.post(path, checked).expect(200).json().get("next");
        assertThat(next.get("checkRunIds")).hasSameSizeAs(next.get("endpointIds"));
        long at = next.get("endpointIds").get(0).asLong();
        String seen = "{'question':'%s','outcome':'%s','checkRunIds':%s}";
        String dark = seen.formatted("LINK", "DARK", next.get("checkRunIds"));
        Running.as(Role.OFFICE).put(path + "/answers", dark).expect(403);
        api.put("/api/sites/" + Running.site(api)[0] + "/case/answers", dark).expect(404);
        api.put(path + "/answers", dark.replace("DARK", "FULL")).expect(422);
        api.put(path + "/answers", seen.formatted("LINK", "DARK", "[999999]")).expect(404);
        assertThat(said(at)).doesNotContain("LINK");
        api.put(path + "/answers", dark).expect(204);
        api.put(path + "/answers", dark).expect(204);
        assertThat(said(at)).containsOnlyOnce("LINK");
        var after = api.post(path, checked).expect(200).json();
        assertThat(after.get("next").get("question").asString()).isNotEqualTo("LINK");

        String back =
                path + "/answers/LINK?checkRunIds=" + next.get("checkRunIds").get(0);
        Running.as(Role.TECHNICIAN).delete(back).expect(204);
        assertThat(said(at)).as("what somebody else saw stays").contains("LINK");

        // Whoever weighs again, or says again what was seen before, says nothing of what was checked since.
        api.post("/api/endpoints/" + at + "/check-runs", "").expect(201);
        String sent = checked.replace(
                "'answers':[]", "'answers':[{'question':'LINK','outcome':'DARK','endpointIds':[" + at + "]}]");
        assertThat(api.post(path, sent).expect(200).json())
                .isEqualTo(api.post(path, checked).json());
        api.put(path + "/answers", dark).expect(204);
        assertThat(said(at)).doesNotContain("LINK");
        assertThat(api.post(path, sent)
                        .expect(200)
                        .json()
                        .get("next")
                        .get("question")
                        .asString())
                .isEqualTo("LINK");

        var again = api.post(path, checked).json().get("next").get("checkRunIds");
        api.put(path + "/answers", seen.formatted("LINK", "DARK", again)).expect(204);
        assertThat(said(at)).contains("LINK");
        api.delete(path + "/answers/LINK?checkRunIds=" + again.get(0)).expect(204);
        assertThat(said(at)).doesNotContain("LINK");
    }

    private String said(long endpoint) {
        return api.get("/api/endpoints/" + endpoint + "/diagnosis")
                .json()
                .get("seen")
                .toString();
    }

    @ParameterizedTest(name = "{0} {1} {2}: {3}")
    @CsvSource({
        "SILENT, ANSWERED, ANSWERED, false",
        "DARK, WORKS, WORKS, false",
        "ANSWERED, ANSWERED, ANSWERED, false",
        "NO_INTERNET, NO_INTERNET, NO_INTERNET, true",
        "SILENT, SILENT, SILENT, true",
    })
    void oneCaseOrNot(String first, String second, String third, boolean one) {
        var c = api.post(path, told(first, second, third)).expect(200).json();
        assertThat(c.get("oneCase").asBoolean()).as(c.toString()).isEqualTo(one);
    }

    @Test
    void badInput() {
        api.post(
                        path,
                        told("SILENT")
                                .replace(
                                        "'answers':[]",
                                        "'answers':[{'question':'PING','outcome':'FULL','endpointIds':[]}]"))
                .expect(422);
        api.post("/api/sites/999999/case", told("SILENT")).expect(404);
        api.post(path, "{'members':[{'endpointId':999999,'word':'SILENT'}],'answers':[]}")
                .expect(404);
        api.post(path, "{'members':[null],'answers':[]}").expect(400);
    }

    @DisplayName("What was said to have mended something is listed, and taken back with a click")
    @Test
    void takenBack() {
        String till = "/api/endpoints/" + tills[0];
        Running.network("10.7.0.51", "00:00:5E:00:53:F1", "");
        api.post(till + "/check-runs", "").expect(201);
        for (var fault : new String[] {"NO_POWER", "CABLE_OUT_AT_WALL"})
            api.post(till + "/diagnosis/mended", "{'fault':'" + fault + "'}").expect(204);
        var mended = api.get(till + "/diagnosis").json().get("mended");
        assertThat(mended).hasSize(1);
        assertThat(mended.get(0).get("title").asString()).isEqualTo("The cable is out at the wall");
        String learned = "/api/sites/" + site[0] + "/mended/" + mended.get(0).get("checkRunId");
        Running.as(Role.OFFICE).delete(learned).expect(403);
        api.delete(learned).expect(204);
        api.delete(learned).expect(404);
        assertThat(api.get(till + "/diagnosis").json().get("mended")).isEmpty();
    }
}
