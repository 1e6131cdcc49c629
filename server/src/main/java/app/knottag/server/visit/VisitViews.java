package app.knottag.server.visit;

import app.knottag.core.visit.Backward;
import app.knottag.core.visit.DoNow;
import app.knottag.core.visit.Helps.Help;
import app.knottag.core.visit.Obstacle;
import app.knottag.core.visit.Turn;
import app.knottag.core.visit.VisitPlan;
import app.knottag.core.visit.VisitUnit;
import app.knottag.server.record.Sites;
import app.knottag.server.visit.VisitStore.MinutesRow;
import app.knottag.server.visit.VisitStore.VisitRow;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Shows visits. */
@Component
class VisitViews {

    /** How far a visit is. */
    enum VisitState {
        PLANNED,
        RUNNING,
        OVER
    }

    record VisitLine(
            long id,
            long siteId,
            String site,
            String name,
            Instant begins,
            @Nullable Instant due,
            VisitState state,
            int units,
            List<String> people) {}

    /**
     * What somebody is to do now.
     *
     * @param since when they took it in hand, or null when they have not
     */
    record HandView(
            String name,
            List<String> skills,
            @Nullable Instant from,
            @Nullable Instant until,
            boolean gone,
            DoNow.What what,
            @Nullable Long endpointId,
            String endpoint,
            String place,
            String title,
            int steps,
            Instant at,
            @Nullable Instant since,
            String because) {}

    /** One stretch in the picture; {@code tight} when there is no slack in it. */
    record TurnView(
            long endpointId,
            String endpoint,
            String place,
            String title,
            int who,
            Instant from,
            Instant until,
            Instant done,
            int slack,
            boolean tight) {}

    record LatestView(int who, Instant at) {}

    record PlanOfVisit(
            List<TurnView> turns,
            Instant from,
            Instant finish,
            Instant bound,
            boolean best,
            boolean searched,
            int walking,
            int oneAfterAnother,
            Instant half,
            Instant nine,
            int inTime,
            List<Help> helps,
            List<Obstacle> obstacles,
            List<String> left,
            List<LatestView> latest) {}

    record VisitUnitView(
            long endpointId, String endpoint, String place, boolean bench, int hands, int chain, boolean done) {}

    record VisitView(
            long id,
            long siteId,
            String site,
            String name,
            Instant begins,
            @Nullable Instant due,
            VisitState state,
            @Nullable Instant beganAt,
            @Nullable Instant endedAt,
            List<HandView> people,
            List<VisitBrief.PlaceHours> places,
            @Nullable Integer outlets,
            @Nullable Integer ports,
            double megabits,
            int walk,
            List<VisitUnitView> units,
            @Nullable PlanOfVisit plan,
            List<MinutesRow> real,
            int version) {}

    private final Visits visits;
    private final Taking taking;
    private final VisitStore store;
    private final Sites sites;

    VisitViews(Visits visits, Taking taking, VisitStore store, Sites sites) {
        this.visits = visits;
        this.taking = taking;
        this.store = store;
        this.sites = sites;
    }

    private static VisitState state(@Nullable Instant began, @Nullable Instant ended) {
        if (ended != null) return VisitState.OVER;
        return began == null ? VisitState.PLANNED : VisitState.RUNNING;
    }

    List<VisitLine> open() {
        return store.open().stream().map(this::line).toList();
    }

    List<VisitLine> ofSite(long siteId) {
        return store.ofSite(siteId).stream().map(this::line).toList();
    }

    private VisitLine line(VisitStore.LineRow row) {
        return new VisitLine(
                row.id(),
                row.siteId(),
                row.site(),
                row.name(),
                row.begins(),
                row.due(),
                state(row.beganAt(), row.endedAt()),
                row.units(),
                visits.brief(row.brief()).names());
    }

    VisitView view(long id) {
        var row = visits.get(id);
        var said = visits.brief(row);
        var now = visits.now(row);
        var left = now.brief().units().stream().collect(Collectors.toMap(VisitUnit::id, u -> u));
        var names = store.names(id).stream().collect(Collectors.toMap(VisitStore.NameRow::endpointId, n -> n));
        var lines = taking.lines(row, now);
        return new VisitView(
                id,
                row.siteId(),
                sites.site(row.siteId()).name(),
                row.name(),
                row.begins(),
                row.due(),
                state(row.beganAt(), row.endedAt()),
                row.beganAt(),
                row.endedAt(),
                IntStream.range(0, said.people().size())
                        .mapToObj(p -> hand(said.people().get(p), lines.get(p), p, now, left))
                        .toList(),
                said.places(),
                said.outlets(),
                said.ports(),
                said.megabits(),
                said.walk(),
                store.units(id).stream()
                        .map(u -> unit(u, names.get(u.endpointId()), Optional.ofNullable(left.get(u.endpointId()))))
                        .toList(),
                visits.plan(row).map(p -> plan(p, row, names)).orElse(null),
                store.minutes(id),
                row.version());
    }

    private static VisitUnitView unit(VisitStore.UnitRow u, VisitStore.NameRow named, Optional<VisitUnit> left) {
        return new VisitUnitView(
                u.endpointId(),
                named.name(),
                named.place(),
                u.bench(),
                left.map(VisitUnit::hands).orElse(0),
                left.map(VisitUnit::chain).orElse(0),
                left.isEmpty());
    }

    private static HandView hand(VisitBrief.Person p, DoNow told, int person, VisitNow now, Map<Long, VisitUnit> left) {
        var unit = Optional.ofNullable(left.get(told.unit()));
        var stretch = unit.map(u -> u.stretches().get(told.stretch()));
        return new HandView(
                p.name(),
                p.skills(),
                p.from(),
                p.until(),
                p.gone(),
                told.what(),
                unit.map(VisitUnit::id).orElse(null),
                unit.map(VisitUnit::name).orElse(""),
                unit.map(VisitUnit::place).orElse(""),
                stretch.map(s -> s.title()).orElse(""),
                stretch.map(s -> s.steps().size()).orElse(0),
                now.at().plus(Duration.ofMinutes(told.at())),
                Optional.ofNullable(now.hands().get(person)).map(Hand::since).orElse(null),
                told.because());
    }

    private static PlanOfVisit plan(KeptPlan kept, VisitRow row, Map<Long, VisitStore.NameRow> names) {
        VisitPlan plan = kept.plan();
        var turns = plan.turns().stream()
                .filter(t -> names.containsKey(t.unit()))
                .map(t -> turn(t, kept, names.get(t.unit())))
                .toList();
        int due = row.due() == null ? plan.finish() : VisitNow.minutes(kept.from(), row.due());
        return new PlanOfVisit(
                turns,
                kept.from(),
                at(kept, plan.finish()),
                at(kept, plan.bound()),
                plan.best(),
                plan.means() == VisitPlan.BoundBy.SEARCH,
                plan.walking(),
                plan.turns().stream().mapToInt(t -> t.done() - t.from()).sum(),
                at(kept, kept.half()),
                at(kept, kept.nine()),
                kept.inTime(),
                kept.helps(),
                kept.obstacles(),
                plan.left().stream()
                        .map(u -> Optional.ofNullable(names.get(u))
                                .map(VisitStore.NameRow::name)
                                .orElse(""))
                        .toList(),
                Backward.of(plan, due).stream()
                        .map(l -> new LatestView(l.who(), at(kept, l.at())))
                        .toList());
    }

    private static TurnView turn(Turn t, KeptPlan kept, VisitStore.NameRow named) {
        return new TurnView(
                t.unit(),
                named.name(),
                named.place(),
                kept.titles().getOrDefault(t.unit() + " " + t.stretch(), ""),
                t.who(),
                at(kept, t.from()),
                at(kept, t.until()),
                at(kept, t.done()),
                t.slack(),
                t.slack() == 0);
    }

    private static Instant at(KeptPlan kept, int minute) {
        return kept.from().plus(Duration.ofMinutes(minute));
    }
}
