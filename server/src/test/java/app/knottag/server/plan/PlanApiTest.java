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

class PlanApiTest {

    private final Api lead = Running.as(Role.LEAD);
    private long[] site = Running.site(lead);

    private String path(String rest) {
        return "/api/sites/" + site[0] + rest;
    }

    private String batch(String kind, String more) {
        return "{'kind':'" + kind + "','segmentId':" + site[1] + "," + more + "}";
    }

    @Test
    void eightTerminalsAreSeenFirstAndMadeAtOnce() {
        lead.post(path("/endpoints"), "{'segmentId':%d,'kind':'copier','name':'Copier','address':'10.7.0.54'}", site[1])
                .expect(201);
        String wanted = batch("counter-payment-terminal", "'numbers':'1 to 3, 4-8','place':'Counter'");
        var rows =
                lead.post(path("/endpoint-batches"), wanted).expect(200).json().get("rows");
        assertThat(rows).hasSize(8);
        assertThat(rows.get(2).get("address").asString()).isEqualTo("10.7.0.53");
        assertThat(rows.get(2).get("reason").asString()).isEqualTo("By its number.");
        assertThat(rows.get(3).get("reason").asString()).isEqualTo("10.7.0.54: Copier; the safest free one instead.");
        assertThat(lead.get(path("/endpoints")).json()).hasSize(1);
        lead.post(path("/endpoint-batches?preview=false"), wanted).expect(200);
        assertThat(lead.get(path("/endpoints")).json()).hasSize(9);
        lead.post(path("/endpoint-batches"), batch("counter-payment-terminal", "'numbers':'8 to 9'"))
                .refused(409, "number-taken");
    }

    @DisplayName("Numbers that make no sense are named")
    @ParameterizedTest(name = "{0}: {1}")
    @CsvSource(
            delimiter = '|',
            value = {
                "'numbers':'8 to 1'   | “8 to 1” does not run upwards from 1 or more.",
                "'numbers':'one'      | “one” is no number or run. Type 1 to 8, or 1, 3, 5.",
                "'numbers':''         | Say which numbers, such as 1 to 8.",
                "'numbers':'1 to 900' | At most 250 at once.",
            })
    void badNumbers(String numbers, String message) {
        assertThat(lead.post(path("/endpoint-batches"), batch("counter-payment-terminal", numbers))
                        .expect(422)
                        .detail())
                .isEqualTo(message);
    }

    @Test
    void theTapeShowsWhoHangsThereWhatIsFreeAndWhatIsAmiss() {
        Running.till(lead, site, 1);
        lead.post(
                        path("/endpoints"),
                        "{'segmentId':%d,'kind':'copier','name':'Copier','address':'10.7.0.140'}",
                        site[1])
                .refused(422, "in-pool");
        lead.post(
                        path("/endpoints"),
                        "{'segmentId':%d,'kind':'copier','name':'Copier','address':'10.7.0.140','reason':'It was so'}",
                        site[1])
                .expect(201);
        var tape = lead.get(path("/segments/" + site[1] + "/tape")).expect(200).json();
        assertThat(tape.get("marks")).hasSize(3);
        assertThat(tape.get("marks").get(0).get("label").asString()).isEqualTo("Till 1");
        assertThat(tape.get("marks").get(1).get("conflict").asBoolean()).isTrue();
        assertThat(tape.get("free").get(0).get("fromHost").asInt()).isEqualTo(200);
        var conflict = lead.get(path("/conflicts")).expect(200).json().get(0);
        assertThat(conflict.get("code").asString()).isEqualTo("IN_POOL");
        assertThat(conflict.get("mend").asString()).contains("start the pool at 10.7.0.141");
        long id = conflict.get("move").get("endpointId").asLong();
        lead.seen(id)
                .patch(
                        "/api/endpoints/" + id,
                        "{'address':'%s'}",
                        conflict.get("move").get("to").asString())
                .expect(200);
        assertThat(lead.get(path("/conflicts")).json()).isEmpty();
    }

    @Test
    void aClickOnFreeGroundAndTheReasonsForTheRest() {
        var proposal = lead.get(path("/proposal?kind=copier&segmentId=" + site[1] + "&host=77&place=Hall"))
                .expect(200)
                .json();
        assertThat(proposal.get("address").asString()).isEqualTo("10.7.0.77");
        assertThat(proposal.get("reasons").get(0).asString()).isEqualTo("You chose it on the tape.");
        assertThat(proposal.get("hostName").asString()).matches("t[a-z]{2}-copy1");
        assertThat(proposal.get("method").asString()).isEqualTo("FIXED");
        lead.get(path("/proposal?kind=copier&segmentId=999999")).refused(404, "not-found");
        assertThat(lead.get(path("/free?address=10.7.0.77"))
                        .expect(200)
                        .json()
                        .get("verdict")
                        .asString())
                .isEqualTo("PROBABLY_FREE");
        lead.get(path("/free?address=10.7.0")).refused(422, "unreadable");
    }

    private JsonNode intake(String query, String text) {
        lead.contentType = "text/plain";
        try {
            return lead.send("POST", path("/intakes?" + query), text)
                    .expect(200)
                    .json();
        } finally {
            lead.contentType = "application/json";
        }
    }

    @Test
    void aPastedSheetBecomesEndpointsAllOrNothing() {
        String sheet = "Device;IP;MAC;Room\nCopier;10.7.0.40;00:00:5E:00:53:40;Hall\nTime clock;;;Staff door\n";
        var faulty = intake("source=SHEET&preview=false", sheet + "Scanner;10.7.0.40;;Hall\n");
        assertThat(faulty.get("problems").get(0).get("message").asString())
                .isEqualTo("10.7.0.40 stands on line 2 already.");
        assertThat(faulty.get("made")).isEmpty();
        assertThat(lead.get(path("/endpoints")).json()).isEmpty();
        var preview = intake("source=SHEET", sheet);
        assertThat(preview.get("made")).hasSize(2);
        assertThat(preview.get("columns").get("PLACE").asInt()).isEqualTo(3);
        intake("source=SHEET&preview=false", sheet);
        assertThat(lead.get(path("/endpoints")).json()).hasSize(2);
        assertThat(lead.get(path("/conflicts")).json()).isEmpty();
        var again = intake("source=SHEET&columns=NAME:0,ADDRESS:1", "a,b\nCopier,10.7.0.40");
        assertThat(again.get("known").get(0).get("message").asString())
                .isEqualTo("Copier is on record with this address.");
    }

    @Test
    void aNeighbourTableSpeaksForAndAgainstThePlan() {
        Running.till(lead, site, 1);
        var seen = intake(
                "source=NEIGHBOURS&make=false&preview=false",
                "10.7.0.131 dev eth0 lladdr 00:00:5e:00:53:01 REACHABLE\n10.7.0.60 dev eth0 lladdr 00:00:5e:00:53:77 STALE\n");
        assertThat(seen.get("seen").asInt()).isEqualTo(2);
        assertThat(lead.get(path("/conflicts")).json().get(0).get("message").asString())
                .isEqualTo("Till 1: planned at 10.7.0.51, seen at 10.7.0.131, an address that is handed out: reset, or "
                        + "never saved.");
        var taken = lead.get(path("/free?address=10.7.0.60")).json();
        assertThat(taken.get("verdict").asString()).isEqualTo("TAKEN");
        assertThat(taken.get("holder").asString()).isEqualTo("00:00:5E:00:53:77");
    }

    @DisplayName("What is no list is refused, and nothing is half done")
    @ParameterizedTest(name = "{0}")
    @CsvSource(
            delimiter = '|',
            value = {
                "source=SHEET   | PK\u0003\u0004      | 422 | This is a spreadsheet file, not text. Save the sheet as "
                        + "CSV (UTF-8) and choose that.",
                "source=SHEET&columns=COLOUR:1 | a,b  | 422 | There is no column COLOUR.",
                "source=SHEET&columns=NAME | a,b      | 422 | “NAME” is no column such as NAME:0.",
                "source=HOSTS&preview=false | nothing | 422 | Nothing in it can be taken over.",
            })
    void refusesLists(String query, String text, int status, String message) {
        lead.contentType = "text/plain";
        assertThat(lead.send("POST", path("/intakes?" + query), text)
                        .expect(status)
                        .detail())
                .isEqualTo(message);
        assertThat(lead.send("POST", path("/intakes?source=SHEET"), "x".repeat(20_000_000))
                        .expect(413)
                        .detail())
                .isEqualTo("This has 20 MB; at most 12 MB are read here. Split it.");
        assertThat(lead.send("POST", path("/intakes?source=SHEET"), "x".repeat(5_000_000))
                        .expect(413)
                        .detail())
                .isEqualTo("The file has 5 MB; at most 4 MB are read. Split it.");
    }

    private static final String NEXT =
            "{'prefix':'10.60.2.0/24','gateway':'10.60.2.1','resolvers':['10.60.2.1'],'pools':[{'from':'10.60.2.100','to':'10.60.2.199'}]}";

    private Api at(long renumbering) {
        lead.ifMatch = lead.get("/api/renumberings/" + renumbering)
                .expect(200)
                .response()
                .headers()
                .firstValue("ETag")
                .orElseThrow();
        return lead;
    }

    @Test
    void aSegmentIsCarriedIntoAnotherNetworkStepByStep() {
        long till = Running.till(lead, site, 1);
        String segment = path("/segments/" + site[1]);
        var plan = lead.post(segment + "/renumbering-plan", NEXT).expect(200).json();
        assertThat(plan.get("moves")).hasSize(2);
        assertThat(plan.get("changedHosts").asInt()).isZero();
        long id = lead.post(segment + "/renumberings", NEXT)
                .expect(201)
                .json()
                .get("id")
                .asLong();
        lead.post(segment + "/renumberings", NEXT).refused(409, "renumbering");
        int steps = plan.get("steps").size();
        for (int i = 0; i < 3; i++)
            at(id).post("/api/renumberings/" + id + "/steps", "").expect(200);
        lead.post("/api/renumberings/" + id + "/steps", "").refused(412, "changed-meanwhile");
        var half = lead.get("/api/renumberings/" + id).json();
        assertThat(half.get("done").asInt()).isEqualTo(3);
        assertThat(lead.get("/api/endpoints/" + till).json().get("mask").asString())
                .isEqualTo("255.255.255.0");
        at(id).send("DELETE", "/api/renumberings/" + id, "").refused(409, "already-moving");
        at(id).send("DELETE", "/api/renumberings/" + id + "/steps/last", "").expect(200);
        for (int i = 2; i < steps; i++)
            at(id).post("/api/renumberings/" + id + "/steps", "").expect(200);
        var moved = lead.get("/api/endpoints/" + till).json();
        assertThat(moved.get("address").asString()).isEqualTo("10.60.2.51");
        assertThat(moved.get("prefix").asString()).isEqualTo("10.60.2.0/24");
        assertThat(moved.get("partnerAddress").asString()).isEqualTo("10.60.2.31");
        assertThat(lead.get(path("/renumberings")).json()).isEmpty();
        var tape = lead.get(segment + "/tape").json();
        assertThat(tape.get("elsewhere")).isEmpty();
        assertThat(tape.get("marks").get(0).get("host").asInt()).isEqualTo(51);
    }

    @Test
    void whileItRunsNobodyIsStrandedAndItCanBeGivenUp() {
        Running.till(lead, site, 1);
        String segment = path("/segments/" + site[1]);
        long id = lead.post(segment + "/renumberings", NEXT)
                .expect(201)
                .json()
                .get("id")
                .asLong();
        lead.ifMatch =
                lead.get(path("/sheet")).response().headers().firstValue("ETag").orElseThrow();
        lead.put(segment, "{'name':'Shop','prefix':'10.7.0.0/24'}").refused(409, "renumbering");
        at(id).send("DELETE", "/api/renumberings/" + id, "").expect(204);
        lead.post(segment + "/renumbering-plan", "{'prefix':'10.60.2.0/30','gateway':'10.60.2.1'}")
                .expect(200);
        assertThat(lead.post(segment + "/renumberings", "{'prefix':'10.60.2.0/30','gateway':'10.60.2.1'}")
                        .refused(422, "no-room")
                        .detail())
                .isEqualTo("2 ask for one address in 10.60.2.0/30: Till 1 workstation, Till 1.");
    }

    @DisplayName("What a device learned is compared with its plan")
    @ParameterizedTest(name = "{0} {1} {2}: {3}")
    @CsvSource(
            delimiter = '|',
            value = {
                "10.7.0.131 | 255.255.255.0 | 10.7.0.1 | CHANGE KEEP KEEP KEEP CHANGE",
                "10.7.0.51  | 255.255.255.0 | 10.7.0.1 | KEEP KEEP KEEP KEEP CHANGE",
                "10.9.0.7   | 255.255.255.0 | 10.9.0.1 | ALARM KEEP ALARM KEEP CHANGE",
                "10.7.0.131 | 255.255.0.0   | 10.8.0.1 | ! With mask 255.255.0.0 the device at 10.7.0.131 cannot reach "
                        + "the gateway 10.8.0.1: it is outside 10.7.0.0/16. One of the three is wrong.",
                "10.7.0     | 255.255.255.0 | 10.7.0.1 | ! Three groups of figures: 10.7.0. An address has four. Did you mean 1.0.7.0?",
            })
    void learned(String address, String mask, String gateway, String expected) {
        long till = Running.till(lead, site, 1);
        var answer = lead.post(
                "/api/endpoints/" + till + "/learned",
                "{'address':'%s','mask':'%s','gateway':'%s','resolvers':['10.7.0.1']}",
                address,
                mask,
                gateway);
        var said = new StringBuilder();
        if (answer.status() == 422) said.append("! ").append(answer.detail());
        else
            for (JsonNode line : answer.expect(200).json())
                said.append(line.get("act").asString()).append(' ');
        assertThat(said.toString().strip()).isEqualTo(expected);
    }

    @Test
    void aTrustedRangeIsShrunkToThePartners() {
        Running.till(lead, site, 1);
        String trusted = path("/segments/" + site[1] + "/trusted-range");
        var shrunk = lead.post(trusted, "{'from':'10.7.0.0','to':'10.7.0.127'}").expect(422);
        assertThat(shrunk.detail()).startsWith("10.7.0.0 names the network");
        lead.post(trusted, "{'from':'10.7.0.90','to':'10.7.0.9'}").refused(422, "range-backwards");
        var view = lead.post(trusted, "{'from':'10.7.0.1','to':'10.7.0.127'}")
                .expect(200)
                .json();
        assertThat(view.get("count").asInt()).isEqualTo(127);
        assertThat(view.get("keep").get(0).asString()).isEqualTo("10.7.0.31 Till 1 workstation");
        assertThat(view.get("removed").asInt()).isEqualTo(126);
        assertThat(view.get("warnings").get(0).asString()).startsWith("It trusts the gateway");
    }
}
