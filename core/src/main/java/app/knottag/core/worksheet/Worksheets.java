package app.knottag.core.worksheet;

import app.knottag.core.figure.Worksheet;
import app.knottag.core.guard.OutageSheet;
import app.knottag.core.mail.MailSheet;
import app.knottag.core.mail.ScanSheet;
import app.knottag.core.place.DownloadSheet;
import app.knottag.core.place.HeatSheet;
import app.knottag.core.place.HubSheet;
import app.knottag.core.place.RunSheet;
import app.knottag.core.power.BatterySheet;
import app.knottag.core.power.BrickSheet;
import app.knottag.core.power.CableSheet;
import app.knottag.core.power.PoeSheet;
import app.knottag.core.power.StripSheet;
import app.knottag.core.power.SupplySheet;
import app.knottag.core.power.SwitchedSheet;
import app.knottag.core.power.UsbSheet;
import app.knottag.core.storage.DrivesSheet;
import java.util.List;
import java.util.Optional;

/** Every worksheet there is. */
public final class Worksheets {

    private static final List<Worksheet> ALL = List.of(
            new SupplySheet(),
            new CableSheet(),
            new BrickSheet(),
            new BatterySheet(),
            new StripSheet(),
            new SwitchedSheet(),
            new OutageSheet(),
            new UsbSheet(),
            new PoeSheet(),
            new DrivesSheet(),
            new MailSheet(),
            new ScanSheet(),
            new HubSheet(),
            new RunSheet(),
            new HeatSheet(),
            new DownloadSheet());

    private Worksheets() {}

    /** Returns all of them, in the order of a list. */
    public static List<Worksheet> all() {
        return ALL;
    }

    /** Returns the one with this key. */
    public static Optional<Worksheet> find(String key) {
        return ALL.stream().filter(w -> w.key().equals(key)).findFirst();
    }
}
