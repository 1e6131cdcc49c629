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
import java.util.Random;
import java.util.UUID;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.regex.Pattern;
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

    private final Random when = new Random(11);
    private final Path data = Files.createTempDirectory("knot-crash-");
    private final HttpClient http =
            HttpClient.newBuilder().cookieHandler(new CookieManager()).build();
    private final Map<Long, String> told = new ConcurrentHashMap<>();
    private final AtomicInteger number = new AtomicInteger();
    private String url;
    private String token = "";
    private long segment;
    private Path elsewhere;

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
            "After a kill -9 of the server or the database: every acknowledged write is there once, and the log's chain is whole")
    @Test
    void nothingAcknowledgedIsLost() throws Exception {
        int port = Demo.freePort(), refused = 0;
        for (int crash = 0; crash < CRASHES; crash++) {
            start(port);
            boolean base = crash % 2 == 1;
            var stopped = new AtomicBoolean();
            var errors = new ConcurrentHashMap<Integer, Integer>();
            var writers = new ArrayList<Thread>();
            for (int w = 0; w < WRITERS; w++) {
                var writer = new Thread(() -> write(stopped, errors));
                writers.add(writer);
                writer.start();
            }
            Thread.sleep(1_500 + when.nextInt(1_500));
            kill(base);
            // While only the database is gone the server stands, and says so.
            Thread.sleep(base ? 2_000 : 300);
            if (base)
                assertThat(http.send(request("/api/health").GET().build(), HttpResponse.BodyHandlers.ofString())
                                .statusCode())
                        .as("what somebody hears who watches from outside")
                        .isEqualTo(503);
            stopped.set(true);
            for (var writer : writers) writer.join();
            if (base)
                assertThat(errors.keySet())
                        .as("what is answered without a database")
                        .containsOnly(503);
            refused += errors.values().stream().mapToInt(Integer::intValue).sum();
        }
        start(port);
        var there = new HashMap<Long, String>();
        for (var e : endpoints())
            assertThat(there.put(e.get("id").asLong(), e.get("name").asString()))
                    .isNull();
        assertThat(told).hasSizeGreaterThan(10 * CRASHES);
        assertThat(there).containsAllEntriesOf(told);
        assertThat(there.values().stream().filter(told::containsValue)).doesNotHaveDuplicates();
        var chain = get("/api/log/check");
        assertThat(chain.get("whole").asBoolean()).as(chain.toString()).isTrue();
        System.out.printf(
                "| %-38s | %12s | %-20s | %s |%n",
                "killed while " + WRITERS + " people write",
                "0 lost",
                told.size() + " acknowledged",
                CRASHES + " times kill -9, server and base by turns; " + refused
                        + " answers 503 meanwhile; the log's chain is whole");
    }

    @DisplayName(
            "A backup made while people work comes up on an empty machine by the README alone, with the same log up to its moment")
    @Test
    void comesUpElsewhere() throws Exception {
        start(Demo.freePort());
        var stopped = new AtomicBoolean();
        var writer = new Thread(() -> write(stopped, new ConcurrentHashMap<>()));
        writer.start();
        while (told.size() < 5) Thread.sleep(50);
        var before = Map.copyOf(told);
        var file = data.resolve("backup.zip");
        String made = Demo.knot("backup", "--to", file.toString(), "--data", data.toString());
        stopped.set(true);
        writer.join();
        assertThat(told).hasSizeGreaterThan(before.size());
        var chain = chain();

        Demo.knot("stop", "--data", data.toString());
        elsewhere = Files.createTempDirectory("knot-elsewhere-");
        elsewhere.toFile().setExecutable(true, false);
        String back = Demo.knot("restore", file.toString(), "--data", elsewhere.toString());
        assertThat(back).contains("the log is whole", "./knot demo --data " + elsewhere);
        start(Demo.freePort(), elsewhere);
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
        http.send(request("/api/session").GET().build(), HttpResponse.BodyHandlers.ofString());
        var lead = said.get("people").get(0);
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

    private void write(AtomicBoolean stopped, Map<Integer, Integer> errors) {
        while (!stopped.get()) {
            String name = "Crash " + number.incrementAndGet();
            try {
                var answer = http.send(
                        request("/api/sites/1/endpoints")
                                .header("Idempotency-Key", UUID.randomUUID().toString())
                                .POST(HttpRequest.BodyPublishers.ofString(
                                        "{\"segmentId\":" + segment + ",\"kind\":\"label-printer\",\"name\":\"" + name
                                                + "\",\"method\":\"AUTOMATIC\"}"))
                                .build(),
                        HttpResponse.BodyHandlers.ofString());
                if (answer.statusCode() == 201)
                    told.put(JSON.readTree(answer.body()).get("id").asLong(), name);
                else errors.merge(answer.statusCode(), 1, Integer::sum);
            } catch (IOException gone) {
                // The server was killed: nobody was told anything.
                return;
            } catch (InterruptedException e) {
                throw new IllegalStateException(e);
            }
        }
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
