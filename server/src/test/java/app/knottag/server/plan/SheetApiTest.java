package app.knottag.server.plan;

import static org.assertj.core.api.Assertions.assertThat;

import app.knottag.server.Api;
import app.knottag.server.Running;
import app.knottag.server.account.Role;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.JsonNode;

class SheetApiTest {

    private final Api lead = Running.as(Role.LEAD);
    private long[] site = Running.site(lead);

    private String path(String rest) {
        return "/api/sites/" + site[0] + rest;
    }

    /** Looks at the sheet, so that the next change is made from what was seen. */
    private Api seen() {
        return lead.seenSite(site[0]);
    }

    private JsonNode sheet() {
        return lead.get(path("/sheet")).expect(200).json();
    }

    private long gear(String ports) {
        return seen().put(
                        path("/gear/0"),
                        "{'name':'Shop switch','type':'SWITCH','place':'Back','ports':[" + ports + "]}")
                .expect(200)
                .json()
                .get("id")
                .asLong();
    }

    private static String port(int number, String role) {
        return "{'number':" + number + ",'role':'" + role + "','poe':false}";
    }

    @Test
    void aSiteIsSetUpFromWhatSheFindsThere() {
        gear(port(1, "UPLINK") + "," + port(2, "LAN") + "," + port(3, "LAN"));
        long port2 = sheet().get("gear").get(0).get("ports").get(1).get("id").asLong();
        seen().put(path("/outlets/0"), "{'name':'F-01','place':'Front','state':'PATCHED','portId':%d}", port2)
                .expect(200);
        seen().put(path("/outlets/0"), "{'name':'F-02','place':'Front','state':'DEAD'}")
                .expect(200);
        seen().put(
                        path(""),
                        "{'name':'Surgery "
                                + "%d','zone':'Europe/Berlin','client':'Paws','nameRule':'{site}-{kind}{number}',"
                                + "'feed':'MODEM','feedNote':'On the shelf','feedPortId':null}",
                        site[0])
                .expect(204);
        var sheet = sheet();
        assertThat(sheet.get("site").get("client").asString()).isEqualTo("Paws");
        assertThat(sheet.get("places").get(0).get("name").asString()).isEqualTo("Back");
        long till = Running.till(lead, site, 1);
        lead.seen(till)
                .patch("/api/endpoints/" + till, "{'place':'Front','outlet':'F-01'}")
                .expect(200);
        var cable = lead.get(path("/wiring")).expect(200).json().get("cables").get(0);
        assertThat(cable.get("port").asString()).isEqualTo("Shop switch 2");
        assertThat(cable.get("state").asString()).isEqualTo("PLANNED");
        lead.seen(till).patch("/api/endpoints/" + till, "{'outlet':'F-02'}").expect(200);
        assertThat(lead.get(path("/conflicts")).json().get(0).get("message").asString())
                .isEqualTo("Till 1: Outlet F-02 is dead.");
    }

    @DisplayName("What does not work is refused at its field, and what others point at stays")
    @ParameterizedTest(name = "{0} {1}: {4}")
    @CsvSource(
            delimiter = '|',
            value = {
                "PUT    | /segments/:segment | {'name':'Shop','prefix':'10.7.0.0/27','gateway':'10.7.0.1'} | 409 "
                        + "leaves-outside | That prefix would leave Till 1 at 10.7.0.51 outside. Renumber the segment "
                        + "instead, or move it first.",
                "PUT    | /segments/:segment | {'name':'Shop','prefix':'10.7.0.0/24','gateway':'10.7.0.51'} | 409 "
                        + "gateway-taken | Till 1 has that address. Move it first.",
                "DELETE | /segments/:segment | | 409 in-use | “Shop” is still used by Till 1. Move or retire them first.",
                "DELETE | /series/:series    | | 409 in-use | “Till” is still used by Till 1. They keep their numbers by it.",
                "DELETE | /things/PLACES/:place | | 409 in-use | This is still used by Till 1. Move them first.",
                "DELETE | /things/GEAR/:gear | | 409 in-use | Shop switch 3 is still used by Till 1. Plug them elsewhere first.",
                "DELETE | /things/GEAR/999999 | | 404 not-found | Site :site has nothing with the number 999999.",
                "PUT    | /series/0 | {'name':'PIN "
                        + "pad','counts':'HOST','segmentId':':segment','base':240,'portBase':0,'last':20,'perYear':0} | "
                        + "422 series-too-long | Number 20 would be host 260, which leaves 10.7.0.0/24: hosts end at "
                        + "254.",
                "PUT    | /series/0 | {'name':'Ports','counts':'GEAR_PORT','base':0,'portBase':0,'last':0,'perYear':0} "
                        + "| 422 missing | Say whose ports it counts.",
                "PUT    | /series/0 | {'name':'Till','counts':'NUMBER','base':0,'portBase':0,'last':0,'perYear':0} | "
                        + "409 name-taken | Another series of this site is called so.",
                "PUT    | /outlets/0 | {'name':'F-9','state':'PATCHED'} | 422 missing | Say which port it is patched "
                        + "to, or mark it unknown.",
                "PUT    | /gear/0 | "
                        + "{'name':'Hub','type':'SWITCH','ports':[{'number':1,'role':'LAN','poe':false},{'number':1,"
                        + "'role':'LAN','poe':false}]} | 422 port-twice | Two ports have the same number.",
                "PUT    | | {'name':'Shop','zone':'Europe/Berlin','nameRule':'{shop}'} | 422 bad-name-rule | There is "
                        + "no part {shop}; there are {site}, {kind}, {series}, {number}, {place}.",
                "PUT    | | {'name':'Shop','zone':'Nowhere','nameRule':'{site}{number}'} | 422 bad-zone | “Nowhere” is "
                        + "no time zone. Choose one from the list.",
            })
    void refuses(String method, String rest, String body, String code, String detail) {
        long till = Running.till(lead, site, 1);
        lead.seen(till)
                .patch("/api/endpoints/" + till, "{'place':'Front','switchPort':'Shop switch 3'}")
                .expect(200);
        var sheet = sheet();
        String where = (rest == null ? "" : rest)
                .replace(":segment", "" + site[1])
                .replace(":series", sheet.get("series").get(0).get("id").asString())
                .replace(":place", sheet.get("places").get(0).get("id").asString())
                .replace(":gear", sheet.get("gear").get(0).get("id").asString());
        String json =
                body == null ? "" : body.replace("':segment'", "" + site[1]).replace('\'', '"');
        var answer = seen().send(method, path(where), json);
        answer.refused(Integer.parseInt(code.substring(0, 3)), code.substring(4));
        assertThat(answer.detail()).isEqualTo(detail.replace(":site", "" + site[0]));
        assertThat(sheet()).isEqualTo(sheet);
    }

    @Test
    void ofTwoWhoChangeTheSheetFromOneSightOneLooksAgain() {
        seen();
        lead.put(path("/places/0"), "{'name':'Front','walk':0}").expect(200);
        lead.put(path("/places/0"), "{'name':'Back','walk':0}").refused(412, "changed-meanwhile");
        assertThat(sheet().get("places")).hasSize(1);
        lead.ifMatch = null;
        lead.put(path("/places/0"), "{'name':'Back','walk':0}").refused(428, "if-match-missing");
        Running.as(Role.OFFICE)
                .put(path("/places/0"), "{'name':'Back','walk':0}")
                .refused(403, "not-allowed");
    }

    @Test
    void nothingUsedIsLeftBehindAndWhatIsFreeCanGo() {
        long gear = gear(port(1, "LAN") + "," + port(2, "LAN"));
        seen().put(path("/gear/" + gear), "{'name':'Big switch','type':'SWITCH','ports':[" + port(2, "OFF") + "]}")
                .expect(200);
        assertThat(sheet().get("gear").get(0).get("ports")).hasSize(1);
        seen().send("DELETE", path("/things/GEAR/" + gear), "").expect(204);
        long series = sheet().get("series").get(0).get("id").asLong();
        seen().send("DELETE", path("/series/" + series), "").expect(204);
        seen().send("DELETE", path("/segments/" + site[1]), "").expect(204);
        assertThat(sheet().get("segments")).isEmpty();
        lead.post(path("/segments"), "{'name':'Shop','prefix':'10.7.0.0/24'}").expect(201);
    }

    @Test
    void seriesCountAlongAndSayWhenTheyAreFull() {
        long till = sheet().get("series").get(0).get("id").asLong();
        seen().put(
                        path("/series/" + till),
                        "{'name':'Till','counts':'HOST','segmentId':%d,'base':50,'portBase':7450,'last':10,'perYear':4}",
                        site[1])
                .expect(200);
        seen().put(
                        path("/series/0"),
                        "{'name':'Listening','counts':'LISTENING_PORT','followsId':%d,'base':7500,'portBase':0,'last':0,'perYear':0}",
                        till)
                .expect(200);
        long first = Running.till(lead, site, 1);
        assertThat(lead.get("/api/endpoints/" + first).json().get("partnerPort").asInt())
                .isEqualTo(7501);
        var growth = lead.get(path("/growth")).expect(200).json();
        assertThat(growth.get(0).get("name").asString()).isEqualTo("Till");
        assertThat(growth.get(0).get("fit").get("room").asInt()).isEqualTo(10);
        assertThat(growth.get(0).get("fit").get("fullOn").isNull()).isFalse();
        assertThat(growth.get(1).get("fit").get("taken").asInt()).isEqualTo(1);
        var rules = lead.get(path("/firewall")).expect(200).json();
        assertThat(rules.valueStream()
                        .map(r -> r.get("from").asString() + " > " + r.get("to").asString() + " "
                                + r.get("port").asInt()))
                .contains(
                        "Till 1 workstation 10.7.0.31 > Till 1 10.7.0.51 7451",
                        "Till 1 10.7.0.51 > resolver 10.7.0.1 53",
                        "Till 1 10.7.0.51 > internet 443");
        assertThat(rules.get(rules.size() - 1).get("why").asString()).startsWith("Refuse");
    }
}
