package app.knottag.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.Mockito.when;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.reach.Swept;
import app.knottag.server.account.Role;
import app.knottag.server.db.Claims;
import app.knottag.server.db.Claims.Work;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.Callable;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.CyclicBarrier;
import java.util.concurrent.Executors;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;
import java.util.function.Predicate;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.JsonNode;

/** Two servers on one database: what one of them knows, does or counts holds at the other. */
class TwoServersTest {

    private static Running.Second second;

    private final Api here = Running.as(Role.LEAD);
    private final Api there = here.at(second.url());
    private long[] site;
    private long till;

    @BeforeAll
    static void another() {
        second = new Running.Second();
    }

    @AfterAll
    static void ends() {
        second.close();
    }

    @BeforeEach
    void aSite() {
        site = Running.site(here);
        till = Running.till(here, site, 1);
        Running.network("10.7.0.51", "00:00:5E:00:53:01", "I AM OC2-AAAA-0001");
    }

    private static JsonNode until(Api api, String path, Predicate<JsonNode> holds) throws InterruptedException {
        for (int n = 0; n < 100; n++) {
            var answer = api.get(path).expect(200).json();
            if (holds.test(answer)) return answer;
            Thread.sleep(50);
        }
        throw new AssertionError("it never comes: " + api.get(path).body());
    }

    @DisplayName("Whoever signed in at one is signed in at the other, and wrong passwords are counted together")
    @Test
    void signedIn() {
        assertThat(there.get("/api/session").expect(200).json().get("name").asString())
                .isEqualTo("lead");
        var guesses = new Api(Running.url());
        guesses.get("/api/welcome");
        var elsewhere = guesses.at(second.url());
        for (int n = 0; n < 5; n++)
            (n % 2 == 0 ? guesses : elsewhere)
                    .post("/api/session", "{'name':'nobody at all','password':'wrong %d'}", n)
                    .refused(401, "wrong-name-or-password");
        guesses.post("/api/session", "{'name':'nobody at all','password':'x'}").refused(429, "too-many-tries");
        elsewhere
                .post("/api/session", "{'name':'nobody at all','password':'x'}")
                .refused(429, "too-many-tries");
    }

    @DisplayName("A sweep of one is looked on at, is not begun again, is not cut off by and is stopped at the other")
    @Test
    void sweeps() throws InterruptedException {
        String path = "/api/segments/" + site[1] + "/sweep";
        var over = new CountDownLatch(1);
        when(Running.PROBES.sweep(any(), any())).thenAnswer(c -> {
            var listener = c.<Swept.Listener>getArgument(1);
            for (int n = 1; !listener.stop() && n < 200; n++) {
                listener.asked(n);
                Thread.sleep(50);
            }
            over.countDown();
            return new Swept(Map.of(), Set.of(), "");
        });
        here.post(path, "").expect(202);
        int asked = until(there, path, s -> s.at("/sweep/asked").asInt() > 5)
                .at("/sweep/asked")
                .asInt();
        there.post(path, "").refused(409, "sweep-running");
        Running.readyAgain();
        until(there, path, s -> s.at("/sweep/asked").asInt() > asked);
        there.delete(path).expect(200);
        assertThat(over.await(5, TimeUnit.SECONDS)).isTrue();
        until(here, path, s -> s.at("/sweep/state").asString().equals("CANCELLED"));
        Running.network("10.7.0.51", "00:00:5E:00:53:01", "");
        there.post(path, "").expect(202);
        until(here, path, s -> s.at("/sweep/state").asString().equals("DONE"));
    }

    @DisplayName("What has come in of checks at one is shown by the other, and nothing once they are made")
    @Test
    void checks() throws Exception {
        var go = new CountDownLatch(1);
        var whois = Running.PROBES.whois(Ipv4Address.parse("10.7.0.51"));
        when(Running.PROBES.whois(any())).thenAnswer(c -> {
            go.await(10, TimeUnit.SECONDS);
            return whois;
        });
        String path = "/api/endpoints/" + till + "/check-runs";
        var pool = Executors.newSingleThreadExecutor();
        var made = pool.submit(() -> here.post(path, "").expect(201));
        var underway = until(there, path + "/underway", u -> u.get("results").size() > 0);
        assertThat(underway.get("running").asBoolean()).isTrue();
        go.countDown();
        made.get(20, TimeUnit.SECONDS);
        pool.shutdown();
        assertThat(there.get(path + "/underway").json().get("running").asBoolean())
                .isFalse();
    }

    @DisplayName("Of many that begin the same at both at once, one begins; a hundred times")
    @Test
    void races() throws Exception {
        var claims = List.of(Running.bean(Claims.class), second.bean(Claims.class));
        var pool = Executors.newFixedThreadPool(6);
        for (int round = 0; round < 100; round++) {
            long id = 5_000_000_000L + round;
            var together = new CyclicBarrier(6);
            var all = new ArrayList<Callable<Boolean>>();
            for (int n = 0; n < 6; n++) {
                var one = claims.get(n % 2);
                all.add(() -> {
                    together.await();
                    return one.take(Work.GEAR, id).isPresent();
                });
            }
            int won = 0;
            for (var one : pool.invokeAll(all)) if (one.get()) won++;
            assertThat(won).as("round " + round).isEqualTo(1);
        }
        pool.shutdown();
    }

    @DisplayName("A server that lost its hold goes on when nobody took over, and ends when somebody did")
    @Test
    void lost() throws SQLException {
        var one = Running.bean(Claims.class);
        var other = second.bean(Claims.class);
        var text = new TypeReference<String>() {};
        var claim = one.take(Work.NIGHT, 77_001).orElseThrow();
        claim.tell("half");
        assertThat(other.told(Work.NIGHT, 77_001, text, "")).contains("half");
        cut();
        assertThat(other.told(Work.NIGHT, 77_001, text, "")).isEmpty();
        assertThat(endsSoon(claim)).isFalse();
        assertThat(other.take(Work.NIGHT, 77_001)).isEmpty();
        cut();
        var theirs = other.take(Work.NIGHT, 77_001).orElseThrow();
        theirs.tell("theirs");
        assertThat(endsSoon(claim)).isTrue();
        claim.close();
        assertThat(one.told(Work.NIGHT, 77_001, text, "")).contains("theirs");
        theirs.close();
        assertThat(one.take(Work.NIGHT, 77_001)).isPresent();
    }

    private static boolean endsSoon(Claims.Claim claim) {
        for (int n = 0; n < 20 && !claim.ends(); n++) LockSupport.parkNanos(50_000_000);
        return claim.ends();
    }

    /** Ends the connection that holds it, as when the network between the two was away. */
    private static void cut() throws SQLException {
        try (var db = Running.database("knot_app");
                var end = db.createStatement()) {
            end.execute("select pg_terminate_backend(pid, 5000) from pg_locks"
                    + " where locktype = 'advisory' and classid = 7104 and objid = 77001");
        }
    }

    @DisplayName("All looks at a site, begun at both at once, are made once")
    @Test
    void looks() throws Exception {
        var go = new CountDownLatch(1);
        when(Running.PROBES.sweep(any(), any())).thenAnswer(c -> {
            go.await(10, TimeUnit.SECONDS);
            return new Swept(Map.of(), Set.of(), "");
        });
        String path = "/api/sites/" + site[0] + "/nights";
        here.post(path, "").expect(202);
        there.post(path, "").refused(409, "looks-running");
        go.countDown();
        var ended = until(there, path, n -> n.get("running").isEmpty());
        assertThat(ended.get("nights")).hasSize(1);
    }

    @DisplayName("The same key sent to both makes one")
    @Test
    void keys() {
        here.key = there.key = "the same key at both";
        String body = "{'name':'Two','code':'TWO','zone':'Europe/Berlin'}";
        var one = here.post("/api/sites", body).expect(201).json();
        assertThat(there.post("/api/sites", body).expect(201).json()).isEqualTo(one);
    }
}
