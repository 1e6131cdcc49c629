package app.knottag.core.watch;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import app.knottag.core.reach.Check;
import app.knottag.core.reach.CheckResult;
import app.knottag.core.reading.ReadingException;
import app.knottag.core.runbook.Nightly.Busy;
import app.knottag.core.runbook.Nightly.Restart;
import app.knottag.core.runbook.Stage.Station;
import app.knottag.core.status.Status;
import app.knottag.core.time.DateStyle;
import app.knottag.core.time.SiteClock;
import app.knottag.core.today.Notice;
import app.knottag.core.watch.Morning.Line;
import app.knottag.core.watch.Morning.News;
import app.knottag.core.watch.Morning.Outcome;
import app.knottag.core.watch.Morning.Standing;
import app.knottag.core.watch.MorningText.Left;
import app.knottag.core.watch.Night.Work;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Random;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Nights by hand, and against a clock on the wall that is read minute by minute. */
class WatchTest {

    private static final Instant NOW = Instant.parse("2026-11-30T12:00:00Z");

    @DisplayName("A night has the day on which it ends; where the clock changes it is shorter, longer, or not at all")
    @ParameterizedTest(name = "{0}-{1} to {2} in {3}")
    @CsvSource({
        "01:00, 05:00, 2026-12-01, Europe/Berlin, 2026-12-01T00:00:00Z, 240",
        "22:00, 05:00, 2026-12-01, Europe/Berlin, 2026-11-30T21:00:00Z, 420",
        "01:00, 05:00, 2026-03-29, Europe/Berlin, 2026-03-29T00:00:00Z, 180",
        "01:00, 05:00, 2026-10-25, Europe/Berlin, 2026-10-24T23:00:00Z, 300",
        "02:00, 03:00, 2026-03-29, Europe/Berlin, 2026-03-29T01:00:00Z, 0",
        "23:30, 00:00, 2026-12-01, Europe/Lisbon, 2026-11-30T23:30:00Z, 30",
        "18:00, 06:00, 2026-12-01, Asia/Kolkata,  2026-11-30T12:30:00Z, 720",
    })
    void nights(LocalTime from, LocalTime until, LocalDate morning, ZoneId zone, Instant begins, long minutes) {
        var night = new WatchHours(from, until).night(morning, zone);
        assertThat(night.from()).isEqualTo(begins);
        assertThat(Duration.between(night.from(), night.until()).toMinutes()).isEqualTo(minutes);
    }

    @DisplayName("Hours that are no night are refused with what would be one")
    @ParameterizedTest
    @CsvSource({"01:00, 01:29", "01:00, 01:00", "05:00, 17:01", "12:00, 11:59"})
    void noNight(LocalTime from, LocalTime until) {
        assertThatThrownBy(() -> new WatchHours(from, until))
                .isInstanceOf(ReadingException.class)
                .hasMessageContaining("30 minutes to 12 hours");
    }

    @DisplayName("Which morning comes next, before, in and after a night")
    @ParameterizedTest
    @CsvSource({
        "22:00, 05:00, 2026-11-30T20:59:00Z, 2026-12-01",
        "22:00, 05:00, 2026-11-30T21:00:00Z, 2026-12-01",
        "22:00, 05:00, 2026-12-01T03:59:00Z, 2026-12-01",
        "22:00, 05:00, 2026-12-01T04:00:00Z, 2026-12-02",
        "01:00, 05:00, 2026-12-01T00:30:00Z, 2026-12-01",
    })
    void morning(LocalTime from, LocalTime until, Instant now, LocalDate morning) {
        assertThat(new WatchHours(from, until).morning(now, ZoneId.of("Europe/Berlin")))
                .isEqualTo(morning);
    }

    private static final List<String> ZONES = List.of(
            "Europe/Berlin",
            "America/New_York",
            "Australia/Lord_Howe",
            "Asia/Kolkata",
            "Africa/Cairo",
            "America/Santiago");

    private static LocalTime time(Random random) {
        return LocalTime.of(random.nextInt(24), 5 * random.nextInt(12));
    }

    /** Whether the clock on the wall stands between two times, the second not included. */
    private static boolean between(LocalTime wall, LocalTime from, LocalTime until) {
        return from.isBefore(until)
                ? !wall.isBefore(from) && wall.isBefore(until)
                : !wall.isBefore(from) || wall.isBefore(until);
    }

    /** Reads the clock on the wall at every minute around a night, and notes when a device restarts. */
    private static List<TimeSpan> restarts(Restart r, TimeSpan night, ZoneId zone) {
        var found = new ArrayList<TimeSpan>();
        for (var t = night.from().minus(10, ChronoUnit.HOURS);
                t.isBefore(night.until().plus(1, ChronoUnit.HOURS));
                t = t.plusSeconds(60))
            if (r.at().filter(LocalTime.ofInstant(t, zone)::equals).isPresent())
                found.add(new TimeSpan(t.minusSeconds(300), t.plusSeconds(60L * r.minutes() + 300)));
        return found;
    }

    @DisplayName(
            "Nothing goes on while the clock on the wall says that the site is busy or a device is down; all else is free")
    @Test
    void keptClear() {
        var random = new Random(17);
        int changes = 0, kept = 0;
        for (int n = 0; n < 400; n++) {
            var zone = ZoneId.of(ZONES.get(random.nextInt(ZONES.size())));
            var next = zone.getRules().nextTransition(NOW.plus(random.nextInt(300), ChronoUnit.DAYS));
            // Every other night is one in which the clock changes.
            boolean change = next != null && random.nextBoolean();
            var day = change
                    ? LocalDate.ofInstant(next.getInstant(), zone)
                    : LocalDate.of(2027, 1, 1 + random.nextInt(28));
            var from = time(random);
            var hours = new WatchHours(from, from.plusMinutes(30 + 5 * random.nextInt(100)));
            var busy = Stream.generate(() -> new Busy(time(random), time(random), "x"))
                    .limit(random.nextInt(3))
                    .toList();
            var restarts = Stream.generate(() -> new Restart(1, "x", 1 + random.nextInt(30), Optional.of(time(random))))
                    .limit(random.nextInt(4))
                    .toList();
            var night = Night.before(day, hours, busy, restarts, zone);
            var down = restarts.stream()
                    .flatMap(r -> restarts(r, night.whole(), zone).stream())
                    .toList();
            for (var t = night.whole().from(); t.isBefore(night.whole().until()); t = t.plusSeconds(60)) {
                var wall = LocalTime.ofInstant(t, zone);
                var at = t;
                boolean clear =
                        busy.stream().anyMatch(b -> !b.from().equals(b.until()) && between(wall, b.from(), b.until()))
                                || down.stream().anyMatch(s -> s.has(at));
                boolean free = night.free().stream().anyMatch(s -> s.has(at));
                if (clear)
                    assertThat(free).as("%s %s %s %s", zone, day, wall, busy).isFalse();
                // Where the clock changes more may be kept clear than is needed, never less.
                else if (!change && busy.stream().noneMatch(b -> b.from().equals(b.until())))
                    assertThat(free).as("%s %s %s", zone, day, wall).isTrue();
                if (clear) kept++;
            }
            if (change) changes++;
        }
        assertThat(changes).isGreaterThan(100);
        assertThat(kept).isGreaterThan(10_000);
    }

    private static Night night(String... stretches) {
        var free = Arrays.stream(stretches)
                .map(s -> new TimeSpan(
                        NOW.plusSeconds(60 * Long.parseLong(s.split("-")[0])),
                        NOW.plusSeconds(60 * Long.parseLong(s.split("-")[1]))))
                .toList();
        return new Night(
                LocalDate.of(2026, 12, 1), new TimeSpan(NOW, NOW.plusSeconds(6_000)), free, List.of(), List.of());
    }

    @DisplayName(
            "Looks follow one another, wait for the next free stretch, and are left out only when they fit nowhere")
    @ParameterizedTest(name = "{0} minutes into {1} from {2}")
    @CsvSource(
            delimiter = '|',
            value = {
                "5 5 5    | 0-20       | 0  | 0 5 10   | ",
                "5 5 5    | 0-20       | 10 | 10 15    | 5",
                "5 15 5   | 0-10 30-60 | 0  | 0 30 45  | ",
                "40 5     | 0-10 30-60 | 0  | 0        | 40",
                "5 5      | 30-60      | 0  | 30 35    | ",
                "5        | 0-10       | 6  |          | 5",
                "5        |            | 0  |          | 5",
                "0 0      | 0-10       | 0  | 0 0      | ",
            })
    void laid(String minutes, String free, int from, String at, String left) {
        var works = Arrays.stream(minutes.split(" "))
                .map(m -> new Work(m, m, Duration.ofMinutes(Long.parseLong(m))))
                .toList();
        var laid = (free == null ? night() : night(free.split(" "))).lay(works, NOW.plusSeconds(60L * from));
        assertThat(laid.placed().stream()
                        .map(p -> String.valueOf(Duration.between(NOW, p.from()).toMinutes()))
                        .collect(Collectors.joining(" ")))
                .isEqualTo(at == null ? "" : at);
        assertThat(laid.left().stream().map(Work::what).collect(Collectors.joining(" ")))
                .isEqualTo(left == null ? "" : left);
    }

    @DisplayName("A device that restarts at nobody knows when is named, and takes no time")
    @Test
    void unknownHour() {
        var night = Night.before(
                LocalDate.of(2026, 12, 1),
                WatchHours.USUAL,
                List.of(),
                List.of(new Restart(1, "Till 1", 10, Optional.empty())),
                ZoneId.of("Europe/Berlin"));
        assertThat(night.unknown()).containsExactly("Till 1");
        assertThat(night.free()).containsExactly(night.whole());
    }

    @DisplayName(
            "At night silence is no fault; what fails of itself is told before what fails with a partner that is off")
    @ParameterizedTest(name = "{0}")
    @CsvSource(
            delimiter = '|',
            value = {
                "                                   | ",
                "ANSWERS WHO_ANSWERS PORT_OPEN       | Till 1 did not answer: It is off, cut off, or at another address",
                "WHO_ANSWERS                         | Till 1 fails a check: “Who answers there”: seen mend",
                "PORT_OPEN SERVICE                   | Till 1 fails a check: “Its service port is open”: seen mend 1 more",
                "PARTNER                             | Till 1 did not find its partner: “",
                "PARTNER DEVICE_TO_PARTNER SERVICE   | Till 1 fails a check: “Its service answers”: seen mend 2 more",
                "DEVICE_TO_PARTNER                   | Till 1 did not find its partner: “",
            })
    void unwell(String failed, String told) {
        var all = failed == null ? List.<String>of() : List.of(failed.split(" "));
        var results = Arrays.stream(Check.values())
                .map(c -> new CheckResult(
                        c, all.contains(c.name()) ? Status.FAILED : Status.PASSED, "seen", "mend", "here", NOW, 1))
                .toList();
        var unwell = Unwell.of(7, "Till 1", results);
        assertThat(unwell).hasSize(told == null ? 0 : 1);
        for (var s : unwell) assertThat(s.title() + ": " + s.detail()).startsWith(told);
    }

    @Test
    void aWrongClockIsToldThoughEverythingHolds() {
        var held = new CheckResult(
                Check.SERVICE,
                Status.PASSED,
                "Its page answers (200). Its clock is 40 days behind ours.",
                "",
                "",
                NOW,
                1);
        assertThat(Unwell.of(7, "Till 1", List.of(held))).singleElement().satisfies(s -> {
            assertThat(s.title()).isEqualTo("Till 1 shows a wrong time");
            assertThat(s.detail()).startsWith("Its clock is 40 days behind ours. Set it");
        });
    }

    private static Seen seen(String about, String what) {
        return new Seen(about, what, 0, about + " is " + what, "");
    }

    @DisplayName("New is what was not so the last time; well is only who has nothing else")
    @ParameterizedTest(name = "[{0}] then [{1}]")
    @CsvSource(
            delimiter = '|',
            value = {
                "             |              | ",
                "             | till off     | NEW till off",
                "till off     | till off     | STILL till off",
                "till off     |              | WELL till off",
                "till off     | till moved   | NEW till moved",
                "till off, hub old | hub old, box odd | STILL hub old, NEW box odd, WELL till off",
                "hub a, hub b | hub b        | STILL hub b",
            })
    void news(String before, String now, String lines) {
        var then = NOW.minus(Duration.ofDays(3));
        var compared = Morning.compare(
                all(before).stream().map(s -> new Standing(s, then)).toList(), all(now), NOW);
        assertThat(compared.lines().stream()
                        .map(l -> l.news() + " " + l.seen().about() + " "
                                + l.seen().what())
                        .collect(Collectors.joining(", ")))
                .isEqualTo(lines == null ? "" : lines);
        assertThat(compared.lines())
                .allSatisfy(l -> assertThat(l.since()).isEqualTo(l.news() == News.NEW ? NOW : then));
        assertThat(compared.standing()).extracting(Standing::seen).isEqualTo(all(now));
    }

    private static List<Seen> all(String text) {
        return text == null
                ? List.of()
                : Arrays.stream(text.split(", "))
                        .map(s -> seen(s.split(" ")[0], s.split(" ")[1]))
                        .toList();
    }

    @DisplayName("Devices are counted, not lines; and what was not looked at is never called well or without news")
    @Test
    void counted() {
        var lines = List.of(
                new Line(News.NEW, new Seen("checks 4: device", "SERVICE", 4, "", ""), NOW),
                new Line(News.STILL, new Seen("audit: endpoint 4", "MOVED", 4, "", ""), NOW),
                new Line(News.WELL, new Seen("checks 5: device", "SERVICE", 5, "", ""), NOW),
                new Line(News.STILL, new Seen("audit: endpoint 5", "MOVED", 5, "", ""), NOW),
                new Line(News.WELL, new Seen("service 1: service", "FAILED", 0, "", ""), NOW),
                new Line(News.WELL, new Seen("service 2: service", "FAILED", 0, "", ""), NOW));
        var outcome = Outcome.of(lines, 9, 2);
        assertThat(outcome).isEqualTo(new Outcome(1, 1, 2, 9, 2));
        assertThat(outcome.words())
                .isEqualTo("One thing is new, 1 stands as before, 2 are well again. 2 of 11 looks were not made.");
        assertThat(new Outcome(0, 0, 0, 0, 5).words()).isEqualTo("Nothing was looked at.");
        assertThat(new Outcome(0, 0, 0, 0, 5).tells()).isTrue();
        assertThat(new Outcome(0, 3, 1, 7, 0).tells()).isFalse();
    }

    @DisplayName("Nights without a look are named, from the one after it was switched on to the last that is over")
    @ParameterizedTest(name = "since {0}, had {1}, now {2}")
    @CsvSource(
            delimiter = '|',
            value = {
                "2026-11-27T12:00:00Z | 28 29 | 2026-11-30T12:00:00Z | 30",
                "2026-11-27T12:00:00Z |       | 2026-11-30T12:00:00Z | 28 29 30",
                // In the middle of the night to the 30th it is not over yet.
                "2026-11-27T12:00:00Z | 28    | 2026-11-30T02:00:00Z | 29",
                // Switched on in the middle of a night: that one does not count.
                "2026-11-28T02:00:00Z |       | 2026-11-29T12:00:00Z | 29",
                "2026-11-30T12:00:00Z |       | 2026-11-30T12:00:00Z | ",
                // A clock that was set back misses nothing.
                "2026-11-27T12:00:00Z | 28 29 | 2026-11-26T12:00:00Z | ",
            })
    void missed(Instant since, String had, Instant now, String missed) {
        var days = had == null ? Stream.<String>empty() : Arrays.stream(had.split(" "));
        assertThat(Morning.missed(
                                WatchHours.USUAL,
                                since,
                                days.map(d -> LocalDate.of(2026, 11, Integer.parseInt(d)))
                                        .collect(Collectors.toSet()),
                                new SiteClock(now, ZoneId.of("Europe/Berlin"), DateStyle.WORDS))
                        .stream()
                        .map(d -> String.valueOf(d.getDayOfMonth()))
                        .collect(Collectors.joining(" ")))
                .isEqualTo(missed == null ? "" : missed);
    }

    @DisplayName("One mail for all sites: what is new, what nobody looked at, who has nothing new, what is due")
    @Test
    void mail() {
        var bad = new MorningText.Site(
                "Barn",
                new Outcome(1, 1, 0, 3, 4),
                List.of(
                        new Line(
                                News.NEW,
                                new Seen("a", "b", 1, "Till 1 did not answer", "It says:\r\nBcc: x\u0007"),
                                NOW),
                        new Line(News.STILL, new Seen("c", "d", 2, "Hub is old", ""), NOW)),
                List.of(new Left("The night was too short.", List.of("A", "B", "C", "D"))),
                List.of(LocalDate.of(2026, 11, 29)));
        var good = new MorningText.Site("Clinic", new Outcome(0, 2, 0, 5, 0), List.of(), List.of(), List.of());
        var due = new Notice(
                Notice.What.DUE,
                new Notice.Site(2, "Clinic"),
                Station.REGISTER,
                OptionalLong.empty(),
                NOW,
                "",
                "Renew Copier",
                "It ends today.");
        var mail = MorningText.of(LocalDate.of(2026, 12, 1), DateStyle.WORDS, List.of(good, bad), List.of(due));
        assertThat(mail.subject()).isEqualTo("Knot Tag, 1 Dec 2026: 1 new at Barn, 4 looks not made");
        assertThat(mail.body()).isEqualTo("""
                Barn: One thing is new, 1 stands as before. 4 of 7 looks were not made.
                  - Till 1 did not answer. It says: Bcc: x
                  - Not looked at: A and 3 more looks. The night was too short.

                Barn: nobody looked in the nights to 29 Nov 2026.
                Nothing new at Clinic, where all looks were made.

                Due today:
                  - Clinic: Renew Copier. It ends today.
                """);
        assertThat(MorningText.of(LocalDate.of(2026, 12, 1), DateStyle.WORDS, List.of(good), List.of())
                        .subject())
                .isEqualTo("Knot Tag, 1 Dec 2026: nothing new at Clinic");
    }
}
