package app.knottag.core.plan;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.plan.Conflict.Code;
import app.knottag.core.plan.Conflict.Severity;
import app.knottag.core.plan.SitePlan.PlannedEndpoint;
import app.knottag.core.plan.SitePlan.PlannedSeries;
import app.knottag.core.series.Series.Counts;
import app.knottag.core.series.SeriesFit;
import app.knottag.core.time.SiteClock;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeSet;
import java.util.stream.Collectors;

/** What is wrong, or will be, with the numbered runs of a site. */
final class SeriesCheck {

    private static final int SOON_DAYS = 365;

    private SeriesCheck() {}

    static List<Conflict> conflicts(SitePlan plan, Occupied occupied, SiteClock clock) {
        var found = new ArrayList<Conflict>();
        var members = members(plan);
        for (var s : plan.series()) {
            var own = members.getOrDefault(s.id(), List.of());
            full(plan, occupied, s, fit(plan, s, members, clock.today(), 0), clock)
                    .ifPresent(found::add);
            for (var e : own) notByNumber(plan, occupied, e).ifPresent(found::add);
            gap(s, own).ifPresent(found::add);
        }
        return found;
    }

    /** Members by series; a run that follows another has the same. */
    static Map<Long, List<PlannedEndpoint>> members(SitePlan plan) {
        var members = new HashMap<>(plan.endpoints().stream()
                .filter(e -> e.seriesId().isPresent() && e.number().isPresent())
                .collect(Collectors.groupingBy(e -> e.seriesId().get())));
        for (var s : plan.series()) s.follows().map(members::get).ifPresent(followed -> members.put(s.id(), followed));
        return members;
    }

    /** How a run of a site fits; lastPort for runs of gear ports. */
    static SeriesFit fit(
            SitePlan plan, PlannedSeries s, Map<Long, List<PlannedEndpoint>> members, LocalDate today, int lastPort) {
        var segment = s.segmentId()
                .flatMap(
                        id -> plan.segments().stream().filter(g -> g.id() == id).findFirst())
                .map(SitePlan.PlannedSegment::segment);
        var others = plan.series().stream()
                .filter(o -> o.id() != s.id() && o.segmentId().equals(s.segmentId()))
                .map(o -> new SeriesFit.Neighbour(
                        o.series(),
                        members.getOrDefault(o.id(), List.of()).stream()
                                .mapToInt(e -> e.number().get())
                                .max()
                                .orElse(0)))
                .toList();
        var numbers = members.getOrDefault(s.id(), List.of()).stream()
                .map(e -> e.number().get())
                .toList();
        return SeriesFit.of(
                s.series(), new SeriesFit.SeriesBase(segment, lastPort, others), numbers, s.perYear(), today);
    }

    private static Optional<Conflict> full(
            SitePlan plan, Occupied occupied, PlannedSeries s, SeriesFit fit, SiteClock clock) {
        if (s.series().counts() == Counts.GEAR_PORT) return Optional.empty();
        boolean full = fit.next() == null;
        boolean soon =
                fit.fullOn() != null && !fit.fullOn().isAfter(clock.today().plusDays(SOON_DAYS));
        if (!full && !soon) return Optional.empty();
        var conflict = Conflict.of(
                full ? Severity.RISK : Severity.UNTIDY,
                Code.SERIES_FULL,
                "“" + s.series().name() + "” "
                        + (full ? "is full at number " + fit.room() : "will be full on " + clock.day(fit.fullOn()))
                        + ". "
                        + fit.why(),
                newBlock(plan, occupied, s));
        return Optional.of(s.segmentId().map(conflict::in).orElse(conflict));
    }

    private static String newBlock(SitePlan plan, Occupied occupied, PlannedSeries s) {
        return s.segmentId()
                .flatMap(
                        id -> plan.segments().stream().filter(g -> g.id() == id).findFirst())
                .flatMap(g -> Growth.newBlock(g.segment(), occupied.held()))
                .map(block -> "A new block has room from " + block.from() + ": " + block.count() + " in a row.")
                .orElse("Make room before: shorten the pool, or take a wider prefix.");
    }

    private static Optional<Conflict> notByNumber(SitePlan plan, Occupied occupied, PlannedEndpoint e) {
        Optional<Ipv4Address> own = SiteCheck.ownAddress(plan, e);
        if (own.isEmpty() || e.address().isEmpty() || own.equals(e.address())) return Optional.empty();
        String holder =
                occupied.held().getOrDefault(own.get(), occupied.doubtful().getOrDefault(own.get(), ""));
        boolean free = holder.isEmpty();
        return Optional.of(Conflict.of(
                        Severity.UNTIDY,
                        Code.NOT_BY_NUMBER,
                        e.name() + ": number " + e.number().get() + " stands for " + own.get() + ", it has "
                                + e.address().get() + ".",
                        free
                                ? "Move it to " + own.get() + " when you are there."
                                : holder + " holds " + own.get() + "; leave it, or swap them.")
                .on(e.id())
                .in(e.segmentId())
                .moving(e.id(), free ? own : Optional.empty()));
    }

    /** Numbers in a program run without a gap, so that a missing one shows. */
    private static Optional<Conflict> gap(PlannedSeries s, List<PlannedEndpoint> own) {
        if (s.series().counts() != Counts.NUMBER || own.isEmpty()) return Optional.empty();
        var numbers = new TreeSet<>(own.stream().map(e -> e.number().get()).toList());
        for (int n = 1; n < numbers.last(); n++)
            if (!numbers.contains(n))
                return Optional.of(Conflict.of(
                        Severity.UNTIDY,
                        Code.NUMBER_GAP,
                        "“" + s.series().name() + "”: number " + n + " is missing before " + numbers.higher(n) + ".",
                        "Look at the first one after the gap: is its number right?"));
        return Optional.empty();
    }
}
