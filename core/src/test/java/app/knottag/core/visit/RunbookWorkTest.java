package app.knottag.core.visit;

import static org.assertj.core.api.Assertions.assertThat;

import app.knottag.core.kind.Kind;
import app.knottag.core.kind.Kinds;
import app.knottag.core.runbook.Runbook;
import app.knottag.core.runbook.StepRecord;
import app.knottag.core.status.Status;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;

class RunbookWorkTest {

    private static final Instant NINE = Instant.parse("2026-11-30T09:00:00Z");
    private static final Kind TERMINAL = Kinds.shipped().get("counter-payment-terminal");

    private static Runbook upTo(Kind kind, String step, Optional<Instant> started) {
        Map<String, StepRecord> records = new HashMap<>();
        for (var s : kind.steps()) {
            boolean here = s.key().equals(step);
            if (here && started.isEmpty()) break;
            records.put(
                    s.key(),
                    new StepRecord(
                            s.key(),
                            here ? Status.ACTIVE : Status.PASSED,
                            here ? started : Optional.empty(),
                            here ? Optional.empty() : Optional.of(NINE),
                            Map.of(),
                            List.of(),
                            "",
                            "Imke",
                            0,
                            0));
            if (here) break;
        }
        return Runbook.of(kind, records);
    }

    private static List<String> told(List<Stretch> stretches) {
        return stretches.stream()
                .map(s -> s.steps().get(0) + ".." + s.steps().get(s.steps().size() - 1) + " "
                        + s.hands().usual() + "+" + s.alone().usual())
                .toList();
    }

    @Test
    void aTerminalIsThreeStretchesWithItsWaitsBetween() {
        // By hand: seals 2, kit 2, model 1, label 2, wiring 8, set going 1; then 55 alone; look 2, enter 3, read back
        // 2, set going 1.
        assertThat(told(RunbookWork.left(upTo(TERMINAL, "unpack", Optional.empty()), Learned.NOTHING)))
                .startsWith("unpack..first-start 16+55", "first-start..restart 8+2")
                .hasSize(3);
        var fetching = RunbookWork.left(upTo(TERMINAL, "unpack", Optional.empty()), Learned.NOTHING);
        assertThat(fetching.get(0).megabytes()).isEqualTo(600);
        assertThat(fetching.get(1).megabytes()).isZero();
    }

    @ParameterizedTest(name = "begun {0} min ago: ready in {1} min")
    @CsvSource({"0, 55", "20, 35", "55, 0", "400, 0"})
    void aWaitThatRunsIsReadyLater(int ago, int ready) {
        var runbook = upTo(TERMINAL, "first-start", Optional.of(NINE.minusSeconds(ago * 60L)));
        assertThat(RunbookWork.ready(runbook, NINE)).isEqualTo(ready);
        assertThat(told(RunbookWork.left(runbook, Learned.NOTHING)).get(0)).isEqualTo("first-start..restart 8+2");
    }

    @Test
    void whatAnotherTradeDoesIsAStretchOfItsOwn() {
        var clock = RunbookWork.left(upTo(Kinds.shipped().get("time-clock"), "kit", Optional.empty()), Learned.NOTHING);
        assertThat(clock.stream().map(s -> s.skill() + ":" + s.steps().get(0)))
                .contains("qualified electrician:supply", ":wire");
        assertThat(clock.stream().filter(s -> !s.skill().isEmpty()).toList())
                .singleElement()
                .satisfies(s -> assertThat(s.hands().usual()).isEqualTo(20));
    }

    static List<String> kinds() {
        return Kinds.SHIPPED;
    }

    @ParameterizedTest
    @MethodSource("kinds")
    void nothingOfAKindIsLostOrDoneTwice(String name) {
        var kind = Kinds.shipped().get(name);
        var keys = new ArrayList<String>();
        for (var s : RunbookWork.left(Runbook.of(kind, Map.of()), Learned.NOTHING))
            for (String k : s.steps())
                if (keys.isEmpty() || !keys.get(keys.size() - 1).equals(k)) keys.add(k);
        assertThat(keys).isEqualTo(kind.steps().stream().map(Kind.Step::key).toList());
    }

    @Test
    void whatWasLearnedCountsFromTheEighthOn() {
        var seen = new ArrayList<>(Collections.nCopies(3, new Learned.Seen(TERMINAL.id(), "", "wire", 12)));
        seen.addAll(Collections.nCopies(3, new Learned.Seen(TERMINAL.id(), "", "wire", 20)));
        seen.add(new Learned.Seen(TERMINAL.id(), "", "wire", 31));
        assertThat(new Learned(seen).hands(TERMINAL.id(), "wire")).isEmpty();
        assertThat(new Learned(seen).count(TERMINAL.id(), "wire")).isEqualTo(7);
        seen.add(new Learned.Seen(TERMINAL.id(), "", "wire", 9));
        var learned = new Learned(seen);
        assertThat(learned.hands(TERMINAL.id(), "wire")).contains(new Minutes(9, 12, 31));
        assertThat(learned.fourOfFive(TERMINAL.id(), "wire")).contains(20);
        // Of the wiring four of five took no longer than 20; of the label nothing is on record, so what was planned
        // stands.
        assertThat(learned.offer(List.of(
                        new Learned.Seen(TERMINAL.id(), "", "wire", 8),
                        new Learned.Seen(TERMINAL.id(), "", "label", 2))))
                .isEqualTo(new Learned.Offer(22, 1, 2));
        // Of one model as much is on record as counts: others of its kind say nothing about it any more.
        var models = new ArrayList<>(Collections.nCopies(8, new Learned.Seen(TERMINAL.id(), "T-2", "wire", 4)));
        models.addAll(seen);
        models.addAll(Collections.nCopies(7, new Learned.Seen(TERMINAL.id(), "T-3", "wire", 5)));
        assertThat(new Learned(models).of("T-2").hands(TERMINAL.id(), "wire")).contains(Minutes.exactly(4));
        assertThat(new Learned(models).of("T-3").hands(TERMINAL.id(), "wire")).contains(new Minutes(4, 5, 31));
        assertThat(new Learned(models).of("").count(TERMINAL.id(), "wire")).isEqualTo(23);
        assertThat(learned.known(TERMINAL.id(), RunbookWork.left(upTo(TERMINAL, "unpack", Optional.empty()), learned)))
                .isEqualTo(1);
        assertThat(told(RunbookWork.left(upTo(TERMINAL, "unpack", Optional.empty()), learned))
                        .get(0))
                .isEqualTo("unpack..first-start 20+55");
    }
}
