package app.knottag.server.onboard;

import static org.assertj.core.api.Assertions.assertThat;

import app.knottag.core.kind.GateType;
import app.knottag.core.kind.Kind;
import app.knottag.core.kind.Kinds;
import app.knottag.core.runbook.GateForm;
import app.knottag.core.time.DateStyle;
import app.knottag.server.Api;
import app.knottag.server.Hands;
import app.knottag.server.Running;
import app.knottag.server.account.Role;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

class OnboardApiTest {

    private static final JsonMapper JSON = new JsonMapper();
    private static final Map<String, String> SERIALS = Map.ofEntries(
            Map.entry("counter-payment-terminal", "OC2-AAAA-0007"),
            Map.entry("till-pin-pad", "PP-40881207"),
            Map.entry("kiosk-set", "QS-20017"),
            Map.entry("time-clock", "TK204417"),
            Map.entry("fingerprint-reader", "FR2200417"),
            Map.entry("door-reader", "DR-410022"),
            Map.entry("storage-box", "SB7K20XA11"),
            Map.entry("document-scanner", "NS300917"),
            Map.entry("copier", "KX0044172"),
            Map.entry("fax-adapter", "FA770215"),
            Map.entry("meeting-room-hub", "MH3300218"),
            Map.entry("watched-outlet", "WO110473"),
            Map.entry("label-printer", "LW-30418B"),
            Map.entry("signature-pad", "SP204418"),
            Map.entry("camera", "CM50021877"),
            Map.entry("desk-phone", "DP60018442"));

    private final Api api = Running.as(Role.LEAD);
    private long[] site;

    @BeforeEach
    void aSite() {
        site = Running.site(api);
    }

    private long endpoint(String kind, String name, int host) {
        return api.post(
                        "/api/sites/" + site[0] + "/endpoints",
                        "{'segmentId':%d,'kind':'%s','name':'%s','address':'10.7.0.%d','mac':'00:00:5E:00:53:%02X',"
                                + "'serial':'%s','method':'FIXED'}",
                        site[1],
                        kind,
                        name,
                        host,
                        host,
                        SERIALS.getOrDefault(kind, "ABC-0007").replaceAll("7$", "" + host % 10))
                .expect(201)
                .json()
                .get("id")
                .asLong();
    }

    private static String book(long id) {
        return "/api/endpoints/" + id + "/runbook";
    }

    private Hands hands(long id) {
        return new Hands(api, id);
    }

    private JsonNode question(long id) {
        return hands(id).book();
    }

    private Api.Answer act(long id, String key, String action, Map<String, String> evidence) {
        return hands(id).act(key, action, evidence);
    }

    private Map<String, String> reads(long id, String key) {
        return hands(id).reads(key);
    }

    private void close(long id, String key) {
        hands(id).close(key);
    }

    static List<String> kinds() {
        return Kinds.SHIPPED;
    }

    @DisplayName("Every kind is carried from its first step to its sign-off by what was read")
    @ParameterizedTest(name = "{0}")
    @MethodSource("kinds")
    void fromFirstToLast(String kindId) {
        long id = endpoint(kindId, "The one", 57);
        var service = Kinds.shipped().get(kindId).service();
        Running.network("10.7.0.57", "00:00:5E:00:53:39", service.answer().replace("{serial}", serial(id)));
        var left = new ArrayList<String>();
        for (var s : question(id).get("steps")) left.add(s.get("key").asString());
        for (String key : left) {
            var gate = Hands.step(question(id), key).get("gate");
            if (gate.get("type").asString().equals(GateType.CONFIRMED.name())) {
                api.post("/api/endpoints/" + id + "/check-runs", "").expect(201);
                for (String seen : List.of("REAL_JOB DONE", "REFUSED REFUSED"))
                    if (seen.startsWith("REAL") || !service.refuses().isEmpty())
                        api.post(
                                        "/api/endpoints/" + id + "/observations",
                                        "{'check':'%s','outcome':'%s','evidence':'SEEN'}",
                                        (Object[]) seen.split(" "))
                                .expect(200);
                api.seen(id)
                        .post("/api/endpoints/" + id + "/confirmation", "{'note':'Done once'}")
                        .expect(204);
                continue;
            }
            hands(id).prepare(key);
            if (!Hands.step(question(id), key).get("waiting").isNull())
                act(id, key, "START", Map.of()).expect(200);
            var after = Hands.step(
                    act(id, key, "COMPLETE", reads(id, key)).expect(200).json(), key);
            assertThat(after.get("status").asString())
                    .as(key + " " + after.get("findings"))
                    .isEqualTo("PASSED");
        }
        assertThat(api.get("/api/endpoints/" + id).json().get("station").asString())
                .isEqualTo("HANDOVER");
    }

    private String serial(long id) {
        return api.get("/api/endpoints/" + id).json().get("serial").asString();
    }

    @Test
    void answersDecideWhichStepsApplyAndTheOthersSayWhy() {
        long id = endpoint("time-clock", "Hall clock", 21);
        assertThat(question(id).get("leftOut").get(0).get("because").asString()).isEqualTo("It has a plug-in supply.");
        api.seen(id).put(book(id) + "/facts", "{'facts':{'supply':'leads'}}").expect(200);
        assertThat(Hands.step(question(id), "supply").get("needs").asString()).isEqualTo("qualified electrician");
        api.seen(id).put(book(id) + "/facts", "{'facts':{'supply':'battery'}}").refused(422, "no-such-answer");
        api.seen(id).put(book(id) + "/facts", "{'facts':{'colour':'red'}}").refused(422, "no-such-fact");
        api.seen(id).put(book(id) + "/facts", "{'facts':{'supply':''}}").expect(200);
        assertThat(question(id).get("questions").get(1).get("given").asBoolean())
                .isFalse();
    }

    @Test
    void theWrongDeviceInHandIsNamedAndThreeFailuresOfferWaysOut() {
        long id = endpoint("fingerprint-reader", "Staff reader", 21);
        endpoint("fingerprint-reader", "Yard reader", 22);
        for (String key : List.of("consent", "kit", "variant"))
            act(id, key, "COMPLETE", reads(id, key)).expect(200);
        var wrong = Hands.step(
                act(id, "label", "COMPLETE", Map.of("unit", "0412")).expect(200).json(), "label");
        assertThat(wrong.get("findings").get(0).get("message").asString()).endsWith("It is Yard reader.");
        act(id, "label", "COMPLETE", reads(id, "label")).expect(200);
        for (int n = 1; n <= 3; n++) {
            var failed = Hands.step(
                    act(id, "wire", "COMPLETE", Map.of("steadiness", "STEADY", "colour", "crossed out"))
                            .json(),
                    "wire");
            assertThat(failed.get("waysOut").size()).isEqualTo(n < 3 ? 0 : 3);
        }
        act(id, "wire", "COMPLETE", reads(id, "wire")).expect(200);
        assertThat(Hands.step(question(id), "wire").get("waysOut")).isEmpty();
    }

    @Test
    void restartsAreCountedWhileItWaitsAndSayWhetherItIsStuck() {
        long id = Running.till(api, site, 3);
        for (String key : List.of("unpack", "kit", "variant", "label", "wire"))
            act(id, key, "COMPLETE", reads(id, key)).expect(200);
        act(id, "first-start", "RESTARTED", Map.of()).refused(409, "no-wait");
        act(id, "first-start", "START", Map.of()).expect(200);
        JsonNode waiting = null;
        for (int n = 0; n < 15; n++)
            waiting = Hands.step(
                            act(id, "first-start", "RESTARTED", Map.of())
                                    .expect(200)
                                    .json(),
                            "first-start")
                    .get("waiting");
        assertThat(waiting.get("restarts").asInt()).isEqualTo(15);
        assertThat(waiting.get("verdict").asString()).isEqualTo("CALL");
        assertThat(waiting.get("words").asString()).startsWith("15 restarts, and it makes 7 at most");
    }

    @Test
    void anOpeningHoldsUpTheHandOverAndAResetOpensItAgain() {
        long id = endpoint("storage-box", "Store", 21);
        hands(id).carry("secure");
        assertThat(Hands.step(
                                act(id, "secure", "COMPLETE", Map.of())
                                        .expect(200)
                                        .json(),
                                "secure")
                        .get("findings"))
                .hasSize(6);
        String path = book(id) + "/openings/";
        api.seen(id)
                .put(path + "firewall-open", "{'closed':false,'owner':'Joris'}")
                .refused(422, "end-missing");
        api.seen(id)
                .put(path + "firewall-open", "{'closed':false,'owner':'password is 1234','ends':'2099-01-01'}")
                .refused(422, "bad-words");
        var today = LocalDate.now(ZoneId.of("Europe/Berlin"));
        api.seen(id)
                .put(path + "firewall-open", "{'closed':false,'owner':'Joris','ends':'%s'}", today)
                .expect(200);
        for (String key : List.of("factory-administrator", "allow-list", "lockout", "one-account", "plain-page"))
            close(id, key);
        assertThat(Hands.step(act(id, "secure", "COMPLETE", Map.of()).json(), "secure")
                        .get("status")
                        .asString())
                .isEqualTo("PASSED");
        assertThat(question(id).get("handOverWaits").get(0).asString())
                .isEqualTo("Firewall open: Joris closes it by " + DateStyle.WORDS.day(today) + ".");
        api.seen(id).post(book(id) + "/reset", "{'why':''}").refused(422, "bad-words");
        var again = api.seen(id)
                .post(book(id) + "/reset", "{'why':'Nobody knew the password'}")
                .expect(200)
                .json();
        assertThat(again.get("handOverWaits")).hasSize(6);
        for (String key : List.of("address", "read-back", "restart", "clock", "secure"))
            assertThat(Hands.step(again, key).get("status").asString()).as(key).isEqualTo("PENDING");
        assertThat(Hands.step(again, "array").get("status").asString())
                .as("data stays")
                .isEqualTo("PASSED");
    }

    @Test
    void aResetThatTakesDataWithItNeedsABackupFirst() {
        long id = endpoint("fingerprint-reader", "Staff reader", 21);
        api.seen(id).post(book(id) + "/reset", "{'why':'Locked out'}").refused(422, "bad-words");
        api.seen(id)
                .post(book(id) + "/reset", "{'why':'Locked out','backup':'Records collected this morning'}")
                .expect(200);
        long printer = endpoint("other-endpoint", "Scale", 22);
        api.seen(printer).post(book(printer) + "/reset", "{'why':'Locked out'}").refused(409, "no-reset");
    }

    @Test
    void sealsAreComparedWithTheListAndNeverUsedTwice() {
        long first = endpoint("kiosk-set", "Kiosk 1", 21), second = endpoint("kiosk-set", "Kiosk 2", 22);
        api.seen(first)
                .put(book(first) + "/facts", "{'facts':{'seals':'441 442','case-number':'K-1'}}")
                .expect(200);
        var inputs = Hands.step(question(first), "seals").get("gate").get("inputs");
        assertThat(inputs).as("what was reported is on record").hasSize(1);
        var failed = Hands.step(
                act(first, "seals", "COMPLETE", Map.of("read", "442 443"))
                        .expect(200)
                        .json(),
                "seals");
        assertThat(failed.get("findings").get(0).get("message").asString())
                .isEqualTo("Seal 443 was reported as 441: one figure apart.");
        for (long id : List.of(first, second))
            for (var s : question(id).get("steps"))
                if (!List.of("count-back", "pack-away", "confirm")
                        .contains(s.get("key").asString()))
                    api.seen(id)
                            .put(
                                    book(id) + "/steps/" + s.get("key").asString(),
                                    "{'action':'OVERRIDE','reason':'Done before'}")
                            .expect(200);
        try (var sql = Running.database("knot_owner")) {
            sql.createStatement().execute("update step set status = 'PASSED' where key = 'confirm'");
            sql.createStatement()
                    .execute("insert into step (endpoint_id, key, status, evidence, findings, reason, by) select id, "
                            + "'confirm', 'PASSED', '{}', '[]', '', '' from endpoint where site_id = "
                            + site[0] + " on conflict do nothing");
        } catch (java.sql.SQLException e) {
            throw new AssertionError(e);
        }
        for (long id : List.of(first, second))
            api.seen(id)
                    .put(book(id) + "/steps/count-back", "{'action':'OVERRIDE','reason':'Counted before'}")
                    .expect(200);
        var used = Map.of("case", "K-1", "read", "9" + site[0] + "01, 9" + site[0] + "02");
        assertThat(Hands.step(act(first, "pack-away", "COMPLETE", used).json(), "pack-away")
                        .get("status")
                        .asString())
                .isEqualTo("PASSED");
        assertThat(Hands.step(act(second, "pack-away", "COMPLETE", used).json(), "pack-away")
                        .get("findings")
                        .get(0)
                        .get("message")
                        .asString())
                .contains("was used before");
        var night =
                api.get("/api/sites/" + site[0] + "/seals").expect(200).json().get(0);
        assertThat(night.get("cases")).hasSize(1);
        assertThat(night.get("cases").get(0).get("seals")).hasSize(2);
        api.post("/api/endpoints/" + second + "/unpack", "").refused(409, "not-packed");
        api.post("/api/endpoints/" + first + "/unpack", "").expect(200);
        assertThat(Hands.step(
                                act(first, "seals", "COMPLETE", Map.of("read", "9" + site[0] + "02 9" + site[0] + "01"))
                                        .json(),
                                "seals")
                        .get("status")
                        .asString())
                .as("the next morning reads what was sealed the night before")
                .isEqualTo("PASSED");
    }

    @Test
    void aCallSheetScoresWhatWasRepeated() {
        long id = endpoint("label-printer", "Printer", 54);
        var sheet = api.post(book(id) + "/call-sheet", "{'repeated':{'ADDRESS':'10.7.0.45','MASK':'255.255.255.0'}}")
                .expect(200)
                .json();
        assertThat(sheet.get("right").asInt() + " of " + sheet.get("of").asInt())
                .isEqualTo("1 of 3");
        assertThat(sheet.get("fields").get(0).get("message").asString()).startsWith("Two figures swapped");
    }

    @Test
    void twoPeopleOnOneRunbook() {
        long id = endpoint("label-printer", "Printer", 21);
        String seen = api.seen(id).ifMatch;
        var joris = Running.as(Role.TECHNICIAN);
        joris.seen(id)
                .send(
                        "PUT",
                        book(id) + "/steps/label",
                        JSON.writeValueAsString(Map.of("action", "COMPLETE", "evidence", reads(id, "label"))))
                .expect(200);
        api.ifMatch = seen;
        api.put(book(id) + "/steps/label", "{'action':'COMPLETE','evidence':{'unit':'0000'}}")
                .expect(412);
        assertThat(Hands.step(question(id), "label").get("by").asString()).isEqualTo("technician");
    }

    @DisplayName("A lead keeps her own kinds; a runbook that has begun goes on with its version")
    @Test
    void ownKinds() {
        String id = "mine-" + (char) ('a' + site[0] % 26) + (char) ('a' + site[0] / 26 % 26);
        String yaml = Kinds.shippedText("label-printer")
                .replace("id: label-printer", "id: " + id)
                .replaceFirst("version: \\d+", "version: 2");
        assertThat(kept(yaml).expect(201).json().get("version").asInt()).isEqualTo(2);
        long begun = endpoint(id, "Begun", 21), fresh = endpoint(id, "Fresh", 22);
        act(begun, "label", "COMPLETE", reads(begun, "label")).expect(200);
        kept(yaml).refused(409, "faulty-kind");
        String next = yaml.replace("version: 2", "version: 3").replace("title: Restart it", "title: Off and on");
        kept(next).expect(201);
        assertThat(Hands.step(question(fresh), "restart").get("title").asString())
                .isEqualTo("Off and on");
        assertThat(Hands.step(question(begun), "restart").get("title").asString())
                .isEqualTo("Restart it");
        assertThat(question(begun).get("latestVersion").asInt()).isEqualTo(3);
        var moved =
                api.seen(begun).post(book(begun) + "/latest", "").expect(200).json();
        assertThat(Hands.step(moved, "restart").get("title").asString()).isEqualTo("Off and on");
        assertThat(Hands.step(moved, "label").get("status").asString()).isEqualTo("PASSED");
        assertThat(api.get("/api/kinds/" + id + "/file?version=2").expect(200).body())
                .isEqualTo(yaml);
        assertThat(api.get("/api/kinds/" + id + "/versions").json()).hasSize(2);
        api.get("/api/kinds/no-such/file").refused(404, "not-found");
    }

    private Api.Answer kept(String yaml) {
        return api.send("POST", "/api/kinds", JSON.writeValueAsString(Map.of("yaml", yaml)));
    }

    @DisplayName("A faulty file is refused with its line, and nobody but a lead keeps one")
    @ParameterizedTest(name = "{0} -> {1}")
    @CsvSource(
            delimiter = '|',
            value = {
                "id: label-printer | id: label-printer | “label-printer” comes with Knot Tag.",
                "after: { address: | after: { adress:  | Step read-back waits for “adress”, which is no step.",
                "words: [printer]  | words: &a [*a] | Anchors and aliases are not read here: write it out.",
            })
    void faultyKinds(String was, String is, String message) {
        String yaml = Kinds.shippedText("label-printer").replace(was, is);
        var check = api.send("POST", "/api/kinds/check", JSON.writeValueAsString(Map.of("yaml", yaml)))
                .expect(200)
                .json();
        assertThat(check.get("findings").get(0).get("message").asString()).startsWith(message);
        assertThat(check.get("findings").get(0).get("line").asInt()).isPositive();
        kept(yaml).refused(409, "faulty-kind");
        Running.as(Role.TECHNICIAN)
                .send("POST", "/api/kinds", JSON.writeValueAsString(Map.of("yaml", yaml)))
                .expect(403);
    }

    @Test
    void restartsAtNightArePlacedAndStandOnTheTypeSheet() {
        String night = "/api/sites/" + site[0] + "/night";
        long first = Running.till(api, site, 1);
        Running.till(api, site, 2);
        long pad = endpoint("till-pin-pad", "PIN pad", 71);
        api.put(night + "/busy", "{'busy':[{'from':'07:00','until':'21:00','what':''}]}")
                .refused(422, "bad-words");
        api.put(night + "/busy", "{'busy':[{'from':'25:00','until':'21:00','what':'open'}]}")
                .refused(422, "bad-time");
        api.put(
                        night + "/busy",
                        "{'busy':[{'from':'07:00','until':'21:00','what':'the shop is "
                                + "open'},{'from':'23:00','until':'01:00','what':'the backup runs'}]}")
                .expect(200);
        var plan = api.post(night + "/hours", "").expect(200).json().get("plan");
        assertThat(plan.get("slots"))
                .hasSize(3)
                .allSatisfy(s -> assertThat(s.get("changed").asBoolean()).isFalse());
        assertThat(plan.get("changes")).hasSize(2);
        assertThat(question(pad).get("sheet"))
                .filteredOn(r -> r.get("field").asString().equals("RESTART_AT"))
                .singleElement()
                .extracting(r -> r.get("value").asString())
                .isEqualTo(plan.get("slots").get(0).get("from").asString().substring(0, 5));
        assertThat(question(first).get("facts").has("restart-at")).isTrue();
    }

    /** Whatever a gate asks for can be keyed in: no gate of a kind is without a form of its own. */
    @Test
    void theFormsComeWithTheSteps() {
        long id = endpoint("door-reader", "Door", 21);
        for (var s : question(id).get("steps")) {
            var type = GateType.valueOf(s.get("gate").get("type").asString());
            if (type == GateType.SIGNAL)
                assertThat(s.get("gate").get("inputs").get(0).get("form").asString())
                        .isEqualTo(GateForm.Form.PICK.name());
            if (!s.get("needs").asString().isEmpty())
                assertThat(s.get("gate").get("inputs").toString()).contains(GateForm.PERSON);
        }
        Kind kind = Kinds.shipped().get("door-reader");
        assertThat(question(id).get("reset").get("hold").asString()).isEqualTo("5 to 8 s, until it beeps");
        assertThat(question(id).get("outfit").get("kit"))
                .hasSize(kind.outfit().kit().size());
    }
}
