package app.knottag.core.plan;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Segment;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** What a device got from a DHCP server (RFC 2131) against what is planned for it. */
public final class LeaseCompare {

    private LeaseCompare() {}

    /** The figures that came with a lease; resolvers in order. */
    public record Lease(Ipv4Address address, Ipv4Address mask, Ipv4Address gateway, List<Ipv4Address> resolvers) {}

    /** What to do with a field: leave it as it was learned, change it, or stop because it contradicts the plan. */
    public enum Act {
        KEEP,
        CHANGE,
        ALARM
    }

    /** One field with what was learned and what is planned. */
    public record Line(String field, String learned, String planned, Act act, String reason) {}

    /**
     * Compares a lease with the plan, field by field. Mask and gateway must be equal or the lead is in another network;
     * only the address is changed.
     */
    public static List<Line> compare(Lease lease, Segment segment, List<Ipv4Address> resolvers, Ipv4Address planned) {
        var lines = new ArrayList<Line>();
        lines.add(address(lease.address(), planned, segment));
        lines.add(same("Mask", lease.mask(), segment.prefix().mask()));
        segment.gateway().ifPresent(g -> lines.add(same("Gateway", lease.gateway(), g)));
        for (int i = 0; i < Math.max(resolvers.size(), lease.resolvers().size()); i++)
            lines.add(resolver(i, at(lease.resolvers(), i), at(resolvers, i)));
        return List.copyOf(lines);
    }

    private static Optional<Ipv4Address> at(List<Ipv4Address> list, int index) {
        return index < list.size() ? Optional.of(list.get(index)) : Optional.empty();
    }

    private static Line address(Ipv4Address learned, Ipv4Address planned, Segment segment) {
        if (!segment.prefix().contains(learned))
            return line(
                    "Address", learned, planned, Act.ALARM, "It is in another network: wrong socket, VLAN or site.");
        if (segment.poolOf(planned).isPresent())
            return line(
                    "Address",
                    learned,
                    planned,
                    Act.ALARM,
                    "The planned address lies in the pool itself. Plan another one first.");
        return learned.equals(planned)
                ? line("Address", learned, planned, Act.KEEP, "The server handed out the planned one: it is reserved.")
                : line("Address", learned, planned, Act.CHANGE, "The one field to change.");
    }

    private static Line same(String field, Ipv4Address learned, Ipv4Address planned) {
        return learned.equals(planned)
                ? line(field, learned, planned, Act.KEEP, "As planned.")
                : line(
                        field,
                        learned,
                        planned,
                        Act.ALARM,
                        "It contradicts the plan: another network, or the plan is old. Settle that first.");
    }

    private static Line resolver(int index, Optional<Ipv4Address> learned, Optional<Ipv4Address> planned) {
        boolean equal = learned.equals(planned);
        return new Line(
                "Resolver " + (index + 1),
                learned.map(Ipv4Address::toString).orElse("none"),
                planned.map(Ipv4Address::toString).orElse("none"),
                equal || planned.isEmpty() ? Act.KEEP : Act.CHANGE,
                equal
                        ? "As planned."
                        : planned.isEmpty() ? "Not planned; it may stay." : "Change it to the planned one.");
    }

    private static Line line(String field, Ipv4Address learned, Ipv4Address planned, Act act, String reason) {
        return new Line(field, learned.toString(), planned.toString(), act, reason);
    }

    /**
     * Says from when a fixed address inside a pool can come twice: a lease that was made static in place is safe only
     * until the server thinks it has ended.
     */
    static String earliestTrouble(SitePlan plan, Ipv4Address address, Instant now) {
        return plan.sightings().stream()
                .filter(s -> s.address().equals(address))
                .flatMap(s -> s.leaseEnds().stream())
                .filter(now::isBefore)
                .max(Instant::compareTo)
                .map(end -> "in " + inWords(Duration.between(now, end)) + ", when its lease ends")
                .orElse("any time");
    }

    private static String inWords(Duration time) {
        long hours = time.toHours();
        return hours >= 48
                ? time.toDays() + " days"
                : hours >= 1 ? hours + " h" : Math.max(1, time.toMinutes()) + " min";
    }
}
