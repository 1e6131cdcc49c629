package app.knottag.e2e;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.net.CookieManager;
import java.net.HttpCookie;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.UUID;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.locks.LockSupport;
import java.util.regex.Pattern;
import java.util.stream.IntStream;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Pulls the plug of the server and of the database while people work, and looks whether anything they were told is lost. */
class CrashTest {

    private static final JsonMapper JSON = new JsonMapper();
    private static final int WRITERS = 4;

    /** More of them in the bench; the seed says when the plug is pulled. */
    private static final int CRASHES = Integer.getInteger("knot.crashes", 3);

    private static final int WRITES = Integer.getInteger("knot.writes", 400);
    private static final String FIRST_STEP = "kit";
    private static final String VISIT =
            "{\"name\":\"%1$s\",\"begins\":\"2031-11-25 06:00\",\"walk\":1,\"people\":[{\"name\":\"Mira of %1$s\",\"skills\":[]}],"
                    + "\"units\":[{\"endpointId\":%2$d,\"bench\":true,\"first\":false}]}";

    private final Random when = new Random(11);
    private final Path data = Files.createTempDirectory("knot-crash-");
    private final HttpClient http =
            HttpClient.newBuilder().cookieHandler(new CookieManager()).build();
    private final Map<Long, String> told = new ConcurrentHashMap<>();
    private final Set<String> planned = ConcurrentHashMap.newKeySet();
    private final AtomicInteger number = new AtomicInteger();
    private final AtomicInteger acknowledged = new AtomicInteger();
    private final AtomicInteger again = new AtomicInteger();
    private final AtomicInteger done = new AtomicInteger();
    private String url;
    private String token = "";
    private long segment;
    private Path elsewhere;
    private JsonNode lead;

    CrashTest() throws IOException {
        data.toFile().setReadable(true, false);
        data.toFile().setExecutable(true, false);
    }

    @AfterEach
    void stop() throws IOException {
        Demo.knot("stop", "--data", data.toString());
        if (elsewhere != null) Demo.knot("stop", "--data", elsewhere.toString());
    }

    @DisplayName(
            "After a kill -9 of server or database what was acknowledged is there, and what is sent again is done once")
    @Test
    void nothingAcknowledgedIsLost() throws Exception {
        int port = Demo.freePort();
        start(port);
        signIn();
        var errors = new ConcurrentHashMap<Integer, Integer>();
        var over = new AtomicBoolean();
        var writers = IntStream.range(0, WRITERS)
                .mapToObj(w -> CompletableFuture.runAsync(() -> {
                    while (!over.get()) work(errors);
                }))
                .toList();
        int refused = 0;
        for (int crash = 0; crash < CRASHES; crash++) {
            boolean base = crash % 2 == 1;
            atWork(writers, (crash + 1) * WRITES / (CRASHES + 1));
            Thread.sleep(when.nextInt(1_000));
            kill(base);
            // While only the database is gone the server stands, and says so.
            Thread.sleep(base ? 2_000 : 300);
            if (base)
                assertThat(http.send(request("/api/health").GET().build(), HttpResponse.BodyHandlers.ofString())
                                .statusCode())
                        .as("what somebody hears who watches from outside")
                        .isEqualTo(503);
            start(port);
            assertThat(errors.keySet())
                    .as("what is answered without a database")
                    .isSubsetOf(503);
            refused += errors.values().stream().mapToInt(Integer::intValue).sum();
            errors.clear();
        }
        atWork(writers, WRITES);
        over.set(true);
        for (var writer : writers) writer.get(60, TimeUnit.SECONDS);

        var there = new HashMap<Long, String>();
        for (var e : endpoints())
            assertThat(there.put(e.get("id").asLong(), e.get("name").asString()))
                    .isNull();
        for (var one : told.entrySet())
            assertThat(get("/api/endpoints/" + one.getKey()).get("model").asString())
                    .isEqualTo("M of " + one.getValue());
        assertThat(there).containsAllEntriesOf(told);
        assertThat(there.values().stream().filter(told::containsValue)).doesNotHaveDuplicates();
        var logged = new HashMap<String, Integer>();
        var visits = new ArrayList<String>();
        for (var e : get("/api/log.json").get("entries"))
            if (e.get("action").asString().equals("visit planned"))
                visits.add(JSON.readTree(e.get("after").asString()).path("name").asString(""));
            else if (told.containsKey(e.path("endpointId").asLong()))
                logged.merge(
                        e.get("endpointId").asLong() + " " + e.get("action").asString(), 1, Integer::sum);
        assertThat(logged.values()).as("done once is in the log once").containsOnly(1);
        assertThat(logged).hasSize(3 * told.size());
        assertThat(visits.stream().filter(planned::contains)).containsExactlyInAnyOrderElementsOf(planned);
        var chain = get("/api/log/check");
        assertThat(chain.get("whole").asBoolean()).as(chain.toString()).isTrue();
        System.out.printf(
                "| %-38s | %12s | %-20s | %s |%n",
                "killed while " + WRITERS + " people write",
                "0 lost",
                acknowledged.get() + " acknowledged",
                CRASHES + " times kill -9, server and base by turns; none doubled, " + again.get()
                        + " sent again after no answer, " + done.get() + " of these had been done; " + refused
                        + " answers 503 meanwhile; the log's chain is whole");
    }

    /** Waits until so many are acknowledged; a writer who broke off is told at once. */
    private void atWork(List<CompletableFuture<Void>> writers, int wanted) throws Exception {
        while (acknowledged.get() < wanted) {
            for (var writer : writers) if (writer.isDone()) writer.get();
            Thread.sleep(20);
        }
    }

    /** One endpoint is added, changed and has a step passed; for every fifth a visit is planned. */
    private void work(Map<Integer, Integer> errors) {
        int n = number.incrementAndGet();
        String name = "Crash " + n;
        var added = made("/api/sites/1/endpoints", endpoint(name), errors);
        long id = added.get("id").asLong();
        told.put(id, name);
        String path = "/api/endpoints/" + id;
        changed(path, "PATCH", path, "{\"model\":\"M of " + name + "\"}", "\"M of " + name + "\"", errors);
        changed(
                path + "/runbook",
                "PUT",
                path + "/runbook/steps/" + FIRST_STEP,
                "{\"action\":\"OVERRIDE\",\"reason\":\"Seen for " + name + "\"}",
                "Seen for " + name + "\"",
                errors);
        if (n % 5 != 0) return;
        made("/api/sites/1/visits", VISIT.formatted(name, id), errors);
        planned.add(name);
    }

    /** Creates with one key until there is an answer. */
    private JsonNode made(String path, String body, Map<Integer, Integer> errors) {
        String key = UUID.randomUUID().toString();
        while (true) {
            var answer = sent(
                    request(path).header("Idempotency-Key", key).POST(HttpRequest.BodyPublishers.ofString(body)),
                    errors);
            if (answer.isPresent()) {
                acknowledged.incrementAndGet();
                return JSON.readTree(answer.get());
            }
            again.incrementAndGet();
        }
    }

    /** Changes from what is seen; whoever got no answer looks whether it was done. */
    private void changed(
            String seen, String method, String path, String body, String mark, Map<Integer, Integer> errors) {
        for (boolean tried = false; ; tried = true) {
            var now = sent(request(seen).GET(), errors);
            if (now.isEmpty()) continue;
            if (now.get().contains(mark)) {
                assertThat(tried).as(mark + " before anybody said so").isTrue();
                done.incrementAndGet();
                acknowledged.incrementAndGet();
                return;
            }
            if (tried) again.incrementAndGet();
            var version = JSON.readTree(now.get()).get("version").asInt();
            if (sent(
                            request(path)
                                    .header("If-Match", "\"" + version + "\"")
                                    .method(method, HttpRequest.BodyPublishers.ofString(body)),
                            errors)
                    .isPresent()) {
                acknowledged.incrementAndGet();
                return;
            }
        }
    }

    /** What is answered, or nothing when nobody or only a server without its base is there. */
    private Optional<String> sent(HttpRequest.Builder request, Map<Integer, Integer> errors) {
        try {
            var answer = http.send(request.build(), HttpResponse.BodyHandlers.ofString());
            if (answer.statusCode() < 300) return Optional.of(answer.body());
            if (answer.statusCode() != 503)
                throw new IllegalStateException(
                        answer.request().uri() + ": " + answer.statusCode() + " " + answer.body());
            errors.merge(answer.statusCode(), 1, Integer::sum);
            Thread.sleep(100);
        } catch (IOException gone) {
            // The server was killed: nobody was told anything.
            LockSupport.parkNanos(100_000_000);
        } catch (InterruptedException e) {
            throw new IllegalStateException(e);
        }
        return Optional.empty();
    }

    @DisplayName(
            "A backup made while people work comes up on an empty machine by the README alone, with the same log up to its moment")
    @Test
    void comesUpElsewhere() throws Exception {
        start(Demo.freePort());
        signIn();
        var stopped = new AtomicBoolean();
        var writer = CompletableFuture.runAsync(() -> {
            while (!stopped.get()) work(new ConcurrentHashMap<>());
        });
        atWork(List.of(writer), 20);
        var before = Map.copyOf(told);
        var file = data.resolve("backup.zip");
        String made = Demo.knot("backup", "--to", file.toString(), "--data", data.toString());
        stopped.set(true);
        writer.get(60, TimeUnit.SECONDS);
        assertThat(told).hasSizeGreaterThan(before.size());
        var chain = chain();

        Demo.knot("stop", "--data", data.toString());
        elsewhere = Files.createTempDirectory("knot-elsewhere-");
        elsewhere.toFile().setExecutable(true, false);
        String back = Demo.knot("restore", file.toString(), "--data", elsewhere.toString());
        assertThat(back).contains("the log is whole", "./knot demo --data " + elsewhere);
        start(Demo.freePort(), elsewhere);
        signIn();
        var there = new HashMap<Long, String>();
        for (var e : endpoints()) there.put(e.get("id").asLong(), e.get("name").asString());
        assertThat(there).containsAllEntriesOf(before);
        var entry = Pattern.compile("the log up to entry (\\d+) \\((\\w+)\\)").matcher(made);
        assertThat(entry.find()).as(made).isTrue();
        var restored = chain();
        assertThat(restored.get(Long.parseLong(entry.group(1)))).startsWith(entry.group(2));
        assertThat(chain).as("the same entries as on the machine it came from").containsAllEntriesOf(restored);

        // Onto records nothing is brought back, and they are untouched; neither running nor stopped, nor by a broken
        // file.
        var broken = Files.writeString(data.resolve("broken.zip"), "half of it");
        for (var given : List.of(file, broken, data.resolve("none.zip")))
            assertThatThrownBy(() -> Demo.knot("restore", given.toString(), "--data", elsewhere.toString()))
                    .isInstanceOf(IllegalStateException.class);
        assertThat(chain()).containsAllEntriesOf(restored);
        Demo.knot("stop", "--data", elsewhere.toString());
        assertThatThrownBy(() -> Demo.knot("restore", file.toString(), "--data", elsewhere.toString()))
                .isInstanceOf(IllegalStateException.class);
        start(Demo.freePort(), elsewhere);
        signIn();
        assertThat(chain()).containsAllEntriesOf(restored);
    }

    /** The hash of every entry of the log. */
    private Map<Long, String> chain() throws Exception {
        var all = new HashMap<Long, String>();
        for (var e : get("/api/log.json").get("entries"))
            all.put(e.get("id").asLong(), e.get("hash").asString());
        return all;
    }

    /** Everything that is on record, page by page. */
    private List<JsonNode> endpoints() throws Exception {
        var all = new ArrayList<JsonNode>();
        for (String after = ""; ; ) {
            var page = get("/api/sites/1/endpoints" + after);
            page.forEach(all::add);
            if (page.size() < 500) return all;
            var last = page.get(page.size() - 1);
            after = "?afterAddress=" + last.path("address").asString("0.0.0.0") + "&afterId="
                    + last.get("id").asLong();
        }
    }

    private void start(int port) throws Exception {
        start(port, data);
    }

    private void start(int port, Path where) throws Exception {
        var said = JSON.readTree(Demo.knot("demo", "--json", "--port", "" + port, "--data", where.toString()));
        url = said.get("url").asString();
        lead = said.get("people").get(0);
    }

    private void signIn() throws Exception {
        http.send(request("/api/session").GET().build(), HttpResponse.BodyHandlers.ofString());
        var body = JSON.writeValueAsString(Map.of(
                "name",
                lead.get("name").asString(),
                "password",
                lead.get("password").asString()));
        var answer = http.send(
                request("/api/session")
                        .POST(HttpRequest.BodyPublishers.ofString(body))
                        .build(),
                HttpResponse.BodyHandlers.ofString());
        assertThat(answer.statusCode()).as(answer.body()).isEqualTo(200);
        // The token changes with the sign-in.
        http.send(request("/api/session").GET().build(), HttpResponse.BodyHandlers.ofString());
        segment = get("/api/sites/1/sheet").at("/segments/0/id").asLong();
    }

    private void kill(boolean base) throws IOException {
        long pid = Long.parseLong(Files.readAllLines(data.resolve(base ? "pg/postmaster.pid" : "run/server.pid"))
                .get(0)
                .strip());
        ProcessHandle.of(pid).orElseThrow().destroyForcibly();
    }

    private String endpoint(String name) {
        return "{\"segmentId\":" + segment + ",\"kind\":\"label-printer\",\"name\":\"" + name
                + "\",\"method\":\"AUTOMATIC\"}";
    }

    private JsonNode get(String path) throws Exception {
        var answer = http.send(request(path).GET().build(), HttpResponse.BodyHandlers.ofString());
        assertThat(answer.statusCode()).as(answer.body()).isEqualTo(200);
        return JSON.readTree(answer.body());
    }

    private void token() {
        token = ((CookieManager) http.cookieHandler().orElseThrow())
                .getCookieStore().get(URI.create(url)).stream()
                        .filter(c -> c.getName().contains("XSRF"))
                        .map(HttpCookie::getValue)
                        .findFirst()
                        .orElse("");
    }

    private HttpRequest.Builder request(String path) {
        if (url != null) token();
        return HttpRequest.newBuilder(URI.create(url + path))
                .timeout(Duration.ofSeconds(20))
                .header("Content-Type", "application/json")
                .header("X-XSRF-TOKEN", token.isEmpty() ? "none" : token);
    }
}
