package app.knottag.core.time;

import static org.assertj.core.api.Assertions.assertThat;

import app.knottag.core.reading.Finding;
import app.knottag.core.reading.Reading;
import app.knottag.core.time.TimeReader.Form;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;

class TimeReaderTest {

    private static String said(Reading r) {
        if (r.value() != null) return r.value();
        Finding f = r.findings().get(0);
        return f.candidates().isEmpty() ? f.message() : String.join(" or ", f.candidates());
    }

    @DisplayName("Days as people write them; what the site's order leaves open is asked")
    @ParameterizedTest(name = "{1} at {0}: {2}")
    @CsvSource(
            delimiter = '|',
            value = {
                "PERIODS     | 5.12.2026                | 2026-12-05",
                "PERIODS     | 05.12.26                 | 2026-12-05",
                "PERIODS     | 5/12/2026                | 2026-12-05",
                "PERIODS     | 5 12 2026                | 2026-12-05",
                "PERIODS     | 12.31.2026               | There is no month 31.",
                "PERIODS     | 2026-12-05               | 2026-12-05",
                "PERIODS     | 2026.12.5.               | 2026-12-05",
                "SLASHES     | 03/04/2026               | 2026-04-03",
                "MONTH_FIRST | 03/04/2026               | 2026-03-04",
                "MONTH_FIRST | 13/04/2026               | There is no month 13.",
                "MONTH_FIRST | 3.4.2026                 | 04/03/2026 or 03/04/2026",
                "MONTH_FIRST | 13.4.2026                | 2026-04-13",
                "YEAR_FIRST  | 03/04/2026               | 2026-04-03 or 2026-03-04",
                "YEAR_FIRST  | 03/03/2026               | 2026-03-03",
                "YEAR_FIRST  | 31/04/2026               | There is no day 31 in April 2026.",
                "WORDS       | 5 Dec 2026               | 2026-12-05",
                "WORDS       | Sat, 5 Dec 2026          | 2026-12-05",
                "WORDS       | Saturday 5th December 2026 | 2026-12-05",
                "WORDS       | Mon 5 Dec 2026           | 5 December 2026 is a Saturday. Look once more.",
                "YEAR_FIRST  | Wed 3/4/2026             | 2026-03-04",
                "WORDS       | Dec 5, 2026              | 2026-12-05",
                "WORDS       | 5. dec 2026              | 2026-12-05",
                "WORDS       | 5 Sept 2026              | 2026-09-05",
                "WORDS       | 5 Ju 2026                | “5 Ju 2026” is not a day. Type it as 29 Mar 2026.",
                "WORDS       | 5 Foo 2026               | “5 Foo 2026” is not a day. Type it as 29 Mar 2026.",
                "WORDS       | 29 Feb 2027              | There is no day 29 in February 2027.",
                "WORDS       | 29 Feb 2028              | 2028-02-29",
                "WORDS       | ５．１２．２０２６             | 2026-12-05",
                "WORDS       | 5.12.                    | “5.12.” is not a day. Type it as 29 Mar 2026.",
                "WORDS       | tomorrow                 | “tomorrow” is not a day. Type it as 29 Mar 2026.",
                "WORDS       | 1999-12-31               | A day from 2000 to 2099 is wanted.",
                "WORDS       | 2100-01-01               | A day from 2000 to 2099 is wanted.",
                "WORDS       | 0000-01-01               | A day from 2000 to 2099 is wanted.",
            })
    void days(DateStyle style, String text, String said) {
        assertThat(said(TimeReader.read(text, Form.DAY, style))).isEqualTo(said);
    }

    @DisplayName("Times of day as people write them")
    @ParameterizedTest(name = "{0}: {1}")
    @CsvSource(
            delimiter = '|',
            value = {
                "22:00      | 22:00",
                "22.00      | 22:00",
                "2200       | 22:00",
                "6:05       | 06:05",
                "22:00 h    | 22:00",
                "22 Uhr     | 22:00",
                "14h30      | 14:30",
                "9          | 09:00",
                "10 pm      | 22:00",
                "10:05 p.m. | 22:05",
                "12 am      | 00:00",
                "12:30 pm   | 12:30",
                "24:00      | 00:00",
                "13 pm      | There is no 13 pm.",
                "24:30      | There is no hour 24 in a day.",
                "22:60      | There is no minute 60 in an hour.",
                "930        | “930” is not a time of day. Type it as 14:05.",
                "noon       | “noon” is not a time of day. Type it as 14:05.",
            })
    void times(String text, String said) {
        assertThat(said(TimeReader.read(text, Form.TIME, DateStyle.PERIODS))).isEqualTo(said);
    }

    @DisplayName("A day and a time in one, in either order, as devices show them")
    @ParameterizedTest(name = "{1} at {0}: {2}")
    @CsvSource(
            delimiter = '|',
            value = {
                "WORDS       | 2026-03-29 14:05       | 2026-03-29T14:05",
                "WORDS       | 2026-03-29T14:05:09    | 2026-03-29T14:05:09",
                "WORDS       | 29.03.2026, 14:05      | 2026-03-29T14:05",
                "WORDS       | 14:05 29.03.2026       | 2026-03-29T14:05",
                "MONTH_FIRST | 3/29/2026 2:05 PM      | 2026-03-29T14:05",
                "MONTH_FIRST | 3/4/2026 2:05:30 pm    | 2026-03-04T14:05:30",
                "PERIODS     | 29.3.2026 9 Uhr        | 2026-03-29T09:00",
                "MONTH_FIRST | 3/29/2026 9pm          | 2026-03-29T21:00",
                "SLASHES     | Sun 29/03/2026 14.05   | 2026-03-29T14:05",
                "YEAR_FIRST  | 3/4/2026 14:05         | 2026-04-03, 14:05 or 2026-03-04, 14:05",
                "PERIODS     | 29.03.2026             | “29.03.2026” is not a day with a time. Type it as 29.03.2026, 14:05.",
                "PERIODS     | 29.03.2026 9           | “29.03.2026 9” is not a day with a time. Type it as 29.03.2026, 14:05.",
                "PERIODS     | 29.03.2026 24:00       | There is no 24:00 of a day here: say 0:00 of the next one.",
            })
    void moments(DateStyle style, String text, String said) {
        assertThat(said(TimeReader.read(text, Form.MOMENT, style))).isEqualTo(said);
    }

    @DisplayName("A device writes in its own order, whatever the site's: what may be two days is asked")
    @ParameterizedTest(name = "{0}: {1}")
    @CsvSource(
            delimiter = '|',
            value = {
                "11/12/2026 14:05   | 2026-12-11, 14:05 or 2026-11-12, 14:05",
                "2026-12-11, 14:05  | 2026-12-11T14:05",
                "11.12.2026 14:05   | 2026-12-11T14:05",
                "11/28/2026 2:05 PM | 2026-11-28T14:05",
                "28/11/2026 14:05   | 2026-11-28T14:05",
            })
    void shownByADevice(String text, String said) {
        for (var style : DateStyle.values())
            assertThat(said(TimeReader.read(text, Form.SHOWN, style))).isEqualTo(said);
    }

    @DisplayName("A clock may show any year; a visit is in none but ours")
    @Test
    void emptyBattery() {
        String shown = "01.01.1970 00:04";
        assertThat(said(TimeReader.read(shown, Form.SHOWN, DateStyle.PERIODS))).isEqualTo("1970-01-01T00:04");
        assertThat(said(TimeReader.read(shown, Form.MOMENT, DateStyle.PERIODS)))
                .isEqualTo("A day from 2000 to 2099 is wanted.");
    }

    @DisplayName("Nothing, too much, and what no calendar has is refused")
    @Test
    void refused() {
        assertThat(TimeReader.read(" ", Form.DAY, DateStyle.PERIODS).findings())
                .singleElement()
                .satisfies(f -> assertThat(f.code()).isEqualTo(Finding.Code.EMPTY));
        assertThat(TimeReader.read("9".repeat(5_000), Form.TIME, DateStyle.PERIODS)
                        .findings())
                .singleElement()
                .satisfies(f -> assertThat(f.code()).isEqualTo(Finding.Code.TOO_LONG));
    }

    @DisplayName("What a site writes, it reads again: each day of four years, each minute of a day")
    @ParameterizedTest
    @EnumSource(DateStyle.class)
    void readsWhatItWrites(DateStyle style) {
        var first = LocalDate.of(2026, 1, 1);
        for (var day = first; day.isBefore(first.plusYears(4)); day = day.plusDays(1))
            assertThat(said(TimeReader.read(style.day(day), Form.DAY, style))).isEqualTo(day.toString());
        for (int minute = 0; minute < 1440; minute++) {
            var time = LocalTime.MIDNIGHT.plusMinutes(minute);
            var moment = LocalDateTime.of(first.plusDays(minute), time);
            assertThat(said(TimeReader.read(style.time(time), Form.TIME, style)))
                    .isEqualTo(time.toString());
            assertThat(said(TimeReader.read(style.moment(moment), Form.MOMENT, style)))
                    .isEqualTo(moment.toString());
        }
    }
}
