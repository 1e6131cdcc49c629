package app.knottag.core.intake;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Ipv4Prefix;
import app.knottag.core.address.Pool;
import app.knottag.core.address.Segment;
import app.knottag.core.hardware.Mac;
import app.knottag.core.intake.Draft.Remark;
import app.knottag.core.plan.Occupied;
import app.knottag.core.plan.SitePlan.PlannedSegment;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class IntakeTest {

    private static final String MAC = "00:00:5E:00:53:2B";
    private static final Instant NOW = Instant.parse("2026-11-24T12:00:00Z");

    private static String said(Draft.Parsed parsed) {
        if (!parsed.problems().isEmpty()) return "! " + parsed.problems().get(0).message();
        return parsed.drafts().isEmpty()
                ? "- " + parsed.leftOut().get(0).message()
                : parsed.drafts().stream()
                        .map(d -> d.address().map(Object::toString).orElse("-") + " "
                                + d.mac().map(Object::toString).orElse("-") + " " + d.name())
                        .findFirst()
                        .orElseThrow()
                        .strip();
    }

    @DisplayName("Lines of lists are read by what stands on them")
    @ParameterizedTest(name = "{0}")
    @CsvSource(
            delimiter = '|',
            value = {
                "10.44.16.20 copier.shop.example copier # hall       | 10.44.16.20 - copier",
                "00:00:5e:00:53:2b till4                             | - 00:00:5E:00:53:2B till4",
                "10.44.16.54 dev eth0 lladdr 00:00:5e:00:53:2b STALE | 10.44.16.54 00:00:5E:00:53:2B",
                "? (10.44.16.54) at 0:0:5e:0:53:2b on en0 ifscope    | 10.44.16.54 00:00:5E:00:53:2B",
                "till4 (10.44.16.54) at 00:00:5e:00:53:2b [ether] on eth0 | 10.44.16.54 00:00:5E:00:53:2B till4",
                "10.44.16.54   00-00-5e-00-53-2b   dynamic           | 10.44.16.54 00:00:5E:00:53:2B",
                "Internet  10.44.16.54  4  0000.5e00.532b  ARPA  Vlan16 | 10.44.16.54 00:00:5E:00:53:2B",
                "1795600000 00:00:5e:00:53:2b 10.44.16.131 scanner * | 10.44.16.131 00:00:5E:00:53:2B scanner",
                "10.44.16.131,00:00:5e:00:53:2b,,4000,1795600000,1,0,0,scanner,0 | 10.44.16.131 00:00:5E:00:53:2B scanner",
                "10.44.16.9 dev eth0 FAILED                          | - It did not answer when the list was made.",
                "Interface: none                                     | - Neither an address nor a MAC in “Interface: none”.",
                "127.0.0.1 localhost                                 | - 127.0.0.1 is no address of a device.",
                "224.0.0.251 01-00-5e-00-00-fb static                | - 224.0.0.251 is no address of a device.",
                "10.44.16.255 ff-ff-ff-ff-ff-ff static               | - FF:FF:FF:FF:FF:FF belongs to a group, not to one device.",
                "10.44.16.300 printer                                | ! 10.44.16.300 is not an address: a group is "
                        + "over 255 or has a zero in front.",
                "10.44.16.057 printer                                | ! 10.44.16.057 is not an address: a group is "
                        + "over 255 or has a zero in front.",
                "10.44.16 printer                                    | ! No address can be read in “10.44.16 printer”.",
            })
    void lists(String line, String expected) {
        assertThat(said(Listing.read("\n" + line + "\n", NOW))).isEqualTo(expected);
    }

    @Test
    void leasesInBracesGiveTheLastWordOfEachAddress() {
        var parsed = Listing.read("""
                lease 10.44.16.131 {
                  ends 2 2026/11/24 08:00:00;
                  hardware ethernet 00:00:5e:00:53:01;
                }
                lease 10.44.16.132 { binding state free; hardware ethernet 00:00:5e:00:53:02; }
                lease 10.44.16.131 {
                  ends 2 2026/11/24 20:00:00;
                  hardware ethernet 00:00:5e:00:53:2b;
                  client-hostname "scanner";
                }
                """, NOW);
        assertThat(parsed.drafts()).singleElement().satisfies(d -> {
            assertThat(d.mac()).contains(Mac.parse(MAC));
            assertThat(d.name()).isEqualTo("scanner");
            assertThat(d.leaseEnds()).contains(Instant.parse("2026-11-24T20:00:00Z"));
            assertThat(d.line()).isEqualTo(6);
        });
        assertThat(parsed.leftOut()).containsExactly(new Remark(5, "", "10.44.16.132: this lease has ended."));
    }

    @Test
    void bytesThatAreNoTextAreRefusedWithAWayOut() {
        assertThat(decoded("Füße\r\n".getBytes(StandardCharsets.UTF_8))).isEqualTo("Füße\n");
        assertThat(decoded("\uFEFFa".getBytes(StandardCharsets.UTF_16LE))).isEqualTo("a");
        assertThat(decoded("Füße".getBytes(StandardCharsets.ISO_8859_1)))
                .isEqualTo("! Some letters are not UTF-8, from byte 1 on. Save it as CSV (UTF-8) and choose it again.");
        assertThat(decoded(new byte[] {'P', 'K', 3, 4})).startsWith("! This is a spreadsheet file, not text.");
        assertThat(decoded(new byte[] {'a', 0, 'b'}))
                .isEqualTo("! This is not a text file: there is a control character at place 1.");
        assertThat(decoded(new byte[20_000_000])).isEqualTo("! The file has 20 MB; at most 4 MB are read. Split it.");
    }

    private static String decoded(byte[] bytes) {
        return PlainText.decode(bytes).match(text -> text, why -> "! " + why);
    }

    private static final Map<String, String> KINDS =
            Map.of("copier", "copier", "label printer", "label-printer", "time clock", "time-clock");

    @DisplayName("Columns are matched by what stands above them, whatever parts them")
    @ParameterizedTest(name = "parted by “{0}”")
    @CsvSource(
            value = {";", ",", "\t"},
            quoteCharacter = '"',
            ignoreLeadingAndTrailingWhitespace = false,
            delimiter = '^')
    void sheets(String comma) {
        var sheet = Sheet.read(String.join(comma, "Device", "IP address", "Colour", "MAC", "Room", "Type") + "\n"
                + String.join(comma, "Copier hall", "10.44.16.040", "grey", "00-00-5E-00-53-2B", "Hall", "Copier")
                + "\n\n");
        assertThat(sheet.match().keySet().stream().map(Enum::name))
                .containsExactly("NAME", "KIND", "ADDRESS", "MAC", "PLACE");
        assertThat(sheet.drafts(sheet.match(), KINDS).drafts()).singleElement().satisfies(d -> {
            assertThat(d.address()).contains(Ipv4Address.parse("10.44.16.40"));
            assertThat(d.kind()).isEqualTo("copier");
            assertThat(d.place()).isEqualTo("Hall");
        });
    }

    @DisplayName("A cell that cannot be is named by line and column")
    @ParameterizedTest(name = "{0}")
    @CsvSource(
            delimiter = '|',
            value = {
                "A,10.44.16.5.7,,      | address | Five groups of figures: 10.44.16.5.7. An address has four.",
                "A,,00:00:SE:00:53:2B, | mac     | “S” cannot stand in a MAC; 5 looks like it.",
                "=1+1,10.44.16.5,,     | name    | It may not begin with “=”: spreadsheets would take it for a formula.",
                "A,10.44.16.5,,0       | number  | “0” is not a number from 1 to 9999.",
            })
    void cells(String row, String column, String message) {
        var sheet = Sheet.read("Name,Address,MAC,Number\n" + row);
        assertThat(sheet.drafts(sheet.match(), KINDS).problems())
                .singleElement()
                .satisfies(p -> {
                    assertThat(p.line()).isEqualTo(2);
                    assertThat(p.column()).isEqualTo(column);
                    assertThat(p.message()).startsWith(message);
                });
    }

    @Test
    void aTextThatIsNoSheetIsRefused() {
        assertThatThrownBy(() -> Sheet.read("  ")).hasMessageStartingWith("There is nothing here.");
        assertThatThrownBy(() -> Sheet.read("one column\nonly")).hasMessageStartingWith("Line 1 has one column only.");
        assertThatThrownBy(() -> Sheet.read("a,b\n\"open")).hasMessageStartingWith("The sheet is not well-formed");
        assertThat(Sheet.read("Colour,Size\nred,4")
                        .drafts(Map.of(), KINDS)
                        .problems()
                        .get(0)
                        .message())
                .isEqualTo("Say which column holds the name or the address.");
    }

    private static final PlannedSegment SHOP = new PlannedSegment(
            1,
            "Shop",
            new Segment(
                    Ipv4Prefix.parse("10.44.16.0/24"),
                    Optional.of(Ipv4Address.parse("10.44.16.1")),
                    List.of(new Pool(Ipv4Address.parse("10.44.16.100"), Ipv4Address.parse("10.44.16.199")))),
            List.of(),
            Duration.ofHours(12));
    private static final IntakePlan.SiteContext CONTEXT = new IntakePlan.SiteContext(
            List.of(SHOP),
            Map.of(Ipv4Address.parse("10.44.16.51"), "Till 1"),
            Occupied.of(Map.of(Ipv4Address.parse("10.44.16.51"), "Till 1")),
            Map.of(Mac.parse("00:00:5E:00:53:01"), "Till 1"),
            Set.of("till 1"),
            KINDS,
            Optional.of(1L));

    private static IntakePlan.Result intake(String rows) {
        var sheet = Sheet.read("Name,Address,MAC\n" + rows);
        return IntakePlan.of(CONTEXT, sheet.drafts(sheet.match(), KINDS).drafts());
    }

    @Test
    void linesBecomeEndpointsAndThoseWithoutAddressGetASafeOne() {
        var result =
                intake("Hall copier,10.44.16.40,\nKennel time clock,,\nSurgery label printer,10.44.16.140,\nOdd box,,");
        assertThat(result.problems()).isEmpty();
        assertThat(result.made())
                .extracting(m -> m.draft().line() + " " + m.name() + " " + m.kind() + " " + m.reason())
                .containsExactly(
                        "2 Hall copier copier As the list says.",
                        "3 Kennel time clock time-clock The list names none: the next safe one.",
                        "4 Surgery label printer label-printer As the list says; it lies in the pool 10.44.16.100 to 10.44.16.199.",
                        "5 Odd box other-endpoint The list names none: the next safe one.");
        assertThat(result.made()).extracting(m -> m.address()).doesNotHaveDuplicates();
    }

    @DisplayName("A line that clashes stops everything and says with what")
    @ParameterizedTest(name = "{0}")
    @CsvSource(
            delimiter = '|',
            value = {
                "A,10.44.16.40,;B,10.44.16.40,           | 3 | address | 10.44.16.40 stands on line 2 already.",
                "A,10.44.16.40,;a,10.44.16.41,           | 3 | name    | “a” stands on line 2 already.",
                "Till 1,10.44.16.40,                     | 2 | name    | Another endpoint of this site is called “Till "
                        + "1”. Change the name.",
                "A,10.9.0.7,                             | 2 | address | No segment of this site holds 10.9.0.7. Add "
                        + "the segment first, or correct the line.",
                "A,10.44.16.255,                         | 2 | address | 10.44.16.255 is the network or broadcast "
                        + "address of 10.44.16.0/24.",
                "A,10.44.16.51,00:00:5E:00:53:44         | 2 | address | 10.44.16.51 is on record for Till 1, but with "
                        + "another MAC here. Settle which is right, then correct this line.",
            })
    void clashes(String rows, long line, String column, String message) {
        var result = intake(rows.replace(';', '\n'));
        assertThat(result.made()).isEmpty();
        assertThat(result.problems()).containsExactly(new Remark(line, column, message));
    }

    @Test
    void whatIsOnRecordIsNotMadeTwice() {
        var result = intake("Till 1,10.44.16.51,\nTill one,10.44.16.131,00:00:5E:00:53:01\nRouter,10.44.16.1,");
        assertThat(result.made()).isEmpty();
        assertThat(result.known())
                .extracting(Remark::message)
                .containsExactly(
                        "Till 1 is on record with this address.",
                        "Till 1 is on record with this MAC.",
                        "10.44.16.1 is the gateway of Shop.");
    }
}
