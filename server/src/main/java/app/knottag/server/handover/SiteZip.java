package app.knottag.server.handover;

import app.knottag.server.web.Problem;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;
import java.util.zip.ZipOutputStream;
import org.apache.commons.codec.digest.DigestUtils;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.json.JsonMapper;

/** The form of a site file: a ZIP with a manifest that names every other file in it with its SHA-256. */
final class SiteZip {

    /** Counted up with the tables: a file is read by the version that wrote it. */
    static final int FORMAT = 30;

    static final String MANIFEST = "manifest.json";
    private static final String NAME = "[a-z][a-z0-9/_-]{0,60}\\.(json|yaml)";
    private static final long MOST = 60_000_000;

    /** @param made when it was written; it is of no weight */
    record Manifest(
            int format,
            String site,
            String code,
            Instant made,
            long logId,
            String logHash,
            Map<String, String> files) {}

    private final JsonMapper json;

    SiteZip(JsonMapper json) {
        this.json = json;
    }

    static String sha256(String text) {
        return DigestUtils.sha256Hex(text.getBytes(StandardCharsets.UTF_8));
    }

    byte[] write(Manifest manifest, Map<String, String> files) {
        var bytes = new ByteArrayOutputStream();
        try (var zip = new ZipOutputStream(bytes, StandardCharsets.UTF_8)) {
            put(zip, MANIFEST, json.writerWithDefaultPrettyPrinter().writeValueAsString(manifest));
            for (var f : files.entrySet()) put(zip, f.getKey(), f.getValue());
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return bytes.toByteArray();
    }

    private static void put(ZipOutputStream zip, String name, String text) throws IOException {
        zip.putNextEntry(new ZipEntry(name));
        zip.write(text.getBytes(StandardCharsets.UTF_8));
        zip.closeEntry();
    }

    /** What a file holds, when it is whole and of a version that can be read here. */
    record Whole(Manifest manifest, Map<String, String> files) {}

    Whole read(byte[] bytes) {
        var files = unpacked(bytes);
        var manifest = manifest(Optional.ofNullable(files.remove(MANIFEST))
                .orElseThrow(() -> refused("no-manifest", "There is no manifest.json in it: this is no site file.")));
        if (manifest.format() > FORMAT)
            throw refused(
                    "newer",
                    "A newer version of Knot Tag wrote this file. Bring this one up to date, then take it in.");
        if (manifest.format() < FORMAT)
            throw refused(
                    "older",
                    "An older version of Knot Tag wrote this file. Bring that one up to date, and have it write the file again.");
        for (var f : new TreeMap<>(manifest.files()).entrySet()) {
            var text = Optional.ofNullable(files.get(f.getKey()))
                    .orElseThrow(() -> refused("torn", f.getKey() + " is missing in it: the file is not whole."));
            if (!sha256(text).equals(f.getValue()))
                throw refused(
                        "changed", f.getKey() + " was changed since the file was written: its SHA-256 is another.");
        }
        if (!manifest.files().keySet().containsAll(files.keySet()))
            throw refused("changed", "There is a file in it that its manifest does not name.");
        return new Whole(manifest, files);
    }

    private Manifest manifest(String text) {
        try {
            return json.readValue(text, Manifest.class);
        } catch (JacksonException e) {
            throw refused("no-manifest", "Its manifest.json cannot be read: this is no site file, or it was changed.");
        }
    }

    private static Map<String, String> unpacked(byte[] bytes) {
        var files = new LinkedHashMap<String, String>();
        long left = MOST;
        try (var zip = new ZipInputStream(new ByteArrayInputStream(bytes), StandardCharsets.UTF_8)) {
            for (var next = entry(zip); next.isPresent(); next = entry(zip)) {
                String name = next.get().getName();
                if (!name.matches(NAME))
                    throw refused("no-site-file", "“" + name + "” does not belong into a site file.");
                byte[] text = zip.readNBytes((int) left + 1);
                left -= text.length;
                if (left < 0) throw refused("too-large", "Unpacked it is larger than " + MOST / 1_000_000 + " MB.");
                files.put(name, new String(text, StandardCharsets.UTF_8));
            }
        } catch (IOException | IllegalArgumentException e) {
            throw refused("torn", "The file is torn: it ends too early or was changed on the way. Fetch it once more.");
        }
        if (files.isEmpty())
            throw refused("no-site-file", "This is no site file: it is no ZIP, or there is nothing in it.");
        return files;
    }

    private static Optional<ZipEntry> entry(ZipInputStream zip) throws IOException {
        return Optional.ofNullable(zip.getNextEntry());
    }

    private static Problem refused(String code, String said) {
        return Problem.field("file", "site-file-" + code, said);
    }
}
