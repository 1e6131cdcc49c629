package app.knottag.core.visit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import app.knottag.core.reading.ReadingException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.OptionalInt;
import java.util.Set;
import java.util.stream.IntStream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;

class VisitPlannerTest {

    private static Brief same(int units, int people, int... minutes) {
        var stretches = new ArrayList<Stretch>();
        for (int i = 0; i < minutes.length; i += 2)
            stretches.add(Stretch.of("s" + i, Minutes.exactly(minutes[i]), Minutes.exactly(minutes[i + 1])));
        return new Brief(
                IntStream.rangeClosed(1, units)
                        .mapToObj(u -> VisitUnit.of(u, "unit " + u, "bench", stretches))
                        .toList(),
                IntStream.range(0, people).mapToObj(p -> Hands.of("P" + p)).toList(),
                Means.ENOUGH,
                OptionalInt.empty());
    }

    @DisplayName("Cases that are reckoned by hand")
    @ParameterizedTest(name = "{0} units of {2} + {3} + {4}, {1} people: {5} min")
    @CsvSource({
        // Six terminals: ready at 70, 80 ... 120, each finished ten minutes later.
        "6, 1, 10, 60, 10, 130",
        // Two are begun and finished before the first is ready for a third pair of hands.
        "1, 1, 10, 60, 10, 80",
        "2, 1, 10, 60, 10, 90",
        // Hands are what is short: nine preparations take 90, then nine finishes.
        "9, 1, 10, 60, 10, 180",
        "6, 2, 10, 60, 10, 100",
        "6, 6, 10, 60, 10, 80",
        "4, 1, 5, 0, 5, 40",
    })
    void byHand(int units, int people, int first, int alone, int last, int finish) {
        var plan = VisitPlanner.plan(same(units, people, first, alone, last, 0)).plan();
        assertThat(plan.finish()).isEqualTo(finish);
        assertThat(plan.bound()).isEqualTo(finish);
        assertThat(plan.best()).isTrue();
    }

    static List<Long> seeds() {
        return IntStream.range(0, 9).mapToObj(i -> 100L + i).toList();
    }

    @DisplayName("No rule of the visit is broken by any plan")
    @ParameterizedTest
    @MethodSource("seeds")
    void holds(long seed) {
        var brief = Visits.random(seed, 4 + (int) (seed % 9), 1 + (int) (seed % 3));
        var planned = VisitPlanner.plan(brief);
        assertThat(planned.obstacles()).isEmpty();
        assertThat(planned.plan().left()).isEmpty();
        assertThat(PlanRules.broken(brief, planned.plan().turns())).isEmpty();
        assertThat(planned.plan().finish())
                .isGreaterThanOrEqualTo(planned.plan().bound());
        assertThat(VisitPlanner.plan(brief).plan()).isEqualTo(planned.plan());
    }

    @Test
    void nothingTriedByHandIsEverBetter() {
        int planned = 0;
        for (long seed = 0; seed < Integer.getInteger("knot.visits", 24); seed++) {
            var brief = Visits.tiny(seed);
            var found = VisitPlanner.plan(brief);
            int best = EveryPlan.finish(brief);
            if (!found.obstacles().isEmpty() || !found.plan().left().isEmpty()) {
                assertThat(best).as("seed %d: a plan for all", seed).isEqualTo(Integer.MAX_VALUE);
                continue;
            }
            planned++;
            assertThat(PlanRules.broken(brief, found.plan().turns()))
                    .as("seed %d", seed)
                    .isEmpty();
            assertThat(found.plan().finish()).as("seed %d", seed).isEqualTo(best);
            assertThat(found.plan().bound()).as("seed %d", seed).isLessThanOrEqualTo(best);
        }
        assertThat(planned).isGreaterThan(12);
    }

    @Test
    void whatCannotBeDoneIsNamedWithTheWayOut() {
        var wall = new VisitUnit(
                1,
                "Door 1",
                "back door",
                List.of(new Stretch(List.of("wire"), "Wire it", Minutes.exactly(30), Minutes.NONE, "electrician", 0)),
                0,
                Window.ALWAYS,
                Set.of(),
                false,
                "",
                false,
                0);
        var till = new VisitUnit(
                2,
                "Till 1",
                "counter",
                List.of(Stretch.of("mount", Minutes.exactly(30), Minutes.NONE)),
                0,
                List.of(new Window(0, 20)),
                Set.of(),
                false,
                "",
                false,
                0);
        var clock = VisitUnit.of(3, "Clock 1", "hall", List.of(Stretch.of("set", Minutes.exactly(5), Minutes.NONE)));
        var reader = new VisitUnit(
                4, "Reader 1", "hall", clock.stretches(), 0, Window.ALWAYS, Set.of(1L), false, "", false, 0);
        var brief = new Brief(
                List.of(wall, till, clock, reader), List.of(Hands.of("Imke")), Means.ENOUGH, OptionalInt.empty());
        var planned = VisitPlanner.plan(brief);
        assertThat(planned.obstacles())
                .extracting(Obstacle::text)
                .containsExactly(
                        "Door 1, “Wire it” needs “electrician”, and nobody who comes may do that. Add somebody who may, or "
                                + "leave it for another day.",
                        "Till 1, “mount” takes 30 min at one go, and counter is never free for so long. Widen the hours, or "
                                + "leave it for another day.",
                        "Reader 1 waits for Door 1, which cannot be done.");
        assertThat(planned.plan().turns()).extracting(Turn::unit).containsExactly(3L);
        assertThatThrownBy(() -> VisitPlanner.plan(new Brief(List.of(), List.of(), Means.ENOUGH, OptionalInt.empty())))
                .isInstanceOf(ReadingException.class)
                .hasMessage("Nobody is there. Add at least one person.");
        var circle = new Brief(
                List.of(clock.after(Set.of(4L)), reader.after(Set.of(3L))),
                brief.hands(),
                Means.ENOUGH,
                OptionalInt.empty());
        assertThatThrownBy(() -> VisitPlanner.plan(circle))
                .isInstanceOf(ReadingException.class)
                .hasMessage("These wait for one another: Clock 1, Reader 1. Let one of them begin without the others.");
    }

    @Test
    void whatDoesNotFitIsLeftForAnotherDay() {
        var two = same(5, 1, 10, 60, 10, 0);
        var short1 = new Brief(
                two.units(),
                List.of(new Hands("P0", Set.of(), List.of(new Window(0, 95)), "")),
                Means.ENOUGH,
                OptionalInt.empty());
        var plan = VisitPlanner.plan(short1).plan();
        assertThat(plan.left()).hasSize(3);
        assertThat(plan.turns()).hasSize(4);
        assertThat(plan.finish()).isEqualTo(90);
    }

    @Test
    void slackIsWhatMayBeLateAndNothingMore() {
        var plan = VisitPlanner.plan(same(2, 1, 10, 60, 10, 0)).plan();
        for (var t : plan.turns()) {
            var late = plan.turns().stream()
                    .filter(o -> o != t)
                    .mapToInt(Turn::slack)
                    .min();
            assertThat(t.slack()).isBetween(0, 10);
            assertThat(late).isPresent();
        }
        assertThat(plan.turns().get(plan.turns().size() - 1).slack()).isZero();
    }

    @Test
    void fromAPlaceThatNobodyNamedTheDriveIsAsLong() {
        var one = List.of(Stretch.of("a", Minutes.exactly(10), Minutes.NONE));
        var brief = new Brief(
                List.of(VisitUnit.of(1, "Till", "", one), VisitUnit.of(2, "Clock", "clinic", one)),
                List.of(Hands.of("Imke")),
                new Means(9, 0, 1, Map.of(), Map.of("clinic", "the clinic"), 30),
                OptionalInt.empty());
        assertThat(VisitPlanner.plan(brief).plan().finish()).isEqualTo(50);
    }

    @Test
    void whatNobodyMayDoMakesNothingElseLate() {
        var wire = new Stretch(List.of("a"), "a", Minutes.exactly(30), Minutes.NONE, "fitter", 0);
        var till = List.of(Stretch.of("a", Minutes.exactly(10), Minutes.NONE));
        var brief = new Brief(
                List.of(VisitUnit.of(1, "Door", "hall", List.of(wire)), VisitUnit.of(2, "Till", "hall", till)),
                List.of(Hands.of("Imke")),
                Means.ENOUGH,
                OptionalInt.empty());
        var sure = Sureness.of(brief, VisitPlanner.plan(brief).plan());
        assertThat(sure.doneBy(9)).isEqualTo(10);
        assertThat(sure.ofHundred(10)).isEqualTo(100);
    }

    @DisplayName("What is too late says what to leave for another day, but never what others wait for")
    @Test
    void leftFirst() {
        var router = VisitUnit.of(1, "Router", "cellar", List.of(Stretch.of("a", Minutes.exactly(10), Minutes.NONE)));
        var store = VisitUnit.of(
                        2, "Store", "office", List.of(Stretch.of("a", Minutes.exactly(40), Minutes.exactly(90))))
                .after(Set.of(1L));
        var till = VisitUnit.of(3, "Till", "counter", List.of(Stretch.of("a", Minutes.exactly(20), Minutes.NONE)))
                .after(Set.of(1L));
        // By hand: router to 10, store to 50 and alone to 140, till beside it. Without the store it is over at 30,
        // without
        // the till no sooner, and the router is waited for.
        var late = new Brief(List.of(router, store, till), List.of(Hands.of("Imke")), Means.ENOUGH, OptionalInt.of(60));
        var plan = VisitPlanner.plan(late).plan();
        assertThat(plan.finish()).isEqualTo(140);
        assertThat(Helps.of(late, plan)).containsExactly(new Helps.Help("leaving Store for another day", 110));
        var inTime = new Brief(late.units(), late.hands(), late.means(), OptionalInt.of(140));
        assertThat(Helps.of(inTime, plan)).isEmpty();
    }

    @DisplayName("Whoever goes to two sites goes there once, and what runs alone at the first is finished before")
    @Test
    void twoSitesOnOneRoute() {
        var alone = List.of(
                Stretch.of("begin", Minutes.exactly(10), Minutes.exactly(20)),
                Stretch.of("end", Minutes.exactly(10), Minutes.NONE));
        var brief = new Brief(
                List.of(
                        VisitUnit.of(1, "Till 1", "shop", alone),
                        VisitUnit.of(2, "Till 2", "shop", alone),
                        VisitUnit.of(
                                3, "Clock", "clinic", List.of(Stretch.of("set", Minutes.exactly(15), Minutes.NONE)))),
                List.of(Hands.of("Imke")),
                new Means(9, 0, 1, Map.of(), Map.of("clinic", "the clinic"), 30),
                OptionalInt.empty());
        // By hand: 0-10 first till, 10-20 second, wait, 30-40 first, 40-50 second, drive to 80, 80-95 the clock. The
        // clinic
        // first costs the same: 15, drive to 45, then 95.
        var plan = VisitPlanner.plan(brief).plan();
        assertThat(PlanRules.broken(brief, plan.turns())).isEmpty();
        assertThat(plan.finish()).isEqualTo(95);
        assertThat(plan.bound()).isLessThanOrEqualTo(95);
        assertThat(plan.walking()).isEqualTo(30);
    }

    @Test
    void theBenchAndTheLineHoldBack() {
        var open = same(6, 1, 10, 60, 10, 0);
        var narrow = new Brief(
                open.units().stream()
                        .map(u -> new VisitUnit(
                                u.id(),
                                u.name(),
                                "bench",
                                u.stretches(),
                                0,
                                Window.ALWAYS,
                                Set.of(),
                                true,
                                "",
                                false,
                                0))
                        .toList(),
                open.hands(),
                new Means(2, 0, 0, Map.of()),
                OptionalInt.empty());
        // The first two are ready at 70 and 80. The outlet of the first is free at 80: the third is begun before the
        // second is
        // finished. So every 80 minutes one of each outlet: 80, 160, 240, and the other 20 later.
        var plan = VisitPlanner.plan(narrow).plan();
        assertThat(PlanRules.broken(narrow, plan.turns())).isEmpty();
        assertThat(plan.finish()).isEqualTo(260);
        assertThat(Helps.of(narrow, plan))
                .extracting(Helps.Help::what)
                .first()
                .isEqualTo("one more outlet and port on the bench");
    }

    @ParameterizedTest(name = "{0} MB at {1} Mbit/s, usually {2} min: {3} min, {4} kbit/s")
    @CsvSource({"600, 20, 55, 55, 1455", "2000, 10, 20, 27, 9877", "9000, 10, 55, 120, 10000", "0, 10, 20, 20, 0"})
    void downloads(int megabytes, double megabits, int usual, int minutes, int kilobits) {
        var stretch = new Stretch(List.of("x"), "x", Minutes.exactly(5), Minutes.exactly(usual), "", megabytes);
        assertThat(Downloads.minutes(stretch, megabits).usual()).isEqualTo(minutes);
        assertThat(Downloads.kilobits(stretch, megabits)).isEqualTo(kilobits);
    }
}
