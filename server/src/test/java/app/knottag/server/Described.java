package app.knottag.server;

import static org.assertj.core.api.Assertions.assertThat;

import com.networknt.schema.Schema;
import com.networknt.schema.SchemaRegistry;
import com.networknt.schema.SpecificationVersion;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Locale;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ObjectNode;

/**
 * The published description of the API as a judge of it: what the server took and what it answered must both be right by
 * the document, and by nothing else (a validator of JSON Schema 2020-12, which OpenAPI 3.1 is).
 */
public final class Described {

    private static final JsonMapper JSON = new JsonMapper();
    private static final SchemaRegistry REGISTRY =
            SchemaRegistry.withDefaultDialect(SpecificationVersion.DRAFT_2020_12);
    private static final ConcurrentHashMap<String, Schema> SCHEMAS = new ConcurrentHashMap<>();
    public static final JsonNode API = read();
    /** All problem codes are written alike. */
    private static final String CODE = "[a-z0-9]+(-[a-z0-9]+)*";

    private Described() {}

    private static JsonNode read() {
        try {
            return JSON.readTree(Files.readString(Path.of("../docs/openapi.json")));
        } catch (IOException e) {
            throw new ExceptionInInitializerError(e);
        }
    }

    private record Operation(String name, JsonNode node) {}

    private static Operation operation(String method, String path) {
        String plain = path.replaceFirst("\\?.*", "");
        var template = template(plain);
        var node = template.map(t -> API.at(
                        "/paths/" + t.replace("~", "~0").replace("/", "~1") + "/" + method.toLowerCase(Locale.ROOT)))
                .filter(JsonNode::isObject);
        assertThat(node).as("%s %s is described", method, plain).isPresent();
        return new Operation(method + " " + template.orElseThrow(), node.get());
    }

    /** Checks what was sent and taken. */
    public static void asks(String method, String path, String type, byte[] sent) {
        var operation = operation(method, path);
        var schema = operation.node().at("/requestBody/content/application~1json/schema");
        if (sent.length > 0 && type.startsWith("application/json") && schema.isObject())
            holds(operation.name() + " asks", schema, new String(sent, StandardCharsets.UTF_8));
    }

    /** Checks what was answered. */
    public static void answers(String method, String path, Api.Answer answer) {
        var operation = operation(method, path);
        var response = operation.node().path("responses").path("" + answer.status());
        assertThat(response.isObject())
                .as("%s answers %d as described", operation.name(), answer.status())
                .isTrue();
        String type = answer.response().headers().firstValue("Content-Type").orElse("");
        if (type.startsWith("application/problem+json")) {
            assertThat(answer.json().path("code").asString()).matches(CODE);
            for (var error : answer.json().path("errors"))
                assertThat(error.path("code").asString()).matches(CODE);
        }
        var schema = response.path("content").path("application/json").path("schema");
        if (type.startsWith("application/json") && schema.isObject())
            holds(operation.name() + " " + answer.status(), schema, answer.body());
    }

    private static Optional<String> template(String path) {
        // What is spelled out goes before what may be anything.
        return API.get("paths").propertyNames().stream()
                .filter(t -> path.matches(t.replaceAll("\\{[^}]*}", "[^/]+")))
                .min((a, b) -> Integer.compare(a.split("\\{").length, b.split("\\{").length));
    }

    private static void holds(String name, JsonNode schema, String text) {
        var judge = SCHEMAS.computeIfAbsent(name, n -> {
            var whole = ((ObjectNode) schema.deepCopy());
            whole.set("components", API.get("components"));
            return REGISTRY.getSchema(whole);
        });
        assertThat(judge.validate(JSON.readTree(text)))
                .as("%s: %s", name, text.length() > 600 ? text.substring(0, 600) : text)
                .isEmpty();
    }
}
