package app.knottag.server.reach;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.hardware.Mac;
import app.knottag.core.reach.Neighbour;
import app.knottag.core.reach.Neighbour.State;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.TimeUnit;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.json.JsonMapper;

/** The neighbour table of this machine with the states and ages that its kernel keeps (iproute2). */
final class Kernel {

    /** An answer of this round is not older than the slowest of its questions takes. */
    private static final int THIS_ROUND_SECONDS = 4;

    private static final JsonMapper JSON = new JsonMapper();

    private Kernel() {}

    /** Returns the table, or empty when this machine has no tool that tells it. */
    static Optional<List<Neighbour>> neighbours() {
        try {
            var ip = new ProcessBuilder("ip", "-s", "-j", "-4", "neigh", "show")
                    .redirectError(ProcessBuilder.Redirect.DISCARD)
                    .start();
            String text = new String(ip.getInputStream().readAllBytes(), java.nio.charset.StandardCharsets.UTF_8);
            boolean ended = ip.waitFor(2, TimeUnit.SECONDS) && ip.exitValue() == 0;
            return ended ? Optional.of(read(text)) : Optional.empty();
        } catch (IOException | JacksonException e) {
            return Optional.empty();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            return Optional.empty();
        }
    }

    static List<Neighbour> read(String text) {
        var all = new ArrayList<Neighbour>();
        for (var node : JSON.readTree(text.isBlank() ? "[]" : text)) {
            String mac = node.path("lladdr").asString("");
            if (!mac.matches("[0-9a-f]{2}(:[0-9a-f]{2}){5}")) continue;
            String state = node.path("state").path(0).asString("");
            int confirmed = node.path("confirmed").asInt(Integer.MAX_VALUE);
            Ipv4Address.read(node.path("dst").asString(""))
                    .ifPresent(a -> all.add(new Neighbour(a, Mac.parse(mac), of(state, confirmed))));
        }
        return List.copyOf(all);
    }

    private static State of(String state, int confirmed) {
        return switch (state) {
            case "REACHABLE" -> confirmed <= THIS_ROUND_SECONDS ? State.CONFIRMED : State.OLD;
            case "DELAY", "PROBE" -> State.PENDING;
            default -> State.OLD;
        };
    }
}
