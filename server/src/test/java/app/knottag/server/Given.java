package app.knottag.server;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.Map;

/**
 * The time that something took while this machine really had its processors. A host that lends them to others in between
 * (“steal” of proc(5)) says nothing about the server, so what the worst hit processor lost is left out; all other waiting
 * counts.
 */
final class Given {

    private static final Path STAT = Path.of("/proc/stat");
    private static final int STEAL = 8;
    /** Milliseconds of a tick; USER_HZ is 100 on every Linux that runs this. */
    private static final long TICK = 10;

    private final long start = System.nanoTime();
    private final Map<String, Long> stolen = stolen();

    private Given() {}

    static Given begin() {
        return new Given();
    }

    long millis() {
        long wall = (System.nanoTime() - start) / 1_000_000;
        long lost = 0;
        for (var now : stolen().entrySet())
            lost = Math.max(lost, now.getValue() - stolen.getOrDefault(now.getKey(), now.getValue()));
        return Math.max(0, wall - lost * TICK);
    }

    /** Ticks that the host took so far, by processor; none where the kernel does not say. */
    private static Map<String, Long> stolen() {
        var ticks = new HashMap<String, Long>();
        if (!Files.isReadable(STAT)) return ticks;
        try {
            for (String line : Files.readAllLines(STAT)) {
                String[] f = line.split(" +");
                if (f[0].matches("cpu\\d+") && f.length > STEAL) ticks.put(f[0], Long.parseLong(f[STEAL]));
            }
        } catch (IOException e) {
            throw new AssertionError(e);
        }
        return ticks;
    }
}
