package app.knottag.core.handover;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Pool;
import app.knottag.core.handover.PackDocument.Block;
import app.knottag.core.handover.PackDocument.Chapter;
import app.knottag.core.handover.PackDocument.Facts;
import app.knottag.core.handover.PackDocument.Heading;
import app.knottag.core.handover.PackDocument.Lines;
import app.knottag.core.handover.PackDocument.Table;
import app.knottag.core.handover.PackDocument.Words;
import app.knottag.core.handover.PackSite.PackDevice;
import app.knottag.core.handover.PackSite.PackSegment;
import app.knottag.core.kind.Kind;
import app.knottag.core.kind.ResetRule;
import app.knottag.core.plan.FirewallRules;
import app.knottag.core.reach.PaperSearch;
import app.knottag.core.runbook.OpenState;
import app.knottag.core.runbook.TypeSheet.SheetRow;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/** Writes the packs of a site: one for the client in plain words, one for the next technician, one list for the office. */
public final class Packs {

    private final PackSite site;

    private Packs(PackSite site) {
        this.site = site;
    }

    public static PackDocument of(PackType type, PackSite site) {
        var packs = new Packs(site);
        return new PackDocument(
                site.head().name(),
                List.of(
                        type.words()
                                + (site.head().client().isEmpty()
                                        ? ""
                                        : ": " + site.head().client()),
                        "As it is on "
                                + site.head().clock().moment(site.head().clock().now()) + " ("
                                + site.head().zone() + "), made by "
                                + site.head().by()),
                switch (type) {
                    case CLIENT -> packs.client();
                    case TECHNICIAN -> packs.technician();
                    case OFFICE -> packs.office();
                });
    }

    private List<Chapter> client() {
        return chapters(
                new Chapter(
                        "Whom to call",
                        List.of(new Words(
                                site.head().help().isEmpty()
                                        ? "Nobody has been named yet."
                                        : site.head().help()))),
                new Chapter("What stands where", List.of(whatStandsWhere())),
                new Chapter("When something fails", kinds().flatMap(this::fails).toList()),
                new Chapter("What must be left as it is", leave()),
                new Chapter("Restarts at night", nights()),
                new Chapter("Not finished yet", unfinished()),
                new Chapter(
                        "What stays as it is for now",
                        Stream.concat(lent(), passed()).toList()));
    }

    /** Keeps the chapters that have something to say. */
    private static List<Chapter> chapters(Chapter... all) {
        return Stream.of(all).filter(c -> !c.blocks().isEmpty()).toList();
    }

    private Stream<Kind> kinds() {
        var seen = new LinkedHashMap<String, Kind>();
        site.devices().forEach(d -> d.kind().ifPresent(k -> seen.putIfAbsent(k.id(), k)));
        return seen.values().stream();
    }

    /** By place, what is not placed yet at the end. */
    private Block whatStandsWhere() {
        return new Table(
                List.of("Place", "Device", "What it does", "Its tag"),
                List.of(3),
                site.devices().stream()
                        .sorted(Comparator.comparing((PackDevice d) -> d.place().isEmpty())
                                .thenComparing(PackDevice::place))
                        .map(d -> List.of(
                                d.place().isEmpty() ? "no place yet" : d.place(),
                                d.known().name(),
                                d.kind().map(k -> k.client().does()).orElse(""),
                                d.facts().code()))
                        .toList());
    }

    private Stream<Block> fails(Kind kind) {
        return kind.client().fails().isEmpty()
                ? Stream.empty()
                : Stream.of(
                        new Heading(kind.name()), new Lines(true, kind.client().fails()));
    }

    private List<Block> leave() {
        var lines = kinds().flatMap(k -> k.client().leave().stream().map(l -> k.name() + ": " + l))
                .collect(Collectors.toCollection(LinkedHashSet::new));
        return lines.isEmpty() ? List.of() : List.of(new Lines(false, List.copyOf(lines)));
    }

    private List<Block> nights() {
        if (site.nights().isEmpty()) return List.of();
        return List.of(
                new Words("Each of these is off for a few minutes then. Nobody needs to do anything."),
                new Table(
                        List.of("Device", "From", "Until"),
                        List.of(1, 2),
                        site.nights().stream()
                                .map(s -> List.of(
                                        s.name(), s.from().toString(), s.until().toString()))
                                .toList()));
    }

    /** What is not ready, and what is to be done for it. */
    private List<Block> unfinished() {
        var rows = site.devices().stream()
                .filter(d -> !Readiness.ready(d.known(), site.head().clock()))
                .map(d -> List.of(
                        d.known().name(),
                        Readiness.of(d.known(), site.head().clock()).stream()
                                .filter(a -> a.passed().isEmpty())
                                .map(Act::title)
                                .collect(Collectors.joining("; "))))
                .toList();
        return rows.isEmpty()
                ? List.of()
                : List.of(
                        new Words("These are not handed over yet."),
                        new Table(List.of("Device", "What is still to be done"), List.of(), rows));
    }

    private Stream<Block> lent() {
        var rows = site.devices().stream()
                .flatMap(d -> d.known().openings().stream()
                        .filter(o ->
                                !o.closed() && o.settled(site.head().clock().today()))
                        .map(o -> List.of(
                                d.known().name(),
                                o.title(),
                                o.owner(),
                                o.ends().map(site.head().clock()::day).orElse(""))))
                .toList();
        return rows.isEmpty()
                ? Stream.empty()
                : Stream.of(new Table(List.of("Device", "Stands open", "Closed by", "Until"), List.of(), rows));
    }

    private Stream<Block> passed() {
        var rows = site.devices().stream()
                .flatMap(d -> Readiness.of(d.known(), site.head().clock()).stream()
                        .flatMap(a -> a.passed().stream()
                                .map(p -> List.of(
                                        d.known().name(),
                                        a.title(),
                                        p.reason(),
                                        p.by() + ", " + site.head().clock().day(p.at())))))
                .toList();
        return rows.isEmpty()
                ? Stream.empty()
                : Stream.of(new Table(List.of("Device", "Left undone", "Why", "Who let it pass"), List.of(), rows));
    }

    private List<Chapter> technician() {
        return chapters(
                new Chapter(
                        "Networks",
                        site.network().segments().stream()
                                .flatMap(this::segment)
                                .toList()),
                new Chapter("Addresses", List.of(addresses())),
                new Chapter(
                        "Number series",
                        site.network().series().isEmpty()
                                ? List.of()
                                : List.of(new Lines(false, site.network().series()))),
                new Chapter("Partners and services", services()),
                new Chapter("Wiring", wiring()),
                new Chapter(
                        "Registries",
                        site.registries().stream().flatMap(Packs::registry).toList()),
                new Chapter("Rules of the firewall", rules()),
                new Chapter("Restarts at night", nights()),
                new Chapter("Not finished yet", unfinished()),
                new Chapter(
                        "What stays as it is for now",
                        Stream.concat(lent(), passed()).toList()),
                new Chapter(
                        "Device by device",
                        site.devices().stream().flatMap(this::device).toList()),
                new Chapter(
                        "What a reset does",
                        kinds().flatMap(k -> k.reset().stream().flatMap(r -> reset(k, r)))
                                .toList()),
                new Chapter("When one is silent", silent()),
                log());
    }

    /** The searches on paper of the site's devices, each once. */
    private List<PaperSearch.Device> searches() {
        return site.devices().stream()
                .flatMap(d -> d.search().stream())
                .distinct()
                .toList();
    }

    /** Each device says which of the searches is its own; what mends each cause stands once, at the end. */
    private List<Block> silent() {
        var searches = searches();
        if (searches.isEmpty()) return List.of();
        var blocks = new ArrayList<Block>();
        blocks.add(
                new Words(
                        "Which search is a device's own, and what each look should show, stands above under its name. Begin at "
                                + "look 1, and go where what you see leads. Each look tells most for the minutes that it takes."));
        for (var device : searches) {
            blocks.add(new Heading(search(searches, device)));
            blocks.add(SearchTable.of(PaperSearch.of(device)));
        }
        blocks.add(new Heading("Each cause, and what to do"));
        blocks.add(SearchTable.causes(searches.stream()
                .flatMap(d -> PaperSearch.of(d).faults().stream())
                .distinct()
                .toList()));
        return blocks;
    }

    private static String search(List<PaperSearch.Device> searches, PaperSearch.Device device) {
        return "Search " + (searches.indexOf(device) + 1);
    }

    private Stream<Block> segment(PackSegment s) {
        var facts = new LinkedHashMap<String, String>();
        facts.put("Network", s.segment().prefix().toString());
        facts.put("Mask", s.segment().prefix().mask().toString());
        s.segment().gateway().ifPresent(g -> facts.put("Gateway", g.toString()));
        if (!s.resolvers().isEmpty()) facts.put("Resolvers", String.join(", ", s.resolvers()));
        if (!s.segment().pools().isEmpty())
            facts.put(
                    "Handed out automatically",
                    s.segment().pools().stream().map(Packs::pool).collect(Collectors.joining(", ")));
        if (!s.vlan().isEmpty()) facts.put("VLAN", s.vlan());
        if (!s.notes().isEmpty()) facts.put("Notes", s.notes());
        return Stream.of(new Heading(s.name()), new Facts(facts));
    }

    private static String pool(Pool pool) {
        return pool.from() + " to " + pool.to();
    }

    private Block addresses() {
        return new Table(
                List.of("Address", "Device", "MAC", "Method", "Tag"),
                List.of(0, 2, 4),
                site.devices().stream()
                        .sorted(Comparator.comparingLong(Packs::order))
                        .map(d -> List.of(
                                d.facts().address().orElse("none yet"),
                                d.known().name(),
                                d.facts().facts().getOrDefault("MAC", ""),
                                d.method().words(),
                                d.facts().code()))
                        .toList());
    }

    private static long order(PackDevice d) {
        return d.facts()
                .address()
                .flatMap(Ipv4Address::read)
                .map(a -> Integer.toUnsignedLong(a.bits()))
                .orElse(Long.MAX_VALUE);
    }

    private List<Block> services() {
        return site.network().services().isEmpty()
                ? List.of()
                : List.of(new Table(
                        List.of("Name", "Where", "What for"),
                        List.of(1),
                        site.network().services().stream()
                                .map(s -> List.of(s.name(), s.where(), s.what()))
                                .toList()));
    }

    private List<Block> wiring() {
        return site.network().cables().isEmpty()
                ? List.of()
                : List.of(new Table(
                        List.of("Place", "Device", "Outlet", "Port", "What is wrong"),
                        List.of(2, 3),
                        site.network().cables().stream()
                                .map(c -> List.of(c.place(), c.endpoint(), c.outlet(), c.port(), c.problem()))
                                .toList()));
    }

    private static Stream<Block> registry(PackSite.PackRegistry r) {
        return Stream.of(
                new Heading(r.name()),
                r.entries().isEmpty()
                        ? new Words("Nothing stands in it.")
                        : new Table(List.of("MAC", "Device", "How it stands"), List.of(0), r.entries()));
    }

    /** Rules that differ in nothing but who is let through are one line. */
    private List<Block> rules() {
        var together = site.network().rules().stream()
                .collect(Collectors.groupingBy(
                        r -> List.of(r.to(), r.protocol() + (r.port() == 0 ? "" : " " + r.port()), r.why()),
                        LinkedHashMap::new,
                        Collectors.mapping(FirewallRules.Rule::from, Collectors.joining(", "))));
        return together.isEmpty()
                ? List.of()
                : List.of(new Table(
                        List.of("From", "To", "Port", "Why"),
                        List.of(2),
                        together.entrySet().stream()
                                .map(e -> Stream.concat(Stream.of(e.getValue()), e.getKey().stream())
                                        .toList())
                                .toList()));
    }

    private Stream<Block> device(PackDevice d) {
        var blocks = new ArrayList<Block>();
        blocks.add(new Heading(d.known().name() + ", " + d.kindOf()));
        var facts = new LinkedHashMap<>(d.facts().all());
        facts.remove(TagFacts.NAME);
        d.known()
                .signOff()
                .ifPresent(s -> facts.put(
                        "Proved", s.grade().words() + ", " + site.head().clock().moment(s.at()) + " by " + s.by()));
        facts.put("Tag on it", d.known().tag().state().words());
        d.search().ifPresent(own -> facts.put("When it is silent", search(searches(), own)));
        blocks.add(new Facts(facts));
        typed(d.typed()).forEach(blocks::add);
        if (!d.proofs().isEmpty())
            blocks.add(new Table(
                    List.of("Check", "Found", "How known", "When, by whom"),
                    List.of(),
                    d.proofs().stream()
                            .map(p -> List.of(
                                    p.title(),
                                    p.seen(),
                                    p.how(),
                                    site.head().clock().moment(p.at()) + ", " + p.by()))
                            .toList()));
        if (!d.overrides().isEmpty())
            blocks.add(new Table(
                    List.of("Step let through", "Why", "By"),
                    List.of(),
                    d.overrides().stream()
                            .map(o -> List.of(o.step(), o.reason(), o.by()))
                            .toList()));
        if (!d.known().openings().isEmpty())
            blocks.add(new Table(
                    List.of("Opening", "How it stands"),
                    List.of(),
                    d.known().openings().stream().map(this::opening).toList()));
        return blocks.stream();
    }

    private List<String> opening(OpenState o) {
        return List.of(
                o.title(),
                o.closed()
                        ? "closed" + (o.note().isEmpty() ? "" : "; the new one is kept: " + o.note())
                        : Optional.of(o.owner())
                                .filter(w -> !w.isEmpty())
                                .map(w -> w + " closes it by "
                                        + o.ends().map(site.head().clock()::day).orElse("a day not set"))
                                .orElse("open, and nobody has it in hand"));
    }

    private static Stream<Block> typed(List<SheetRow> rows) {
        Map<String, List<SheetRow>> parts =
                rows.stream().collect(Collectors.groupingBy(SheetRow::part, LinkedHashMap::new, Collectors.toList()));
        return parts.entrySet().stream()
                .map(e -> new Table(
                        List.of(
                                e.getKey().isEmpty() ? "Entered in its network menu" : "Entered: " + e.getKey(),
                                "Value"),
                        List.of(1),
                        e.getValue().stream()
                                .map(r -> List.of(
                                        r.label(),
                                        r.leaveAlone()
                                                ? "left as it was"
                                                : r.value().isEmpty() ? "left empty" : r.value()))
                                .toList()));
    }

    private static Stream<Block> reset(Kind kind, ResetRule rule) {
        var facts = new LinkedHashMap<String, String>();
        facts.put("How", rule.how());
        if (!rule.keeps().isEmpty()) facts.put("Stays", String.join(", ", rule.keeps()));
        if (!rule.loses().isEmpty()) facts.put("Is gone", String.join(", ", rule.loses()));
        return Stream.of(new Heading(kind.name()), new Facts(facts));
    }

    private Chapter log() {
        return new Chapter(
                "Where the log stood",
                List.of(
                        new Words(
                                "Every change is in a log whose entries are chained by their hashes. When this pack was made "
                                        + "its last entry was this one; whatever is altered before it no longer leads there."),
                        new Facts(Map.of("Entry " + site.log().id(), site.log().hash()))));
    }

    private List<Chapter> office() {
        return chapters(
                new Chapter(
                        "Devices",
                        List.of(new Table(
                                List.of("Device", "Kind", "Place", "Address", "MAC", "Serial", "Port", "How it stands"),
                                List.of(3, 4, 5),
                                site.devices().stream().map(this::officeRow).toList()))),
                new Chapter("Not finished yet", unfinished()),
                new Chapter(
                        "What stays as it is for now",
                        Stream.concat(lent(), passed()).toList()),
                log());
    }

    private List<String> officeRow(PackDevice d) {
        var facts = d.facts().facts();
        return List.of(
                d.known().name(),
                d.kindOf(),
                d.place(),
                d.facts().address().orElse(""),
                facts.getOrDefault("MAC", ""),
                facts.getOrDefault("Serial", ""),
                facts.getOrDefault("Port", ""),
                Readiness.ready(d.known(), site.head().clock())
                        ? d.known()
                                .signOff()
                                .map(s -> "Proved " + site.head().clock().day(s.at()) + " by " + s.by())
                                .orElse("Ready")
                        : "Not ready");
    }
}
