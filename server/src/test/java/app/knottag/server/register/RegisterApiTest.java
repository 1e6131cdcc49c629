package app.knottag.server.register;

import static org.assertj.core.api.Assertions.assertThat;

import app.knottag.server.Api;
import app.knottag.server.Running;
import app.knottag.server.account.Role;
import org.junit.jupiter.api.Test;

class RegisterApiTest {

    private final Api api = Running.as(Role.LEAD);

    private Api.Answer bring(long site, boolean preview, String csv) {
        api.contentType = "text/csv";
        var answer = api.send("POST", "/api/sites/" + site + "/import?preview=" + preview, csv);
        api.contentType = "application/json";
        return answer;
    }

    private String csv(long site) {
        return api.get("/api/sites/" + site + "/register.csv").expect(200).body();
    }

    @Test
    void whatIsTakenOutCanBeBroughtIntoAnEmptySite() {
        long[] from = Running.site(api);
        Running.till(api, from, 1);
        Running.till(api, from, 4);
        long empty = api.post(
                        "/api/sites",
                        "{'name':'Empty %d','code':'E%s','zone':'UTC'}",
                        from[0],
                        (char) ('A' + from[0] % 26) + "Q")
                .expect(201)
                .json()
                .get("id")
                .asLong();
        var preview = bring(empty, true, csv(from[0])).expect(200).json();
        assertThat(preview.get("endpoints").asInt()).isEqualTo(2);
        assertThat(preview.get("segments").get(0).asString()).isEqualTo("10.7.0.0/24");
        assertThat(api.get("/api/sites/" + empty + "/endpoints").json()).isEmpty();
        bring(empty, false, csv(from[0])).expect(200);
        assertThat(csv(empty)).isEqualTo(csv(from[0]));
        var json = api.get("/api/sites/" + empty + "/register.json").expect(200).json();
        assertThat(json.get("format").asString()).isEqualTo("knot-tag-register/1");
        assertThat(json.get("endpoints").get(1).get("mac").asString()).isEqualTo("00:00:5E:00:53:04");
        assertThat(bring(empty, false, csv(from[0])).expect(200).json().get("problems"))
                .isNotEmpty();
        assertThat(api.get("/api/sites/" + empty + "/endpoints").json()).hasSize(2);
    }

    @Test
    void oneFaultyLineAndNothingIsTaken() {
        long[] site = Running.site(api);
        Running.till(api, site, 1);
        String lines = """
                name,kind,prefix,address,mac
                Good,time-clock,10.7.0.0/24,10.7.0.20,
                Clash,time-clock,10.7.0.0/24,10.7.0.51,00:00:5E:00:53:01
                Across,time-clock,10.7.0.0/25,10.7.0.22,
                """;
        var report = bring(site[0], false, lines).expect(200).json();
        assertThat(report.get("problems")
                        .valueStream()
                        .map(p -> p.get("line").asInt() + " " + p.get("column").asString() + ": "
                                + p.get("message").asString()))
                .containsExactly(
                        "4 prefix: 10.7.0.0/25 overlaps 10.7.0.0/24 of line 2. Which of the two is the segment?");
        report = bring(site[0], false, lines.replace("/25", "/24")).expect(200).json();
        assertThat(report.get("problems")
                        .valueStream()
                        .map(p -> p.get("line").asInt() + " " + p.get("column").asString() + ": "
                                + p.get("message").asString()))
                .containsExactly(
                        "3 address: Till 1 of this site has it already.", "3 mac: Till 1 of this site has it already.");
        assertThat(api.get("/api/sites/" + site[0] + "/endpoints").json()).hasSize(1);
        bring(site[0], true, "x".repeat(4_000_001)).refused(413, "file-too-large");
    }
}
