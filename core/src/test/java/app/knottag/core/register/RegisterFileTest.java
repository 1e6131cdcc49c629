package app.knottag.core.register;

import static org.assertj.core.api.Assertions.assertThat;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Ipv4Prefix;
import app.knottag.core.hardware.Mac;
import app.knottag.core.register.RegisterFile.Problem;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class RegisterFileTest {

    private static final List<String> KINDS = List.of("counter-payment-terminal", "time-clock");

    @Test
    void whatIsWrittenIsReadBackTheSame() {
        var full = new RegisterRow(
                "Till 4 “payment”, left",
                "counter-payment-terminal",
                Optional.of(4),
                Optional.of(Ipv4Address.parse("10.44.16.54")),
                "Shop floor",
                Ipv4Prefix.parse("10.44.16.0/24"),
                Optional.of(Ipv4Address.parse("10.44.16.1")),
                List.of(Ipv4Address.parse("10.44.16.1"), Ipv4Address.parse("203.0.113.9")),
                Optional.of(Mac.parse("00:00:5E:00:53:2B")),
                "OC2-7H41-0093",
                "QX-2 N",
                Optional.of(7454),
                "Front, \"till\" counter",
                "F-07",
                "Shop switch 11",
                "Till 4 workstation",
                Optional.of(Ipv4Address.parse("10.44.16.34")),
                Optional.of(7500));
        var bare = new RegisterRow(
                "Clock",
                "time-clock",
                Optional.empty(),
                Optional.empty(),
                "",
                Ipv4Prefix.parse("10.44.16.0/24"),
                Optional.empty(),
                List.of(),
                Optional.empty(),
                "",
                "",
                Optional.empty(),
                "",
                "",
                "",
                "",
                Optional.empty(),
                Optional.empty());
        String csv = RegisterFile.write(List.of(full, bare));
        assertThat(RegisterFile.read(csv, KINDS)).isEqualTo(new RegisterFile.Parsed(List.of(full, bare), List.of()));
        assertThat(RegisterFile.read("\uFEFF" + csv.replace("\r\n", "\n"), KINDS)
                        .rows())
                .hasSize(2);
    }

    @DisplayName("A faulty line is named by line and column, and no row is taken")
    @ParameterizedTest(name = "{0}: {2}")
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '`',
            value = {
                "Till 4,toaster,10.44.16.0/24,10.44.16.54,       | kind    | There is no kind “toaster”. There are: "
                        + "counter-payment-terminal, time-clock.",
                ",time-clock,10.44.16.0/24,10.44.16.54,          | name    | This is missing.",
                "Clock,time-clock,,10.44.16.54,                  | prefix  | The prefix of the segment is missing.",
                "Clock,time-clock,10.44.16.0/24,10.44.16.5.4,    | address | Five groups of figures: 10.44.16.5.4. An "
                        + "address has four. Did you mean 10.4.41.65?",
                "Clock,time-clock,10.44.16.0/24,10.44.17.54,     | address | 10.44.17.54 is no address for a device in 10.44.16.0/24.",
                "Clock,time-clock,10.44.16.0/24,10.44.16.54,00:00:5E:00:53:XX | mac | “X” cannot stand in a MAC: only 0 "
                        + "to 9 and A to F can.",
                "Good,time-clock,10.44.16.0/24,10.44.16.9,       | address | 10.44.16.9 stands on line 2 already.",
                "=1+1,time-clock,10.44.16.0/24,10.44.16.54,      | name    | It may not begin with “=”: spreadsheets "
                        + "would take it for a formula.",
                "Clock,time-clock,10.44.16.0/24                  |         | The line has 3 cells, the header has 5.",
            })
    void namesLineAndColumn(String line, String column, String message) {
        String csv = "name,kind,prefix,address,mac\nFirst,time-clock,10.44.16.0/24,10.44.16.9,\n\n" + line + "\n";
        var parsed = RegisterFile.read(csv, KINDS);
        assertThat(parsed.rows()).isEmpty();
        assertThat(parsed.problems()).singleElement().satisfies(p -> {
            assertThat(p.column()).isEqualTo(column == null ? "" : column);
            if (message.contains("Did you mean"))
                assertThat(p.message()).startsWith(message.substring(0, message.indexOf("Did")));
            else assertThat(p.message()).isEqualTo(message);
        });
    }

    @DisplayName("Lines that the database would refuse are told by line")
    @ParameterizedTest(name = "{0}: {1} {2}")
    @CsvSource(
            delimiter = '|',
            value = {
                "a,10.80.0.0/24;A,10.80.0.0/24 | name | A stands on line 2 already.",
                "a,10.80.0.0/24;b,10.80.0.0/25 | prefix | 10.80.0.0/25 overlaps 10.80.0.0/24 of line 2. Which of the two is the segment?",
            })
    void clashingLines(String rows, String column, String message) {
        var text = new StringBuilder("name,kind,prefix\n");
        for (String row : rows.split(";"))
            text.append(row.replace(",", ",time-clock,")).append('\n');
        assertThat(RegisterFile.read(text.toString(), KINDS).problems())
                .containsExactly(new Problem(3, column, message));
    }

    @DisplayName("A file that is no register is refused as a whole")
    @ParameterizedTest(name = "{1}")
    @CsvSource(
            delimiter = '|',
            value = {
                "''                       | The file is empty.",
                "a\u0000b                 | This is not a text file.",
                "name;kind;prefix         | The header line lacks: kind, name, prefix. Columns are parted by commas.",
                "name,kind                | The header line lacks: prefix.",
                "name,kind,prefix,colour  | Unknown column: colour.",
                "name,name,kind,prefix    | The file is not well-formed CSV:",
                "\uFFFDname,kind,prefix   | Some letters cannot be read.",
            })
    void refusesWholeFile(String csv, String message) {
        assertThat(RegisterFile.read(csv, KINDS).problems())
                .singleElement()
                .extracting(Problem::message)
                .asString()
                .startsWith(message);
    }
}
