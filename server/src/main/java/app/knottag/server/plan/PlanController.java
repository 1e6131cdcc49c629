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
import app.knottag.core.plan.Conflict;
import app.knottag.core.plan.FirewallRules.Rule;
import app.knottag.core.plan.FreeVerdict;
import app.knottag.core.plan.Growth;
import app.knottag.core.plan.LeaseCompare;
import app.knottag.server.plan.Proposals.ProposalView;
import app.knottag.server.plan.Proposals.Question;
import app.knottag.server.record.Endpoints;
import app.knottag.server.record.Firewalls;
import app.knottag.server.record.SitePlans;
import app.knottag.server.record.Sites;
import app.knottag.server.web.Problem;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** What is worked out about a site's plan: proposals, the tape, conflicts, series, cables, firewall rules. */
@RestController
class PlanController {

    private final Proposals proposals;
    private final SitePlans plans;
    private final Sites sites;
    private final Clock clock;

    private final PlanViews views;
    private final Firewalls firewalls;

    private final Endpoints endpoints;

    PlanController(
            Proposals proposals,
            SitePlans plans,
            Sites sites,
            Clock clock,
            PlanViews views,
            Endpoints endpoints,
            Firewalls firewalls) {
        this.firewalls = firewalls;
        this.endpoints = endpoints;
        this.views = views;
        this.proposals = proposals;
        this.plans = plans;
        this.sites = sites;
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
        return views.conflicts(siteId, plans.plan(siteId));
    }

    @GetMapping("/api/sites/{siteId}/segments/{segmentId}/tape")
    PlanViews.TapeView tape(@PathVariable long siteId, @PathVariable long segmentId) {
        return views.tape(sites.segmentOf(siteId, segmentId));
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
        return views.growth(siteId);
    }

    @GetMapping("/api/sites/{siteId}/wiring")
    PlanViews.WiringView wiring(@PathVariable long siteId) {
        sites.site(siteId);
        return views.wiring(siteId);
    }

    @GetMapping("/api/sites/{siteId}/firewall")
    List<Rule> firewall(@PathVariable long siteId) {
        return firewalls.rules(siteId);
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
        var partners = views.partners(siteId, segment.prefix());
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
        var endpoint = endpoints.get(id);
        if (endpoint.address() == null)
            throw Problem.field("address", "not-planned", "It has no planned address to compare with.");
        var context = sites.context(sites.segment(endpoint.segmentId()), endpoint.address());
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
                    Problem.word(odd.finding().code()),
                    odd.finding().message());
        });
        return LeaseCompare.compare(lease, context.segment(), context.resolvers(), endpoint.address());
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
