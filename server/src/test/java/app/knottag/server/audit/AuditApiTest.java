package app.knottag.server.audit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.Mockito.when;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.hardware.Mac;
import app.knottag.core.reach.Whois;
import app.knottag.server.Api;
import app.knottag.server.Running;
import app.knottag.server.account.Role;
import java.nio.charset.StandardCharsets;
import java.sql.SQLException;
import java.util.List;
import java.util.Set;
import java.util.stream.StreamSupport;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** What is really there, out of pasted tables and sweeps, and what people say of the rest. */
class AuditApiTest {

    private final Api api = Running.as(Role.TECHNICIAN);
    private long[] site;
    private final long[] tills = new long[3];
    private String path;

    @BeforeEach
    void threeTills() {
        Running.network("10.7.0.51", "00:00:5E:00:53:01", "x");
        site = Running.site(Running.as(Role.LEAD));
        for (int n = 1; n <= 3; n++) tills[n - 1] = Running.till(Running.as(Role.LEAD), site, n);
        path = "/api/sites/" + site[0];
    }

    private void paste(String source, String text) {
        api.sendBytes(
                        "POST",
                        path + "/intakes?source=" + source + "&preview=false&make=false",
                        "text/plain",
                        text.getBytes(StandardCharsets.UTF_8))
                .expect(200);
    }

    private JsonNode audit() {
        return api.get(path + "/audit").expect(200).json();
    }

    private List<String> found() {
        return StreamSupport.stream(audit().get("findings").spliterator(), false)
                .map(f -> f.get("name").asString() + " " + f.get("standing").asString())
                .toList();
    }

    @DisplayName("Before anybody looked nothing is said; then what differs stands there, the worst first")
    @Test
    void fromATable() throws SQLException {
        assertThat(audit().get("lookedAt").isNull()).isTrue();
        assertThat(audit().get("unseen").asInt()).isEqualTo(3);
        assertThat(found()).isEmpty();
        paste("NEIGHBOURS", """
                10.7.0.51 00:00:5e:00:53:01
                10.7.0.51 00:00:5e:00:53:e1
                10.7.0.120 00:00:5e:00:53:02
                10.7.0.200 00:00:5e:00:53:e2
                10.7.0.130 00:00:5e:00:53:e3
                10.7.0.31 00:00:5e:00:53:e4
                """);
        assertThat(found())
                .containsExactly(
                        "Till 1 DUPLICATE",
                        "Till 2 AUTOMATIC",
                        "00:00:5E:00:53:E1 STRANGER",
                        "00:00:5E:00:53:E2 STRANGER",
                        "00:00:5E:00:53:E3 GUEST");
        assertThat(audit().get("drifted").asInt()).isEqualTo(4);
        // It stayed there for two looks, and was somewhere else before.
        Running.write("delete from stay where site_id = " + site[0] + " and address in ('10.7.0.52', '10.7.0.120')");
        Running.write("""
                insert into stay (site_id, address, mac, source, first_seen, last_seen, looks, by)
                select %d, address::inet, '00:00:5e:00:53:02', 'NEIGHBOURS', now() - first * interval '1 day',
                  now() - last * interval '1 day', 4, 'x'
                from (values ('10.7.0.52', 19, 9), ('10.7.0.120', 2, 2)) t (address, first, last)""".formatted(site[0]));
        paste("NEIGHBOURS", "10.7.0.120 00:00:5e:00:53:02");
        var till2 = audit().get("findings").get(1);
        assertThat(till2.at("/stays/0/at").asString()).isEqualTo("10.7.0.120");
        assertThat(java.time.Duration.between(
                                java.time.Instant.parse(
                                        till2.at("/stays/0/since").asString()),
                                java.time.Instant.now())
                        .toHours())
                .isEqualTo(48);
    }

    @DisplayName("A check that heard its own MAC has seen it")
    @Test
    void fromACheck() {
        Running.network("10.7.0.52", "00:00:5E:00:53:02", "x");
        api.post("/api/endpoints/" + tills[1] + "/check-runs", "").expect(201);
        assertThat(audit().get("right").asInt()).isEqualTo(1);
        assertThat(audit().get("unseen").asInt()).isEqualTo(2);
        assertThat(audit().get("lookedAt").isNull()).isFalse();
    }

    @DisplayName("A word about a stranger holds as long as it stays, and is refused for what is on record")
    @Test
    void saysWhatItIs() {
        paste("NEIGHBOURS", "10.7.0.200 00:00:5e:00:53:e2\n10.7.0.51 00:00:5e:00:53:01");
        String mac = path + "/known-macs/00:00:5E:00:53:E2";
        Running.as(Role.OFFICE)
                .put(mac, "{'at':'10.7.0.200','what':'The weather station'}")
                .refused(403, "not-allowed");
        api.put(mac, "{'at':'10.7.0.200','what':' '}").refused(422, "bad-words");
        api.put(mac, "{'at':'10.7.0.999','what':'The weather station'}").refused(422, "bad-value");
        api.put(path + "/known-macs/none", "{'at':'10.7.0.200','what':'It'}").refused(422, "bad-value");
        api.put(path + "/known-macs/00:00:5E:00:53:01", "{'at':'10.7.0.51','what':'Mine'}")
                .refused(409, "on-record");
        api.put(mac, "{'at':'10.7.0.200','what':'The weather station'}").expect(200);
        assertThat(found()).contains("The weather station KNOWN").doesNotContain("00:00:5E:00:53:E2 STRANGER");
        paste("NEIGHBOURS", "10.7.0.201 00:00:5e:00:53:e2");
        assertThat(found()).contains("00:00:5E:00:53:E2 STRANGER");
        api.delete(mac).expect(200);
        api.delete(mac).refused(404, "not-found");
        assertThat(api.get(path + "/logbook?q=weather").json()).hasSize(1);
    }

    @DisplayName("Whoever asked everybody is believed before a lease list")
    @Test
    void aSweepKnowsBetterThanALease() throws InterruptedException {
        paste("LEASES", "10.7.0.120 00:00:5e:00:53:02");
        assertThat(found()).contains("Till 2 AUTOMATIC");
        String sweep = "/api/segments/" + site[1] + "/sweep";
        api.post(sweep, "{}").expect(202);
        for (int i = 0;
                i < 100 && !api.get(sweep).json().at("/sweep/state").asString().equals("DONE");
                i++) Thread.sleep(50);
        assertThat(found()).contains("Till 2 SILENT", "Till 3 SILENT");
        assertThat(audit().get("right").asInt()).isEqualTo(1);
    }

    /** It answered at its own address until ten days ago, and since a while elsewhere. */
    private void left(int till, String elsewhere) throws SQLException {
        String mac = "00:00:5e:00:53:0" + till;
        Running.write("delete from stay where site_id = %d and mac = '%s'".formatted(site[0], mac));
        Running.write("""
                insert into stay (site_id, address, mac, source, first_seen, last_seen, looks, by)
                select %d, address::inet, '%s', 'NEIGHBOURS', now() - first * interval '1 day',
                  now() - last * interval '1 day', 4, 'x'
                from (values ('10.7.0.5%d', 19, 10), ('%s', 9, 0)) t (address, first, last)""".formatted(site[0], mac, till, elsewhere));
    }

    @DisplayName("Whoever is away from its address is told of with the ways back, and its steps open again")
    @Test
    void theWayBack() throws SQLException {
        left(2, "10.7.0.120");
        left(3, "10.7.0.77");
        var reset = api.get("/api/endpoints/" + tills[1] + "/way-back").expect(200);
        assertThat(reset.json().get("words").asString()).isEqualTo("It was reset, or set to automatic");
        assertThat(reset.json().at("/back/says").asString())
                .contains("Within a day of it another left theirs: Till 3.");
        assertThat(reset.json().at("/back/ways/0/act").asString()).isEqualTo("REDO_RESET");
        assertThat(reset.json().at("/back/ways/1/before").asString())
                .contains("It is not set up yet: who has its address already");
        var typed = api.get("/api/endpoints/" + tills[2] + "/way-back").expect(200);
        assertThat(typed.json().at("/back/how").asString()).isEqualTo("RETYPED");
        api.get("/api/endpoints/" + tills[0] + "/way-back").refused(409, "not-away");
        api.get("/api/endpoints/999999/way-back").refused(404, "not-found");
        String again = "/api/endpoints/" + tills[2] + "/runbook/address-again";
        api.post(again, "{'why':'Seen at .77'}").refused(428, "if-match-missing");
        var office = Running.as(Role.OFFICE);
        api.ifMatch = typed.response().headers().firstValue("ETag").orElseThrow();
        office.ifMatch = api.ifMatch;
        api.post(again, "{'why':' '}").refused(422, "bad-words");
        office.post(again, "{'why':'Seen at .77'}").refused(403, "not-allowed");
        api.post(again, "{'why':'Seen at .77'}").expect(200);
        api.post(again, "{'why':'Seen at .77'}").refused(412, "changed-meanwhile");
        assertThat(api.get(path + "/logbook?q=Seen").json()).hasSize(1);
    }

    @DisplayName("Two had an address; when one is unplugged, a check that hears nobody else settles it at once")
    @Test
    void aCheckSettlesADouble() {
        paste("NEIGHBOURS", "10.7.0.51 00:00:5e:00:53:01\n10.7.0.51 00:00:5e:00:53:e1");
        assertThat(found()).contains("Till 1 DUPLICATE", "00:00:5E:00:53:E1 STRANGER");
        // A table keeps one of two, so it says nothing of the other.
        when(Running.PROBES.whois(Ipv4Address.parse("10.7.0.51")))
                .thenReturn(new Whois(Set.of(Mac.parse("00:00:5E:00:53:01")), Whois.How.TABLE));
        api.post("/api/endpoints/" + tills[0] + "/check-runs", "").expect(201);
        assertThat(found()).contains("Till 1 DUPLICATE");
        Running.network("10.7.0.51", "00:00:5E:00:53:01", "x");
        api.post("/api/endpoints/" + tills[0] + "/check-runs", "").expect(201);
        assertThat(found()).containsExactly("00:00:5E:00:53:E1 STRANGER");
    }
}
