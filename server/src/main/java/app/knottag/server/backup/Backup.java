package app.knottag.server.backup;

import app.knottag.server.backup.BackupFile.Source;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.flywaydb.core.Flyway;
import org.springframework.dao.DataAccessException;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.jdbc.datasource.DriverManagerDataSource;
import org.springframework.jdbc.support.JdbcTransactionManager;
import org.springframework.transaction.TransactionDefinition;
import org.springframework.transaction.support.DefaultTransactionDefinition;

/**
 * Makes a backup while others work, and brings one back. Everything in it is of one moment: the log, its hash and the counts are
 * read in the very transaction whose view the dump gets.
 */
public final class Backup {

    /** What the records rest on beside the database. Certificates and keys stay where they are. */
    private static final List<String> BESIDE =
            List.of("lists", "standins.json", "portal.json", "reservations.conf", "pace");

    /** Sign-ins that are going on end with the machine on which they began. */
    private static final List<String> SESSIONS = List.of("spring_session", "spring_session_attributes");

    private static final Pattern DATABASE = Pattern.compile("jdbc:postgresql://([^:/]+):(\\d+)/(\\w+)");
    private static final String SIZE = "select pg_database_size(current_database())";

    /** So much is left for whoever works meanwhile. */
    private static final long SPARE = 300L << 20;

    private final String url;
    private final String password;
    private final Path tools;
    private final DriverManagerDataSource source;
    private final JdbcTemplate base;

    Backup(String url, String password, Path tools) {
        this.url = url;
        this.password = password;
        this.tools = tools;
        source = new DriverManagerDataSource(url, "knot_owner", password);
        base = new JdbcTemplate(source);
    }

    /**
     * One word and what it is about: {@code make FILE DATA MODE}, {@code read FILE}, {@code restore FILE DATA},
     * {@code rehearsed FILE}, {@code failed FILE WHY}, {@code prune FOLDER}.
     */
    public static void main(String[] args) {
        var backup = new Backup(
                System.getenv("KNOT_DB_URL"),
                System.getenv("KNOT_DB_OWNER_PASSWORD"),
                Path.of(System.getenv().getOrDefault("KNOT_PG_BIN", ".")));
        try {
            backup.run(args);
        } catch (BackupException e) {
            fail(e.getMessage());
        } catch (DataAccessException e) {
            e.printStackTrace();
            fail("the database does not answer as it should: "
                    + firstLine(e.getMostSpecificCause().getMessage()));
        } catch (IOException e) {
            e.printStackTrace();
            fail("cannot read or write " + firstLine(e.getMessage()) + ". Is there room, and may it be written there?");
        }
    }

    private void run(String... args) throws BackupException, IOException {
        switch (args[0]) {
            case "make" ->
                say("made", make(Path.of(args[1]), Path.of(args[2]), args[3]).says());
            case "read" -> {
                var manifest = BackupFile.manifest(Path.of(args[1]));
                say("mode", manifest.mode());
                say("holds", manifest.says());
            }
            case "restore" ->
                say("restored", restore(Path.of(args[1]), Path.of(args[2])).says());
            case "rehearsed" -> note("update backup set rehearsed_at = now() where file = ?", args[1]);
            case "failed" -> note("insert into backup (made_at, file, failed) values (now(), ?, ?)", args[1], args[2]);
            case "prune" -> prune(Path.of(args[1]));
            default -> throw new BackupException("unknown word " + args[0]);
        }
    }

    private static void say(String word, String text) {
        System.out.println("KNOT " + word + " " + text);
    }

    private static void fail(String why) {
        say("failed", why);
        System.exit(4);
    }

    private static String firstLine(String text) {
        return text.lines().findFirst().orElse("");
    }

    // ---------------------------------------------------------------- out

    /** Writes everything of this moment into a file. */
    Manifest make(Path to, Path data, String mode) throws BackupException, IOException {
        var manager = new JdbcTransactionManager(source);
        var moment = new DefaultTransactionDefinition();
        moment.setIsolationLevel(TransactionDefinition.ISOLATION_REPEATABLE_READ);
        var view = manager.getTransaction(moment);
        Manifest made;
        try {
            String snapshot = text("select pg_export_snapshot()");
            room(to);
            var sources = new ArrayList<Source>();
            sources.add(new Source(Manifest.DUMP, out -> dump(snapshot, out)));
            sources.addAll(beside(data));
            made = BackupFile.write(to, sources, head(mode)::with);
        } finally {
            manager.rollback(view);
        }
        note(
                "insert into backup (made_at, file, bytes, entries, same_disk) values (now(), ?, ?, ?, ?)",
                to.getFileName().toString(),
                Files.size(to),
                made.entries(),
                Files.getFileStore(to).equals(Files.getFileStore(data)));
        return made;
    }

    private Manifest head(String mode) {
        return new Manifest(
                Manifest.FORMAT,
                Instant.now(),
                mode,
                (int) number("select max(version::int) from flyway_schema_history where success"),
                text("show server_version"),
                number(SIZE),
                number("select count(*) from site"),
                number("select count(*) from endpoint"),
                number("select count(*) from person"),
                number("select id from log_head"),
                text("select encode(hash, 'hex') from log_head"),
                List.of());
    }

    /** Refuses before anything is written when there may not be room for all of it. */
    private void room(Path to) throws IOException, BackupException {
        enough(to.toAbsolutePath().getParent(), number(SIZE) / 2, "give another place with --to FILE");
    }

    private static void enough(Path folder, long bytes, String or) throws IOException, BackupException {
        long free = Files.getFileStore(folder).getUsableSpace();
        if (free < bytes + SPARE)
            throw new BackupException("only " + (free >> 20) + " MB are free in " + folder + ", and up to "
                    + (bytes + SPARE >> 20) + " MB may be needed. Make room there, or " + or + ".");
    }

    private void dump(String snapshot, OutputStream out) throws IOException, BackupException {
        var without = SESSIONS.stream().map(t -> "--exclude-table-data=" + t);
        run("pg_dump", Stream.concat(Stream.of("-Fc", "--snapshot=" + snapshot), without), out);
    }

    private static List<Source> beside(Path data) throws IOException {
        var sources = new ArrayList<Source>();
        for (String name : BESIDE) {
            var at = data.resolve(name);
            if (!Files.exists(at)) continue;
            try (var files = Files.walk(at)) {
                for (var file : files.filter(f -> Files.isRegularFile(f, LinkOption.NOFOLLOW_LINKS))
                        .sorted()
                        .toList())
                    sources.add(new Source(Manifest.FILES + data.relativize(file), out -> Files.copy(file, out)));
            }
        }
        return sources;
    }

    // ---------------------------------------------------------------- back

    /** Fills an empty database and the folder beside it, and compares what stands there then with what the backup says. */
    Manifest restore(Path file, Path data) throws BackupException, IOException {
        var said = BackupFile.manifest(file);
        if (said.schema() > newest())
            throw new BackupException(file + " was made by a newer Knot Tag (tables of version " + said.schema()
                    + "; this one knows " + newest() + "). Bring it back with that newer one.");
        enough(
                data,
                said.room()
                        + said.parts().stream().mapToLong(Manifest.Part::bytes).sum(),
                "choose another folder");
        var into = Files.createTempDirectory(data, "restore");
        try {
            BackupFile.unpack(file, into);
            var how = Stream.of("--no-owner", "--no-comments", "--exit-on-error", "--jobs=2");
            var dump = Stream.of(into.resolve(Manifest.DUMP).toString());
            run("pg_restore", Stream.concat(how, dump), OutputStream.nullOutputStream());
            compare(file, said);
            beside(said, into, data);
        } finally {
            remove(into);
        }
        return said;
    }

    private int newest() {
        var flyway = Flyway.configure().dataSource(url, "knot_owner", password).load();
        return Arrays.stream(flyway.info().all())
                .flatMap(m -> Optional.ofNullable(m.getVersion()).stream())
                .mapToInt(v -> Integer.parseInt(v.getVersion()))
                .max()
                .orElse(0);
    }

    private void compare(Path file, Manifest said) throws BackupException {
        long entries = number("select id from log_head"), broken = number("select coalesce(log_first_broken(), 0)");
        String hash = text("select encode(hash, 'hex') from log_head");
        if (broken > 0)
            throw new BackupException(
                    "the log in " + file + " is broken at entry " + broken + ": somebody changed it.");
        if (entries != said.entries() || !hash.equals(said.hash()))
            throw new BackupException("the log in " + file + " ends at entry " + entries + " with " + hash
                    + ", and not at " + said.entries() + " with " + said.hash() + ".");
        base.execute("analyze");
    }

    private static void beside(Manifest said, Path from, Path data) throws IOException {
        for (var part : said.parts())
            if (part.name().startsWith(Manifest.FILES)) {
                var to = data.resolve(part.name().substring(Manifest.FILES.length()));
                Files.createDirectories(to.getParent());
                Files.move(from.resolve(part.name()), to);
            }
    }

    private static void remove(Path folder) throws IOException {
        try (var files = Files.walk(folder)) {
            for (var file : files.sorted(Comparator.reverseOrder()).toList()) Files.delete(file);
        }
    }

    // ---------------------------------------------------------------- what is noted

    /** Notes it in the database; one from before there was such a note goes without. */
    private void note(String sql, Object... values) {
        if (!text("select coalesce(to_regclass('backup')::text, '')").isEmpty()) base.update(sql, values);
    }

    private static void prune(Path folder) throws IOException {
        List<String> names;
        try (var files = Files.list(folder)) {
            names = files.map(f -> f.getFileName().toString()).toList();
        }
        for (String name : Keep.gone(names)) {
            Files.delete(folder.resolve(name));
            say("pruned", name);
        }
    }

    // ---------------------------------------------------------------- PostgreSQL's own programs

    private void run(String name, Stream<String> words, OutputStream out) throws BackupException, IOException {
        var at = DATABASE.matcher(url);
        if (!at.matches()) throw new BackupException("not an address of a database: " + url);
        var command = new ArrayList<>(List.of(
                tools.resolve(name).toString(),
                "--host=" + at.group(1),
                "--port=" + at.group(2),
                "--username=knot_owner",
                "--dbname=" + at.group(3)));
        words.forEach(command::add);
        // Into a file: whoever waits for the one stream to end must not hold up the other.
        var errors = Files.createTempFile("knot", ".log");
        var builder = new ProcessBuilder(command).redirectError(errors.toFile());
        builder.environment().put("PGPASSWORD", password);
        var process = builder.start();
        try (var in = process.getInputStream()) {
            in.transferTo(out);
            if (process.waitFor() != 0)
                throw new BackupException(name + " failed: " + firstLine(Files.readString(errors)));
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new BackupException(name + " was interrupted.");
        } finally {
            process.destroy();
            Files.delete(errors);
        }
    }

    private String text(String sql) {
        return Optional.ofNullable(base.queryForObject(sql, String.class)).orElse("");
    }

    private long number(String sql) {
        return Long.parseLong(text(sql));
    }
}
