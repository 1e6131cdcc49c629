package app.knottag.core.address;

import static org.assertj.core.api.Assertions.assertThat;

import app.knottag.core.reading.Finding;
import app.knottag.core.reading.Note;
import app.knottag.core.reading.Reading;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.SplittableRandom;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class AddressReaderTest {

    private static final Segment SHOP = new Segment(
            Ipv4Prefix.parse("10.44.16.0/24"),
            Optional.of(Ipv4Address.parse("10.44.16.1")),
            List.of(new Pool(Ipv4Address.parse("10.44.16.100"), Ipv4Address.parse("10.44.16.199"))));
    private static final AddressContext IN_SHOP =
            new AddressContext(Optional.of(SHOP), Set.of(Ipv4Address.parse("10.44.16.20")), Optional.empty());

    private static Reading read(String text, Purpose purpose) {
        return AddressReader.read(text, purpose, IN_SHOP);
    }

    @DisplayName("Texts with one meaning are read, and what was odd is noted")
    @ParameterizedTest(name = "{0} is {1}")
    @CsvSource(
            delimiter = '|',
            value = {
                "10.44.16.57      | 10.44.16.57 |",
                "'  10.44.16.57 ' | 10.44.16.57 |",
                "10,44,16,57      | 10.44.16.57 | OTHER_SEPARATORS",
                "10:44:16:57      | 10.44.16.57 | OTHER_SEPARATORS",
                "10-44-16-57      | 10.44.16.57 | OTHER_SEPARATORS",
                "10 44 16 57      | 10.44.16.57 | BLANKS",
                "10. 44 .16 . 57  | 10.44.16.57 | BLANKS",
                "10.44 16.57      | 10.44.16.57 | BLANKS",
                "10.44.16.57.     | 10.44.16.57 | TRAILING_PERIOD",
                "10.44.16.57 .    | 10.44.16.57 | BLANKS TRAILING_PERIOD",
                "010.044.016.057  | 10.44.16.57 | LEADING_ZEROS",
                "10.44.16.057     | 10.44.16.57 | LEADING_ZEROS",
                "010044016057     | 10.44.16.57 | ZERO_PADDED LEADING_ZEROS",
                "１０．４４．１６．５７ | 10.44.16.57 | FULL_WIDTH",
                "１０。４４。１６。５７ | 10.44.16.57 | FULL_WIDTH",
                "10.44.16.57/24   | 10.44.16.57 | PREFIX_LENGTH",
            })
    void readsOneMeaning(String text, String value, String notes) {
        var reading = read(text, Purpose.ADDRESS);
        assertThat(reading.value()).isEqualTo(value);
        assertThat(reading.findings()).isEmpty();
        assertThat(reading.notes().stream().map(n -> n.code().name()).toList())
                .isEqualTo(notes == null ? List.of() : List.of(notes.split(" ")));
    }

    @DisplayName("Texts that could mean two addresses have no value but a place and likely candidates")
    @ParameterizedTest(name = "{0}: {1}")
    @CsvSource(
            delimiter = '|',
            value = {
                "10.44.16.5.7    | TOO_MANY_GROUPS  | 11 | 10.44.16.57",
                "10.44.16.57.9   | TOO_MANY_GROUPS  | 12 | 10.44.16.57",
                "10.44.1657      | TOO_FEW_GROUPS   | 6  | 10.44.16.57",
                "10.44.57        | TOO_FEW_GROUPS   | 6  | 10.44.16.57",
                "57              | TOO_FEW_GROUPS   | 0  | 10.44.16.57",
                "10441657        | MISSING_PERIODS  | 0  | 10.44.16.57",
                "10.44..57       | EMPTY_GROUP      | 6  | 10.44.16.57",
                "10.44..16.57    | EMPTY_GROUP      | 6  | 10.44.16.57",
                ".10.44.16.57    | EMPTY_GROUP      | 0  | 10.44.16.57",
                "10.44.16.577    | GROUP_TOO_BIG    | 9  | 10.44.16.57",
                "10.444.16.57    | GROUP_TOO_BIG    | 3  | 10.44.16.57",
                "10.44.16.0057   | GROUP_TOO_LONG   | 9  | 10.44.16.57",
                "1O.44.16.57     | LETTER_FOR_DIGIT | 1  | 10.44.16.57",
                "l0.44.I6.S7     | LETTER_FOR_DIGIT | 0  | 10.44.16.57",
                "10.44.16.5 7    | BLANK_IN_GROUP   | 10 | 10.44.16.57",
                "10.44.61.57     | OUTSIDE_SEGMENT  |    | 10.44.16.57",
                "10.16.44.57     | OUTSIDE_SEGMENT  |    | 10.44.16.57",
                "192.44.16.57    | OUTSIDE_SEGMENT  |    | 10.44.16.57",
            })
    void asksAboutTwoMeanings(String text, Finding.Code code, Integer position, String likeliest) {
        var reading = read(text, Purpose.ADDRESS);
        assertThat(reading.value()).isNull();
        assertThat(reading.findings()).singleElement().satisfies(f -> {
            assertThat(f.code()).isEqualTo(code);
            assertThat(f.position()).isEqualTo(position);
            assertThat(f.candidates()).first().isEqualTo(likeliest);
            assertThat(f.message()).endsWith("Did you mean " + likeliest + "?");
        });
    }

    @DisplayName("An address that was read but cannot be used here keeps its value beside the finding")
    @ParameterizedTest(name = "{0}: {1}")
    @CsvSource({
        "10.44.16.0, NETWORK_ADDRESS",
        "10.44.16.255, BROADCAST_ADDRESS",
        "10.44.16.1, IS_GATEWAY",
        "10.44.16.100, IN_POOL",
        "10.44.16.199, IN_POOL",
        "10.44.16.20, TAKEN",
        "127.0.0.1, LOOPBACK",
        "224.0.0.251, MULTICAST",
        "169.254.7.9, LINK_LOCAL",
        "0.0.0.0, UNSPECIFIED",
        "0.1.2.3, THIS_NETWORK",
        "245.1.2.3, RESERVED",
        "255.255.255.255, LIMITED_BROADCAST",
        "172.31.200.9, OUTSIDE_SEGMENT",
        "2001:DB8:0:0:0:0:0:57, OUTSIDE_SEGMENT",
    })
    void judgesWhatWasRead(String text, Finding.Code code) {
        var reading = read(text, Purpose.ADDRESS);
        assertThat(reading.findings()).singleElement().extracting(Finding::code).isEqualTo(code);
        assertThat(reading.value()).isEqualTo(text.contains(":") ? "2001:db8::57" : text);
        assertThat(reading.usable()).isFalse();
    }

    @DisplayName("Other texts are refused with the reason and the way out")
    @ParameterizedTest(name = "{0}: {1}")
    @CsvSource(
            delimiter = '|',
            nullValues = "null",
            value = {
                "null | ADDRESS | EMPTY | Nothing was typed. Type the address.",
                "'  ' | MASK | EMPTY | Nothing was typed. Type the mask.",
                "till4.shop | ADDRESS | UNREADABLE | “t” cannot stand in an address: only figures and periods can. Type "
                        + "the address in figures.",
                "00:00:5E:00:53:2B | ADDRESS | UNREADABLE | This looks like a MAC. Type the address here.",
                "... | GATEWAY | UNREADABLE | There are no figures in “...”. Type the gateway.",
                "10.44.16.57/99 | ADDRESS | PREFIX_LENGTH_RANGE | A prefix length runs from 0 to 32; /99 was typed.",
                "10.44.16.57/25 | ADDRESS | PREFIX_LENGTH_DIFFERS | The text says /25, this segment is /24.",
                "10.44.16. | ADDRESS | PART_OF_ADDRESS | 10.44.16. agrees with 10.44.16.0/24. Type only the rest.",
                "10.45. | ADDRESS | OTHER_NETWORK_PART | 10.45. is not the beginning of 10.44.16.0/24: wrong socket, "
                        + "wrong VLAN or wrong site. Stop, and move the lead before typing.",
                "1::2::3 | ADDRESS | UNREADABLE | “1::2::3” is neither an IPv4 nor an IPv6 address.",
            })
    void refusesWithReason(String text, Purpose purpose, Finding.Code code, String message) {
        var reading = read(text, purpose);
        assertThat(reading.value()).isNull();
        assertThat(reading.findings()).singleElement().satisfies(f -> {
            assertThat(f.code()).isEqualTo(code);
            assertThat(f.message()).isEqualTo(message);
        });
    }

    @DisplayName("Masks: contiguous, as a length, turned inside out, or something else altogether")
    @ParameterizedTest(name = "{0} gives {1} {2} {3}")
    @CsvSource(
            delimiter = '|',
            value = {
                "255.255.255.0   | 255.255.255.0   |                   |",
                "/24             | 255.255.255.0   |                   |",
                "24              | 255.255.255.0   |                   |",
                "255255255000    | 255.255.255.0   |                   |",
                "255.255.255.128 | 255.255.255.128 | MASK_DIFFERS      |",
                "33              |                 | PREFIX_LENGTH_RANGE |",
                "0.0.0.255       |                 | WILDCARD_MASK     | 255.255.255.0",
                "10.44.16.1      |                 | ADDRESS_AS_MASK   | 255.255.255.0",
                "192.168.1.1     |                 | NOT_CONTIGUOUS    | 255.255.255.0",
                "255.255.225.0   |                 | NOT_CONTIGUOUS    | 255.255.255.0",
                "255.255.0.255   |                 | NOT_CONTIGUOUS    | 255.255.255.0",
                "255.255.2550    |                 | TOO_FEW_GROUPS    | 255.255.255.0",
                "255.255.256.0   |                 | GROUP_TOO_BIG     | 255.255.255.0",
                "255.255.255.O   |                 | LETTER_FOR_DIGIT  | 255.255.255.0",
            })
    void readsMasks(String text, String value, Finding.Code code, String candidate) {
        var reading = read(text, Purpose.MASK);
        assertThat(reading.value()).isEqualTo(value);
        assertThat(reading.findings().stream().map(Finding::code)).isEqualTo(code == null ? List.of() : List.of(code));
        if (candidate != null)
            assertThat(reading.findings().get(0).candidates()).first().isEqualTo(candidate);
    }

    @DisplayName("Masks without room for devices are found even where no segment is known")
    @ParameterizedTest
    @ValueSource(strings = {"0.0.0.0", "255.255.255.254", "255.255.255.255", "/31"})
    void refusesMasksWithoutRoom(String text) {
        assertThat(AddressReader.read(text, Purpose.MASK, AddressContext.NONE).findings())
                .singleElement()
                .extracting(Finding::code)
                .isEqualTo(Finding.Code.MASK_WITHOUT_ROOM);
    }

    @DisplayName("Prefixes need a length and no host bits")
    @ParameterizedTest(name = "{0} gives {1} {2} {3}")
    @CsvSource(
            delimiter = '|',
            value = {
                "10.44.16.0/24                | 10.44.16.0/24 |                     |",
                "10.44.16.0 / 24              | 10.44.16.0/24 |                     |",
                "10.44.16.0/255.255.255.0     | 10.44.16.0/24 |                     |",
                "10.44.16.0 255.255.255.0     | 10.44.16.0/24 |                     |",
                "010.044.016.000/24           | 10.44.16.0/24 |                     |",
                "10.44.16.5/24                |               | HOST_BITS_SET       | 10.44.16.0/24",
                "10.44.16.0                   |               | NO_PREFIX_LENGTH    | 10.44.16.0/24",
                "10.44.16.0/33                |               | PREFIX_LENGTH_RANGE |",
                "10.44.16/24                  |               | TOO_FEW_GROUPS      | 10.4.41.0/24",
                "10.44.16.0/32                | 10.44.16.0/32 | MASK_WITHOUT_ROOM   |",
                "224.0.0.0/8                  | 224.0.0.0/8   | MULTICAST           |",
            })
    void readsPrefixes(String text, String value, Finding.Code code, String candidate) {
        var reading = AddressReader.read(text, Purpose.PREFIX, AddressContext.NONE);
        assertThat(reading.value()).isEqualTo(value);
        assertThat(reading.findings().stream().map(Finding::code)).isEqualTo(code == null ? List.of() : List.of(code));
        if (candidate != null)
            assertThat(reading.findings().get(0).candidates()).isNotEmpty();
    }

    @DisplayName("Gateways and resolvers are judged by their own rules")
    @ParameterizedTest(name = "{1} {0}: {2}")
    @CsvSource({
        "10.44.16.1, GATEWAY,",
        "10.44.16.2, GATEWAY, GATEWAY_DIFFERS",
        "10.44.17.1, GATEWAY, OUTSIDE_SEGMENT",
        "10.44.16.255, GATEWAY, BROADCAST_ADDRESS",
        "203.0.113.9, RESOLVER,",
        "10.44.16.1, RESOLVER,",
        "10.44.16.20, RESOLVER,",
        "10.44.16.0, RESOLVER, NETWORK_ADDRESS",
        "127.0.0.53, RESOLVER, LOOPBACK",
    })
    void judgesByPurpose(String text, Purpose purpose, Finding.Code code) {
        assertThat(read(text, purpose).findings().stream().map(Finding::code))
                .isEqualTo(code == null ? List.of() : List.of(code));
    }

    @Test
    void showsBothReadingsOfLeadingZeros() {
        assertThat(read("010.044.016.057", Purpose.ADDRESS).notes())
                .singleElement()
                .extracting(Note::message)
                .isEqualTo(
                        "Zeros in front of a group were left out: 10.44.16.57. Software that takes a zero in front for base"
                                + " eight would read 010.044.016.057 as 8.36.14.47. Type it without them.");
        assertThat(read("10.44.16.089", Purpose.ADDRESS).notes())
                .singleElement()
                .extracting(Note::message)
                .asString()
                .contains("would refuse 10.44.16.089");
    }

    @Test
    void refusesTextsThatAreMuchTooLong() {
        assertThat(read("1".repeat(5000), Purpose.ADDRESS).findings())
                .singleElement()
                .extracting(Finding::message)
                .isEqualTo("5000 characters are too many for one address. Type it alone.");
        assertThat(read("9".repeat(90), Purpose.ADDRESS).value()).isNull();
    }

    @DisplayName("Whatever is typed: no exception, and never a value beside candidates")
    @ParameterizedTest(name = "seed {0}")
    @ValueSource(longs = {1, 2, 3})
    void survivesAnyText(long seed) {
        var random = new SplittableRandom(seed);
        String alphabet = "0123456789..,:/- OlxF％５。\u00a0";
        for (int i = 0; i < 4_000; i++) {
            var text = new StringBuilder();
            for (int n = random.nextInt(20); n > 0; n--)
                text.append(alphabet.charAt(random.nextInt(alphabet.length())));
            for (Purpose purpose : Purpose.values()) {
                var reading = read(text.toString(), purpose);
                assertThat(reading.value() != null || !reading.findings().isEmpty())
                        .as(text.toString())
                        .isTrue();
                reading.findings().forEach(f -> {
                    if (f.position() != null)
                        assertThat(f.position()).as(text.toString()).isBetween(0, text.length());
                });
            }
        }
    }

    @DisplayName("Every address survives being printed and read, padded or not")
    @ParameterizedTest(name = "seed {0}")
    @ValueSource(longs = {4, 5})
    void roundTrips(long seed) {
        var random = new SplittableRandom(seed);
        for (int i = 0; i < 2_000; i++) {
            var address = new Ipv4Address(random.nextInt());
            String padded = String.format(
                    "%03d%03d%03d%03d", address.group(0), address.group(1), address.group(2), address.group(3));
            for (String text : List.of(address.toString(), padded))
                assertThat(AddressReader.read(text, Purpose.ADDRESS, AddressContext.NONE)
                                .value())
                        .isEqualTo(address.toString());
        }
    }

    @DisplayName("A part that a device fills in agrees by bits, not by groups; brute force over every second group")
    @Test
    void partsAgreeByBits() {
        for (int length : new int[] {12, 16, 20, 23, 24}) {
            var prefix = Ipv4Prefix.around(Ipv4Address.parse("10.44.16.0"), length);
            var context = new AddressContext(
                    Optional.of(new Segment(prefix, Optional.empty(), List.of())), Set.of(), Optional.empty());
            for (int group = 0; group < 256; group++) {
                for (String part : List.of("10." + group + ".", "10.44." + group + ".")) {
                    String from = part + "0.0.0.0";
                    boolean meets = prefix.overlaps(Ipv4Prefix.around(
                            Ipv4Address.parse(
                                    String.join(".", List.of(from.split("\\.")).subList(0, 4))),
                            8 * (part.split("\\.").length)));
                    var code = AddressReader.read(part, Purpose.ADDRESS, context)
                            .findings()
                            .get(0)
                            .code();
                    assertThat(code)
                            .as(part + " in " + prefix)
                            .isEqualTo(meets ? Finding.Code.PART_OF_ADDRESS : Finding.Code.OTHER_NETWORK_PART);
                }
            }
        }
    }
}
