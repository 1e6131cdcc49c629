package app.knottag.core.power;

import app.knottag.core.figure.Figures;
import app.knottag.core.figure.Judgement;
import app.knottag.core.figure.Judgement.Draft;
import app.knottag.core.figure.Picture;
import app.knottag.core.figure.Picture.PictureMark;
import app.knottag.core.figure.Picture.Tone;
import app.knottag.core.figure.SheetField;
import app.knottag.core.figure.Unit;
import app.knottag.core.figure.Worksheet;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;

/** How long a battery carries what hangs on it, which device belongs to which side, and whether the way out is carried too. */
public final class BatterySheet implements Worksheet {

    /** Share of the battery that reaches the sockets. */
    private static final double REACHES = 0.85;

    /** What a device is, as far as its socket is concerned. */
    enum Role {
        TERMINAL("Payment terminal or PIN pad", true),
        TILL("Till or workstation", true),
        SWITCH("Switch", true),
        ROUTER("Router or modem", true),
        STORAGE("Storage box", true),
        LASER("Laser printer or copier", false),
        HEATER("Heater, kettle, fan", false),
        OTHER("Other", false);

        private final String words;
        private final boolean battery;

        Role(String words, boolean battery) {
            this.words = words;
            this.battery = battery;
        }
    }

    /** Where it is plugged in. */
    enum Socket {
        BATTERY("Battery side"),
        SURGE("Surge side"),
        WALL("Wall");

        private final String words;

        Socket(String words) {
            this.words = words;
        }
    }

    private record Device(String name, Role role, double watts, Socket socket, int row) {}

    @Override
    public String key() {
        return "battery";
    }

    @Override
    public String title() {
        return "When the power fails";
    }

    @Override
    public String purpose() {
        return "Tells how many minutes the battery carries what hangs on it, and whether everything on the way to the internet is "
                + "carried too. A battery of three years and more gives less.";
    }

    @Override
    public List<SheetField> fields() {
        return List.of(
                SheetField.figure("energy", "Battery, usable", Unit.WATT_HOUR, 1, 100_000)
                        .hint("Wh on its label, or Ah times its volts."),
                SheetField.figure("output", "Battery, most it gives", Unit.WATT, 1, 100_000)
                        .hint("In W, not in VA.")
                        .optional(),
                SheetField.figure("minutes", "Minutes wanted", Unit.MINUTE, 1, 1440)
                        .usual("10"),
                SheetField.rows(
                        "devices",
                        "What hangs where",
                        1,
                        24,
                        SheetField.words("name", "Device"),
                        SheetField.pick("role", "It is a", Role.values(), r -> r.words)
                                .usual("OTHER"),
                        SheetField.figure("watts", "It draws", Unit.WATT, 0.1, 5000),
                        SheetField.pick("socket", "Plugged into", Socket.values(), s -> s.words)));
    }

    @Override
    public Judgement judge(Figures f) {
        var devices = new ArrayList<Device>();
        for (var r : f.rows("devices"))
            devices.add(new Device(
                    r.words("name"),
                    r.pick("role", Role.class),
                    r.figure("watts"),
                    r.pick("socket", Socket.class),
                    devices.size()));
        double watts = devices.stream()
                .filter(d -> d.socket() == Socket.BATTERY)
                .mapToDouble(Device::watts)
                .sum();
        var draft = new Draft().result("WATTS", "On the battery side", Unit.WATT.write(watts));
        devices.forEach(d -> socket(draft, d));
        chain(draft, devices);
        f.find("output")
                .filter(most -> Loads.above(watts, most))
                .ifPresent(most -> draft.stop(
                        "OVERLOAD",
                        "output",
                        "It gives at most " + Unit.WATT.write(most) + ": with " + Unit.WATT.write(watts)
                                + " it switches off at once.",
                        "Move to the surge side what may stand still."));
        if (watts == 0) {
            draft.stop(
                    "NOTHING",
                    "devices",
                    "Nothing hangs on the battery.",
                    "Plug terminal, till, switch and router into its battery side.");
            return draft.done();
        }
        double minutes = f.figure("energy") * REACHES / watts * 60, wanted = f.figure("minutes");
        draft.result("MINUTES", "It carries them for", Unit.MINUTE.write(whole(minutes)));
        if (minutes < wanted)
            draft.stop(
                    "TOO_SHORT",
                    "minutes",
                    Unit.MINUTE.write(whole(minutes)) + " instead of " + Unit.MINUTE.write(wanted) + ".",
                    "Take " + Unit.WATT_HOUR.write(Math.ceil(wanted * watts / 60 / REACHES))
                            + " or more, or have at most "
                            + Unit.WATT.write(whole(f.figure("energy") * REACHES / wanted * 60)) + " on it.");
        return draft.draw(picture(minutes, wanted)).done();
    }

    private static double whole(double figure) {
        return Math.floor(figure + 1e-9);
    }

    private static void socket(Draft draft, Device d) {
        String field = "devices/" + d.row() + "/socket";
        if (d.socket() == Socket.BATTERY && (d.role() == Role.LASER || d.role() == Role.HEATER))
            draft.stop(
                    "NOT_ON_BATTERY",
                    field,
                    d.name() + " draws in bursts that switch the battery off, and everything with it.",
                    "Plug it into the wall.");
        else if (d.socket() != Socket.BATTERY && d.role().battery)
            draft.warn(
                    "BELONGS_ON_BATTERY",
                    field,
                    d.name() + " stands still with the power.",
                    "Plug it into the battery side.");
    }

    /** A terminal that still has power is of use only while switch and router have it too. */
    private static void chain(Draft draft, List<Device> devices) {
        var carried = EnumSet.noneOf(Role.class);
        devices.stream().filter(d -> d.socket() == Socket.BATTERY).forEach(d -> carried.add(d.role()));
        boolean works = carried.contains(Role.TERMINAL) || carried.contains(Role.TILL);
        for (var link : List.of(Role.SWITCH, Role.ROUTER))
            if (works && !carried.contains(link))
                draft.stop(
                        "MISSING_LINK",
                        "devices",
                        "No " + link.words.toLowerCase(java.util.Locale.ROOT)
                                + " hangs on the battery: terminal and till run on, and reach nobody.",
                        "Plug it into the battery side too, with every switch on the way.");
    }

    private static Picture picture(double minutes, double wanted) {
        return new Picture(
                "From the moment the power fails",
                Unit.MINUTE,
                Math.max(minutes, wanted) * 1.05,
                List.of(new Picture.Row("Battery")
                        .add(minutes, "carries them", minutes < wanted ? Tone.BAD : Tone.GOOD)
                        .row()),
                List.of(new PictureMark(wanted, "wanted")));
    }
}
