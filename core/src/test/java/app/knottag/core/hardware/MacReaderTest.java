package app.knottag.core.hardware;

import static org.assertj.core.api.Assertions.assertThat;

import app.knottag.core.reading.Finding;
import app.knottag.core.reading.Slip;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.SplittableRandom;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class MacReaderTest {

    private static final Mac LABEL = Mac.parse("00:00:5E:00:53:2B");

    @DisplayName("Every usual form is read")
    @ParameterizedTest(name = "{0}")
    @CsvSource(
            delimiter = '|',
            value = {
                "00:00:5E:00:53:2B |",
                "00-00-5e-00-53-2b |",
                "00005E00532B |",
                "0000.5e00.532b |",
                "00 00 5E 00 53 2B |",
                "00005E-00532B |",
                "00_00_5E_00_53_2B |",
                "0:0:5e:0:53:2b | SHORT_GROUPS",
                "00:005E:00532B | IRREGULAR_GROUPS",
                "MAC: 00:00:5E:00:53:2B | LABEL_WORD",
                "LAN MAC address 00005E00532B | LABEL_WORD",
                "００：００：５Ｅ：００：５３：２Ｂ | FULL_WIDTH",
            })
    void readsUsualForms(String text, String note) {
        var reading = MacReader.read(text, Set.of(), Optional.empty());
        assertThat(reading.value()).isEqualTo("00:00:5E:00:53:2B");
        assertThat(reading.findings()).isEmpty();
        assertThat(reading.notes().stream().map(n -> n.code().name()))
                .isEqualTo(note == null ? List.of() : List.of(note));
    }

    @DisplayName("What cannot be read in one way is asked about, with the place")
    @ParameterizedTest(name = "{0}: {1}")
    @CsvSource(
            delimiter = '|',
            value = {
                "00:00:SE:00:53:2B | IMPOSSIBLE_CHARACTER | 6 | 00:00:5E:00:53:2B",
                "OO:00:5E:00:53:2B | IMPOSSIBLE_CHARACTER | 0 | 00:00:5E:00:53:2B",
                "00:00:5E:00:53:ZB | IMPOSSIBLE_CHARACTER | 15 | 00:00:5E:00:53:2B",
                "G0:00:5E:00:I3:LQ | IMPOSSIBLE_CHARACTER | 0 | 60:00:5E:00:13:10",
                "00:00:5E:00:53:XB | UNREADABLE           | 15 |",
                "00:00:5E:00:53    | WRONG_LENGTH         | 14 |",
                "00:00:5E:00:53:2BB | WRONG_LENGTH        | 15 | 00:00:5E:00:53:2B",
                "00005E0053        | WRONG_LENGTH         | 10 |",
                "02005EFFFE00532B  | WRONG_LENGTH         | 16 | 00:00:5E:00:53:2B",
                "''                | EMPTY                |    |",
            })
    void asks(String text, Finding.Code code, Integer position, String candidate) {
        var reading = MacReader.read(text, Set.of(), Optional.empty());
        assertThat(reading.value()).isNull();
        var finding = reading.findings().get(0);
        assertThat(finding.code()).isEqualTo(code);
        assertThat(finding.position()).isEqualTo(position);
        assertThat(finding.candidates()).isEqualTo(candidate == null ? List.of() : List.of(candidate));
    }

    @DisplayName("A MAC that no device keeps is read and named")
    @ParameterizedTest(name = "{0}: {1}, refused {2}")
    @CsvSource({
        "01:00:5E:00:53:2B, GROUP_ADDRESS, true",
        "02:00:5E:00:53:2B, LOCALLY_ADMINISTERED, false",
        "DA:A1:19:00:53:2B, LOCALLY_ADMINISTERED, false",
        "00:00:00:00:00:00, ALL_ZEROS, true",
        "FF:FF:FF:FF:FF:FF, ALL_ONES, true",
    })
    void judgesKind(String text, Finding.Code code, boolean refused) {
        var reading = MacReader.read(text, Set.of(), Optional.empty());
        assertThat(reading.value()).isEqualTo(text);
        assertThat(reading.findings()).singleElement().extracting(Finding::code).isEqualTo(code);
        assertThat(reading.usable()).isEqualTo(!refused);
    }

    @DisplayName("Known MACs and near ones are said")
    @ParameterizedTest(name = "{0}: {1}")
    @CsvSource({
        "00:00:5E:00:53:2B, KNOWN",
        "00:00:5E:00:53:28, NEAR_KNOWN",
        "00:00:5E:00:35:2B, NEAR_KNOWN",
        "00:00:5E:11:43:2B,",
    })
    void comparesWithKnown(String text, Finding.Code code) {
        var reading = MacReader.read(text, Set.of(LABEL), Optional.empty());
        assertThat(reading.value()).isEqualTo(text);
        assertThat(reading.findings().stream().map(Finding::code)).isEqualTo(code == null ? List.of() : List.of(code));
    }

    @DisplayName("A MAC read for another is named by the slip")
    @ParameterizedTest(name = "{0}: {1}")
    @CsvSource({
        "00:00:5E:00:35:2B, SWAPPED",
        "00:00:5E:00:53:28, LOOK_ALIKE",
        "00:00:5E:00:53:2C, NEIGHBOUR_INTERFACE",
        "00:00:5E:00:53:33, NEIGHBOUR_INTERFACE",
        "00:00:5E:00:53:34, DIFFERENT",
        "00:00:5E:00:93:2B, WRONG_DIGIT",
        "00:00:5E:00:53:2, DROPPED",
        "00:00:5E:00:53:2BB, DOUBLED",
        "AC:DE:48:00:11:22, DIFFERENT",
    })
    void namesTheSlip(String text, Slip.Kind kind) {
        String squeezed = text.replace(":", "");
        assertThat(MacReader.read(squeezed, Set.of(LABEL), Optional.of(LABEL))
                        .slip()
                        .kind())
                .isEqualTo(kind);
    }

    @Test
    void theExpectedMacItselfIsNoDuplicate() {
        var reading = MacReader.read("00005e00532b", Set.of(LABEL), Optional.of(LABEL));
        assertThat(reading.findings()).isEmpty();
        assertThat(reading.slip()).isNull();
    }

    @Test
    void neighbourRunsOverTheLastByte() {
        assertThat(Mac.parse("00:00:5E:00:53:FF").neighbourOf(Mac.parse("00:00:5E:00:54:00")))
                .isTrue();
        assertThat(Mac.parse("00:00:5E:00:53:2B").neighbourOf(LABEL)).isFalse();
    }

    @Test
    void survivesAnyTextAndRoundTrips() {
        var random = new SplittableRandom(7);
        String alphabet = "0123456789abcdefABCDEFGILOQSZ:-. xMAC";
        for (int i = 0; i < 20_000; i++) {
            var text = new StringBuilder();
            for (int n = random.nextInt(22); n > 0; n--)
                text.append(alphabet.charAt(random.nextInt(alphabet.length())));
            var reading = MacReader.read(text.toString(), Set.of(LABEL), Optional.of(LABEL));
            assertThat(reading.value() != null || !reading.findings().isEmpty()).isTrue();
            var mac = new Mac(random.nextLong(1L << 48));
            assertThat(Mac.parse(mac.toString())).isEqualTo(mac);
        }
    }

    @DisplayName("Serials are judged by the kind's pattern; look-alikes are proposed")
    @ParameterizedTest(name = "{0} gives {1} {2} {3}")
    @CsvSource({
        "oc2-7h41-0093, OC2-7H41-0093,,",
        "OC2-7H41-OO93, OC2-7H41-OO93, OTHER_PATTERN,",
        "OC2-7H41-O093,, OTHER_PATTERN, OC2-7H41-0093",
        "OC2-7H41-0011, OC2-7H41-0011, KNOWN,",
        "=cmd(),, UNREADABLE,",
        "'',, EMPTY,",
    })
    void readsSerials(String text, String value, Finding.Code code, String candidate) {
        var reading = SerialReader.read(text, "OC2-[0-9A-Z]{4}-[0-9]{4}", Set.of("OC2-7H41-0011"));
        assertThat(reading.value()).isEqualTo(value);
        assertThat(reading.findings().stream().map(Finding::code)).isEqualTo(code == null ? List.of() : List.of(code));
        if (candidate != null)
            assertThat(reading.findings().get(0).candidates()).containsExactly(candidate);
    }

    @Test
    void everyMacOneFigureAwayIsFoundOnce() {
        var mac = Mac.parse("00:00:5E:00:53:2B");
        assertThat(mac.oneDigitAway().distinct()).hasSize(180).allMatch(other -> mac.digitsApart(other) == 1);
    }
}
