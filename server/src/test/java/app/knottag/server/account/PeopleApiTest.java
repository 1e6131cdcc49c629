package app.knottag.server.account;

import static org.assertj.core.api.Assertions.assertThat;

import app.knottag.server.Api;
import app.knottag.server.Running;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.Callable;
import java.util.concurrent.Executors;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.JsonNode;

/** What a lead can do about people, and everybody about the own sign-in. */
class PeopleApiTest {

    private static final String PASSWORD = "heron under seven bridges", OTHER = "kettle of quiet thunder";
    private final Api lead = Running.as(Role.LEAD);

    private static Api signedIn(String name, String password) {
        var api = Running.stranger();
        api.post("/api/session", "{'name':'%s','password':'%s'}", name, password)
                .expect(200);
        return api;
    }

    /** Somebody new. */
    private JsonNode join(String name, Role role) {
        Running.join(name, role, PASSWORD);
        return person(name);
    }

    private JsonNode person(String name) {
        for (var p : lead.get("/api/people").expect(200).json())
            if (p.get("name").asString().equals(name)) return p;
        throw new AssertionError("nobody is called " + name);
    }

    private Api.Answer change(JsonNode person, Role role, boolean closed) {
        lead.ifMatch = "\"" + person.get("version").asInt() + "\"";
        return lead.send(
                "PUT",
                "/api/people/" + person.get("id").asLong(),
                "{\"role\":\"" + role + "\",\"closed\":" + closed + ",\"everySite\":true,\"sites\":[]}");
    }

    @DisplayName("A role counts from the next request on, and only from the version that was seen")
    @Test
    void roleCountsAtOnce() {
        var noor = join("Noor Rolewell", Role.OFFICE);
        var api = signedIn("Noor Rolewell", PASSWORD);
        api.post("/api/sites/999/endpoints", "{}").refused(403, "not-allowed");
        change(noor, Role.TECHNICIAN, false).expect(204);
        assertThat(api.get("/api/session").expect(200).json().get("role").asString())
                .isEqualTo("TECHNICIAN");
        assertThat(api.post("/api/sites/999/endpoints", "{}").status()).isNotEqualTo(403);
        change(noor, Role.LEAD, false).refused(412, "changed-meanwhile");
        assertThat(person("Noor Rolewell").get("role").asString()).isEqualTo("TECHNICIAN");
    }

    @DisplayName(
            "A closed account is out at once, everywhere, and is told so only with the right password; opened again it goes on")
    @Test
    void closing() {
        var ada = join("Ada Closewell", Role.TECHNICIAN);
        var first = signedIn("Ada Closewell", PASSWORD);
        var second = signedIn("Ada Closewell", PASSWORD);
        assertThat(person("Ada Closewell").get("signedIn").asInt()).isEqualTo(2);
        assertThat(person("Ada Closewell").get("lastSeen").isNull()).isFalse();
        change(ada, Role.TECHNICIAN, true).expect(204);
        first.get("/api/sites").refused(401, "session-ended");
        second.post("/api/mac/read", "{'text':'x'}").expect(401);
        var door = Running.stranger();
        door.post("/api/session", "{'name':'Ada Closewell','password':'%s'}", PASSWORD)
                .refused(403, "account-closed");
        door.post("/api/session", "{'name':'Ada Closewell','password':'wrong'}").refused(401, "wrong-name-or-password");
        lead.post("/api/people/" + ada.get("id").asLong() + "/password-link", "")
                .refused(409, "account-closed");
        change(person("Ada Closewell"), Role.TECHNICIAN, false).expect(204);
        signedIn("Ada Closewell", PASSWORD).get("/api/sites").expect(200);
        first.get("/api/sites").expect(401);
        // Newest first: in again, wrong, told that it was closed, in twice before.
        assertThat(lead.get("/api/sign-ins")
                        .expect(200)
                        .json()
                        .valueStream()
                        .filter(l -> l.get("person").asString("").equals("Ada Closewell"))
                        .map(l -> l.get("what").asString()))
                .containsExactly("ENTERED", "REFUSED", "CLOSED", "ENTERED", "ENTERED");
    }

    @DisplayName("There is always a lead, also when two leads close each other's account at the same moment")
    @Test
    void theLastLeadStays() throws Exception {
        var me = person("lead");
        change(me, Role.TECHNICIAN, false).refused(409, "last-lead");
        change(me, Role.LEAD, true).refused(409, "last-lead");
        var bo = join("Bo Secondlead", Role.LEAD);
        var boApi = signedIn("Bo Secondlead", PASSWORD);
        boApi.ifMatch = "\"" + me.get("version").asInt() + "\"";
        lead.ifMatch = "\"" + bo.get("version").asInt() + "\"";
        List<Callable<Integer>> both = List.of(
                () -> boApi.send(
                                "PUT",
                                "/api/people/" + me.get("id").asLong(),
                                "{\"role\":\"OFFICE\",\"closed\":false,\"everySite\":true,\"sites\":[]}")
                        .status(),
                () -> lead.send(
                                "PUT",
                                "/api/people/" + bo.get("id").asLong(),
                                "{\"role\":\"OFFICE\",\"closed\":false,\"everySite\":true,\"sites\":[]}")
                        .status());
        var pool = Executors.newFixedThreadPool(2);
        try {
            var answers = new ArrayList<Integer>();
            for (var answer : pool.invokeAll(both)) answers.add(answer.get());
            assertThat(answers)
                    .as("one of them, or the second is no lead any more")
                    .containsOnlyOnce(204);
        } finally {
            pool.shutdown();
        }
        // Whoever is left sets it right again.
        Running.write("update person set role = 'LEAD', version = 1 where name = 'lead'");
        Running.write("update person set role = 'OFFICE' where name = 'Bo Secondlead'");
        assertThat(person("lead").get("role").asString()).isEqualTo("LEAD");
    }

    @DisplayName("A link sets a new password once, signs out whoever is in, and a newer one or a lead takes it back")
    @Test
    void passwordLink() {
        var cy = join("Cy Forgetful", Role.TECHNICIAN);
        String links = "/api/people/" + cy.get("id").asLong() + "/password-link";
        var old = signedIn("Cy Forgetful", PASSWORD);
        String first = token(lead.post(links, "").expect(201));
        String second = token(lead.post(links, "").expect(201));
        var door = Running.stranger();
        String body = "{'token':'%s','password':'%s'}";
        door.post("/api/password-links/acceptance", body, first, OTHER).refused(410, "invitation-gone");
        door.post("/api/password-links/acceptance", body, second, "short").refused(422, "password-length");
        door.post("/api/password-links/acceptance", body, second, "Cy Forgetful1")
                .refused(422, "password-common");
        // It is no invitation, and an invitation is no such link.
        door.post("/api/invitations/acceptance", "{'token':'%s','name':'Cy Two','password':'%s'}", second, OTHER)
                .refused(410, "invitation-gone");
        old.get("/api/sites").expect(200);
        door.post("/api/password-links/acceptance", body, second, OTHER).expect(204);
        door.post("/api/password-links/acceptance", body, second, OTHER).refused(410, "invitation-gone");
        old.get("/api/sites").refused(401, "session-ended");
        Running.stranger()
                .post("/api/session", "{'name':'Cy Forgetful','password':'%s'}", PASSWORD)
                .expect(401);
        signedIn("Cy Forgetful", OTHER);

        String third = token(lead.post(links, "").expect(201));
        var open = lead.get("/api/invitations")
                .expect(200)
                .json()
                .valueStream()
                .filter(i -> i.get("person").asString("").equals("Cy Forgetful"))
                .toList();
        assertThat(open)
                .singleElement()
                .satisfies(i -> assertThat(i.get("invitedBy").asString()).isEqualTo("lead"));
        String path = "/api/invitations/" + open.get(0).get("id").asLong();
        lead.send("DELETE", path, "").expect(204);
        lead.send("DELETE", path, "").expect(404);
        door.post("/api/password-links/acceptance", body, third, PASSWORD).refused(410, "invitation-gone");
    }

    @DisplayName("Whoever has the machine lets a lead in again, and nobody else")
    @Test
    void letIn() {
        join("Flo Lockedout", Role.LEAD);
        join("Gus Noleadwell", Role.TECHNICIAN);
        var machine = new LetIn(System.getenv("KNOT_DB_URL"), System.getenv("KNOT_DB_OWNER_PASSWORD"));
        assertThat(machine.run("Gus Noleadwell"))
                .startsWith("KNOT leads ")
                .contains("Flo Lockedout")
                .doesNotContain("Gus");
        assertThat(machine.run("")).startsWith("KNOT leads ");
        String said = machine.run(" flo  LOCKEDOUT ");
        assertThat(said).startsWith("KNOT link /password/");
        Running.stranger()
                .post(
                        "/api/password-links/acceptance",
                        "{'token':'%s','password':'%s'}",
                        said.replace("KNOT link /password/", ""),
                        OTHER)
                .expect(204);
        signedIn("Flo Lockedout", OTHER);
        assertThat(lead.get("/api/log/check").expect(200).json().get("whole").asBoolean())
                .isTrue();
        change(person("Flo Lockedout"), Role.OFFICE, true).expect(204);
    }

    private static String token(Api.Answer answer) {
        return answer.json().get("path").asString().replace("/password/", "");
    }

    @DisplayName(
            "One's own password asks for the old one and signs out every other machine; sign-ins are ended one by one too")
    @Test
    void ownSignIn() {
        join("Di Ownwell", Role.OFFICE);
        var here = signedIn("Di Ownwell", PASSWORD);
        var there = signedIn("Di Ownwell", PASSWORD);
        var shop = signedIn("Di Ownwell", PASSWORD);
        var all = here.get("/api/me/sessions").expect(200).json();
        assertThat(all)
                .hasSize(3)
                .allSatisfy(s -> assertThat(s.get("from").asString()).isEqualTo("127.0.0.1"));
        assertThat(all.valueStream().filter(s -> s.get("here").asBoolean())).hasSize(1);
        String key = shop.get("/api/me/sessions")
                .expect(200)
                .json()
                .valueStream()
                .filter(s -> s.get("here").asBoolean())
                .findFirst()
                .orElseThrow()
                .get("key")
                .asString();
        Running.as(Role.OFFICE).send("DELETE", "/api/me/sessions/" + key, "").expect(404);
        here.send("DELETE", "/api/me/sessions/" + key, "").expect(204);
        shop.get("/api/sites").expect(401);
        there.get("/api/sites").expect(200);

        String body = "{'current':'%s','password':'%s'}";
        here.post("/api/me/password", body, "not this one", OTHER).refused(422, "wrong-password");
        here.post("/api/me/password", body, PASSWORD, "di ownwell").refused(422, "password-common");
        here.post("/api/me/password", body, PASSWORD, OTHER).expect(204);
        here.get("/api/sites").expect(200);
        there.get("/api/sites").expect(401);
        signedIn("Di Ownwell", OTHER);
        lead.send("DELETE", "/api/people/" + person("Di Ownwell").get("id").asLong() + "/sessions", "")
                .expect(204);
        here.get("/api/sites").expect(401);
        assertThat(person("Di Ownwell").get("signedIn").asInt()).isZero();
    }

    @DisplayName("Only leads see and change people")
    @ParameterizedTest(name = "{0} {1} {2}: {3}")
    @CsvSource({
        "TECHNICIAN, GET, /api/people, 403",
        "TECHNICIAN, GET, /api/sign-ins, 403",
        "TECHNICIAN, GET, /api/invitations, 403",
        "TECHNICIAN, PUT, /api/people/1, 403",
        "TECHNICIAN, DELETE, /api/people/1/sessions, 403",
        "OFFICE, POST, /api/people/1/password-link, 403",
        "OFFICE, DELETE, /api/invitations/1, 403",
        "OFFICE, GET, /api/me/sessions, 200",
        "LEAD, PUT, /api/people/1, 422",
        "LEAD, PUT, /api/people/999999, 428",
        "LEAD, POST, /api/people/999999/password-link, 404",
        "LEAD, DELETE, /api/people/999999/sessions, 404",
    })
    void whoMay(Role role, String method, String path, int status) {
        Running.as(role)
                .send(
                        method,
                        path,
                        path.endsWith("999999")
                                ? "{\"role\":\"LEAD\",\"closed\":false,\"everySite\":true,\"sites\":[]}"
                                : "{}")
                .expect(status);
    }
}
