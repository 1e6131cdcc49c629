package app.knottag.server.practice;

import static org.assertj.core.api.Assertions.assertThat;

import app.knottag.core.practice.Cases;
import app.knottag.core.practice.Hands;
import app.knottag.server.Api;
import app.knottag.server.Running;
import app.knottag.server.account.Role;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import java.util.stream.StreamSupport;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import tools.jackson.databind.JsonNode;

/** Practice over HTTP: what is asked, what is told, and what stays unsaid until the end. */
class PracticeApiTest {

    private final Api api = Running.as(Role.TECHNICIAN);

    private static String path(String id) {
        return "/api/practice/" + id;
    }

    private static Set<String> all(JsonNode way, String part, String name) {
        return StreamSupport.stream(way.spliterator(), false)
                .flatMap(s -> StreamSupport.stream(s.get(part).spliterator(), false))
                .map(l -> l.get(name).asString())
                .collect(Collectors.toSet());
    }

    @DisplayName(
            "Whatever can be looked at and be wrong stands at some place of the way, and what is wrong is not told")
    @ParameterizedTest
    @ValueSource(strings = {"mopped-floor", "guests-only", "two-at-once", "drawn-7"})
    void one(String id) {
        var c = Cases.find(id).orElseThrow();
        var shown = api.get(path(id)).expect(200);
        assertThat(all(shown.json().get("way"), "looks", "question"))
                .containsExactlyInAnyOrderElementsOf(
                        c.questions().stream().map(Enum::name).toList());
        assertThat(all(shown.json().get("way"), "causes", "fault"))
                .containsExactlyInAnyOrderElementsOf(
                        c.suspects().stream().map(Enum::name).toList());
        assertThat(shown.json().propertyNames())
                .containsExactlyInAnyOrder("id", "title", "device", "level", "levelWords", "call", "lately", "way");
    }

    @DisplayName("A case is played: what looks show, what was wrong, and how it went stays with whoever played it")
    @Test
    void played() {
        var looks = api.post(path("mopped-floor") + "/looks", "{'asked':['LINK','PLUGS']}")
                .expect(200)
                .json();
        assertThat(looks.at("/looks/1/said").asString()).isEqualTo("The plug at the wall was loose");
        assertThat(looks.get("minutes").asDouble()).isEqualTo(1.0);
        api.key = "one end of one case";
        String end = "{'asked':['LINK','PLUGS'],'named':['CABLE_OUT_AT_WALL']}";
        var review =
                api.post(path("mopped-floor") + "/reviews", end).expect(201).json();
        assertThat(api.post(path("mopped-floor") + "/reviews", end).expect(201).json())
                .isEqualTo(review);
        assertThat(review.at("/next/id").asString())
                .isNotEqualTo("mopped-floor")
                .isEqualTo(api.get("/api/practice").json().at("/next/id").asString());
        assertThat(review.get("right").asBoolean()).isTrue();
        assertThat(review.get("truth").get(0).asString()).isEqualTo("The cable is out at the wall");
        assertThat(review.get("score").asDouble()).isGreaterThan(0.9);
        assertThat(review.get("looks")).hasSize(2);
        assertThat(review.get("best").size()).isPositive();
        var mine = api.get("/api/practice").expect(200).json();
        assertThat(mine.get("results")).hasSize(1);
        assertThat(mine.at("/results/0/title").asString()).isEqualTo("After the floor was mopped");
        assertThat(StreamSupport.stream(mine.get("cases").spliterator(), false)
                        .filter(l -> l.get("best").asDouble() >= 0))
                .hasSize(1);
        assertThat(mine.at("/kinds/0/played").asInt()).isEqualTo(1);
        assertThat(mine.at("/places/0/title").asString()).isNotBlank();
        assertThat(mine.at("/next/id").asString()).isNotEqualTo("mopped-floor").isNotBlank();
        assertThat(Running.as(Role.LEAD).get("/api/practice").json().get("results"))
                .isEmpty();
    }

    @DisplayName("A lead sees for what somebody is ready once that person agrees, and no longer than that")
    @Test
    void agreed() throws Exception {
        var lead = Running.as(Role.LEAD);
        // Another test may have agreed for everybody.
        for (var role : Role.values())
            Running.as(role).put("/api/me/practice-shown", "{'shown':false}").expect(204);
        for (int n = 0; n < 5; n++)
            Running.write(
                    "insert into practice_result (person, case_id, kind, level, at, causes, solved, minutes, par, score)"
                            + " values ('office', 'seen-before', 'copier', 'SECOND', now(), '{LEFT_MODEL}', true, 2, 2, 1)");
        var office = Running.as(Role.OFFICE);
        assertThat(office.get("/api/practice").json().get("ready").get(0).asString())
                .isEqualTo("SECOND");
        assertThat(lead.get("/api/practice-readiness").expect(200).json()).isEmpty();
        office.get("/api/practice-readiness").refused(403, "not-allowed");
        office.put("/api/me/practice-shown", "{'shown':true}").expect(204);
        assertThat(lead.get("/api/practice-readiness").json())
                .hasToString("[{\"name\":\"office\",\"levels\":[\"SECOND\"]}]");
        assertThat(office.get("/api/practice").json().get("shown").asBoolean()).isTrue();
        office.put("/api/me/practice-shown", "{'shown':false}").expect(204);
        assertThat(lead.get("/api/practice-readiness").json()).isEmpty();
    }

    @DisplayName("What cannot be is refused, and nothing is kept of it")
    @ParameterizedTest(name = "{0} {1}: {2}")
    @CsvSource(
            delimiter = '|',
            value = {
                "no-such-case | {'asked':[],'named':['NOTHING']}                  | 404 | not-found",
                "drawn--1     | {'asked':[],'named':['NOTHING']}                  | 404 | not-found",
                "mopped-floor | {'asked':[],'named':[]}                           | 422 | no-cause",
                "mopped-floor | {'asked':['LINK','LINK'],'named':['NOTHING']}     | 422 | asked-twice",
                "mopped-floor | {'asked':['SIGNAL'],'named':['NOTHING']}          | 422 | no-such-look",
            })
    void refused(String id, String body, int status, String code) {
        var answer = api.post(path(id) + "/reviews", body);
        answer.expect(status);
        assertThat(answer.body()).contains(code);
        Running.as(Role.OFFICE).post(path(id) + "/reviews", body).expect(403);
    }

    @DisplayName("There is a drawn case for every number")
    @Test
    void drawn() {
        assertThat(api.get(path("drawn-999999999"))
                        .expect(200)
                        .json()
                        .get("title")
                        .asString())
                .startsWith("Somebody’s ");
    }

    @DisplayName("A round of hands shows what there is to see and nothing else, and is judged as core judges it")
    @Test
    void hands() {
        var round = api.get(path("hands/5")).expect(200).json();
        var tasks = Hands.round(5);
        assertThat(round.get("tasks")).hasSize(tasks.size());
        for (int n = 0; n < tasks.size(); n++) {
            var shown = round.get("tasks").get(n);
            assertThat(shown.get("ask").asString()).isEqualTo(tasks.get(n).ask());
            assertThat(Stream.of("said", "label", "seals", "ports")
                            .filter(p -> !shown.get(p).isEmpty()))
                    .hasSize(1);
            for (String answer : new String[] {"", "SAME", "4", "10.0.0.1", "🧷"}) {
                var judged = api.post(path("hands/5/answers"), "{'task':%d,'answer':'%s'}", n, answer)
                        .expect(200)
                        .json();
                assertThat(judged.get("says").asString())
                        .isEqualTo(tasks.get(n).judge(answer).says());
            }
        }
        api.get(path("hands/-1")).expect(404);
        api.post(path("hands/5/answers"), "{'task':10,'answer':''}").expect(422);
        api.post(path("hands/5/answers"), "{'task':0,'answer':'%s'}", "1".repeat(101))
                .expect(422);
    }
}
