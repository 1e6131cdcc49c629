package app.knottag.core.visit;

import com.google.ortools.Loader;
import com.google.ortools.sat.CpModel;
import com.google.ortools.sat.CpSolver;
import com.google.ortools.sat.CpSolverStatus;
import com.google.ortools.sat.IntVar;
import com.google.ortools.sat.IntervalVar;
import com.google.ortools.sat.LinearExpr;
import com.google.ortools.sat.LinearExprBuilder;
import com.google.ortools.sat.Literal;
import com.google.ortools.util.Domain;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.IntPredicate;
import java.util.stream.IntStream;

/**
 * The visit as a model for the kept solver: proves before which minute nobody can be done, and finds an order on the way.
 * Where there are few stretches, walking is exact; else it counts each place that somebody comes to once, which is never
 * more than what is really walked, so the bound holds all the same.
 */
final class Exact {

    /** Up to so many stretches every walk between two is in the model. */
    private static final int FEW = 30;

    /** A plan that is so near its bound is not bettered any more. */
    private static final double GOOD_ENOUGH = 0.005;

    /** Where the machine is so slow that the counted work takes longer, the bound is what was proven by then. */
    private static final double LONGEST_SECONDS = 60;

    /**
     * What the solver says.
     *
     * @param bound minute before which nobody can be done
     * @param order units in the order of their stretches, empty when it found no plan
     * @param who who takes each stretch
     */
    record Answer(int bound, int[] order, int[] who) {}

    private static final boolean THERE = load();

    private final Works works;
    private final CpModel model = new CpModel();
    private final IntVar[] start;
    /** Who does which stretch; empty where somebody may not. */
    private final Literal[][] by;

    private final IntVar finish;

    private static boolean load() {
        try {
            Loader.loadNativeLibraries();
            return true;
        } catch (UnsatisfiedLinkError | RuntimeException e) {
            return false;
        }
    }

    /** Whether its library runs on this machine. */
    static boolean there() {
        return THERE;
    }

    private Exact(Works works, int horizon) {
        this.works = works;
        int n = works.size();
        start = new IntVar[n];
        for (int s = 0; s < n; s++) start[s] = model.newIntVarFromDomain(starts(s, horizon), "start" + s);
        by = new Literal[works.people()][n];
        finish = model.newIntVar(0, horizon, "finish");
        people(horizon);
        units(horizon);
        means();
        model.minimize(finish);
    }

    /**
     * Solves as far as its time goes.
     *
     * @param known a plan that holds, to begin with
     * @param effort its own count of work, not the clock, so that the answer is the same on every machine
     */
    static Optional<Answer> of(Works works, Dispatch known, double effort) {
        if (!THERE || works.size() == 0) return Optional.empty();
        return new Exact(works, known.finish).solve(known, effort);
    }

    private Optional<Answer> solve(Dispatch known, double effort) {
        for (int s = 0; s < start.length; s++) {
            model.addHint(start[s], known.start[s]);
            for (int p = 0; p < works.people(); p++) if (works.may[p][s]) model.addHint(by[p][s], known.who[s] == p);
        }
        var solver = new CpSolver();
        solver.getParameters()
                .setNumWorkers(1)
                .setRandomSeed(1)
                .setMaxDeterministicTime(effort)
                .setRelativeGapLimit(GOOD_ENOUGH)
                .setMaxTimeInSeconds(LONGEST_SECONDS);
        var status = solver.solve(model);
        int bound = (int) Math.ceil(solver.bestObjectiveBound() - 1e-6);
        if (status == CpSolverStatus.OPTIMAL || status == CpSolverStatus.FEASIBLE)
            return Optional.of(new Answer(bound, order(solver), who(solver)));
        if (status == CpSolverStatus.UNKNOWN)
            return Optional.of(new Answer(Math.max(0, bound), new int[0], new int[0]));
        return Optional.empty();
    }

    private int[] order(CpSolver solver) {
        return IntStream.range(0, start.length)
                .boxed()
                .sorted((a, b) -> {
                    int first = Long.compare(solver.value(start[a]), solver.value(start[b]));
                    return first != 0 ? first : Integer.compare(a, b);
                })
                .mapToInt(s -> works.unit[s])
                .toArray();
    }

    private int[] who(CpSolver solver) {
        var who = new int[start.length];
        for (int s = 0; s < who.length; s++)
            for (int p = 0; p < works.people(); p++) if (works.may[p][s] && solver.booleanValue(by[p][s])) who[s] = p;
        return who;
    }

    /** When a stretch may begin by the windows of its place. */
    private Domain starts(int s, int horizon) {
        return domain(works.unitOf(s).free(), works.hands[s], works.unitOf(s).ready(), horizon);
    }

    private static Domain domain(List<Window> windows, int minutes, int ready, int horizon) {
        var parts = new ArrayList<long[]>();
        for (var w : windows) {
            long from = Math.max(ready, w.from());
            long until = Math.min(horizon, w.until() - minutes);
            if (from <= until) parts.add(new long[] {from, until});
        }
        return Domain.fromIntervals(parts.toArray(long[][]::new));
    }

    private void people(int horizon) {
        int n = works.size();
        var mine = new ArrayList<List<IntervalVar>>();
        for (int p = 0; p < works.people(); p++) {
            var row = new ArrayList<IntervalVar>();
            for (int s = 0; s < n; s++) {
                if (!works.may[p][s]) continue;
                var does = model.newBoolVar("p" + p + "s" + s);
                by[p][s] = does;
                row.add(model.newOptionalFixedSizeIntervalVar(start[s], works.hands[s], does, "i" + p + "_" + s));
                var there = domain(works.brief.hands().get(p).there(), works.hands[s], 0, horizon);
                model.addLinearExpressionInDomain(start[s], there).onlyEnforceIf(does);
            }
            model.addNoOverlap(row);
            mine.add(row);
        }
        for (int s = 0; s < n; s++) {
            var any = new ArrayList<Literal>();
            for (int p = 0; p < works.people(); p++) if (works.may[p][s]) any.add(by[p][s]);
            model.addExactlyOne(any);
        }
        if (works.brief.means().walk() == 0 && works.brief.means().travel() == 0) return;
        if (n <= FEW) walks();
        places();
    }

    /** Between two stretches of one person at two places lies the walk. */
    private void walks() {
        for (int a = 0; a < works.size(); a++)
            for (int b = a + 1; b < works.size(); b++) {
                int walk = works.walk(works.place[works.unit[a]], works.place[works.unit[b]]);
                if (walk == 0) continue;
                var first = model.newBoolVar("o" + a + "_" + b);
                for (int p = 0; p < works.people(); p++) {
                    if (!works.may[p][a] || !works.may[p][b]) continue;
                    model.addGreaterOrEqual(start[b], LinearExpr.affine(start[a], 1, works.hands[a] + walk))
                            .onlyEnforceIf(new Literal[] {first, by[p][a], by[p][b]});
                    model.addGreaterOrEqual(start[a], LinearExpr.affine(start[b], 1, works.hands[b] + walk))
                            .onlyEnforceIf(new Literal[] {first.not(), by[p][a], by[p][b]});
                }
            }
    }

    /**
     * Somebody's work, a walk for each place but the first, and a drive for each site but the first, fit between the first
     * minute and the finish.
     */
    private void places() {
        int places = IntStream.of(works.place).max().orElse(-1) + 1;
        var means = works.brief.means();
        // Whoever comes to a site comes to a place there too: the drive is what that costs beyond a walk.
        int longest = works.areas().isEmpty() ? Integer.MAX_VALUE : means.walk();
        var least = IntStream.range(0, places)
                .map(k -> Math.min(longest, comingTo(k)))
                .toArray();
        int most = IntStream.of(least).max().orElse(0);
        int drive = Math.max(0, means.travel() - means.walk());
        for (int p = 0; p < works.people(); p++) {
            var sum = LinearExpr.newBuilder();
            for (int k = 0; k < places; k++) {
                int place = k;
                if (k != works.at[p]) comes(p, "v" + k, s -> works.place[works.unit[s]] == place, least[k], sum);
            }
            int sites = 0;
            for (String area : works.areas()) {
                comes(p, "site" + sites, s -> works.areaOf(s).equals(area), drive, sum);
                sites++;
            }
            for (int s = 0; s < works.size(); s++) if (works.may[p][s]) sum.addTerm(by[p][s], works.hands[s]);
            int offset = from(p) - (works.at[p] < 0 ? most : 0) - (sites > 0 ? drive : 0);
            model.addLessOrEqual(sum.add(offset), finish);
        }
    }

    /** Adds what it costs when a person does any of some stretches. */
    private void comes(int p, String name, IntPredicate which, int cost, LinearExprBuilder sum) {
        var mine = IntStream.range(0, works.size())
                .filter(s -> works.may[p][s] && which.test(s))
                .toArray();
        if (mine.length == 0) return;
        var comes = model.newBoolVar(name + "_" + p);
        for (int s : mine) model.addImplication(by[p][s], comes);
        sum.addTerm(comes, cost);
    }

    /** The least that anybody walks who comes to a place from another. */
    private int comingTo(int place) {
        return IntStream.range(0, works.walks.length)
                .filter(from -> from != place)
                .map(from -> works.walks[from][place])
                .min()
                .orElse(0);
    }

    private int from(int person) {
        return works.brief.hands().get(person).there().stream()
                .mapToInt(Window::from)
                .min()
                .orElse(0);
    }

    private void units(int horizon) {
        var spans = new ArrayList<IntervalVar>();
        for (int u = 0; u + 1 < works.first.length; u++) {
            int first = works.first[u];
            int last = works.first[u + 1] - 1;
            if (first > last) continue;
            for (int s = first; s < last; s++) model.addGreaterOrEqual(start[s + 1], end(s));
            model.addGreaterOrEqual(finish, end(last));
            for (int other : works.after[u])
                if (works.first[other] < works.first[other + 1])
                    model.addGreaterOrEqual(start[first], end(works.first[other + 1] - 1));
            if (!works.brief.units().get(u).bench()) continue;
            var size = model.newIntVar(0, horizon, "size" + u);
            var from = works.onBench[u] ? LinearExpr.constant(0) : LinearExpr.affine(start[first], 1, 0);
            spans.add(model.newIntervalVar(from, size, end(last), "span" + u));
        }
        int bench = works.bench();
        if (spans.size() > bench) {
            var all = model.addCumulative(bench);
            spans.forEach(i -> all.addDemand(i, 1));
        }
    }

    private LinearExpr end(int s) {
        return LinearExpr.affine(start[s], 1, works.hands[s] + works.alone[s]);
    }

    private void means() {
        var units = works.brief.units();
        // What runs already runs, even where it is more than the line carries.
        long running = units.stream().mapToLong(VisitUnit::running).sum();
        var line = model.addCumulative(Math.max((long) (works.brief.means().megabits() * 1_000), running));
        for (int u = 0; u < units.size(); u++)
            if (units.get(u).running() > 0)
                line.addDemand(
                        model.newFixedInterval(0, units.get(u).ready(), "r" + u),
                        units.get(u).running());
        for (int s = 0; s < works.size(); s++)
            if (works.rate[s] > 0)
                line.addDemand(
                        model.newFixedSizeIntervalVar(
                                LinearExpr.affine(start[s], 1, works.hands[s]), works.alone[s], "d" + s),
                        works.rate[s]);
        works.brief.means().tools().forEach((tool, count) -> {
            var held = model.addCumulative(count);
            for (int s = 0; s < works.size(); s++)
                if (works.unitOf(s).tool().equals(tool))
                    held.addDemand(model.newFixedSizeIntervalVar(start[s], works.hands[s], "t" + s), 1);
        });
    }
}
