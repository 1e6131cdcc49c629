package app.knottag.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.CookieManager;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.util.Map;
import java.util.UUID;
import java.util.stream.Stream;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** A small HTTP client as a page would be: keeps cookies, sends the CSRF token, a fresh idempotency key and a version. */
public final class Api {

    private static final JsonMapper JSON = new JsonMapper();

    static {
        // A connection that the server has just let go of is opened anew for every method, as a browser does.
        System.setProperty("jdk.httpclient.enableAllMethodRetry", "true");
    }

    private final CookieManager cookies;
    private final HttpClient http;
    private final String base;
    private HttpResponse.BodyHandler<String> handler = HttpResponse.BodyHandlers.ofString();
    public String key;
    public String ifMatch;
    public String contentType = "application/json";
    public boolean sendToken = true;
    /** Whether what it sends is held against the published description; what it gets always is. */
    public boolean meansWell = true;

    public Api(String base) {
        this(base, new CookieManager());
    }

    private Api(String base, CookieManager cookies) {
        this.base = base;
        this.cookies = cookies;
        http = HttpClient.newBuilder().cookieHandler(cookies).build();
    }

    /** The same browser at another server. */
    public Api at(String other) {
        return new Api(other, cookies);
    }

    public record Answer(int status, String body, HttpResponse<String> response) {
        public JsonNode json() {
            return JSON.readTree(body);
        }

        public String code() {
            return json().path("code").asString();
        }

        public String detail() {
            return json().path("detail").asString();
        }

        public Answer expect(int wanted) {
            assertThat(status).as(body).isEqualTo(wanted);
            return this;
        }

        public Answer refused(int wanted, String code) {
            expect(wanted);
            assertThat(code()).isEqualTo(code);
            assertThat(response.headers().firstValue("Content-Type"))
                    .hasValueSatisfying(t -> assertThat(t).startsWith("application/problem+json"));
            return this;
        }
    }

    public Answer get(String path) {
        return send("GET", path, "");
    }

    /** Single quotes stand for double ones, to keep JSON readable here. */
    public Answer post(String path, String body, Object... values) {
        return send("POST", path, quoted(body, values));
    }

    public Answer put(String path, String body, Object... values) {
        return send("PUT", path, quoted(body, values));
    }

    public Answer delete(String path) {
        return send("DELETE", path, "");
    }

    public Answer patch(String path, String body, Object... values) {
        return send("PATCH", path, quoted(body, values));
    }

    private static String quoted(String body, Object... values) {
        return (values.length == 0 ? body : String.format(body, values)).replace('\'', '"');
    }

    public Answer send(String method, String path, String body) {
        return sendBytes(method, path, contentType, body.getBytes(StandardCharsets.UTF_8));
    }

    /** Fetches a file; what is refused is told as text. */
    public byte[] file(String method, String path, String body) {
        var answer = new Object() {
            byte[] bytes = {};
        };
        var was = handler;
        handler = info -> HttpResponse.BodySubscribers.mapping(HttpResponse.BodySubscribers.ofByteArray(), b -> {
            answer.bytes = b;
            return new String(b, StandardCharsets.UTF_8);
        });
        try {
            send(method, path, quoted(body)).expect(200);
        } finally {
            handler = was;
        }
        return answer.bytes;
    }

    /** Opens a stream; its lines come as they are sent. */
    public HttpResponse<Stream<String>> stream(String path, Map<String, String> headers) {
        var request = HttpRequest.newBuilder(URI.create(base + path));
        headers.forEach(request::header);
        try {
            return http.send(request.build(), HttpResponse.BodyHandlers.ofLines());
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        } catch (InterruptedException e) {
            throw new IllegalStateException(e);
        }
    }

    public Answer sendBytes(String method, String path, String type, byte[] body) {
        var request = HttpRequest.newBuilder(URI.create(base + path))
                .method(method, HttpRequest.BodyPublishers.ofByteArray(body))
                .header("Content-Type", type);
        if (sendToken)
            cookies.getCookieStore().getCookies().stream()
                    .filter(c -> c.getName().equals("XSRF-TOKEN"))
                    .forEach(c -> request.header("X-XSRF-TOKEN", c.getValue()));
        if (method.equals("POST"))
            request.header("Idempotency-Key", key == null ? UUID.randomUUID().toString() : key);
        if (ifMatch != null) request.header("If-Match", ifMatch);
        try {
            var response = http.send(request.build(), handler);
            var answer = new Answer(response.statusCode(), response.body(), response);
            if (answer.status() < 300 && path.startsWith("/api/") && !path.equals("/api/openapi")) {
                if (meansWell) Described.asks(method, path, type, body);
                Described.answers(method, path, answer);
            }
            return answer;
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        } catch (InterruptedException e) {
            throw new IllegalStateException(e);
        }
    }

    /** Looks at an endpoint, so that the next change is made from what was seen. */
    public Api seen(long endpointId) {
        return looked("/api/endpoints/" + endpointId);
    }

    /** Looks at the sheet of a site, so that the next change is made from what was seen. */
    public Api seenSite(long siteId) {
        return looked("/api/sites/" + siteId + "/sheet");
    }

    private Api looked(String path) {
        ifMatch = get(path).expect(200).response().headers().firstValue("ETag").orElseThrow();
        return this;
    }
}
