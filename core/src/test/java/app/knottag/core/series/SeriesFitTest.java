package app.knottag.core.series;

import static org.assertj.core.api.Assertions.assertThat;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Ipv4Prefix;
import app.knottag.core.address.Pool;
import app.knottag.core.address.Segment;
import app.knottag.core.series.Series.Counts;
import app.knottag.core.series.SeriesFit.Neighbour;
import app.knottag.core.series.SeriesFit.SeriesBase;
import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class SeriesFitTest {

    private static final LocalDate TODAY = LocalDate.of(2026, 11, 24);
    private static final Segment SHOP = new Segment(
            Ipv4Prefix.parse("10.44.16.0/24"),
            Optional.of(Ipv4Address.parse("10.44.16.90")),
            List.of(new Pool(Ipv4Address.parse("10.44.16.100"), Ipv4Address.parse("10.44.16.199"))));

    private static SeriesFit fit(Counts counts, int base, int last, Series other, int given) {
        var others = other == null ? List.<Neighbour>of() : List.of(new Neighbour(other, 2));
        return SeriesFit.of(
                new Series("Till", counts, base, 0, last),
                new SeriesBase(Optional.of(SHOP), 24, others),
                IntStream.rangeClosed(1, given).boxed().toList(),
                0,
                TODAY);
    }

    @DisplayName("A run ends where something stands in its way, and says what")
    @ParameterizedTest(name = "{0} base {1} last {2}: room {3}")
    @CsvSource(
            delimiter = '|',
            value = {
                "HOST           | 50    | 0  | 39   | Host 90 is the gateway.",
                "HOST           | 50    | 15 | 15   | The series is meant to end at number 15.",
                "HOST           | 91    | 0  | 8    | Host 100 lies in the pool 10.44.16.100 to 10.44.16.199.",
                "HOST           | 199   | 0  | 55   | Host 255 leaves 10.44.16.0/24.",
                "HOST           | 100   | 0  | 0    | Host 101 lies in the pool 10.44.16.100 to 10.44.16.199.",
                "LISTENING_PORT | 65530 | 0  | 5    | Ports end at 65535.",
                "GEAR_PORT      | 4     | 0  | 20   | There is no LAN port after 24: a second switch is needed, which "
                        + "takes one port itself.",
                "NUMBER         | 0     | 0  | 9999 | Numbers end at 9999.",
            })
    void ends(Counts counts, int base, int last, int room, String why) {
        var fit = fit(counts, base, last, null, 0);
        assertThat(fit.room()).isEqualTo(room);
        assertThat(fit.firstUnfit()).isEqualTo(room + 1);
        assertThat(fit.why()).isEqualTo(why);
        assertThat(fit.next()).isEqualTo(room == 0 ? null : 1);
    }

    @Test
    void itStopsBeforeAnotherRunAndTheOtherDoesNotStopForIt() {
        var pads = new Series("PIN pad", Counts.HOST, 70, 0, 0);
        assertThat(fit(Counts.HOST, 50, 0, pads, 0).room()).isEqualTo(20);
        assertThat(fit(Counts.HOST, 50, 0, pads, 0).why())
                .isEqualTo("From 71 on it runs into “PIN pad”, whose number 1 it is.");
        assertThat(fit(Counts.HOST, 60, 0, new Series("Low", Counts.HOST, 50, 0, 0), 0)
                        .room())
                .isEqualTo(29);
        assertThat(fit(Counts.HOST, 60, 0, new Series("Low", Counts.HOST, 50, 0, 15), 0)
                        .room())
                .isZero();
    }

    @DisplayName("The next number is the lowest free one, and growth says when the last one goes")
    @ParameterizedTest(name = "{0} of 15 given, {1} a year: next {2}, full {3}")
    @CsvSource(
            nullValues = "-",
            value = {
                "3, 0, 4, -",
                "3, 6, 4, 2028-11-23",
                "15, 6, -, 2026-11-24",
                "14, 0.001, 15, -",
                "0, 15, 1, 2027-11-24"
            })
    void grows(int given, double perYear, Integer next, LocalDate full) {
        var fit = SeriesFit.of(
                new Series("Till", Counts.HOST, 50, 0, 15),
                new SeriesBase(Optional.of(SHOP), 0, List.of()),
                IntStream.rangeClosed(1, given).boxed().toList(),
                perYear,
                TODAY);
        assertThat(fit.next()).isEqualTo(next);
        assertThat(fit.fullOn()).isEqualTo(full);
        assertThat(fit.taken()).isEqualTo(given);
    }

    @Test
    void listeningPortsCountUpFromTheBase() {
        var ports = new Series("Terminal ports", Counts.LISTENING_PORT, 7450, 0, 0);
        assertThat(ports.port(4)).hasValue(7454);
        assertThat(ports.address(SHOP.prefix(), 4)).isEmpty();
        assertThat(ports.numberOf(7454)).hasValue(4);
        assertThat(ports.numberOf(7450)).isEmpty();
    }
}
