package app.knottag.core.hardware;

import app.knottag.core.hardware.Gear.Port;
import app.knottag.core.hardware.Gear.Role;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/** The cables of a site, from places through outlets to ports, and what is wrong with them. */
public final class Wiring {

    /**
     * One end of a cable.
     *
     * @param endpointId id of the endpoint
     * @param walk where the place comes in the order of walking, lowest first
     * @param segmentId segment that it is planned in
     * @param outletId outlet it is plugged into, or empty when its cable goes straight to the port
     * @param portId port it is planned on, or empty
     * @param pluggedIn whether somebody plugged it in and saw its light
     */
    public record CableEnd(
            long endpointId,
            String endpoint,
            String place,
            int walk,
            long segmentId,
            Optional<Long> outletId,
            Optional<Long> portId,
            boolean pluggedIn) {}

    /** How a cable stands. */
    public enum State {
        /** Nothing says where it goes. */
        OPEN,
        /** Planned or patched, and nothing speaks against it. */
        PLANNED,
        /** Plugged in, and its light seen. */
        PLUGGED_IN,
        WRONG
    }

    /**
     * One cable with what is on record about it.
     *
     * @param port label of the port where it ends, or empty
     * @param problem what is wrong, or empty
     * @param mend the smallest change that mends it, or empty
     */
    public record Cable(
            long endpointId,
            String endpoint,
            String place,
            String outlet,
            String port,
            @Nullable String gear,
            State state,
            String problem,
            String mend) {}

    /** How many ports of a piece of gear are left for endpoints. */
    public record Room(String gear, int ports, int used, int upwards, int free, String advice) {}

    private static final int[] SIZES = {5, 8, 16, 24, 48};
    private final List<Gear> gear;
    private final Map<Long, Outlet> outlets = new HashMap<>();
    private final Map<Long, Port> ports = new HashMap<>();
    private final Map<Long, Gear> gearOfPort = new HashMap<>();
    private final Map<Long, String> segmentNames;
    private final List<CableEnd> ends;
    private final Set<Long> used = new HashSet<>();
    private final Map<Long, List<CableEnd>> endsOfPort = new HashMap<>();

    /**
     * @param segmentNames names of the segments by id
     */
    public Wiring(List<Gear> gear, List<Outlet> outlets, Map<Long, String> segmentNames, List<CableEnd> ends) {
        this.gear = List.copyOf(gear);
        this.segmentNames = Map.copyOf(segmentNames);
        this.ends = List.copyOf(ends);
        outlets.forEach(o -> this.outlets.put(o.id(), o));
        for (var g : gear)
            for (var p : g.ports()) {
                ports.put(p.id(), p);
                gearOfPort.put(p.id(), g);
            }
        for (var outlet : outlets) outlet.portId().ifPresent(used::add);
        for (var lead : ends) {
            lead.portId().ifPresent(used::add);
            end(lead)
                    .ifPresent(p -> endsOfPort
                            .computeIfAbsent(p, k -> new ArrayList<>())
                            .add(lead));
        }
    }

    /** The port where a cable ends: the one planned, else the one its outlet is patched to. */
    private Optional<Long> end(CableEnd lead) {
        return lead.portId().or(() -> lead.outletId().map(outlets::get).flatMap(Outlet::portId));
    }

    /** Returns every cable, in the order of walking: place by place, outlet by outlet. */
    public List<Cable> cables() {
        return ends.stream()
                .sorted(Comparator.comparing((CableEnd l) -> l.place().isEmpty())
                        .thenComparingInt(CableEnd::walk)
                        .thenComparing(CableEnd::place, String.CASE_INSENSITIVE_ORDER)
                        .thenComparing(
                                l -> l.outletId()
                                        .map(outlets::get)
                                        .map(Outlet::name)
                                        .orElse(""),
                                String.CASE_INSENSITIVE_ORDER)
                        .thenComparing(CableEnd::endpoint, String.CASE_INSENSITIVE_ORDER))
                .map(this::cable)
                .toList();
    }

    private Cable cable(CableEnd lead) {
        var outlet = lead.outletId().map(outlets::get);
        var end = end(lead).map(ports::get);
        String label = end.map(p -> gearOfPort.get(p.id()).label(p)).orElse("");
        var wrong = Stream.<Optional<Wrong>>of(
                        outlet.flatMap(o -> dead(o)),
                        outlet.flatMap(o -> crossed(o, lead)),
                        end.flatMap(p -> role(p, label)),
                        end.flatMap(p -> shared(p, lead, label)),
                        end.flatMap(p -> segment(p, lead, label)))
                .flatMap(Optional::stream)
                .findFirst();
        State state = wrong.isPresent()
                ? State.WRONG
                : lead.pluggedIn() ? State.PLUGGED_IN : end.isPresent() ? State.PLANNED : State.OPEN;
        return new Cable(
                lead.endpointId(),
                lead.endpoint(),
                lead.place(),
                outlet.map(Outlet::name).orElse(""),
                label,
                end.map(p -> gearOfPort.get(p.id()).name()).orElse(null),
                state,
                wrong.map(Wrong::problem).orElse(""),
                wrong.map(Wrong::mend).orElse(""));
    }

    private record Wrong(String problem, String mend) {}

    private static Optional<Wrong> dead(Outlet outlet) {
        return outlet.state() == Outlet.State.DEAD
                ? Optional.of(new Wrong(
                        "Outlet " + outlet.name() + " is dead.",
                        "Have it patched to a LAN port, or run the lead straight to the switch."))
                : Optional.empty();
    }

    private Optional<Wrong> crossed(Outlet outlet, CableEnd lead) {
        if (outlet.portId().isEmpty()
                || lead.portId().isEmpty()
                || outlet.portId().equals(lead.portId())) return Optional.empty();
        var leadsTo = ports.get(outlet.portId().get());
        return Optional.of(new Wrong(
                "Outlet " + outlet.name() + " leads to "
                        + gearOfPort.get(leadsTo.id()).label(leadsTo) + ", not to the port planned.",
                "Plan it on that port, or have the outlet patched anew."));
    }

    private Optional<Wrong> role(Port port, String label) {
        if (port.role() == Role.LAN) return Optional.empty();
        String mend = freePort(port, port.segmentId())
                .map(free -> "Move the lead to " + free + ".")
                .orElse("Move the lead to a LAN port.");
        return Optional.of(new Wrong(
                port.role() == Role.OFF
                        ? label + " is switched off."
                        : label + " is " + (port.role() == Role.WAN ? "a WAN" : "an uplink")
                                + " port, which only goes upwards.",
                port.role() == Role.OFF ? "Have it switched on, or m" + mend.substring(1) : mend));
    }

    private Optional<Wrong> shared(Port port, CableEnd lead, String label) {
        return endsOfPort.getOrDefault(port.id(), List.of()).stream()
                .filter(l -> l.endpointId() != lead.endpointId())
                .findFirst()
                .map(other -> new Wrong(
                        label + " is planned for " + other.endpoint() + " as well.",
                        freePort(port, Optional.of(lead.segmentId()))
                                .map(free -> "Move one of them to " + free + ".")
                                .orElse("Move one of them; no port is free here.")));
    }

    private Optional<Wrong> segment(Port port, CableEnd lead, String label) {
        if (port.segmentId().isEmpty() || port.segmentId().get() == lead.segmentId()) return Optional.empty();
        String planned = segmentNames.get(lead.segmentId());
        return Optional.of(new Wrong(
                label + " belongs to " + segmentNames.get(port.segmentId().get()) + ", the address to " + planned + ".",
                freePort(port, Optional.of(lead.segmentId()))
                        .map(free -> "Move the lead to " + free + ", which belongs to " + planned + ".")
                        .orElse("Have the port put into " + planned + ".")));
    }

    /** The nearest free LAN port of the same gear that may be in the segment. */
    private Optional<String> freePort(Port near, Optional<Long> segmentId) {
        var g = gearOfPort.get(near.id());
        return g.ports().stream()
                .filter(p -> p.role() == Role.LAN && !used.contains(p.id()))
                .filter(p -> segmentId.isEmpty()
                        || p.segmentId().isEmpty()
                        || p.segmentId().equals(segmentId))
                .min(Comparator.comparingInt(p -> Math.abs(p.number() - near.number())))
                .map(g::label);
    }

    /**
     * Returns the room on every piece of gear.
     *
     * @param reserve ports that should stay free on each
     */
    public List<Room> room(int reserve) {
        var rooms = new ArrayList<Room>();
        for (var g : gear) {
            int upwards = (int) g.ports().stream()
                    .filter(p -> p.role() == Role.WAN || p.role() == Role.UPLINK)
                    .count();
            int taken = (int) g.ports().stream()
                    .filter(p -> p.role() == Role.LAN && used.contains(p.id()))
                    .count();
            int lan = (int) g.ports().stream().filter(p -> p.role() == Role.LAN).count();
            int free = lan - taken;
            rooms.add(new Room(g.name(), g.ports().size(), taken, upwards, free, advice(g, free, reserve, taken)));
        }
        return rooms;
    }

    private static String advice(Gear g, int free, int reserve, int taken) {
        if (g.ports().isEmpty() || free >= reserve) return "";
        int needed = taken + reserve + 1;
        for (int size : SIZES)
            if (size > g.ports().size() && size >= needed)
                return "Only " + free + " free; keep " + reserve + ". Take one with " + size
                        + " ports, or a second one, which takes a port itself.";
        return "Only " + free + " free; a second one takes a port itself.";
    }
}
