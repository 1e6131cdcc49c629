package app.knottag.server.backup;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.FileSystems;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.stream.Stream;
import java.util.zip.GZIPInputStream;
import org.flywaydb.core.Flyway;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** One file out of a base with much in it, and into an empty one. */
class BackupTest {

    private static final String URL = System.getenv("KNOT_DB_URL").replaceFirst("/knot$", "/restored");

    @TempDir
    private Path folder;

    private final Backup backup =
            new Backup(URL, System.getenv("KNOT_DB_OWNER_PASSWORD"), Path.of(System.getenv("KNOT_PG_BIN")));

    /** What version 8 left of a garden centre in the middle of its work. */
    @BeforeEach
    void anOldBase() throws IOException, SQLException {
        empty();
        try (var dump = new GZIPInputStream(getClass().getResourceAsStream("/upgrade/V8.sql.gz"));
                var db = open();
                var statement = db.createStatement()) {
            statement.execute(new String(dump.readAllBytes(), StandardCharsets.UTF_8));
        }
    }

    private static Connection open() throws SQLException {
        return DriverManager.getConnection(URL, "knot_owner", System.getenv("KNOT_DB_OWNER_PASSWORD"));
    }

    private static void sql(String sql) throws SQLException {
        try (var db = open();
                var statement = db.createStatement()) {
            statement.execute(sql);
        }
    }

    private static void empty() throws SQLException {
        sql("drop schema public cascade; create schema public");
    }

    private static List<String> list(String sql) throws SQLException {
        try (var db = open();
                var statement = db.createStatement();
                var rows = statement.executeQuery(sql)) {
            var all = new ArrayList<String>();
            while (rows.next()) all.add(rows.getString(1));
            return all;
        }
    }

    /** A hash over each whole table, made by PostgreSQL. */
    private static Map<String, String> tables() throws SQLException {
        var all = new TreeMap<String, String>();
        for (String table : list("select table_name from information_schema.tables where table_schema = 'public'"))
            if (!table.startsWith("spring_session"))
                all.put(
                        table,
                        list("select md5(string_agg(t::text, '|' order by t::text)) from public." + table + " t")
                                        .get(0) + "");
        return all;
    }

    private static void upToDate() {
        Flyway.configure()
                .dataSource(URL, "knot_owner", System.getenv("KNOT_DB_OWNER_PASSWORD"))
                .load()
                .migrate();
    }

    @DisplayName(
            "A backup of an old version comes up on an empty base, row for row, with the files beside it; then it is brought up to date")
    @Test
    void thereAndBack() throws Exception {
        Files.createDirectories(folder.resolve("data/lists/Shop"));
        Files.writeString(folder.resolve("data/lists/Shop/leases.txt"), "as it was dropped\n");
        Files.writeString(folder.resolve("data/db.secrets"), "OWNER=x");
        sql("insert into public.spring_session values ('a', 'a', 0, 0, 0, 0, 'Imke Rasmund')");
        var before = tables();
        var file = folder.resolve("b.zip");
        var made = backup.make(file, folder.resolve("data"), "start");
        assertThat(made.schema()).isEqualTo(8);
        assertThat(made.says())
                .contains(list("select count(*) from public.endpoint").get(0) + " endpoints");
        assertThat(PosixFilePermissions.toString(Files.getPosixFilePermissions(file)))
                .isEqualTo("rw-------");

        empty();
        var machine = Files.createDirectory(folder.resolve("machine"));
        assertThat(backup.restore(file, machine)).isEqualTo(made);
        assertThat(tables()).isEqualTo(before).hasSizeGreaterThan(30);
        assertThat(list("select principal_name from public.spring_session")).isEmpty();
        assertThat(machine.resolve("lists/Shop/leases.txt")).hasContent("as it was dropped\n");
        try (var files = Files.list(machine)) {
            assertThat(files.map(f -> f.getFileName().toString()))
                    .as("no secret, nothing left over")
                    .containsExactly("lists");
        }
        upToDate();
        assertThat(list("select encode(hash, 'hex') from public.log_head")).containsExactly(made.hash());
        try (var app = DriverManager.getConnection(URL, "knot_app", System.getenv("KNOT_DB_APP_PASSWORD"));
                var statement = app.createStatement()) {
            assertThat(statement.executeUpdate("update public.site set name = name"))
                    .as("as the server")
                    .isPositive();
            assertThatThrownBy(() -> statement.executeUpdate("delete from public.log_entry"))
                    .hasMessageContaining("permission denied");
        }
    }

    @DisplayName(
            "What people do meanwhile is either all in it or not at all: the dump is of the moment that the manifest tells")
    @Test
    void ofOneMoment() throws Exception {
        var stopped = new AtomicBoolean();
        var writer = new Thread(() -> {
            while (!stopped.get())
                try {
                    sql("insert into public.log_entry (person, action, reason) values ('x', 'changed', '')");
                } catch (SQLException e) {
                    throw new IllegalStateException(e);
                }
        });
        writer.start();
        var file = folder.resolve("b.zip");
        long first = Long.parseLong(list("select id from public.log_head").get(0));
        var made = backup.make(file, folder, "start");
        stopped.set(true);
        writer.join();
        long last = Long.parseLong(list("select id from public.log_head").get(0));
        assertThat(made.entries()).isGreaterThanOrEqualTo(first).isLessThan(last);
        empty();
        // It compares the log with the manifest, entry by entry and hash by hash.
        backup.restore(file, folder);
        assertThat(list("select count(*) from public.log_entry")).containsExactly("" + made.entries());
    }

    @DisplayName("What is no whole backup is refused with what is wrong, and nothing of it stays")
    @ParameterizedTest(name = "{0}: {1}")
    @CsvSource({
        "half of it, is no backup of Knot Tag, or only a part of one.",
        "a picture, is no backup of Knot Tag, or only a part of one.",
        "a changed byte, is damaged: knot.dump is not what was written when it was made. Take an older backup.",
        "no dump, is damaged: knot.dump is missing. Take an older backup.",
        "a newer format, is of another Knot Tag (knot-tag-backup/2). Bring it back with the version that made it",
        "newer tables, was made by a newer Knot Tag (tables of version 999; this one knows",
        "more than there is room for, 'and up to 9537043 MB may be needed. Make room there, or choose another folder.'",
        "a path out of it, names a file outside itself: ../../etc/x",
        "another log, ends at entry",
        "no words of itself, is no backup of Knot Tag.",
        "words that say nothing, is damaged: what it says of itself cannot be read. Take an older backup.",
    })
    void refused(String what, String why) throws Exception {
        var file = folder.resolve("b.zip");
        var made = backup.make(file, folder, "start");
        empty();
        byte[] all = Files.readAllBytes(file);
        switch (what) {
            case "half of it" -> Files.write(file, Arrays.copyOf(all, all.length / 2));
            case "a picture" -> Files.write(file, new byte[] {(byte) 0x89, 'P', 'N', 'G'});
            case "a changed byte" -> {
                all[all.length / 2] ^= 4;
                Files.write(file, all);
            }
            default -> {
                try (var zip = FileSystems.newFileSystem(file)) {
                    var words = zip.getPath(Manifest.NAME);
                    String text = Files.readString(words);
                    switch (what) {
                        case "no dump" -> Files.delete(zip.getPath(Manifest.DUMP));
                        case "a newer format" -> text = text.replace("knot-tag-backup/1", "knot-tag-backup/2");
                        case "newer tables" -> text = text.replaceFirst("\"schema\" : \\d+", "\"schema\" : 999");
                        case "more than there is room for" ->
                            text = text.replaceFirst("\"room\" : \\d+", "\"room\" : 9999999999999");
                        case "a path out of it" -> text = text.replace(Manifest.DUMP, "../../etc/x");
                        case "another log" ->
                            text = text.replace(made.hash(), "00" + made.hash().substring(2));
                        case "words that say nothing" -> text = "{}{";
                        default -> {}
                    }
                    if (what.equals("no words of itself")) Files.delete(words);
                    else Files.writeString(words, text);
                }
            }
        }
        assertThatThrownBy(() -> backup.restore(file, folder))
                .isInstanceOf(BackupException.class)
                .hasMessageContaining(why);
        try (var files = Files.list(folder)) {
            assertThat(files).containsExactly(file);
        }
    }

    @DisplayName("A name that is taken is left alone, and what cannot be finished leaves no half of it")
    @Test
    void neverHalf() throws Exception {
        var file = Files.writeString(folder.resolve("b.zip"), "mine");
        assertThatThrownBy(() -> backup.make(file, folder, "start")).hasMessageContaining("is there already");
        assertThat(file).hasContent("mine");
        var nobody = new Backup(URL, System.getenv("KNOT_DB_OWNER_PASSWORD"), folder);
        assertThatThrownBy(() -> nobody.make(folder.resolve("c.zip"), folder, "start"))
                .isInstanceOf(IOException.class);
        try (var files = Files.list(folder)) {
            assertThat(files).containsExactly(file);
        }
    }

    @DisplayName("Of three years of nights seven days, five weeks and twelve months stay; what a person named stays")
    @Test
    void whatStays() {
        var day = LocalDate.of(2026, 12, 1);
        var all = new ArrayList<String>();
        // Pruned each night, as it is lived through.
        for (int n = 1100; n >= 0; n--) {
            all.add("knot-night-" + day.minusDays(n) + "-0420.zip");
            if (n == 700) all.add("knot-2025-01-01-1200.zip");
            all.removeAll(Keep.gone(all));
        }
        // From a paper calendar: seven days; this week and four Sundays before it; this month and the last day of
        // eleven.
        var days =
                "2026-11-25 26 27 28 29 30, 2026-12-01, 2026-11-08 15 22, 2026-01-31, 2026-02-28, 2026-03-31, 2026-04-30, "
                        + "2026-05-31, 2026-06-30, 2026-07-31, 2026-08-31, 2026-09-30, 2026-10-31";
        var stay = Arrays.stream(days.split(", "))
                .flatMap(m -> Arrays.stream(m.substring(8).split(" "))
                        .map(d -> "knot-night-" + m.substring(0, 8) + d + "-0420.zip"));
        assertThat(all)
                .containsExactlyInAnyOrderElementsOf(Stream.concat(stay, Stream.of("knot-2025-01-01-1200.zip"))
                        .toList());
    }
}
