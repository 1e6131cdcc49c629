package app.knottag.server.plan;

import app.knottag.core.address.Discovery;
import app.knottag.core.address.Ipv4Address;
import app.knottag.core.hardware.Gear;
import app.knottag.core.kind.Kind;
import app.knottag.core.kind.Kinds;
import app.knottag.core.plan.FreeVerdict;
import app.knottag.core.plan.FreeVerdict.Verdict;
import app.knottag.core.plan.Method;
import app.knottag.core.plan.Planner;
import app.knottag.core.plan.Proposal;
import app.knottag.core.plan.Proposal.Choice;
import app.knottag.core.series.Series;
import app.knottag.core.series.Series.Counts;
import app.knottag.server.change.Numbering;
import app.knottag.server.record.EndpointStore;
import app.knottag.server.record.SitePlans;
import app.knottag.server.record.SiteStore;
import app.knottag.server.record.SiteStore.PartnerRow;
import app.knottag.server.record.SiteStore.SegmentRow;
import app.knottag.server.record.SiteStore.SeriesRow;
import app.knottag.server.record.Sites;
import app.knottag.server.record.Wires;
import app.knottag.server.web.Problem;
import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;

/** Proposes everything about a new endpoint that can be worked out, each with its reason. */
@Service
class Proposals {

    /** What is proposed for a new endpoint, and why; refused is filled when no address can be had. */
    record ProposalView(
            @Nullable Integer number,
            @Nullable Long seriesId,
            String name,
            String hostName,
            @Nullable Ipv4Address address,
            @Nullable Long host,
            Ipv4Address mask,
            Method method,
            Integer servicePort,
            String partnerName,
            @Nullable Ipv4Address partnerAddress,
            @Nullable Integer partnerPort,
            String switchPort,
            List<String> reasons,
            List<Choice> alternatives,
            String refused,
            String leastChange) {}

    /** What is asked: the kind, and where she already has an opinion; null where she has none. */
    record Question(String kind, long segmentId, Long seriesId, Integer number, Ipv4Address at, String place) {}

    private final Numbering numbering;
    private final EndpointStore store;
    private final SiteStore siteStore;
    private final Sites sites;
    private final SitePlans plans;
    private final Wires wires;
    private final Kinds kinds;
    private final Clock clock;

    Proposals(
            Numbering numbering,
            EndpointStore store,
            SiteStore siteStore,
            Sites sites,
            SitePlans plans,
            Wires wires,
            Kinds kinds,
            Clock clock) {
        this.numbering = numbering;
        this.store = store;
        this.siteStore = siteStore;
        this.sites = sites;
        this.plans = plans;
        this.wires = wires;
        this.kinds = kinds;
        this.clock = clock;
    }

    ProposalView propose(long siteId, Question q) {
        var kind = kinds.find(q.kind())
                .orElseThrow(() -> Problem.field("kind", "no-such-kind", "There is no kind “" + q.kind() + "”."));
        var segment = sites.segmentOf(siteId, q.segmentId());
        var planner = new Planner(sites.plain(segment), plans.occupied(siteId, clock.instant()));
        var at = q.at() != null && planner.isFree(q.at()) ? q.at() : null;
        var series = numbering
                .seriesOf(siteId, kind, q.seriesId())
                .filter(s -> s.segmentId() == null || s.segmentId() == q.segmentId())
                .filter(s ->
                        at == null || q.seriesId() != null || q.number() != null || numberAt(s, segment, at) != null);
        Integer number = series.map(s -> q.number() != null ? q.number() : numberAt(s, segment, at))
                .or(() -> series.map(this::nextNumber))
                .orElse(null);
        if (number != null && (number < 1 || number > 9999))
            throw Problem.field("number", "out-of-range", "A number runs from 1 to 9999.");
        var advice = Method.advise(kind.reached(), segment.canReserve(), segment.method());
        var partner = partner(siteId, series, number);
        var reasons = new ArrayList<String>();
        var hosts = hosts(series, segment);
        var choice = choose(planner, hosts, number, at, reasons);
        choice.flatMap(c -> verdict(siteId, c.address())).ifPresent(reasons::add);
        reasons.add(
                advice.reason() + (advice.method() == Method.FIXED && kind.reached() ? " " + kind.fixedBecause() : ""));
        choice.flatMap(c -> partner.map(p -> discovery(segment, c.address(), p)))
                .ifPresent(reasons::add);
        var refusal =
                choice.isPresent() ? Optional.<Proposal.Refused>empty() : Optional.of(refusal(planner, hosts, number));
        return new ProposalView(
                number,
                series.map(SeriesRow::id).orElse(null),
                name(siteId, kind, series, number),
                numbering.hostName(siteId, kind, series, number, q.place() == null ? "" : q.place()),
                choice.map(Choice::address).orElse(null),
                choice.map(c -> c.address().number()
                                - segment.prefix().network().number())
                        .orElse(null),
                segment.prefix().mask(),
                advice.method(),
                numbering.servicePort(kind, series, number),
                partner.map(PartnerRow::name).orElse(""),
                partner.map(PartnerRow::address).orElse(null),
                partner.flatMap(p -> numbering.partnerPort(series, number)).orElse(null),
                series.flatMap(s -> gearPort(siteId, s, number)).orElse(""),
                refusal.isPresent() ? List.of() : List.copyOf(reasons),
                choice.map(c -> planner.alternatives(c.address())).orElse(List.of()),
                refusal.map(Proposal.Refused::clash).orElse(""),
                refusal.map(Proposal.Refused::leastChange).orElse(""));
    }

    private static Optional<Choice> choose(
            Planner planner, Optional<Series> hosts, Integer number, Ipv4Address at, List<String> reasons) {
        if (at != null) {
            reasons.add("You chose it on the tape.");
            reasons.add(planner.risk(at));
            return Optional.of(planner.choice(at));
        }
        return answer(planner, hosts, number)
                .match(
                        placed -> {
                            reasons.addAll(placed.reasons());
                            return Optional.of(placed.choice());
                        },
                        refused -> Optional.empty());
    }

    private static Proposal answer(Planner planner, Optional<Series> hosts, Integer number) {
        return planner.propose(hosts, number == null ? 0 : number);
    }

    /** The run of hosts as far as it reaches beside the others, so that the room said is that of the tape. */
    private Optional<Series> hosts(Optional<SeriesRow> series, SegmentRow segment) {
        return series.filter(s -> s.counts() == Counts.HOST).map(s -> {
            var plain = Sites.plain(s);
            int room = Sites.room(s, sites.plain(segment), siteStore.series(s.siteId()));
            return new Series(plain.name(), plain.counts(), plain.base(), plain.portBase(), room);
        });
    }

    private static Proposal.Refused refusal(Planner planner, Optional<Series> hosts, Integer number) {
        return answer(planner, hosts, number).match(p -> null, r -> r);
    }

    /** What pasted lists say about the address, when they say anything. */
    private Optional<String> verdict(long siteId, Ipv4Address address) {
        var verdict = FreeVerdict.of(address, plans.evidence(siteId), clock.instant());
        if (verdict.voices().isEmpty()) return Optional.empty();
        return Optional.of((verdict.verdict() == Verdict.PROBABLY_FREE
                        ? "Probably free"
                        : "Doubtful: " + verdict.holder() + " was seen there")
                + ", " + verdict.confidence() + " % sure: "
                + String.join(
                        ", ", verdict.voices().stream().map(Proposals::said).toList())
                + ".");
    }

    private static String said(FreeVerdict.Voice v) {
        String age = v.age().toHours() < 48 ? v.age().toHours() + " h" : v.age().toDays() + " days";
        return v.says().startsWith("Not")
                ? "not in the " + v.source() + ", " + age + " old"
                : v.says().toLowerCase(Locale.ROOT).replaceAll("\\.$", "") + " in the " + v.source() + ", " + age
                        + " old";
    }

    private String discovery(SegmentRow segment, Ipv4Address address, PartnerRow partner) {
        int length = segment.prefix().prefixLength();
        int its = siteStore.segments(segment.siteId()).stream()
                .filter(s -> s.prefix().contains(partner.address()))
                .map(s -> s.prefix().prefixLength())
                .findFirst()
                .orElse(length);
        return partner.name() + ": "
                + Discovery.judge(partner.address(), its, address, length, true).reason();
    }

    /** The number that an address chosen on the tape stands for, when it is in the run and not given yet. */
    private Integer numberAt(SeriesRow series, SegmentRow segment, Ipv4Address at) {
        if (at == null || series.counts() != Counts.HOST) return null;
        var number = Sites.plain(series)
                .numberOf(at.number() - segment.prefix().network().number());
        boolean given = number.isPresent() && store.numbers(series.id()).contains(number.getAsInt());
        return number.isEmpty() || given || outOfRoom(series, number.getAsInt()) ? null : number.getAsInt();
    }

    /** Whether the figure belongs to another run that begins further up. */
    private boolean outOfRoom(SeriesRow series, int number) {
        return siteStore.series(series.siteId()).stream()
                .anyMatch(o -> o.id() != series.id()
                        && Objects.equals(o.segmentId(), series.segmentId())
                        && o.hostBase() > series.hostBase()
                        && series.hostBase() + number > o.hostBase());
    }

    private int nextNumber(SeriesRow series) {
        var taken = store.numbers(series.id());
        return IntStream.iterate(1, i -> i + 1)
                .filter(i -> !taken.contains(i))
                .findFirst()
                .orElseThrow();
    }

    /** The partner that carries the number: that of the series first, else the only one with it in its name. */
    Optional<PartnerRow> partner(long siteId, Optional<SeriesRow> series, Integer number) {
        if (series.isEmpty() || number == null) return Optional.empty();
        var all = siteStore.partners(siteId);
        String own = series.get().name() + " " + number + " ";
        return all.stream().filter(p -> p.name().startsWith(own)).findFirst().or(() -> {
            var numbered = all.stream()
                    .filter(p -> (" " + p.name() + " ").contains(" " + number + " "))
                    .toList();
            return numbered.size() == 1 ? Optional.of(numbered.get(0)) : shared(series.get(), all);
        });
    }

    /** The one server that all others of the series hang on, such as a terminal server of several tills. */
    private Optional<PartnerRow> shared(SeriesRow series, List<PartnerRow> all) {
        var serves = store.partnersOf(series.id());
        if (serves.size() != 1 || serves.get(0).count() < 2) return Optional.empty();
        return all.stream().filter(p -> p.id() == serves.get(0).partnerId()).findFirst();
    }

    String name(long siteId, Kind kind, Optional<SeriesRow> series, Integer number) {
        if (series.isPresent()) {
            String base = series.get().name() + " " + number;
            return series.get().name().equalsIgnoreCase(kind.noun()) ? base : base + " " + kind.noun();
        }
        var names = store.holders(siteId).stream()
                .map(h -> h.name().toLowerCase(Locale.ROOT))
                .collect(Collectors.toSet());
        return IntStream.iterate(1, i -> i + 1)
                .mapToObj(i -> i == 1 ? kind.name() : kind.name() + " " + i)
                .filter(candidate -> !names.contains(candidate.toLowerCase(Locale.ROOT)))
                .findFirst()
                .orElseThrow();
    }

    /** The port of gear that goes with the number, when a run of gear ports is the series or counts along with it. */
    private Optional<String> gearPort(long siteId, SeriesRow series, Integer number) {
        var run = series.counts() == Counts.GEAR_PORT
                ? Optional.of(series)
                : numbering.following(series).stream()
                        .filter(s -> s.counts() == Counts.GEAR_PORT)
                        .findFirst();
        return run.flatMap(r -> wires.gear(siteId).stream()
                .filter(g -> Objects.equals(r.gearId(), g.id()))
                .findFirst()
                .flatMap((Gear g) -> g.portOf(r.hostBase() + number).map(g::label)));
    }
}
