package app.knottag.core.plan;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.hardware.Mac;
import app.knottag.core.plan.Conflict.Code;
import app.knottag.core.plan.Conflict.Severity;
import app.knottag.core.plan.SitePlan.PlannedEndpoint;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.stream.Collectors;

/** What was seen on the wire against what is planned: one address with two MACs, a MAC at another address, silence. */
final class SightingCheck {

    private static final int SILENT_DAYS = 30;
    private final SitePlan plan;
    private final Instant now;
    private final Map<Mac, PlannedEndpoint> byMac = new HashMap<>();
    private final Map<Mac, Sighting> latest = new HashMap<>();
    private final List<Conflict> found = new ArrayList<>();

    private SightingCheck(SitePlan plan, Instant now) {
        this.plan = plan;
        this.now = now;
        plan.endpoints().forEach(e -> e.mac().ifPresent(m -> byMac.put(m, e)));
        for (var s : plan.sightings()) s.mac().ifPresent(m -> latest.merge(m, s, Sighting::better));
    }

    static List<Conflict> conflicts(SitePlan plan, Instant now) {
        var check = new SightingCheck(plan, now);
        var byAddress = plan.sightings().stream()
                .filter(s -> s.mac().isPresent())
                .collect(Collectors.groupingBy(Sighting::address, TreeMap::new, Collectors.toList()));
        var planned = new HashMap<Ipv4Address, PlannedEndpoint>();
        plan.endpoints().forEach(e -> e.address().ifPresent(a -> planned.put(a, e)));
        byAddress.forEach((address, seen) -> check.address(address, seen, Optional.ofNullable(planned.get(address))));
        plan.endpoints().forEach(check::endpoint);
        return check.found;
    }

    private void address(Ipv4Address address, List<Sighting> seen, Optional<PlannedEndpoint> planned) {
        var newest = seen.stream().max(Comparator.comparing(Sighting::seenAt)).orElseThrow();
        var together = seen.stream()
                .filter(s -> Sighting.together(s.seenAt(), newest.seenAt()))
                .map(s -> s.mac().get())
                .distinct()
                .sorted(Comparator.comparing((Mac m) -> !byMac.containsKey(m)).thenComparing(m -> m))
                .toList();
        if (together.size() > 1) add(twice(address, together, planned), planned);
        else if (planned.flatMap(PlannedEndpoint::mac).isPresent()) {
            Mac own = planned.get().mac().get(), other = together.get(0);
            if (!own.equals(other))
                add(
                        Conflict.of(
                                Severity.BROKEN,
                                Code.OTHER_HOLDS_ADDRESS,
                                planned.get().name() + ": " + who(other) + " holds " + address + ".",
                                own.neighbourOf(other)
                                        ? "Most likely the other interface of the same box: put " + other
                                                + " on record, or move the lead."
                                        : "Find that device and give it another address."),
                        planned);
        }
    }

    /** The rightful one is whoever is planned there; a device that is planned elsewhere goes back to its own address. */
    private Conflict twice(Ipv4Address address, List<Mac> together, Optional<PlannedEndpoint> planned) {
        var rightful = planned.flatMap(PlannedEndpoint::mac).filter(together::contains);
        var intruders = together.stream()
                .filter(m -> rightful.filter(m::equals).isEmpty())
                .toList();
        // Who is planned there and has no MAC on record yet may be the one that nobody knows.
        boolean unread = planned.isPresent()
                && planned.get().mac().isEmpty()
                && !byMac.containsKey(together.get(together.size() - 1));
        // With nobody planned there, one that is on record has more right than one that nobody knows.
        var first = rightful.orElse(together.get(unread ? together.size() - 1 : 0));
        var mend = new ArrayList<String>();
        for (Mac m : rightful.isPresent()
                ? intruders
                : together.stream().filter(m -> !m.equals(first)).toList())
            mend.add("Unplug " + who(m) + " first, then give it "
                    + Optional.ofNullable(byMac.get(m))
                            .flatMap(PlannedEndpoint::address)
                            .filter(a -> !a.equals(address))
                            .map(a -> "its own address " + a)
                            .orElse("another address")
                    + ".");
        if (rightful.isEmpty() && planned.flatMap(PlannedEndpoint::mac).isPresent())
            mend.add(0, "Neither is " + planned.get().name() + ", which is planned there: both must go elsewhere.");
        var rest = together.stream().filter(m -> !m.equals(first)).toList();
        return Conflict.of(
                Severity.BROKEN,
                Code.ADDRESS_SEEN_TWICE,
                address + " was seen with " + (rest.size() == 1 ? "two" : "" + together.size()) + " MACs: "
                        + who(first) + " and "
                        + rest.stream().map(this::who).collect(Collectors.joining(" and ")) + ".",
                String.join(" ", mend));
    }

    private void add(Conflict conflict, Optional<PlannedEndpoint> planned) {
        found.add(planned.map(e -> conflict.on(e.id()).in(e.segmentId())).orElse(conflict));
    }

    private String who(Mac mac) {
        return Optional.ofNullable(byMac.get(mac))
                .map(e -> e.name() + " (" + mac + ")")
                .orElse(mac + ", not on record");
    }

    private void endpoint(PlannedEndpoint e) {
        var seen = e.mac().map(latest::get);
        if (seen.isEmpty() || e.address().isEmpty()) return;
        if (!seen.get().address().equals(e.address().get())) found.add(LeaseCompare.elsewhere(plan, e, seen.get()));
        else {
            long days = Duration.between(seen.get().seenAt(), now).toDays();
            if (days >= SILENT_DAYS)
                found.add(Conflict.of(
                                Severity.UNTIDY,
                                Code.NOT_SEEN,
                                e.name() + " not seen for " + days + " days.",
                                "Is it still there? Retire it if not, so that "
                                        + e.address().get() + " becomes free.")
                        .on(e.id())
                        .in(e.segmentId()));
        }
    }
}
