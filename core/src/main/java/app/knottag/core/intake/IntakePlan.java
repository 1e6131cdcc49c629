package app.knottag.core.intake;

import app.knottag.core.address.AddressRange;
import app.knottag.core.address.Ipv4Address;
import app.knottag.core.hardware.Mac;
import app.knottag.core.intake.Draft.Remark;
import app.knottag.core.plan.Occupied;
import app.knottag.core.plan.Placement;
import app.knottag.core.plan.Placement.Request;
import app.knottag.core.plan.SitePlan.PlannedSegment;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/** Works out what would be made of drafts on a site: nothing of one line clashes with another or with the record. */
public final class IntakePlan {

    private static final String ANY = "other-endpoint";
    private final SiteContext context;
    private final List<Made> made = new ArrayList<>();
    private final List<Remark> known = new ArrayList<>();
    private final List<Remark> problems = new ArrayList<>();
    private final Map<String, Long> lineOfName = new HashMap<>();
    private final Map<Ipv4Address, Long> lineOfAddress = new HashMap<>();
    private final Map<Mac, Long> lineOfMac = new HashMap<>();
    private final List<Draft> unplaced = new ArrayList<>();

    private IntakePlan(SiteContext context) {
        this.context = context;
    }

    /**
     * What a site has already.
     *
     * @param onRecord names of those that hold addresses
     * @param occupied the same, and who was seen at an address
     * @param macs names of the endpoints by MAC
     * @param names names of all endpoints, in small letters
     * @param kindWords ids of the kinds by the words of their nouns, in small letters
     * @param home segment for those without an address
     */
    public record SiteContext(
            List<PlannedSegment> segments,
            Map<Ipv4Address, String> onRecord,
            Occupied occupied,
            Map<Mac, String> macs,
            Set<String> names,
            Map<String, String> kindWords,
            Optional<Long> home) {}

    /**
     * An endpoint that would be made.
     *
     * @param reason how its address came about
     */
    public record Made(Draft draft, String name, String kind, long segmentId, Ipv4Address address, String reason) {}

    /**
     * What would come of it.
     *
     * @param known lines about endpoints that are on record already
     * @param problems what must be put right first; with any, nothing is made
     */
    public record Result(List<Made> made, List<Remark> known, List<Remark> problems) {}

    /** Works out what would be made. */
    public static Result of(SiteContext context, List<Draft> drafts) {
        var plan = new IntakePlan(context);
        drafts.forEach(plan::draft);
        plan.place();
        boolean good = plan.problems.isEmpty();
        plan.made.sort((a, b) -> Long.compare(a.draft().line(), b.draft().line()));
        return new Result(
                good ? List.copyOf(plan.made) : List.of(), List.copyOf(plan.known), List.copyOf(plan.problems));
    }

    private void draft(Draft d) {
        String holder = d.mac().map(context.macs()::get).orElse(null);
        if (holder != null) {
            known.add(new Remark(d.line(), "mac", holder + " is on record with this MAC."));
            return;
        }
        String held = d.address().map(context.onRecord()::get).orElse(null);
        if (held != null) {
            if (d.mac().isEmpty() || held.equalsIgnoreCase(d.name()))
                known.add(new Remark(d.line(), "address", held + " is on record with this address."));
            else
                problem(
                        d,
                        "address",
                        d.address().get() + " is on record for " + held
                                + ", but with another MAC here. Settle which is right, then correct this line.");
            return;
        }
        int before = problems.size();
        String name = name(d);
        once(lineOfName, name.toLowerCase(Locale.ROOT), d, "name", "“" + name + "”");
        d.address().ifPresent(a -> once(lineOfAddress, a, d, "address", a.toString()));
        d.mac().ifPresent(m -> once(lineOfMac, m, d, "mac", m.toString()));
        if (context.names().contains(name.toLowerCase(Locale.ROOT)))
            problem(d, "name", "Another endpoint of this site is called “" + name + "”. Change the name.");
        if (problems.size() > before) return;
        if (d.address().isEmpty()) unplaced.add(d);
        else addressed(d, name, d.address().get());
    }

    private void addressed(Draft d, String name, Ipv4Address a) {
        var segment = context.segments().stream()
                .filter(s -> s.segment().prefix().contains(a))
                .findFirst();
        if (segment.isEmpty()) {
            problem(
                    d,
                    "address",
                    "No segment of this site holds " + a + ". Add the segment first, or correct the line.");
            return;
        }
        var s = segment.get().segment();
        if (!s.prefix().usable(a))
            problem(d, "address", a + " is the network or broadcast address of " + s.prefix() + ".");
        else if (s.gateway().filter(a::equals).isPresent())
            known.add(new Remark(
                    d.line(),
                    "address",
                    a + " is the gateway of " + segment.get().name() + "."));
        else
            made.add(new Made(
                    d,
                    name,
                    kind(d),
                    segment.get().id(),
                    a,
                    s.poolOf(a)
                            .map(p -> "As the list says; it lies in the pool " + p + ".")
                            .orElse("As the list says.")));
    }

    private void problem(Draft d, String column, String message) {
        problems.add(new Remark(d.line(), column, message));
    }

    private <K> void once(Map<K, Long> lines, K key, Draft d, String column, String what) {
        Long first = lines.putIfAbsent(key, d.line());
        if (first != null) problem(d, column, what + " stands on line " + first + " already.");
    }

    private String name(Draft d) {
        return d.name().isEmpty()
                ? "Endpoint at " + d.address().map(Object::toString).orElse("line " + d.line())
                : d.name();
    }

    /** The kind that the text names, or the one whose noun the name holds, or any other. */
    private String kind(Draft d) {
        if (!d.kind().isEmpty()) return d.kind();
        String name = " " + d.name().toLowerCase(Locale.ROOT).replaceAll("[^a-z]+", " ") + " ";
        return context.kindWords().entrySet().stream()
                .filter(e -> name.contains(" " + e.getKey() + " "))
                .max((a, b) -> Integer.compare(a.getKey().length(), b.getKey().length()))
                .map(Map.Entry::getValue)
                .orElse(ANY);
    }

    /** Those without an address are placed together, so that none takes what another needs. */
    private void place() {
        if (unplaced.isEmpty()) return;
        var home = context.home()
                .flatMap(id ->
                        context.segments().stream().filter(s -> s.id() == id).findFirst());
        if (home.isEmpty()) {
            unplaced.forEach(
                    d -> problem(d, "address", "It has no address, and there is no segment to give it one from."));
            return;
        }
        var held = new HashMap<>(context.occupied().held());
        made.forEach(m -> held.put(m.address(), m.name()));
        new Placement(
                        home.get().segment(),
                        new Occupied(held, context.occupied().doubtful()))
                .place(unplaced.stream()
                        .map(d -> new Request(name(d), Optional.empty(), List.<AddressRange>of()))
                        .toList())
                .match(
                        placed -> {
                            for (int i = 0; i < unplaced.size(); i++) {
                                var d = unplaced.get(i);
                                var choice = placed.given().get(i).choice();
                                made.add(new Made(
                                        d,
                                        name(d),
                                        kind(d),
                                        home.get().id(),
                                        choice.address(),
                                        "The list names none: the next safe one."));
                            }
                            return null;
                        },
                        clash -> {
                            problem(
                                    unplaced.get(0),
                                    "address",
                                    clash.clash() + " " + clash.leastChanges().get(0));
                            return null;
                        });
    }
}
