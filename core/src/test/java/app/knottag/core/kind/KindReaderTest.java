package app.knottag.core.kind;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.tuple;

import app.knottag.core.kind.Signal.Beep;
import app.knottag.core.kind.Signal.Steadiness;
import java.util.List;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class KindReaderTest {

    private static final String CLOCK = Kinds.shippedText("time-clock");

    private static int lineOf(String text) {
        return (int) CLOCK.substring(0, CLOCK.indexOf(text)).lines().count() + (text.startsWith(" ") ? 1 : 0);
    }

    @DisplayName("What does not go together is told with its line, all of it at once")
    @ParameterizedTest(name = "{0} -> {1}")
    @CsvSource(
            delimiter = '|',
            value = {
                "wire: 'its network menu | weir: 'its network menu | Step address waits for “weir”, which is no step.",
                "after: { address: 'there   | after: { confirm: 'there  | Steps wait for one another:",
                "supply: [leads]         | supply: [battery]       | “battery” is no answer to “supply”.",
                "when: { supply: [leads] } | when: { roof: [flat] } | Nothing asks for “roof”: put it under questions.",
                "part: Network icon, ask | part: Net icon, ask     | There are no signals of the part “Net icon”.",
                "hiddenAfter: wire       | hiddenAfter: hang       | A label is hidden after “hang”, which is no step.",
                "type: FACTS,            | type: TYPE_SHEET,       | No step reads MAC and serial: one needs the gate FACTS, and only one.",
                "redo: [address,         | redo: [adress,          | A reset has “adress” done again, which is no step.",
                "'TK[0-9]{6}'            | '(T)K\\1'               | SerialPattern cannot be read: invalid escape sequence",
                "type: FACTS,            | type: GUESS,            | One of these stands here: CHOICE, FACTS,",
                "words: [clock]          | words: clock            | A list stands here, each on its own line after a dash.",
                "version: 5              | version: two            | A whole number stands here.",
                "'TK[0-9]{6}'            | '[T'                    | SerialPattern cannot be read: missing closing ] in “[T”.",
                "usual: plug             | usual: battery          | The usual answer to “How is it fed?” must be one "
                        + "of its options, was battery.",
                "restarts: [1, 1]        | restarts: [3, 1]        | Restarts must be [fewest, most], was [3, 1].",
                "READ_BACK, ask: What does the clock | READ_BACK, part: roof, ask: What does the clock | There is "
                        + "no menu “roof”: say under menus how to get there.",
                "label: IP }             | label: IP, part: roof } | There is no menu “roof”: say under menus how to get there.",
                "partner: In the         | roof: In the            | The menu “roof” needs fields, and a step that "
                        + "enters them or reads them back.",
                "menuPath: On            | menuPaht: On            | There is no “menuPaht” here; there are",
                "labelPlace: On          | labels: On              | “labels” stands here twice.",
                "noun: time clock        | noun: !!java.io.File x  | The tag “tag:yaml.org,2002:java.io.File” is not "
                        + "read here: leave it out.",
                "noun: time clock        | noun: !evil x           | The tag “!evil” is not read here: leave it out.",
                "noun: time clock        | noun: &a time clock     | Anchors and aliases are not read here: write it out.",
                "noun: time clock        | noun: [                 | This cannot be read:",
            })
    void findsTheLine(String was, String is, String message) {
        var reading = KindReader.read(CLOCK.replace(was, is));
        assertThat(reading.kind()).isNull();
        assertThat(reading.findings()).anySatisfy(f -> {
            assertThat(f.message()).startsWith(message);
            assertThat(f.line()).isPositive();
        });
    }

    @Test
    void tellsTheVeryLine() {
        var reading = KindReader.read(CLOCK.replace("after: { wire: 'its", "after: { weir: 'its")
                .replace("supply: [leads]", "supply: [battery]"));
        assertThat(reading.findings())
                .extracting(KindReader.KindFinding::line, KindReader.KindFinding::message)
                .containsExactly(
                        tuple(
                                lineOf("    after: { wire: 'its network"),
                                "Step address waits for “weir”, which is no step."),
                        tuple(lineOf("    when: { supply: [leads]"), "“battery” is no answer to “supply”."));
    }

    @DisplayName("Hostile files are refused at once")
    @Test
    void hostile() {
        var bomb = new StringBuilder("a: &a [x, x]\n");
        for (char c = 'b'; c < 'z'; c++)
            bomb.append(c)
                    .append(": &")
                    .append(c)
                    .append(" [*")
                    .append((char) (c - 1))
                    .append(", *")
                    .append((char) (c - 1))
                    .append("]\n");
        long start = System.nanoTime();
        for (String text : List.of(
                bomb.toString(),
                "x".repeat(KindReader.LONGEST + 1),
                "a: ".repeat(400),
                "[".repeat(30_000),
                "a:\n" + " ".repeat(2) + "- ".repeat(60) + "x",
                "",
                "--- \na: 1\n---\nb: 2\n",
                "\u0000",
                "- just\n- a list")) {
            var reading = KindReader.read(text);
            assertThat(reading.kind()).isNull();
            assertThat(reading.findings())
                    .isNotEmpty()
                    .allSatisfy(f -> assertThat(f.message()).endsWith("."));
        }
        assertThat(System.nanoTime() - start).as("nanoseconds").isLessThan(10_000_000_000L);
    }

    @DisplayName("A light and its beeps are looked up; another count is another state")
    @ParameterizedTest(name = "{0} {1} {2} {3} {4}: {6}")
    @CsvSource(
            delimiter = '|',
            value = {
                "Network icon | plain       | STEADY   | 0 | NONE  | true  | on the network",
                "Network icon | crossed out | STEADY   | 0 | NONE  | false | no link",
                "Network icon | red         | BLINKING | 0 | NONE  | false | Not in this kind's table: red, blinking. "
                        + "Nearest is plain, blinking: looking for an address.",
                "Start sound  | screen lit  | STEADY   | 1 | SHORT | true  | started well",
                "Start sound  | screen lit  | STEADY   | 1 | LONG  | false | the supply is too weak",
                "Start sound  | screen lit  | STEADY   | 2 | SHORT | false | Not in this kind's table: screen lit, "
                        + "steady, 2 short beeps. Nearest is screen lit, steady, 1 short beep: started well.",
                "Tail light   | red         | STEADY   | 0 | NONE  | false | This kind has no table for its Tail light.",
            })
    void reads(String part, String colour, Steadiness steadiness, int beeps, Beep beep, boolean holds, String means) {
        var meaning =
                SignalReader.read(Kinds.shipped().get("time-clock").signals(), part, colour, steadiness, beeps, beep);
        assertThat(meaning.holds()).isEqualTo(holds);
        assertThat(meaning.means()).isEqualTo(means);
        if (meaning.known()) assertThat(meaning.act().isEmpty()).isEqualTo(holds);
    }

    @Test
    void versionsAreKept() {
        var kinds = Kinds.shipped();
        var first = kinds.get("time-clock");
        kinds.add(KindReader.read(CLOCK.replace("version: 5", "version: 6").replace("name: Time clock", "name: Clock"))
                .kind());
        assertThat(kinds.get("time-clock").name()).isEqualTo("Clock");
        assertThat(kinds.find("time-clock", 5).orElseThrow()).isSameAs(first);
        assertThat(kinds.find("time-clock", 99)).as("a version nobody knows").isEmpty();
        assertThat(kinds.all()).hasSize(Kinds.SHIPPED.size());
    }
}
