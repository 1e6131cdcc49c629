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
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
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

    private static final String LIST = """
            {'name':'Once','type':'ACCESS_LIST','naming':'WORDS','longestName':40,'ownerNeeded':false,'sharing':'NONE','most':0,\
            'lifetime':0,'restart':true,'facts':['MAC','NAME'],'leadDays':0,'form':'CSV'}""";
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

    @DisplayName("The same key sent to both does it once, wherever a key is taken")
    @Test
    void keys() {
        String sites = "/api/sites/" + site[0], tills = "/api/endpoints/" + till;
        long list = here.seenSite(site[0])
                .put(sites + "/registries/0", LIST)
                .expect(200)
                .json()
                .get("id")
                .asLong();
        // Registered by itself before the whole list is handed over.
        var asked = new LinkedHashMap<>(
                Map.of("/api/registries/{id}/registrations", "{'endpointId':%d,'entered':true}".formatted(till)));
        asked.putAll(Map.of(
                "/api/sites",
                "{'name':'Two','code':'TWO','zone':'Europe/Berlin'}",
                "/api/sites/{siteId}/segments",
                "{'name':'Back','prefix':'10.8.0.0/24','gateway':'10.8.0.1','pools':[]}",
                "/api/sites/{siteId}/endpoints",
                "{'segmentId':%d,'kind':'copier','name':'Twice'}".formatted(site[1]),
                "/api/sites/{siteId}/endpoint-batches?preview=false",
                "{'segmentId':%d,'kind':'counter-payment-terminal','numbers':'2 to 4'}".formatted(site[1]),
                "/api/sites/{siteId}/visits",
                ("{'name':'Day','begins':'2031-11-25 06:00','walk':1,'people':[{'name':'Mira Twice','skills':[]}],"
                                + "'units':[{'endpointId':%d,'bench':true,'first':false}]}")
                        .formatted(till),
                "/api/sites/{siteId}/prerequisites",
                "{'name':'Key file','who':'payment desk','days':10,'after':''}",
                "/api/registries/{id}/hand-overs",
                "{'form':'ETHERS'}"));
        asked.put(
                "/api/sites/{siteId}/segments/{segmentId}/renumberings",
                "{'prefix':'10.7.0.0/24','gateway':'10.7.0.254','pools':[]}");
        asked.put("/api/endpoints/{id}/check-runs", "");
        asked.put(
                "/api/endpoints/{id}/swaps",
                "{'mac':'00:00:5e:00:53:a7','serial':'OC2-BBBB-0001','reason':'Its screen is broken'}");
        // That a pack is signed once and a case counts once is told with these.
        assertThat(asked.keySet().stream().map(p -> p.replaceAll("\\?.*", "")))
                .as("all that take a key")
                .containsExactlyInAnyOrderElementsOf(takesKey());
        asked.forEach((template, body) -> {
            String path = template.replace("{siteId}", "" + site[0])
                    .replace("{segmentId}", "" + site[1])
                    .replace("registries/{id}", "registries/" + list)
                    .replace("{id}", "" + till);
            here.key = there.key = "once at both: " + template.hashCode();
            here.ifMatch = there.ifMatch =
                    here.get(tills).response().headers().firstValue("ETag").orElseThrow();
            var one = here.post(path, body);
            assertThat(one.status()).as(one.body()).isBetween(200, 201);
            assertThat(there.post(path, body).expect(one.status()).json())
                    .as(path)
                    .isEqualTo(one.json());
        });
        String segments = "/api/sites/{siteId}/segments";
        there.key = null;
        here.key = "once at both: " + segments.hashCode();
        here.post("/api/sites/" + Running.site(there)[0] + "/segments", asked.get(segments))
                .refused(422, "idempotency-key-reused");
    }

    private Set<String> takesKey() {
        var paths = new TreeSet<String>();
        for (var path : here.get("/api/openapi").expect(200).json().get("paths").properties()) {
            boolean takes = path.getValue()
                    .path("post")
                    .path("parameters")
                    .valueStream()
                    .anyMatch(p -> p.get("name").asString().equals("Idempotency-Key"));
            if (takes && !path.getKey().matches(".*/(signature|reviews)")) paths.add(path.getKey());
        }
        return paths;
    }
}
