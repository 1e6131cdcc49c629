package app.knottag.server.backup;

import java.time.Instant;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.List;
import java.util.Locale;
import java.util.stream.Collectors;

/**
 * What a backup says of itself.
 *
 * @param mode what it is a backup of: start or demo
 * @param schema the version of the database in it
 * @param room how many bytes the database takes
 * @param entries how many entries its log has
 * @param hash the hash of the last one, in hexadecimal digits
 */
record Manifest(
        String format,
        Instant madeAt,
        String mode,
        int schema,
        String postgres,
        long room,
        long sites,
        long endpoints,
        long people,
        long entries,
        String hash,
        List<Part> parts) {

    static final String FORMAT = "knot-tag-backup/1";
    static final String NAME = "manifest.json", WORDS = "WHAT-IS-IN-IT.txt", DUMP = "knot.dump", FILES = "files/";

    private static final DateTimeFormatter AT =
            DateTimeFormatter.ofPattern("d MMM yyyy HH:mm", Locale.ENGLISH).withZone(ZoneOffset.UTC);

    /** One file in it. */
    record Part(String name, long bytes, String sha256) {}

    Manifest with(List<Part> all) {
        return new Manifest(format, madeAt, mode, schema, postgres, room, sites, endpoints, people, entries, hash, all);
    }

    /** Says it in a sentence or two. */
    String says() {
        return sites + " sites, " + endpoints + " endpoints, " + people + " people; the log up to entry " + entries
                + " (" + hash.substring(0, Math.min(12, hash.length())) + "), as of " + AT.format(madeAt) + " UTC.";
    }

    /** Says it to whoever opens the file by hand in ten years. */
    String words() {
        return """
                A backup of Knot Tag%s: %s

                In it is everything but sign-ins that were going on, the certificate and its key. Passwords are in it only as hashes,
                but whoever has this file has the whole record: keep it as you keep keys.

                To bring it back on an empty machine:   ./knot restore FILE
                The database alone (%s is what pg_dump of PostgreSQL %s wrote; version %d of the tables) can be read with pg_restore.

                The SHA-256 of each file:
                %s
                """.formatted(
                        mode.equals("demo") ? "'s demo" : "",
                        says(),
                        DUMP,
                        postgres,
                        schema,
                        parts.stream().map(p -> p.sha256() + "  " + p.name()).collect(Collectors.joining("\n")));
    }
}
