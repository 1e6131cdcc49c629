package app.knottag.core.figure;

import static org.assertj.core.api.Assertions.assertThat;

import app.knottag.core.reading.Finding.Code;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class QuantityReaderTest {

    @DisplayName("A figure is read with its unit as people write it")
    @ParameterizedTest(name = "{0} in {1} is {2}")
    @CsvSource(delimiter = '|', textBlock = """
            1.5         | AMPERE                | 1.5
            1,5 A       | AMPERE                | 1.5
            500 mA      | AMPERE                | 0.5
            ５００ｍＡ    | AMPERE                | 0.5
            .5A         | AMPERE                | 0.5
            12 VDC      | VOLT                  | 12
            0.4 kW      | WATT                  | 400
            12 ft       | METRE                 | 3.6576
            350 cm      | METRE                 | 3.5
            0.75 mm²    | SQUARE_MILLIMETRE     | 0.75
            0,75 qmm    | SQUARE_MILLIMETRE     | 0.75
            4TB         | TERABYTE              | 4
            500 GB      | TERABYTE              | 0.5
            2 min       | SECOND                | 120
            90          | SECOND                | 90
            1 Gbit/s    | MEGABIT_PER_SECOND    | 1000
            20 MB/s     | MEGABIT_PER_SECOND    | 160
            150         | MEGABYTE_PER_SECOND   | 150
            -67 dBm     | DECIBEL_MILLIWATT     | -67
            −67         | DECIBEL_MILLIWATT     | -67
            1,234.5 W   | WATT                  | 1234.5
            1.234,5 W   | WATT                  | 1234.5
            """)
    void reads(String text, Unit unit, double value) {
        var reading = QuantityReader.read(text, unit, -100, 5000);
        assertThat(reading.findings()).isEmpty();
        assertThat(Double.parseDouble(reading.value())).isEqualTo(value);
    }

    @DisplayName("American wire gauge is a cross-section, as the table of ASTM B258 has it")
    @ParameterizedTest(name = "AWG {0} is {1} mm²")
    @CsvSource({"14, 2.08", "16, 1.31", "18, 0.823", "20, 0.518", "22, 0.326", "24, 0.205", "26, 0.129", "0, 53.5"})
    void readsGauge(String gauge, String squareMillimetres) {
        var reading = QuantityReader.read("AWG " + gauge, Unit.SQUARE_MILLIMETRE, 0.05, 60);
        assertThat(Unit.plain(Double.parseDouble(reading.value()))).isEqualTo(squareMillimetres);
        assertThat(QuantityReader.read(gauge + " awg", Unit.SQUARE_MILLIMETRE, 0.05, 60)
                        .value())
                .isEqualTo(reading.value());
    }

    @DisplayName("What has no meaning, or two, is not taken, and the way out is said")
    @ParameterizedTest(name = "{0} in {1}: {2}")
    @CsvSource(delimiter = '|', textBlock = """
            ''        | AMPERE            | EMPTY        | Key in a figure in A.
            twelve    | VOLT              | UNREADABLE   | “twelve” is no figure. Key in one such as 12 V.
            1.2.3     | VOLT              | UNREADABLE   | “1.2.3” has more than one point. Key in 1.5 or 1500.
            1,500     | WATT              | TWO_MEANINGS | “1,500” can be 1.5 or 1500. Key it in the one way or the other.
            12 V      | AMPERE            | OTHER_UNIT   | “v” is another unit: A are asked for.
            30 W      | AMPERE            | OTHER_UNIT   | “w” is asked for in A here. Watts are volts times amperes: divide by the volts.
            300 VA    | WATT              | OTHER_UNIT   | “va” is asked for in W here. VA is more than W: look for W on it.
            7 Ah      | WATT_HOUR         | OTHER_UNIT   | “ah” is asked for in Wh here. Wh are Ah times the volts of the battery.
            0.8 mm    | SQUARE_MILLIMETRE | OTHER_UNIT   | “mm” is asked for in mm² here. Square a diameter, times 0.785.
            5 bananas | METRE             | OTHER_UNIT   | “bananas” is no unit that is known here. Key it in in m.
            -2        | AMPERE            | OUT_OF_RANGE | -2 A cannot be: from 0 A to 2000 A make sense here.
            9e9       | AMPERE            | OTHER_UNIT   | “e9” is no unit that is known here. Key it in in A.
            99999     | VOLT              | OUT_OF_RANGE | 99999 V cannot be: from 0 V to 2000 V make sense here.
            AWG 77    | SQUARE_MILLIMETRE | OUT_OF_RANGE | AWG runs from 0 to 40 here.
            """)
    void refuses(String text, Unit unit, Code code, String message) {
        var reading = QuantityReader.read(text, unit, 0, 2000);
        assertThat(reading.value()).isNull();
        assertThat(reading.findings()).hasSize(1);
        assertThat(reading.findings().get(0).code()).isEqualTo(code);
        assertThat(reading.findings().get(0).message()).isEqualTo(message);
    }

    @DisplayName("A figure with a comma is taken in the one way that makes sense")
    @ParameterizedTest(name = "{0} from {1} to {2} is {3}")
    @CsvSource({"'1,500', 0, 10, 1.5", "'1,500', 100, 2000, 1500", "1.500, 0, 10, 1.5", "'2,048', 1000, 5000, 2048"})
    void sense(String text, double least, double most, double value) {
        assertThat(Double.parseDouble(
                        QuantityReader.read(text, Unit.WATT, least, most).value()))
                .isEqualTo(value);
    }

    @DisplayName("Figures are written with the places that count")
    @ParameterizedTest(name = "{0} is written {1}")
    @CsvSource({
        "0, 0",
        "0.0126, 0.0126",
        "1.2849, 1.28",
        "12.04, 12",
        "12.06, 12.1",
        "4096, 4096",
        "0.33333, 0.333",
        "99.99, 100",
        "-67, -67"
    })
    void writes(double figure, String text) {
        assertThat(Unit.plain(figure)).isEqualTo(text);
    }
}
