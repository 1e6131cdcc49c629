package app.knottag.core.series;

import static org.assertj.core.api.Assertions.assertThat;

import app.knottag.core.address.Ipv4Prefix;
import app.knottag.core.address.Pool;
import app.knottag.core.address.Segment;
import app.knottag.core.series.Series.Counts;
import app.knottag.core.series.SeriesFit.Neighbour;
import app.knottag.core.series.SeriesFit.SeriesBase;
import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import java.util.SplittableRandom;
import java.util.TreeSet;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class SeriesPropertiesTest {

    @DisplayName("Every number up to the room has an address that can be fixed, and the next one has a reason")
    @ParameterizedTest(name = "seed {0}")
    @ValueSource(longs = {1, 2, 3})
    void roomIsExactlyWhatFits(long seed) {
        var r = new SplittableRandom(seed);
        for (int i = 0; i < 300; i++) {
            var prefix = Ipv4Prefix.parse("10.7.0.0/" + r.nextInt(23, 29));
            long hosts = prefix.usableHosts();
            var network = prefix.network();
            long from = r.nextLong(2, hosts), to = r.nextLong(from, hosts);
            var segment = new Segment(
                    prefix,
                    Optional.of(network.plus(r.nextLong(1, hosts))),
                    List.of(new Pool(network.plus(from), network.plus(to))));
            int base = r.nextInt(0, (int) hosts);
            var series = new Series("A", Counts.HOST, base, 0, r.nextInt(3) == 0 ? r.nextInt(1, 40) : 0);
            var other = new Series("B", Counts.HOST, r.nextInt(0, (int) hosts), 0, r.nextInt(0, 20));
            var given = new TreeSet<Integer>();
            for (int g = r.nextInt(6); g > 0; g--) given.add(r.nextInt(1, 30));
            var fit = SeriesFit.of(
                    series,
                    new SeriesBase(Optional.of(segment), 0, List.of(new Neighbour(other, 0))),
                    given,
                    0,
                    LocalDate.EPOCH);
            for (int n = 1; n <= fit.room(); n++)
                assertThat(segment.fixable(series.address(prefix, n).orElseThrow()))
                        .isTrue();
            assertThat(fit.why()).endsWith(".");
            assertThat(fit.firstUnfit()).isEqualTo(fit.room() + 1);
            if (series.last() > 0) assertThat(fit.room()).isLessThanOrEqualTo(series.last());
            assertThat(fit.taken())
                    .isEqualTo((int) given.stream().filter(n -> n <= fit.room()).count());
            if (fit.next() == null) assertThat(fit.taken()).isEqualTo(fit.room());
            else {
                assertThat(given).doesNotContain(fit.next());
                assertThat(given.headSet(fit.next())).hasSize(fit.next() - 1);
            }
        }
    }

    @DisplayName("Figure and number are each other's inverse")
    @ParameterizedTest(name = "base {0}")
    @ValueSource(ints = {0, 50, 199, 7450, 65_534})
    void inverse(int base) {
        var series = new Series("A", Counts.NUMBER, base, 0, 0);
        for (int n = 1; n <= 9_999; n += 37)
            assertThat(series.numberOf(series.figure(n))).hasValue(n);
        assertThat(series.numberOf(base)).isEmpty();
        assertThat(series.numberOf(base + 10_000L)).isEmpty();
    }
}
