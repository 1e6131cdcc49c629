package app.knottag.core.visit;

import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * Says for one pair of hands what to do now: the own turn by the plan when it can be begun, else whatever of the others' can
 * be begun and nobody is nearer to, else to wait. Two people are never given the same.
 */
public final class Steer {

    /** More turns than any plan has. */
    private static final int PLENTY = 1_000_000;

    private final Brief brief;
    private final Map<Long, Map<Integer, Planned>> planned = new HashMap<>();

    private record Planned(int rank, int who) {}

    private record Candidate(VisitUnit unit, int stretch, int ready, Planned planned) {}

    /** @param plan the plan that people follow */
    public Steer(Brief brief, VisitPlan plan) {
        this.brief = brief;
        for (int i = 0; i < plan.turns().size(); i++) {
            var t = plan.turns().get(i);
            planned.computeIfAbsent(t.unit(), u -> new HashMap<>()).put(plan.after(t), new Planned(i, t.who()));
        }
    }

    /**
     * Returns what each person is to do at this moment, by their index. What is given to one is not given to another: those
     * whose own turn it is come first, in the order of the plan; then those who wait, for what is ready first.
     */
    public List<DoNow> all(Standing standing) {
        var told = new ArrayList<DoNow>();
        var open = new ArrayList<Integer>();
        for (int p = 0; p < brief.hands().size(); p++) {
            told.add(now(standing, p));
            open.add(p);
        }
        var moment = standing;
        while (true) {
            for (int p : open) told.set(p, now(moment, p));
            open.removeIf(p -> told.get(p).unit() == 0 || told.get(p).what() == DoNow.What.GO_ON);
            if (open.isEmpty()) return told;
            Integer next = Collections.min(
                    open,
                    Comparator.comparing((Integer p) -> told.get(p).what() != DoNow.What.DO)
                            .thenComparingInt(p -> told.get(p).at())
                            .thenComparingInt(p -> rank(told.get(p), p)));
            var given = told.get(next);
            moment = moment.telling(next, given.unit(), given.stretch(), given.at());
            open.remove(next);
        }
    }

    /** Own turns before those of others. */
    private int rank(DoNow told, int person) {
        var unit = brief.units().get(brief.indexOf(told.unit()));
        var plan = plannedFor(told.unit(), unit.stretches().size() - 1 - told.stretch());
        return plan.who == person ? Math.min(plan.rank, PLENTY) : PLENTY + Math.min(plan.rank, PLENTY);
    }

    /** Returns what a person is to do at this moment. */
    public DoNow now(Standing standing, int person) {
        var mine = brief.units().stream()
                .filter(u -> standing.units().containsKey(u.id()))
                .filter(u -> {
                    var by = standing.units().get(u.id()).by();
                    return by.isPresent() && by.getAsInt() == person;
                })
                .findFirst();
        if (mine.isPresent())
            return new DoNow(
                    DoNow.What.GO_ON,
                    mine.get().id(),
                    standing.units().get(mine.get().id()).next(),
                    standing.now(),
                    "You are at it.");
        if (standing.people().get(person).gone()) return nothing("You have left.");
        var open = candidates(standing, person);
        if (open.isEmpty()) return later(standing, person);
        return open.stream()
                .filter(c -> can(standing, person, c) && !tooFar(standing, person, c, open))
                .min(order(person))
                .map(c -> told(standing, person, c, open))
                .orElseGet(() -> waiting(standing, person, open));
    }

    /** Nothing can be begun by this person, and perhaps nothing ever again. */
    private DoNow later(Standing standing, int person) {
        var left = brief.units().stream()
                .filter(u -> standing.of(u)
                        .filter(p -> u.stretches().stream()
                                .skip(p.next() + (inHand(standing, p) ? 1 : 0))
                                .anyMatch(brief.hands().get(person)::may))
                        .isPresent())
                .toList();
        if (left.isEmpty()) return nothing("Nothing is left that you may do.");
        return new DoNow(DoNow.What.WAIT, 0, 0, standing.now(), new Because(brief, standing).nothingYet(left));
    }

    /** Whether somebody has it really in hand, and is not only told of it. */
    private static boolean inHand(Standing standing, Standing.Progress p) {
        return p.by().isPresent() && !standing.people().get(p.by().getAsInt()).told();
    }

    private static DoNow nothing(String because) {
        return new DoNow(DoNow.What.DONE, 0, 0, 0, because);
    }

    private List<Candidate> candidates(Standing standing, int person) {
        var found = new ArrayList<Candidate>();
        for (var u : brief.units()) {
            if (standing.of(u).isEmpty()) continue;
            var p = standing.of(u).get();
            if (p.by().isPresent()
                    || !brief.hands().get(person).may(u.stretches().get(p.next()))) continue;
            if (u.after().stream().anyMatch(standing.units()::containsKey)) continue;
            found.add(new Candidate(
                    u, p.next(), p.ready(), plannedFor(u.id(), u.stretches().size() - 1 - p.next())));
        }
        return found;
    }

    /** Turns are known by how many of the same device come after: that stays when the first of them are done. */
    private Planned plannedFor(long unit, int after) {
        return Optional.ofNullable(planned.getOrDefault(unit, Map.of()).get(after))
                .orElse(new Planned(Integer.MAX_VALUE, Dispatch.ANYBODY));
    }

    /** The own turns come first; of those in the order of the plan. */
    private static Comparator<Candidate> order(int person) {
        return Comparator.comparingInt((Candidate c) -> c.planned.who == person ? 0 : 1)
                .thenComparingInt(c -> c.planned.rank)
                .thenComparingLong(c -> c.unit.id());
    }

    /**
     * Nobody drives to another site for a turn of somebody who is there, nor while an own turn here, which comes before by the
     * plan, is begun before they were back.
     */
    private boolean tooFar(Standing standing, int person, Candidate c, List<Candidate> open) {
        var means = brief.means();
        String here = standing.people().get(person).place();
        String there = means.area(c.unit.place());
        if (here.isEmpty() || means.area(here).equals(there)) return false;
        if (c.planned.who != person && c.planned.who != Dispatch.ANYBODY) {
            var owner = standing.people().get(c.planned.who);
            if (!owner.gone()
                    && means.area(owner.place()).equals(there)
                    && earliest(standing, c.planned.who, c, standing.now()) >= 0) return true;
        }
        return open.stream()
                .filter(o -> o.planned.who == person && means.area(here).equals(means.area(o.unit.place())))
                .filter(o -> c.planned.who != person || o.planned.rank < c.planned.rank)
                .mapToInt(o -> earliest(standing, person, o, standing.now()))
                .anyMatch(at -> at >= 0 && at - standing.now() <= 2 * means.travel());
    }

    private boolean can(Standing standing, int person, Candidate c) {
        return earliest(standing, person, c, standing.now()) == standing.now();
    }

    /** First minute from the given one at which it can be begun, or -1 when what it needs is taken now or no hours fit. */
    private int earliest(Standing standing, int person, Candidate c, int from) {
        if (lack(standing, c).isPresent()) return -1;
        int hands = c.unit.stretches().get(c.stretch).hands().usual();
        int at = Math.max(from, c.ready);
        while (at >= 0) {
            int there = Window.earliest(brief.hands().get(person).there(), at, hands);
            if (there < 0) return -1;
            int open = Window.earliest(c.unit.free(), there, hands);
            if (open == there) return open;
            at = open;
        }
        return -1;
    }

    /** What it lacks of bench, tool or line as things stand. */
    private Optional<Because.Lack> lack(Standing standing, Candidate c) {
        var unit = c.unit;
        boolean stands = !unit.bench() || unit.begun() || c.stretch > 0;
        if (!stands && benchTaken(standing) >= brief.means().bench()) return Optional.of(Because.Lack.BENCH);
        if (!unit.tool().isEmpty()
                && held(standing, unit.tool()) >= brief.means().of(unit.tool())) return Optional.of(Because.Lack.TOOL);
        int rate = rate(unit, c.stretch);
        return rate == 0 || taken(standing) + rate <= brief.means().megabits() * 1_000
                ? Optional.empty()
                : Optional.of(Because.Lack.LINE);
    }

    private long benchTaken(Standing standing) {
        return brief.units().stream().filter(standing::onBench).count();
    }

    private long held(Standing standing, String tool) {
        return brief.units().stream()
                .filter(u -> u.tool().equals(tool) && standing.units().containsKey(u.id()))
                .filter(u -> standing.units().get(u.id()).inHand(standing.now()))
                .count();
    }

    /** What runs over the line now: downloads that are not over yet, and those that somebody is about to begin. */
    private long taken(Standing standing) {
        return brief.units().stream()
                .mapToLong(u -> standing.of(u).map(p -> running(standing, u, p)).orElse(0))
                .sum();
    }

    private int running(Standing standing, VisitUnit unit, Standing.Progress p) {
        if (p.inHand(standing.now())) return rate(unit, p.next());
        if (p.ready() <= standing.now()) return 0;
        return p.next() > 0 ? rate(unit, p.next() - 1) : unit.running();
    }

    private int rate(VisitUnit unit, int stretch) {
        return Downloads.kilobits(unit.stretches().get(stretch), brief.means().megabits());
    }

    private DoNow told(Standing standing, int person, Candidate c, List<Candidate> open) {
        return new DoNow(DoNow.What.DO, c.unit.id(), c.stretch, standing.now(), because(standing, person, c, open));
    }

    private String because(Standing standing, int person, Candidate c, List<Candidate> open) {
        if (open.size() == 1) return onlyOne(standing, c);
        if (c.planned.who != person)
            return new Because(brief, standing)
                    .another(c.planned.who, open.stream().anyMatch(o -> o.planned.who == person));
        var first = open.stream()
                .filter(o -> o.planned.who == person)
                .min(order(person))
                .orElse(c);
        if (first != c)
            return first.unit.name() + " would come first by the plan, but "
                    + (first.ready > standing.now() ? "still runs by itself." : "cannot be begun yet.");
        int alone = c.unit.stretches().get(c.stretch).alone().usual();
        return alone > 0
                ? "It comes first by the plan: then it runs by itself for " + alone + " min."
                : "It comes first by the plan.";
    }

    private String onlyOne(Standing standing, Candidate c) {
        if (standing.units().size() == 1) return "It is the only one left.";
        boolean first = brief.units().stream()
                .filter(u -> standing.units().containsKey(u.id()))
                .anyMatch(u -> u.after().contains(c.unit.id()));
        return first ? "Everything else waits for it." : "It is the only one left for you now.";
    }

    private DoNow waiting(Standing standing, int person, List<Candidate> open) {
        record Later(int at, Candidate c) {}
        var why = new Because(brief, standing);
        boolean allRun = open.stream().allMatch(c -> c.ready > standing.now());
        return open.stream()
                .map(c -> new Later(earliest(standing, person, c, standing.now() + 1), c))
                .filter(l -> l.at >= 0 && !tooFar(standing, person, l.c, open))
                .min(Comparator.comparingInt(Later::at))
                .map(l -> new DoNow(
                        DoNow.What.WAIT,
                        l.c.unit.id(),
                        l.c.stretch,
                        l.at,
                        l.c.ready > standing.now()
                                ? why.runs(l.c.unit, allRun)
                                : why.hours(person, l.c.unit, l.c.stretch, l.at)))
                .orElseGet(() -> new DoNow(DoNow.What.WAIT, 0, 0, standing.now(), never(standing, person, open)));
    }

    /** Nothing that is open can be begun as things stand: what stands against the first of them. */
    private String never(Standing standing, int person, List<Candidate> open) {
        var why = new Because(brief, standing);
        var c = open.stream().min(order(person)).orElseThrow();
        return lack(standing, c)
                .map(l -> why.lacks(c.unit, l))
                .orElseGet(() -> earliest(standing, person, c, standing.now()) >= 0
                        ? why.there(c.unit, c.planned.who)
                        : why.noHours(c.unit));
    }
}
