package app.knottag.server.probe;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.TimeUnit;

/** A tool of this machine that asks the network; it may be missing. */
final class Tool {

    private Tool() {}

    /** Runs a tool to its end and returns all that it printed, in English, or empty when this machine does not have it. */
    static Optional<String> run(Duration longest, String... command) {
        try {
            var builder = new ProcessBuilder(List.of(command)).redirectErrorStream(true);
            builder.environment().put("LC_ALL", "C.UTF-8");
            var process = builder.start();
            process.getOutputStream().close();
            // A tool that hangs would never end its output: it is ended from outside.
            var ended = process.onExit().orTimeout(longest.toMillis(), TimeUnit.MILLISECONDS);
            ended.whenComplete((p, late) -> {
                if (late != null) process.destroyForcibly();
            });
            return Optional.of(new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8));
        } catch (IOException missing) {
            return Optional.empty();
        }
    }
}
