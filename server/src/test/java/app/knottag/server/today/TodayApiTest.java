package app.knottag.server.today;

import static org.assertj.core.api.Assertions.assertThat;

import app.knottag.server.Api;
import app.knottag.server.Hands;
import app.knottag.server.Running;
import app.knottag.server.account.Role;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** The day at a glance: every feature tells what it knows, and the worst of it stands first. */
class TodayApiTest {

    private final Api api = Running.as(Role.TECHNICIAN);
    private long[] site;
    private long till;

    @BeforeEach
    void aTill() {
        site = Running.site(Running.as(Role.LEAD));
        till = Running.till(Running.as(Role.LEAD), site, 1);
    }

    private JsonNode today() {
        return api.get("/api/today").expect(200).json();
    }

    /** What is told of this site, the first of all before the others. */
    private List<String> told() {
        var today = today();
        var told = new ArrayList<String>();
        var all = new ArrayList<JsonNode>(List.of(today.get("first")));
        for (String part : List.of("now", "running", "ahead")) today.get(part).forEach(all::add);
        for (var n : all)
            if (!n.isNull() && n.get("siteId").asLong() == site[0])
                told.add(n.get("what").asString() + " " + n.get("title").asString());
        return told;
    }

    @DisplayName("A wait runs, is ready, is too long; then it stands before whatever is merely broken")
    @Test
    void waitsComeFirst() throws SQLException {
        assertThat(told()).isEmpty();
        var hands = new Hands(api, till);
        hands.carry("first-start");
        hands.act("first-start", "START", Map.of()).expect(200);
        assertThat(told()).containsExactly("RUNS Till 1");
        String ago = "update step set started_at = now() - interval '%d minutes' where endpoint_id = " + till
                + " and key = 'first-start'";
        Running.write(ago.formatted(60));
        assertThat(told()).containsExactly("READY Look at Till 1");
        Running.write(ago.formatted(300));
        assertThat(told()).containsExactly("TOO_LONG Look at Till 1");
        assertThat(today().get("first").get("what").asString()).isEqualTo("TOO_LONG");
        long other = Running.till(Running.as(Role.LEAD), site, 2);
        Running.write("update endpoint set station = 'CONFIRM', status = 'FAILED' where id = " + other);
        assertThat(told()).containsExactly("TOO_LONG Look at Till 1", "BROKEN Mend Till 2");
        Running.write("update endpoint set station = 'DONE', status = 'PASSED' where site_id = " + site[0]);
        Running.write("update step set ended_at = now() where endpoint_id = " + till + " and key = 'first-start'");
        assertThat(told()).isEmpty();
    }

    @Test
    void aVisitIsAheadLateAndRunning() throws SQLException {
        long id = api.post(
                        "/api/sites/" + site[0] + "/visits",
                        "{'name':'Second shop','begins':'2031-11-25 06:00','walk':1,'people':[{'name':'Nils'}],"
                                + "'units':[{'endpointId':%d,'bench':false,'first':false}]}",
                        till)
                .expect(201)
                .json()
                .get("id")
                .asLong();
        assertThat(told()).containsExactly("VISIT_AHEAD Second shop");
        Running.write("update visit set begins = now() - interval '5 minutes' where id = " + id);
        assertThat(told()).containsExactly("VISIT_LATE Begin Second shop");
        api.post("/api/visits/" + id + "/plan", "").expect(200);
        api.ifMatch = "\"1\"";
        api.post("/api/visits/" + id + "/begin", "").expect(200);
        api.post("/api/visits/" + id + "/people/0/take", "").expect(200);
        assertThat(told()).containsExactly("VISIT_RUNS Go on with Second shop");
        assertThat(today().toString()).contains("Nils is at Till 1.");
        Running.write("update visit set ended_at = now() where id = " + id);
        assertThat(told()).isEmpty();
    }

    @Test
    void whatADateBringsStandsThereUntilItIsDone() throws SQLException {
        var lead = Running.as(Role.LEAD);
        long portal = lead.seenSite(site[0])
                .put(
                        "/api/sites/" + site[0] + "/registries/0",
                        "{'name':'Guest portal','type':'PORTAL','naming':'WORDS','longestName':40,'ownerNeeded':false,"
                                + "'sharing':'NONE','most':0,'lifetimeUnit':'DAYS','lifetime':90,'restart':false,"
                                + "'facts':['MAC','NAME'],'leadDays':0,'form':'CSV'}")
                .expect(200)
                .json()
                .get("id")
                .asLong();
        long entry = lead.post("/api/registries/" + portal + "/registrations", "{'endpointId':%d}", till)
                .expect(201)
                .json()
                .get("id")
                .asLong();
        Running.write(
                "update registration set entered_at = now() - interval '90 days', ends_at = now() - interval '1 hour',"
                        + " asked_at = now() - interval '91 days' where id = " + entry);
        // Nobody is expected yet, so nothing is late.
        lead.post(
                        "/api/sites/" + site[0] + "/prerequisites",
                        "{'name':'Key file','who':'acquirer','days':5,'after':''}")
                .expect(201);
        assertThat(told()).containsExactly("CUT_OFF Register Till 1 again in Guest portal");
        Running.write("update registration set ends_at = now() + interval '60 days' where id = " + entry);
        assertThat(told()).isEmpty();
        lead.put("/api/sites/" + site[0] + "/visit", "{'on':'2031-11-25','slack':1}")
                .status();
        Running.write("update site set visit_on = current_date + 2 where id = " + site[0]);
        assertThat(told()).containsExactly("DUE Order Key file");
        Running.write("update prerequisite set done_at = now() where site_id = " + site[0]);
        assertThat(told()).isEmpty();
    }

    @Test
    void sitesTellWhatWaitsWhere() {
        for (var s : today().get("sites"))
            if (s.get("siteId").asLong() == site[0]) {
                assertThat(s.get("waiting").size()).isPositive();
                assertThat(s.get("next").isNull()).isFalse();
                return;
            }
        throw new AssertionError("the site is not there");
    }
}
