package app.knottag.core.runbook;

import static org.assertj.core.api.Assertions.assertThat;

import app.knottag.core.runbook.Nightly.Busy;
import app.knottag.core.runbook.Nightly.Restart;
import app.knottag.core.time.DateStyle;
import app.knottag.core.time.SiteClock;
import java.time.Instant;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class NightlyTest {

    private static final Instant NOW = Instant.parse("2026-11-25T10:00:00Z");
    private static final ZoneId BERLIN = ZoneId.of("Europe/Berlin");

    private static Busy busy(String text) {
        var parts = text.split("[-=]");
        return new Busy(LocalTime.parse(parts[0]), LocalTime.parse(parts[1]), parts[2]);
    }

    private static Restart restart(int id, int minutes, String at) {
        return new Restart(id, "Till " + id, minutes, Optional.ofNullable(at).map(LocalTime::parse));
    }

    @DisplayName("Restarts come one after the other, clear of hours that the clock skips or repeats")
    @Test
    void staggered() {
        var plan = Nightly.place(
                List.of(restart(2, 4, "03:00"), restart(1, 4, "03:00"), restart(3, 40, "02:30"), restart(4, 4, null)),
                List.of(busy("08:00-20:00=the shop is open"), busy("23:00-01:00=the backup runs")),
                new SiteClock(NOW, BERLIN, DateStyle.YEAR_FIRST));
        assertThat(plan.slots())
                .extracting(s -> s.name() + " " + s.from() + (s.changed() ? " new" : ""))
                .containsExactly("Till 2 01:00 new", "Till 3 01:10 new", "Till 1 03:00", "Till 4 03:10 new");
        assertThat(plan.clashes())
                .containsExactly(
                        "Till 2 at 03:00: Till 1 restarts from 03:00 to 03:09.",
                        "Till 3 at 02:30: the clock skips this hour on 2027-03-28 from 02:00 to 03:00.");
        assertThat(plan.changes())
                .containsExactly(
                        "the clock skips 02:00 to 03:00 on 2027-03-28",
                        "the clock repeats 02:00 to 03:00 on 2027-10-31");
    }

    @DisplayName("A zone without clock changes keeps no hour clear; a night too short says who has no place")
    @ParameterizedTest(name = "{0} {1}: {2} placed, {3} left over")
    @CsvSource(
            delimiter = '|',
            value = {
                "Asia/Kolkata  | 00:00-23:00=work | 6 | 0 | 0",
                "Asia/Kolkata  | 00:00-23:40=work | 2 | 4 | 0",
                "Europe/Berlin | 00:00-00:00=none | 6 | 0 | 2",
                "Asia/Kolkata  | 00:50-00:10=work | 4 | 2 | 0",
                "Asia/Kolkata  | 00:20-23:40=work | 4 | 2 | 0",
                "Asia/Kolkata  | 03:27-02:47=work | 4 | 2 | 0",
            })
    void nights(String zone, String hours, int placed, int left, int changes) {
        var restarts = new ArrayList<Restart>();
        for (int i = 1; i <= 6; i++) restarts.add(restart(i, 5, null));
        var plan = Nightly.place(
                restarts, List.of(busy(hours)), new SiteClock(NOW, ZoneId.of(zone), DateStyle.YEAR_FIRST));
        assertThat(plan.slots()).hasSize(placed);
        assertThat(plan.leftOver()).hasSize(left);
        assertThat(plan.changes()).hasSize(changes);
    }

    @ParameterizedTest(name = "seed {0}")
    @ValueSource(longs = {1, 2, 3})
    void noTwoRestartsMeetAndNoneMeetsAnythingBusy(long seed) {
        var random = new Random(seed);
        for (int round = 0; round < 100; round++) {
            var restarts = new ArrayList<Restart>();
            for (int i = 0; i < 12; i++)
                restarts.add(restart(
                        i,
                        1 + random.nextInt(30),
                        random.nextBoolean() ? null : "0" + random.nextInt(8) + ":1" + random.nextInt(10)));
            var busy = Arrays.asList(busy("07:00-19:00=open"), busy("22:00-0" + random.nextInt(4) + ":20=backup"));
            var plan = Nightly.place(restarts, busy, new SiteClock(NOW, BERLIN, DateStyle.YEAR_FIRST));
            assertThat(plan.slots().size() + plan.leftOver().size()).isEqualTo(12);
            for (int i = 1; i < plan.slots().size(); i++)
                assertThat(plan.slots().get(i).from())
                        .isAfterOrEqualTo(plan.slots().get(i - 1).until().plusMinutes(Nightly.MARGIN_MINUTES));
            for (var slot : plan.slots()) {
                boolean open = slot.from().isBefore(LocalTime.of(19, 0))
                        && slot.until().isAfter(LocalTime.of(7, 0));
                boolean skipped =
                        slot.from().isBefore(LocalTime.of(3, 0)) && slot.until().isAfter(LocalTime.of(2, 0));
                assertThat(open || skipped).as(slot.toString()).isFalse();
            }
        }
    }

    @DisplayName("Where the clock is put back at midnight the hour that comes twice is that of the day before")
    @ParameterizedTest(name = "{0}: {1}")
    @CsvSource(
            delimiter = '|',
            value = {
                "Africa/Cairo     | the clock repeats 23:00 to 00:00 on 2027-10-28 | 23:00",
                "America/Santiago | the clock repeats 23:00 to 00:00 on 2027-04-03 | 23:00",
                "Asia/Beirut      | the clock repeats 23:00 to 00:00 on 2027-10-30 | 23:00",
                "Europe/Berlin    | the clock repeats 02:00 to 03:00 on 2027-10-31 | 02:00",
            })
    void repeatedHour(String zone, String change, LocalTime from) {
        // Judged by the clock itself: that hour of that day has two instants.
        var day = java.time.LocalDate.parse(change.substring(change.length() - 10));
        assertThat(ZoneId.of(zone).getRules().getValidOffsets(day.atTime(from).plusMinutes(30)))
                .hasSize(2);
        var plan = Nightly.place(
                List.of(restart(1, 4, from.plusMinutes(10).toString())),
                List.of(),
                new SiteClock(NOW, ZoneId.of(zone), DateStyle.YEAR_FIRST));
        assertThat(plan.changes()).contains(change);
        assertThat(plan.clashes()).singleElement().asString().contains("this hour on 2027-");
    }

    /** The most restarts of one length that fit a night, by counting. */
    @ParameterizedTest(name = "a night of {0} minutes from {1}, restarts of {2}")
    @CsvSource({"40, 00:10, 5", "60, 23:35, 7", "55, 23:50, 10", "90, 02:02, 12", "20, 00:00, 15"})
    void aNightIsFilled(int night, LocalTime from, int minutes) {
        var restarts = new ArrayList<Restart>();
        for (int i = 1; i <= 12; i++) restarts.add(restart(i, minutes, null));
        var busy = new Busy(from.plusMinutes(night), from, "open");
        var plan = Nightly.place(
                restarts, List.of(busy), new SiteClock(NOW, ZoneId.of("Asia/Kolkata"), DateStyle.YEAR_FIRST));
        assertThat(plan.slots()).hasSize(night / (minutes + Nightly.MARGIN_MINUTES));
    }
}
