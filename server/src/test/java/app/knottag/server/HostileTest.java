package app.knottag.server;

import static org.assertj.core.api.Assertions.assertThat;

import app.knottag.server.account.Role;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.SplittableRandom;
import java.util.TreeMap;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/**
 * Requests that nobody means well, drawn by seed from the API's own description: each field right, missing, null, of another
 * type, far too large, in other letters, or with characters that are none. Whatever comes, the server answers: never 5xx,
 * every refusal a problem with a code, none slow, and no name of a class in it.
 */
class HostileTest {

    private static final int COUNT = Integer.getInteger("knot.hostile", 2_000);
    private static final JsonMapper JSON = new JsonMapper();
    /** Signing in and out is tried by itself, since it would end the session that the others need. */
    private static final List<String> APART = List.of("/api/session", "/api/invitations/acceptance", "/api/live");

    private static final List<String> TEXTS = List.of(
            "",
            " ",
            "\u0000",
            "a\u0000b",
            "\u202egnp",
            "x".repeat(130),
            "y".repeat(70_000),
            "=1+1",
            "'; drop table person; --",
            "<script>alert(1)</script>",
            "../../etc/passwd",
            "%00%ff",
            "\ud800",
            "10,7,0,20",
            " 10.7.0.51 ",
            "010.007.000.051",
            "999.1.1.1",
            "fe80::1",
            "00:00:5E:00:53:01",
            "ff:ff:ff:ff:ff:ff",
            "10.7.0.0/33",
            "0.0.0.0/0",
            "2026-13-45",
            "-999999999-01-01",
            "+999999999-12-31",
            "99999999999999999999",
            "1e400",
            "NaN",
            "true",
            "null",
            "Europe/Nowhere",
            "\uff11\uff10.7.0.5",
            "\u00a0=1+1");
    private static final List<String> NUMBERS = List.of(
            "0",
            "-1",
            "1",
            "7",
            "65536",
            "2147483647",
            "2147483648",
            "-2147483649",
            "9223372036854775807",
            "9223372036854775808",
            "1e308",
            "0.5",
            "1e-7");

    private final SplittableRandom random = new SplittableRandom(Long.getLong("knot.hostile.seed", 20261128L));
    private final JsonNode api = Described.API;
    private final Api lead = Running.as(Role.LEAD),
            technician = Running.as(Role.TECHNICIAN),
            office = Running.as(Role.OFFICE);
    private final Api nobody = new Api(Running.url());
    private final long[] site = Running.site(lead);
    private final List<Long> endpoints = new ArrayList<>();

    private record Operation(String method, String path, JsonNode node) {}

    private List<Operation> operations() {
        var all = new ArrayList<Operation>();
        api.get("paths")
                .properties()
                .forEach(p -> p.getValue().properties().forEach(o -> {
                    if (!APART.contains(p.getKey()))
                        all.add(new Operation(o.getKey().toUpperCase(), p.getKey(), o.getValue()));
                }));
        return all;
    }

    private <T> T pick(List<T> list) {
        return list.get(random.nextInt(list.size()));
    }

    private String text() {
        return pick(TEXTS);
    }

    @DisplayName("Whatever is asked is answered: no 5xx, every refusal a problem, none over 2 s")
    @Test
    void everythingIsAnswered() {
        Running.network("10.7.0.51", "00:00:5E:00:53:01", "");
        for (int n = 1; n <= 4; n++) endpoints.add(Running.till(lead, site, n));
        var operations = operations();
        var faults = new ArrayList<String>();
        var statuses = new TreeMap<Integer, Integer>();
        long slowest = 0;
        for (int i = 0; i < COUNT && faults.size() < 40; i++) {
            var op = operations.get(i % operations.size());
            var caller = pick(List.of(lead, lead, lead, technician, technician, office, nobody));
            caller.meansWell = false;
            caller.ifMatch = random.nextInt(4) == 0
                    ? pick(List.of("\"0\"", "*", "x", "\"99999999999\"", "W/\"1\""))
                    : version(op);
            caller.key = random.nextInt(6) == 0 ? pick(List.of("k", "0123456789", "z".repeat(90))) : null;
            String path = path(op);
            byte[] body = body(op);
            String type = type(op);
            long start = System.nanoTime();
            var answer = caller.sendBytes(op.method(), path, type, body);
            long millis = (System.nanoTime() - start) / 1_000_000;
            slowest = Math.max(slowest, millis);
            statuses.merge(answer.status(), 1, Integer::sum);
            String fault = fault(answer, millis);
            if (!fault.isEmpty())
                faults.add(fault + " " + op.method() + " " + path + " " + cut(new String(body, StandardCharsets.UTF_8))
                        + " -> " + cut(answer.body()));
        }
        System.out.printf(
                "| %-38s | %9d ms | %-20s | %s |%n",
                COUNT + " hostile requests, slowest", slowest, broken(statuses) + " answers 5xx", statuses);
        assertThat(faults).isEmpty();
        assertThat(lead.get("/api/sites/" + site[0] + "/conflicts").status()).isEqualTo(200);
        assertThat(lead.get("/api/sites/" + site[0] + "/due").status()).isEqualTo(200);
    }

    private static int broken(TreeMap<Integer, Integer> statuses) {
        return statuses.tailMap(500).values().stream().mapToInt(n -> n).sum();
    }

    private static String cut(String text) {
        return text.length() > 300 ? text.substring(0, 300) + "…" : text;
    }

    private static String fault(Api.Answer answer, long millis) {
        if (answer.status() >= 500) return "" + answer.status();
        if (millis > 2_000) return millis + " ms";
        if (answer.status() < 400) return "";
        String type = answer.response().headers().firstValue("Content-Type").orElse("");
        if (!type.startsWith("application/problem+json")) return "no problem but “" + type + "” " + answer.status();
        if (answer.code().isEmpty() || answer.detail().isEmpty()) return "no code or no word";
        return answer.body().matches("(?s).*(java\\.|org\\.spring|app\\.knottag|Exception).*") ? "a class's name" : "";
    }

    private String version(Operation op) {
        return op.method().equals("GET") || op.method().equals("POST") && random.nextBoolean()
                ? null
                : "\"" + random.nextInt(1, 6) + "\"";
    }

    private String type(Operation op) {
        if (random.nextInt(25) == 0)
            return pick(List.of("text/plain", "application/xml", "x", "application/json; charset=utf-16"));
        var content = op.node().path("requestBody").path("content");
        return content.isEmpty()
                ? "application/json"
                : content.propertyNames().iterator().next();
    }

    private String path(Operation op) {
        String path = op.path();
        for (var p : op.node().path("parameters"))
            if (p.path("in").asString().equals("path")) {
                String name = p.path("name").asString();
                path = path.replace("{" + name + "}", id(name, op.path()));
            }
        path = path.replaceAll("\\{[^}]*}", "1");
        var query = new ArrayList<String>();
        for (var p : op.node().path("parameters"))
            if (p.path("in").asString().equals("query") && random.nextInt(5) > 0) {
                String value = random.nextInt(3) == 0
                        ? text()
                        : plain(resolve(p.path("schema")), 0).asString("");
                query.add(p.path("name").asString() + "="
                        + encoded(value.length() > 500 ? value.substring(0, 500) : value));
            }
        return query.isEmpty() ? path : path + "?" + String.join("&", query);
    }

    private String encoded(String value) {
        return random.nextInt(12) == 0
                ? pick(List.of("%00", "%ff%fe", "%C3%28", "%F0%9F%92%A9"))
                : URLEncoder.encode(value, StandardCharsets.UTF_8);
    }

    private String id(String name, String path) {
        if (random.nextInt(8) == 0)
            return pick(List.of("0", "-1", "999999999999", "9999999999999999999999", "x", "%20", "%ED%A0%80", "1.5"));
        if (name.equals("siteId")) return "" + site[0];
        if (name.equals("segmentId") || path.contains("/segments/")) return "" + site[1];
        if (path.startsWith("/api/endpoints/")) return "" + pick(endpoints);
        if (name.equals("key") || name.equals("step")) return pick(List.of("label", "address", "read-back", "nothing"));
        if (path.startsWith("/api/kinds/")) return pick(List.of("time-clock", "copier", "nothing"));
        return "" + random.nextLong(5_000_000_000L, 6_000_000_000L);
    }

    private JsonNode resolve(JsonNode schema) {
        JsonNode s = schema;
        for (int i = 0; i < 5; i++) {
            if (s.has("$ref")) s = api.at(s.get("$ref").asString().substring(1));
            else if (s.has("anyOf")) s = s.get("anyOf").get(0);
            else break;
        }
        return s;
    }

    private byte[] body(Operation op) {
        var content = op.node().path("requestBody").path("content");
        if (content.isEmpty()) return new byte[0];
        int way = random.nextInt(20);
        if (way == 0) return new byte[0];
        if (way == 1)
            return pick(List.of("null", "[]", "{", "[".repeat(3_000), "\"x\"", "{\"a\":{}}", "{} {}", "\u0000"))
                    .getBytes(StandardCharsets.UTF_8);
        if (way == 2) return new byte[] {'{', '"', (byte) 0xff, (byte) 0xfe, '"', ':', '1', '}'};
        var entry = content.properties().iterator().next();
        if (!entry.getKey().contains("json"))
            return (text() + "\n" + text() + "," + text()).getBytes(StandardCharsets.UTF_8);
        return JSON.writeValueAsString(any(resolve(entry.getValue().path("schema")), 0))
                .getBytes(StandardCharsets.UTF_8);
    }

    /** A value that is mostly what belongs there, and sometimes anything else. */
    private JsonNode any(JsonNode schema, int depth) {
        return switch (random.nextInt(depth == 0 ? 60 : 9)) {
            case 0 -> JSON.nullNode();
            case 1 -> JSON.getNodeFactory().stringNode(text());
            case 2 -> JSON.readTree(pick(List.of("[]", "{}", "[null]", "{\"\":null}", "true", "[[[]]]", "12")));
            default -> plain(schema, depth);
        };
    }

    private JsonNode plain(JsonNode schema, int depth) {
        var s = resolve(schema);
        if (s.has("enum")) return s.get("enum").get(random.nextInt(s.get("enum").size()));
        if (s.has("properties") && depth < 5) {
            ObjectNode node = JSON.createObjectNode();
            for (Map.Entry<String, JsonNode> p : s.get("properties").properties())
                if (random.nextInt(8) > 0) node.set(p.getKey(), any(resolve(p.getValue()), depth + 1));
            if (random.nextInt(30) == 0) node.put("unknown", 1);
            return node;
        }
        var types = s.path("type");
        String type = types.isArray() ? types.get(0).asString() : types.asString("string");
        return switch (type) {
            case "array" -> array(s, depth);
            case "object" ->
                JSON.createObjectNode().set(text(), any(resolve(s.path("additionalProperties")), depth + 1));
            case "integer", "number" ->
                JSON.readTree(random.nextBoolean() ? "" + random.nextInt(1, 300) : pick(NUMBERS));
            case "boolean" -> JSON.getNodeFactory().booleanNode(random.nextBoolean());
            default -> JSON.getNodeFactory().stringNode(string(s.path("format").asString("")));
        };
    }

    private JsonNode array(JsonNode s, int depth) {
        ArrayNode list = JSON.createArrayNode();
        int count = random.nextInt(4) == 0 ? 40 : random.nextInt(3);
        for (int i = 0; i < count && depth < 5; i++) list.add(any(resolve(s.path("items")), depth + 1));
        return list;
    }

    private String string(String format) {
        if (random.nextInt(3) > 0)
            return random.nextInt(3) == 0
                    ? text()
                    : pick(List.of(
                            "Front counter",
                            "10.7.0.60",
                            "10.7.0.0/24",
                            "00:00:5E:00:53:AA",
                            "OC2-AAAA-0001",
                            "Shop",
                            "time-clock"));
        return switch (format) {
            case "date" ->
                pick(List.of("2026-12-01", "+999999999-12-31", "-999999999-01-01", "0000-01-01", "9999-12-31"));
            case "date-time" ->
                pick(List.of(
                        "2026-12-01T10:00:00Z",
                        "+1000000000-12-31T23:59:59.999999999Z",
                        "-1000000000-01-01T00:00:00Z",
                        "9999-12-31T23:59:59Z"));
            default -> text();
        };
    }
}
