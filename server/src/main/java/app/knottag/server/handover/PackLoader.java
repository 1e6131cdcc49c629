package app.knottag.server.handover;

import app.knottag.core.handover.PackSite;
import app.knottag.core.handover.PackSite.Head;
import app.knottag.core.handover.PackSite.LogHead;
import app.knottag.core.handover.PackSite.Network;
import app.knottag.core.handover.PackSite.Override;
import app.knottag.core.handover.PackSite.PackDevice;
import app.knottag.core.handover.PackSite.PackRegistry;
import app.knottag.core.handover.PackSite.PackSegment;
import app.knottag.core.handover.PackSite.PackService;
import app.knottag.core.handover.PackSite.Proof;
import app.knottag.core.kind.Kind;
import app.knottag.core.kind.Kinds;
import app.knottag.core.plan.Method;
import app.knottag.core.reach.CheckResult;
import app.knottag.core.reach.Evidence;
import app.knottag.core.reach.FaultBook;
import app.knottag.core.reach.NetworkState;
import app.knottag.core.reach.PaperSearch;
import app.knottag.core.register.Registration;
import app.knottag.core.register.Registry;
import app.knottag.core.runbook.Board;
import app.knottag.core.runbook.Runbook;
import app.knottag.core.status.Status;
import app.knottag.server.handover.Handovers.Whole;
import app.knottag.server.record.CheckRunStore;
import app.knottag.server.record.EndpointStore;
import app.knottag.server.record.Firewalls;
import app.knottag.server.record.NightPlans;
import app.knottag.server.record.RegistryBook;
import app.knottag.server.record.Runbooks;
import app.knottag.server.record.SitePlans;
import app.knottag.server.record.SiteStore;
import app.knottag.server.record.Sites;
import java.time.Clock;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Isolation;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;

/** Loads everything of a site that its packs are made of. */
@Component
public class PackLoader {

    private final Handovers handovers;
    private final HandoverStore store;
    private final SiteStore siteStore;
    private final Sites sites;
    private final SitePlans plans;
    private final RegistryBook book;
    private final Runbooks runbooks;
    private final CheckRunStore checkRuns;
    private final Firewalls firewalls;
    private final NightPlans nights;
    private final Kinds kinds;
    private final Clock clock;
    private final JsonMapper json;

    PackLoader(
            Handovers handovers,
            HandoverStore store,
            SiteStore siteStore,
            Sites sites,
            SitePlans plans,
            RegistryBook book,
            Runbooks runbooks,
            CheckRunStore checkRuns,
            Firewalls firewalls,
            NightPlans nights,
            Kinds kinds,
            Clock clock,
            JsonMapper json) {
        this.handovers = handovers;
        this.store = store;
        this.siteStore = siteStore;
        this.sites = sites;
        this.plans = plans;
        this.book = book;
        this.runbooks = runbooks;
        this.checkRuns = checkRuns;
        this.firewalls = firewalls;
        this.nights = nights;
        this.kinds = kinds;
        this.clock = clock;
        this.json = json;
    }

    /** Everything as it is at one moment, whoever works on the site meanwhile. */
    @Transactional(readOnly = true, isolation = Isolation.REPEATABLE_READ)
    public PackSite load(long siteId, String by) {
        var site = sites.site(siteId);
        var plan = plans.plan(siteId);
        var all = handovers.site(siteId);
        var head = store.head();
        var registered = book.site(siteId);
        var rows = siteStore.segments(siteId).stream()
                .collect(Collectors.toMap(SiteStore.SegmentRow::id, Function.identity()));
        return new PackSite(
                new Head(
                        site.name(),
                        Objects.requireNonNullElse(site.client(), ""),
                        site.zone(),
                        store.help(siteId),
                        by,
                        sites.clock(siteId)),
                new Network(
                        plan.segments().stream()
                                .map(s -> new PackSegment(
                                        s.name(),
                                        s.segment(),
                                        s.resolvers().stream()
                                                .map(Object::toString)
                                                .toList(),
                                        Optional.ofNullable(rows.get(s.id()))
                                                .map(SiteStore.SegmentRow::vlan)
                                                .map(Object::toString)
                                                .orElse(""),
                                        Optional.ofNullable(rows.get(s.id()))
                                                .map(SiteStore.SegmentRow::notes)
                                                .orElse("")))
                                .toList(),
                        siteStore.series(siteId).stream()
                                .map(PackLoader::series)
                                .toList(),
                        services(siteId),
                        plan.cables(),
                        firewalls.rules(siteId)),
                devices(siteId, all, registered),
                registries(registered),
                nights.plan(siteId).slots(),
                new LogHead(head.id(), head.hash()));
    }

    private static String series(SiteStore.SeriesRow s) {
        return s.name() + ": "
                + switch (s.counts()) {
                    case HOST -> "number 1 is host " + (s.hostBase() + 1);
                    case LISTENING_PORT -> "number 1 listens on " + (s.portBase() + 1);
                    default -> "counts from 1";
                }
                + (s.lastNumber() == 0 ? "." : ", up to " + s.lastNumber() + ".");
    }

    private List<PackService> services(long siteId) {
        return Stream.concat(
                        siteStore.partners(siteId).stream()
                                .map(p -> new PackService(p.name(), p.address().toString(), "Partner of devices")),
                        siteStore.services(siteId).stream()
                                .map(s -> new PackService(
                                        s.name(), s.host() + ":" + s.port(), "Listed service, " + s.protocol())))
                .toList();
    }

    private List<PackRegistry> registries(RegistryBook.Site site) {
        var now = clock.instant();
        return site.registries().values().stream()
                .map(r -> new PackRegistry(
                        r.name(),
                        site.registrations().stream()
                                .filter(e -> e.registry() == r.id() && e.living(now))
                                .map(e -> entry(site, r, e))
                                .sorted(Comparator.comparing(e -> e.get(1)))
                                .toList()))
                .toList();
    }

    private List<String> entry(RegistryBook.Site site, Registry registry, Registration e) {
        return List.of(
                e.held().mac().map(Object::toString).orElse(""),
                Optional.ofNullable(site.units().get(e.unit()))
                        .map(u -> u.name())
                        .orElse(e.held().name()),
                switch (e.standing(registry.rules(), clock.instant()).state()) {
                    case TO_REGISTER -> "to be registered";
                    case SUBMITTED -> "handed in";
                    case IN_FORCE -> "in force";
                    case EXPIRING -> "runs out soon";
                    case ENDED -> "ended";
                });
    }

    private List<PackDevice> devices(long siteId, List<Whole> all, RegistryBook.Site registries) {
        var ids = all.stream().map(w -> w.row().id()).collect(Collectors.toSet());
        var jobs =
                runbooks.jobs(siteId, ids).stream().collect(Collectors.toMap(Board.Job::endpoint, Board.Job::runbook));
        var sheets = runbooks.sheets(siteId);
        var proofs = proofs(siteId);
        var wanted = registries.wanted();
        return all.stream()
                .map(w -> {
                    var e = w.row();
                    var runbook = Optional.ofNullable(jobs.get(e.id()));
                    return new PackDevice(
                            w.known(),
                            w.facts(),
                            e.place(),
                            kinds.find(e.kind()).map(Kind::name).orElse(e.kind()),
                            kinds.find(e.kind(), e.kindVersion()).or(() -> kinds.find(e.kind())),
                            e.method(),
                            runbook.map(r -> sheets.apply(e, r.kind())).orElse(List.of()),
                            runbook.map(r -> search(e, r.kind(), wanted.contains(e.id()))),
                            proofs.getOrDefault(e.id(), List.of()),
                            runbook.map(PackLoader::overrides).orElse(List.of()));
                })
                .toList();
    }

    private static PaperSearch.Device search(EndpointStore.Row e, Kind kind, boolean wanted) {
        return new PaperSearch.Device(
                new NetworkState.Traits(
                        wanted,
                        e.partnerId() != null,
                        kind.service().tellsSerial(),
                        kind.callsOut(),
                        kind.wireless() ? NetworkState.Joined.WIRELESS : NetworkState.Joined.CABLE),
                e.method() == Method.RESERVED);
    }

    private static List<Override> overrides(Runbook runbook) {
        return runbook.records().stream()
                .filter(r -> !r.reason().isEmpty())
                .map(r -> new Override(runbook.kind().step(r.key()).title(), r.reason(), r.by()))
                .toList();
    }

    /** What was measured and seen of those whose sign-off holds, by endpoint; only that says that nothing was changed since. */
    private Map<Long, List<Proof>> proofs(long siteId) {
        var proofs = new HashMap<Long, List<Proof>>();
        for (var run : checkRuns.runsOfSite(siteId))
            json.readValue(run.results().text(), new TypeReference<List<CheckResult>>() {}).stream()
                    .filter(r -> r.status() == Status.PASSED || r.status() == Status.FAILED)
                    .forEach(r -> proofs.computeIfAbsent(run.endpointId(), id -> new ArrayList<>())
                            .add(new Proof(r.check().title(), r.seen(), Evidence.TOOL.words(), r.at(), run.by())));
        for (var o : checkRuns.observationsOfSite(siteId))
            proofs.computeIfAbsent(o.endpointId(), id -> new ArrayList<>())
                    .add(new Proof(
                            o.checkName().title(),
                            FaultBook.shipped().words(o.checkName(), o.outcome()),
                            o.evidence().words(),
                            o.at(),
                            o.by()));
        return proofs;
    }
}
