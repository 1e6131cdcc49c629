package app.knottag.core.log;

import static org.assertj.core.api.Assertions.assertThat;

import app.knottag.core.kind.Kinds;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What may stand on record. The two lists were written down by hand: what people type, and what they may. */
class WordsTest {

    private static List<String> lines(char mark) throws IOException {
        try (var in = WordsTest.class.getResourceAsStream("/log/secrets.txt")) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8)
                    .lines()
                    .filter(l -> l.charAt(0) == mark)
                    .map(l -> l.substring(2))
                    .toList();
        }
    }

    @DisplayName("At least 95 of 100 secrets are caught")
    @Test
    void caught() throws IOException {
        var missed = lines('!').stream().filter(l -> Secrets.in(l).isEmpty()).toList();
        assertThat(lines('!')).hasSizeGreaterThan(50);
        assertThat(missed).as("missed").hasSizeLessThanOrEqualTo(lines('!').size() / 20);
    }

    @DisplayName("At most 2 of 100 harmless texts are refused, and no line of a shipped kind")
    @Test
    void harmless() throws IOException {
        var refused = lines('.').stream().filter(l -> Secrets.in(l).isPresent()).toList();
        assertThat(refused).as("refused").hasSizeLessThanOrEqualTo(lines('.').size() / 50);
        for (String id : Kinds.SHIPPED)
            assertThat(Kinds.shippedText(id).lines().filter(l -> Secrets.in(l).isPresent()))
                    .as(id)
                    .isEmpty();
    }

    @DisplayName("Words that would do something are refused, those that only say something are not")
    @ParameterizedTest(name = "{0}: {1}")
    @CsvSource(
            delimiter = '|',
            nullValues = "-",
            value = {
                "Front counter, left | -",
                "Gärtnerei “Süd”     | -",
                "=1+1                | It may not begin with “=”",
                "\u00a0=1+1          | It may not begin with “=”",
                "\uff1d1+1           | It may not begin with “=”",
                "Till\u202e4         | An invisible character stands in it",
                "Till\u200b4         | An invisible character stands in it",
                "Till\u20284         | An invisible character stands in it",
                "PIN 4711            | This looks like a password, PIN or key.",
            })
    void words(String text, String problem) {
        var said = Words.problem(text, true);
        if (problem == null) assertThat(said).isEmpty();
        else assertThat(said.orElseThrow()).startsWith(problem);
    }
}
