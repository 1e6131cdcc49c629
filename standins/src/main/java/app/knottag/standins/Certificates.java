package app.knottag.standins;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.GeneralSecurityException;
import java.security.KeyStore;
import java.util.ArrayList;
import java.util.List;
import javax.net.ssl.KeyManagerFactory;
import javax.net.ssl.SSLContext;

/** Certificates of the stand-ins, signed by themselves: one that is good for a year and one that has ended. Made when first needed. */
final class Certificates {

    /** Guards nothing: the keys are made for this demo alone and speak on loopback only. */
    private static final char[] STORE = "stand-in".toCharArray();

    private final Path folder;

    Certificates(Path folder) {
        this.folder = folder;
    }

    synchronized SSLContext context(boolean good) throws IOException {
        var file = folder.resolve(good ? "standin-good.p12" : "standin-ended.p12");
        try {
            if (Files.notExists(file))
                make(
                        file,
                        good
                                ? List.of("-startdate", "-70d", "-validity", "365")
                                : List.of("-startdate", "-400d", "-validity", "365"));
            var store = KeyStore.getInstance("PKCS12");
            try (var in = Files.newInputStream(file)) {
                store.load(in, STORE);
            }
            var keys = KeyManagerFactory.getInstance(KeyManagerFactory.getDefaultAlgorithm());
            keys.init(store, STORE);
            var context = SSLContext.getInstance("TLS");
            context.init(keys.getKeyManagers(), null, null);
            return context;
        } catch (GeneralSecurityException e) {
            throw new IOException(e);
        }
    }

    /** The tool of the Java machine itself makes it. */
    private static void make(Path file, List<String> dates) throws IOException {
        var command = new ArrayList<>(List.of(
                Path.of(System.getProperty("java.home"), "bin", "keytool").toString(),
                "-genkeypair",
                "-alias",
                "stand-in",
                "-keyalg",
                "EC",
                "-dname",
                "CN=stand-in",
                "-ext",
                "SAN=dns:mail.example",
                "-storetype",
                "PKCS12",
                "-storepass",
                new String(STORE),
                "-keystore",
                file.toString()));
        command.addAll(dates);
        try {
            var tool = new ProcessBuilder(command).redirectErrorStream(true).start();
            String said = new String(tool.getInputStream().readAllBytes());
            if (tool.waitFor() != 0) throw new IOException("keytool: " + said);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IOException(e);
        }
    }
}
