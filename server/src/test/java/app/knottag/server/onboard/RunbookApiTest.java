package app.knottag.server.onboard;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyInt;
import static org.mockito.ArgumentMatchers.eq;
import static org.mockito.Mockito.when;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.reach.Here;
import app.knottag.core.reach.Probes;
import app.knottag.core.reach.Whois;
import app.knottag.server.Api;
import app.knottag.server.Hands;
import app.knottag.server.Running;
import app.knottag.server.account.Role;
import java.sql.SQLException;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.stream.IntStream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

class RunbookApiTest {

    private final Api api = Running.as(Role.LEAD);
    private long[] site;
    private long id;

    @BeforeEach
    void aTill() {
        site = Running.site(api);
        id = Running.till(api, site, 1);
        network("00:00:5E:00:53:01", "I AM OC2-AAAA-0001");
    }

    private static void network(String mac, String answer) {
        Running.network("10.7.0.51", mac, answer);
        when(Running.PROBES.ask(eq(Ipv4Address.parse("10.7.0.31")), eq(7500), eq("TEST 10.7.0.51 7451")))
                .thenReturn(Optional.of("REACHED OC2-AAAA-0001"));
    }

    private Api.Answer saw(String check, String outcome, String evidence) {
        return api.post(
                "/api/endpoints/" + id + "/observations",
                "{'check':'%s','outcome':'%s','evidence':'%s'}",
                check,
                outcome,
                evidence);
    }

    private static JsonNode checkStatus(JsonNode line, String check) {
        for (var r : line.get("checks")) if (r.get("check").asString().equals(check)) return r;
        throw new AssertionError(check + " in " + line);
    }

    private Api.Answer step(String key, String body) {
        return api.seen(id).put("/api/endpoints/" + id + "/runbook/steps/" + key, body);
    }

    private String status(Api.Answer answer, String key) {
        return stepOf(answer.expect(200), key).get("status").asString();
    }

    private String station() {
        return api.get("/api/endpoints/" + id).json().get("station").asString() + " "
                + api.get("/api/endpoints/" + id).json().get("status").asString();
    }

    /** Everything that is left to do before its proof; what the terminal shows is read back as a person writes it. */
    private void tieAll(String address, String partner, String resolver2) {
        var hands = new Hands(api, id);
        hands.carry("read-back");
        step(
                        "read-back",
                        "{'action':'COMPLETE','evidence':{'ADDRESS':'" + address + "','MASK':'255.255.255.0',"
                                + "'GATEWAY':'10.7.0.1','RESOLVER_1':'10.7.0.1','RESOLVER_2':'" + resolver2
                                + "','SERVICE_PORT':'7451','PARTNER_ADDRESS':'" + partner
                                + "','PARTNER_PORT':'7500'}}")
                .expect(200);
        hands.carry("confirm");
    }

    @Test
    void stepsAreTiedInOrderByWhatWasSeen() {
        step("wire", "{'action':'COMPLETE','evidence':{'seen':'steady'}}").refused(409, "steps-before");
        assertThat(status(step("unpack", "{'action':'COMPLETE','evidence':{'seen':'broken'}}"), "unpack"))
                .isEqualTo("FAILED");
        assertThat(station()).isEqualTo("ONBOARD FAILED");
        assertThat(status(step("unpack", "{'action':'COMPLETE','evidence':{'seen':'whole'}}"), "unpack"))
                .isEqualTo("PASSED");
        step("confirm", "{'action':'COMPLETE'}").refused(409, "sign-off-needed");
        step("nowhere", "{'action':'COMPLETE'}").refused(422, "bad-value");
    }

    @DisplayName(
            "A runbook that is looked at in the middle of a change is of one moment: its version is that of its steps")
    @Test
    void oneMoment() throws Exception {
        String path = "/api/endpoints/" + id + "/runbook";
        var done = new ConcurrentHashMap<String, String>();
        var seen = ConcurrentHashMap.<List<String>>newKeySet();
        var over = new AtomicBoolean();
        var readers = IntStream.range(0, 3)
                .mapToObj(n -> CompletableFuture.runAsync(() -> {
                    var colleague = Running.as(Role.TECHNICIAN);
                    while (!over.get()) seen.add(moment(colleague.get(path)));
                }))
                .toList();
        for (int n = 0; n < 150; n++) {
            String action = n % 2 == 0 ? "{'action':'OVERRIDE','reason':'Not here'}" : "{'action':'REOPEN'}";
            var moment = moment(step("unpack", action).expect(200));
            done.put(moment.get(0), moment.get(1));
        }
        over.set(true);
        for (var reader : readers) reader.get();
        assertThat(seen).hasSizeGreaterThan(20);
        for (var moment : seen)
            if (done.containsKey(moment.get(0)))
                assertThat(moment.get(1)).as("at version " + moment.get(0)).isEqualTo(done.get(moment.get(0)));
    }

    private List<String> moment(Api.Answer book) {
        return List.of(
                book.response().headers().firstValue("ETag").orElseThrow(),
                stepOf(book, "unpack").get("status").asString());
    }

    @Test
    void aWaitRunsForEverybodyAndEndsWithItsStep() {
        for (String key : List.of("unpack", "kit", "variant", "label", "wire"))
            step(key, "{'action':'OVERRIDE','reason':'Done by the supplier'}").expect(200);
        assertThat(status(step("first-start", "{'action':'START'}"), "first-start"))
                .isEqualTo("ACTIVE");
        var running = running(Running.as(Role.OFFICE)).get(0);
        assertThat(running.get("endpoint").asString() + ", "
                        + running.get("step").asString() + ", "
                        + running.get("pace").asString())
                .isEqualTo("Till 1, First start, TOO_EARLY");
        step("first-start", "{'action':'COMPLETE','evidence':{'seen':'restarting'}}")
                .expect(200);
        assertThat(running(api)).hasSize(1);
        step("first-start", "{'action':'COMPLETE','evidence':{'seen':'welcome'}}")
                .expect(200);
        assertThat(running(api)).isEmpty();
        step("address", "{'action':'START'}").refused(409, "no-wait");
    }

    /** Waits of this site, out of those that run anywhere. */
    private List<JsonNode> running(Api by) {
        var waits = new ArrayList<JsonNode>();
        for (var wait : by.get("/api/running").expect(200).json())
            if (wait.get("siteId").asLong() == site[0]) waits.add(wait);
        return waits;
    }

    @Test
    void theBoardSaysWhatIsNextAndWhatRunsBesideIt() throws Exception {
        long second = Running.till(api, site, 2);
        var office = Running.as(Role.OFFICE);
        String board = "/api/sites/" + site[0] + "/board";
        assertThat(board(office, board))
                .containsExactly("NOW Till 1: Unpack, check the seals", "NEXT Till 2: Unpack, check the seals");
        for (String key : List.of("unpack", "kit", "variant", "label", "wire"))
            step(key, "{'action':'OVERRIDE','reason':'Done by the supplier'}").expect(200);
        step("first-start", "{'action':'START'}").expect(200);
        assertThat(board(office, board))
                .containsExactly("NOW Till 2: Unpack, check the seals", "RUNS Till 1: First start");
        try (var database = Running.database("knot_owner");
                var sql = database.createStatement()) {
            sql.execute(
                    "update step set started_at = now() - interval '60 min' where key = 'first-start' and endpoint_id = "
                            + id);
        }
        assertThat(board(office, board))
                .containsExactly("NOW Till 1: First start", "NEXT Till 2: Unpack, check the seals");
        api.seen(second)
                .post("/api/endpoints/" + second + "/retirement", "{'reason':'Sold'}")
                .expect(204);
        assertThat(board(office, board)).hasSize(1);
    }

    private static List<String> board(Api api, String path) {
        var lines = new ArrayList<String>();
        for (var l : api.get(path).expect(200).json().get("lines"))
            lines.add(l.get("state").asString() + " " + l.get("name").asString() + ": "
                    + l.get("title").asString());
        return lines;
    }

    @Test
    void leavingOutNeedsAReasonThatStays() {
        step("unpack", "{'action':'OVERRIDE','reason':'  '}").refused(422, "reason-missing");
        step("unpack", "{'action':'OVERRIDE','reason':'the pin is 9911'}").refused(422, "bad-words");
        var step = step("unpack", "{'action':'OVERRIDE','reason':'Came without a seal'}")
                .expect(200)
                .json()
                .get("steps")
                .get(0);
        assertThat(step.get("status").asString() + ": " + step.get("reason").asString())
                .isEqualTo("SKIPPED: Came without a seal");
    }

    @Test
    void provedSignedOffAndLoosenedAgain() {
        api.post("/api/endpoints/" + id + "/check-runs", "").expect(201);
        api.seen(id).post("/api/endpoints/" + id + "/confirmation", "{}").refused(409, "steps-before");
        tieAll("010.007.000.051", "10.7.0.31", "203.0.113.9");
        assertThat(station()).isEqualTo("CONFIRM ACTIVE");
        network("00:00:5E:00:53:C1", "");
        var failed =
                api.post("/api/endpoints/" + id + "/check-runs", "").expect(201).json();
        assertThat(checkStatus(failed, "WHO_ANSWERS").get("note").asString())
                .startsWith("00:00:5E:00:53:C1 answers, not 00:00:5E:00:53:01.");
        assertThat(station()).isEqualTo("CONFIRM FAILED");
        api.seen(id).post("/api/endpoints/" + id + "/confirmation", "{}").refused(409, "not-proved");
        network("00:00:5E:00:53:01", "I AM OC2-AAAA-0001");
        var held =
                api.post("/api/endpoints/" + id + "/check-runs", "").expect(201).json();
        assertThat(held.get("missing").asString()).isEqualTo("“It does its real job” was not seen yet.");
        assertThat(checkStatus(held, "ADDRESS_SHOWN").get("evidenceWords").asString())
                .as("read back in the runbook")
                .isEqualTo("read back");
        assertThat(checkStatus(held, "PORT_OPEN").get("vantage").asString()).isEqualTo("this machine, 10.7.0.250");
        api.seen(id).post("/api/endpoints/" + id + "/confirmation", "{}").refused(409, "not-proved");
        saw("LINK", "LIT", "PHOTO").expect(200);
        saw("REAL_JOB", "FAILS", "SEEN").expect(200);
        api.get("/api/endpoints/" + id + "/diagnosis").expect(200);
        saw("REAL_JOB", "FULL", "SEEN").refused(422, "no-such-outcome");
        saw("PORT_OPEN", "OPEN", "SEEN").refused(422, "by-machine");
        saw("REFUSED", "REFUSED", "SEEN").refused(422, "no-such-check");
        saw("REAL_JOB", "DONE", "TOOL").refused(422, "no-tool");
        assertThat(saw("REAL_JOB", "DONE", "SPOKEN")
                        .expect(200)
                        .json()
                        .get("grade")
                        .asString())
                .isEqualTo("THIN");
        assertThat(saw("REAL_JOB", "DONE", "SEEN")
                        .expect(200)
                        .json()
                        .get("grade")
                        .asString())
                .isEqualTo("FAIR");
        assertThat(saw("DEVICE_TO_PARTNER", "REACHES", "SEEN")
                        .expect(200)
                        .json()
                        .get("grade")
                        .asString())
                .isEqualTo("FIRM");
        api.seen(id).post("/api/endpoints/" + id + "/confirmation", "{}").expect(204);
        assertThat(station()).isEqualTo("HANDOVER PASSED");
        assertThat(api.get("/api/endpoints/" + id).json().get("standing").asString())
                .isEqualTo("Proved and signed off by lead, to be handed over");
        saw("REAL_JOB", "FAILS", "SPOKEN").expect(200);
        assertThat(station()).as("what people see fail is no longer signed off").isEqualTo("CONFIRM ACTIVE");
        saw("REAL_JOB", "DONE", "SEEN").expect(200);
        api.seen(id).post("/api/endpoints/" + id + "/confirmation", "{}").expect(204);
        String segment = "/api/sites/" + site[0] + "/segments/" + site[1];
        String sheet = "{'name':'%s','prefix':'10.7.0.0/24','gateway':'10.7.0.1','resolvers':['%s']}";
        api.seenSite(site[0]).put(segment, sheet, "Shop", "10.7.0.1").expect(204);
        assertThat(station()).as("other resolvers on the site sheet").isEqualTo("ONBOARD ACTIVE");
        for (var step : api.get("/api/endpoints/" + id + "/runbook").json().get("steps"))
            if (step.get("key").asString().matches("address|read-back"))
                assertThat(step.get("status").asString())
                        .as("what was typed and read back holds the old ones")
                        .isEqualTo("PENDING");
        tieAll("10.7.0.51", "10.7.0.31", "");
        assertThat(checkStatus(api.get("/api/endpoints/" + id + "/verification").json(), "NAMES")
                        .get("loosened")
                        .asString())
                .isEqualTo("Its mask, gateway, resolvers or method are others since.");
        api.post("/api/endpoints/" + id + "/check-runs", "").expect(201);
        for (String seen : List.of("REAL_JOB DONE", "DEVICE_TO_PARTNER REACHES", "AFTER_RESTART PLANNED"))
            saw(seen.split(" ")[0], seen.split(" ")[1], "SEEN").expect(200);
        api.seen(id).post("/api/endpoints/" + id + "/confirmation", "{}").expect(204);
        api.seenSite(site[0]).put(segment, sheet, "Shop floor", "10.7.0.1").expect(204);
        assertThat(station()).as("another name of the segment").isEqualTo("HANDOVER PASSED");
        api.seen(id).patch("/api/endpoints/" + id, "{'place':'Left counter'}").expect(200);
        assertThat(station()).as("noted, not moved").isEqualTo("HANDOVER PASSED");
        var office = Running.as(Role.OFFICE);
        assertThat(office.post("/api/endpoints/" + id + "/office-word", "{'reached':true}")
                        .expect(200)
                        .json()
                        .get("apart")
                        .asString())
                .isEqualTo("Here and at the office it holds.");
        office.post("/api/endpoints/" + id + "/observations", "{'check':'LINK','outcome':'LIT','evidence':'SEEN'}")
                .expect(403);
        api.post(
                        "/api/sites/" + site[0] + "/endpoints",
                        "{'segmentId':%d,'kind':'label-printer','name':'Printer','partnerName':'Till 1 "
                                + "workstation','partnerAddress':'10.7.0.77'}",
                        site[1])
                .expect(201);
        assertThat(station())
                .as("its partner has another address by somebody else's form, and knows nothing of it there")
                .isEqualTo("ONBOARD ACTIVE");
        tieAll("10.7.0.51", "10.7.0.77", "");
        assertThat(station()).isEqualTo("CONFIRM ACTIVE");
        assertThat(checkStatus(api.get("/api/endpoints/" + id + "/verification").json(), "PARTNER")
                        .get("loosened")
                        .asString())
                .isEqualTo("Its partner is another since, or has another address.");
        when(Running.PROBES.ask(eq(Ipv4Address.parse("10.7.0.77")), eq(7500), eq("TEST 10.7.0.51 7451")))
                .thenReturn(Optional.of("REACHED OC2-AAAA-0001"));
        api.post("/api/endpoints/" + id + "/check-runs", "").expect(201);
        for (String seen : List.of("REAL_JOB DONE", "DEVICE_TO_PARTNER REACHES"))
            saw(seen.split(" ")[0], seen.split(" ")[1], "SEEN").expect(200);
        api.seen(id).post("/api/endpoints/" + id + "/confirmation", "{}").expect(204);
        api.seen(id).patch("/api/endpoints/" + id, "{'place':'Right counter'}").expect(200);
        assertThat(station()).as("moved").isEqualTo("CONFIRM ACTIVE");
        var moved =
                api.get("/api/endpoints/" + id + "/verification").expect(200).json();
        assertThat(checkStatus(moved, "REAL_JOB").get("loosened").asString())
                .isEqualTo("It moved since, from Left counter to Right counter.");
        assertThat(checkStatus(moved, "AFTER_RESTART").get("loosened").asString())
                .isEmpty();
        api.seen(id).patch("/api/endpoints/" + id, "{'address':'10.7.0.61'}").expect(200);
        assertThat(station()).isEqualTo("ONBOARD ACTIVE");
        assertThat(api.get("/api/endpoints/" + id + "/runbook")
                        .json()
                        .get("current")
                        .asString())
                .isEqualTo("address");
    }

    @DisplayName("Another address reopens what was read off it too, though that step stands in no kind")
    @Test
    void anotherAddressReopensWhatWasReadOffIt() throws SQLException {
        api.seen(id).patch("/api/endpoints/" + id, "{'method':'LEARNED'}").expect(200);
        try (var db = Running.database("knot_owner");
                var statement = db.createStatement()) {
            statement.execute("""
                    insert into step (endpoint_id, key, status, started_at, ended_at, evidence, findings, reason, by, tries, restarts)
                    values (%d, 'learn', 'PASSED', now(), now(), '{}', '[]', '', 'lead', 0, 0)""".formatted(id));
        }
        assertThat(status(api.get("/api/endpoints/" + id + "/runbook"), "learn"))
                .isEqualTo("PASSED");
        api.seen(id).patch("/api/endpoints/" + id, "{'address':'10.7.0.62'}").expect(200);
        assertThat(status(api.get("/api/endpoints/" + id + "/runbook"), "learn"))
                .isEqualTo("PENDING");
    }

    @DisplayName("A reset loosens what it undoes, and says so; another MAC loosens what rests on it")
    @Test
    void aResetAndAnotherMacLoosenTheRightProofs() {
        api.post("/api/endpoints/" + id + "/check-runs", "").expect(201);
        saw("LINK", "LIT", "PHOTO").expect(200);
        saw("AFTER_RESTART", "PLANNED", "SEEN").expect(200);
        api.seen(id)
                .post("/api/endpoints/" + id + "/runbook/reset", "{'why':'It hung','backup':'Written down'}")
                .expect(200);
        var line = api.get("/api/endpoints/" + id + "/verification").json();
        assertThat(checkStatus(line, "LINK").get("status").asString()).isEqualTo("PASSED");
        assertThat(checkStatus(line, "GATEWAY").get("status").asString()).isNotEqualTo("PENDING");
        for (String check : List.of("ANSWERS", "SERVICE", "AFTER_RESTART"))
            assertThat(checkStatus(line, check).get("loosened").asString())
                    .as(check)
                    .isEqualTo("It was reset since.");
        api.seen(id)
                .patch("/api/endpoints/" + id, "{'mac':'00:00:5E:00:53:6F'}")
                .expect(200);
        assertThat(checkStatus(api.get("/api/endpoints/" + id + "/verification").json(), "LINK")
                        .get("loosened")
                        .asString())
                .startsWith("Its MAC on record is another since");
    }

    @DisplayName("What another tool said is read, and weighed only while something fails")
    @Test
    void whatIsPastedIsReadAndWeighed() {
        String path = "/api/endpoints/" + id + "/pasted", text = "? (10.7.0.51) at 00:00:5e:00:53:99 [ether] on eth0";
        api.post(path, "{'text':' '}").refused(422, "missing");
        var read = api.post(path, "{'text':'%s'}", text).expect(200).json();
        assertThat(read.get("findings").get(0).get("words").asString())
                .isEqualTo("10.7.0.51 is 00:00:5E:00:53:99, not 00:00:5E:00:53:01.");
        assertThat(read.get("weighed").asBoolean()).isFalse();
        network("00:00:5E:00:53:01", "");
        when(Running.PROBES.connect(any(), anyInt())).thenReturn(Probes.Connection.REFUSED);
        when(Running.PROBES.here()).thenReturn(new Here(List.of()));
        api.post("/api/endpoints/" + id + "/check-runs", "").expect(201);
        assertThat(api.post(path, "{'text':'%s'}", text)
                        .expect(200)
                        .json()
                        .get("weighed")
                        .asBoolean())
                .isTrue();
        assertThat(api.get("/api/endpoints/" + id + "/diagnosis")
                        .json()
                        .get("seen")
                        .toString())
                .contains("another MAC");
        Running.as(Role.OFFICE).post(path, "{'text':'%s'}", text).expect(403);
    }

    @DisplayName("A site learns from the faults that were found and mended there, once there are enough")
    @Test
    void theSitesOwnHistoryIsWeighed() {
        for (int n = 0; n < 9; n++) {
            network("00:00:5E:00:53:01", "");
            when(Running.PROBES.connect(any(), anyInt())).thenReturn(Probes.Connection.REFUSED);
            when(Running.PROBES.ask(any(), anyInt(), any())).thenReturn(Optional.of("REFUSED"));
            api.post("/api/endpoints/" + id + "/check-runs", "").expect(201);
            String questions = "/api/endpoints/" + id + "/diagnosis/answers";
            assertThat(api.get("/api/endpoints/" + id + "/diagnosis")
                            .json()
                            .get("learns")
                            .asBoolean())
                    .isEqualTo(n >= 8);
            assertThat(api.put(questions, "{'question':'FIELDS','outcome':'PORT'}")
                            .expect(200)
                            .json()
                            .get("found")
                            .asBoolean())
                    .isTrue();
            network("00:00:5E:00:53:01", "I AM OC2-AAAA-0001");
            api.post("/api/endpoints/" + id + "/check-runs", "").expect(201);
            // That it holds again says nothing about why: only what a person says mended it is learned.
            assertThat(found()).isEqualTo(n);
            api.post("/api/endpoints/" + id + "/diagnosis/mended", "{'fault':'OTHER_PORT'}")
                    .expect(204);
            assertThat(found()).isEqualTo(n + 1);
        }
        Running.as(Role.OFFICE)
                .post("/api/endpoints/" + id + "/diagnosis/mended", "{'fault':'OTHER_PORT'}")
                .expect(403);
    }

    private int found() {
        try (var db = Running.database("knot_owner");
                var query = db.createStatement();
                var rows = query.executeQuery("select count(*) from fault_found where endpoint_id = " + id)) {
            rows.next();
            return rows.getInt(1);
        } catch (SQLException e) {
            throw new IllegalStateException(e);
        }
    }

    @Test
    void checksStayOnTheSitesOwnGround() {
        long away = api.post("/api/sites/" + site[0] + "/endpoints", """
                {'segmentId':%d,'kind':'label-printer','name':'Printer','address':'10.7.0.60','mac':'00:00:5E:00:53:0F',
                'serial':'LW-30418B','partnerName':'Far','partnerAddress':'198.51.100.7'}""", site[1])
                .expect(201)
                .json()
                .get("id")
                .asLong();
        api.post("/api/endpoints/" + away + "/check-runs", "").refused(409, "foreign-ground");
    }

    @DisplayName("What failed is diagnosed from what the machine saw, then by what people see; a new round begins anew")
    @Test
    void causesAreWeighedAndTheNextLookIsAskedFor() {
        String path = "/api/endpoints/" + id + "/diagnosis";
        api.get(path).refused(409, "nothing-failed");
        network("00:00:5E:00:53:C1", "");
        api.post("/api/endpoints/" + id + "/check-runs", "").expect(201);
        var first = api.get(path).expect(200).json();
        assertThat(first.get("suspects").get(0).get("title").asString()).startsWith("Another device");
        assertThat(first.get("seen").toString()).contains("another MAC");
        when(Running.PROBES.whois(any())).thenReturn(new Whois(Set.of(), Whois.How.ASKED));
        api.post("/api/endpoints/" + id + "/check-runs", "").expect(201);
        var next = api.get(path).expect(200).json().get("next");
        assertThat(next.get("outcomes").size()).isGreaterThan(1);
        String questions = path + "/answers", question = next.get("question").asString();
        api.put(questions, "{'question':'%s','outcome':'FULL'}", question).refused(422, "no-such-outcome");
        api.put(questions, "{'question':'TELEPATHY','outcome':'YES'}").expect(400);
        var passed = api.put(questions, "{'question':'%s','outcome':'CANNOT_BE_TOLD'}", question)
                .expect(200)
                .json();
        assertThat(passed.get("next").isNull()
                        || !passed.get("next").get("question").asString().equals(question))
                .as("what cannot be told is not asked again")
                .isTrue();
        var told = api.put(questions, "{'question':'ADDRESS_SHOWN','outcome':'IN_USE'}")
                .expect(200)
                .json();
        assertThat(told.get("suspects").get(0).get("title").asString())
                .isEqualTo("Another device had its address first");
        assertThat(told.get("suspects").get(0).get("remedy")).isNotEmpty();
        Running.as(Role.OFFICE)
                .put(questions, "{'question':'LINK','outcome':'LIT'}")
                .expect(403);
        network("00:00:5E:00:53:01", "I AM OC2-AAAA-0001");
        api.post("/api/endpoints/" + id + "/check-runs", "").expect(201);
        api.get(path).refused(409, "nothing-failed");
    }

    @Test
    void theDiagnosisAnswersForAnybodyAndKeepsNothing() {
        var said = Running.as(Role.OFFICE)
                .post("/api/reach/diagnose", """
                        {'traits':{'registered':false,'partnered':true,'speaks':true,'callsOut':true},
                         'made':[{'question':'LINK','outcome':'DARK'},{'question':'POWER','outcome':'OFF'}]}""")
                .expect(200)
                .json();
        assertThat(said.get("suspects").get(0).get("title").asString()).isEqualTo("It has no power");
        double sum = said.get("others").asDouble() + said.get("noneOfThese").asDouble();
        for (var s : said.get("suspects")) sum += s.get("probability").asDouble();
        assertThat(sum).isCloseTo(1, within(1e-9));
        String doubted = """
                {'traits':{'registered':false,'partnered':true,'speaks':true,'callsOut':true},
                 'made':[{'question':'LINK','outcome':'DARK'},{'question':'POWER','outcome':'OFF'}],'passed':['CLOCK'],
                 'settings':{'eyes':%s}}""";
        assertThat(api.post("/api/reach/diagnose", doubted, "0.4")
                        .expect(200)
                        .json()
                        .get("suspects")
                        .get(0)
                        .get("probability")
                        .asDouble())
                .as("eyes that are wrong so often prove less")
                .isLessThan(said.get("suspects").get(0).get("probability").asDouble());
        for (var told : Map.of(
                        "'joined':'WIRELESS'", "SIGNAL=NOT_JOINED=It has not joined the wireless",
                        "'reserved':true", "POOL=FULL=The router has no address left to hand out")
                .entrySet()) {
            var seen = told.getValue().split("=");
            assertThat(api.post(
                                    "/api/reach/diagnose",
                                    "{'traits':{'registered':false,'partnered':false,'speaks':true,'callsOut':true,"
                                            + told.getKey()
                                            + "},'made':[{'question':'NEIGHBOUR','outcome':'NOBODY'},"
                                            + "{'question':'ADDRESS_SHOWN','outcome':'SELF'},{'question':'"
                                            + seen[0] + "','outcome':'" + seen[1] + "'}]}")
                            .expect(200)
                            .json()
                            .get("suspects")
                            .toString())
                    .contains(seen[2]);
        }
        api.post("/api/reach/diagnose", doubted, "0.9").expect(422);
        api.post(
                        "/api/reach/diagnose",
                        "{'traits':{'registered':true,'partnered':true,'speaks':true,'callsOut':true},"
                                + "'made':[{'question':'LINK','outcome':'FULL'}]}")
                .refused(422, "no-such-outcome");
    }

    @DisplayName(
            "What was done without network counts from when it was done; never from later than now, or more than a day ago")
    @Test
    void doneEarlier() {
        for (String key : List.of("unpack", "kit", "variant", "label", "wire"))
            step(key, "{'action':'OVERRIDE','reason':'Done by the supplier'}").expect(200);
        var now = Instant.now().truncatedTo(ChronoUnit.SECONDS);
        String started = now.minus(25, ChronoUnit.MINUTES).toString(),
                ended = now.minus(5, ChronoUnit.MINUTES).toString();
        step("first-start", "{'action':'START','at':'" + now.plusSeconds(600) + "'}")
                .refused(422, "in-the-future");
        step("first-start", "{'action':'START','at':'" + now.minus(25, ChronoUnit.HOURS) + "'}")
                .refused(422, "too-late");
        step("first-start", "{'action':'START','at':'" + started + "'}").expect(200);
        var done = stepOf(
                step("first-start", "{'action':'COMPLETE','evidence':{'seen':'welcome'},'at':'" + ended + "'}")
                        .expect(200),
                "first-start");
        assertThat(done.get("startedAt").asString()).isEqualTo(started);
        assertThat(done.get("endedAt").asString()).isEqualTo(ended);
        step("first-start", "{'action':'REOPEN'}").expect(200);
        step("first-start", "{'action':'START','at':'" + ended + "'}").expect(200);
        assertThat(stepOf(
                                step(
                                        "first-start",
                                        "{'action':'COMPLETE','evidence':{'seen':'welcome'},'at':'" + started + "'}"),
                                "first-start")
                        .get("endedAt")
                        .asString())
                .as("nobody is done before having begun")
                .isEqualTo(ended);
    }

    private static JsonNode stepOf(Api.Answer runbook, String key) {
        for (var s : runbook.json().get("steps")) if (s.get("key").asString().equals(key)) return s;
        throw new AssertionError(key + " in " + runbook.body());
    }
}
