package app.knottag.core.plan;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Keying;
import app.knottag.core.address.Segment;
import app.knottag.core.plan.Proposal.Choice;
import app.knottag.core.plan.Proposal.Placed;
import app.knottag.core.plan.Proposal.Refused;
import app.knottag.core.series.Series;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.LongStream;

/**
 * Chooses a fixed address. The number's own address comes first, because it can be worked out in the head; when it
 * cannot be had, the free address that the fewest keying slips turn into a living one.
 */
public final class Planner {

    private static final int MOST_LOOKED_AT = 1024;
    private static final int ALTERNATIVES = 3;

    private final Segment segment;
    private final Map<Ipv4Address, String> living;
    private final Map<Ipv4Address, String> doubtful;

    /**
     * @param living names of those that hold addresses of the site
     */
    public Planner(Segment segment, Map<Ipv4Address, String> living) {
        this(segment, Occupied.of(living));
    }

    /**
     * @param occupied what is not to be given, and what only when nothing better is left
     */
    public Planner(Segment segment, Occupied occupied) {
        this.segment = segment;
        living = occupied.held();
        doubtful = occupied.doubtful();
    }

    /** Proposes an address for member n of a series, or for an endpoint without a number. */
    public Proposal propose(Optional<Series> series, int number) {
        var free = free();
        var wanted = series.flatMap(s -> s.address(segment.prefix(), number));
        if (wanted.filter(this::isFree).isPresent()) {
            var choice = choice(wanted.get());
            return new Placed(choice, reasons(series.get(), number, choice), others(free, wanted.get()));
        }
        if (free.isEmpty())
            return new Refused(
                    "No address is left to fix in " + segment.prefix() + ": every one is taken or in a pool.",
                    segment.pools().isEmpty()
                            ? "Retire an endpoint, or take a wider prefix."
                            : "Shorten the pool " + segment.pools().get(0) + ", or retire an endpoint.");
        var safest = free.get(0);
        var reasons = new ArrayList<String>();
        series.ifPresent(s -> reasons.add(whyNot(s, number, wanted)));
        reasons.add(where(safest.address()));
        reasons.add(risk(safest));
        return new Placed(safest, List.copyOf(reasons), others(free, safest.address()));
    }

    /** Returns the slip risk of an address, whether it is free or not. */
    public Choice choice(Ipv4Address address) {
        var near = Keying.oneSlipFrom(address);
        var hit = new ArrayList<String>();
        segment.gateway().filter(near::contains).ifPresent(g -> hit.add("the gateway"));
        near.stream().filter(living::containsKey).map(living::get).forEach(hit::add);
        return new Choice(address, List.copyOf(hit));
    }

    /** Returns the free address that the fewest slips turn into one in use; empty when none is left. */
    public Optional<Ipv4Address> safest() {
        return free().stream().findFirst().map(Choice::address);
    }

    /** Returns the free address nearest above this one, then below; empty when none is left. */
    public Optional<Ipv4Address> nextFree(Ipv4Address taken) {
        return free().stream()
                .map(Choice::address)
                .filter(a -> !a.equals(taken))
                .min(Comparator.comparing((Ipv4Address a) -> doubtful.containsKey(a))
                        .thenComparing(a -> a.compareTo(taken) < 0)
                        .thenComparing(a -> Math.abs(a.number() - taken.number())));
    }

    /** Whether the address can be given: fixable, and held by nobody. */
    public boolean isFree(Ipv4Address address) {
        return segment.fixable(address) && !living.containsKey(address);
    }

    private List<Choice> free() {
        long first = segment.prefix().lowestUsable().number();
        long last = segment.prefix().highestUsable().number();
        return LongStream.rangeClosed(first, last)
                .mapToObj(Ipv4Address::ofNumber)
                .filter(this::isFree)
                .limit(MOST_LOOKED_AT)
                .map(this::choice)
                .sorted(Comparator.comparing((Choice c) -> doubtful.containsKey(c.address()))
                        .thenComparingInt(c -> c.oneSlipFrom().size())
                        .thenComparing(Choice::address))
                .toList();
    }

    /** The safest others, and among equally safe ones those nearest to what was chosen. */
    private List<Choice> others(List<Choice> free, Ipv4Address chosen) {
        return free.stream()
                .filter(c -> !c.address().equals(chosen) && !doubtful.containsKey(c.address()))
                .sorted(Comparator.comparingInt((Choice c) -> c.oneSlipFrom().size())
                        .thenComparing(c -> Math.abs(c.address().number() - chosen.number())))
                .limit(ALTERNATIVES)
                .toList();
    }

    private List<String> reasons(Series series, int number, Choice choice) {
        int room = series.lastFitting(segment);
        return List.of(
                "Host " + series.base() + " + " + number + ", as for every one of “" + series.name()
                        + "”; room to number " + room + ".",
                where(choice.address()),
                risk(choice));
    }

    private String where(Ipv4Address address) {
        String pools = segment.pools().isEmpty()
                ? "Nothing is handed out automatically here"
                : "Outside the pool " + segment.pools().get(0);
        return pools + ", and nobody on record has " + address
                + (doubtful.containsKey(address)
                        ? "; but " + doubtful.get(address) + ": look before you give it."
                        : ".");
    }

    /** Says in a sentence which living addresses a slip of this one would hit. */
    public String risk(Ipv4Address address) {
        return risk(choice(address));
    }

    /** Returns the safest other free addresses, among equally safe ones those nearest to this one. */
    public List<Choice> alternatives(Ipv4Address chosen) {
        return others(free(), chosen);
    }

    private static String risk(Choice choice) {
        return choice.oneSlipFrom().isEmpty()
                ? "No single slip of a finger turns it into an address in use."
                : "One slip of a finger away from " + String.join(", ", choice.oneSlipFrom())
                        + ": read the last group aloud.";
    }

    private String whyNot(Series series, int number, Optional<Ipv4Address> wanted) {
        String sum = "Host " + series.base() + " + " + number;
        if (wanted.isEmpty())
            return sum + " leaves " + segment.prefix() + "; room ends at number " + series.lastFitting(segment) + ".";
        var address = wanted.get();
        String why = living.containsKey(address)
                ? "is taken by " + living.get(address)
                : segment.poolOf(address)
                        .map(p -> "lies in the pool " + p)
                        .orElse("is the gateway or no address for a device");
        return sum + " would be " + address + ", which " + why + "; the safest free one is proposed instead.";
    }
}
