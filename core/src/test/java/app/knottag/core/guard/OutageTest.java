package app.knottag.core.guard;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.OptionalInt;
import java.util.SplittableRandom;
import org.assertj.core.data.Offset;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class OutageTest {

    /** Outlet and router written from the rule, one second at a time, with no sum in it. */
    private static final class Clockwork {
        final OutletTimes t;
        final int start;
        final int lineBack;
        int hung;
        boolean powered = true;
        int poweredFor = Integer.MAX_VALUE / 2;
        int untilLook;
        int untilOn = -1;
        int failed;
        final List<Integer> restarts = new ArrayList<>();
        OptionalInt gaveUp = OptionalInt.empty();

        Clockwork(OutletTimes t, int start, int lineBack, int hung, int untilLook) {
            this.t = t;
            this.start = start;
            this.lineBack = lineBack;
            this.hung = hung;
            this.untilLook = untilLook;
        }

        Clockwork run() {
            for (int second = 0; second < 40_000 && !tick(second); second++) {}
            return this;
        }

        /** Second from which it has been online ever since. */
        int online;

        /** Returns whether nothing will change any more. */
        boolean tick(int second) {
            if (untilOn == 0) {
                powered = true;
                if (hung > 0) hung--;
                poweredFor = 0;
                untilLook = t.pause();
                failed = 0;
                untilOn = -1;
            }
            boolean up = powered && hung == 0 && poweredFor >= start && second >= lineBack;
            if (!up) online = second + 1;
            if (up && gaveUp.isPresent()) return true;
            if (powered && untilLook == 0 && gaveUp.isEmpty()) {
                untilLook = t.every();
                if (up) return true;
                failed++;
                if (failed == t.tries()) {
                    if (t.most().isPresent() && restarts.size() == t.most().getAsInt()) gaveUp = OptionalInt.of(second);
                    else {
                        restarts.add(second);
                        powered = false;
                        untilOn = t.off();
                    }
                }
            }
            if (powered) {
                poweredFor++;
                untilLook--;
            } else untilOn--;
            return false;
        }
    }

    @DisplayName("The outage is the same as a clockwork shows that goes second by second")
    @ParameterizedTest(name = "seed {0}, 3 400 settings")
    @ValueSource(longs = {1, 2, 3})
    void secondBySecond(long seed) {
        var random = new SplittableRandom(seed);
        int loops = 0, gaveUp = 0;
        for (int n = 0; n < 3_400; n++) {
            var times = new OutletTimes(
                    random.nextInt(1, 90),
                    random.nextInt(1, 6),
                    random.nextInt(1, 40),
                    random.nextInt(0, 200),
                    OptionalInt.of(random.nextInt(1, 6)));
            int needs = random.nextBoolean() ? random.nextInt(1, 4) : 0;
            int start = random.nextInt(1, 300), lasts = needs > 0 ? 0 : random.nextInt(1, 2_000);
            var told = needs > 0 ? Outage.hangs(times, start, needs) : Outage.line(times, start, lasts);
            var clockwork = new Clockwork(times, start, lasts, needs, needs > 0 ? times.every() : 0).run();
            String what = times + ", start " + start + ", line " + lasts + ", needs " + needs;
            if (needs > times.most().getAsInt()) {
                assertThat(told.online()).as(what).isEmpty();
                assertThat(told.restarts()).as(what).hasSize(times.most().getAsInt());
                continue;
            }
            assertThat(told.restarts()).as(what).isEqualTo(clockwork.restarts);
            assertThat(told.gaveUp()).as(what).isEqualTo(clockwork.gaveUp);
            assertThat(told.online()).as(what).hasValue(clockwork.online);
            if (told.loops()) loops++;
            if (told.gaveUp().isPresent()) gaveUp++;
        }
        assertThat(loops).as("loops among them").isGreaterThan(100);
        assertThat(gaveUp).as("given up among them").isGreaterThan(100);
    }

    @DisplayName(
            "No moment at which the line fails makes more restarts in vain, nor one at which the router hangs a later return")
    @ParameterizedTest(name = "every {0} s, {1} tries, off {2} s, wait {3} s, start {4} s, line {5} s")
    @CsvSource({"60, 2, 15, 90, 100, 70", "30, 3, 10, 200, 170, 900", "45, 1, 20, 60, 30, 1000", "20, 4, 5, 0, 61, 333"
    })
    void whenever(int every, int tries, int off, int pause, int start, int line) {
        var times = new OutletTimes(every, tries, off, pause, OptionalInt.of(3));
        int most = 0, late = 0;
        for (int phase = 0; phase <= every; phase++) {
            most = Math.max(
                    most,
                    new Clockwork(times, start, line, 0, phase).run().restarts.size());
            late = Math.max(late, new Clockwork(times, start, 0, 1, phase).run().online);
        }
        assertThat(Outage.line(times, start, line).restarts()).hasSize(most);
        assertThat(Outage.hangs(times, start).online()).hasValue(late);
    }

    @DisplayName("Looked at every minute, three times: what a technician works out on paper")
    @ParameterizedTest(name = "router {0} s, wait {1} s: online after {2} s, {3} restarts")
    @CsvSource({
        "100, 60, 295, 1", // 180 until it is sure, 15 off, 100 to start
        "180, 60, 375, 1", // exactly the last look sees it
        "181, 60, 766, 3", // one second more: each start is cut short, and it comes after the last
        "200, 60, 785, 3",
    })
    void onPaper(int start, int pause, int online, int restarts) {
        var outage = Outage.hangs(new OutletTimes(60, 3, 15, pause, OptionalInt.of(3)), start);
        assertThat(outage.online()).hasValue(online);
        assertThat(outage.restarts()).hasSize(restarts);
        assertThat(outage.loops()).isEqualTo(restarts > 1);
    }

    @Test
    void withoutAnEndItNeverComesBack() {
        var outage = Outage.hangs(new OutletTimes(60, 3, 15, 60, OptionalInt.empty()), 200);
        assertThat(outage.online()).isEmpty();
        assertThat(outage.loops()).isTrue();
    }

    @DisplayName("Restarts for nothing are as many as a chain of looks shows")
    @ParameterizedTest(name = "lost {0}, {1} tries")
    @CsvSource({"0.5, 1", "0.3, 2", "0.2, 3", "0.1, 2", "0.4, 4"})
    void falseRestarts(double lost, int tries) {
        var times = new OutletTimes(60, tries, 15, 120, OptionalInt.of(3));
        var random = new SplittableRandom(7);
        int restarts = 0, failed = 0;
        double seconds = 0;
        while (restarts < 20_000) {
            failed = random.nextDouble() < lost ? failed + 1 : 0;
            if (failed == tries) {
                restarts++;
                failed = 0;
                seconds += times.off() + times.pause();
            } else seconds += times.every();
        }
        double aMonth = restarts / seconds * 30 * 86_400;
        assertThat(FalseRestarts.aMonth(times, lost)).isBetween(aMonth * 0.97, aMonth * 1.03);
    }

    @DisplayName("One look in a hundred lost: a month of looks at one, two and three names")
    @ParameterizedTest(name = "{0} names: lost {1}")
    @CsvSource({"1, 0.01", "2, 0.0001", "3, 0.000001"})
    void names(int targets, double lost) {
        assertThat(FalseRestarts.lost(0.01, 0, targets)).isCloseTo(lost, Offset.offset(1e-12));
        assertThat(FalseRestarts.lost(0.01, 0.05, targets))
                .as("its own wireless takes all at once")
                .isGreaterThan(0.05);
    }
}
