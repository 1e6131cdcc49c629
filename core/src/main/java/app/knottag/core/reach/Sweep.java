package app.knottag.core.reach;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Segment;
import app.knottag.core.hardware.Mac;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;

/** Compares who is there in a segment with the plan. */
public final class Sweep {

    /** No more hosts than these are asked in one go: a /22. */
    public static final int MOST_HOSTS = 1022;

    private Sweep() {}

    /** What stands at an address, against the plan. */
    public enum Verdict {
        /** Two devices answer for one address. */
        TWO,
        OTHER_MAC,
        MOVED,
        SILENT,
        STRANGER,
        AS_PLANNED,
        LEASED
    }

    /**
     * Somebody who is planned at an address.
     *
     * @param endpointId number of the endpoint, or 0 for gear and partners
     */
    public record Planned(Ipv4Address address, String name, Optional<Mac> mac, long endpointId) {}

    /** One address of the table. */
    public record Line(
            Ipv4Address address, Verdict verdict, String name, long endpointId, Optional<Mac> mac, String words) {}

    /** Returns the addresses of a segment that can have a host. */
    public static List<Ipv4Address> hosts(Segment segment) {
        var all = new ArrayList<Ipv4Address>();
        long last = segment.prefix().highestUsable().number();
        for (long n = segment.prefix().lowestUsable().number(); n <= last; n++) all.add(Ipv4Address.ofNumber(n));
        return all;
    }

    /**
     * Compares who is there with the plan; what is free and silent is not listed.
     *
     * @param within whether one looks from within the segment, so that MACs are seen
     */
    public static List<Line> judge(Segment segment, List<Planned> plan, Swept swept, boolean within) {
        var planned = new HashMap<Ipv4Address, Planned>();
        var owners = new HashMap<Mac, Planned>();
        for (var p : plan) {
            planned.put(p.address(), p);
            p.mac().ifPresent(m -> owners.put(m, p));
        }
        var seen = new Seen(swept, segment, owners, within);
        var lines = new ArrayList<Line>();
        for (var address : hosts(segment)) {
            var p = planned.get(address);
            if (p != null) lines.add(planned(p, seen));
            else if (swept.there().containsKey(address)) lines.add(unplanned(address, seen));
        }
        lines.sort((a, b) -> a.verdict().compareTo(b.verdict()) != 0
                ? a.verdict().compareTo(b.verdict())
                : a.address().compareTo(b.address()));
        return List.copyOf(lines);
    }

    /** Who was seen, and whose they are. */
    private record Seen(Swept swept, Segment segment, Map<Mac, Planned> owners, boolean within) {
        Set<Mac> at(Ipv4Address address) {
            return swept.there().getOrDefault(address, Set.of());
        }

        Optional<Ipv4Address> where(Mac mac) {
            return swept.there().entrySet().stream()
                    .filter(e -> e.getValue().contains(mac))
                    .map(Map.Entry::getKey)
                    .findFirst();
        }

        String whose(Mac mac) {
            var owner = owners.get(mac);
            return owner == null ? mac + ", which is not on record," : owner.name() + " (" + mac + ")";
        }
    }

    private static Line planned(Planned p, Seen seen) {
        var macs = seen.at(p.address());
        if (macs.size() > 1)
            return line(
                    p,
                    Verdict.TWO,
                    macs.stream()
                            .filter(m -> !p.mac().filter(m::equals).isPresent())
                            .findFirst(),
                    "Two answer for it: "
                            + macs.stream()
                                    .sorted()
                                    .map(m -> p.mac().filter(m::equals).isPresent() ? m + ", its own" : seen.whose(m))
                                    .map(w -> w.replaceAll(",$", ""))
                                    .collect(Collectors.joining("; and "))
                            + ".");
        var mac = macs.stream().findFirst();
        if (mac.isPresent() && p.mac().isPresent() && !mac.equals(p.mac()))
            return line(
                    p,
                    Verdict.OTHER_MAC,
                    mac,
                    seen.whose(mac.get()) + " answers, not " + p.mac().get() + ".");
        if (seen.swept().there().containsKey(p.address()))
            return line(
                    p,
                    Verdict.AS_PLANNED,
                    mac,
                    mac.isPresent() && p.mac().isPresent()
                            ? "There, with its own MAC."
                            : mac.isPresent()
                                    ? "There; no MAC of it is on record to compare."
                                    : seen.within()
                                            ? "It answers, but no MAC is seen."
                                            : "It answers; from here its MAC is not seen.");
        return p.mac()
                .flatMap(seen::where)
                .map(a -> line(
                        p,
                        Verdict.MOVED,
                        p.mac(),
                        "Silent here; its MAC is at " + a
                                + (seen.segment().poolOf(a).isPresent() ? ", in the pool: it is on automatic." : ".")))
                .orElseGet(() -> line(p, Verdict.SILENT, Optional.empty(), silent(p, seen)));
    }

    private static String silent(Planned p, Seen seen) {
        if (!seen.within()) return "Silent; from here MACs are not seen.";
        return p.mac().filter(seen.swept().overSix()::contains).isPresent()
                ? "Silent; its MAC answers over IPv6 only: it is on, and has no address here."
                : "Silent, and its MAC is seen nowhere.";
    }

    private static Line line(Planned p, Verdict verdict, Optional<Mac> mac, String words) {
        return new Line(p.address(), verdict, p.name(), p.endpointId(), mac, words);
    }

    private static Line unplanned(Ipv4Address address, Seen seen) {
        var macs = seen.at(address);
        var mac = macs.stream().sorted().findFirst();
        var owner = mac.map(seen.owners()::get);
        boolean leased = seen.segment().poolOf(address).isPresent();
        String who = owner.map(Planned::name).orElse("");
        return new Line(
                address,
                macs.size() > 1 ? Verdict.TWO : leased ? Verdict.LEASED : Verdict.STRANGER,
                who,
                owner.map(Planned::endpointId).orElse(0L),
                mac,
                macs.size() > 1
                        ? "Two answer for it: "
                                + macs.stream().sorted().map(Mac::toString).collect(Collectors.joining(" and "))
                                + "."
                        : owner.isPresent()
                                ? who + " is planned at " + owner.get().address() + "."
                                : leased
                                        ? "In the pool: somebody with a leased address."
                                        : "A stranger: nobody is planned here"
                                                + (mac.isEmpty() ? "." : ", and its MAC is not on record."));
    }

    /** Returns MACs that answered over IPv6 and hold no address of the segment, planned or not. */
    public static List<Mac> onlyOverSix(Swept swept) {
        return swept.overSix().stream()
                .filter(m -> swept.there().values().stream().noneMatch(at -> at.contains(m)))
                .sorted()
                .toList();
    }
}
