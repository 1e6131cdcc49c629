package app.knottag.core.gear;

import app.knottag.core.gear.GearReading.Duplex;
import app.knottag.core.gear.GearReading.Link;
import app.knottag.core.gear.GearReading.Port;
import app.knottag.core.gear.GearReading.Power;
import app.knottag.core.gear.PortLine.Remark;
import app.knottag.core.gear.PortLine.Who;
import app.knottag.core.hardware.Gear;
import app.knottag.core.hardware.Gear.Role;
import app.knottag.core.hardware.Mac;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;

/**
 * Holds what a piece of gear tells of its ports against the record. A forwarding table shows behind which port a MAC was heard
 * in the last minutes; that it hangs at that very port is only said where nothing speaks for another switch in between.
 */
public final class PortJudge {

    /** With more than so many behind it, a port leads to another switch or an access point. */
    private static final int FEW = 4;

    /** Errors that are worth a new lead: at least so many, and at least one of so many packets. */
    private static final long ERRORS = 100;

    private static final long ONE_OF = 10_000;
    private static final long DAY = 86_400;

    /**
     * An endpoint as far as its cable is concerned.
     *
     * @param macs of all its interfaces
     * @param port number of its port's record, planned or by its outlet
     * @param portLabel what that port is called, or empty
     */
    public record Device(long id, String name, List<Mac> macs, Optional<Long> port, String portLabel) {}

    private final Gear gear;
    private final GearReading reading;
    private final List<Device> devices;
    private final Map<Mac, Device> owners = new HashMap<>();
    private final Map<Port, String> labels = new HashMap<>();
    private final Map<Port, Gear.Port> recorded = new HashMap<>();
    private final boolean heard;

    private PortJudge(Gear gear, GearReading reading, List<Device> devices, Map<Integer, Port> byNumber) {
        this.gear = gear;
        this.reading = reading;
        this.devices = devices;
        for (var d : devices) d.macs().forEach(m -> owners.put(m, d));
        heard = reading.ports().stream().anyMatch(p -> !p.macs().isEmpty());
        reading.ports().forEach(p -> labels.put(p, gear.name() + " " + p.label()));
        for (var p : gear.ports())
            if (byNumber.containsKey(p.number())) {
                labels.put(byNumber.get(p.number()), gear.label(p));
                recorded.put(byNumber.get(p.number()), p);
            }
    }

    /** Returns every port on record in the order of its numbers, then those that could not be told apart. */
    public static List<PortLine> of(Gear gear, GearReading reading, List<Device> devices) {
        var matched = PortNames.match(gear, reading.ports()).byNumber();
        var judge = new PortJudge(gear, reading, devices, matched);
        var lines = new ArrayList<PortLine>();
        for (var p : gear.ports()) lines.add(judge.line(p, Optional.ofNullable(matched.get(p.number()))));
        for (var p : reading.ports())
            if (!judge.recorded.containsKey(p))
                lines.add(new PortLine(
                        judge.labels.get(p),
                        0,
                        Optional.of(p),
                        judge.through(p),
                        false,
                        judge.who(p),
                        state(p, reading)));
        return lines;
    }

    /** Returns where each MAC hangs, as far as one piece of gear shows it: the label of the port, for ports that do not lead on. */
    public static Map<Mac, String> at(List<PortLine> lines) {
        var at = new LinkedHashMap<Mac, String>();
        for (var line : lines)
            if (!line.through())
                line.read().ifPresent(p -> p.macs().forEach(m -> at.merge(m, line.label(), (a, b) -> a + " and " + b)));
        return at;
    }

    private boolean through(Port p) {
        var role = Optional.ofNullable(recorded.get(p)).map(Gear.Port::role);
        return role.filter(r -> r == Role.UPLINK || r == Role.WAN).isPresent()
                || !p.other().isEmpty() && p.macs().size() > 1
                || p.macs().size() > FEW;
    }

    private List<Who> who(Port p) {
        return p.macs().stream()
                .map(m -> Optional.ofNullable(owners.get(m))
                        .map(d -> new Who(d.id(), d.name(), m))
                        .orElse(new Who(0, m.toString(), m)))
                .toList();
    }

    private PortLine line(Gear.Port port, Optional<Port> read) {
        var planned = devices.stream()
                .filter(d -> d.port().filter(id -> id == port.id()).isPresent())
                .toList();
        if (read.isEmpty())
            return new PortLine(
                    gear.label(port),
                    port.number(),
                    read,
                    false,
                    false,
                    List.of(),
                    planned.stream()
                            .map(d -> new Remark(
                                    false, d.name() + " is on record here, and nothing was told of this port.", ""))
                            .toList());
        var p = read.get();
        var remarks = new ArrayList<Remark>();
        for (var d : planned) planned(d, p).ifPresent(remarks::add);
        if (!through(p)) elsewhere(p).forEach(remarks::add);
        remarks.addAll(state(p, reading));
        boolean right = !planned.isEmpty() && planned.stream().allMatch(d -> at(d).contains(p));
        return new PortLine(gear.label(port), port.number(), read, through(p), right, who(p), remarks);
    }

    private List<Port> at(Device d) {
        return reading.ports().stream()
                .filter(p -> d.macs().stream().anyMatch(p.macs()::contains))
                .toList();
    }

    /** What there is to say of an endpoint that is on record at a port. */
    private Optional<Remark> planned(Device d, Port p) {
        var at = at(d);
        if (at.contains(p)) return Optional.empty();
        var hangs = at.stream().filter(q -> !through(q)).findFirst();
        if (hangs.isPresent())
            return Optional.of(new Remark(
                    true,
                    d.name() + " is on record here, and hangs at " + labels.get(hangs.get()) + ".",
                    "Put its lead back, or put " + labels.get(hangs.get()) + " on record."));
        if (!at.isEmpty())
            return Optional.of(new Remark(
                    true,
                    d.name() + " is on record here, and is heard through " + labels.get(at.get(0))
                            + ": it hangs somewhere behind that.",
                    "Look where its lead ends."));
        if (p.link() == Link.SWITCHED_OFF)
            return Optional.of(new Remark(
                    true,
                    d.name() + " is on record here, and the port is switched off in the settings.",
                    "Have it switched on, or move the lead."));
        if (p.link() == Link.DOWN)
            return Optional.of(new Remark(
                    true,
                    d.name() + " is on record here, and the port is dark.",
                    "See whether it is on and its lead is in at both ends."));
        if (d.macs().isEmpty())
            return Optional.of(new Remark(
                    false,
                    d.name() + " is on record here; without its MAC it cannot be told from others.",
                    "Read its label."));
        if (!heard) return Optional.empty();
        if (p.macs().isEmpty())
            return Optional.of(new Remark(
                    false,
                    "Nobody was heard here in the last minutes, so whether " + d.name() + " hangs here is not known.",
                    "Ping it, and read the gear again at once."));
        if (through(p)) return Optional.empty();
        return Optional.of(new Remark(
                true,
                d.name() + " is on record here and is not heard; " + names(p)
                        + (p.macs().size() == 1 ? " is." : " are."),
                "Compare the label of what hangs here."));
    }

    /** Those who hang here and are on record elsewhere, or nowhere. */
    private List<Remark> elsewhere(Port p) {
        var remarks = new ArrayList<Remark>();
        var port = Optional.ofNullable(recorded.get(p)).map(Gear.Port::id);
        var here = p.macs().stream()
                .filter(owners::containsKey)
                .map(owners::get)
                .filter(d -> !d.port().equals(port))
                .distinct()
                .toList();
        for (var d : here)
            if (d.port().isEmpty())
                remarks.add(new Remark(
                        false, d.name() + " hangs here; no port is on record for it.", "Put this port on its record."));
            else if (!mine(d))
                remarks.add(new Remark(
                        true,
                        d.name() + " hangs here, and is on record at " + d.portLabel() + ".",
                        "Put its lead back, or put this port on record."));
        if (p.macs().size() > 1 && p.link() == Link.UP)
            remarks.add(new Remark(
                    false, p.macs().size() + " were heard here: a small switch, or one device with several MACs.", ""));
        return remarks;
    }

    /** Whether its port is one of this gear, where it is said already. */
    private boolean mine(Device d) {
        return recorded.values().stream()
                .anyMatch(r -> d.port().filter(id -> id == r.id()).isPresent());
    }

    private String names(Port p) {
        return who(p).stream().map(Who::name).distinct().collect(Collectors.joining(", "));
    }

    /** How the port itself is. */
    private static List<Remark> state(Port p, GearReading reading) {
        var remarks = new ArrayList<Remark>();
        if (p.duplex() == Duplex.HALF)
            remarks.add(new Remark(
                    true,
                    "Half duplex" + (p.megabits() > 0 ? " at " + p.megabits() + " Mbit/s" : "")
                            + ": most likely one end is fixed and the other on automatic.",
                    "Set both ends to automatic."));
        if (p.errors() >= ERRORS && p.errors() > (p.errors() + p.packets()) / ONE_OF)
            remarks.add(new Remark(
                    true,
                    p.errors() + " packets came in broken, one of "
                            + Math.max(1, (p.errors() + p.packets()) / p.errors())
                            + reading.upSeconds()
                                    .map(s -> ", since it was started " + (s < DAY ? "today" : s / DAY + " days ago"))
                                    .orElse("")
                            + ".",
                    "Change the lead, then read again: if the number still grows, it is the socket or the device."));
        if (p.power().filter(w -> w == Power.FAULT).isPresent())
            remarks.add(new Remark(
                    true,
                    "It says that feeding power failed here.",
                    "Try another lead; then see whether what hangs here asks for more than the port gives."));
        return remarks;
    }
}
