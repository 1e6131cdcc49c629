package app.knottag.core.address;

import static org.assertj.core.api.Assertions.assertThat;

import app.knottag.core.reading.Slip.Kind;
import java.util.Optional;
import java.util.Set;
import java.util.SplittableRandom;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class SlipFinderTest {

    @DisplayName("A read-back that differs is named by the slip that made it")
    @ParameterizedTest(name = "{0} for {1}: {2} in group {3}")
    @CsvSource({
        "10.44.16.5, 10.44.16.57, DROPPED, 4",
        "10.44.57, 10.44.16.57, DROPPED, 3",
        "10.44.16., 10.44.16.57, WRONG_GROUP, 4",
        "10.44.116.57, 10.44.16.57, DOUBLED, 3",
        "10.44.16.577, 10.44.16.57, DOUBLED, 4",
        "10.44.16.75, 10.44.16.57, SWAPPED, 4",
        "10.44.61.57, 10.44.16.57, SWAPPED, 3",
        "10.16.44.57, 10.44.16.57, SWAPPED, 2",
        "10.44.16.58, 10.44.16.57, NEIGHBOUR_KEY, 4",
        "10.44.16.54, 10.44.16.57, NEIGHBOUR_KEY, 4",
        "10.44.16.10, 10.44.16.18, NEIGHBOUR_KEY, 4",
        "10.44.16.5.7, 10.44.16.57, ADDED_GROUP, 4",
        "10.44.16.16.57, 10.44.16.57, ADDED_GROUP, 3",
        "10.44.1657, 10.44.16.57, MISSING_PERIOD, 3",
        "10441657, 10.44.16.57, MISSING_PERIOD, 1",
        "10.44.1.657, 10.44.16.57, MISSING_PERIOD, 3",
        "10.44.16.99, 10.44.16.57, WRONG_GROUP, 4",
        "10.44.16.51, 10.44.16.57, WRONG_GROUP, 4",
        "10.45.17.58, 10.44.16.57, DIFFERENT,",
        "1.2.3.4.5.6, 10.44.16.57, DIFFERENT,",
        "255.255.225.0, 255.255.255.0, NEIGHBOUR_KEY, 3",
    })
    void namesTheSlip(String typed, String expected, Kind kind, Integer group) {
        var slip = SlipFinder.find(typed, expected).orElseThrow();
        assertThat(slip.kind()).isEqualTo(kind);
        assertThat(slip.group()).isEqualTo(group);
    }

    @Test
    void equalAddressesHaveNoSlipEvenPadded() {
        assertThat(SlipFinder.find("010.044.016.057", "10.44.16.57")).isEmpty();
        assertThat(SlipFinder.find("010044016057", "10.44.16.57")).isEmpty();
    }

    @Test
    void theReaderReportsTheSlipBesideTheValue() {
        var context = new AddressContext(Optional.empty(), Set.of(), Optional.of("10.44.16.57"));
        var reading = AddressReader.read("10.44.16.75", Purpose.ADDRESS, context);
        assertThat(reading.value()).isEqualTo("10.44.16.75");
        assertThat(reading.slip().message()).isEqualTo("Two figures swapped in the last group: 75 typed, 57 planned.");
        assertThat(AddressReader.read("10.44.16.57", Purpose.ADDRESS, context).slip())
                .isNull();
    }

    @Test
    void oneSlipReachesOnlyValidAddressesAndIsRecognisedAgain() {
        var planned = Ipv4Address.parse("10.44.16.54");
        var reached = Keying.oneSlipFrom(planned);
        assertThat(reached)
                .contains(
                        Ipv4Address.parse("10.44.16.55"),
                        Ipv4Address.parse("10.44.16.45"),
                        Ipv4Address.parse("10.44.16.5"))
                .doesNotContain(planned);
        assertThat(reached)
                .allSatisfy(typed -> assertThat(SlipFinder.find(typed.toString(), planned.toString()))
                        .hasValueSatisfying(s -> assertThat(s.kind()).isNotEqualTo(Kind.DIFFERENT)));
    }

    @Test
    void survivesAnyPair() {
        var random = new SplittableRandom(3);
        String alphabet = "0123456789..ab/";
        for (int i = 0; i < 30_000; i++) {
            var texts = new String[2];
            for (int t = 0; t < 2; t++) {
                var text = new StringBuilder();
                for (int n = random.nextInt(16); n > 0; n--)
                    text.append(alphabet.charAt(random.nextInt(alphabet.length())));
                texts[t] = text.toString();
            }
            SlipFinder.find(texts[0], texts[1])
                    .ifPresent(slip -> assertThat(slip.message()).isNotBlank());
            AddressReader.read(texts[0], Purpose.ADDRESS, AddressContext.NONE.expecting(texts[1]));
        }
    }
}
