package app.knottag.server.verify;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.Mockito.when;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.hardware.Mac;
import app.knottag.core.reach.Here;
import app.knottag.core.reach.Swept;
import app.knottag.server.Api;
import app.knottag.server.Running;
import app.knottag.server.account.Role;
import java.sql.SQLException;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.JsonNode;

/** Sweeps of a segment: progress, stop, a server that was cut off; and the list of services that may be asked. */
class SweepApiTest {

    private final Api api = Running.as(Role.LEAD);
    private long[] site;
    private String path;

    @BeforeEach
    void aSegment() {
        site = Running.site(api);
        Running.till(api, site, 1);
        path = "/api/segments/" + site[1] + "/sweep";
        Running.network("10.7.0.51", "00:00:5E:00:53:01", "");
    }

    private JsonNode ended() throws InterruptedException {
        for (int n = 0; n < 200; n++) {
            var sweep = api.get(path).expect(200).json().get("sweep");
            if (!sweep.get("state").asString().equals("RUNNING")) return sweep;
            Thread.sleep(50);
        }
        throw new AssertionError("the sweep never ends");
    }

    @Test
    void everyAddressIsAskedAndComparedWithThePlan() throws InterruptedException {
        assertThat(api.get(path).expect(200).json().get("sweep").isNull()).isTrue();
        when(Running.PROBES.sweep(any(), any())).thenAnswer(c -> {
            List<Ipv4Address> hosts = c.getArgument(0);
            c.<Swept.Listener>getArgument(1).asked(hosts.size());
            return new Swept(
                    Map.of(hosts.get(50), Set.of(Mac.parse("00:00:5E:00:53:01")), hosts.get(76), Set.of()),
                    Set.of(Mac.parse("00:00:5E:00:53:77")),
                    "by the question for its MAC");
        });
        api.post(path, "").expect(202);
        var sweep = ended();
        assertThat(sweep.get("state").asString() + " " + sweep.get("asked").asInt())
                .isEqualTo("DONE 254");
        assertThat(sweep.get("vantage").asString())
                .isEqualTo(
                        "this machine, 10.7.0.250, by the question for its MAC; 00:00:5E:00:53:77 answers over IPv6 only");
        assertThat(sweep.get("lines").toString())
                .contains("\"address\":\"10.7.0.77\",\"verdict\":\"STRANGER\"")
                .contains("There, with its own MAC.")
                .contains("\"name\":\"Till 1 workstation\"");
    }

    @Test
    void itIsStoppedInTheMiddleAndNobodyIsCalledSilentWhoWasNotAsked() throws InterruptedException {
        var begun = new CountDownLatch(1);
        var go = new CountDownLatch(1);
        when(Running.PROBES.sweep(any(), any())).thenAnswer(c -> {
            var listener = c.<Swept.Listener>getArgument(1);
            listener.asked(20);
            begun.countDown();
            go.await(5, TimeUnit.SECONDS);
            assertThat(listener.stop()).isTrue();
            return new Swept(Map.of(), Set.of(), "");
        });
        api.post(path, "").expect(202);
        assertThat(begun.await(5, TimeUnit.SECONDS)).isTrue();
        api.post(path, "").refused(409, "sweep-running");
        api.delete(path).expect(200);
        go.countDown();
        var sweep = ended();
        assertThat(sweep.get("state").asString()).isEqualTo("CANCELLED");
        assertThat(sweep.get("lines").toString()).doesNotContain("SILENT");
        Running.as(Role.OFFICE).post(path, "").expect(403);
    }

    @Test
    void aProbeThatBreaksLeavesASweepThatIsCutOffAndNotOneThatRunsForEver() throws InterruptedException {
        when(Running.PROBES.sweep(any(), any())).thenThrow(new IllegalStateException("the network is gone"));
        api.post(path, "").expect(202);
        assertThat(ended().get("state").asString()).isEqualTo("CUT_OFF");
    }

    @DisplayName("Her own link goes in the middle: nobody is called silent, and it says why")
    @Test
    void herOwnLinkGoes() throws InterruptedException {
        var here = Running.PROBES.here();
        when(Running.PROBES.here()).thenReturn(here, here, new Here(List.of()));
        when(Running.PROBES.sweep(any(), any())).thenReturn(new Swept(Map.of(), Set.of(), ""));
        api.post(path, "").expect(202);
        var sweep = ended();
        assertThat(sweep.get("state").asString()).isEqualTo("CUT_OFF");
        assertThat(sweep.get("lines")).isEmpty();
        assertThat(sweep.get("vantage").asString()).endsWith("so nothing is said of anybody");
    }

    @Test
    void aRestartOfTheServerEndsWhatRan() throws SQLException {
        try (var db = Running.database("knot_app");
                var insert = db.createStatement()) {
            insert.executeUpdate(
                    "insert into sweep (segment_id, state, started_at, by, asked, total, vantage, results) values ("
                            + site[1] + ", 'RUNNING', now(), 'lead', 64, 254, 'this machine', '[]')");
        }
        Running.readyAgain();
        var sweep = api.get(path).expect(200).json().get("sweep");
        assertThat(sweep.get("state").asString() + " " + sweep.get("asked").asInt())
                .isEqualTo("CUT_OFF 64");
    }

    @DisplayName("Only the site's own ground, or a public name, can be put on the list")
    @ParameterizedTest(name = "{0} {1} port {2}: {3}")
    @CsvSource(
            nullValues = "-",
            value = {
                "SMTP, 10.7.0.9, 587, -",
                "SMTP, mail.shop.example, 587, -",
                "HTTP, 192.168.1.1, 80, foreign-ground",
                "HTTP, 127.0.0.1, 8080, foreign-ground",
                "HTTP, 169.254.169.254, 80, foreign-ground",
                "HTTP, localhost, 80, bad-host",
                "HTTP, 10.7.0.999, 80, bad-host",
                "HTTP, http://shop.example/, 80, bad-host",
                "HTTP, shop.example, 0, bad-port",
                "LINE, shop.example, 80, bad-protocol",
            })
    void services(String protocol, String host, int port, String refused) {
        String body = "{'name':'One','protocol':'%s','host':'%s','port':%d}".formatted(protocol, host, port);
        var answer = api.seenSite(site[0]).put("/api/sites/" + site[0] + "/services/0", body);
        if (refused != null) {
            answer.refused(422, refused);
            return;
        }
        long id = answer.expect(200).json().get("id").asLong();
        var tried = api.post("/api/sites/" + site[0] + "/services/" + id + "/try", "")
                .expect(200)
                .json();
        assertThat(tried.get("vantage").asString()).isEqualTo("this machine, 10.7.0.250");
        assertThat(tried.get("seen").asString()).isNotBlank();
        api.seenSite(site[0]).put("/api/sites/" + site[0] + "/services/0", body).refused(409, "name-taken");
        api.seenSite(site[0])
                .put("/api/sites/" + site[0] + "/services/" + id, body.replace("}", ",'kinds':['copier','no-kind']}"))
                .refused(422, "no-such-kind");
        api.seenSite(site[0])
                .put("/api/sites/" + site[0] + "/services/" + id, body.replace("}", ",'kinds':['copier']}"))
                .expect(200);
        assertThat(api.get("/api/sites/" + site[0] + "/sheet")
                        .json()
                        .get("services")
                        .toString())
                .contains("\"kinds\":\"copier\"");
        api.post("/api/sites/" + site[0] + "/services/999999/try", "").expect(404);
        api.seenSite(site[0])
                .delete("/api/sites/" + site[0] + "/things/SERVICES/" + id)
                .expect(204);
    }
}
