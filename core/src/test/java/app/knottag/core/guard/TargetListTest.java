package app.knottag.core.guard;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import app.knottag.core.figure.Judgement;
import app.knottag.core.reading.ReadingException;
import java.util.HashMap;
import java.util.Map;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Written down from practice: what each list tells of the line. */
class TargetListTest {

    @DisplayName("What answers without the line, and what fails together")
    @ParameterizedTest(name = "{0}")
    @CsvSource(delimiter = '|', textBlock = """
            a.example.org, b.example.net, c.example.com        | 3 |                      |
            a.example.org, b.example.org, c.example.com        | 2 |                      | [a.example.org, b.example.org]
            198.51.100.1, 198.51.100.200, 203.0.113.9          | 2 |                      | [198.51.100.1, 198.51.100.200]
            198.51.100.1, 198.51.101.1, 203.0.113.9            | 3 |                      |
            192.168.1.1, a.example.org                         | 1 | 192.168.1.1          |
            nas, printer.local, x.home.arpa, 100.64.3.4        | 0 | nas, printer.local, x.home.arpa, 100.64.3.4 |
            172.15.0.1, 172.16.0.1, 172.31.9.9, 172.32.0.1     | 2 | 172.16.0.1, 172.31.9.9 |
            https://A.Example.org:8443/status, b.example.net.  | 2 |                      |""")
    void lists(String lines, int apart, String inside, String together) {
        var list = TargetList.read(lines.replace(", ", "\n"));
        assertThat(list.apart()).isEqualTo(apart);
        assertThat(String.join(", ", list.inside())).isEqualTo(inside == null ? "" : inside);
        assertThat(list.together().toString()).isEqualTo(together == null ? "[]" : "[" + together + "]");
    }

    @DisplayName("What is no target is refused with the line")
    @ParameterizedTest(name = "{0}: {1}")
    @CsvSource(delimiter = '|', textBlock = """
            two words       | “two words” is neither a name nor an address.
            300.1.1.1       | “300.1.1.1” is neither a name nor an address.
            1.2.3           | “1.2.3” is neither a name nor an address.
            -a.example.org  | “-a.example.org” is neither a name nor an address.
            a..example.org  | “a..example.org” is neither a name nor an address.
            a.example.org, A.example.org. | “a.example.org” stands there twice.""")
    void refused(String lines, String why) {
        assertThatThrownBy(() -> TargetList.read(lines.replace(", ", "\n")))
                .isInstanceOf(ReadingException.class)
                .hasMessage(why);
    }

    @DisplayName("The sheet says what is wrong with the list, and what to take instead")
    @ParameterizedTest(name = "{1}: {2}")
    @CsvSource(delimiter = '|', textBlock = """
            OUTSIDE | a.example.org, b.example.net, c.example.com | 3 |
            OUTSIDE | a.example.org, b.example.net, 10.0.0.1      | 3 | STOPS ANSWERS_INSIDE
            OUTSIDE | a.example.org, b.example.org                | 2 | WARNS FAIL_TOGETHER
            OUTSIDE | a.example.org, b.example.net, c.example.com | 4 | WARNS COUNTED_OTHERWISE
            OUTSIDE | not a name                                  | 3 | STOPS NO_TARGET
            ROUTER  | a.example.org                               | 1 | STOPS BLIND""")
    void sheet(String looks, String lines, int count, String finding) {
        var found = judged(Map.of("looks", looks, "names", lines.replace(", ", "\n"), "targets", "" + count));
        assertThat(found.findings().stream()
                        .map(n -> n.weight() + " " + n.code())
                        .toList())
                .isEqualTo(finding == null ? java.util.List.of() : java.util.List.of(finding));
    }

    private static Judgement judged(Map<String, String> more) {
        var typed = new HashMap<>(Map.of(
                "start", "90", "every", "60", "tries", "3", "off", "15", "pause", "120", "most", "3", "lost", "1",
                "own", "0.1"));
        typed.put("line", "1200");
        typed.putAll(more);
        var sheet = new OutageSheet();
        return sheet.judge(typed);
    }
}
