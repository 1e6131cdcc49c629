package app.knottag.core.worksheet;

import static org.assertj.core.api.Assertions.assertThat;

import app.knottag.core.figure.Judgement;
import app.knottag.core.figure.SheetField;
import app.knottag.core.figure.SheetField.Form;
import app.knottag.core.figure.SheetFinding.Weight;
import app.knottag.core.figure.Worksheet;
import java.util.Arrays;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.SplittableRandom;
import java.util.TreeSet;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvFileSource;
import org.junit.jupiter.params.provider.MethodSource;

class WorksheetsTest {

    static Stream<Worksheet> all() {
        return Worksheets.all().stream();
    }

    private static Map<String, String> figures(String text) {
        var figures = new LinkedHashMap<String, String>();
        for (String one : text.split(";")) {
            int is = one.indexOf('=');
            if (is > 0)
                figures.put(one.substring(0, is).strip(), one.substring(is + 1).strip());
        }
        return figures;
    }

    /** Findings as their codes, those that stop with an exclamation mark. */
    private static TreeSet<String> codes(Judgement judged) {
        return judged.findings().stream()
                .filter(f -> f.weight() != Weight.NOTES)
                .map(f -> (f.weight() == Weight.STOPS ? "!" : "") + f.code())
                .collect(Collectors.toCollection(TreeSet::new));
    }

    @DisplayName("Cases worked out by hand, each with the mistake that its label invites")
    @ParameterizedTest(name = "{0}: {1}")
    @CsvFileSource(resources = "/worksheet/cases.txt", delimiter = '|')
    void byHand(String key, String typed, String expected) {
        var judged = Worksheets.find(key).orElseThrow().judge(figures(typed));
        var codes = new TreeSet<String>();
        for (String one : expected.split(";(?= )")) {
            String said = one.strip();
            if (said.matches("!?[A-Z_0-9]+")) codes.add(said);
            else if (!said.endsWith("="))
                assertThat(judged.results())
                        .as("%s, but %s", said, judged)
                        .anyMatch(r -> (r.code() + "=" + r.text()).equals(said));
        }
        assertThat(codes(judged)).as(judged.findings().toString()).isEqualTo(codes);
        assertThat(judged.holds()).isEqualTo(codes.stream().noneMatch(c -> c.startsWith("!")));
    }

    @DisplayName("An empty worksheet names every field that is missing, and no other")
    @ParameterizedTest(name = "{0}")
    @MethodSource("all")
    void empty(Worksheet sheet) {
        var judged = sheet.judge(Map.<String, String>of());
        var missing = sheet.fields().stream()
                .filter(f -> f.needed() && f.usual().isEmpty())
                .map(SheetField::key)
                .toList();
        assertThat(judged.findings().stream().filter(f -> f.code().equals("MISSING")))
                .hasSameSizeAs(missing);
        assertThat(judged.findings().stream().filter(f -> f.weight() == Weight.STOPS))
                .extracting("field")
                .containsExactlyElementsOf(missing);
    }

    private static final List<String> ODD = List.of(
            "",
            "0",
            "-1",
            "1",
            "1e309",
            "NaN",
            "999999999999",
            "0,5",
            "12 V",
            "3 A",
            "AWG 22",
            "½",
            "\u0000",
            "YES",
            "x".repeat(300),
            "1.5 TB",
            "100",
            "٣");

    @DisplayName("Whatever is keyed in, an answer comes, and each finding names a field that is there")
    @ParameterizedTest(name = "{0}")
    @MethodSource("all")
    void anything(Worksheet sheet) {
        var random = new SplittableRandom(11);
        for (int n = 0; n < 2_000; n++) {
            var typed = new HashMap<String, String>();
            for (var field : sheet.fields())
                if (field.form() != Form.ROWS) typed.put(field.key(), some(random, field));
                else
                    for (int row = random.nextInt(4); row > 0; row--)
                        for (var column : field.columns())
                            typed.put(field.key() + "/" + row + "/" + column.key(), some(random, column));
            var judged = sheet.judge(typed);
            assertThat(judged.findings()).allSatisfy(f -> {
                assertThat(f.message()).isNotBlank();
                assertThat(f.field().isEmpty()
                                || sheet.field(f.field()).isPresent()
                                || sheet.fields().stream().anyMatch(s -> s.key().equals(f.field())))
                        .as(f.field())
                        .isTrue();
            });
            for (var picture : judged.pictures())
                for (var row : picture.rows()) {
                    double at = 0;
                    for (var s : row.parts()) {
                        assertThat(s.from()).as(picture.title() + ": " + row).isGreaterThanOrEqualTo(at - 1e-9);
                        assertThat(s.to())
                                .as(picture.title())
                                .isGreaterThan(s.from())
                                .isLessThanOrEqualTo(picture.to() * 1.0001);
                        at = s.to();
                    }
                }
        }
    }

    private static String some(SplittableRandom random, SheetField field) {
        if (!field.picks().isEmpty() && random.nextInt(10) > 0)
            return field.picks().get(random.nextInt(field.picks().size())).value();
        if (field.form() == Form.FIGURE && random.nextInt(10) > 0)
            return String.format(
                    java.util.Locale.ROOT,
                    field.unit().symbol().isEmpty() ? "%.0f" : "%.3f",
                    field.least()
                            + random.nextDouble() * (Math.min(field.most(), field.least() + 200) - field.least()));
        return ODD.get(random.nextInt(ODD.size()));
    }

    @DisplayName("Every worksheet has its key, its title, what it is for, and each field once")
    @ParameterizedTest(name = "{0}")
    @MethodSource("all")
    void fieldsAreTold(Worksheet sheet) {
        assertThat(sheet.fields()).extracting(SheetField::key).doesNotHaveDuplicates();
        assertThat(sheet.purpose()).endsWith(".");
        assertThat(Arrays.asList(sheet.key(), sheet.title())).noneMatch(String::isBlank);
        assertThat(Worksheets.find(sheet.key())).contains(sheet);
    }
}
