package app.knottag.server.account;

import static org.assertj.core.api.Assertions.assertThat;

import app.knottag.server.Api;
import app.knottag.server.Running;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class SessionApiTest {

    private static Api stranger() {
        var api = new Api(Running.url());
        api.get("/api/welcome").expect(200);
        return api;
    }

    @Test
    void signsInAndOut() {
        var api = Running.as(Role.TECHNICIAN);
        assertThat(api.get("/api/session").expect(200).json().get("role").asString())
                .isEqualTo("TECHNICIAN");
        api.send("DELETE", "/api/session", "").expect(204);
        api.get("/api/sites").expect(401);
        assertThat(api.get("/api/sites").response().headers().firstValue("WWW-Authenticate"))
                .isEmpty();
    }

    @Test
    void aNewSessionIdComesWithTheSignIn() {
        var api = stranger();
        String before = api.post("/api/session", "{'name':'nobody','password':'x'}")
                .response()
                .headers()
                .allValues("Set-Cookie")
                .toString();
        var cookie = api
                .post("/api/session", "{'name':'office','password':'%s'}", Running.PASSWORD)
                .expect(200)
                .response()
                .headers()
                .allValues("Set-Cookie")
                .stream()
                .filter(c -> c.startsWith("KNOTSESSION="))
                .findFirst()
                .orElseThrow();
        assertThat(cookie).contains("HttpOnly").contains("SameSite=Strict");
        assertThat(before).doesNotContain(cookie.substring(0, 30));
    }

    @Test
    void nothingIsChangedWithoutTheCsrfToken() {
        var api = stranger();
        api.sendToken = false;
        api.post("/api/session", "{'name':'lead','password':'%s'}", Running.PASSWORD)
                .refused(403, "not-allowed");
        var lead = Running.as(Role.LEAD);
        lead.sendToken = false;
        lead.post("/api/sites", "{'name':'No','code':'NO','zone':'UTC'}").refused(403, "not-allowed");
    }

    @DisplayName("Each role may do its own work and no more")
    @ParameterizedTest(name = "{0} {1} {2}: {3}")
    @CsvSource(
            delimiter = '|',
            value = {
                "OFFICE     | POST | /api/sites              | 403",
                "OFFICE     | POST | /api/sites/1/endpoints  | 403",
                "OFFICE     | POST | /api/invitations        | 403",
                "OFFICE     | GET  | /api/sites              | 200",
                "OFFICE     | POST | /api/mac/read           | 200",
                "TECHNICIAN | POST | /api/sites              | 403",
                "TECHNICIAN | POST | /api/invitations        | 403",
                "TECHNICIAN | PUT  | /api/sites/1/dates      | 403",
                "LEAD       | POST | /api/sites              | 422",
                "LEAD       | GET  | /api/bench-panel        | 404",
            })
    void roles(Role role, String method, String path, int status) {
        Running.as(role)
                .send(
                        method,
                        path,
                        path.endsWith("sites") ? "{\"name\":\"x\",\"code\":\"no\",\"zone\":\"Mars\"}" : "{}")
                .expect(status);
    }

    @Test
    void tooManyWrongTriesAreStoppedForAWhile() {
        var api = stranger();
        for (int i = 0; i < 5; i++)
            api.post("/api/session", "{'name':'guessed','password':'wrong %d'}", i)
                    .refused(401, "wrong-name-or-password");
        var stopped = api.post("/api/session", "{'name':'Guessed','password':'wrong again'}")
                .refused(429, "too-many-tries");
        assertThat(stopped.response().headers().firstValue("Retry-After")).hasValue("2");
        Running.as(Role.OFFICE).get("/api/session").expect(200);
    }

    @Test
    void anInvitationIsGoodOnce() {
        String token = Running.as(Role.LEAD)
                .post("/api/invitations", "{'role':'TECHNICIAN'}")
                .expect(201)
                .json()
                .get("path")
                .asString()
                .replace("/join/", "");
        var guest = stranger();
        guest.post("/api/invitations/acceptance", "{'token':'%s','name':'Noor Vance','password':'short'}", token)
                .refused(422, "password-length");
        guest.post("/api/invitations/acceptance", "{'token':'%s','name':'LEAD','password':'long enough 42'}", token)
                .refused(422, "name-taken");
        guest.post(
                        "/api/invitations/acceptance",
                        "{'token':'%s','name':'Noor Vance','password':'long enough 42'}",
                        token)
                .expect(204);
        guest.post("/api/invitations/acceptance", "{'token':'%s','name':'Noor Two','password':'long enough 42'}", token)
                .refused(410, "invitation-gone");
        guest.post("/api/session", "{'name':'noor vance','password':'long enough 42'}")
                .expect(200);
    }

    @Test
    void headersAreStrict() {
        var headers = stranger().get("/api/welcome").response().headers();
        assertThat(headers.firstValue("Content-Security-Policy"))
                .hasValueSatisfying(p -> assertThat(p)
                        .contains("default-src 'none'")
                        .contains("script-src 'self'")
                        .doesNotContain("unsafe"));
        assertThat(headers.firstValue("X-Content-Type-Options")).hasValue("nosniff");
        assertThat(headers.firstValue("X-Frame-Options")).hasValue("DENY");
        assertThat(headers.firstValue("Referrer-Policy")).hasValue("no-referrer");
    }
}
