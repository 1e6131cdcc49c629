package app.knottag.server.probe;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.hardware.Mac;
import app.knottag.core.reach.Neighbour;
import app.knottag.core.reach.Neighbour.State;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Pattern;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** The neighbour table of this machine with the states and ages that its kernel keeps (iproute2). */
final class Kernel {

    /** An answer of this run is not older than the slowest of its questions takes. */
    private static final int THIS_ROUND_SECONDS = 4;

    private static final Duration PATIENCE = Duration.ofSeconds(2);
    private static final int USUAL_ROOM = 1_024;
    private static final Pattern MAC = Pattern.compile("[0-9a-f]{2}(:[0-9a-f]{2}){5}");
    private static final JsonMapper JSON = new JsonMapper();

    private Kernel() {}

    /** Returns the table, or empty when this machine has no tool that tells it. */
    static Optional<List<Neighbour>> neighbours() {
        return shown("-4", "neigh", "show").map(Kernel::read);
    }

    /** Returns how many more addresses fit into the kernel's table. */
    static int room() {
        int all;
        try {
            all = Integer.parseInt(Files.readString(Path.of("/proc/sys/net/ipv4/neigh/default/gc_thresh3"))
                    .strip());
        } catch (IOException | NumberFormatException unknown) {
            all = USUAL_ROOM;
        }
        return all
                - shown("-4", "neigh", "show", "nud", "all").map(JsonNode::size).orElse(0);
    }

    /** Returns the MACs of IPv6 addresses on a link. */
    static Set<Mac> overSix(String link, Set<String> addresses) {
        var macs = new HashSet<Mac>();
        for (var node : shown("-6", "neigh", "show", "dev", link).orElse(JSON.createArrayNode())) {
            String mac = node.path("lladdr").asString("");
            if (addresses.contains(node.path("dst").asString(""))
                    && MAC.matcher(mac).matches()) macs.add(Mac.parse(mac));
        }
        return macs;
    }

    private static Optional<JsonNode> shown(String... what) {
        var command = new ArrayList<>(List.of("ip", "-s", "-j"));
        command.addAll(List.of(what));
        return Tool.run(PATIENCE, command.toArray(String[]::new)).flatMap(said -> {
            try {
                return Optional.of(JSON.readTree(said.isBlank() ? "[]" : said));
            } catch (JacksonException other) {
                return Optional.empty();
            }
        });
    }

    static List<Neighbour> read(JsonNode table) {
        var all = new ArrayList<Neighbour>();
        for (var node : table) {
            String mac = node.path("lladdr").asString("");
            if (!MAC.matcher(mac).matches()) continue;
            String state = node.path("state").path(0).asString("");
            int confirmed = node.path("confirmed").asInt(Integer.MAX_VALUE);
            Ipv4Address.read(node.path("dst").asString(""))
                    .ifPresent(a -> all.add(new Neighbour(a, Mac.parse(mac), of(state, confirmed))));
        }
        return List.copyOf(all);
    }

    private static State of(String word, int confirmed) {
        return switch (word) {
            case "REACHABLE" -> confirmed <= THIS_ROUND_SECONDS ? State.CONFIRMED : State.OLD;
            case "DELAY", "PROBE" -> State.PENDING;
            default -> State.OLD;
        };
    }
}
