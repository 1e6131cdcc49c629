package app.knottag.core.kind;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import app.knottag.core.kind.Kind.Gate;
import app.knottag.core.kind.Kind.Step;
import com.networknt.schema.InputFormat;
import com.networknt.schema.Schema;
import com.networknt.schema.SchemaRegistry;
import com.networknt.schema.SpecificationVersion;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.stream.Stream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;
import org.junit.jupiter.params.provider.ValueSource;

class StepOrderTest {

    /** Steps as "a, b>a, c>a>b": a key and what it waits for. */
    private static List<Step> steps(String text) {
        return Arrays.stream(text.split(", "))
                .map(t -> t.split(">"))
                .map(p -> {
                    var after = new LinkedHashMap<String, String>();
                    for (int i = 1; i < p.length; i++) after.put(p[i], "it rests on " + p[i]);
                    return new Step(
                            p[0],
                            "Step " + p[0],
                            List.of(),
                            "",
                            after,
                            Optional.empty(),
                            new Gate(GateType.FACTS, "", List.of()));
                })
                .toList();
    }

    @DisplayName("The usual order is kept wherever the constraints leave a choice")
    @ParameterizedTest(name = "{0}: {1}")
    @CsvSource(
            delimiter = '|',
            value = {
                "a, b, c             | a b c",
                "a>c, b, c           | b c a",
                "a>c, b>a, c         | c a b",
                "d>b, c, b, a        | c b d a",
                "a, b>a, c>a>b, d    | a b c d",
            })
    void orders(String listed, String order) {
        assertThat(StepOrder.of(steps(listed)).stream().map(Step::key)).containsExactly(order.split(" "));
    }

    @DisplayName("A loop or a step that is not there is named")
    @ParameterizedTest(name = "{0}")
    @CsvSource(
            delimiter = '|',
            value = {
                "a>b, b>a            | steps wait for one another: a after b after a",
                "a, b>d, c>b, d>c    | steps wait for one another: b after d after c after b",
                "a>a                 | steps wait for one another: a after a",
            })
    void refuses(String listed, String said) {
        assertThatThrownBy(() -> StepOrder.of(steps(listed))).hasMessage(said);
    }

    @ParameterizedTest(name = "seed {0}")
    @ValueSource(longs = {1, 2, 3})
    void everyOrderKeepsEveryConstraint(long seed) {
        var random = new Random(seed);
        for (int round = 0; round < 200; round++) {
            var keys = new ArrayList<String>();
            for (int i = 0; i < 9; i++) {
                var text = new StringBuilder("s" + i);
                for (int j = 0; j < i; j++)
                    if (random.nextInt(4) == 0) text.append(">s").append(j);
                keys.add(text.toString());
            }
            Collections.shuffle(keys, random);
            var ordered = StepOrder.of(steps(String.join(", ", keys)));
            assertThat(ordered).hasSize(9);
            for (int i = 0; i < ordered.size(); i++)
                for (String before : ordered.get(i).after().keySet())
                    assertThat(ordered.subList(0, i).stream().map(Step::key)).contains(before);
        }
    }

    @Test
    void aLateStepSaysWhatItBreaks() {
        var kind = Kinds.shipped().get("counter-payment-terminal");
        assertThat(StepOrder.breaks(kind, "wire", Set.of("label", "kit", "variant")))
                .containsExactly(
                        "Unpack, check the seals comes first: a broken seal must be seen before anything is connected");
        assertThat(StepOrder.breaks(kind, "wire", Set.of("label", "unpack", "kit", "variant")))
                .isEmpty();
    }

    static Stream<String> files() {
        return Kinds.shipped().all().stream().map(k -> k.id() + ".yaml");
    }

    private static String file(String name) throws IOException {
        try (var in = Kinds.class.getResourceAsStream("/kinds/" + name)) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8);
        }
    }

    private static Schema schema() throws IOException {
        return SchemaRegistry.withDefaultDialect(SpecificationVersion.DRAFT_2020_12)
                .getSchema(Files.readString(Path.of("../docs/kind.schema.json")), InputFormat.JSON);
    }

    @DisplayName("Every shipped kind keeps to the published schema, and its steps rest on one another")
    @ParameterizedTest(name = "{0}")
    @MethodSource("files")
    void keepsToTheSchema(String name) throws IOException {
        assertThat(schema().validate(file(name), InputFormat.YAML)).isEmpty();
        var kind = Kinds.read(file(name), name);
        assertThat(kind.steps().stream().filter(s -> s.after().isEmpty()).count())
                .as("beginnings")
                .isLessThan(4);
        assertThat(kind.step("confirm").after()).containsKey("restart");
    }

    @DisplayName("What the schema refuses, the reader refuses too")
    @ParameterizedTest(name = "{0} -> {1}")
    @CsvSource(
            delimiter = '|',
            value = {
                "version: 5        | version: one",
                "minutes: { wire: 8 | minutes: { wire: 800",
                "codeLetter: T     | codeLetter: TT",
                "shortName: pay    | shortName: p",
                "port: 443         | port: 70000",
                "noun:             | nuon:",
                "field: MASK       | field: MASQUE",
                "menus:            | menues:",
            })
    void agreesWithTheReader(String was, String is) throws IOException {
        String broken = file("counter-payment-terminal.yaml").replace(was.strip(), is.strip());
        assertThat(schema().validate(broken, InputFormat.YAML)).isNotEmpty();
        assertThatThrownBy(() -> Kinds.read(broken, "x.yaml")).isInstanceOf(IllegalArgumentException.class);
    }
}
