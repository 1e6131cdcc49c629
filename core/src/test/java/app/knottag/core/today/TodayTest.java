package app.knottag.core.today;

import static org.assertj.core.api.Assertions.assertThat;

import app.knottag.core.kind.Kind;
import app.knottag.core.runbook.Stage.Station;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.OptionalLong;
import java.util.Random;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class TodayTest {

    private static final Instant EIGHT = Instant.parse("2026-11-30T08:00:00Z");
    private static final Notice.Site SHOP = new Notice.Site(1, "Garden centre");

    private static Notice wait(String name, int ago) {
        var wait = new Kind.Wait(20, 55, 120, "the welcome", List.of());
        return Notice.wait(SHOP, 4, name, "First start", wait, EIGHT.minusSeconds(ago * 60L), EIGHT);
    }

    private static Notice plain(Notice.What what, String title, int ago) {
        return new Notice(
                what, SHOP, Station.ONBOARD, OptionalLong.empty(), EIGHT.minusSeconds(ago * 60L), "", title, "");
    }

    @DisplayName(
            "A wait is looked at when it has run as long as it usually does, and first when it never takes so long")
    @ParameterizedTest(name = "{0} min ago: {1}")
    @CsvSource(
            delimiter = '|',
            value = {
                "-30 | READY    | 08:00 | Look at Till 3 | “First start” began before the clock was set back: nobody can say how long "
                        + "it has run.",
                "0   | RUNS     | 08:55 | Till 3         | “First start” has run for 0 min of usually 55.",
                "54  | RUNS     | 08:01 | Till 3         | “First start” has run for 54 min of usually 55.",
                "55  | READY    | 08:00 | Look at Till 3 | “First start” has run for 55 min; usually it takes 55.",
                "119 | READY    | 06:56 | Look at Till 3 | “First start” has run for 119 min; usually it takes 55.",
                "120 | TOO_LONG | 08:00 | Look at Till 3 | “First start” has run for 120 min and never takes longer than 120.",
            })
    void waits(int ago, Notice.What what, String at, String title, String detail) {
        var notice = wait("Till 3", ago);
        assertThat(notice.what()).isEqualTo(what);
        assertThat(notice.at()).isEqualTo("2026-11-30T" + at + ":00Z");
        assertThat(notice.title()).isEqualTo(title);
        assertThat(notice.detail()).isEqualTo(detail);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "A | Mend A",
                "A,B | Mend A and B",
                "A,B,C | Mend A, B and C",
                "A,B,C,D | Mend A, B and 2 more",
                "A,B,C,D,E,F,G | Mend A, B and 5 more"
            })
    void severalAreOneLine(String names, String title) {
        var all = List.of(names.split(","));
        var notice = Notice.broken(SHOP, Station.CONFIRM, all, OptionalLong.empty(), EIGHT);
        assertThat(notice.title()).isEqualTo(title);
        assertThat(notice.detail()).isEqualTo("The last checks failed.");
    }

    @Test
    void whatIsWorstComesFirstAndOfThoseWhateverHasWaitedLongest() {
        var all = new ArrayList<>(List.of(
                plain(Notice.What.VISIT_AHEAD, "next week", -9_000),
                plain(Notice.What.VISIT_AHEAD, "tomorrow", -1_000),
                wait("Till 4", 10),
                wait("Till 3", 30),
                plain(Notice.What.BROKEN, "since Monday", 4_000),
                plain(Notice.What.BROKEN, "since today", 10),
                plain(Notice.What.DUE, "a key file", 60_000),
                plain(Notice.What.CUT_OFF, "ran out", 5),
                plain(Notice.What.VISIT_LATE, "late", 20),
                plain(Notice.What.VISIT_RUNS, "runs", 30),
                wait("Till 5", 60),
                wait("Till 6", 300)));
        for (int seed = 0; seed < 20; seed++) {
            Collections.shuffle(all, new Random(seed));
            var today = Today.of(all);
            assertThat(today.first().map(Notice::title)).contains("Look at Till 6");
            assertThat(today.now())
                    .extracting(Notice::title)
                    .containsExactly(
                            "Look at Till 5", "runs", "late", "ran out", "since Monday", "since today", "a key file");
            assertThat(today.running()).extracting(Notice::title).containsExactly("Till 3", "Till 4");
            assertThat(today.ahead()).extracting(Notice::title).containsExactly("tomorrow", "next week");
        }
    }

    @Test
    void whenNothingWaitsForHandsTheFirstIsWhatIsReadyNext() {
        var today = Today.of(List.of(wait("Till 4", 10), wait("Till 3", 30)));
        assertThat(today.first().map(Notice::title)).contains("Till 3");
        assertThat(today.running()).extracting(Notice::title).containsExactly("Till 4");
        assertThat(Today.of(List.of()).first()).isEmpty();
        assertThat(Today.of(List.of(plain(Notice.What.VISIT_AHEAD, "x", 0))).first())
                .isEmpty();
    }
}
