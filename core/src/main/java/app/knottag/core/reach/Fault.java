package app.knottag.core.reach;

import app.knottag.core.hardware.Mac;
import app.knottag.core.reach.SiteModel.Role;
import app.knottag.core.reach.SiteModel.Station;
import java.util.Optional;

/** Something that goes wrong with one station: a pure change of the site. */
public enum Fault {
    UNPLUGGED("Pull its plug") {
        @Override
        public SiteModel apply(SiteModel site, Station station) {
            return site.with(station.withLinked(false));
        }
    },
    BACK_ON_AUTOMATIC("Put it back on automatic") {
        @Override
        public SiteModel apply(SiteModel site, Station station) {
            return site.with(station.withAddress(true, station.typed()));
        }
    },
    ADDRESS_HELD_BY_ANOTHER("Let another device hold its address") {
        @Override
        public SiteModel apply(SiteModel site, Station station) {
            // The later device wins the neighbour table, as the last answer does on a real wire.
            var stranger = new Station(
                    station.id() + "-stranger",
                    "A stranger",
                    Role.ENDPOINT,
                    STRANGER,
                    "",
                    true,
                    false,
                    Optional.of(station.address()),
                    station.leased(),
                    0,
                    "",
                    "");
            return site.plus(stranger);
        }
    },
    SERVICE_ON_OTHER_PORT("Move its service to another port") {
        @Override
        public SiteModel apply(SiteModel site, Station station) {
            return site.with(station.withPort(station.port() + 1000));
        }
    },
    SERVICE_OFF("Switch its service off") {
        @Override
        public SiteModel apply(SiteModel site, Station station) {
            return site.with(station.withPort(0));
        }
    },
    WRONG_UNIT("Put another unit in its place") {
        @Override
        public SiteModel apply(SiteModel site, Station station) {
            return site.with(station.withUnit(STRANGER, OTHER_SERIAL));
        }
    };

    private static final String OTHER_SERIAL = "XX-0000-0000";

    /** MAC of the made-up stranger, from the block for documentation (RFC 7042). */
    public static final Mac STRANGER = Mac.parse("00:00:5E:00:53:C1");

    private final String label;

    Fault(String label) {
        this.label = label;
    }

    /** Returns what one does to bring it about. */
    public String label() {
        return label;
    }

    /** Returns the site as it is with this fault at a station of it. */
    public abstract SiteModel apply(SiteModel site, Station station);
}
