package app.knottag.core.kind;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import app.knottag.core.kind.Kind.Field;
import app.knottag.core.log.Words;
import app.knottag.core.reach.ProofBasis;
import app.knottag.core.runbook.Runbook;
import app.knottag.core.runbook.Stage;
import app.knottag.core.runbook.Stage.Station;
import app.knottag.core.status.Status;
import java.util.EnumMap;
import java.util.EnumSet;
import java.util.List;
import java.util.Set;
import java.util.stream.Stream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;
import org.junit.jupiter.params.provider.ValueSource;

class KindsTest {

    static Stream<Kind> shipped() {
        return Kinds.shipped().all().stream();
    }

    @DisplayName("Every shipped kind can be followed from label to proof")
    @ParameterizedTest(name = "{0}")
    @MethodSource("shipped")
    void complete(Kind kind) {
        var gates = kind.steps().stream().map(s -> s.gate().type()).toList();
        assertThat(gates)
                .containsSubsequence(
                        GateType.FACTS,
                        GateType.TYPE_SHEET,
                        GateType.READ_BACK,
                        GateType.ADDRESS_SHOWN,
                        GateType.CONFIRMED);
        assertThat(gates.subList(gates.indexOf(GateType.CONFIRMED) + 1, gates.size()))
                .as("after the proof it is only packed away")
                .isSubsetOf(GateType.KIT, GateType.NEW_SEALS);
        assertThat(kind.menu()).extracting(Kind.MenuField::field).contains(Field.ADDRESS, Field.MASK, Field.GATEWAY);
        if (kind.service().protocol() == Protocol.LINE && !kind.service().ask().isEmpty())
            assertThat(kind.service().answer()).contains("{serial}");
        assertThat(kind.service().proves()).isNotBlank();
        assertThat(kind.steps())
                .allSatisfy(s -> assertThat(s.gate().options())
                        .filteredOn(o -> !o.holds())
                        .allSatisfy(o -> assertThat(o.remedy()).isNotBlank()));
    }

    @DisplayName(
            "Every shipped kind reads as a recipe: each step says what must be seen, and nothing of the file's own language")
    @ParameterizedTest(name = "{0}")
    @MethodSource("shipped")
    void recipe(Kind kind) {
        var recipe = KindText.of(kind);
        assertThat(recipe.steps())
                .extracting(KindText.KindTextStep::title)
                .containsExactlyElementsOf(
                        kind.steps().stream().map(Kind.Step::title).toList());
        assertThat(recipe.steps())
                .allSatisfy(s -> assertThat(s.gate()).isNotBlank().doesNotContain("{", "[", "null"));
        assertThat(recipe.toString())
                .doesNotContainPattern("\\b[A-Z]+_[A-Z_]+\\b")
                .doesNotContain("null");
        assertThat(recipe.menu()).hasSameSizeAs(kind.menu());
        assertThat(recipe.lights()).hasSameSizeAs(kind.signals());
    }

    @Test
    void codeLettersDoNotClash() {
        assertThat(shipped().map(Kind::codeLetter)).doesNotHaveDuplicates();
        assertThatThrownBy(() -> Kinds.shipped().get("toaster"))
                .hasMessageStartingWith("no kind “toaster”; there are [counter-payment-terminal");
    }

    @DisplayName("Another address or setting undoes what was typed; another MAC, place or partner only the proof")
    @ParameterizedTest(name = "{0}: {1}")
    @CsvSource(
            delimiter = '|',
            value = {
                "ADDRESS      | address read-back restart at-till till-read-back confirm",
                "SETTINGS     | address read-back restart confirm",
                "UNIT         | confirm",
                "PLACE        | confirm",
                "PARTNER      | address read-back at-till till-read-back confirm",
                "SERVICE_PORT | address read-back at-till till-read-back confirm",
            })
    void undone(ProofBasis.Change change, String keys) {
        assertThat(Runbook.undoneBy(Kinds.shipped().get("counter-payment-terminal"), EnumSet.of(change)))
                .isEqualTo(List.of(keys.split(" ")));
        assertThat(Runbook.undoneBy(Kinds.shipped().get("counter-payment-terminal"), Set.of()))
                .isEmpty();
    }

    @DisplayName("The status of a station is its worst one, and what is begun is finished first")
    @ParameterizedTest(name = "{0} {1} {2}: {3}")
    @CsvSource({"0, true, true, PASSED", "3, true, true, FAILED", "3, false, true, ACTIVE", "3, false, false, PENDING"})
    void together(long waiting, boolean failed, boolean half, Status status) {
        assertThat(Stage.together(waiting, failed, half)).isEqualTo(status);
    }

    @ParameterizedTest(name = "plan {0}, register {1}, onboard {2}, confirm {3}: {4}")
    @CsvSource(
            nullValues = "-",
            value = {
                "1, 1, 1, 1, CONFIRM",
                "1, 1, 1, 0, ONBOARD",
                "1, 1, 0, 0, REGISTER",
                "1, 0, 0, 0, PLAN",
                "0, 0, 0, 0, -"
            })
    void next(long plan, long register, long onboard, long confirm, Station station) {
        var waiting = new EnumMap<Station, Long>(Station.class);
        waiting.put(Station.PLAN, plan);
        waiting.put(Station.REGISTER, register);
        waiting.put(Station.ONBOARD, onboard);
        waiting.put(Station.CONFIRM, confirm);
        assertThat(Stage.next(waiting).orElse(null)).isEqualTo(station);
    }

    @DisplayName("Words on record are short, plain and no secret")
    @ParameterizedTest(name = "“{0}”: {1}")
    @CsvSource(
            delimiter = '|',
            value = {
                "Front counter, left | ",
                "''                  | This is missing.",
                "+49 30 123          | It may not begin with “+”: spreadsheets would take it for a formula.",
                "@SUM(A1)            | It may not begin with “@”: spreadsheets would take it for a formula.",
                "a\tb                | Line breaks and control characters cannot stand here.",
                "PIN 4711            | This looks like a password, PIN or key. Knot Tag keeps no secrets: write down "
                        + "only where it is kept.",
            })
    void words(String text, String problem) {
        assertThat(Words.problem(text, true).orElse(null)).isEqualTo(problem);
        assertThat(Words.problem("x".repeat(121), false)).hasValue("At most 120 characters; this has 121.");
        assertThat(Words.problem("", false)).isEmpty();
    }

    @DisplayName("A page is asked for by a path of the device itself")
    @ParameterizedTest(name = "{0}")
    @ValueSource(strings = {"//10.9.9.9/", "http://10.9.9.9/", "status", "/a b", "/a#b", "/\u00e4", "/a@b"})
    void pathsStayOnTheDevice(String ask) {
        assertThatThrownBy(() -> new Kind.Service(80, Protocol.HTTP, ask, "", "It is there", "", "", "", ""))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageStartingWith("a page is asked for by its path, such as /status; was");
        assertThat(new Kind.Service(80, Protocol.HTTPS, "/a/b?c=1", "", "It is there", "", "", "", "").ask())
                .isEqualTo("/a/b?c=1");
    }
}
