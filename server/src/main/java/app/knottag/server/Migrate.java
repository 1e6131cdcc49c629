package app.knottag.server;

import org.flywaydb.core.Flyway;
import org.flywaydb.core.api.FlywayException;

/**
 * Brings the database to what this program needs, as its owner, and ends; the program itself never has that password. With the
 * word {@code pending} it only says whether there is anything to bring up to date.
 */
public final class Migrate {

    private Migrate() {}

    public static void main(String[] args) {
        var flyway = Flyway.configure()
                .dataSource(System.getenv("KNOT_DB_URL"), "knot_owner", System.getenv("KNOT_DB_OWNER_PASSWORD"))
                .load();
        var info = flyway.info();
        var known = java.util.Arrays.stream(info.all())
                .filter(m -> !m.getState().isFailed()
                        && m.getPhysicalLocation() != null
                        && !m.getPhysicalLocation().isEmpty())
                .map(m -> m.getVersion())
                .filter(java.util.Objects::nonNull)
                .max(java.util.Comparator.naturalOrder());
        var now = info.current();
        if (now != null && known.isPresent() && now.getVersion().compareTo(known.get()) > 0) {
            System.out.println("KNOT newer This database was made by a newer Knot Tag (version " + now.getVersion()
                    + "); this one knows version " + known.get() + ". Start it with that newer one.");
            System.exit(3);
        }
        if (args.length > 0 && args[0].equals("pending")) {
            System.out.println("KNOT pending " + (now == null ? 0 : info.pending().length));
            return;
        }
        try {
            flyway.migrate();
            System.out.println("KNOT migrated");
        } catch (FlywayException e) {
            System.out.println("KNOT failed The database could not be brought up to date: "
                    + e.getMessage().lines().findFirst().orElse(""));
            System.exit(4);
        }
    }
}
