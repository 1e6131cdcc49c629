package app.knottag.server.visit;

import app.knottag.core.visit.Backward;
import app.knottag.core.visit.DoNow;
import app.knottag.core.visit.Learned;
import app.knottag.core.visit.Turn;
import app.knottag.core.visit.VisitPlan;
import app.knottag.core.visit.VisitUnit;
import app.knottag.server.record.Sites;
import app.knottag.server.visit.VisitStore.VisitRow;
import app.knottag.server.visit.VisitView.BoundView;
import app.knottag.server.visit.VisitView.HandView;
import app.knottag.server.visit.VisitView.KnownView;
import app.knottag.server.visit.VisitView.LatestView;
import app.knottag.server.visit.VisitView.OddsView;
import app.knottag.server.visit.VisitView.PlanOfVisit;
import app.knottag.server.visit.VisitView.ToDoView;
import app.knottag.server.visit.VisitView.TurnView;
import app.knottag.server.visit.VisitView.VisitHead;
import app.knottag.server.visit.VisitView.VisitLine;
import app.knottag.server.visit.VisitView.VisitMeans;
import app.knottag.server.visit.VisitView.VisitState;
import app.knottag.server.visit.VisitView.VisitUnitView;
import app.knottag.server.web.Scope;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;

/** Shows visits. */
@Component
class VisitViews {

    private final Visits visits;
    private final Taking taking;
    private final VisitStore store;
    private final HandStore inHand;
    private final TaskStore tasks;
    private final Sites sites;

    VisitViews(Visits visits, Taking taking, VisitStore store, HandStore inHand, TaskStore tasks, Sites sites) {
        this.visits = visits;
        this.taking = taking;
        this.store = store;
        this.inHand = inHand;
        this.tasks = tasks;
        this.sites = sites;
    }

    private static VisitState state(boolean begun, boolean over) {
        if (over) return VisitState.OVER;
        return begun ? VisitState.RUNNING : VisitState.PLANNED;
    }

    List<VisitLine> open() {
        return store.open(Scope.now().list()).stream().map(this::line).toList();
    }

    List<VisitLine> ofSite(long siteId) {
        return store.ofSite(siteId, Scope.now().list()).stream().map(this::line).toList();
    }

    private VisitLine line(VisitStore.LineRow row) {
        var state = state(row.begun(), row.over());
        return new VisitLine(
                new VisitHead(row.id(), row.name(), state, row.siteId(), row.site(), row.begins(), row.due()),
                row.units(),
                visits.brief(row.brief(), row.whereabouts()).names());
    }

    VisitView view(long id) {
        var row = visits.get(id);
        var said = visits.brief(row);
        var now = visits.now(row);
        var left = Stream.concat(now.brief().units().stream(), now.aside().stream())
                .collect(Collectors.toMap(VisitUnit::id, u -> u));
        var also = tasks.of(id);
        var names = Stream.concat(
                        store.names(id).stream(),
                        also.stream()
                                .map(t -> new VisitStore.NameRow(t.unit(), row.siteId(), t.title(), t.place(), "")))
                .collect(Collectors.toMap(VisitStore.NameRow::endpointId, n -> n));
        var lines = taking.lines(row, now);
        var real = inHand.minutes(id);
        return new VisitView(
                head(row),
                row.beganAt(),
                row.endedAt(),
                IntStream.range(0, said.people().size())
                        .mapToObj(p -> hand(
                                said.people().get(p),
                                lines.get(p),
                                p,
                                there(row, now, said.people().get(p)),
                                now,
                                names))
                        .toList(),
                new VisitMeans(
                        said.places(),
                        said.tools(),
                        said.outlets(),
                        said.ports(),
                        said.megabits(),
                        said.walk(),
                        said.travel()),
                store.units(id).stream()
                        .map(u -> unit(u, names.get(u.endpointId()), Optional.ofNullable(left.get(u.endpointId()))))
                        .toList(),
                also,
                visits.plan(row).map(p -> plan(p, row, names, now)).orElse(null),
                real,
                visits.learned(real.stream().map(HandStore.MinutesRow::kind).collect(Collectors.toSet()))
                        .offer(real.stream()
                                .map(m -> new Learned.Seen(m.kind(), m.model(), m.step(), m.planned()))
                                .toList()),
                row.begun()
                        && !row.over()
                        && visits.plan(row)
                                .filter(p -> p.plan().behind(VisitNow.minutes(p.from(), now.at())))
                                .isPresent(),
                row.version());
    }

    private VisitHead head(VisitRow row) {
        return new VisitHead(
                row.id(),
                row.name(),
                state(row.begun(), row.over()),
                row.siteId(),
                sites.site(row.siteId()).name(),
                row.begins(),
                row.due());
    }

    private static VisitUnitView unit(VisitStore.UnitRow u, VisitStore.NameRow named, Optional<VisitUnit> left) {
        return new VisitUnitView(
                u.endpointId(),
                u.siteId(),
                named.name(),
                named.place(),
                u.bench(),
                u.first(),
                left.map(VisitUnit::hands).orElse(0),
                left.map(VisitUnit::chain).orElse(0),
                left.isEmpty(),
                u.aside() && left.isPresent());
    }

    private static int there(VisitRow row, VisitNow now, VisitBrief.Person p) {
        return Optional.ofNullable(row.beganAt())
                .map(began -> p.there(began, Optional.ofNullable(row.endedAt()).orElse(now.at())))
                .orElse(0);
    }

    private static HandView hand(
            VisitBrief.Person p, DoNow told, int person, int there, VisitNow now, Map<Long, VisitStore.NameRow> names) {
        var unit =
                now.brief().units().stream().filter(u -> u.id() == told.unit()).findFirst();
        var stretch = unit.map(u -> u.stretches().get(told.stretch()));
        return new HandView(
                p.name(),
                p.skills(),
                p.from(),
                p.until(),
                p.gone(),
                there,
                new ToDoView(
                        told.what(),
                        unit.map(VisitUnit::id).orElse(null),
                        unit.map(u -> names.get(u.id()).siteId()).orElse(0L),
                        unit.map(VisitUnit::name).orElse(""),
                        unit.map(VisitUnit::place).orElse(""),
                        stretch.map(s -> s.title()).orElse(""),
                        stretch.map(s -> s.steps().size()).orElse(0),
                        unit.map(u -> now.carry().getOrDefault(u.id(), List.of()))
                                .orElse(List.of()),
                        now.at().plus(Duration.ofMinutes(told.at())),
                        Optional.ofNullable(now.hands().get(person))
                                .map(Hand::there)
                                .orElse(null),
                        told.because()));
    }

    private static PlanOfVisit plan(KeptPlan kept, VisitRow row, Map<Long, VisitStore.NameRow> names, VisitNow now) {
        VisitPlan plan = kept.plan();
        var held = now.hands().values().stream()
                .flatMap(h -> held(h, kept, now, names).stream())
                .toList();
        var turns = Stream.concat(
                        held.stream(),
                        plan.turns().stream()
                                .filter(t -> names.containsKey(t.unit()))
                                .map(t -> turn(t, kept, names.get(t.unit()))))
                .toList();
        var finish = Stream.concat(
                        Stream.of(at(kept, plan.finish())), held.stream().map(TurnView::done))
                .max(Instant::compareTo)
                .orElseThrow();
        int due = row.latest().map(d -> VisitNow.minutes(kept.from(), d)).orElse(plan.finish());
        return new PlanOfVisit(
                turns,
                kept.from(),
                finish,
                new BoundView(at(kept, plan.bound()), plan.best(), plan.means() == VisitPlan.BoundBy.SEARCH),
                plan.walking(),
                plan.turns().stream().mapToInt(t -> t.done() - t.from()).sum(),
                new OddsView(
                        at(kept, kept.half()), at(kept, kept.nine()), kept.inTime(), called(kept.without(), names)),
                kept.helps(),
                kept.obstacles(),
                called(plan.left(), names),
                Backward.of(plan, due).stream()
                        .map(l -> new LatestView(l.who(), at(kept, l.at())))
                        .toList(),
                new KnownView(kept.learned(), kept.steps()));
    }

    private static List<String> called(List<Long> units, Map<Long, VisitStore.NameRow> names) {
        return units.stream()
                .filter(names::containsKey)
                .map(u -> names.get(u).name())
                .toList();
    }

    /** What somebody has in hand, until it usually ends. */
    private static Optional<TurnView> held(
            Hand hand, KeptPlan kept, VisitNow now, Map<Long, VisitStore.NameRow> names) {
        return now.brief().units().stream()
                .filter(u -> u.id() == hand.unitId())
                .findFirst()
                .map(u -> {
                    var stretch = u.stretches().get(0);
                    var from = hand.there().isBefore(kept.from()) ? kept.from() : hand.there();
                    var usual =
                            hand.there().plus(Duration.ofMinutes(stretch.hands().usual()));
                    var until = usual.isBefore(now.at()) ? now.at().plus(Duration.ofMinutes(1)) : usual;
                    var done = until.plus(Duration.ofMinutes(stretch.alone().usual()));
                    return new TurnView(
                            u.id(),
                            names.get(u.id()).siteId(),
                            u.name(),
                            u.place(),
                            stretch.title(),
                            hand.person(),
                            from,
                            until,
                            done,
                            0,
                            false);
                });
    }

    private static TurnView turn(Turn t, KeptPlan kept, VisitStore.NameRow named) {
        return new TurnView(
                t.unit(),
                named.siteId(),
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
