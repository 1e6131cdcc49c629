package app.knottag.server.machine;

import static org.assertj.core.api.Assertions.assertThat;

import app.knottag.server.Api;
import app.knottag.server.Running;
import app.knottag.server.account.Role;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.util.List;
import java.util.regex.Pattern;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;

/** What a monitor is told, and what it is not. */
class MetricsTest {

    private static final HttpClient HTTP = HttpClient.newHttpClient();

    /** A line as the text format 0.0.4 has it: a name, labels in quotes with nothing bare in them, a number, and nothing else. */
    private static final Pattern SAMPLE = Pattern.compile(
            "[a-zA-Z_:][a-zA-Z0-9_:]*(\\{([a-zA-Z_][a-zA-Z0-9_]*=\"([^\"\\\\\\n]|\\\\[\\\\\"n])*\",?)*\\})?"
                    + " (NaN|[+-]Inf|[+-]?[0-9.]+(E[+-]?[0-9]+)?)");

    private static HttpResponse<String> ask(String path) throws Exception {
        int port = Running.bean(Metrics.class).port();
        return HTTP.send(
                HttpRequest.newBuilder(URI.create("http://127.0.0.1:" + port + path))
                        .build(),
                HttpResponse.BodyHandlers.ofString());
    }

    private static double value(String metrics, String line) {
        return metrics.lines()
                .filter(l -> l.startsWith(line + " "))
                .mapToDouble(l -> Double.parseDouble(l.substring(line.length() + 1)))
                .findFirst()
                .orElse(0);
    }

    @DisplayName(
            "Each request counts once, under its route and outcome; nothing that was asked for, typed or refused is told")
    @Test
    void counted() throws Exception {
        String
                found =
                        "http_server_requests_seconds_count{method=\"GET\",route=\"/api/sites/{siteId}\",status=\"200\"}",
                refused = "http_server_requests_seconds_count{method=\"POST\",route=\"none\",status=\"403\"}",
                fast = found.replace("_count{", "_bucket{").replace("status=\"200\"}", "status=\"200\",le=\"+Inf\"}");
        var lead = Running.as(Role.LEAD);
        long[] site = Running.site(lead);
        Running.till(lead, site, 7);
        String before = ask("/metrics").body();
        for (int i = 0; i < 3; i++) lead.get("/api/sites/" + site[0]).expect(200);
        lead.get("/api/find?q=Needle-4711").expect(200);
        Running.as(Role.OFFICE)
                .post("/api/sites/" + site[0] + "/endpoints", "{}")
                .expect(403);
        new Api(Running.url()).send("GET", "/api/health", "").expect(200);
        var answer = ask("/metrics");
        String after = answer.body();
        assertThat(answer.headers().firstValue("Content-Type"))
                .hasValueSatisfying(t -> assertThat(t).startsWith("text/plain; version=0.0.4"));
        assertThat(after.lines().filter(l -> !l.startsWith("#")))
                .isNotEmpty()
                .allMatch(l -> SAMPLE.matcher(l).matches());
        assertThat(value(after, found) - value(before, found)).isEqualTo(3);
        assertThat(value(after, fast) - value(before, fast)).isEqualTo(3);
        assertThat(value(after, refused) - value(before, refused)).isEqualTo(1);
        assertThat(value(after, "knot_disk_free_bytes") + value(after, "knot_disk_free"))
                .isPositive();
        for (var name : List.of(
                "hikaricp_connections_active",
                "jvm_memory_used_bytes",
                "process_uptime_seconds",
                "logback_events_total",
                "knot_pages",
                "knot_concerns")) assertThat(after).contains("\n" + name);
        assertThat(after)
                .doesNotContain(
                        "Needle",
                        "00:00:5",
                        "10.7.0.",
                        "OC2-",
                        "/api/sites/" + site[0],
                        Running.PASSWORD,
                        "lead",
                        "jdbc:");
    }

    @DisplayName("Health is told there too, and nothing else is served")
    @Test
    void health() throws Exception {
        assertThat(ask("/health").body()).isEqualTo("{\"stands\":true}");
        assertThat(ask("/health").statusCode()).isEqualTo(200);
        for (var path : List.of("/", "/api/sites", "/env", "/health/../api/welcome"))
            assertThat(ask(path).statusCode()).as(path).isEqualTo(404);
    }
}
