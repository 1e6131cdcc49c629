package app.knottag.server.visit;

import static org.assertj.core.api.Assertions.assertThat;

import app.knottag.server.Api;
import app.knottag.server.Hands;
import app.knottag.server.Running;
import app.knottag.server.account.Role;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.concurrent.Callable;
import java.util.concurrent.Executors;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.JsonNode;

/** A visit: planned, followed by two people at once, and what it says afterwards. */
class VisitApiTest {

    private final Api api = Running.as(Role.TECHNICIAN);
    private long[] site;
    private long first;
    private long second;

    @BeforeEach
    void twoPrinters() {
        site = Running.site(Running.as(Role.LEAD));
        first = printer("Printer 1", 61);
        second = printer("Printer 2", 62);
    }

    private long printer(String name, int host) {
        return Running.as(Role.LEAD)
                .post(
                        "/api/sites/" + site[0] + "/endpoints",
                        "{'segmentId':%d,'kind':'label-printer','name':'%s','address':'10.7.0.%d',"
                                + "'mac':'00:00:5E:00:53:%d','serial':'LP7%04d','method':'FIXED'}",
                        site[1],
                        name,
                        host,
                        host,
                        host)
                .expect(201)
                .json()
                .get("id")
                .asLong();
    }

    private String asked(String people, String more) {
        return "{'name':'Second shop','begins':'2031-11-25 06:00','walk':1,'people':" + people
                + ",'units':[{'endpointId':" + first + ",'bench':true,'first':false},{'endpointId':" + second
                + ",'bench':true,'first':false}]"
                + more
                + "}";
    }

    private static final String TWO = "[{'name':'Imke','skills':[]},{'name':'Joost','skills':[]}]";

    private long visit(String people, String more) {
        long id = api.post(
                        "/api/sites/" + site[0] + "/visits", asked(people, more).replace("%", "%%"))
                .expect(201)
                .json()
                .get("id")
                .asLong();
        api.post("/api/visits/" + id + "/plan", "").expect(200);
        return id;
    }

    private JsonNode look(long id) {
        var answer = api.get("/api/visits/" + id).expect(200);
        api.ifMatch = answer.response().headers().firstValue("ETag").orElseThrow();
        return answer.json();
    }

    private static Instant at(JsonNode node, String field) {
        return Instant.parse(node.get(field).asString());
    }

    @Test
    void thePlanSaysWhenItIsDoneHowGoodThatIsAndWhatWouldHelp() {
        var v = look(visit("[{'name':'Imke'}]", ",'due':'2031-11-25 08:00','outlets':1"));
        var plan = v.get("plan");
        assertThat(plan.get("obstacles")).isEmpty();
        assertThat(at(plan, "finish"))
                .isAfterOrEqualTo(at(plan.get("bound"), "at"))
                .isBefore(at(v.get("head"), "due"));
        assertThat(plan.get("odds").get("inTime").asInt()).isEqualTo(100);
        var helps = new ArrayList<String>();
        for (var h : plan.get("helps")) helps.add(h.get("what").asString());
        assertThat(helps).contains("one more outlet and port on the bench");
        // The latest beginning is as much before the planned one as the finish is before the opening.
        var spare = Duration.between(at(plan, "finish"), at(v.get("head"), "due"));
        assertThat(at(plan.get("latest").get(0), "at"))
                .isEqualTo(at(plan, "from").plus(spare));
        var more = look(visit(TWO, ",'outlets':1"));
        var narrow = more.get("plan").get("turns");
        for (var a : narrow)
            for (var b : narrow)
                if (a.get("endpointId").asLong() == first && b.get("endpointId").asLong() == second)
                    assertThat(at(a, "from").isBefore(at(b, "done"))
                                    && at(b, "from").isBefore(at(a, "done")))
                            .as("two at once on one outlet")
                            .isFalse();
    }

    @DisplayName("What does not go is refused at its field")
    @ParameterizedTest(name = "{0} -> {1}: {3}")
    @CsvSource(
            delimiter = '|',
            value = {
                "'begins':'2031-11-25 06:00' | 'begins':'soon'                              | bad-moment   | /begins",
                "'walk':1                    | 'walk':61                                    | out-of-range | /walk",
                "'walk':1                    | 'walk':1,'outlets':-1                        | out-of-range | /outlets",
                "'walk':1                    | 'walk':1,'megabits':-5                       | out-of-range | /megabits",
                "'walk':1                    | 'walk':1,'due':'2031-11-25 05:00'            | out-of-range | /due",
                "'walk':1                    | 'walk':1,'due':'2031-12-25 05:00'            | out-of-range | /due",
                "{'name':'Joost','skills':[]}| {'name':'imke'}                              | name-taken   | /people/1/name",
                "{'name':'Joost','skills':[]}| {'name':'Joost','until':'25:00'}             | bad-time     | /people/1/until",
                "'walk':1                    | 'walk':1,'tools':[{'tool':'x','count':0,'kind':'x'}] | out-of-range | /tools/0/count",
                "'walk':1                    | 'walk':1,'places':[{'place':'','from':'6:00','until':'7:00'}] | bad-words | /places/0/place",
            })
    void refused(String was, String is, String code, String pointer) {
        var answer = api.post(
                        "/api/sites/" + site[0] + "/visits", asked(TWO, "").replace(was.strip(), is.strip()))
                .refused(422, code);
        assertThat(answer.json().get("errors").get(0).get("pointer").asString()).isEqualTo(pointer);
    }

    @Test
    void nobodyNothingAndStrangersAreRefused() {
        api.post("/api/sites/" + site[0] + "/visits", asked("[]", "")).refused(422, "nobody");
        api.post(
                        "/api/sites/" + site[0] + "/visits",
                        "{'name':'x','begins':'2031-11-25 06:00','walk':1,'people':[{'name':'Imke'}],'units':[]}")
                .refused(422, "nothing");
        long[] other = Running.site(Running.as(Role.LEAD));
        api.post("/api/sites/" + other[0] + "/visits", asked(TWO, "")).refused(422, "not-here");
        Running.as(Role.OFFICE)
                .post("/api/sites/" + site[0] + "/visits", asked(TWO, ""))
                .refused(403, "not-allowed");
        api.post("/api/sites/" + site[0] + "/visits", asked("[null]", "")).refused(400, "unreadable-request");
        api.get("/api/visits/999999").refused(404, "not-found");
    }

    @Test
    void oneLeadAtATimeAndWhatComesBeforeAllOthers() {
        String one = ",'tools':[{'tool':'USB lead','count':1,'kind':'label-printer'}]";
        var turns = look(visit(TWO, one)).get("plan").get("turns");
        for (var a : turns)
            for (var b : turns)
                if (a.get("endpointId").asLong() < b.get("endpointId").asLong())
                    assertThat(at(a, "from").isBefore(at(b, "until"))
                                    && at(b, "from").isBefore(at(a, "until")))
                            .as("two at once with one lead")
                            .isFalse();
        long id = api.post(
                        "/api/sites/" + site[0] + "/visits",
                        asked(TWO, "").replaceFirst("'first':false", "'first':true"))
                .expect(201)
                .json()
                .get("id")
                .asLong();
        api.post("/api/visits/" + id + "/plan", "").expect(200);
        var done = new ArrayList<Instant>();
        var begun = new ArrayList<Instant>();
        for (var t : look(id).get("plan").get("turns"))
            if (t.get("endpointId").asLong() == first) done.add(at(t, "done"));
            else begun.add(at(t, "from"));
        assertThat(begun)
                .allSatisfy(b -> assertThat(done).allSatisfy(d -> assertThat(b).isAfterOrEqualTo(d)));
    }

    private void take(long id, int person) {
        api.post("/api/visits/" + id + "/people/" + person + "/take", "").expect(200);
    }

    @Test
    void twoPeopleNeverGetTheSameAndWhatIsDoneIsNoted() {
        long id = visit(TWO, "");
        api.post("/api/visits/" + id + "/people/0/take", "").refused(409, "not-begun");
        look(id);
        api.post("/api/visits/" + id + "/begin", "").expect(200);
        take(id, 0);
        take(id, 1);
        var people = look(id).get("people");
        var held = new HashSet<Long>();
        for (var p : people) {
            assertThat(p.get("now").get("what").asString()).isEqualTo("GO_ON");
            held.add(p.get("now").get("endpointId").asLong());
        }
        assertThat(held).containsExactlyInAnyOrder(first, second);
        long mine = people.get(0).get("now").get("endpointId").asLong();
        take(id, 0);
        assertThat(look(id).get("people").get(0).get("now").get("endpointId").asLong())
                .as("what is in hand stays there")
                .isEqualTo(mine);
        // Up to the restart, which is set going and then runs alone.
        var hands = new Hands(api, mine);
        hands.carry("restart");
        hands.act("restart", "START", java.util.Map.of()).expect(200);
        var free = look(id).get("people").get(0);
        assertThat(free.get("now").get("what").asString())
                .as("nobody stands beside a restart")
                .isNotEqualTo("GO_ON");
        take(id, 0);
        var steps = new ArrayList<String>();
        for (var m : look(id).get("real")) steps.add(m.get("step").asString());
        assertThat(steps).contains("kit", "wire", "address", "read-back");
        api.post("/api/visits/" + id + "/people/1/drop", "").expect(200);
        assertThat(look(id).get("people").get(1).get("now").get("what").asString())
                .isEqualTo("DO");
        look(id);
        api.post("/api/visits/" + id + "/people/1/leave", "").expect(200);
        assertThat(look(id).get("people").get(1).get("now").get("what").asString())
                .isEqualTo("DONE");
        api.post("/api/visits/" + id + "/plan", "").expect(200);
        for (var t : look(id).get("plan").get("turns"))
            assertThat(t.get("who").asInt())
                    .as("nobody is given to who has left")
                    .isZero();
        api.post("/api/visits/" + id + "/end", "").expect(200);
        assertThat(look(id).get("head").get("state").asString()).isEqualTo("OVER");
        api.post("/api/visits/" + id + "/plan", "").refused(409, "visit-over");
        api.put("/api/visits/" + id, asked(TWO, "")).refused(409, "visit-over");
    }

    @Test
    void takenAtTheSameMomentOnlyOneHasIt() throws Exception {
        long id = visit(TWO, "");
        look(id);
        api.post("/api/visits/" + id + "/begin", "").expect(200);
        var both = new ArrayList<Callable<Api.Answer>>();
        for (int p = 0; p < 2; p++) {
            int person = p;
            var who = Running.as(person == 0 ? Role.LEAD : Role.TECHNICIAN);
            both.add(() -> who.post("/api/visits/" + id + "/people/" + person + "/take", ""));
        }
        var pool = Executors.newFixedThreadPool(2);
        try {
            for (var answer : pool.invokeAll(both))
                assertThat(answer.get().status()).isIn(200, 409);
        } finally {
            pool.shutdownNow();
        }
        var held = new ArrayList<Long>();
        for (var p : look(id).get("people"))
            if (p.get("now").get("what").asString().equals("GO_ON"))
                held.add(p.get("now").get("endpointId").asLong());
        assertThat(held).isNotEmpty().doesNotHaveDuplicates();
    }

    @Test
    void aVisitThatSomebodyElseChangedIsNotWrittenOver() {
        long id = visit(TWO, "");
        look(id);
        api.put("/api/visits/" + id, asked(TWO, ",'outlets':4")).expect(200);
        api.put("/api/visits/" + id, asked(TWO, ",'outlets':2")).refused(412, "changed-meanwhile");
        assertThat(look(id).get("means").get("outlets").asInt()).isEqualTo(4);
        assertThat(api.get("/api/visits").expect(200).json().findValuesAsString("name"))
                .contains("Second shop");
    }
}
