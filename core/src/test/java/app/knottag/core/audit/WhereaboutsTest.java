package app.knottag.core.audit;

import static org.assertj.core.api.Assertions.assertThat;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.audit.Whereabouts.Stretch;
import app.knottag.core.hardware.Mac;
import app.knottag.core.plan.Sighting.Source;
import app.knottag.core.time.DateStyle;
import app.knottag.core.time.SiteClock;
import java.time.Instant;
import java.time.ZoneId;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What is said of the past, by hand from a few weeks of looks in March 2026. */
class WhereaboutsTest {

    private static final SiteClock CLOCK =
            new SiteClock(Instant.parse("2026-03-31T12:00:00Z"), ZoneId.of("Europe/Amsterdam"), DateStyle.WORDS);

    private static Instant day(String day) {
        return Instant.parse("2026-03-" + day + "T01:00:00Z");
    }

    /** Such as "A 52 03-09", a device called A at 10.0.0.52 from the third to the ninth. */
    private static Stretch stretch(String text) {
        var part = text.strip().split(" ");
        var mac = part[0].equals("-") ? Optional.<Mac>empty() : Optional.of(Mac.parse("00:00:5E:00:53:0" + part[0]));
        return new Stretch(
                Ipv4Address.parse("10.0.0." + part[1]),
                mac,
                0,
                Map.of("A", "Till 1", "C", "Scale").getOrDefault(part[0], ""),
                part.length == 4 && part[3].length() > 1 ? Source.valueOf(part[3]) : Source.NEIGHBOURS,
                day(part[2].substring(0, 2)),
                day(part[2].substring(3)),
                1,
                part.length == 4 && part[3].length() == 1 ? part[3] : "");
    }

    private static List<Stretch> stretches(String text) {
        return text == null
                ? List.of()
                : Arrays.stream(text.split(",")).map(WhereaboutsTest::stretch).toList();
    }

    @DisplayName("Where a device has been")
    @ParameterizedTest
    @CsvSource(delimiter = '|', textBlock = """
            | Nobody has seen it yet.
            A 52 03-09 | Nobody has seen it anywhere but at 10.0.0.52, first 3 Mar 2026, 02:00, last seen 9 Mar 2026, 02:00.
            A 52 20-30, A 52 03-05 | Nobody has seen it anywhere but at 10.0.0.52, first 3 Mar 2026, 02:00, last seen 30 Mar 2026, 03:00.
            A 52 03-09, A 120 10-14 | It has been at 2 addresses; at 10.0.0.120 since 10 Mar 2026, 02:00, last seen 14 Mar 2026, 02:00.
            A 52 03-09 SHEET | Nobody has seen it; a list has it at 10.0.0.52, last 9 Mar 2026, 02:00.
            A 9 03-09, A 8 03-09 LEASES | It has been at 2 addresses; at 10.0.0.9 since 3 Mar 2026, 02:00, last seen 9 Mar 2026, 02:00.
            A 9 03-09, A 9 10-14 B | It has been at 2 addresses; at 10.0.0.9 in B since 10 Mar 2026, 02:00, last seen 14 Mar 2026, 02:00.
            """)
    void device(String seen, String said) {
        assertThat(Whereabouts.ofMac(stretches(seen), CLOCK)).isEqualTo(said);
    }

    @DisplayName("Who has had an address, and whether two had it at once")
    @ParameterizedTest
    @CsvSource(delimiter = '|', textBlock = """
            | Nobody has been seen there yet.
            - 52 03-09 SHEET | Nobody was seen there, but a list says that it is taken; last 9 Mar 2026, 02:00.
            A 52 03-09 | Nobody but Till 1 was seen there, last seen there 9 Mar 2026, 02:00.
            B 52 03-09, A 52 10-14 | 2 devices have had it, one after the other; the last is Till 1, last seen there 14 Mar 2026, 02:00.
            A 52 03-09, B 52 09-14 | Two had it at the same time: Till 1 and 00:00:5E:00:53:0B (not on record), on 9 Mar 2026, 02:00.
            A 52 03-20, C 52 09-14 | Two have had it, by turns or at the same time: Till 1 and Scale, on 9 Mar 2026, 02:00.
            A 52 03-09, - 52 05-20 SHEET | Nobody but Till 1 was seen there, last seen there 9 Mar 2026, 02:00.
            """)
    void address(String seen, String said) {
        assertThat(Whereabouts.ofAddress(stretches(seen), CLOCK)).isEqualTo(said);
    }

    @DisplayName("Who was there at a time, and when somebody looked when nobody did then")
    @ParameterizedTest
    @CsvSource(delimiter = '|', textBlock = """
            A 52 03-09 | | | One device was there, as far as the looks before and after tell.
            A 52 03-09 SHEET | | | Only lists speak of that time; nobody was seen.
            A 52 03-09, A 52 03-09, B 53 09-14, - 54 03-09 SHEET | | | 2 devices were there, as far as the looks before and after tell.
            | 09 | 20 | Nobody looked about then: the last look before it was 9 Mar 2026, 02:00, the next one 20 Mar 2026, 02:00.
            | | 20 | Nobody looked about then: it is before the first look, the next one 20 Mar 2026, 02:00.
            | 09 | | Nobody looked about then: the last look before it was 9 Mar 2026, 02:00, and nobody has looked since.
            | | | Nobody has been seen there yet.
            """)
    void time(String seen, String before, String after, String said) {
        assertThat(Whereabouts.at(
                        stretches(seen),
                        Optional.ofNullable(before).map(WhereaboutsTest::day),
                        Optional.ofNullable(after).map(WhereaboutsTest::day),
                        CLOCK))
                .isEqualTo(said);
    }
}
