package app.knottag.core.reach;

import static org.assertj.core.api.Assertions.assertThat;

import app.knottag.core.reach.FieldCases.Case;
import java.util.List;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class FieldCasesTest {

    private static final List<Case> CASES = FieldCases.all();

    @DisplayName("Cases of the field end as a technician would end them")
    @ParameterizedTest(name = "{0}: {1} of all")
    @CsvSource({"single, 0.98", "field, 0.98", "misread, 0.9", "double, 0.85", "outside, 0.8"})
    void right(String group, double share) {
        var wrong = CASES.stream()
                .filter(c -> c.group().equals(group) && !c.right())
                .toList();
        assertThat(FieldCases.right(CASES, group)).as("%s", wrong).isGreaterThanOrEqualTo(share);
    }

    @DisplayName("Hardly ever is a wrong cause called found")
    @Test
    void foundWrongly() {
        assertThat(CASES).hasSizeGreaterThan(300);
        assertThat(CASES.stream().filter(Case::foundWrongly)).hasSizeLessThan(CASES.size() / 100);
    }
}
