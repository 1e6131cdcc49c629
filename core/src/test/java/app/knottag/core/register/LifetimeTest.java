package app.knottag.core.register;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import app.knottag.core.register.GuestPasses.Hours;
import app.knottag.core.register.Lifetime.Unit;
import app.knottag.core.register.Registration.State;
import app.knottag.core.time.DateStyle;
import app.knottag.core.time.SiteClock;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** How long registrations hold, also on the two nights of the year that are not 24 hours long. */
class LifetimeTest {

    static final ZoneId BERLIN = ZoneId.of("Europe/Berlin");

    static Instant at(String local, ZoneId zone) {
        return LocalDateTime.parse(local).atZone(zone).toInstant();
    }

    @DisplayName("Hours are counted to the minute, days to the end of the day at the site")
    @ParameterizedTest(name = "{2} {1} from {0} in {3}")
    @CsvSource(
            delimiter = '|',
            nullValues = "-",
            value = {
                "2026-11-25T10:00 | HOURS | 24  | Europe/Berlin    | 2026-11-26T10:00 | -",
                "2026-03-28T10:00 | HOURS | 24  | Europe/Berlin    | 2026-03-29T11:00 | The clocks change before it "
                        + "ends: it ends 60 min later by the clock than it began.",
                "2026-10-24T10:00 | HOURS | 24  | Europe/Berlin    | 2026-10-25T09:00 | The clocks change before it "
                        + "ends: it ends 60 min earlier by the clock than it began.",
                "2026-10-24T10:00 | HOURS | 24  | Asia/Kolkata     | 2026-10-25T10:00 | -",
                "2026-03-28T23:30 | DAYS  | 1   | Europe/Berlin    | 2026-03-30T00:00 | -",
                "2026-10-24T00:00 | DAYS  | 1   | Europe/Berlin    | 2026-10-26T00:00 | -",
                "2026-11-25T10:00 | DAYS  | 365 | Europe/Berlin    | 2027-11-26T00:00 | -",
                "2028-02-28T10:00 | DAYS  | 1   | Europe/Berlin    | 2028-03-01T00:00 | -",
                // The day there begins at one: midnight does not exist.
                "2026-09-04T12:00 | DAYS  | 1   | America/Santiago | 2026-09-06T01:00 | -",
                "2026-04-04T12:00 | HOURS | 24  | Australia/Lord_Howe | 2026-04-05T11:30 | The clocks change before it "
                        + "ends: it ends 30 min earlier by the clock than it began.",
            })
    void ends(String from, Unit unit, int amount, ZoneId zone, String end, String clock) {
        var life = new Lifetime(unit, amount);
        assertThat(life.end(at(from, zone), zone).atZone(zone).toLocalDateTime())
                .isEqualTo(LocalDateTime.parse(end));
        assertThat(life.clockChange(at(from, zone), zone)).isEqualTo(Optional.ofNullable(clock));
    }

    @ParameterizedTest(name = "{1} {0}")
    @CsvSource({"HOURS, 0, 8784", "HOURS, 8785, 8784", "DAYS, 3661, 3660", "DAYS, -1, 3660"})
    void refusesAmountsOutOfRange(Unit unit, int amount, int most) {
        assertThatThrownBy(() -> new Lifetime(unit, amount))
                .hasMessage("a registration lasts 1.." + most + " " + unit + ", was " + amount);
    }

    @DisplayName("In force only after the restart that follows, ending soon in its last quarter")
    @ParameterizedTest(name = "asked {0}, entered {1}, restarted {2}, now {3}")
    @CsvSource(
            delimiter = '|',
            nullValues = "-",
            value = {
                "-                | -                | -                | 2026-11-25T12:00 | TO_REGISTER | false | Register it.",
                "2026-11-24T12:00 | -                | -                | 2026-11-25T12:00 | SUBMITTED   | false | Waits for the desk.",
                "2026-11-20T12:00 | -                | -                | 2026-11-25T12:00 | SUBMITTED   | false | Ask "
                        + "the desk: handed in 5 days ago, it takes 3.",
                "2026-11-24T12:00 | 2026-11-25T08:00 | -                | 2026-11-25T12:00 | SUBMITTED   | true  | "
                        + "Restart the device: it joins only afterwards.",
                "2026-11-24T12:00 | 2026-11-25T08:00 | 2026-11-25T07:59 | 2026-11-25T12:00 | SUBMITTED   | true  | "
                        + "Restart the device: it joins only afterwards.",
                "2026-11-24T12:00 | 2026-11-25T08:00 | 2026-11-25T08:00 | 2026-11-25T12:00 | IN_FORCE    | false | ''",
                "-                | 2026-11-25T08:00 | 2026-11-25T09:00 | 2026-11-26T01:59 | IN_FORCE    | false | ''",
                "-                | 2026-11-25T08:00 | 2026-11-25T09:00 | 2026-11-26T02:00 | EXPIRING    | false | Renew it.",
                "-                | 2026-11-25T08:00 | 2026-11-25T09:00 | 2026-11-26T07:59 | EXPIRING    | false | Renew it.",
                "-                | 2026-11-25T08:00 | 2026-11-25T09:00 | 2026-11-26T08:00 | ENDED       | false | Register it again.",
                "-                | 2026-11-25T08:00 | -                | 2026-11-26T08:00 | ENDED       | false | Register it again.",
            })
    void standing(
            String asked, String entered, String restarted, String now, State state, boolean pending, String next) {
        var rules = RegisterSamples.rules(Registry.Type.GUEST_DESK, "the desk", 3);
        var held = RegisterSamples.entry("till", "00:00:5E:00:53:10");
        var from = Optional.ofNullable(entered).map(t -> at(t, BERLIN));
        var registration = new Registration(
                1,
                1,
                1,
                held,
                Optional.ofNullable(asked).map(t -> at(t, BERLIN)),
                from,
                Optional.ofNullable(restarted).map(t -> at(t, BERLIN)),
                from.flatMap(f -> Registration.end(rules, f, BERLIN)),
                Optional.empty());
        assertThat(registration.standing(rules, at(now, BERLIN)))
                .isEqualTo(new Registration.Standing(state, pending, next));
    }

    @DisplayName("A stay in hours needs so many passes, some of them when nobody is there")
    @ParameterizedTest(name = "{0} to {1}")
    @CsvSource(
            delimiter = '|',
            value = {
                "2026-11-23T09:30 | 2026-11-24T09:30 | 1 | 0 | ''",
                "2026-11-23T09:30 | 2026-11-24T09:31 | 2 | 0 | ''",
                "2026-11-23T09:30 | 2026-11-26T17:00 | 4 | 0 | ''",
                "2026-11-23T09:30 | 2026-11-27T17:00 | 5 | 0 | That is 4 renewals. Ask for an account that lasts longer.",
                "2026-11-23T19:00 | 2026-11-25T12:00 | 2 | 1 | Nobody is at the desk for 1 of 1 renewals. Ask for an "
                        + "account that lasts longer, or renew each day before the desk shuts.",
                // The clocks go back: the second pass ends at 16:30 by the clock, the third too.
                "2026-10-24T17:30 | 2026-10-26T17:00 | 3 | 0 | ''",
                "2026-03-28T17:30 | 2026-03-29T19:00 | 2 | 1 | Nobody is at the desk for 1 of 1 renewals. Ask for an "
                        + "account that lasts longer, or renew each day before the desk shuts.",
            })
    void countsGuestPasses(String from, String until, int registrations, int outside, String advice) {
        var passes = GuestPasses.of(
                at(from, BERLIN),
                at(until, BERLIN),
                new Lifetime(Unit.HOURS, 24),
                new Hours(LocalTime.of(8, 0), LocalTime.of(18, 0)),
                BERLIN);
        assertThat(passes.registrations()).isEqualTo(registrations);
        assertThat(passes.dues().stream().filter(d -> !d.inHours())).hasSize(outside);
        assertThat(passes.advice()).isEqualTo(advice);
    }

    @Test
    void aStayEndsAfterItBegins() {
        var now = at("2026-11-23T09:30", BERLIN);
        assertThatThrownBy(() -> GuestPasses.of(
                        now, now, new Lifetime(Unit.HOURS, 24), new Hours(LocalTime.MIN, LocalTime.MAX), BERLIN))
                .hasMessage("A stay lasts up to a year and ends after it begins.");
    }

    @Test
    void reminderTellsTheDayAtTheSiteAndWhatTheClocksDo() {
        var rules = RegisterSamples.rules(Registry.Type.GUEST_DESK, "", 0);
        var desk = RegisterSamples.registry(7, "Desk", Registry.Type.GUEST_DESK, rules);
        var unit = RegisterSamples.unit(3, "Laptop", "WIRED 10*");
        var from = at("2026-10-24T10:00", BERLIN);
        var held = RegisterSamples.entry("Laptop", "00:00:5E:00:53:10");
        var registration = new Registration(
                9,
                7,
                3,
                held,
                Optional.empty(),
                Optional.of(from),
                Optional.of(from),
                Registration.end(rules, from, BERLIN),
                Optional.empty());
        var list = Reminders.of(
                List.of(new Reminders.Subject(desk, registration, unit, held)),
                List.of(),
                new SiteClock(from, BERLIN, DateStyle.WORDS));
        assertThat(list).singleElement().satisfies(r -> {
            assertThat(r.key() + ": " + r.title() + ". " + r.detail())
                    .isEqualTo(
                            "renew-9: Renew Laptop in Desk. It ends on 25 Oct 2026, 09:00. The clocks change before it "
                                    + "ends: it ends 60 min earlier by the clock than it began.");
            assertThat(r.at()).isEqualTo(at("2026-10-25T04:00", BERLIN).minusSeconds(3600));
            assertThat(r.due(from, BERLIN)).isFalse();
            assertThat(r.due(at("2026-10-25T00:01", BERLIN), BERLIN)).isTrue();
        });
        assertThat(Set.of(list.get(0).what())).containsExactly(Reminders.What.RENEW);
    }

    @DisplayName(
            "Passes last elapsed hours: as many as counting the minutes of the stay one by one gives, on both changes")
    @ParameterizedTest(name = "{0} to {1}")
    @CsvSource({
        "2026-10-24T02:30, 2026-10-26T02:30",
        "2026-10-24T17:30, 2026-10-26T17:00",
        "2026-10-25T00:00, 2026-10-26T00:00",
        "2026-03-28T12:00, 2026-03-30T12:00",
        "2026-03-28T12:00, 2026-03-30T13:00",
    })
    void passesByTheMinute(String from, String until) {
        var begin = at(from, BERLIN);
        int passes = 0, left = 0;
        for (var minute = begin; minute.isBefore(at(until, BERLIN)); minute = minute.plusSeconds(60)) {
            if (left == 0) {
                passes++;
                left = 24 * 60;
            }
            left--;
        }
        assertThat(GuestPasses.of(
                                begin,
                                at(until, BERLIN),
                                new Lifetime(Unit.HOURS, 24),
                                new Hours(LocalTime.MIN, LocalTime.MAX),
                                BERLIN)
                        .registrations())
                .isEqualTo(passes);
    }

    @DisplayName("Lines of a calendar have at most 75 octets, and unfolded they are what they were")
    @ParameterizedTest(name = "{0}")
    @ValueSource(strings = {"a", "ä", "€", "\uD83D\uDE00"})
    void folds(String letter) {
        String text = "BEGIN:VCALENDAR\r\nSUMMARY:" + letter.repeat(120) + "\r\nEND:VCALENDAR\r\n";
        String folded = CalendarText.fold(text);
        assertThat(folded.split("\r\n"))
                .allMatch(l -> l.getBytes(java.nio.charset.StandardCharsets.UTF_8).length <= 75);
        assertThat(folded.replace("\r\n ", "")).isEqualTo(text);
    }
}
