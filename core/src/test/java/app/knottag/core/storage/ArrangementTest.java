package app.knottag.core.storage;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import app.knottag.core.reading.ReadingException;
import java.util.Arrays;
import java.util.Collections;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;

class ArrangementTest {

    private static final int PRIME = 251;

    private static List<Double> drives(String sizes) {
        return Stream.of(sizes.split(" ")).map(Double::valueOf).toList();
    }

    @DisplayName("What is usable, what lies idle, what it outlives")
    @ParameterizedTest(name = "{0} {1}")
    @CsvSource({
        "SINGLE, 4, 4, 0, 0",
        "SINGLE, 4 2, 6, 0, 0",
        "JOINED, 4 2, 6, 0, 0",
        "STRIPED, 4 4, 8, 0, 0",
        "STRIPED, 4 2, 4, 2, 0",
        "MIRRORED, 4 4, 4, 0, 1",
        "MIRRORED, 4 3, 3, 1, 1",
        "MIRRORED, 2 2 2, 2, 0, 2",
        "PARITY, 4 4 4, 8, 0, 1",
        "PARITY, 4 4 3 4, 9, 3, 1",
        "DOUBLE_PARITY, 4 4 4 4, 8, 0, 2",
        "DOUBLE_PARITY, 8 8 8 8 8 2, 8, 30, 2",
    })
    void sums(Arrangement joined, String sizes, double usable, double lost, int outlives) {
        var drives = drives(sizes);
        assertThat(joined.usable(drives)).isEqualTo(usable);
        assertThat(joined.lost(drives)).isEqualTo(lost);
        assertThat(joined.outlives(drives.size())).isEqualTo(outlives);
    }

    /** What each drive holds as a mixture of the data, in numbers below a prime: a row for a drive, a column for a piece of data. */
    private static int[][] holds(Arrangement joined, int drives) {
        int data = (int) joined.usable(Collections.nCopies(drives, 1.0));
        var rows = new int[drives][data];
        for (int d = 0; d < drives; d++)
            for (int k = 0; k < data; k++)
                rows[d][k] =
                        d < data ? d == k ? 1 : 0 : joined == Arrangement.DOUBLE_PARITY && d == drives - 1 ? k + 1 : 1;
        return rows;
    }

    /** Whether all data can be worked out again from these drives: Gauss, in numbers below the prime. */
    private static boolean readable(int[][] rows, int data) {
        rows = Arrays.stream(rows).map(int[]::clone).toArray(int[][]::new);
        int rank = 0;
        for (int column = 0; column < data; column++) {
            int pivot = rank;
            while (pivot < rows.length && rows[pivot][column] == 0) pivot++;
            if (pivot == rows.length) return false;
            var swap = rows[rank];
            rows[rank] = rows[pivot];
            rows[pivot] = swap;
            for (int r = 0; r < rows.length; r++)
                while (r != rank && rows[r][column] != 0)
                    for (int c = data - 1; c >= 0; c--) rows[r][c] = (rows[r][c] + rows[rank][c]) % PRIME;
            rank++;
        }
        return true;
    }

    @DisplayName("It outlives as many failed drives as the data can really be worked out without, and no more")
    @ParameterizedTest
    @EnumSource(
            value = Arrangement.class,
            names = {"STRIPED", "MIRRORED", "PARITY", "DOUBLE_PARITY"})
    void everyFailure(Arrangement joined) {
        for (int drives = joined.fewest(); drives <= Math.min(7, joined.most()); drives++) {
            var rows = holds(joined, drives);
            int fewestFatal = drives;
            for (int failed = 1; failed < 1 << drives; failed++) {
                int mask = failed;
                var left = java.util.stream.IntStream.range(0, drives)
                        .filter(d -> (mask & 1 << d) == 0)
                        .mapToObj(d -> rows[d])
                        .toArray(int[][]::new);
                if (!readable(left, rows[0].length)) fewestFatal = Math.min(fewestFatal, Integer.bitCount(failed));
            }
            assertThat(joined.outlives(drives)).as(joined + " of " + drives).isEqualTo(fewestFatal - 1);
        }
    }

    @DisplayName("Hours of a full pass")
    @ParameterizedTest(name = "{0} {1} at {2} MB/s: {3} h")
    @CsvSource({
        "SINGLE, 4, 150, 7.41",
        "MIRRORED, 4 4, 150, 7.41",
        "MIRRORED, 4 2, 150, 3.7",
        "SINGLE, 2 8, 200, 11.1",
        "PARITY, 16 16 16, 180, 24.7"
    })
    void hours(Arrangement joined, String sizes, double rate, double hours) {
        assertThat(joined.hours(drives(sizes), rate)).isCloseTo(hours, org.assertj.core.data.Offset.offset(0.05));
    }

    @DisplayName("What a rebuild risks: read all that is left, one bit in so many cannot be")
    @ParameterizedTest(name = "{0} {1}, 1 in {2}: {3}")
    @CsvSource({
        "MIRRORED, 4 4, 1e14, 0.274", // 1 - exp(-0.32)
        "PARITY, 4 4 4, 1e14, 0.473", // 1 - exp(-0.64)
        "PARITY, 4 4 4, 1e15, 0.062",
        "DOUBLE_PARITY, 4 4 4 4, 1e14, 0",
        "MIRRORED, 4 4 4, 1e14, 0",
    })
    void rebuild(Arrangement joined, String sizes, double oneIn, double chance) {
        assertThat(joined.rebuildFails(drives(sizes), oneIn))
                .isCloseTo(chance, org.assertj.core.data.Offset.offset(0.0005));
    }

    @ParameterizedTest(name = "{0} of {1} drives")
    @CsvSource({"MIRRORED, 1", "STRIPED, 1", "PARITY, 2", "DOUBLE_PARITY, 3", "MIRRORED, 5"})
    void tooFewOrMany(Arrangement joined, int drives) {
        var sizes = Collections.nCopies(drives, 4.0);
        assertThatThrownBy(() -> joined.usable(sizes)).isInstanceOf(ReadingException.class);
    }
}
