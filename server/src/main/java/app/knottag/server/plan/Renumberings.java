package app.knottag.server.plan;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Ipv4Prefix;
import app.knottag.core.address.Pool;
import app.knottag.core.address.Segment;
import app.knottag.core.plan.RenumberSteps;
import app.knottag.core.plan.RenumberSteps.Kind;
import app.knottag.core.plan.RenumberSteps.Step;
import app.knottag.core.plan.Renumbering;
import app.knottag.server.change.EndpointWork;
import app.knottag.server.db.Json;
import app.knottag.server.log.Log;
import app.knottag.server.record.EndpointStore;
import app.knottag.server.record.Endpoints;
import app.knottag.server.record.SegmentGuard;
import app.knottag.server.record.SitePlans;
import app.knottag.server.record.SiteStore;
import app.knottag.server.record.SiteStore.SegmentRow;
import app.knottag.server.record.Sites;
import app.knottag.server.web.Etags;
import app.knottag.server.web.Problem;
import java.time.Clock;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;

/** Carries a segment into another prefix or behind another router, step by step, each of which can be taken back. */
@Service
class Renumberings {

    /** One that gets another address, as the preview shows it. */
    record MoveView(String name, Ipv4Address from, Ipv4Address to, boolean keepsHost, List<String> pointers) {}

    /** What would come of a renumbering. */
    record RenumberPlan(
            List<MoveView> moves,
            int staying,
            int changedHosts,
            List<Step> steps,
            String clash,
            List<String> leastChanges) {}

    /** A renumbering and how far it has come. */
    record RenumberView(
            long id,
            long siteId,
            long segmentId,
            String segment,
            String from,
            String to,
            List<Step> steps,
            int done,
            Instant startedAt,
            String startedBy,
            boolean ended,
            @Nullable Boolean mayGiveUp,
            int version) {}

    private final RenumberStore store;
    private final SegmentGuard allowed;
    private final SiteStore siteStore;
    private final Sites sites;
    private final SitePlans plans;
    private final Endpoints endpoints;
    private final EndpointWork work;
    private final EndpointStore endpointStore;
    private final Log log;
    private final Clock clock;
    private final JsonMapper json;

    Renumberings(
            RenumberStore store,
            SegmentGuard allowed,
            SiteStore siteStore,
            Sites sites,
            SitePlans plans,
            Endpoints endpoints,
            EndpointWork work,
            EndpointStore endpointStore,
            Log log,
            Clock clock,
            JsonMapper json) {
        this.store = store;
        this.allowed = allowed;
        this.siteStore = siteStore;
        this.sites = sites;
        this.plans = plans;
        this.endpoints = endpoints;
        this.work = work;
        this.endpointStore = endpointStore;
        this.log = log;
        this.clock = clock;
        this.json = json;
    }

    private void allow(SegmentRow segment, SegmentForm.Filled next) {
        var prefix = next.segment().prefix();
        if (!prefix.equals(segment.prefix())) allowed.check(prefix);
        sites.refuseOverlap(segment.siteId(), segment.id(), prefix);
    }

    /** Works out what would come of it; {@code next} is what the segment is to become, as it was read from the form. */
    RenumberPlan preview(long siteId, long segmentId, SegmentForm.Filled next) {
        var row = sites.segmentOf(siteId, segmentId);
        if (row.nextPrefix() != null)
            throw Problem.conflict(
                    "prefix", "renumbering", "This segment is being renumbered already. Finish that first.", Map.of());
        allow(row, next);
        var becomes = new Renumbering.Addressing(next.segment(), Sites.resolvers(next.row()));
        var plan = plans.plan(siteId);
        var old = plan.segments().stream()
                .filter(s -> s.id() == segmentId)
                .findFirst()
                .orElseThrow();
        return Renumbering.plan(plan, old, becomes)
                .match(
                        planned -> new RenumberPlan(
                                planned.moves().stream()
                                        .map(m -> new MoveView(
                                                m.mover().name(),
                                                m.mover().from(),
                                                m.to(),
                                                m.keepsHost(),
                                                m.pointers()))
                                        .toList(),
                                planned.staying(),
                                planned.changedHosts(),
                                RenumberSteps.of(
                                        planned,
                                        Renumbering.movers(plan, old),
                                        new Renumbering.Addressing(old.segment(), old.resolvers()),
                                        becomes),
                                "",
                                List.of()),
                        impossible -> new RenumberPlan(
                                List.of(),
                                0,
                                0,
                                List.of(),
                                impossible.clash().clash(),
                                impossible.clash().leastChanges()));
    }

    @Transactional
    long start(long siteId, long segmentId, SegmentForm.Filled next, String by) {
        endpointStore.oneAtATime(siteId);
        var plan = preview(siteId, segmentId, next);
        if (plan.steps().isEmpty()) throw Problem.field("prefix", "no-room", plan.clash());
        var row = sites.segment(segmentId);
        siteStore.changeSegment(with(
                row,
                KeptAddressing.of(sites.plain(row), row.resolvers()),
                KeptAddressing.of(next.segment(), next.row().resolvers())));
        long id = store.add(
                siteId,
                segmentId,
                json(KeptAddressing.of(sites.plain(row), row.resolvers())),
                json(KeptAddressing.of(next.segment(), next.row().resolvers())),
                json(plan.steps()),
                by);
        log.write(Log.entry(by, "renumbering begun").at(siteId).before(row).after(plan.moves()));
        return id;
    }

    /** What changes about a segment when it is renumbered. */
    record KeptAddressing(Ipv4Prefix prefix, @Nullable Ipv4Address gateway, String resolvers, List<Pool> pools) {
        static KeptAddressing of(Segment s, String resolvers) {
            return new KeptAddressing(s.prefix(), s.gateway().orElse(null), resolvers, s.pools());
        }
    }

    private Json json(Object value) {
        return new Json(json.writeValueAsString(value));
    }

    /** The segment standing on one addressing, with the other one beside it while it lasts. */
    private static SegmentRow with(SegmentRow s, KeptAddressing on, @Nullable KeptAddressing beside) {
        return new SegmentRow(
                s.id(),
                s.siteId(),
                s.name(),
                on.prefix(),
                on.gateway(),
                on.resolvers(),
                s.vlan(),
                s.leaseMinutes(),
                s.method(),
                s.canReserve(),
                s.notes(),
                s.prefix6(),
                s.gateway6(),
                s.fixed6(),
                beside == null ? null : beside.prefix(),
                beside == null ? null : beside.gateway(),
                beside == null ? "" : beside.resolvers());
    }

    RenumberView view(RenumberStore.Row row) {
        var steps = steps(row);
        boolean touched = steps.subList(0, row.done()).stream().anyMatch(Renumberings::changesSomething);
        return new RenumberView(
                row.id(),
                row.siteId(),
                row.segmentId(),
                sites.segment(row.segmentId()).name(),
                addressing(row.was()).prefix().toString(),
                addressing(row.becomes()).prefix().toString(),
                steps,
                row.done(),
                row.startedAt(),
                row.startedBy(),
                row.endedAt() != null,
                !touched,
                row.version());
    }

    private static boolean changesSomething(Step step) {
        return step.kind() == Kind.MOVE
                || step.kind() == Kind.PARK
                || step.kind() == Kind.REFIT
                || step.kind() == Kind.ROUTER;
    }

    private List<Step> steps(RenumberStore.Row row) {
        return json.readValue(row.steps().text(), new TypeReference<List<Step>>() {});
    }

    private KeptAddressing addressing(Json kept) {
        return json.readValue(kept.text(), KeptAddressing.class);
    }

    RenumberStore.Row get(long id) {
        return Optional.ofNullable(store.find(id)).orElseThrow(() -> Problem.notFound("There is no such renumbering."));
    }

    private RenumberStore.Row alone(long id) {
        endpointStore.oneAtATime(get(id).siteId());
        return get(id);
    }

    /** Completes the current step, and with it makes the change on record that it stands for. */
    @Transactional
    void tick(long id, int expected, String by) {
        var row = alone(id);
        var steps = steps(row);
        var step = steps.get(Math.min(row.done(), steps.size() - 1));
        boolean last = row.done() + 1 >= steps.size();
        if (store.step(id, expected, row.done() + 1, last ? clock.instant() : null) == 0) throw Etags.stale();
        if (step.kind() == Kind.ROUTER) router(row, addressing(row.becomes()), addressing(row.was()));
        else move(step, step.to(), by);
        if (last) finish(row);
        log.write(Log.entry(by, last ? "renumbering finished" : "renumbering: done “" + step.title() + "”")
                .at(row.siteId())
                .after(step));
    }

    private void move(Step step, Ipv4Address to, String by) {
        if (step.mover() == null) return;
        if (step.kind() == Kind.REFIT) {
            if (step.mover() > 0 && endpoints.get(step.mover()).retiredAt() == null)
                work.refit(step.mover(), "Renumbering: " + step.title(), by);
            return;
        }
        String reason = "Renumbering: " + step.title();
        if (step.mover() < 0) work.movePartner(-step.mover(), to, reason, by);
        else if (endpoints.get(step.mover()).retiredAt() == null) work.move(step.mover(), to, reason, by);
    }

    private void router(RenumberStore.Row row, KeptAddressing on, KeptAddressing beside) {
        siteStore.clearPools(row.segmentId());
        siteStore.changeSegment(with(sites.segment(row.segmentId()), on, beside));
        on.pools().forEach(p -> siteStore.addPool(row.segmentId(), p.from(), p.to()));
    }

    private void finish(RenumberStore.Row row) {
        var behind = endpointStore.marks(row.segmentId()).stream()
                .filter(m -> !addressing(row.becomes()).prefix().usable(m.address()))
                .map(EndpointStore.Mark::name)
                .toList();
        if (!behind.isEmpty())
            throw Problem.conflict(
                    "",
                    "left-behind",
                    "Still in the old network: " + String.join(", ", behind)
                            + ". Give them an address of the new one first.",
                    Map.of());
        siteStore.changeSegment(with(sites.segment(row.segmentId()), addressing(row.becomes()), null));
    }

    /** Takes the last step back. */
    @Transactional
    void untick(long id, int expected, String by) {
        var row = alone(id);
        if (row.done() == 0) throw Problem.conflict("", "nothing-done", "Nothing is done yet.", Map.of());
        var step = steps(row).get(row.done() - 1);
        if (store.step(id, expected, row.done() - 1, null) == 0) throw Etags.stale();
        if (step.kind() == Kind.ROUTER) router(row, addressing(row.was()), addressing(row.becomes()));
        else move(step, step.from(), by);
        log.write(Log.entry(by, "renumbering: took back “" + step.title() + "”")
                .at(row.siteId())
                .after(step));
    }

    /** Gives a renumbering up; only while nothing was changed, else its steps are taken back first. */
    @Transactional
    void giveUp(long id, int expected, String by) {
        var row = alone(id);
        if (!Boolean.TRUE.equals(view(row).mayGiveUp()))
            throw Problem.conflict(
                    "", "already-moving", "Something has moved already. Take those steps back first.", Map.of());
        if (store.step(id, expected, row.done(), clock.instant()) == 0) throw Etags.stale();
        siteStore.changeSegment(with(sites.segment(row.segmentId()), addressing(row.was()), null));
        log.write(Log.entry(by, "renumbering given up").at(row.siteId()).after(row.segmentId()));
    }

    List<RenumberStore.Row> running(long siteId) {
        return store.running(siteId);
    }
}
