package app.knottag.core.visit;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.OptionalInt;
import java.util.Random;
import java.util.Set;
import java.util.stream.IntStream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class SteerTest {

    private static final Stretch BEGIN = Stretch.of("begin", Minutes.exactly(10), Minutes.exactly(60));
    private static final Stretch FINISH = Stretch.of("finish", Minutes.exactly(10), Minutes.NONE);

    private static Brief terminals(int count, int people) {
        return new Brief(
                IntStream.rangeClosed(1, count)
                        .mapToObj(u -> VisitUnit.of(u, "Till " + u, "counter", List.of(BEGIN, FINISH)))
                        .toList(),
                IntStream.rangeClosed(1, people)
                        .mapToObj(p -> Hands.of(p == 1 ? "Imke" : "Joost"))
                        .toList(),
                Means.ENOUGH,
                OptionalInt.empty());
    }

    private static Standing at(int now, Map<Long, Standing.Progress> units, int people) {
        return new Standing(
                now,
                units,
                IntStream.range(0, people)
                        .mapToObj(p -> new Standing.Person("counter", false))
                        .toList());
    }

    private static Standing.Progress progress(int next, int ready, int by) {
        return new Standing.Progress(next, ready, by < 0 ? OptionalInt.empty() : OptionalInt.of(by));
    }

    @Test
    void theOneLineIsTrueAtEveryMoment() {
        var brief = terminals(2, 1);
        var steer = new Steer(brief, VisitPlanner.plan(brief).plan());
        var first = steer.now(Standing.beginning(brief), 0);
        assertThat(first.what()).isEqualTo(DoNow.What.DO);
        assertThat(first.because()).isEqualTo("It comes first by the plan: then it runs by itself for 60 min.");
        long begun = first.unit();
        long other = 3 - begun;
        assertThat(steer.now(at(4, Map.of(begun, progress(0, 0, 0), other, progress(0, 0, -1)), 1), 0))
                .isEqualTo(new DoNow(DoNow.What.GO_ON, begun, 0, 4, "You are at it."));
        assertThat(steer.now(at(10, Map.of(begun, progress(1, 70, -1), other, progress(0, 0, -1)), 1), 0)
                        .unit())
                .isEqualTo(other);
        assertThat(steer.now(at(20, Map.of(begun, progress(1, 70, -1), other, progress(1, 80, -1)), 1), 0))
                .isEqualTo(new DoNow(
                        DoNow.What.WAIT,
                        begun,
                        1,
                        70,
                        "Everything runs by itself. Till " + begun + " is the next to look at."));
        assertThat(steer.now(at(90, Map.of(), 1), 0).what()).isEqualTo(DoNow.What.DONE);
    }

    @DisplayName("Why somebody takes over the turn of another is true of that other")
    @ParameterizedTest(name = "{0}: {4}")
    @CsvSource(delimiter = '|', textBlock = """
            told of another one   | -1 | 0  | 3 | is to do Till 2 first
            at another one        | 1  | 0  | 3 | has Till 2 in hand
            comes in five minutes | -1 | 80 | 2 | is not there now""")
    void nobodyWaitsBesideWhatCouldBeDoneForAnother(String name, int secondBy, int joostFrom, long given, String why) {
        var joost = new Hands("Joost", Set.of(), List.of(new Window(joostFrom, Window.HORIZON)), "");
        var three = terminals(3, 2);
        var brief = new Brief(three.units(), List.of(three.hands().get(0), joost), three.means(), OptionalInt.empty());
        var plan = new VisitPlan(
                List.of(turn(1, 0, 90), turn(2, 1, 70), turn(3, 1, 85)),
                100,
                0,
                100,
                VisitPlan.BoundBy.SUMS,
                List.of());
        var units = Map.of(1L, progress(1, 90, -1), 2L, progress(1, 70, secondBy), 3L, progress(1, 70, -1));
        var told = new Steer(brief, plan).all(at(75, units, 2)).get(0);
        assertThat(told.unit()).isEqualTo(given);
        assertThat(told.because())
                .isEqualTo("Your own next turn cannot be begun yet, and this one waits for Joost, who " + why + ".");
    }

    private static Turn turn(long unit, int who, int from) {
        return new Turn(unit, 1, who, from, from + 10, from + 10, 0);
    }

    @DisplayName(
            "Two who wait do not both wait for the same: one is called when the first is ready, the other for the second")
    @ParameterizedTest(name = "{0} devices run: {1}, {2}")
    @CsvSource(delimiter = '|', textBlock = """
            3 | WAIT 1 70 Everything runs by itself. Till 1 is the next to look at. | \
            WAIT 2 80 Till 2 still runs by itself, and is the next for you.
            1 | WAIT 1 70 Everything runs by itself. Till 1 is the next to look at. | WAIT 0 60 What is left is for Imke.""")
    void twoWait(int devices, String first, String second) {
        var brief = terminals(devices, 2);
        var steer = new Steer(
                brief, new VisitPlan(List.of(turn(1, 0, 70)), 100, 0, 100, VisitPlan.BoundBy.SUMS, List.of()));
        var units = new HashMap<Long, Standing.Progress>();
        for (int u = 1; u <= devices; u++) units.put((long) u, progress(1, 60 + 10 * u, -1));
        assertThat(steer.all(at(60, units, 2)))
                .extracting(d -> d.what() + " " + d.unit() + " " + d.at() + " " + d.because())
                .containsExactly(first, second);
    }

    @DisplayName("A turn that nobody took in its time moves the plan; one that is three minutes late does not")
    @ParameterizedTest(name = "minute {0}: {1}")
    @CsvSource({"0, false", "22, false", "23, false", "24, true"})
    void behind(int minute, boolean behind) {
        var plan = new VisitPlan(List.of(turn(1, 0, 20)), 30, 0, 30, VisitPlan.BoundBy.SUMS, List.of());
        assertThat(plan.behind(minute)).isEqualTo(behind);
    }

    @DisplayName(
            "Whoever waits for a device holds nothing yet: the lead that it will need is free for another until then")
    @Test
    void waitingTakesNothing() {
        var lead = List.of(FINISH);
        var units = List.of(
                new VisitUnit(1, "Till 1", "desk", lead, 70, Window.ALWAYS, Set.of(), false, "lead", true, 0),
                new VisitUnit(2, "Till 2", "desk", lead, 80, Window.ALWAYS, Set.of(), false, "lead", true, 0));
        var brief = new Brief(
                units,
                List.of(Hands.of("Imke"), Hands.of("Joost")),
                new Means(9, 0, 0, Map.of("lead", 1)),
                OptionalInt.empty());
        var steer = new Steer(brief, new VisitPlan(List.of(), 0, 0, 0, VisitPlan.BoundBy.SUMS, List.of()));
        assertThat(steer.all(at(60, Map.of(1L, progress(0, 70, -1), 2L, progress(0, 80, -1)), 2)))
                .extracting(d -> d.what() + " " + d.unit() + " " + d.at())
                .containsExactly("WAIT 1 70", "WAIT 2 80");
    }

    @DisplayName("Why nothing can be begun names what stands against it")
    @Test
    void whyNothing() {
        var open = Stretch.of("begin", Minutes.exactly(10), Minutes.exactly(60));
        var fetches = new Stretch(List.of("a"), "fetch", Minutes.exactly(5), Minutes.exactly(60), "", 4_500);
        var lock = new Stretch(List.of("a"), "connect the mains", Minutes.exactly(5), Minutes.NONE, "electrician", 0);
        var bench = new VisitUnit(1, "Till 1", "bench", List.of(open), 0, Window.ALWAYS, Set.of(), true, "", false, 0);
        var stands = new VisitUnit(2, "Till 2", "bench", List.of(open), 0, Window.ALWAYS, Set.of(), true, "", true, 0);
        var lead =
                new VisitUnit(3, "Till 3", "desk", List.of(open), 0, Window.ALWAYS, Set.of(), false, "lead", false, 0);
        var held =
                new VisitUnit(4, "Till 4", "desk", List.of(open), 0, Window.ALWAYS, Set.of(), false, "lead", false, 0);
        var line = VisitUnit.of(5, "Kiosk 1", "hall", List.of(fetches));
        var busy = VisitUnit.of(6, "Kiosk 2", "hall", List.of(fetches));
        var door = VisitUnit.of(7, "Front door", "hall", List.of(lock, open));
        var room = new VisitUnit(
                8, "Clock", "hall", List.of(open), 0, List.of(new Window(40, 60)), Set.of(), false, "", false, 0);
        record Case(List<VisitUnit> units, long heldByJoost, int now, String because) {}
        var means = new Means(1, 10, 0, Map.of("lead", 1));
        for (var c : List.of(
                new Case(
                        List.of(bench, stands),
                        2,
                        0,
                        "The bench is full: one that stands there must be done before Till 1."),
                new Case(List.of(lead, held), 4, 0, "“lead” is in other hands, and Till 3 needs it."),
                new Case(List.of(line, busy), 6, 0, "The line is full of downloads, and Kiosk 1 needs it."),
                new Case(List.of(door), 0, 0, "Front door is for you after “connect the mains” is done."),
                new Case(List.of(room), 0, 0, "Clock is next, as soon as hall is free."),
                new Case(List.of(room), 0, 55, "No hours are left in which you are there and hall is free for Clock."),
                new Case(List.of(door), 7, 0, "Joost has in hand what is left."))) {
            var joost = new Hands("Joost", Set.of("electrician"), List.of(new Window(900, 1_000)), "");
            var brief = new Brief(c.units, List.of(Hands.of("Imke"), joost), means, OptionalInt.empty());
            var units = new HashMap<Long, Standing.Progress>();
            for (var u : c.units) units.put(u.id(), progress(0, 0, u.id() == c.heldByJoost ? 1 : -1));
            var nothing = new VisitPlan(List.of(), 0, 0, 0, VisitPlan.BoundBy.SUMS, List.of());
            var told = new Steer(brief, nothing).all(at(c.now, units, 2)).get(0);
            assertThat(told).extracting(DoNow::what, DoNow::because).containsExactly(DoNow.What.WAIT, c.because);
        }
    }

    @DisplayName("Whoever follows the one line breaks no rule, and two never get the same")
    @ParameterizedTest
    @ValueSource(longs = {1, 2, 3, 4, 5, 6})
    void wholeDays(long seed) {
        var brief = Visits.random(seed, 6, 1 + (int) (seed % 3));
        var plan = VisitPlanner.quick(brief);
        var random = new Random(seed);
        var hands = new HashMap<Long, int[]>();
        var alone = new HashMap<Long, int[]>();
        Sureness.draw(brief, random, hands, alone);
        assertThat(Day.finish(brief, plan, hands, alone)).isLessThan(Window.HORIZON);
        var standing = Standing.beginning(brief);
        var steer = new Steer(brief, plan);
        var given = new HashSet<Long>();
        var units = new HashMap<>(standing.units());
        for (int p = 0; p < brief.hands().size(); p++) {
            var told = steer.now(new Standing(0, units, standing.people()), p);
            if (told.what() != DoNow.What.DO) continue;
            assertThat(given.add(told.unit())).as("given once").isTrue();
            units.put(told.unit(), progress(0, 0, p));
        }
        assertThat(given).isNotEmpty();
    }

    @Test
    void whatIsGivenToOneIsGivenToNobodyElse() {
        var first = VisitUnit.of(1, "Router", "cellar", List.of(BEGIN));
        var waits = VisitUnit.of(2, "Till 1", "counter", List.of(BEGIN)).after(Set.of(1L));
        var others = VisitUnit.of(3, "Till 2", "counter", List.of(BEGIN)).after(Set.of(1L));
        var brief = new Brief(
                List.of(first, waits, others),
                List.of(Hands.of("Imke"), Hands.of("Joost")),
                Means.ENOUGH,
                OptionalInt.empty());
        var steer = new Steer(brief, VisitPlanner.plan(brief).plan());
        assertThat(steer.all(Standing.beginning(brief)))
                .extracting(d -> d.what() + " " + d.unit() + " " + d.because())
                .containsExactlyInAnyOrder(
                        "DO 1 Everything else waits for it.", "WAIT 0 Everything else waits for Router.");
        var open = at(70, Map.of(2L, progress(0, 0, -1), 3L, progress(0, 0, -1)), 2);
        assertThat(steer.all(open)).extracting(DoNow::unit).containsExactlyInAnyOrder(2L, 3L);
        assertThat(steer.all(at(75, Map.of(3L, progress(0, 0, 0)), 2)))
                .extracting(DoNow::because)
                .containsExactly("You are at it.", "Nothing is left that you may do.");
        // One who comes after: whatever is left of it is in another's hands until then.
        var both = new Brief(
                List.of(VisitUnit.of(4, "Till 3", "counter", List.of(BEGIN, FINISH))),
                brief.hands(),
                Means.ENOUGH,
                OptionalInt.empty());
        assertThat(new Steer(both, VisitPlanner.plan(both).plan())
                        .all(at(3, Map.of(4L, progress(0, 0, 1)), 2))
                        .get(0)
                        .because())
                .isEqualTo("Joost has in hand what is left.");
        assertThat(new Steer(both, VisitPlanner.plan(both).plan()).all(at(3, Map.of(4L, progress(0, 0, -1)), 2)))
                .extracting(d -> d.what() + " " + d.because())
                .containsExactlyInAnyOrder("DO It is the only one left.", "WAIT What is left is for Imke.");
    }

    @DisplayName(
            "What stands on the bench already needs no other place there, and nothing else gets one while it is full")
    @Test
    void theOnlyOutlet() {
        var begun = new VisitUnit(1, "Till 1", "bench", List.of(FINISH), 0, Window.ALWAYS, Set.of(), true, "", true, 0);
        var waits = new VisitUnit(2, "Till 2", "bench", List.of(BEGIN), 0, Window.ALWAYS, Set.of(), true, "", false, 0);
        var brief = new Brief(
                List.of(begun, waits),
                List.of(Hands.of("Imke"), Hands.of("Joost")),
                new Means(1, 0, 0, Map.of()),
                OptionalInt.empty());
        var steer = new Steer(brief, VisitPlanner.plan(brief).plan());
        assertThat(steer.all(Standing.beginning(brief)))
                .extracting(d -> d.what() + " " + d.unit())
                .containsExactlyInAnyOrder("DO 1", "WAIT 0");
        assertThat(steer.all(at(10, Map.of(2L, progress(0, 0, -1)), 2)))
                .extracting(d -> d.what() + " " + d.unit() + " " + d.because())
                .containsExactlyInAnyOrder("DO 2 It is the only one left.", "WAIT 0 What is left is for Imke.");
    }

    @DisplayName("Nobody drives half an hour for a minute's work while the own next turn here is ready in ten")
    @Test
    void twoSites() {
        var two = List.of(Stretch.of("begin", Minutes.exactly(10), Minutes.exactly(20)), FINISH);
        var brief = new Brief(
                List.of(
                        VisitUnit.of(1, "Till 1", "shop", two),
                        VisitUnit.of(2, "Till 2", "shop", two),
                        VisitUnit.of(3, "Clock", "clinic", List.of(FINISH))),
                List.of(new Hands("Imke", Set.of(), Window.ALWAYS, "shop")),
                new Means(9, 0, 1, Map.of(), Map.of("clinic", "the clinic"), 30),
                OptionalInt.empty());
        var steer = new Steer(brief, VisitPlanner.plan(brief).plan());
        Map<Long, Standing.Progress> units =
                Map.of(1L, progress(1, 30, -1), 2L, progress(1, 40, -1), 3L, progress(0, 0, -1));
        var shop = new Standing(20, units, List.of(new Standing.Person("shop", false)));
        assertThat(steer.now(shop, 0))
                .extracting(DoNow::what, DoNow::unit, DoNow::at)
                .containsExactly(DoNow.What.WAIT, 1L, 30);
        var done = new Standing(50, Map.of(3L, progress(0, 0, -1)), shop.people());
        assertThat(steer.now(done, 0).what()).isEqualTo(DoNow.What.DO);
    }

    @Test
    void whoHasLeftGetsNothingAndTheRestIsForTheOthers() {
        var brief = terminals(2, 2);
        var steer = new Steer(brief, VisitPlanner.plan(brief).plan());
        var units = Standing.beginning(brief).units();
        var gone = new Standing(0, units, List.of(new Standing.Person("", true), new Standing.Person("", false)));
        assertThat(steer.now(gone, 0).because()).isEqualTo("You have left.");
        assertThat(steer.now(gone, 1).what()).isEqualTo(DoNow.What.DO);
    }

    @DisplayName("After a tie that comes late people keep their turns in their order")
    @ParameterizedTest(name = "{0} min late")
    @ValueSource(ints = {0, 2, 7})
    void littleUpheaval(int late) {
        var brief = Visits.random(77, 10, 2);
        var plan = VisitPlanner.quick(brief);
        var rest = VisitBench.afterFirstTie(brief, plan, late);
        var again = VisitPlanner.again(rest, plan).plan();
        assertThat(PlanRules.broken(rest, again.turns())).isEmpty();
        assertThat(plan.moved(again)).isLessThanOrEqualTo(2);
    }

    @Test
    void aPersonWhoLeavesIsReplacedByWhoeverIsThere() {
        var brief = terminals(4, 2);
        var plan = VisitPlanner.plan(brief).plan();
        var alone = new Brief(brief.units(), brief.hands().subList(0, 1), brief.means(), brief.due());
        var again = VisitPlanner.again(alone, plan).plan();
        assertThat(again.turns()).hasSize(8).extracting(Turn::who).containsOnly(0);
        assertThat(again.finish()).isEqualTo(110);
    }

    @Test
    void howSureAndByWhenToBegin() {
        var exact = terminals(6, 1);
        var plan = VisitPlanner.plan(exact).plan();
        var sure = Sureness.of(exact, plan);
        assertThat(sure.doneBy(9)).as("nothing varies").isEqualTo(130);
        assertThat(sure.ofHundred(129)).isZero();
        assertThat(sure.ofHundred(130)).isEqualTo(100);
        assertThat(Backward.of(plan, 180)).containsExactly(new Backward.Latest(0, 50));
        var open = new VisitUnit(
                1,
                "Till 1",
                "counter",
                List.of(new Stretch(List.of("a"), "a", Minutes.about(30), Minutes.about(30), "", 0)),
                0,
                Window.ALWAYS,
                Set.of(),
                false,
                "",
                false,
                0);
        var one = new Brief(List.of(open), List.of(Hands.of("Imke")), Means.ENOUGH, OptionalInt.empty());
        var wide = Sureness.of(one, VisitPlanner.plan(one).plan());
        assertThat(wide.doneBy(5)).isBetween(52, 70);
        assertThat(wide.doneBy(9)).isBetween(72, 100);
        assertThat(wide.doneBy(10)).isLessThanOrEqualTo(120);
    }
}
