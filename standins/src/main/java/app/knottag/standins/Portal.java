package app.knottag.standins;

import app.knottag.core.hardware.Mac;
import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpHandler;
import java.io.IOException;
import java.net.URLDecoder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.SecureRandom;
import java.time.Clock;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.HexFormat;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.Collectors;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;

/**
 * A self-service portal where people register their devices: they sign in, name a device by its rule, share it or not,
 * and what they entered ends by itself. Plain pages, as such portals have.
 */
final class Portal implements HttpHandler {

    /** Made-up accounts of the demo. */
    static final Map<String, String> ACCOUNTS = Map.of("imke", "garden-gate", "joris", "green-house");

    static final int DAYS = 365;
    private static final int LONGEST_NAME = 40;

    private final Path kept;
    private final Clock clock;
    private final JsonMapper json = new JsonMapper();
    private final Map<String, Entry> entries = new ConcurrentHashMap<>();
    private final Map<String, String> sessions = new ConcurrentHashMap<>();

    /** One device as the portal knows it. */
    record Entry(String mac, String name, String owner, boolean shared, List<String> users, String ends) {}

    Portal(Path kept, Clock clock) throws IOException {
        this.kept = kept;
        this.clock = clock;
        if (Files.exists(kept))
            entries.putAll(json.readValue(Files.readString(kept), new TypeReference<Map<String, Entry>>() {}));
    }

    @Override
    public void handle(HttpExchange exchange) throws IOException {
        try {
            String what =
                    exchange.getRequestMethod() + " " + exchange.getRequestURI().getPath();
            if (what.equals("POST /sign-in")) {
                signIn(exchange);
                return;
            }
            String person = sessions.get(cookie(exchange));
            if (person == null) {
                answer(exchange, what.equals("GET /") ? 200 : 401, signInPage(""));
                return;
            }
            switch (what) {
                case "GET /" -> answer(exchange, 200, page(person, "", ""));
                case "GET /devices.csv" -> file(exchange, person);
                case "POST /devices" -> {
                    var form = form(exchange);
                    String refused = add(person, form);
                    answer(
                            exchange,
                            refused.isEmpty() ? 200 : 422,
                            page(person, refused, refused.isEmpty() ? "Registered. Restart the device." : ""));
                }
                case "POST /gone" -> {
                    entries.computeIfPresent(
                            form(exchange).getOrDefault("mac", ""),
                            (mac, e) -> e.owner().equals(person) ? null : e);
                    keep();
                    answer(exchange, 200, page(person, "", "Taken out."));
                }
                default -> answer(exchange, 404, page(person, "There is no such page.", ""));
            }
        } finally {
            exchange.close();
        }
    }

    /** Returns why a device is not taken, or nothing when it is. */
    synchronized String add(String person, Map<String, String> form) throws IOException {
        String name = form.getOrDefault("name", "").strip();
        boolean shared = form.containsKey("shared");
        var users = Arrays.stream(form.getOrDefault("users", "").split("[,;]"))
                .map(String::strip)
                .filter(u -> !u.isEmpty())
                .toList();
        if (name.isEmpty() || name.length() > LONGEST_NAME) return "A name has 1 to " + LONGEST_NAME + " characters.";
        Mac mac;
        try {
            mac = Mac.parse(form.getOrDefault("mac", "").strip());
        } catch (IllegalArgumentException e) {
            return "That is no MAC: six pairs with colons.";
        }
        if (mac.group() || mac.locallyAdministered()) return mac + " is not the MAC of a device of its own.";
        for (var e : living()) {
            if (e.mac().equals(mac.toString())) return mac + " is registered already, by " + e.owner() + ".";
            if (e.name().equalsIgnoreCase(name)) return "“" + e.name() + "” is taken.";
        }
        if (shared && users.isEmpty()) return "Name at least one who shares it.";
        if (!shared && !users.isEmpty()) return "A device that is not shared has no other users.";
        entries.put(
                mac.toString(),
                new Entry(
                        mac.toString(),
                        name,
                        person,
                        shared,
                        users,
                        LocalDate.now(clock).plusDays(DAYS).toString()));
        keep();
        return "";
    }

    /** What has ended is no longer there. */
    List<Entry> living() {
        String today = LocalDate.now(clock).toString();
        return entries.values().stream()
                .filter(e -> e.ends().compareTo(today) >= 0)
                .sorted((a, b) -> a.name().compareToIgnoreCase(b.name()))
                .toList();
    }

    private void keep() throws IOException {
        Files.writeString(kept, json.writeValueAsString(entries));
    }

    private void signIn(HttpExchange exchange) throws IOException {
        var form = form(exchange);
        String name = form.getOrDefault("name", "").strip().toLowerCase(Locale.ROOT);
        if (!form.getOrDefault("password", "").equals(ACCOUNTS.get(name))) {
            answer(exchange, 401, signInPage("Name or password is wrong."));
            return;
        }
        byte[] key = new byte[16];
        new SecureRandom().nextBytes(key);
        String session = HexFormat.of().formatHex(key);
        sessions.put(session, name);
        exchange.getResponseHeaders().add("Set-Cookie", "portal=" + session + "; HttpOnly; SameSite=Strict; Path=/");
        answer(exchange, 200, page(name, "", ""));
    }

    private static String cookie(HttpExchange exchange) {
        return exchange.getRequestHeaders().getOrDefault("Cookie", List.of()).stream()
                .flatMap(c -> Arrays.stream(c.split(";\\s*")))
                .filter(c -> c.startsWith("portal="))
                .map(c -> c.substring(7))
                .findFirst()
                .orElse("");
    }

    private static Map<String, String> form(HttpExchange exchange) throws IOException {
        var form = new HashMap<String, String>();
        String body = new String(exchange.getRequestBody().readNBytes(20_000), StandardCharsets.UTF_8);
        for (String pair : body.split("&")) {
            String[] parts = pair.split("=", 2);
            if (parts.length == 2) form.put(decoded(parts[0]), decoded(parts[1]));
        }
        return form;
    }

    private static String decoded(String text) {
        return URLDecoder.decode(text, StandardCharsets.UTF_8);
    }

    private void file(HttpExchange exchange, String person) throws IOException {
        var lines = new ArrayList<>(List.of("name,mac,owner,shared_with"));
        for (var e : living())
            if (e.owner().equals(person))
                lines.add(quoted(e.name()) + "," + e.mac() + "," + quoted(e.owner()) + ","
                        + quoted(String.join("; ", e.users())));
        exchange.getResponseHeaders().set("Content-Type", "text/csv; charset=utf-8");
        exchange.getResponseHeaders().set("Content-Disposition", "attachment; filename=devices.csv");
        send(exchange, 200, String.join("\r\n", lines) + "\r\n");
    }

    private static String quoted(String text) {
        return "\"" + text.replace("\"", "\"\"") + "\"";
    }

    private static void answer(HttpExchange exchange, int status, String body) throws IOException {
        exchange.getResponseHeaders().set("Content-Type", "text/html; charset=utf-8");
        send(
                exchange,
                status,
                "<!doctype html><html lang=en><meta name=viewport content='width=device-width'><title>Device portal</title>"
                        + "<body style='font:16px sans-serif;max-width:44rem;margin:2rem auto;padding:0 1rem'><h1>Device portal</h1>"
                        + body);
    }

    private static void send(HttpExchange exchange, int status, String text) throws IOException {
        byte[] bytes = text.getBytes(StandardCharsets.UTF_8);
        exchange.sendResponseHeaders(status, bytes.length);
        exchange.getResponseBody().write(bytes);
    }

    private static String signInPage(String refused) {
        return said(refused)
                + "<form method=post action=/sign-in><p><label>Name <input name=name></label><p><label>Password <input "
                + "name=password type=password></label><p><button>Sign in</button></form>";
    }

    private static String said(String text) {
        return text.isEmpty() ? "" : "<p role=alert><b>" + plain(text) + "</b>";
    }

    private static String plain(String text) {
        return text.replace("&", "&amp;")
                .replace("<", "&lt;")
                .replace("\"", "&quot;")
                .replace("'", "&#39;");
    }

    private String page(String person, String refused, String done) {
        String rows = living().stream()
                .filter(e -> e.owner().equals(person))
                .map(e -> "<tr><td>" + plain(e.name()) + "<td>" + e.mac() + "<td>"
                        + plain(String.join(", ", e.users())) + "<td>" + e.ends()
                        + "<td><form method=post action=/gone><button name=mac value='" + e.mac()
                        + "'>Take out</button></form>")
                .collect(Collectors.joining());
        return said(refused) + said(done) + "<p>Signed in as " + person
                + ". <a href=/devices.csv>Your devices as a table</a><table border=1 "
                + "cellpadding=6><tr><th>Name<th>MAC<th>Shared with<th>Until<th>"
                + rows
                + "</table><h2>Register a device</h2><form method=post action=/devices><p><label>Name <input name=name "
                + "maxlength=80></label>"
                + "<p><label>MAC <input name=mac></label><p><label><input type=checkbox name=shared> shared</label>"
                + "<p><label>with <input name=users></label><p><button>Register</button></form>";
    }
}
