package app.knottag.server.audit;

import static org.assertj.core.api.Assertions.assertThat;

import app.knottag.server.Api;
import app.knottag.server.Running;
import app.knottag.server.account.Role;
import java.sql.SQLException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.stream.StreamSupport;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** What a change would touch, out of what is on record, and the visit that comes of it. */
class ImpactApiTest {

    private final Api api = Running.as(Role.TECHNICIAN);
    private long[] site;
    private String path;
    private long copier;

    @BeforeEach
    void aTillThatIsSetUpAndOneThatIsNot() throws SQLException {
        var lead = Running.as(Role.LEAD);
        site = Running.site(lead);
        path = "/api/sites/" + site[0];
        long till = Running.till(lead, site, 1);
        Running.till(lead, site, 2);
        copier = lead.post(
                        path + "/endpoints",
                        "{'segmentId':%d,'kind':'copier','name':'Copier','address':'10.7.0.40','method':'RESERVED'}",
                        site[1])
                .expect(201)
                .json()
                .get("id")
                .asLong();
        Running.write("update endpoint set confirmed_at = now() where id in (" + till + ", " + copier + ")");
        Running.write("""
                insert into opening (endpoint_id, key, danger, title, owner, closed, note, by)
                values (%d, 'page', 'PLAIN_PAGE', 'Its page without encryption', 'Jo', false, '', 'lead')""".formatted(copier));
    }

    private JsonNode impact(String change, String subject) {
        return api.get(path + "/impact?change=" + change + "&subject=" + subject)
                .expect(200)
                .json();
    }

    private List<String> steps(String change, String subject) {
        return StreamSupport.stream(impact(change, subject).get("steps").spliterator(), false)
                .map(s -> s.get("act").asString() + " " + s.get("thing").asString())
                .toList();
    }

    private List<String> subjects(String change) {
        var found = new ArrayList<String>();
        for (var c : api.get(path + "/changes").expect(200).json())
            if (c.get("change").asString().equals(change))
                for (var s : c.get("subjects")) found.add(s.get("key").asString());
        return found;
    }

    @DisplayName("Everything on record that rests on it is named, and what nobody has set up yet is not")
    @Test
    void namesWhatRestsOnIt() throws SQLException {
        assertThat(steps("ROUTER", "ROUTER:"))
                .containsExactly(
                        "CHANGE The router",
                        "MEND Shop",
                        "MEND The firewall",
                        "MEND The reservations of Shop",
                        "RENEW Copier",
                        "PROVE Copier",
                        "PROVE Till 1");
        assertThat(impact("ROUTER", "ROUTER:").get("unknown").toString())
                .contains("Not set up yet, so there is nothing to change on Till 2.");
        assertThat(steps("PERSON", "PERSON:jo")).containsExactly("CHANGE Jo", "MEND Copier");
        assertThat(subjects("MAIL_PASSWORD")).isEmpty();
        Running.write("""
                insert into worksheet (site_id, endpoint_id, sheet, figures, by)
                values (%d, %d, 'mail', '{"user":"scans@shop.example","signIn":"DEVICE"}', 'lead')""".formatted(site[0], copier));
        assertThat(subjects("MAIL_PASSWORD")).containsExactly("MAILBOX:scans@shop.example");
        assertThat(steps("MAIL_PASSWORD", "MAILBOX:scans@shop.example"))
                .containsExactly("CHANGE scans@shop.example", "MEND Copier", "PROVE Copier");
        Running.write(
                "update worksheet set figures = figures || '{\"signIn\":\"NONE\"}' where endpoint_id = " + copier);
        assertThat(subjects("MAIL_PASSWORD"))
                .as("its relay knows it by its address")
                .isEmpty();
    }

    @Test
    void whatIsNotThereIsRefusedAtItsField() {
        var answer = api.get(path + "/impact?change=SWITCH&subject=GEAR:1").refused(422, "no-such-thing");
        assertThat(answer.json().get("errors").get(0).get("pointer").asString()).isEqualTo("/subject");
        api.get(path + "/impact?change=WEATHER&subject=").expect(400);
        api.get("/api/sites/999999/impact?change=PROVIDER&subject=LINE:").expect(404);
    }

    @DisplayName("As a visit its tasks come in the order in which one rests on the other, whoever else is there")
    @Test
    void becomesAVisit() {
        var tasks = new ArrayList<String>();
        for (var e : impact("ROUTER", "ROUTER:").get("errands")) {
            tasks.add("{'title':'%s','place':'','minutes':%d,'stage':%d}"
                    .formatted(
                            e.get("title").asString(),
                            e.get("minutes").asInt(),
                            e.get("stage").asInt()));
        }
        long id = api.post(
                        path + "/visits",
                        ("{'name':'New router','begins':'2033-03-04 17:30','walk':1,'people':"
                                        + "[{'name':'Imke'},{'name':'Joost'}],'units':[],'tasks':" + tasks + "}")
                                .replace("%", "%%"))
                .expect(201)
                .json()
                .get("id")
                .asLong();
        api.post("/api/visits/" + id + "/plan", "").expect(200);
        var visit = api.get("/api/visits/" + id).expect(200).json();
        var stages = new HashMap<Long, Integer>();
        for (var task : visit.get("tasks"))
            stages.put(-task.get("id").asLong(), task.get("stage").asInt());
        var turns = visit.get("plan").get("turns");
        assertThat(turns).hasSize(tasks.size());
        assertThat(stages.values()).contains(1, 2, 3);
        for (var a : turns)
            for (var b : turns)
                if (stages.get(a.get("unitId").asLong())
                        < stages.get(b.get("unitId").asLong()))
                    assertThat(Instant.parse(b.get("from").asString()))
                            .isAfterOrEqualTo(Instant.parse(a.get("done").asString()));
    }
}
