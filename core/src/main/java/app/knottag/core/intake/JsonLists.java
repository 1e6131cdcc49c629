package app.knottag.core.intake;

import app.knottag.core.hardware.Mac;
import app.knottag.core.intake.Draft.Remark;
import app.knottag.core.intake.Recognised.Table;
import app.knottag.core.intake.Row.State;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Optional;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Reads lists that come as JSON: leases as a control channel answers them, and neighbour tables. */
final class JsonLists {

    private static final JsonMapper JSON = new JsonMapper();
    private static final long FOR_EVER = 0xFFFF_FFFFL;

    private JsonLists() {}

    /** Returns what stands in a JSON text, or empty when it is none or holds no such list. */
    static Optional<Recognised> read(String text, Optional<Instant> now) {
        if (!text.stripLeading().startsWith("{") && !text.stripLeading().startsWith("[")) return Optional.empty();
        JsonNode root;
        try {
            root = JSON.readTree(text);
        } catch (JacksonException e) {
            var at = e.getLocation();
            return Optional.of(new Table(
                    Form.UNKNOWN,
                    false,
                    List.of(),
                    List.of(),
                    List.of(new Remark(
                            at == null ? 1 : at.getLineNr(),
                            "",
                            "This is not well-formed JSON: " + e.getOriginalMessage()))));
        }
        var leases = new LinkedHashMap<String, Row>();
        var neighbours = new ArrayList<Row>();
        var leftOut = new ArrayList<Remark>();
        collect(root, leases, neighbours, leftOut, now, 0);
        if (leases.isEmpty() && neighbours.isEmpty()) return Optional.empty();
        return Optional.of(
                leases.isEmpty()
                        ? new Table(Form.NEIGHBOURS, true, neighbours, leftOut, List.of())
                        : new Table(Form.LEASES, true, List.copyOf(leases.values()), leftOut, List.of()));
    }

    private static void collect(
            JsonNode node,
            LinkedHashMap<String, Row> leases,
            List<Row> neighbours,
            List<Remark> leftOut,
            Optional<Instant> now,
            int depth) {
        if (depth > 12) return;
        long line = leases.size() + neighbours.size() + leftOut.size() + 1L;
        String address = node.path("ip-address").asString("");
        if (!address.isEmpty()) {
            var a = Machine.address(address);
            if (a.isEmpty()) leftOut.add(new Remark(line, "address", address + " is no IPv4 address."));
            else {
                leases.remove(address);
                leases.put(
                        address,
                        lease(line, node, now).named(node.path("hostname").asString("")));
            }
            return;
        }
        if (node.has("dst") && node.has("dev")) {
            var a = Machine.address(node.path("dst").asString(""));
            String state = node.path("state").path(0).asString("");
            if (a.isEmpty())
                leftOut.add(new Remark(
                        line, "address", node.path("dst").asString("") + " is an IPv6 address; the IPv4 line counts."));
            else
                neighbours.add(
                        Row.of(line, a, mac(node.path("lladdr").asString("")), Tables.state(Form.NEIGHBOURS, state)));
            return;
        }
        for (var child : node) collect(child, leases, neighbours, leftOut, now, depth + 1);
    }

    private static Optional<Mac> mac(String text) {
        return Machine.MAC.matcher(text).matches()
                ? Optional.of(Machine.mac(text)).filter(Machine::ofOne)
                : Optional.empty();
    }

    private static Row lease(long line, JsonNode node, Optional<Instant> now) {
        var a = Machine.address(node.path("ip-address").asString(""));
        var mac = mac(node.path("hw-address").asString(""));
        // A list of reservations has no states: somebody wrote it.
        if (!node.has("cltt") && !node.has("state")) return Row.of(line, a, mac, State.WRITTEN);
        return Tables.kea(
                line,
                a,
                mac,
                node.path("valid-lft").asLong(0),
                node.path("cltt").asLong(0) + node.path("valid-lft").asLong(0),
                node.path("state").asInt(0),
                now);
    }

    static boolean forEver(long seconds) {
        return seconds >= FOR_EVER;
    }
}
