package app.knottag.server.backup;

import app.knottag.server.backup.Manifest.Part;
import java.io.FilterOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.PosixFilePermissions;
import java.security.DigestOutputStream;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.ArrayList;
import java.util.HexFormat;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import java.util.zip.ZipEntry;
import java.util.zip.ZipException;
import java.util.zip.ZipFile;
import java.util.zip.ZipOutputStream;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.json.JsonMapper;

/**
 * The one file of a backup: a ZIP with the dump, files beside it, and a manifest with the SHA-256 of each. It appears under its
 * name only when all of it is on the disk.
 */
final class BackupFile {

    private static final JsonMapper JSON = JsonMapper.builder().build();

    private BackupFile() {}

    /** Writes a part to where it is told to. */
    interface Writer {
        void write(OutputStream out) throws IOException, BackupException;
    }

    /** A file that is to go into the backup. */
    record Source(String name, Writer writer) {}

    /** Writes all of it; what was begun is taken away again when anything goes wrong. */
    static Manifest write(Path to, List<Source> sources, Function<List<Part>, Manifest> manifest)
            throws IOException, BackupException {
        if (Files.exists(to)) throw new BackupException(to + " is there already. Give it another name with --to FILE.");
        var part = to.resolveSibling(to.getFileName() + ".part");
        Files.deleteIfExists(part);
        try {
            Files.createFile(part, PosixFilePermissions.asFileAttribute(PosixFilePermissions.fromString("rw-------")));
            Manifest said;
            try (var zip = new ZipOutputStream(Files.newOutputStream(part))) {
                // pg_dump has packed its own already.
                zip.setLevel(1);
                var parts = new ArrayList<Part>();
                for (var source : sources) parts.add(part(zip, source));
                said = manifest.apply(List.copyOf(parts));
                plain(zip, Manifest.NAME, JSON.writerWithDefaultPrettyPrinter().writeValueAsString(said));
                plain(zip, Manifest.WORDS, said.words());
            }
            try (var all = FileChannel.open(part, StandardOpenOption.WRITE)) {
                all.force(true);
            }
            Files.move(part, to, StandardCopyOption.ATOMIC_MOVE);
            return said;
        } catch (FileAlreadyExistsException e) {
            throw new BackupException(part + " is being written by somebody else. Try again later.");
        } finally {
            Files.deleteIfExists(part);
        }
    }

    private static Part part(ZipOutputStream zip, Source source) throws IOException, BackupException {
        zip.putNextEntry(new ZipEntry(source.name()));
        var digest = sha256();
        var counted = new Counted(new DigestOutputStream(zip, digest));
        source.writer().write(counted);
        zip.closeEntry();
        return new Part(source.name(), counted.bytes, HexFormat.of().formatHex(digest.digest()));
    }

    private static void plain(ZipOutputStream zip, String name, String text) throws IOException {
        zip.putNextEntry(new ZipEntry(name));
        zip.write(text.getBytes(StandardCharsets.UTF_8));
        zip.closeEntry();
    }

    /** Counts what goes through, and never ends the whole file when one part ends. */
    private static final class Counted extends FilterOutputStream {
        private long bytes;

        private Counted(OutputStream out) {
            super(out);
        }

        @Override
        public void write(int b) throws IOException {
            out.write(b);
            bytes++;
        }

        @Override
        public void write(byte[] b, int off, int len) throws IOException {
            out.write(b, off, len);
            bytes += len;
        }

        @Override
        public void close() throws IOException {
            flush();
        }
    }

    /** Reads what a backup says of itself. */
    static Manifest manifest(Path file) throws IOException, BackupException {
        try (var zip = open(file)) {
            return manifest(zip, file);
        }
    }

    /** Takes all parts out into a folder, and compares each with what the manifest says. */
    static Manifest unpack(Path file, Path into) throws IOException, BackupException {
        try (var zip = open(file)) {
            var manifest = manifest(zip, file);
            for (var part : manifest.parts()) {
                var to = into.resolve(part.name()).normalize();
                if (!to.startsWith(into))
                    throw new BackupException(file + " names a file outside itself: " + part.name());
                Files.createDirectories(to.getParent());
                unpack(zip, part, to, file);
            }
            return manifest;
        }
    }

    private static void unpack(ZipFile zip, Part part, Path to, Path file) throws IOException, BackupException {
        var digest = sha256();
        var entry = Optional.ofNullable(zip.getEntry(part.name()))
                .orElseThrow(() -> new BackupException(file + " is damaged: " + part.name() + " is missing. " + OTHER));
        try (var in = zip.getInputStream(entry);
                var out = new DigestOutputStream(Files.newOutputStream(to), digest)) {
            in.transferTo(out);
        } catch (ZipException e) {
            throw damaged(file, part);
        }
        if (!HexFormat.of().formatHex(digest.digest()).equals(part.sha256())) throw damaged(file, part);
    }

    private static final String OTHER = "Take an older backup.";

    private static BackupException damaged(Path file, Part part) {
        return new BackupException(
                file + " is damaged: " + part.name() + " is not what was written when it was made. " + OTHER);
    }

    private static ZipFile open(Path file) throws IOException, BackupException {
        try {
            return new ZipFile(file.toFile());
        } catch (NoSuchFileException e) {
            throw new BackupException("there is no file " + file + ".");
        } catch (ZipException e) {
            throw new BackupException(file + " is no backup of Knot Tag, or only a part of one.");
        }
    }

    private static Manifest manifest(ZipFile zip, Path file) throws IOException, BackupException {
        var entry = Optional.ofNullable(zip.getEntry(Manifest.NAME))
                .orElseThrow(() -> new BackupException(file + " is no backup of Knot Tag."));
        try (var in = zip.getInputStream(entry)) {
            var manifest = JSON.readValue(in, Manifest.class);
            if (!Manifest.FORMAT.equals(manifest.format()))
                throw new BackupException(file + " is of another Knot Tag (" + manifest.format()
                        + "). Bring it back with the version that made it, or a newer one.");
            return manifest;
        } catch (JacksonException | ZipException e) {
            throw new BackupException(file + " is damaged: what it says of itself cannot be read. " + OTHER);
        }
    }

    private static MessageDigest sha256() {
        try {
            return MessageDigest.getInstance("SHA-256");
        } catch (NoSuchAlgorithmException e) {
            throw new UncheckedIOException(new IOException(e));
        }
    }
}
