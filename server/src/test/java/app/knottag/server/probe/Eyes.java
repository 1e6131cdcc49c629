package app.knottag.server.probe;

import java.io.BufferedReader;
import java.io.File;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;

/** Somebody with the product's probes at one machine of the bed. */
final class Eyes implements AutoCloseable {

    private final Process process;
    private final BufferedReader said;

    /**
     * Goes to a machine.
     *
     * @param without capabilities that are taken away, such as “-net_raw”, or empty
     */
    Eyes(Bed bed, String machine, String without) throws IOException {
        process = new ProcessBuilder(
                        "ip",
                        "netns",
                        "exec",
                        bed.net.full(machine),
                        "setpriv",
                        "--bounding-set=" + (without.isEmpty() ? "+all" : without),
                        System.getProperty("java.home") + "/bin/java",
                        "-XX:TieredStopAtLevel=1",
                        "-Dlogback.configurationFile=bed/quiet.xml",
                        "-Djavax.net.ssl.trustStore=" + bed.files + "/trust.p12",
                        "-Djavax.net.ssl.trustStorePassword=changeit",
                        "-cp",
                        System.getProperty("java.class.path"),
                        FromThere.class.getName())
                .redirectError(new File(System.getProperty("java.io.tmpdir"), bed.net.full(machine) + "-eyes.log"))
                .start();
        said = process.inputReader(StandardCharsets.UTF_8);
    }

    /** Asks a question and returns what was seen, line by line. */
    List<String> ask(String question) {
        try {
            process.getOutputStream().write((question + "\n").getBytes(StandardCharsets.UTF_8));
            process.getOutputStream().flush();
            var lines = new ArrayList<String>();
            for (String line = said.readLine(); !FromThere.END.equals(line); line = said.readLine()) {
                if (line == null) throw new IllegalStateException("the probes ended by themselves");
                lines.add(line);
            }
            return lines;
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    @Override
    public void close() {
        process.destroyForcibly();
    }
}
