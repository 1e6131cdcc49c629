package app.knottag.server.audit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.Mockito.reset;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.verifyNoInteractions;
import static org.mockito.Mockito.when;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.gear.GearAccess;
import app.knottag.core.gear.GearColumn;
import app.knottag.core.gear.GearProbe.GearSilent;
import app.knottag.core.gear.Walked;
import app.knottag.core.gear.Walked.Cell;
import app.knottag.core.reach.Whois;
import app.knottag.server.Api;
import app.knottag.server.Running;
import app.knottag.server.account.Role;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.sql.SQLException;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CountDownLatch;
import java.util.stream.LongStream;
import java.util.stream.StreamSupport;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.mockito.ArgumentCaptor;
import tools.jackson.databind.JsonNode;

/** A switch is read, what it tells is kept, and where somebody hangs is found and not asked. */
class GearApiTest {

    private static final String ACCESS =
            "{'address':'%s','version':'V2C','name':'words of the shop','auth':'NONE','authKey':'','privacy':'NONE','privacyKey':''}";

    private final Api api = Running.as(Role.TECHNICIAN);
    private long[] site;
    private long gear;
    private String path;
    private long[] tills;

    @BeforeEach
    void aSwitchWithTwoTills() throws SQLException {
        reset(Running.GEAR);
        Running.network("10.7.0.51", "00:00:5E:00:53:01", "x");
        var lead = Running.as(Role.LEAD);
        site = Running.site(lead);
        path = "/api/sites/" + site[0];
        tills = new long[] {Running.till(lead, site, 1), Running.till(lead, site, 2)};
        gear = lead.seenSite(site[0])
                .put(
                        path + "/gear/0",
                        "{'name':'Shop switch','type':'SWITCH','ports':[{'number':1,'role':'LAN','poe':false},"
                                + "{'number':2,'role':'LAN','poe':false},{'number':3,'role':'LAN','poe':false},"
                                + "{'number':4,'role':'UPLINK','poe':false}]}")
                .expect(200)
                .json()
                .get("id")
                .asLong();
        for (int n = 1; n <= 2; n++)
            Running.write("update endpoint set port_id = (select id from port where gear_id = " + gear
                    + " and number = " + n + ") where id = " + tills[n - 1]);
    }

    /** Four ports of one bridge; a MAC 00:00:5E:00:53:nn at each port that is named, and neighbours at 10.7.0.nn. */
    private static Walked told(Map<Integer, Long> at, long... neighbours) {
        var columns = new EnumMap<GearColumn, List<Cell>>(GearColumn.class);
        columns.put(GearColumn.NAME, List.of(Cell.of(List.of(0L), "sw1".getBytes(StandardCharsets.UTF_8))));
        for (long i = 1; i <= 4; i++) {
            add(columns, GearColumn.DESCRIPTION, Cell.of(List.of(i), ("port " + i).getBytes(StandardCharsets.UTF_8)));
            add(columns, GearColumn.TYPE, Cell.of(List.of(i), 6));
            add(columns, GearColumn.LINK, Cell.of(List.of(i), 1));
        }
        at.forEach((nn, port) ->
                add(columns, GearColumn.FORWARDING, Cell.of(List.of(0L, 0L, 94L, 0L, 83L, (long) nn), port)));
        LongStream.of(neighbours)
                .forEach(nn ->
                        add(columns, GearColumn.OLD_NEIGHBOUR, Cell.of(List.of(1L, 10L, 7L, 0L, 50 + nn), new byte[] {
                            0, 0, 94, 0, 83, (byte) nn
                        })));
        return new Walked(columns, EnumSet.noneOf(GearColumn.class));
    }

    private static void add(Map<GearColumn, List<Cell>> columns, GearColumn column, Cell cell) {
        columns.computeIfAbsent(column, c -> new ArrayList<>()).add(cell);
    }

    private Api.Answer read(String address) {
        return api.post("/api/gear/" + gear + "/reading", ACCESS.formatted(address));
    }

    private JsonNode switchNow() {
        return StreamSupport.stream(
                        api.get(path + "/gear-readings").expect(200).json().spliterator(), false)
                .filter(g -> g.get("name").asString().equals("Shop switch"))
                .findFirst()
                .orElseThrow();
    }

    private List<String> remarks() {
        return StreamSupport.stream(switchNow().at("/reads/0/ports").spliterator(), false)
                .flatMap(p -> StreamSupport.stream(p.get("remarks").spliterator(), false)
                        .map(r ->
                                p.get("label").asString() + ": " + r.get("says").asString()))
                .toList();
    }

    private String whoAnswers() {
        return StreamSupport.stream(
                        api.post("/api/endpoints/" + tills[0] + "/check-runs", "")
                                .expect(201)
                                .json()
                                .get("checks")
                                .spliterator(),
                        false)
                .filter(c -> c.get("check").asString().equals("WHO_ANSWERS"))
                .map(c -> c.get("status").asString() + " " + c.get("note").asString())
                .findFirst()
                .orElseThrow();
    }

    @DisplayName("From behind a router the MAC of a device is proved by the table of the gear that was read just now")
    @Test
    void aMacBehindARouter() throws SQLException {
        when(Running.PROBES.whois(any())).thenReturn(Whois.NOT_FROM_HERE);
        assertThat(whoAnswers()).startsWith("SKIPPED No MAC is seen");
        when(Running.GEAR.walk(any(), any())).thenReturn(told(Map.of(), 1));
        read("10.7.0.2").expect(200);
        assertThat(whoAnswers())
                .as("a switch sends nothing there by its own table")
                .startsWith("SKIPPED No MAC");
        Running.write("update gear set type = 'ROUTER' where id = " + gear);
        assertThat(whoAnswers())
                .as("it holds, while eyes have not looked at the checks above it yet")
                .isEqualTo("ACTIVE 00:00:5E:00:53:01, as on the tag, by the table of Shop switch, read just now.");
        Running.write("update gear_reading set at = at - interval '11 minutes' where gear_id = " + gear);
        assertThat(whoAnswers()).startsWith("SKIPPED No MAC is seen");
    }

    @DisplayName("What it tells is held against the record, is evidence for the audit, and says where a stranger hangs")
    @Test
    void told() throws SQLException {
        assertThat(switchNow().get("reads")).isEmpty();
        when(Running.GEAR.walk(any(), any())).thenReturn(told(Map.of(1, 1L, 2, 3L, 0xE2, 2L), 1, 2, 150));
        read("10.7.0.2").expect(200);
        assertThat(remarks()).containsExactly("Shop switch 2: Till 2 is on record here, and hangs at Shop switch 3.");
        var now = switchNow();
        assertThat(now.get("address").asString()).isEqualTo("10.7.0.2");
        assertThat(now.at("/reads/0/wrong").asInt()).isEqualTo(1);
        assertThat(now.at("/reads/0/ports/0/right").asBoolean()).isTrue();
        assertThat(now.at("/reads/0/ports/1/hung/0/name").asString()).isEqualTo("00:00:5E:00:53:E2");
        assertThat(api.get(path + "/logbook?q=shop%20switch").expect(200).json().toString())
                .contains("read Shop switch");
        var audit = api.get(path + "/audit").expect(200).json();
        assertThat(audit.get("right").asInt()).isEqualTo(2);
        api.sendBytes(
                        "POST",
                        path + "/intakes?source=NEIGHBOURS&preview=false&make=false",
                        "text/plain",
                        "10.7.0.200 00:00:5e:00:53:e2".getBytes(StandardCharsets.UTF_8))
                .expect(200);
        var strangers = api.get(path + "/audit").expect(200).json().get("findings");
        assertThat(StreamSupport.stream(strangers.spliterator(), false)
                        .map(f ->
                                f.get("mac").asString() + " at " + f.get("port").asString()))
                .contains("00:00:5E:00:53:E2 at Shop switch 2");
        assertThat(strangers.toString()).contains("Find it at Shop switch 2. Take it in");
        // The record is what changes: the same reading then says that all is well.
        Running.write("update endpoint set port_id = (select id from port where gear_id = " + gear
                + " and number = 3) where name = 'Till 2' and site_id = " + site[0]);
        assertThat(remarks()).isEmpty();
    }

    @DisplayName(
            "Who stays where she is has one stay, who is put elsewhere another, and who is seen through the uplink none")
    @Test
    void stays() throws SQLException {
        for (var at : List.of(Map.of(1, 1L, 2, 2L, 7, 4L), Map.of(1, 1L, 2, 3L), Map.of(1, 1L))) {
            when(Running.GEAR.walk(any(), any())).thenReturn(told(at));
            read("10.7.0.2").expect(200);
        }
        assertThat(hung("00:00:5e:00:53:02"))
                .containsExactlyInAnyOrder("Till 2 at Shop switch 2", "Till 2 at Shop switch 3");
        assertThat(hung("00:00:5e:00:53:01")).containsExactly("Till 1 at Shop switch 1");
        assertThat(hung("00:00:5e:00:53:07")).isEmpty();
        assertThat(hung("shop SWITCH 3")).containsExactly("Till 2 at Shop switch 3");
        assertThat(past("Shop switch 3").get("says").asString())
                .startsWith("Nobody but Till 2 was heard there, last heard ");
        Running.write("""
                insert into port_stay (site_id, gear_id, port, mac, first_seen, last_seen)
                select site_id, gear_id, port, '00:00:5e:00:53:e9', now() - interval '9 days', now() - interval '3 days'
                from port_stay where port = '3' and gear_id = %d""".formatted(gear));
        assertThat(past("Shop switch 3").get("says").asString())
                .startsWith("2 devices have hung at Shop switch 3; the last is Till 2, last heard ");
        api.get(path + "/past?of=Shop%20switch%204").refused(422, "bad-value");
        assertThat(at("Shop switch 3", 5)).startsWith("Nobody but 00:00:5E:00:53:E9 (not on record) was heard there");
        assertThat(at("Shop switch 3", 30)).isEqualTo("No reading of that time tells who hung there.");
    }

    private String at(String of, int daysAgo) {
        String day = LocalDate.now(ZoneOffset.UTC).minusDays(daysAgo) + "T12:00";
        return api.get(path + "/past?of=" + URLEncoder.encode(of, StandardCharsets.UTF_8) + "&at="
                        + URLEncoder.encode(day, StandardCharsets.UTF_8))
                .expect(200)
                .json()
                .get("says")
                .asString();
    }

    private JsonNode past(String of) {
        return api.get(path + "/past?of=" + URLEncoder.encode(of, StandardCharsets.UTF_8))
                .expect(200)
                .json();
    }

    private List<String> hung(String of) {
        return StreamSupport.stream(past(of).get("ports").spliterator(), false)
                .map(p -> p.get("name").asString() + " at " + p.get("port").asString())
                .toList();
    }

    @DisplayName("Only one's own ground is asked, silence says what to look at, and two at once are not")
    @Test
    void refused() throws InterruptedException {
        read("10.9.9.9").refused(422, "not-ours");
        read("8.8.8.8").refused(422, "not-ours");
        read("10.7.0").refused(422, "bad-value");
        Running.as(Role.OFFICE)
                .post("/api/gear/" + gear + "/reading", ACCESS.formatted("10.7.0.2"))
                .refused(403, "not-allowed");
        api.post("/api/gear/999999/reading", ACCESS.formatted("10.7.0.2")).refused(404, "not-found");
        api.post("/api/gear/" + gear + "/reading", ACCESS.formatted("10.7.0.2").replace("words of the shop", ""))
                .refused(422, "bad-value");
        verifyNoInteractions(Running.GEAR);
        when(Running.GEAR.walk(any(), any())).thenThrow(new GearSilent("10.7.0.2 did not answer."));
        read("10.7.0.2").refused(409, "gear-silent");
        reset(Running.GEAR);
        var asked = new CountDownLatch(1);
        var goOn = new CountDownLatch(1);
        when(Running.GEAR.walk(any(), any())).thenAnswer(c -> {
            asked.countDown();
            goOn.await();
            return told(Map.of(1, 1L));
        });
        var first = new Thread(() -> read("10.7.0.2").expect(200));
        first.start();
        asked.await();
        Running.as(Role.LEAD)
                .post("/api/gear/" + gear + "/reading", ACCESS.formatted("10.7.0.2"))
                .refused(409, "reading-runs");
        goOn.countDown();
        first.join();
        assertThat(switchNow().get("reads")).hasSize(1);
    }

    @DisplayName("The words by which it lets itself be read go to the gear and nowhere else")
    @Test
    void secrets() throws SQLException {
        when(Running.GEAR.walk(any(), any())).thenReturn(told(Map.of(1, 1L), 1));
        read("10.7.0.2").expect(200);
        var access = ArgumentCaptor.forClass(GearAccess.class);
        verify(Running.GEAR).walk(any(Ipv4Address.class), access.capture());
        assertThat(access.getValue().name()).isEqualTo("words of the shop");
        try (var db = Running.database("knot_owner");
                var tables = db.getMetaData().getTables(null, "public", "%", new String[] {"TABLE"})) {
            int looked = 0;
            while (tables.next()) {
                String table = tables.getString("TABLE_NAME");
                try (var rows = db.createStatement()
                        .executeQuery(
                                "select count(*) from \"" + table + "\" t where t::text like '%words of the shop%'")) {
                    rows.next();
                    assertThat(rows.getInt(1)).as(table).isZero();
                    looked++;
                }
            }
            assertThat(looked).isGreaterThan(40);
        }
    }
}
