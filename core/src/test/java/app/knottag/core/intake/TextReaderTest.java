package app.knottag.core.intake;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/** Every text of intake/texts.txt is read as what was written above it by hand. */
class TextReaderTest {

    private static final Instant NOW = Instant.parse("2026-11-28T12:00:00Z");

    record Case(String expected, String text) {
        @Override
        public String toString() {
            return expected + " <- "
                    + text.lines().filter(l -> !l.isBlank()).findFirst().orElse("");
        }
    }

    static Stream<Case> cases() {
        try (var in = TextReaderTest.class.getResourceAsStream("/intake/texts.txt")) {
            String all = new String(in.readAllBytes(), StandardCharsets.UTF_8);
            var cases = new ArrayList<Case>();
            for (String part : all.substring(all.indexOf("\n### ")).split("\n### ")) {
                if (part.isBlank()) continue;
                int end = part.indexOf('\n');
                cases.add(new Case(part.substring(0, end).strip(), part.substring(end + 1)));
            }
            return cases.stream();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    @DisplayName("A text is read as what it is")
    @ParameterizedTest(name = "{0}")
    @MethodSource("cases")
    void reads(Case c) {
        assertThat(said(TextReader.read(c.text(), NOW))).isEqualTo(c.expected());
    }

    private static String said(Recognised read) {
        if (read instanceof Recognised.Table t)
            return (t.sure() ? "" : "~") + t.form() + "; "
                    + t.rows().stream().map(TextReaderTest::row).collect(Collectors.joining("; "));
        if (read instanceof Recognised.Scan s)
            return "SCAN; " + s.rows().stream().map(TextReaderTest::row).collect(Collectors.joining("; "))
                    + (s.ports().isEmpty() ? "" : " |")
                    + s.ports().stream()
                            .sorted((a, b) -> b.port().get() - a.port().get())
                            .map(p -> " " + p.port().get() + " " + p.state())
                            .collect(Collectors.joining());
        if (read instanceof Recognised.Echo e)
            return words(
                    e.form(),
                    e.answer(),
                    e.asked().orElse(null),
                    e.lossPercent() > 0 && e.answer() == Recognised.Answer.LOSS ? e.lossPercent() + " %" : null,
                    e.answer() == Recognised.Answer.UNREACHABLE
                            ? e.toldBy().map(t -> "by " + t).orElse(null)
                            : null,
                    e.macs().isEmpty()
                            ? null
                            : e.macs().stream().sorted().map(Object::toString).collect(Collectors.joining(" ")));
        if (read instanceof Recognised.PortTest p)
            return words(p.form(), p.state(), p.asked().orElse(null), p.port().orElse(null));
        if (read instanceof Recognised.Mail m)
            return words(
                    m.form(),
                    m.reply().temporary() ? "later" : null,
                    m.reply().field(),
                    m.reply().said());
        return read.form().name();
    }

    private static String words(Object... parts) {
        return Stream.of(parts).filter(p -> p != null).map(Object::toString).collect(Collectors.joining(" "));
    }

    private static String row(Row r) {
        return words(
                r.address().orElse(null),
                r.mac().orElse(null),
                r.name().isEmpty() ? null : r.name(),
                r.state(),
                r.port().isEmpty() ? null : r.port(),
                r.vlan().map(v -> "v" + v).orElse(null));
    }

    @DisplayName("Of no text anything is dropped without a word: each line is a row, a remark or a problem")
    @Test
    void everyLineIsAccountedFor() {
        cases().forEach(c -> {
            if (!(TextReader.read(c.text(), NOW) instanceof Recognised.Table t)
                    || c.text().contains("{")) return;
            var told = Stream.of(
                            t.rows().stream().map(Row::line),
                            t.leftOut().stream().map(Draft.Remark::line),
                            t.problems().stream().map(Draft.Remark::line))
                    .flatMap(s -> s)
                    .collect(Collectors.toSet());
            var lines = List.of(c.text().split("\n", -1));
            for (int i = 0; i < lines.size(); i++) {
                String line = lines.get(i).strip();
                boolean older = t.form() == Form.LEASES && line.contains(",4000,");
                if (!line.isEmpty() && !line.startsWith("#") && !older)
                    assertThat(told)
                            .as(c + ": line " + (i + 1) + " “" + line.toLowerCase(Locale.ROOT) + "”")
                            .contains(i + 1L);
            }
        });
    }
}
