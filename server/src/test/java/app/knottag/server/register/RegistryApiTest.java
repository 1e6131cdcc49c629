package app.knottag.server.register;

import static org.assertj.core.api.Assertions.assertThat;

import app.knottag.core.time.DateStyle;
import app.knottag.server.Api;
import app.knottag.server.Running;
import app.knottag.server.account.Role;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import java.util.stream.IntStream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.JsonNode;

class RegistryApiTest {

    private static final String LIST = """
            {'name':'Switch list','type':'ACCESS_LIST','naming':'WORDS','longestName':40,'ownerNeeded':false,'sharing':'NONE',
            'most':0,'lifetime':0,
             'restart':true,'facts':['MAC','NAME'],'leadDays':0,'form':'CSV'}""";
    private static final String PORTAL = """
            {'name':'Portal','type':'PORTAL','naming':'WORDS','longestName':40,'ownerNeeded':true,'sharing':'BY_KIND','most':0,
            'lifetimeUnit':'HOURS','lifetime':24,
             'restart':true,'facts':['MAC','NAME'],'leadDays':0,'form':'CSV'}""";
    private final Api api = Running.as(Role.LEAD);
    private long[] site;

    @BeforeEach
    void aSite() {
        site = Running.site(api);
    }

    private String sites() {
        return "/api/sites/" + site[0];
    }

    private Api sheet() {
        api.ifMatch = api.get(sites() + "/sheet")
                .response()
                .headers()
                .firstValue("ETag")
                .orElseThrow();
        return api;
    }

    private long registry(String body) {
        return sheet().put(sites() + "/registries/0", body)
                .expect(200)
                .json()
                .get("id")
                .asLong();
    }

    private static List<JsonNode> list(JsonNode node) {
        var all = new ArrayList<JsonNode>();
        node.forEach(all::add);
        return all;
    }

    private JsonNode line(long registry, long endpoint) {
        return list(api.get("/api/registries/" + registry + "/lines")
                        .expect(200)
                        .json())
                .stream()
                .filter(l -> l.get("endpointId").asLong() == endpoint)
                .findFirst()
                .orElseThrow();
    }

    private String state(long registry, long endpoint) {
        var l = line(registry, endpoint);
        return l.get("state").asString() + (l.get("restartPending").asBoolean() ? " restart pending" : "");
    }

    private String station(long endpoint) {
        var e = api.get("/api/endpoints/" + endpoint).json();
        return e.get("station").asString() + " " + e.get("status").asString();
    }

    private Api.Answer act(JsonNode line, String body) {
        api.ifMatch = "\"" + line.get("version").asInt() + "\"";
        return api.post("/api/registrations/" + line.get("id").asLong() + "/acts", body);
    }

    private Api.Answer bring(long registry, String form, boolean preview, String text) {
        api.contentType = "text/plain";
        try {
            return api.send(
                    "POST", "/api/registries/" + registry + "/holdings?form=" + form + "&preview=" + preview, text);
        } finally {
            api.contentType = "application/json";
        }
    }

    @Test
    void anEndpointWaitsUntilItIsRegisteredAndIsInForceOnlyAfterItsRestart() {
        long till = Running.till(api, site, 1);
        assertThat(station(till)).isEqualTo("ONBOARD PENDING");
        long list = registry(LIST);
        assertThat(station(till)).isEqualTo("REGISTER PENDING");
        assertThat(state(list, till)).isEqualTo("TO_REGISTER");
        api.post("/api/registries/" + list + "/registrations", "{'endpointId':%d}", till)
                .expect(201);
        assertThat(state(list, till) + ", " + station(till)).isEqualTo("SUBMITTED, REGISTER ACTIVE");
        act(line(list, till), "{'act':'RESTARTED'}").refused(409, "not-entered");
        act(line(list, till), "{'act':'ENTER'}").expect(200);
        assertThat(state(list, till) + ", " + station(till)).isEqualTo("SUBMITTED restart pending, ONBOARD PENDING");
        act(line(list, till), "{'act':'RESTARTED'}").expect(200);
        assertThat(state(list, till)).isEqualTo("IN_FORCE");
        api.ifMatch = "\"1\"";
        api.post(
                        "/api/registrations/" + line(list, till).get("id").asLong() + "/acts",
                        "{'act':'TAKE_OUT','reason':'gone'}")
                .refused(412, "changed-meanwhile");
        act(line(list, till), "{'act':'TAKE_OUT','reason':'Moved away'}").expect(200);
        assertThat(station(till)).isEqualTo("REGISTER PENDING");
        // Another MAC on record: what stands in the list is old.
        api.post("/api/registries/" + list + "/registrations", "{'endpointId':%d,'entered':true}", till)
                .expect(201);
        api.seen(till)
                .patch("/api/endpoints/" + till, "{'mac':'00:00:5E:00:53:A7'}")
                .expect(200);
        assertThat(line(list, till).get("next").asString()).isEqualTo("Correct it: it holds an old MAC.");
        assertThat(station(till)).isEqualTo("REGISTER PENDING");
        act(line(list, till), "{'act':'ENTER'}").expect(200);
        assertThat(state(list, till)).isEqualTo("SUBMITTED restart pending");
        assertThat(line(list, till).get("entry").get("mac").asString()).isEqualTo("00:00:5E:00:53:A7");
    }

    @DisplayName("Every entry is judged before it leaves the screen")
    @ParameterizedTest(name = "{0}")
    @CsvSource(
            delimiter = '|',
            value = {
                "{'endpointId':%d,'owner':'','sharedWith':['Ada']}              | 422 | owner-missing   | /owner",
                "{'endpointId':%d,'owner':'Ada'}                                | 422 | not-shared      | /sharedWith",
                "{'endpointId':%d,'owner':'Ada','sharedWith':['=1+1']}          | 422 | bad-words       | /sharedWith",
                "{'endpointId':%d,'owner':'the pin is 9911','sharedWith':['B']} | 422 | bad-words       | /owner",
                "{'endpointId':%d,'owner':'Ada','sharedWith':['Ben'],'name':'A name that is far longer than forty "
                        + "letters'} | 422 | name-too-long | /name",
                "{'endpointId':%d,'owner':'Ada','sharedWith':['Ben'],'name':'TILL 2'} | 422 | name-twice | /name",
            })
    void judges(String body, int status, String code, String pointer) {
        long first = Running.till(api, site, 1), second = Running.till(api, site, 2);
        long portal = registry(PORTAL);
        api.post(
                        "/api/registries/" + portal + "/registrations",
                        "{'endpointId':%d,'owner':'Ada','sharedWith':['Ben']}",
                        second)
                .expect(201);
        var answer = api.post("/api/registries/" + portal + "/registrations", body, first)
                .refused(status, code);
        assertThat(answer.json().get("errors").get(0).get("pointer").asString()).isEqualTo(pointer);
        assertThat(state(portal, first)).isEqualTo("TO_REGISTER");
    }

    @Test
    void aQuestionIsAnsweredWithAReason() {
        long till = Running.till(api, site, 1);
        long list = registry(LIST);
        api.seen(till)
                .put("/api/endpoints/" + till + "/away", "{'away':true,'why':'At the repair shop'}")
                .expect(200);
        var refused = api.post("/api/registries/" + list + "/registrations", "{'endpointId':%d}", till)
                .refused(422, "away");
        assertThat(refused.json().get("errors").get(0).get("pointer").asString())
                .isEqualTo("/reason");
        var judged = api.post("/api/registries/" + list + "/judgement", "{'endpointId':%d}", till)
                .expect(200)
                .json();
        assertThat(judged.get("objections").get(0).get("message").asString()).startsWith("Till 1 is away.");
        api.post("/api/registries/" + list + "/registrations", "{'endpointId':%d,'reason':'Back tomorrow'}", till)
                .expect(201);
        api.post("/api/registries/" + list + "/registrations", "{'endpointId':%d}", till)
                .refused(409, "registered");
    }

    @Test
    void twoPeopleCannotPutOneMacIntoAList() {
        registry(LIST);
        long list =
                list(api.get(sites() + "/registries").json()).get(0).get("id").asLong();
        long till = Running.till(api, site, 1);
        var codes = IntStream.range(0, 4)
                .mapToObj(i -> CompletableFuture.supplyAsync(() -> Running.as(i % 2 == 0 ? Role.LEAD : Role.TECHNICIAN)
                        .post("/api/registries/" + list + "/registrations", "{'endpointId':%d}", till)
                        .status()))
                .map(CompletableFuture::join)
                .sorted()
                .toList();
        assertThat(codes).containsExactly(201, 409, 409, 409);
    }

    @Test
    void whatIsHandedOverIsReadBackFromTheListItself() {
        long first = Running.till(api, site, 1),
                second = Running.till(api, site, 2),
                third = Running.till(api, site, 3);
        long list = registry(LIST);
        var preview = api.post("/api/registries/" + list + "/hand-overs", "{'form':'ETHERS','preview':true}")
                .expect(200)
                .json();
        assertThat(preview.get("added").asInt()).isEqualTo(3);
        assertThat(state(list, first)).isEqualTo("TO_REGISTER");
        String text = api.post("/api/registries/" + list + "/hand-overs", "{'form':'ETHERS'}")
                .expect(200)
                .json()
                .get("text")
                .asString();
        assertThat(text).contains("00:00:5e:00:53:02 till-2");
        assertThat(state(list, second)).isEqualTo("SUBMITTED");
        // The list comes back with one slip and without one of them.
        String there = text.replace("00:00:5e:00:53:02", "00:00:5e:00:53:20").replaceAll("(?m)^.*till-3\n", "");
        var seen = bring(list, "ETHERS", true, there).expect(200).json();
        assertThat(list(seen.get("lines")).stream()
                        .map(l -> l.get("outcome").asString() + " "
                                + l.get("name").asString()))
                .containsExactly(
                        "STRANGER till-2, 00:00:5E:00:53:20", "MISSING Till 2", "MISSING Till 3", "AS_WANTED Till 1");
        bring(list, "ETHERS", false, there).expect(200);
        assertThat(state(list, first) + ", " + state(list, second) + ", " + state(list, third))
                .isEqualTo("SUBMITTED restart pending, SUBMITTED, SUBMITTED");
        assertThat(bring(list, "ETHERS", false, text)
                        .expect(200)
                        .json()
                        .get("asWanted")
                        .asInt())
                .isEqualTo(3);
        assertThat(state(list, third)).isEqualTo("SUBMITTED restart pending");
        // Nothing has changed since; then one changes.
        assertThat(api.get("/api/registries/" + list + "/list?form=HOSTS&onlyChanges=true")
                        .body()
                        .lines())
                .hasSize(1);
        api.seen(first)
                .patch("/api/endpoints/" + first, "{'mac':'00:00:5E:00:53:A7'}")
                .expect(200);
        assertThat(api.get("/api/registries/" + list + "/list?form=ETHERS&onlyChanges=true")
                        .body()
                        .lines())
                .hasSize(2)
                .last()
                .isEqualTo("00:00:5e:00:53:a7 till-1");
        bring(list, "ETHERS", false, "00:00:5E:00:53:0Z nobody").expect(200);
        assertThat(bring(list, "ETHERS", true, "00:00:5E:00:53:0Z nobody")
                        .json()
                        .get("problems")
                        .get(0)
                        .get("column")
                        .asString())
                .isEqualTo("mac");
    }

    @Test
    void aHandOverLeavesOutWhatIsNotRight() {
        long good = Running.till(api, site, 1);
        long bad = api.post(
                        sites() + "/endpoints",
                        "{'segmentId':%d,'kind':'label-printer','name':'Printer','address':'10.7.0.20'}",
                        site[1])
                .expect(201)
                .json()
                .get("id")
                .asLong();
        long list = registry(LIST);
        var view = api.post("/api/registries/" + list + "/hand-overs", "{'form':'CSV'}")
                .expect(200)
                .json();
        assertThat(view.get("added").asInt()).isEqualTo(1);
        assertThat(view.get("objected")
                        .get(0)
                        .get("objections")
                        .get(0)
                        .get("message")
                        .asString())
                .isEqualTo("No MAC is on record. Read it from the label first.");
        assertThat(state(list, good) + ", " + state(list, bad)).isEqualTo("SUBMITTED, TO_REGISTER");
    }

    @DisplayName("Rules that make no sense are refused with their place")
    @ParameterizedTest(name = "{0} for {1}")
    @CsvSource(
            delimiter = '|',
            value = {
                "'name':'Portal'        | 'name':''                | bad-words    | /name",
                "'longestName':40       | 'longestName':0          | out-of-range | /longestName",
                "'lifetime':24          | 'lifetime':9000          | bad-lifetime | /lifetime",
                "'leadDays':0           | 'leadDays':400           | out-of-range | /leadDays",
                "'ownerNeeded':true     | 'kinds':['toaster'],'ownerNeeded':true | no-such-kind | /kinds",
                "'most':0               | 'most':-1                | out-of-range | /most",
                "'type':'PORTAL'        | 'type':'DESK'            | unreadable-request    | /type",
            })
    void refusesRules(String was, String is, String code, String pointer) {
        var answer = sheet().put(sites() + "/registries/0", PORTAL.replace(was, is));
        assertThat(answer.status()).isBetween(400, 422);
        assertThat(answer.code()).isEqualTo(code);
        assertThat(answer.json().get("errors").get(0).get("pointer").asString()).isEqualTo(pointer);
    }

    @Test
    void aRegistryIsChangedFromWhatWasSeenAndRemoved() {
        long id = registry(LIST);
        sheet().put(sites() + "/registries/0", LIST).refused(409, "name-taken");
        String old = sheet().ifMatch;
        api.put(sites() + "/registries/" + id, LIST.replace("Switch list", "Core switch"))
                .expect(200);
        api.ifMatch = old;
        api.put(sites() + "/registries/" + id, LIST).refused(412, "changed-meanwhile");
        sheet().send("DELETE", sites() + "/registries/" + id, "").expect(204);
        assertThat(api.get(sites() + "/registries").json()).isEmpty();
        Running.as(Role.OFFICE).put(sites() + "/registries/0", LIST).refused(403, "not-allowed");
    }

    @Test
    void passesRunOutAndAreDueInTheRightOrder() throws Exception {
        long till = Running.till(api, site, 1), other = Running.till(api, site, 2);
        long portal = registry(PORTAL);
        for (long id : List.of(till, other))
            api.post(
                            "/api/registries/" + portal + "/registrations",
                            "{'endpointId':%d,'owner':'Ada Lind','sharedWith':['Ben'],'entered':true}",
                            id)
                    .expect(201);
        act(line(portal, till), "{'act':'RESTARTED'}").expect(200);
        try (var database = Running.database("knot_owner");
                var sql = database.createStatement()) {
            sql.execute(
                    "update registration set entered_at = now() - interval '20 h', restarted_at = now() - interval '19 "
                            + "h', ends_at = now() + interval '4 h' where endpoint_id = "
                            + till);
            sql.execute(
                    "update registration set entered_at = now() - interval '30 h', ends_at = now() - interval '6 h' where endpoint_id = "
                            + other);
        }
        assertThat(state(portal, till) + ", " + state(portal, other)).isEqualTo("EXPIRING, ENDED");
        Running.bean(Registrations.class).ranOut();
        assertThat(station(till) + ", " + station(other)).isEqualTo("ONBOARD PENDING, REGISTER FAILED");
        var due = api.get(sites() + "/due").expect(200).json();
        assertThat(list(due.get("items")).stream().map(i -> i.get("title").asString()))
                .containsExactly("Register Till 2 again in Portal", "Renew Till 1 in Portal");
        act(line(portal, till), "{'act':'RENEW'}").expect(200);
        assertThat(state(portal, till)).isEqualTo("IN_FORCE");
        act(line(portal, other), "{'act':'RENEW'}").expect(200);
        assertThat(state(portal, other)).as("it was off the network meanwhile").isEqualTo("SUBMITTED restart pending");
        // Somebody leaves.
        assertThat(api.get(sites() + "/clean-up").json().get("items")).isEmpty();
        var clean = api.put(sites() + "/owners", "{'name':'ada lind','left':true}")
                .expect(200)
                .json();
        assertThat(clean.get("items").get(0).get("message").asString())
                .isEqualTo("“Till 1” in Portal belongs to Ada Lind, who has left.");
        act(line(portal, till), "{'act':'CHANGE','name':'Till 1','owner':'Eva Holm','sharedWith':['Ben']}")
                .expect(200);
        act(line(portal, other), "{'act':'CHANGE','owner':'','sharedWith':['Ben']}")
                .refused(422, "owner-missing");
        assertThat(api.get(sites() + "/clean-up").json().get("items")).hasSize(1);
        // Retired, and still standing there.
        api.seen(till)
                .post("/api/endpoints/" + till + "/retirement", "{'reason':'Sold'}")
                .expect(204);
        assertThat(api.get(sites() + "/clean-up")
                        .json()
                        .get("items")
                        .get(0)
                        .get("reason")
                        .asString())
                .isEqualTo("UNIT_RETIRED");
    }

    @Test
    void whatMustBeOrderedComesInTimeForTheVisit() {
        api.put(sites() + "/visit", "{'on':'2027-03-20','slack':2}").expect(200);
        String orders = sites() + "/prerequisites";
        api.post(orders, "{'name':'Key file','who':'payment desk','days':10,'after':''}")
                .expect(201);
        api.post(orders, "{'name':'Key stick','who':'courier','days':3,'after':'Key file'}")
                .expect(201);
        api.post(orders, "{'name':'Lead','who':'','days':3,'after':'Nothing'}").refused(422, "waits-wrongly");
        api.post(orders, "{'name':'Key file','days':1}").refused(409, "name-taken");
        api.post(orders, "{'name':'Late','days':400}").refused(422, "out-of-range");
        var due = api.get(sites() + "/due").json();
        assertThat(list(due.get("orders")).stream()
                        .map(o -> o.get("name").asString() + " " + o.get("by").asString()))
                .containsExactly("Key file 2027-03-05", "Key stick 2027-03-15");
        long id = due.get("orders").get(0).get("id").asLong();
        assertThat(api.put(orders + "/" + id, "{'done':true}")
                        .expect(200)
                        .json()
                        .get("chain"))
                .hasSize(1);
        String file = api.get(sites() + "/reminders.ics").expect(200).body();
        assertThat(file.replace("\r\n ", ""))
                .contains(
                        "BEGIN:VTIMEZONE",
                        "TZID:Europe/Berlin",
                        "SUMMARY:Order: Key stick",
                        "DTSTART;VALUE=DATE:20270315");
    }

    @Test
    void aFeedIsReadByWhoeverHasItsAddressAndNobodyElse() {
        long till = Running.till(api, site, 1);
        registry(LIST);
        String path = api.post(sites() + "/calendar-feeds", "{}")
                .expect(201)
                .json()
                .get("path")
                .asString();
        var stranger = new Api(Running.url());
        String feed = stranger.get(path).expect(200).body();
        assertThat(feed)
                .startsWith("BEGIN:VCALENDAR\r\n")
                .contains("SUMMARY:Register Till 1 in Switch list")
                .doesNotContain("00:00:5E");
        assertThat(feed.split("BEGIN:VEVENT", -1)).hasSize(2);
        assertThat(till).isPositive();
        stranger.get(path.substring(0, 10) + (path.charAt(10) == '0' ? '1' : '0') + path.substring(11))
                .refused(404, "not-found");
        stranger.get(sites() + "/reminders.ics").expect(401);
        assertThat(api.get(sites() + "/calendar-feeds").json().get("feeds").asInt())
                .isEqualTo(1);
        api.send("DELETE", sites() + "/calendar-feeds", "").expect(204);
        stranger.get(path).refused(404, "not-found");
    }

    @DisplayName("Days are read as a lead chose to write them; what that leaves open is asked, not guessed")
    @ParameterizedTest(name = "{0}: {1} is {2}")
    @CsvSource(
            delimiter = '|',
            value = {
                "MONTH_FIRST | 3/4/2027   | 2027-03-04 |",
                "SLASHES     | 3/4/2027   | 2027-04-03 |",
                "PERIODS     | 3.4.2027   | 2027-04-03 |",
                "PERIODS     | 2027-04-05 | 2027-04-05 |",
                "PERIODS     | 31.4.2027  |            | There is no day 31 in April 2027.",
                "YEAR_FIRST  | 3/4/2027   |            | Which is the day here, and which the month? Type 2027-04-03 or 2027-03-04.",
            })
    void daysAsTheSiteWritesThem(DateStyle style, String typed, String day, String refusal) {
        api.seenSite(site[0]).put(sites() + "/dates", "{'dates':'%s'}", style).expect(204);
        assertThat(api.get(sites()).json().at("/dates/style").asString()).isEqualTo(style.name());
        var kept = api.put(sites() + "/visit", "{'on':'%s','slack':0}", typed);
        if (refusal == null)
            assertThat(kept.expect(200).json().get("visitOn").asString()).isEqualTo(day);
        else {
            kept.refused(422, "bad-day");
            assertThat(kept.json().at("/errors/0/message").asString()).isEqualTo(refusal);
            assertThat(kept.json().at("/errors/0/pointer").asString()).isEqualTo("/on");
        }
        String asked = "{'text':'%s','form':'DAY'}";
        assertThat(api.post(sites() + "/time/read", asked, typed)
                        .expect(200)
                        .json()
                        .path("value")
                        .asString(null))
                .isEqualTo(day);
    }

    @Test
    void guestsOfAStayAreCounted() {
        String stay =
                "{'from':'2027-03-27T09:30','until':'2027-03-28T19:00','hours':24,'opens':'08:00','shuts':'18:00'}";
        var passes = api.post(sites() + "/guest-passes", stay).expect(200).json();
        // The clocks go forward that night: the pass ends at 10:30 by the clock.
        assertThat(passes.get("registrations").asInt() + " "
                        + passes.get("dues").get(0).get("at").asString())
                .isEqualTo("2 2027-03-28T08:30:00Z");
        api.post(sites() + "/guest-passes", stay.replace("2027-03-28T19:00", "2027-03-26T19:00"))
                .refused(422, "bad-stay");
    }

    @Test
    void thePictureOfALabelIsRead() throws Exception {
        long till = Running.till(api, site, 1);
        String path = "/api/endpoints/" + till + "/label-picture";
        var writer = new com.google.zxing.oned.Code128Writer();
        var image = new java.awt.image.BufferedImage(700, 420, java.awt.image.BufferedImage.TYPE_INT_RGB);
        var pen = image.createGraphics();
        pen.setColor(java.awt.Color.WHITE);
        pen.fillRect(0, 0, 700, 420);
        int y = 40;
        for (String text : List.of("00005E0053C1", "OC2-AAAA-0009")) {
            var bits = writer.encode(text, com.google.zxing.BarcodeFormat.CODE_128, 600, 110);
            for (int x = 0; x < bits.getWidth(); x++)
                for (int h = 0; h < 110; h++) if (bits.get(x, h)) image.setRGB(50 + x, y + h, 0);
            y += 200;
        }
        var png = new java.io.ByteArrayOutputStream();
        javax.imageio.ImageIO.write(image, "png", png);
        var read = picture(path, png.toByteArray());
        assertThat(read.status()).as(read.body()).isEqualTo(200);
        assertThat(read.json().get("macs").get(0).get("reading").get("value").asString())
                .isEqualTo("00:00:5E:00:53:C1");
        assertThat(read.json().get("serial").get("reading").get("value").asString())
                .isEqualTo("OC2-AAAA-0009");
        assertThat(picture(path, "not a picture".getBytes(StandardCharsets.UTF_8))
                        .code())
                .isEqualTo("no-picture");
        assertThat(picture(path, java.util.Arrays.copyOf(png.toByteArray(), 90)).code())
                .isEqualTo("no-picture");
        pen.fillRect(0, 0, 700, 420);
        var blank = new java.io.ByteArrayOutputStream();
        javax.imageio.ImageIO.write(image, "png", blank);
        assertThat(picture(path, blank.toByteArray()).code()).isEqualTo("no-code");
    }

    private Api.Answer picture(String path, byte[] bytes) {
        return api.sendBytes("POST", path, "application/octet-stream", bytes);
    }
}
