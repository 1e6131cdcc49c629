package app.knottag.server.plan;

import app.knottag.core.address.AddressContext;
import app.knottag.core.address.AddressRange;
import app.knottag.core.address.AddressReader;
import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Ipv4Prefix;
import app.knottag.core.address.NetworkFields;
import app.knottag.core.address.Purpose;
import app.knottag.core.address.Segment;
import app.knottag.core.address.TrustedRange;
import app.knottag.core.hardware.Gear.Role;
import app.knottag.core.hardware.Wiring;
import app.knottag.core.kind.Kinds;
import app.knottag.core.knot.Knot;
import app.knottag.core.plan.Conflict;
import app.knottag.core.plan.FirewallRules;
import app.knottag.core.plan.FirewallRules.Rule;
import app.knottag.core.plan.FirewallRules.Talker;
import app.knottag.core.plan.FreeVerdict;
import app.knottag.core.plan.Growth;
import app.knottag.core.plan.LeaseCompare;
import app.knottag.core.plan.Placement;
import app.knottag.core.plan.SiteCheck;
import app.knottag.server.plan.Proposals.ProposalView;
import app.knottag.server.plan.Proposals.Question;
import app.knottag.server.record.EndpointStore;
import app.knottag.server.record.SitePlans;
import app.knottag.server.record.SiteStore;
import app.knottag.server.record.Sites;
import app.knottag.server.record.Wires;
import app.knottag.server.web.Problem;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import java.time.Clock;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** What is worked out about a site's plan: proposals, the tape, conflicts, series, cords, firewall rules. */
@RestController
class PlanController {

    /** A tag on the tape; a partner has id 0. */
    record TapeMark(long id, long host, String label, Knot knot, boolean conflict) {}

    record FreeStretch(long fromHost, long toHost, long count) {}

    record Elsewhere(long id, String name, Ipv4Address address) {}

    /** Everything that hangs on the tape of a segment; elsewhere are those already in the prefix it is renumbered to. */
    record TapeView(
            List<TapeMark> marks,
            List<FreeStretch> free,
            List<Elsewhere> elsewhere,
            @Nullable Ipv4Prefix nextPrefix) {}

    /** Cords and room; the cords come in the order of walking. */
    record WiringView(List<Wiring.Cord> cords, List<Wiring.Room> room) {}

    private final Proposals proposals;
    private final SitePlans plans;
    private final EndpointStore store;
    private final SiteStore siteStore;
    private final Sites sites;
    private final Wires wires;
    private final Kinds kinds;
    private final Clock clock;

    PlanController(
            Proposals proposals,
            SitePlans plans,
            EndpointStore store,
            SiteStore siteStore,
            Sites sites,
            Wires wires,
            Kinds kinds,
            Clock clock) {
        this.proposals = proposals;
        this.plans = plans;
        this.store = store;
        this.siteStore = siteStore;
        this.sites = sites;
        this.wires = wires;
        this.kinds = kinds;
        this.clock = clock;
    }

    @GetMapping("/api/sites/{siteId}/proposal")
    ProposalView propose(
            @PathVariable long siteId,
            @RequestParam String kind,
            @RequestParam long segmentId,
            @RequestParam(required = false) Long seriesId,
            @RequestParam(required = false) Integer number,
            @RequestParam(required = false) Long host,
            @RequestParam(required = false) String place) {
        var prefix = sites.segmentOf(siteId, segmentId).prefix();
        boolean inside = host != null
                && host >= 0
                && host <= prefix.last().number() - prefix.network().number();
        var at = inside ? prefix.network().plus(host) : null;
        return proposals.propose(siteId, new Question(kind, segmentId, seriesId, number, at, place));
    }

    @GetMapping("/api/sites/{siteId}/conflicts")
    List<Conflict> conflicts(@PathVariable long siteId) {
        return SiteCheck.conflicts(plans.plan(siteId), sites.clock(siteId));
    }

    @GetMapping("/api/sites/{siteId}/segments/{segmentId}/tape")
    TapeView tape(@PathVariable long siteId, @PathVariable long segmentId) {
        var segment = sites.segmentOf(siteId, segmentId);
        long network = segment.prefix().network().number();
        var plan = plans.plan(siteId);
        var conflicts = new HashSet<Long>();
        for (var c : SiteCheck.conflicts(plan, sites.clock(siteId)))
            if (c.severity() != Conflict.Severity.UNTIDY) conflicts.addAll(c.endpoints());
        var marks = new ArrayList<TapeMark>();
        var elsewhere = new ArrayList<Elsewhere>();
        for (var m : store.marks(segmentId))
            if (segment.prefix().contains(m.address()))
                marks.add(new TapeMark(
                        m.id(), m.address().number() - network, label(m), m.knot(), conflicts.contains(m.id())));
            else elsewhere.add(new Elsewhere(m.id(), m.name(), m.address()));
        for (var p : plan.partners())
            if (segment.prefix().contains(p.address()))
                marks.add(new TapeMark(0, p.address().number() - network, p.name(), Knot.TIGHT, false));
        var free = new Placement(sites.plain(segment), plan.occupied(clock.instant()))
                .freeStretches().stream().map(r -> stretch(r, network)).toList();
        return new TapeView(marks, free, elsewhere, segment.nextPrefix());
    }

    private static FreeStretch stretch(AddressRange range, long network) {
        return new FreeStretch(range.from().number() - network, range.to().number() - network, range.count());
    }

    /** A numbered one is known by its number; “payment terminal” behind it only takes room on the tape. */
    private String label(EndpointStore.Mark m) {
        return kinds.find(m.kind())
                .filter(k -> !k.series().isEmpty() && m.name().endsWith(" " + k.noun()))
                .map(k -> m.name().substring(0, m.name().length() - k.noun().length() - 1))
                .orElse(m.name());
    }

    @GetMapping("/api/sites/{siteId}/free")
    FreeVerdict free(@PathVariable long siteId, @RequestParam String address) {
        sites.site(siteId);
        return FreeVerdict.of(
                read("address", address, Purpose.ADDRESS, AddressContext.NONE),
                plans.evidence(siteId),
                clock.instant());
    }

    @GetMapping("/api/sites/{siteId}/growth")
    List<Growth.Run> growth(@PathVariable long siteId) {
        var lan = siteStore.series(siteId).stream()
                .filter(s -> s.gearId() != null)
                .collect(Collectors.toMap(SiteStore.SeriesRow::id, s -> lanPorts(siteId, s.gearId())));
        return Growth.runs(plans.plan(siteId), sites.clock(siteId).today(), lan);
    }

    private int lanPorts(long siteId, long gearId) {
        return (int) wires.gear(siteId).stream()
                .filter(g -> g.id() == gearId)
                .flatMap(g -> g.ports().stream())
                .filter(p -> p.role() == Role.LAN)
                .count();
    }

    @GetMapping("/api/sites/{siteId}/wiring")
    WiringView wiring(@PathVariable long siteId) {
        sites.site(siteId);
        var wiring = wires.wiring(siteId);
        return new WiringView(wiring.cords(), wiring.room(2));
    }

    @GetMapping("/api/sites/{siteId}/firewall")
    List<Rule> firewall(@PathVariable long siteId) {
        var partners = siteStore.partners(siteId).stream().collect(Collectors.toMap(SiteStore.PartnerRow::id, p -> p));
        var resolvers = siteStore.segments(siteId).stream()
                .collect(Collectors.toMap(SiteStore.SegmentRow::id, Sites::resolvers));
        var talkers = store.all(siteId).stream()
                .filter(e -> e.address() != null)
                .map(e -> {
                    var partner = Optional.ofNullable(e.partnerId()).map(partners::get);
                    return new Talker(
                            e.name(),
                            e.address(),
                            Optional.ofNullable(e.servicePort()),
                            partner.map(SiteStore.PartnerRow::name),
                            partner.map(SiteStore.PartnerRow::address),
                            Optional.ofNullable(e.partnerPort()),
                            kinds.get(e.kind()).talks(),
                            resolvers.getOrDefault(e.segmentId(), List.of()));
                })
                .toList();
        var services = siteStore.services(siteId).stream()
                .map(s -> new FirewallRules.Listed(s.name(), s.protocol(), s.host(), s.port()))
                .toList();
        return FirewallRules.of(talkers, services);
    }

    /** A range that some device is told to trust, and who needs it; the hosts by name or address. */
    record TrustRequest(@NotNull String from, @NotNull String to) {}

    /** What the range lets in, and the smaller list that does as well. */
    record TrustView(long count, List<Ipv4Prefix> prefixes, List<String> warnings, List<String> keep, long removed) {}

    @PostMapping("/api/sites/{siteId}/segments/{segmentId}/trusted-range")
    TrustView trusted(@PathVariable long siteId, @PathVariable long segmentId, @Valid @RequestBody TrustRequest body) {
        var segment = sites.plain(sites.segmentOf(siteId, segmentId));
        Ipv4Address from = typed("from", body.from(), segment), to = typed("to", body.to(), segment);
        if (from.compareTo(to) > 0)
            throw Problem.field("to", "range-backwards", "A range runs upwards: " + to + " comes before " + from + ".");
        // Those who connect to devices need trust: partners. Endpoints only answer.
        var partners = siteStore.partners(siteId).stream()
                .filter(p -> segment.prefix().contains(p.address()))
                .collect(Collectors.toMap(SiteStore.PartnerRow::address, SiteStore.PartnerRow::name, (a, b) -> a));
        var shrunk = TrustedRange.shrink(new AddressRange(from, to), segment, partners.keySet(), Map.of());
        return new TrustView(
                shrunk.count(),
                shrunk.prefixes(),
                shrunk.warnings(),
                shrunk.keep().stream().map(a -> a + " " + partners.get(a)).toList(),
                shrunk.removed());
    }

    /** What a device got from the DHCP server, as its screen shows it. */
    record LeaseRequest(
            @NotNull String address,
            @NotNull String mask,
            @NotNull String gateway,
            List<String> resolvers) {}

    @PostMapping("/api/endpoints/{id}/learned")
    List<LeaseCompare.Line> learned(@PathVariable long id, @Valid @RequestBody LeaseRequest body) {
        var endpoint = store.find(id);
        if (endpoint == null) throw Problem.notFound("There is no such endpoint.");
        if (endpoint.address() == null)
            throw Problem.field("address", "not-planned", "It has no planned address to compare with.");
        var ground = sites.ground(sites.segment(endpoint.segmentId()), endpoint.address());
        var resolvers = new ArrayList<Ipv4Address>();
        for (String text : body.resolvers() == null ? List.<String>of() : body.resolvers())
            if (!text.isBlank()) resolvers.add(read("resolvers", text, Purpose.RESOLVER, AddressContext.NONE));
        var lease = new LeaseCompare.Lease(
                read("address", body.address(), Purpose.ADDRESS, AddressContext.NONE),
                read("mask", body.mask(), Purpose.MASK, AddressContext.NONE),
                read("gateway", body.gateway(), Purpose.GATEWAY, AddressContext.NONE),
                resolvers);
        NetworkFields.judge(lease.address(), lease.mask(), lease.gateway()).ifPresent(odd -> {
            throw Problem.field(
                    odd.field().name().toLowerCase(Locale.ROOT),
                    odd.finding().code().name(),
                    odd.finding().message());
        });
        return LeaseCompare.compare(lease, ground.segment(), ground.resolvers(), endpoint.address());
    }

    private static Ipv4Address typed(String field, String text, Segment segment) {
        return read(
                field, text, Purpose.RESOLVER, new AddressContext(Optional.of(segment), Set.of(), Optional.empty()));
    }

    private static Ipv4Address read(String field, String text, Purpose purpose, AddressContext context) {
        var reading = AddressReader.read(text, purpose, context);
        if (reading.usable() && !reading.value().contains(":")) return Ipv4Address.parse(reading.value());
        throw Problem.field(
                field,
                "unreadable",
                reading.findings().isEmpty()
                        ? "Only IPv4 is read here."
                        : reading.findings().get(0).message());
    }
}
