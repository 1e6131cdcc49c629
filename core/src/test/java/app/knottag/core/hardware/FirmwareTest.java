package app.knottag.core.hardware;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.util.Optional;
import java.util.Random;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class FirmwareTest {

    /** Written by hand before the code ran. */
    @ParameterizedTest(name = "{0} before {1}: {2}")
    @CsvSource(
            delimiter = '|',
            value = {
                "2.4.0          | 2.4.1    | older",
                "2.4.1          | 2.4.1    | not",
                "2.10           | 2.9      | not",
                "2.9            | 2.10     | older",
                "V2.4           | 2.4.0    | not",
                "fw 1.9.9       | v2.0     | older",
                "Version 3.1    | 3.0      | not",
                "2.4            | 2.4.1    | older",
                // 03 may be three, or three hundredths
                "2.03           | 2.1      | ?",
                "2.03           | 2.10     | older",
                "2.03           | 3.1      | older",
                // a letter may be a trial before it or a mend after it
                "2.4b           | 2.4      | ?",
                "2.4b           | 2.4.1    | ?",
                "2.4b           | 2.5      | older",
                "2.5-rc1        | 2.4      | not",
                "2.4 build 118  | 2.4 build 118 | not",
                "2.4 build 118  | 2.4 build 120 | ?",
                // a day against a version
                "20250311       | 2.4.1    | ?",
                "20250311       | 20250401 | older",
                "20250311.2     | 20250311.10 | older",
                "N/A            | 2.4      | ?",
                "A3             | A4       | ?",
                "99999999999999999999.1 | 99999999999999999999.2 | older",
            })
    void whichIsOlder(String version, String than, String expected) {
        assertThat(Firmware.older(version, than).map(o -> o ? "older" : "not").orElse("?"))
                .isEqualTo(expected);
    }

    @ParameterizedTest(name = "fault of {0}, unit {1} with {2}: {3}")
    @CsvSource(
            delimiter = '|',
            value = {
                "''   | ''    | 2.3 | OLD",
                "''   | LW-30 | 2.3 | OLD",
                "LW-30| lw 30 | 2.3 | OLD",
                "LW-30| LW-31 | 2.3 | OTHER_MODEL",
                "LW-30| LW-31 |     | OTHER_MODEL",
                // its model is not on record
                "LW-30| ''    | 2.3 | UNSURE",
                "LW-30| ''    |     | UNREAD",
                "''   | ''    |     | UNREAD",
                "''   | ''    | 2.4 | MENDED",
                "''   | ''    | 2.4a| UNSURE",
            })
    void whoHasAFault(String faulty, String model, String version, Firmware.Verdict expected) {
        assertThat(Firmware.judge(faulty, model, Optional.ofNullable(version), "2.4"))
                .isEqualTo(expected);
    }

    /** The judge is the order in which the system's own packages are compared, for plain figures. */
    @Test
    void plainFiguresAreOrderedAsPackagesAre() throws IOException, InterruptedException {
        var random = new Random(7);
        for (int n = 0; n < 150; n++) {
            String a = figures(random), b = figures(random);
            // There the end of the figures comes before a nought; here it is one.
            if (a.startsWith(b + ".0") || b.startsWith(a + ".0")) continue;
            int older = new ProcessBuilder("dpkg", "--compare-versions", a, "lt", b)
                    .start()
                    .waitFor();
            assertThat(Firmware.older(a, b)).as(a + " " + b).contains(older == 0);
        }
    }

    private static String figures(Random random) {
        return random.ints(1L + random.nextInt(4), 0, 14)
                .mapToObj(Integer::toString)
                .collect(Collectors.joining("."));
    }

    @ParameterizedTest
    @CsvSource({"2.4, true", "none, false", "B, false", "'2 345678901234567890123456789012345678901', false"})
    void aVersionHasAFigure(String text, boolean good) {
        assertThat(Firmware.problem(text).isEmpty()).isEqualTo(good);
    }
}
