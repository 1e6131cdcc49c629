package app.knottag.server.register;

import static org.assertj.core.api.Assertions.assertThat;

import app.knottag.server.Api;
import app.knottag.server.Running;
import app.knottag.server.account.Role;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.JsonNode;

/** Reading labels from what a wedge types and from what a switch prints. */
class LabelApiTest {

    private final Api api = Running.as(Role.TECHNICIAN);
    private long[] site;
    private long till;

    @BeforeEach
    void twoTills() {
        site = Running.site(Running.as(Role.LEAD));
        till = Running.till(api, site, 1);
        Running.till(api, site, 2);
    }

    private JsonNode label(String text) {
        return api.post("/api/endpoints/" + till + "/label-text", "{'text':'%s'}", text)
                .expect(200)
                .json();
    }

    @DisplayName("A scanned label is sorted, and each part is judged by the register")
    @ParameterizedTest(name = "{0}")
    @CsvSource(
            delimiter = '|',
            nullValues = "-",
            value = {
                "MAC: 00005E0053C1; S/N: OC2-AAAA-0009 | 00:00:5E:00:53:C1 | -                    | OC2-AAAA-0009",
                "00:00:SE:00:53:C1                     | -                 | IMPOSSIBLE_CHARACTER | -",
                "MAC 00005E005302;MAC: 00005E005302    | 00:00:5E:00:53:02 | KNOWN                | -",
                "OC2-AAAA-0009                         | -                 | -                    | OC2-AAAA-0009",
            })
    void sortsALabel(String text, String mac, String finding, String serial) {
        var label = label(text);
        var first = label.get("macs").path(0).path("reading");
        assertThat(first.path("value").asString(null)).isEqualTo(mac);
        assertThat(first.path("findings").path(0).path("code").asString(null)).isEqualTo(finding);
        assertThat(label.path("serial").path("reading").path("value").asString(null))
                .isEqualTo(serial);
    }

    @Test
    void aMacOfAnotherIsNamedWithWhoHasIt() {
        assertThat(label("MAC: 00005E005302")
                        .get("macs")
                        .get(0)
                        .get("reading")
                        .get("findings")
                        .get(0)
                        .get("message")
                        .asString())
                .isEqualTo("00:00:5E:00:53:02 is on record for Till 2.");
        api.post("/api/endpoints/" + till + "/label-text", "{'text':'%s'}", "x".repeat(200_001))
                .refused(422, "too-long");
    }

    @Test
    void aTableShowsTheLikelyOnesFirstAndExplainsEach() {
        String table = String.join(
                "\\n",
                "10.7.0.52  ether 00:00:5e:00:53:02 C eth0",
                "10.7.0.9   ether 00:00:5e:00:5a:09 C eth0",
                "10.7.0.51  ether 00:00:5e:00:5a:51 C eth0",
                "10.7.0.120 ether 00:00:5e:00:53:03 C eth0",
                "10.7.0.33  (incomplete) eth0");
        var found = api.post("/api/endpoints/" + till + "/neighbour-table", "{'text':'%s'}", table)
                .expect(200)
                .json();
        var texts = new ArrayList<String>();
        for (var c : found)
            texts.add(c.get("mac").asString()
                    + (c.get("likely").asBoolean() ? "! " : " ")
                    + c.get("said").asString());
        assertThat(texts)
                .containsExactly(
                        "00:00:5E:00:5A:51! It answers at the planned address.",
                        "00:00:5E:00:53:03! Next to its wired MAC 00:00:5E:00:53:01: the same box, another interface.",
                        "00:00:5E:00:5A:09 Nobody on record has it.",
                        "00:00:5E:00:53:02 It belongs to Till 2.");
        api.post("/api/endpoints/" + till + "/neighbour-table", "{'text':'nothing here'}")
                .refused(422, "no-mac");
        api.post("/api/endpoints/" + till + "/neighbour-table", "{'text':'10.7.0.999 00:00:5e:00:53:02'}")
                .refused(422, "unreadable");
    }

    @Test
    void whatIsStillToBeReadComesInTheOrderInWhichItDisappears() {
        var order = api.get("/api/endpoints/" + till + "/labels").expect(200).json();
        assertThat(order)
                .singleElement()
                .satisfies(o -> assertThat(o.get("fact").asString() + " before "
                                + o.get("before").asString())
                        .isEqualTo("MODEL before Wire it, power last"));
        api.seen(till)
                .patch("/api/endpoints/" + till, "{'mac':'','serial':'','model':'QX-2 N'}")
                .expect(200);
        var again = new ArrayList<String>();
        for (var o : api.get("/api/endpoints/" + till + "/labels").json())
            again.add(o.get("fact").asString() + " before " + o.get("before").asString());
        assertThat(again).isEqualTo(List.of("MAC before Wire it, power last", "SERIAL before Wire it, power last"));
        assertThat(api.get("/api/endpoints/" + till).json().get("model").asString())
                .isEqualTo("QX-2 N");
        api.seen(till).patch("/api/endpoints/" + till, "{'model':'=1+1'}").refused(422, "bad-words");
        Running.as(Role.OFFICE)
                .post("/api/endpoints/" + till + "/label-text", "{'text':'x'}")
                .refused(403, "not-allowed");
    }
}
