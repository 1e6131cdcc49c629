package app.knottag.server.plan;

import static org.assertj.core.api.Assertions.assertThat;

import app.knottag.server.Api;
import app.knottag.server.Running;
import app.knottag.server.account.Role;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.JsonNode;

/** Renumbering in the same network, where addresses are handed from one to another, and what it undoes. */
class RenumberApiTest {

    private final Api lead = Running.as(Role.LEAD);
    private long[] site = Running.site(lead);

    private String segment(String rest) {
        return "/api/sites/" + site[0] + "/segments/" + site[1] + rest;
    }

    private long printer(String name, String address) {
        return lead.post(
                        "/api/sites/" + site[0] + "/endpoints",
                        "{'segmentId':%d,'kind':'label-printer','name':'%s','address':'%s'}",
                        site[1],
                        name,
                        address)
                .expect(201)
                .json()
                .get("id")
                .asLong();
    }

    private TreeMap<String, String> addresses() {
        var addresses = new TreeMap<String, String>();
        for (JsonNode e : lead.get("/api/sites/" + site[0] + "/endpoints").json())
            addresses.put(e.get("name").asString(), e.get("address").asString());
        return addresses;
    }

    private JsonNode complete(long id) {
        lead.ifMatch = lead.get("/api/renumberings/" + id)
                .expect(200)
                .response()
                .headers()
                .firstValue("ETag")
                .orElseThrow();
        return lead.post("/api/renumberings/" + id + "/steps", "").expect(200).json();
    }

    @DisplayName("Another router in the same network moves only who stands in its way")
    @ParameterizedTest(name = "gateway {0}, pool {1} to {2}: {3} moved")
    @CsvSource({
        "10.7.0.1,   10.7.0.100, 10.7.0.199, 0",
        "10.7.0.254, 10.7.0.100, 10.7.0.199, 1",
        "10.7.0.1,   10.7.0.10,  10.7.0.30,  2",
        "10.7.0.20,  10.7.0.2,   10.7.0.19,  1",
    })
    void movesOnlyWhoMust(String gateway, String from, String to, int moved) {
        for (String address : List.of("10.7.0.20", "10.7.0.21", "10.7.0.254", "10.7.0.60")) printer(address, address);
        var before = addresses();
        String next = String.format(
                "{'prefix':'10.7.0.0/24','gateway':'%s','pools':[{'from':'%s','to':'%s'}]}", gateway, from, to);
        long id = lead.post(segment("/renumberings"), next)
                .expect(201)
                .json()
                .get("id")
                .asLong();
        var seen = new ArrayList<TreeMap<String, String>>();
        for (JsonNode run; !(run = complete(id)).get("ended").asBoolean(); ) seen.add(addresses());
        var after = addresses();
        assertThat(before.keySet().stream().filter(n -> !before.get(n).equals(after.get(n))))
                .hasSize(moved);
        assertThat(seen).allSatisfy(a -> assertThat(a.values()).doesNotHaveDuplicates());
        assertThat(after.values()).doesNotContain(gateway);
        var sheet = lead.get("/api/sites/" + site[0] + "/sheet")
                .json()
                .get("segments")
                .get(0);
        assertThat(sheet.get("gateway").asString()).isEqualTo(gateway);
        assertThat(sheet.get("pools").get(0).get("from").asString()).isEqualTo(from);
        assertThat(sheet.get("nextPrefix").isNull()).isTrue();
        assertThat(texts(lead.get("/api/sites/" + site[0] + "/conflicts").json()))
                .doesNotContain("IN_POOL", "IS_GATEWAY");
    }

    private static List<String> texts(JsonNode conflicts) {
        var codes = new ArrayList<String>();
        for (JsonNode c : conflicts) codes.add(c.get("code").asString());
        return codes;
    }

    @Test
    void whoMovesLosesItsProofAndTheLogSaysWhy() {
        long till = Running.till(lead, site, 1);
        String next = "{'prefix':'10.7.0.0/24','gateway':'10.7.0.51'}";
        long id = lead.post(segment("/renumberings"), next)
                .expect(201)
                .json()
                .get("id")
                .asLong();
        for (int i = 0; i < 3; i++) complete(id);
        var view = lead.get("/api/endpoints/" + till).json();
        assertThat(view.get("address").asString()).isNotEqualTo("10.7.0.51");
        assertThat(view.get("confirmedAt").isNull()).isTrue();
        var log = lead.get("/api/sites/" + site[0] + "/log").json();
        assertThat(log.get(0).get("action").asString()).startsWith("renumbering: done “Move Till 1 to 10.7.0.");
        assertThat(log.get(1).get("action").asString()).isEqualTo("endpoint moved");
        assertThat(log.get(1).get("reason").asString()).startsWith("Renumbering: Move Till 1 to");
        assertThat(lead.get("/api/log/check").json().get("whole").asBoolean()).isTrue();
    }

    @Test
    void oneThatIsRetiredInBetweenIsPassedOver() {
        long first = printer("A", "10.7.0.20");
        printer("B", "10.7.0.21");
        long id = lead.post(segment("/renumberings"), "{'prefix':'10.60.2.0/24','gateway':'10.60.2.1'}")
                .expect(201)
                .json()
                .get("id")
                .asLong();
        complete(id);
        complete(id);
        lead.seen(first)
                .post("/api/endpoints/" + first + "/retirement", "{'reason':'Broken'}")
                .expect(204);
        for (JsonNode run; !(run = complete(id)).get("ended").asBoolean(); )
            assertThat(run.get("done").asInt()).isPositive();
        assertThat(addresses()).containsExactlyEntriesOf(new TreeMap<>(Map.of("B", "10.60.2.21")));
    }

    @Test
    void whoIsPlannedInTheOldNetworkMeanwhileIsNotLeftBehind() {
        printer("A", "10.7.0.20");
        long id = lead.post(segment("/renumberings"), "{'prefix':'10.60.2.0/24','gateway':'10.60.2.1'}")
                .expect(201)
                .json()
                .get("id")
                .asLong();
        int steps = lead.get("/api/renumberings/" + id).json().get("steps").size();
        complete(id);
        long late = printer("Late", "10.7.0.30");
        for (int i = 1; i < steps - 1; i++) complete(id);
        lead.ifMatch = lead.get("/api/renumberings/" + id)
                .response()
                .headers()
                .firstValue("ETag")
                .orElseThrow();
        assertThat(lead.post("/api/renumberings/" + id + "/steps", "")
                        .refused(409, "left-behind")
                        .detail())
                .isEqualTo("Still in the old network: Late. Give them an address of the new one first.");
        lead.seen(late)
                .patch("/api/endpoints/" + late, "{'address':'10.60.2.30'}")
                .expect(200);
        assertThat(complete(id).get("ended").asBoolean()).isTrue();
        lead.get("/api/renumberings/999999").refused(404, "not-found");
    }
}
