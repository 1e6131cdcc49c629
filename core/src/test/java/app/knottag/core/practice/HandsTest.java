package app.knottag.core.practice;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.hardware.Mac;
import app.knottag.core.practice.HandTask.FreePort;
import app.knottag.core.practice.HandTask.Label;
import app.knottag.core.practice.HandTask.LabelLine;
import app.knottag.core.practice.HandTask.Port;
import app.knottag.core.practice.HandTask.Seal;
import app.knottag.core.practice.HandTask.TakeDown;
import app.knottag.core.reading.ReadingException;
import app.knottag.core.runbook.Spoken;
import java.util.List;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Small tasks for hands, eyes and ears. */
class HandsTest {

    private static final int ROUNDS = 2_000;

    private static <T extends HandTask> Stream<T> all(Class<T> type) {
        return IntStream.range(0, ROUNDS)
                .mapToObj(Hands::round)
                .flatMap(List::stream)
                .filter(type::isInstance)
                .map(type::cast);
    }

    @DisplayName("What is read out is the address, heard by the ear of the phone call at work")
    @Test
    void saidIsTheAddress() {
        assertThat(all(TakeDown.class)).hasSize(3 * ROUNDS).allSatisfy(t -> {
            String said = String.join(" point ", t.said());
            assertThat(Spoken.figures(said.replaceAll("[a-z]+, no, ", ""))).isEqualTo(t.is().toString());
            assertThat(t.judge(t.is().toString()).right()).isTrue();
            assertThat(t.judge("198.51.100.7").right()).isFalse();
            // Whatever was typed, the right one is named as a whole.
            for (String typed : List.of(t.is() + "1", t.is().toString().replaceFirst(".$", "")))
                assertThat(t.judge(typed).says().split("[^0-9.]+|\\.(?= |$)")).contains(t.is().toString());
            // Nobody says twice the same to put it right.
            assertThat(said).doesNotContainPattern("([a-z]+), no, \\1( |$)");
        });
        assertThat(all(TakeDown.class).map(t -> String.join(" ", t.said())))
                .anyMatch(s -> s.contains("no,"))
                .anyMatch(s -> s.contains("double"))
                .anyMatch(s -> s.contains("oh"))
                .anyMatch(s -> s.contains("zero"));
    }

    @DisplayName("A label has two MACs that differ in one figure; only the one of the side that is asked for is right")
    @Test
    void labels() {
        assertThat(all(Label.class)).hasSize(3 * ROUNDS).allSatisfy(t -> {
            String side = t.wired() ? "LAN MAC" : "WLAN MAC";
            for (LabelLine line : t.lines())
                assertThat(t.judge(line.text()).right())
                        .as(line + " of " + t)
                        .isEqualTo(line.name().equals(side));
            assertThat(t.is().digitsApart(t.other())).isEqualTo(1);
            assertThat(t.is().locallyAdministered()).isTrue();
            assertThat(t.is().group()).isFalse();
        });
    }

    @Test
    void sealsAndPorts() {
        assertThat(all(Seal.class)).anyMatch(t -> t.sheet().equals(t.seal())).allSatisfy(t -> {
            boolean same = t.sheet().equals(t.seal());
            assertThat(t.judge("same").right()).isEqualTo(same);
            assertThat(t.judge("OTHER").right()).isNotEqualTo(same);
        });
        assertThat(all(FreePort.class)).allSatisfy(t -> {
            assertThat(t.ports()).contains(Port.DARK, Port.KEPT).hasSize(12);
            assertThat(IntStream.rangeClosed(1, 12)
                            .filter(n -> t.judge("" + n).right())
                            .toArray())
                    .containsExactly(t.free());
        });
    }

    private static final List<HandTask> TASKS = List.of(
            new TakeDown(List.of(), Ipv4Address.parse("10.44.16.51")),
            new Label(List.of(), true, Mac.parse("02:B8:D5:0E:36:8B"), Mac.parse("02:B8:D5:0E:36:8A")),
            new Seal("48130671", "48130617"),
            new Seal("48130671", "48180671"),
            new FreePort(List.of(Port.LIT, Port.DARK, Port.KEPT, Port.FREE)));

    @DisplayName("A slip is named with its place, its reason and what would have been right")
    @ParameterizedTest(name = "{0}: {1}: {2}")
    @CsvSource(
            delimiter = '|',
            value = {
                "0 | 10.44.16.51  | true  | Right.",
                "0 | 10.44.61.51  | false | swapped",
                "0 | 10.44.16.5   | false | 10.44.16.51",
                "0 | nonsense     | false | 10.44.16.51",
                "0 | ''           | false | 10.44.16.51",
                "1 | 02b8d50e368b | true  | Right.",
                "1 | 02-B8-D5-0E-36-8A | false | That is the MAC of its wireless side.",
                "1 | 02:B8:D5:0E:36:BB | false | 02:B8:D5:0E:36:8B",
                "1 | 02:B8:D5:OE:36:8B | false | 02:B8:D5:0E:36:8B",
                "2 | SAME         | false | Sign 7 and the next are swapped: 71 on the sheet, 17 on the device.",
                "2 | OTHER        | true  | somebody opened it",
                "3 | SAME         | false | Sign 4 is 3 on the sheet and 8 on the device.",
                "4 | 4            | true  | no cable, no tape",
                "4 | 1            | false | its light is on",
                "4 | 2            | false | Dark is not free",
                "4 | 3            | false | kept for somebody. It was port 4.",
                "4 | 13           | false | The ports have the numbers 1 to 4.",
                "4 | four         | false | The ports have the numbers 1 to 4.",
            })
    void slips(int task, String answer, boolean right, String says) {
        var judged = TASKS.get(task).judge(answer);
        assertThat(judged.says()).contains(says);
        assertThat(judged.right()).isEqualTo(right);
    }

    @Test
    void sameForTheSameNumber() {
        assertThat(Hands.round(7)).isEqualTo(Hands.round(7)).isNotEqualTo(Hands.round(8));
        assertThatThrownBy(() -> Hands.round(-1)).isInstanceOf(ReadingException.class);
    }
}
