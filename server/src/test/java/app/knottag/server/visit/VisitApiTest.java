package app.knottag.server.visit;

import static org.assertj.core.api.Assertions.assertThat;

import app.knottag.server.Api;
import app.knottag.server.Hands;
import app.knottag.server.Running;
import app.knottag.server.account.Role;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.concurrent.Callable;
import java.util.concurrent.Executors;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.JsonNode;

/** A visit: planned, followed by two people at once, and what it says afterwards. */
class VisitApiTest {

    private static final AtomicInteger DAYS = new AtomicInteger();
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

    /** Each on a day of its own, since nobody is at two visits at once. */
    private String asked(String people, String more) {
        var day = LocalDate.of(2031, 11, 25).plusDays(DAYS.incrementAndGet());
        return raw(people, more).replace("2031-11-25", day.toString());
    }

    private String raw(String people, String more) {
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
        var v = look(visit("[{'name':'Imke'}]", ",'due':'2031-11-25 08:00','bench':{'outlets':1}"));
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
        var more = look(visit(TWO, ",'bench':{'outlets':1}"));
        var narrow = more.get("plan").get("turns");
        for (var a : narrow)
            for (var b : narrow)
                if (a.get("unitId").asLong() == first && b.get("unitId").asLong() == second)
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
                "'walk':1                    | 'walk':1,'travel':601                        | out-of-range | /travel",
                "'walk':1                    | 'walk':1,'bench':{'outlets':-1}                        | out-of-range | /bench/outlets",
                "'walk':1                    | 'walk':1,'megabits':-5                       | out-of-range | /megabits",
                "'walk':1                    | 'walk':1,'due':'2031-11-25 05:00'            | out-of-range | /due",
                "'walk':1                    | 'walk':1,'due':'2031-12-25 05:00'            | out-of-range | /due",
                "{'name':'Joost','skills':[]}| {'name':'imke'}                              | name-taken   | /people/1/name",
                "{'name':'Joost','skills':[]}| {'name':'Joost','until':'25:00'}             | bad-time     | /people/1/until",
                "'walk':1                    | 'walk':1,'tools':[{'tool':'x','count':0,'kind':'x'}] | out-of-range | /tools/0/count",
                "'walk':1                    | 'walk':1,'tasks':[{'title':'x','minutes':0}] | out-of-range | /tasks/0/minutes",
                "'begins':'2031-11-25 06:00' | 'begins':'2031-03-30 02:30'                  | no-such-time | /begins",
                "'walk':1                    | 'walk':1,'places':[{'place':'','from':'6:00','until':'7:00'}] | bad-words | /places/0/place",
            })
    void refused(String was, String is, String code, String pointer) {
        var answer = api.post("/api/sites/" + site[0] + "/visits", raw(TWO, "").replace(was.strip(), is.strip()))
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
        api.post(
                        "/api/sites/" + other[0] + "/visits",
                        asked(TWO, "").replace("" + first + ",'bench'", "999999,'bench'"))
                .refused(422, "not-here");
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
                if (a.get("unitId").asLong() < b.get("unitId").asLong())
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
            if (t.get("unitId").asLong() == first) done.add(at(t, "done"));
            else begun.add(at(t, "from"));
        assertThat(begun)
                .allSatisfy(b -> assertThat(done).allSatisfy(d -> assertThat(b).isAfterOrEqualTo(d)));
    }

    @Test
    void whatGoesAlongIsAddedUpAndWhatTakesDaysStandsOnTheList() {
        long till = Running.till(Running.as(Role.LEAD), site, 1);
        String body = "{'name':'Second shop','begins':'2031-11-25 06:00','walk':1,'people':[{'name':'Lotte'}],"
                + "'units':[{'endpointId':" + till + ",'bench':false,'first':false}]}";
        long id = api.post("/api/sites/" + site[0] + "/visits", body)
                .expect(201)
                .json()
                .get("id")
                .asLong();
        var needs = api.get("/api/visits/" + id + "/preparation").expect(200).json();
        assertThat(needs.at("/needs/0/units/0").asString()).isEqualTo("Till 1, OC2-AAAA-0001");
        assertThat(needs.at("/packing/boxes/0/kind").asString()).isEqualTo("Counter payment terminal");
        look(id);
        api.put("/api/visits/" + id, body).expect(200);
        var due = api.get("/api/sites/" + site[0] + "/due").expect(200).json();
        assertThat(due.get("visitOn").asString()).isEqualTo("2031-11-25");
        assertThat(due.get("orders").findValuesAsString("name"))
                .as("once, however often the visit is changed")
                .containsOnlyOnce("Payment key file for Second shop");
        look(id);
        api.put("/api/visits/" + id, body.replace("Second shop", "Third shop")).expect(200);
        assertThat(orders()).as("by its new name, once").containsOnlyOnce("Payment key file for Third shop");
        look(id);
        api.put("/api/visits/" + id, body.replace("Second shop", "Third shop").replace("':" + till, "':" + first))
                .expect(200);
        assertThat(orders()).as("what nobody needs any more").doesNotContain("Payment key file for Third shop");
        assertThat(api.get("/api/sites/" + site[0] + "/log").body())
                .contains("order renamed", "no longer to be ordered");
        assertThat(api.get("/api/sites/" + site[0] + "/reminders.ics").body())
                .contains("SUMMARY:Third shop", "DTSTART;TZID=Europe/Berlin:20311125T060000");
    }

    private List<String> orders() {
        return api.get("/api/sites/" + site[0] + "/due")
                .expect(200)
                .json()
                .get("orders")
                .findValuesAsString("name");
    }

    @DisplayName("Nobody is at two visits at once; whoever leaves one in time may come to the other")
    @Test
    void oneAtATime() {
        String visits = "/api/sites/" + site[0] + "/visits";
        api.post(visits, raw("[{'name':'Mira'}]", ",'due':'2031-11-25 08:00'")).expect(201);
        api.post(visits, raw("[{'name':'Nobody else'},{'name':'mira'}]", "")).refused(422, "at-another-visit");
        api.post(visits, raw("[{'name':'Mira','from':'09:00'}]", "")).expect(201);
        api.post(visits, raw("[{'name':'Nobody else'}]", "")).expect(201);
    }

    @Test
    void aTaskIsInOnePairOfHandsUntilItIsDone() {
        String task =
                "'tasks':[{'title':'Swap the storage box','minutes':20},{'title':'Close the firewall','minutes':5}]";
        String body = asked("[{'name':'Imke'}]", "," + task);
        long id = api.post("/api/sites/" + site[0] + "/visits", body)
                .expect(201)
                .json()
                .get("id")
                .asLong();
        api.post("/api/visits/" + id + "/plan", "").expect(200);
        var planned = new ArrayList<String>();
        for (var t : look(id).get("plan").get("turns"))
            planned.add(t.get("title").asString());
        assertThat(planned).contains("Swap the storage box", "Close the firewall");
        api.post("/api/visits/" + id + "/begin", "").expect(200);
        api.post("/api/visits/" + id + "/people/0/done", "").refused(409, "no-task-in-hand");
        var done = new ArrayList<String>();
        for (int i = 0; i < 8 && done.size() < 2; i++) {
            take(id, 0);
            var now = look(id).get("people").get(0).get("now");
            if (now.get("unitId").asLong() > 0) {
                api.post("/api/visits/" + id + "/people/0/drop", "").expect(200);
                // An endpoint comes first by the plan: it is carried through by hand, so that the tasks are next.
                new Hands(api, now.get("unitId").asLong()).carry("confirm");
                continue;
            }
            done.add(now.get("title").asString());
            api.post("/api/visits/" + id + "/people/0/done", "").expect(200);
        }
        assertThat(done).containsExactlyInAnyOrder("Swap the storage box", "Close the firewall");
        var tasks = look(id).get("tasks");
        for (var t : tasks) assertThat(t.get("done").asBoolean()).isTrue();
        // What is done stays, whatever is asked; what is not is taken away with its number.
        long other = api.post(
                        "/api/sites/" + site[0] + "/visits",
                        "{'name':'x','begins':'2033-01-01 06:00','walk':1,'people':[{'name':'Imke'}],'units':[],"
                                + "'tasks':[{'title':'One','minutes':5},{'title':'Two','minutes':5}]}")
                .expect(201)
                .json()
                .get("id")
                .asLong();
        long two = look(other).get("tasks").get(1).get("id").asLong();
        api.put(
                        "/api/visits/" + other,
                        "{'name':'x','begins':'2033-01-01 06:00','walk':1,'people':[{'name':'Imke'}],'units':[],"
                                + "'tasks':[{'id':%d,'title':'Two again','minutes':7},{'title':'Three','minutes':5}]}",
                        two)
                .expect(200);
        assertThat(look(other).get("tasks").findValuesAsString("title")).containsExactly("Two again", "Three");
        api.put(
                        "/api/visits/" + other,
                        "{'name':'x','begins':'2033-01-01 06:00','walk':1,'people':[{'name':'Imke'}],'units':[],"
                                + "'tasks':[{'id':999999,'title':'Of another','minutes':7}]}")
                .refused(422, "not-here");
    }

    @DisplayName("Two sites on one way: the drive is in the plan, each site has its own orders, both list the visit")
    @Test
    void twoSitesOnOneWay() {
        long[] other = Running.site(Running.as(Role.LEAD));
        long till = Running.till(Running.as(Role.LEAD), other, 1);
        long id = api.post(
                        "/api/sites/" + site[0] + "/visits",
                        "{'name':'Both shops','begins':'2032-05-03 06:00','walk':1,'travel':25,'people':[{'name':'Rasa'}],"
                                + "'units':[{'endpointId':%d,'bench':true,'first':false},"
                                + "{'endpointId':%d,'bench':true,'first':false}]}",
                        first,
                        till)
                .expect(201)
                .json()
                .get("id")
                .asLong();
        api.post("/api/visits/" + id + "/plan", "").expect(200);
        var visit = look(id);
        Instant end = Instant.MIN;
        long at = 0;
        for (var t : visit.get("plan").get("turns")) {
            long here = t.get("siteId").asLong();
            if (at != 0 && here != at)
                assertThat(Duration.between(end, at(t, "from"))).isGreaterThanOrEqualTo(Duration.ofMinutes(25));
            at = here;
            end = at(t, "until");
            assertThat(t.get("place").asString().startsWith("Site ")).isEqualTo(here == other[0]);
        }
        for (long s : new long[] {site[0], other[0]})
            assertThat(api.get("/api/sites/" + s + "/visits").body()).contains("Both shops");
        assertThat(api.get("/api/sites/" + other[0] + "/due").body()).contains("Payment key file for Both shops");
        assertThat(api.get("/api/sites/" + site[0] + "/due").body()).doesNotContain("Payment key file");
        api.post("/api/visits/" + id + "/begin", "").expect(200);
        var ways = new HashSet<Duration>();
        for (int i = 0; i < 12 && ways.size() < 2; i++) {
            var now = look(id).get("people").get(0).get("now");
            if (!now.get("what").asString().equals("DO")) break;
            take(id, 0);
            var taken = look(id).get("people").get(0).get("now");
            ways.add(Duration.ofMinutes(Duration.between(Instant.now(), at(taken, "since"))
                    .plusSeconds(30)
                    .toMinutes()));
            var hands = new Hands(api, now.get("unitId").asLong());
            hands.carry("restart");
            hands.act("restart", "START", java.util.Map.of());
        }
        assertThat(ways)
                .as("the first turn is at hand, and whoever goes to the other site is half an hour on the way")
                .containsExactlyInAnyOrder(Duration.ZERO, Duration.ofMinutes(25));
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
            held.add(p.get("now").get("unitId").asLong());
        }
        assertThat(held).containsExactlyInAnyOrder(first, second);
        long mine = people.get(0).get("now").get("unitId").asLong();
        take(id, 0);
        assertThat(look(id).get("people").get(0).get("now").get("unitId").asLong())
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
        String seen = api.ifMatch;
        api.post("/api/visits/" + id + "/people/1/leave", "").expect(200);
        assertThat(look(id).get("people").get(1).get("now").get("what").asString())
                .isEqualTo("DONE");
        assertThat(api.ifMatch)
                .as("that a colleague leaves is no change of what was planned")
                .isEqualTo(seen);
        api.post("/api/visits/" + id + "/plan", "").expect(200);
        for (var t : look(id).get("plan").get("turns"))
            assertThat(t.get("who").asInt())
                    .as("nobody is given to who has left")
                    .isZero();
        look(id);
        api.put(
                        "/api/visits/" + id,
                        "{'name':'Second shop','begins':'2034-01-01 06:00','walk':1,'people':[{'name':'Imke'},{'name':'Joost'}],"
                                + "'units':[{'endpointId':%d,'bench':true,'first':false}]}",
                        mine == first ? second : first)
                .expect(200);
        assertThat(look(id).get("people").get(1).get("gone").asBoolean())
                .as("who has left stays away when the visit is changed")
                .isTrue();
        api.post("/api/visits/" + id + "/end", "").expect(200);
        assertThat(look(id).get("real").size())
                .as("what was done stays on record")
                .isPositive();
        assertThat(look(id).get("head").get("state").asString()).isEqualTo("OVER");
        api.post("/api/visits/" + id + "/plan", "").refused(409, "visit-over");
        api.put("/api/visits/" + id, asked(TWO, "")).refused(409, "visit-over");
    }

    @DisplayName("Minutes for the invoice count from the beginning or from when they came until they left or the end")
    @ParameterizedTest
    @CsvSource({
        ",      ,      ,      120", "06:30, ,      ,      90", "05:00, ,      ,      120", ",      07:00, ,      60",
        ",      09:00, ,      120", ",      ,      06:45, 45", "07:30, 07:45, 07:40, 10", "09:00, ,      ,      0"
    })
    void minutesForTheInvoice(String from, String until, String left, int minutes) {
        var at = left == null ? VisitBrief.Whereabouts.UNKNOWN : new VisitBrief.Whereabouts("", true, moment(left));
        var who = new VisitBrief.Person("Imke", List.of(), moment(from), moment(until), at);
        assertThat(who.there(moment("06:00"), moment("08:00"))).isEqualTo(minutes);
    }

    private static Instant moment(String clock) {
        return clock == null ? null : Instant.parse("2031-11-25T" + clock + ":00Z");
    }

    @DisplayName("What would not go is left for another day: nobody is told to do it, and it is among what is left")
    @Test
    void leftForAnotherDay() {
        long id = visit("[{'name':'Imke'}]", "");
        look(id);
        api.post("/api/visits/" + id + "/begin", "").expect(200);
        String hand = "/api/visits/" + id + "/people/0/";
        api.post(hand + "set-aside", "").refused(409, "nothing-in-hand");
        take(id, 0);
        long broken = look(id).at("/people/0/now/unitId").asLong();
        long other = broken == first ? second : first;
        api.post(hand + "set-aside", "").expect(200);
        var v = look(id);
        assertThat(v.at("/people/0/now/unitId").asLong()).isEqualTo(other);
        assertThat(v.get("plan").get("turns").findValues("unitId"))
                .extracting(JsonNode::asLong)
                .containsOnly(other);
        for (var u : v.get("units")) {
            assertThat(u.get("aside").asBoolean()).isEqualTo(u.get("endpointId").asLong() == broken);
            assertThat(u.get("done").asBoolean()).isFalse();
        }
        api.post("/api/visits/" + id + "/units/" + broken + "/take-in", "").expect(200);
        assertThat(look(id).get("plan").get("turns").findValues("unitId"))
                .extracting(JsonNode::asLong)
                .contains(broken, other);
        api.post("/api/visits/" + id + "/units/999999/take-in", "").refused(404, "not-found");
        assertThat(api.get("/api/sites/" + site[0] + "/log?endpointId=" + broken)
                        .body())
                .contains("left for another day", "taken in again");
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
                held.add(p.get("now").get("unitId").asLong());
        assertThat(held).isNotEmpty().doesNotHaveDuplicates();
    }

    @Test
    void aVisitThatSomebodyElseChangedIsNotWrittenOver() {
        long id = visit(TWO, "");
        look(id);
        api.put("/api/visits/" + id, asked(TWO, ",'bench':{'outlets':4}")).expect(200);
        api.put("/api/visits/" + id, asked(TWO, ",'bench':{'outlets':2}")).refused(412, "changed-meanwhile");
        assertThat(look(id).get("means").get("outlets").asInt()).isEqualTo(4);
        assertThat(api.get("/api/visits").expect(200).json().findValuesAsString("name"))
                .contains("Second shop");
    }
}
