package app.knottag.server.watch;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyInt;
import static org.mockito.ArgumentMatchers.argThat;
import static org.mockito.ArgumentMatchers.eq;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.reset;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.hardware.Mac;
import app.knottag.core.intake.Recognised;
import app.knottag.core.reach.Probes;
import app.knottag.core.reach.Swept;
import app.knottag.core.reach.Whois;
import app.knottag.server.Api;
import app.knottag.server.Running;
import app.knottag.server.account.Role;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.attribute.FileTime;
import java.sql.SQLException;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalTime;
import java.time.ZoneId;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import java.util.stream.StreamSupport;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.JsonNode;

/** Looks at night over HTTP: what they find, what of it is new, and every way in which a night can go wrong. */
class NightApiTest {

    private static final ZoneId ZONE = ZoneId.of("Europe/Berlin");

    private final Api api = Running.as(Role.LEAD);
    private long[] site;
    private long till;
    private String nights;

    @BeforeEach
    void aTillThatIsSignedOff() throws SQLException {
        Running.network("10.7.0.51", "00:00:5E:00:53:01", "I AM OC2-AAAA-0001");
        when(Running.PROBES.ask(eq(Ipv4Address.parse("10.7.0.31")), eq(7500), any()))
                .thenReturn(Optional.of("REACHED OC2-AAAA-0001"));
        reset(Running.RELAY);
        when(Running.RELAY.hand(any(), any(), any())).thenReturn("");
        site = Running.site(api);
        till = Running.till(api, site, 1);
        nights = "/api/sites/" + site[0] + "/nights";
        Running.write(
                "update endpoint set station = 'DONE', confirmed_by = 'x', confirmed_at = now() - interval '9 days' where id = "
                        + till);
    }

    @AfterEach
    void noMoreNights() throws SQLException {
        Running.write("delete from watch");
        Running.write("delete from morning_mail");
        Running.write("update night set mailed_at = now(), read_at = now()");
    }

    private JsonNode all() {
        return api.get(nights).expect(200).json();
    }

    private static void tick() {
        Running.bean(NightRuns.class).tick();
    }

    /** Waits until nothing goes on, and returns the last report. */
    private JsonNode report() {
        for (int n = 0; n < 400; n++) {
            var all = all();
            if (all.get("running").isEmpty() && !all.at("/nights/0/endedAt").isNull())
                return api.get("/api/nights/" + all.at("/nights/0/id").asLong())
                        .expect(200)
                        .json();
            sleep();
        }
        throw new AssertionError("the night never ends");
    }

    private static void sleep() {
        try {
            Thread.sleep(25);
        } catch (InterruptedException e) {
            throw new AssertionError(e);
        }
    }

    private JsonNode look() {
        api.post(nights, "").expect(202);
        return report();
    }

    /** Watches every night, in hours in which it is night now. */
    private void watch(int hoursAgo, int hoursOn) {
        var now = LocalTime.now(ZONE).truncatedTo(ChronoUnit.MINUTES);
        api.put(
                        "/api/sites/" + site[0] + "/watch",
                        "{'from':'%s','until':'%s'}",
                        now.minusHours(hoursAgo),
                        now.plusHours(hoursOn))
                .expect(200);
    }

    private static List<String> lines(JsonNode report) {
        return StreamSupport.stream(report.get("lines").spliterator(), false)
                .map(l -> l.get("news").asString() + " " + l.get("title").asString())
                .toList();
    }

    private static List<String> left(JsonNode report) {
        return StreamSupport.stream(report.get("left").spliterator(), false)
                .map(l -> l.get("why").asString() + " " + l.get("what").size())
                .toList();
    }

    private static long count(String sql) throws SQLException {
        try (var db = Running.database("knot_owner");
                var rows = db.createStatement().executeQuery("select count(*) from " + sql)) {
            rows.next();
            return rows.getLong(1);
        }
    }

    @DisplayName("What fails is new once, then as before, then well again; what comes out the same is one row")
    @Test
    void newsAndNoNews() throws SQLException {
        assertThat(all().get("watched").asBoolean()).isFalse();
        assertThat(all().at("/next/looks").asInt()).isEqualTo(3);
        var good = look();
        assertThat(lines(good)).isEmpty();
        assertThat(good.at("/night/words").asString()).isEqualTo("Nothing new.");
        assertThat(good.get("looked").asInt()).isEqualTo(3);
        when(Running.PROBES.connect(eq(Ipv4Address.parse("10.7.0.51")), anyInt()))
                .thenReturn(Probes.Connection.REFUSED);
        assertThat(lines(look())).containsExactly("NEW Till 1 fails a check");
        assertThat(count("check_run where endpoint_id = " + till)).isEqualTo(2);
        // Whoever looks for the cause in the morning begins with what the machine saw.
        assertThat(count("diagnosis_answer where outcome = 'REFUSED' and endpoint_id = " + till))
                .isEqualTo(1);
        assertThat(lines(look())).containsExactly("STILL Till 1 fails a check");
        assertThat(count("check_run where endpoint_id = " + till)).isEqualTo(2);
        assertThat(count("check_run where again_at is not null and failed and endpoint_id = " + till))
                .isEqualTo(1);
        when(Running.PROBES.connect(eq(Ipv4Address.parse("10.7.0.51")), anyInt()))
                .thenReturn(Probes.Connection.OPEN);
        var mended = look();
        assertThat(lines(mended)).containsExactly("WELL Till 1 fails a check");
        assertThat(mended.at("/lines/0/endpointId").asLong()).isEqualTo(till);
        assertThat(mended.at("/night/words").asString()).isEqualTo("Nothing new, 1 is well again.");
        assertThat(count("sweep where segment_id = " + site[1])).isEqualTo(1);
    }

    @DisplayName("A stranger and a device that moved are told of as well")
    @Test
    void strangers() {
        when(Running.PROBES.sweep(any(), any()))
                .thenAnswer(c -> new Swept(
                        c.<List<Ipv4Address>>getArgument(0).contains(Ipv4Address.parse("10.7.0.77"))
                                ? Map.of(Ipv4Address.parse("10.7.0.77"), Set.of(Mac.parse("00:00:5E:00:53:F7")))
                                : Map.of(),
                        Set.of(),
                        "by the question for its MAC"));
        assertThat(lines(look())).anyMatch(l -> l.startsWith("NEW 00:00:5E:00:53:F7: a stranger"));
        assertThat(lines(look())).anyMatch(l -> l.startsWith("STILL 00:00:5E:00:53:F7: a stranger"));
    }

    @DisplayName("Nobody answers at all: nothing is called broken, and the report says why nothing was looked at")
    @Test
    void unreached() throws SQLException {
        look();
        when(Running.PROBES.sweep(any(), any())).thenReturn(new Swept(Map.of(), Set.of(), "by an echo each"));
        var report = look();
        assertThat(lines(report)).isEmpty();
        assertThat(report.at("/night/words").asString()).isEqualTo("Nothing was looked at.");
        assertThat(report.at("/night/tells").asBoolean()).isTrue();
        assertThat(left(report))
                .containsExactly(
                        "Nobody answered there. 1",
                        "Nobody of the site answered: this machine does not reach it, or nothing there has power. 2");
        assertThat(count("check_run where failed and endpoint_id = " + till)).isZero();
    }

    @DisplayName(
            "A till that does not answer at night may be off: it is told of, and its last checks stay as they were")
    @Test
    void offAtNight() throws SQLException {
        look();
        when(Running.PROBES.echo(any())).thenAnswer(c -> Running.echo(c.getArgument(0), Recognised.Answer.SILENT));
        when(Running.PROBES.whois(any())).thenReturn(new Whois(Set.of(), Whois.How.ASKED));
        when(Running.PROBES.neighbours()).thenReturn(List.of());
        when(Running.PROBES.connect(any(), anyInt())).thenReturn(Probes.Connection.SILENT);
        when(Running.PROBES.ask(any(), anyInt(), any())).thenReturn(Optional.empty());
        assertThat(lines(look())).containsExactly("NEW Till 1 did not answer");
        assertThat(count("check_run where failed and endpoint_id = " + till)).isZero();
    }

    @DisplayName("So may its partner be; what fails of itself is told instead, and kept")
    @Test
    void partnerOffAtNight() throws SQLException {
        look();
        when(Running.PROBES.ask(eq(Ipv4Address.parse("10.7.0.31")), anyInt(), any()))
                .thenReturn(Optional.empty());
        when(Running.PROBES.connect(eq(Ipv4Address.parse("10.7.0.31")), anyInt()))
                .thenReturn(Probes.Connection.SILENT);
        var report = look();
        assertThat(lines(report)).containsExactly("NEW Till 1 did not find its partner");
        assertThat(report.at("/lines/0/detail").asString())
                .endsWith("The partner may be switched off: check it when that is on.");
        assertThat(count("check_run where failed and endpoint_id = " + till)).isZero();
        when(Running.PROBES.connect(eq(Ipv4Address.parse("10.7.0.51")), anyInt()))
                .thenReturn(Probes.Connection.REFUSED);
        assertThat(lines(look())).containsExactly("NEW Till 1 fails a check");
        assertThat(count("check_run where failed and endpoint_id = " + till)).isEqualTo(1);
        Running.write("update segment set prefix = '10.0.0.0/12' where id = " + site[1]);
        assertThat(all().at("/next/hints/0").asString()).startsWith("Shop has more than 1022 addresses");
    }

    @DisplayName(
            "In the hours of the night it goes by itself, once; Today and the feed tell of what is new until somebody has read it")
    @Test
    void byItself() {
        when(Running.PROBES.connect(any(), anyInt())).thenReturn(Probes.Connection.REFUSED);
        tick();
        assertThat(all().get("nights")).isEmpty();
        watch(1, 2);
        tick();
        var report = report();
        assertThat(report.at("/night/morning").isNull()).isFalse();
        assertThat(report.at("/night/by").asString()).isEqualTo("Knot Tag at night");
        assertThat(all().at("/next/morning").asString())
                .as("the next is not the one that is over")
                .isGreaterThan(report.at("/night/morning").asString());
        tick();
        assertThat(all().get("nights")).hasSize(1);
        assertThat(notices()).containsExactly("Read what the night found: One thing is new.");
        var feed = api.post("/api/sites/" + site[0] + "/calendar-feeds", "{}")
                .expect(201)
                .json()
                .get("path")
                .asString();
        assertThat(api.get(feed).expect(200).body()).contains("What the night found");
        api.put("/api/nights/" + report.at("/night/id").asLong() + "/read", "").expect(200);
        assertThat(notices()).isEmpty();
        assertThat(all().at("/nights/0/read").asBoolean()).isTrue();
        assertThat(api.get("/api/sites/" + site[0] + "/log").expect(200).body())
                .contains("looks every night")
                .contains("looked at the whole site")
                .contains("One thing is new.");
    }

    private List<String> notices() {
        var today = api.get("/api/today").expect(200).json();
        var all = new ArrayList<JsonNode>();
        if (!today.get("first").isNull()) all.add(today.get("first"));
        today.get("now").forEach(all::add);
        return all.stream()
                .filter(n -> n.get("what").asString().equals("NIGHT")
                        && n.get("siteId").asLong() == site[0])
                .map(n -> n.get("title").asString() + ": " + n.get("detail").asString())
                .toList();
    }

    @DisplayName("A night that was cut off goes on where it was, and one that is over is ended with what was left")
    @Test
    void cutOff() throws SQLException {
        watch(1, 2);
        String morning = all().at("/next/morning").asString();
        Running.write("""
                insert into night (site_id, morning, by, started_at)
                values (%d, '%s', 'x', now()), (%1$d, date '%s' - 1, 'x', now())""".formatted(site[0], morning, morning));
        Running.write("""
                insert into night_look (night_id, key, what, at, why_not, answered)
                select id, 'checks %d', 'made', now(), '', -1 from night where site_id = %d""".formatted(till, site[0]));
        when(Running.PROBES.connect(any(), anyInt())).thenThrow(new AssertionError("asked again"));
        tick();
        report();
        for (int n = 0; n < 200 && all().at("/nights/1/endedAt").isNull(); n++) sleep();
        var tonight =
                api.get("/api/nights/" + all().at("/nights/1/id").asLong()).json();
        assertThat(tonight.get("looked").asInt()).isEqualTo(3);
        assertThat(left(tonight)).isEmpty();
        var before = api.get("/api/nights/" + all().at("/nights/0/id").asLong()).json();
        assertThat(left(before)).containsExactly("The night was over before its turn came. 2");
    }

    @DisplayName("Hours that are wholly kept clear leave no look; a clock that was set back makes none twice")
    @Test
    void noTime() throws SQLException {
        Running.write("insert into busy_time (site_id, from_time, until_time, what) values (" + site[0]
                + ", '00:00', '12:30', 'Backup'), (" + site[0] + ", '12:00', '00:10', 'Open')");
        watch(1, 2);
        assertThat(all().at("/next/free")).isEmpty();
        assertThat(all().at("/next/tooLong")).hasSize(3);
        tick();
        assertThat(left(report())).containsExactly("The free hours of that night were too short for it. 3");
        Running.write("delete from busy_time where site_id = " + site[0]);
        Running.write(
                "update night set morning = date '2040-01-01', started_at = now() + interval '2 hours' where site_id = "
                        + site[0]);
        assertThat(all().get("setBack").asBoolean()).isTrue();
        tick();
        assertThat(all().get("nights")).hasSize(1);
    }

    @DisplayName("Nights in which nobody looked are named, here and on Today")
    @Test
    void missed() throws SQLException {
        watch(3, -1);
        Running.write("update watch set since = now() - interval '50 hours' where site_id = " + site[0]);
        assertThat(all().get("missed")).hasSize(2);
        assertThat(notices()).anyMatch(n -> n.startsWith("2 nights were missed: Nobody looked in the night to "));
    }

    @DisplayName("One that runs already is not begun again, by hand or by the clock")
    @Test
    void twice() throws InterruptedException {
        var begun = new CountDownLatch(1);
        var go = new CountDownLatch(1);
        when(Running.PROBES.sweep(any(), any())).thenAnswer(c -> {
            begun.countDown();
            assertThat(go.await(10, TimeUnit.SECONDS)).isTrue();
            return new Swept(
                    Map.of(Ipv4Address.parse("10.7.0.51"), Set.of(Mac.parse("00:00:5E:00:53:01"))), Set.of(), "x");
        });
        api.post(nights, "").expect(202);
        assertThat(begun.await(10, TimeUnit.SECONDS)).isTrue();
        api.post(nights, "").refused(409, "looks-running");
        assertThat(all().at("/running/0/now").asString()).isEqualTo("Sweep of Shop");
        api.post("/api/segments/" + site[1] + "/sweep", "").refused(409, "sweep-running");
        go.countDown();
        report();
        assertThat(all().get("nights")).hasSize(1);
    }

    @DisplayName(
            "A list that is dropped into the folder is compared; a link out of it, a wrong file and an old one are told")
    @Test
    void lists() throws IOException {
        api.ifMatch = api.get("/api/sites/" + site[0] + "/sheet")
                .response()
                .headers()
                .firstValue("ETag")
                .orElseThrow();
        api.put("/api/sites/" + site[0] + "/registries/0", """
                {'name':'Shop list','type':'ACCESS_LIST','naming':'WORDS','longestName':40,'ownerNeeded':false,'sharing':'NONE','most':0,
                'lifetime':0,'restart':true,'facts':['MAC','NAME'],'leadDays':0,'form':'CSV'}""").expect(200);
        String code = api.get("/api/sites/" + site[0]).json().get("code").asString();
        var folder = Files.createDirectories(Running.LISTS.resolve(code));
        var file = folder.resolve(code + "-shop-list.csv");
        assertThat(all().at("/next/looks").asInt()).isEqualTo(3);
        Files.createSymbolicLink(file, Files.createTempFile("else", "where"));
        assertThat(all().at("/next/looks").asInt()).isEqualTo(3);
        Files.delete(file);
        Files.write(file, new byte[] {(byte) 0xC3, 0x28});
        assertThat(all().at("/next/looks").asInt()).isEqualTo(4);
        assertThat(left(look())).anyMatch(l -> l.startsWith("Some letters are not UTF-8"));
        Files.writeString(file, "name,mac,address\nStranger,00:00:5E:00:53:F1,10.7.0.99\n");
        Files.setLastModifiedTime(file, FileTime.from(Instant.now().minus(Duration.ofDays(60))));
        assertThat(lines(look()))
                .anyMatch(l -> l.startsWith("NEW The list of “Shop list” is of "))
                .contains("NEW Stranger, 00:00:5E:00:53:F1, 10.7.0.99 in “Shop list”", "NEW Till 1 in “Shop list”");
    }

    @DisplayName("The report goes out once, when the nights are over; a relay that refuses is said, and tried again")
    @Test
    void mail() throws SQLException {
        String mail = """
                {'host':'relay.shop.example','port':25,'secured':false,'sender':'knot@shop.example',
                'recipients':'a@shop.example, b@shop.example'}""";
        Running.as(Role.TECHNICIAN).get("/api/morning-mail").expect(403);
        assertThat(api.get("/api/morning-mail").json().get("on").asBoolean()).isFalse();
        api.post("/api/morning-mail/trial", "").expect(404);
        api.put("/api/morning-mail", mail).expect(200);
        when(Running.RELAY.hand(any(), any(), any()))
                .thenReturn("relay.shop.example port 25 did not take the mail: 550 no");
        api.post("/api/morning-mail/trial", "").refused(502, "not-sent");
        assertThat(api.get("/api/morning-mail").json().at("/trouble").asString())
                .endsWith("550 no");
        watch(1, 2);
        tick();
        report();
        Running.bean(MorningMail.class).tick();
        verify(Running.RELAY, never()).hand(any(), argThat(s -> s.contains("nothing new")), any());
        Running.write("update morning_mail set tried_at = now() - interval '11 minutes'");
        when(Running.RELAY.hand(any(), any(), any())).thenReturn("");
        Running.bean(MorningMail.class).tick();
        Running.bean(MorningMail.class).tick();
        verify(Running.RELAY)
                .hand(
                        argThat(w -> w.recipients().equals(List.of("a@shop.example", "b@shop.example"))),
                        argThat(s -> s.startsWith("Knot Tag, ") && s.contains("nothing new at Site ")),
                        argThat(b -> b.startsWith("Nothing new at Site ")));
        assertThat(api.get("/api/morning-mail").json().at("/trouble").asString())
                .isEmpty();
        api.delete("/api/morning-mail").expect(200);
        api.delete("/api/morning-mail").expect(404);
    }

    @DisplayName("Bad hours and bad addresses are refused at their place")
    @ParameterizedTest(name = "{0} {1}")
    @CsvSource(
            delimiter = '|',
            value = {
                "watch | {'from':'01:00','until':'01:10'} | 30 minutes to 12 hours",
                "watch | {'from':'x','until':'01:10'} | from",
                "watch | {'until':'01:10'} | from",
                "mail  | {'host':'no host','port':25,'secured':false,'sender':'a@b.example','recipients':'a@b.example'} | /host",
                "mail  | {'host':'h.example','port':0,'secured':false,'sender':'a@b.example','recipients':'a@b.example'} | /port",
                "mail  | {'host':'h.example','port':25,'secured':true,'sender':'Me <a@b.example>','recipients':'a@b.example'} | /sender",
                "mail  | {'host':'h.example','port':25,'secured':true,'sender':'a@b.example','recipients':'nobody'} | /recipients",
                "mail  | {'host':'h.example','port':25,'secured':true,'sender':'a@b.example','recipients':' '} | /recipients",
            })
    void bad(String what, String body, String told) {
        String path = what.equals("watch") ? "/api/sites/" + site[0] + "/watch" : "/api/morning-mail";
        var answer = api.put(path, body);
        assertThat(answer.status()).isBetween(400, 422);
        assertThat(answer.body()).contains(told);
    }
}
