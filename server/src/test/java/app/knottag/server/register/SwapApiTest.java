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

/** Interfaces, adapters that go elsewhere, and one unit in the place of another. */
class SwapApiTest {

    private static final String RULES =
            "'naming':'WORDS','longestName':40,'ownerNeeded':false,'sharing':'NONE','most':0,'lifetime':0,'restart':true,'form':'CSV'";
    private final Api api = Running.as(Role.LEAD);
    private long[] site;
    private long till;

    @BeforeEach
    void aTill() {
        site = Running.site(api);
        till = Running.till(api, site, 1);
    }

    private long registry(String name, String type, String facts, int days) {
        api.ifMatch = api.get("/api/sites/" + site[0] + "/sheet")
                .response()
                .headers()
                .firstValue("ETag")
                .orElseThrow();
        return api.put(
                        "/api/sites/" + site[0] + "/registries/0",
                        "{'name':'" + name + "','type':'" + type + "'," + RULES + ",'facts':" + facts + ",'waitsFor':'"
                                + (days > 0 ? "their desk" : "") + "','leadDays':" + days + "}")
                .expect(200)
                .json()
                .get("id")
                .asLong();
    }

    private static List<String> texts(JsonNode list, String... fields) {
        var texts = new ArrayList<String>();
        for (var node : list) {
            var parts = new ArrayList<String>();
            for (String f : fields) parts.add(node.get(f).asString(node.get(f).toString()));
            texts.add(String.join(" ", parts));
        }
        return texts;
    }

    private Api.Answer interfaces(long id, String list) {
        return api.seen(id).put("/api/endpoints/" + id + "/interfaces", "{'interfaces':[" + list + "]}");
    }

    private static String face(String medium, String pair, boolean counts) {
        return "{'medium':'" + medium + "','mac':'00:00:5E:00:53:" + pair + "','standsAt':'label','counts':" + counts
                + "}";
    }

    @Test
    void theInterfaceThatCountsIsTheOneThatIsRegistered() {
        interfaces(till, face("WIRED", "01", false) + "," + face("WIRELESS", "AB", true))
                .expect(200);
        assertThat(api.get("/api/endpoints/" + till).json().get("mac").asString())
                .isEqualTo("00:00:5E:00:53:AB");
        long list = registry("List", "ACCESS_LIST", "['MAC']", 0);
        api.post("/api/registries/" + list + "/registrations", "{'endpointId':%d}", till)
                .expect(201);
        var held = api.get("/api/endpoints/" + till + "/registrations")
                .json()
                .get(0)
                .get("entry")
                .get("mac")
                .asString();
        assertThat(held).isEqualTo("00:00:5E:00:53:AB");
        // Typing the wired MAC says which interface that is, and lets it count again.
        var read = api.post("/api/mac/read", "{'text':'00005E005301','siteId':%d,'endpointId':%d}", site[0], till)
                .json();
        assertThat(read.get("findings").get(0).get("message").asString())
                .isEqualTo("00:00:5E:00:53:01 is its wired interface. Is that the one in use?");
        api.seen(till)
                .patch("/api/endpoints/" + till, "{'mac':'00:00:5E:00:53:01'}")
                .expect(200);
        assertThat(texts(api.get("/api/endpoints/" + till + "/interfaces").json(), "medium", "mac", "counts"))
                .containsExactly("WIRED 00:00:5E:00:53:01 true", "WIRELESS 00:00:5E:00:53:AB false");
    }

    @DisplayName("A list of interfaces that cannot be is refused with its place")
    @ParameterizedTest(name = "{2} {3}")
    @CsvSource(
            delimiter = '|',
            value = {
                "WIRED 01 true, WIRELESS 01 false | 422 | twice       | /interfaces/1/mac",
                "WIRED 01 true, WIRED 0A false    | 422 | twice       | /interfaces/1/medium",
                "WIRED 01 true, WIRELESS 0A true  | 422 | one-counts  | /interfaces",
                "WIRED 01 false                   | 422 | one-counts  | /interfaces",
                "WIRED 0G true                    | 422 | impossible-character | /interfaces/0/mac",
                "WIRED 01 true, WIRELESS 02 false | 422 | known       | /interfaces/1/mac",
            })
    void refusesLists(String text, int status, String code, String pointer) {
        Running.till(api, site, 2);
        var list = new ArrayList<String>();
        for (String t : text.split(", ")) list.add(face(t.split(" ")[0], t.split(" ")[1], t.endsWith("true")));
        var answer = interfaces(till, String.join(",", list)).refused(status, code);
        assertThat(answer.json().get("errors").get(0).get("pointer").asString()).isEqualTo(pointer);
        assertThat(api.get("/api/endpoints/" + till + "/interfaces").json()).hasSize(1);
    }

    @Test
    void aMacOfAnotherSiteIsAskedAbout() {
        long[] other = Running.site(api);
        var read = api.post("/api/mac/read", "{'text':'00:00:5E:00:53:01','siteId':%d}", other[0])
                .json();
        assertThat(read.get("usable").asBoolean()).isTrue();
        assertThat(read.get("findings").get(0).get("code").asString()).isEqualTo("OTHER_SITE");
        assertThat(read.get("findings").get(0).get("message").asString())
                .matches(
                        "00:00:5E:00:53:01 is on record at Site \\d+ for Till 1\\. Has the unit moved here\\? Then retire it there\\.");
    }

    @Test
    void whatIsRegisteredGoesWhereTheAdapterGoes() {
        long second = Running.till(api, site, 2);
        interfaces(till, face("WIRED", "01", false) + "," + face("ADAPTER", "AD", true))
                .expect(200);
        long list = registry("List", "ACCESS_LIST", "['MAC','NAME']", 0);
        for (long id : List.of(till, second))
            api.post("/api/registries/" + list + "/registrations", "{'endpointId':%d,'entered':true}", id)
                    .expect(201);
        long adapter = 0, wired = 0;
        for (var i : api.get("/api/endpoints/" + till + "/interfaces").json())
            if (i.get("medium").asString().equals("ADAPTER"))
                adapter = i.get("id").asLong();
            else wired = i.get("id").asLong();
        api.seen(till)
                .post("/api/interfaces/" + wired + "/moves", "{'endpointId':%d}", second)
                .refused(409, "not-an-adapter");
        var moved = api.seen(till)
                .post("/api/interfaces/" + adapter + "/moves", "{'endpointId':%d}", second)
                .expect(200)
                .json();
        assertThat(texts(moved.get("said"), new String[0])).hasSize(3);
        assertThat(moved.get("said").get(1).asString()).isEqualTo("Till 1 joins by 00:00:5E:00:53:01 from now on.");
        assertThat(moved.get("said").get(2).asString())
                .isEqualTo(
                        "List: the entry “Till 1” goes along to Till 2; its own, “Till 2”, is taken out. Correct its "
                                + "name, or swap the adapters back.");
        assertThat(texts(api.get("/api/endpoints/" + second + "/registrations").json(), "state", "endpoint"))
                .contains("SUBMITTED Till 2");
        assertThat(api.get("/api/endpoints/" + second).json().get("mac").asString())
                .isEqualTo("00:00:5E:00:53:AD");
    }

    private Api.Answer swap(String body) {
        return api.seen(till).post("/api/endpoints/" + till + "/swaps", body);
    }

    private JsonNode sheet(long id) {
        var answer = api.get("/api/swaps/" + id).expect(200);
        api.ifMatch = answer.response().headers().firstValue("ETag").orElseThrow();
        return answer.json();
    }

    private Api.Answer tick(long id, String title, boolean set) {
        var steps = sheet(id).get("steps");
        for (int i = 0; i < steps.size(); i++)
            if (steps.get(i).get("title").asString().startsWith(title))
                return api.put("/api/swaps/" + id + "/steps/" + i, "{'ticked':" + set + "}");
        throw new AssertionError(title + " not in " + steps);
    }

    @Test
    void aSwapLeavesNoOldValueAnywhere() {
        long list = registry("List", "ACCESS_LIST", "['MAC','NAME']", 0),
                service = registry("Payment keys", "SERVICE", "['MAC','SERIAL']", 4);
        for (long id : List.of(list, service))
            api.post("/api/registries/" + id + "/registrations", "{'endpointId':%d,'entered':true}", till)
                    .expect(201);
        var line = api.get("/api/endpoints/" + till + "/registrations").json().get(1);
        api.ifMatch = "\"" + line.get("version").asInt() + "\"";
        api.post(
                        "/api/registrations/" + line.get("id").asLong() + "/acts",
                        "{'act':'ISSUED','issued':'k-17','issuedUsed':'k-16'}")
                .expect(200);
        assertThat(texts(api.get("/api/endpoints/" + till + "/chain").json(), "name", "fact", "broken"))
                .contains(
                        "Payment keys ISSUED false",
                        "Where what Payment keys issued is used ISSUED true",
                        "List MAC false");
        swap("{'mac':'00:00:5E:00:53:01','serial':'OC2-BBBB-0001'}").refused(422, "same-unit");
        swap("{'mac':'00:00:5E:00:53','serial':'OC2-BBBB-0001'}").refused(422, "wrong-length");
        long id = swap("{'mac':'00:00:5E:00:53:77','serial':'OC2-BBBB-0001','reason':'Its screen is broken'}")
                .expect(201)
                .json()
                .get("id")
                .asLong();
        swap("{'mac':'00:00:5E:00:53:78','serial':'OC2-BBBB-0002'}").refused(409, "swap-running");
        assertThat(texts(sheet(id).get("steps"), "act"))
                .containsExactly(
                        "UNPLUG", "TAKE_OUT", "TAKE_OUT", "PUT_IN", "PUT_IN", "PARTNER", "TAG", "SET_UP", "PROVE");
        assertThat(texts(sheet(id).get("leftovers"), new String[0])).hasSize(2);
        assertThat(texts(api.get("/api/endpoints/" + till + "/chain").json(), "name", "fact", "broken"))
                .contains("List MAC true", "Payment keys SERIAL true");
        tick(id, "Put the new one into List", true).refused(409, "waits");
        tick(id, "Take the old one out of List", true).expect(200);
        tick(id, "Put the new one into List", true).expect(200);
        tick(id, "Take the old one out of List", false).refused(409, "waits");
        assertThat(texts(api.get("/api/endpoints/" + till + "/registrations").json(), "registry", "state"))
                .contains("List SUBMITTED", "List ENDED", "Payment keys SUBMITTED");
        for (String title :
                List.of("Unplug", "Take the old one out of Payment", "Put the new one into Payment", "Give", "Hang"))
            tick(id, title, true).expect(200);
        tick(id, "Prove it", true).refused(409, "waits");
        assertThat(sheet(id).get("leftovers")).isEmpty();
        assertThat(texts(api.get("/api/endpoints/" + till + "/chain").json(), "name", "broken"))
                .doesNotContain("List true", "Payment keys true");
        sheet(id);
        var closing = api.post("/api/swaps/" + id + "/closing", "{}").refused(409, "waits");
        assertThat(closing.detail()).isEqualTo("Still open: Plug it in and set it up.");
        assertThat(api.get("/api/find?q=0053:01&siteId=" + site[0]).json()).isEmpty();
        assertThat(api.get("/api/find?q=00005e005377&siteId=" + site[0]).json()).hasSize(1);
        tick(id, "Unplug", false).expect(200);
    }
}
