package app.knottag.core.practice;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.reading.ReadingException;
import app.knottag.core.visit.Brief;
import app.knottag.core.visit.VisitPlanner;
import app.knottag.core.visit.VisitUnit;
import app.knottag.core.visit.Window;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.stream.IntStream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

/** Things to plan, and what is said to be the best of them. */
class PlansTest {

    private static final int EACH = Integer.getInteger("knot.plans", 6);

    /** Fills in what is right by the lines of the best plan, which is all that a player is shown. */
    private static List<String> fromLines(PlanTask task, List<String> best) {
        return task.blanks().stream()
                .map(b -> best.stream()
                        .filter(l -> l.startsWith(b.label() + (task instanceof LayOut ? " " : ": ")))
                        .map(l -> l.substring(b.label().length() + 1).strip().split(": room")[0])
                        .findFirst()
                        .orElseThrow())
                .toList();
    }

    /** Goes after the lines of the best plan, move by move. */
    private static List<String> fromMoves(PlanTask task, List<String> best) {
        var moves = new ArrayList<String>();
        for (String line : best)
            moves.add(task.stand(moves).next().stream()
                    .filter(m -> task instanceof Day
                            ? line.contains(", " + m.label())
                            : m.label().equals(line))
                    .map(PlanMove::id)
                    .findFirst()
                    .orElseThrow());
        assertThat(task.stand(moves).next()).isEmpty();
        return moves;
    }

    private static List<String> anything(PlanTask task, Random random) {
        if (!task.blanks().isEmpty())
            return task.blanks().stream()
                    .map(b -> b.choices().isEmpty()
                            ? Ipv4Address.parse("10.0.0." + random.nextInt(256)).toString()
                            : b.choices().get(random.nextInt(b.choices().size())))
                    .toList();
        var moves = new ArrayList<String>();
        while (true) {
            var next = task.stand(moves).next();
            if (next.isEmpty()) return moves;
            moves.add(next.get(random.nextInt(next.size())).id());
        }
    }

    @DisplayName("Whoever does what the best plan says gets all of it, and nobody gets more by trying anything")
    @ParameterizedTest
    @EnumSource(PlanDrill.class)
    void theBestIsReachedAndNeverPassed(PlanDrill drill) {
        var random = new Random(3);
        int proven = 0;
        for (int n = 0; n < EACH; n++) {
            var task = Plans.of(drill, n);
            PlanJudged first = task.judge(anything(task, random));
            if (first.proven()) proven++;
            var best = task.blanks().isEmpty() ? fromMoves(task, first.best()) : fromLines(task, first.best());
            assertThat(task.judge(best).score())
                    .as(drill + " " + n + " " + best)
                    .isEqualTo(1);
            for (int tries = 0; tries < 2; tries++)
                assertThat(task.judge(anything(task, random)).score())
                        .as(drill + " " + n)
                        .isBetween(0.0, 1.0);
            assertThat(Plans.of(drill, n)).isEqualTo(task);
        }
        assertThat(proven).as("of which it is known that nothing is better").isGreaterThan(EACH * 3 / 4);
    }

    @DisplayName("No way to let the rows begin has more room, by trying every address for each")
    @Test
    void everyLayOut() {
        int tried = 0;
        for (int n = 0; tried < 4; n++) {
            var task = (LayOut) Plans.of(PlanDrill.LAY_OUT, n);
            if (task.rows().size() > 3) continue;
            tried++;
            var free = IntStream.range(1, 255)
                    .mapToObj(h -> task.segment().prefix().network().plus(h))
                    .filter(a -> task.segment().fixable(a) && !task.held().containsKey(a))
                    .toList();
            int most = 0;
            for (var a : free) for (var b : free) for (var c : free) most = Math.max(most, room(task, free, a, b, c));
            assertThat(task.judge(List.of("x", "x", "x")).says())
                    .endsWith("The best lay-out has room for " + most + ".");
        }
    }

    private static int room(LayOut task, List<Ipv4Address> free, Ipv4Address... starts) {
        int sum = 0;
        for (int r = 0; r < starts.length; r++) {
            int row = r, n = 0;
            while (n < task.rows().get(r).later()) {
                var at = starts[r].plus(n);
                boolean other = IntStream.range(0, starts.length).anyMatch(o -> o != row && starts[o].equals(at));
                if (other || !free.contains(at)) break;
                n++;
            }
            sum += n < task.rows().get(r).now() ? 0 : n;
        }
        return sum;
    }

    @DisplayName("No order is done earlier, by trying every order of three devices")
    @Test
    void everyDay() {
        for (int n = 0; n < 6; n++) {
            var day = (Day) Plans.of(n % 2 == 0 ? PlanDrill.RESTARTS : PlanDrill.MORNING, n);
            var brief = new Brief(
                    day.brief().units().subList(0, 3),
                    day.brief().hands(),
                    day.brief().means(),
                    day.brief().due());
            assertThat(VisitPlanner.plan(brief).plan().finish()).isEqualTo(earliest(brief, new ArrayList<>()));
        }
    }

    private static int earliest(Brief brief, List<Long> order) {
        int best = Integer.MAX_VALUE;
        boolean more = false;
        for (var unit : brief.units()) {
            if (Collections.frequency(order, unit.id()) == unit.stretches().size()) continue;
            more = true;
            order.add(unit.id());
            best = Math.min(best, earliest(brief, order));
            order.remove(order.size() - 1);
        }
        var plan = more ? null : VisitPlanner.following(brief, order);
        return plan == null || !plan.left().isEmpty() ? best : plan.finish();
    }

    @DisplayName("What a slip leads to is said in words of the job")
    @Test
    void slips() {
        var renumber = (Renumber) Plans.of(PlanDrill.RENUMBER, 0);
        var happened = new HashMap<String, String>();
        for (var move : renumber.stand(List.of()).next())
            happened.put(
                    move.id(), renumber.stand(List.of(move.id())).happened().get(0));
        assertThat(happened.get("router")).contains("now, where").contains("stand");
        assertThat(happened.values()).anyMatch(h -> h.contains("Two with one address"));
        assertThat(happened.values()).anyMatch(h -> h.contains("it may give"));
        assertThatThrownBy(() -> renumber.judge(List.of("router")))
                .isInstanceOf(ReadingException.class)
                .hasMessageContaining("Not everybody has arrived");
        for (String wrong : List.of("move-9", "move-", "park-x", "fly"))
            assertThatThrownBy(() -> renumber.stand(List.of(wrong))).isInstanceOf(ReadingException.class);
        var morning = (Day) Plans.of(PlanDrill.MORNING, 0);
        var brief = morning.brief();
        var shut = brief.units().stream()
                .map(u -> new VisitUnit(
                        u.id(),
                        u.name(),
                        u.place(),
                        u.stretches(),
                        0,
                        List.of(new Window(0, 1)),
                        u.after(),
                        false,
                        "",
                        false,
                        0))
                .toList();
        var never = new Day(new Brief(shut, brief.hands(), brief.means(), brief.due()), morning.begins());
        assertThat(never.stand(List.of("0")).happened())
                .containsExactly("Payment terminal does not get done: its place is not free any more.");
        assertThat(never.stand(List.of()).next()).allMatch(m -> m.note().equals("not today any more"));
        var outlet = new OutletPlan(150, 50, 1_800, 15);
        Map.of(
                        List.of("30 s", "3", "20 s", "30 s", "3 restarts"), "cuts every start",
                        List.of("20 s", "3", "20 s", "3 min", "3 restarts"), "drops out",
                        List.of("30 s", "3", "5 s", "4 min", "3 restarts"), "has not forgotten",
                        List.of("30 s", "3", "20 s", "4 min", "1 restart"), "may need a second one")
                .forEach((answer, says) -> {
                    var judged = outlet.judge(answer);
                    assertThat(judged.remarks()).as(says).anyMatch(r -> r.contains(says));
                    assertThat(judged.score()).isZero();
                });
        assertThat(outlet.judge(Arrays.asList("30 s", "3", "20 s", "4 min", "never"))
                        .score())
                .isBetween(0.1, 0.6);
        assertThatThrownBy(() -> outlet.judge(List.of("31 s", "3", "20 s", "4 min", "3 restarts")))
                .hasMessageContaining("“It looks every” is one of");
    }
}
