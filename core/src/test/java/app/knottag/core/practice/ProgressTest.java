package app.knottag.core.practice;

import static org.assertj.core.api.Assertions.assertThat;

import app.knottag.core.practice.Progress.Part;
import app.knottag.core.practice.Progress.Played;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.HashSet;
import java.util.List;
import java.util.Random;
import java.util.stream.Stream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What is said of somebody who has played: by cases laid out by hand, and by a player who learns. */
class ProgressTest {

    /** A shipped case as it was played: its name, the minutes used, and the score, with an x when something else was named. */
    private static Played played(String text) {
        var parts = text.strip().split(" ");
        var c = Cases.find(parts[0]).orElseThrow();
        boolean solved = !parts[2].equals("x");
        return new Played(
                c.id(),
                c.kind(),
                c.hard(),
                c.faults(),
                solved,
                Double.parseDouble(parts[1]),
                2,
                solved ? Double.parseDouble(parts[2]) : 0);
    }

    /** As they were played, the first first. */
    private static Progress of(String text) {
        var all = new ArrayList<>(Stream.of(text.split(","))
                .filter(t -> !t.isBlank())
                // A star stands for as many as count.
                .flatMap(t -> Collections.nCopies(t.endsWith("*") ? Progress.LATEST : 1, t.replace("*", "")).stream())
                .map(ProgressTest::played)
                .toList());
        Collections.reverse(all);
        return new Progress(all);
    }

    private static List<String> easy() {
        return Cases.shipped().stream()
                .filter(c -> c.hard() == Level.FIRST)
                .map(PracticeCase::id)
                .toList();
    }

    @DisplayName("Minutes beyond the best are lost, all of them when something else was named; the latest five count")
    @ParameterizedTest(name = "{0}: {1} of them, {2}, {3} min")
    @CsvSource({
        "mopped-floor 2 1,                                                      1, 1.0, 0",
        "mopped-floor 5 0.4,                                                    1, 0.4, 3",
        "mopped-floor 7 x,                                                      1, 0.0, 7",
        "mopped-floor 1 1,                                                      1, 1.0, 0",
        "'mopped-floor 9 x,mopped-floor 4 0.5',                                 2, 0.25, 5.5",
        "'mopped-floor 9 x,mopped-floor 9 x*,mopped-floor 2 1*', 11, 1.0, 0",
    })
    void lost(String text, int count, double score, double lost) {
        var progress = of(text);
        var kind = Cases.find("mopped-floor").orElseThrow().kind();
        assertThat(progress.byKind()).containsExactly(new Part(kind, count, score, lost));
        assertThat(progress.byPlace()).singleElement().satisfies(p -> {
            assertThat(p.of()).isNotBlank().isNotEqualTo(kind);
            assertThat(p.lost()).isEqualTo(lost);
        });
    }

    @DisplayName("Two at once are two places; what loses most stands first")
    @Test
    void places() {
        var progress = of("mopped-floor 2 1,two-at-once 12 0.2");
        assertThat(progress.byKind()).isSortedAccordingTo((a, b) -> Double.compare(b.lost(), a.lost()));
        assertThat(progress.byPlace()).hasSizeGreaterThanOrEqualTo(2);
        assertThat(progress.byPlace().get(0).lost()).isEqualTo(10);
    }

    @DisplayName("Ready is who found all of the last five of a level, near the best; luck with fewer says nothing")
    @ParameterizedTest
    @CsvSource({
        "1 1 1 1,       false",
        "1 1 1 1 1,     true",
        "0 1 1 1 1 1,   true",
        "1 1 1 1 0,     false",
        "1 1 1 1 0.1,   true",
        "1 1 1 0.4 0.4, false",
        "0.8 0.8 0.8 0.8 0.8, true",
        "'',            false",
    })
    void ready(String scores, boolean ready) {
        var cases = easy();
        var text = new ArrayList<String>();
        for (var score : scores.split(" "))
            if (!score.isEmpty()) text.add(cases.get(text.size()) + " 2 " + (score.equals("0") ? "x" : score));
        var progress = of(String.join(",", text));
        assertThat(progress.ready(Level.FIRST)).isEqualTo(ready);
        assertThat(progress.ready(Level.THIRD)).isFalse();
    }

    @DisplayName("The next is easy until easy ones go well, never one of the last three, and where most minutes go")
    @Test
    void next() {
        var all = Cases.shipped();
        var first = of("").next(all).orElseThrow();
        assertThat(first.is().id()).isEqualTo(easy().get(0));
        assertThat(first.why()).isEqualTo("An easy one to begin with.");
        String one = easy().get(0), two = easy().get(1), three = easy().get(2);
        // Not again at once, however badly it went.
        assertThat(of(one + " 9 x").next(all).orElseThrow().is().id()).isNotEqualTo(one);
        assertThat(of(one + " 9 x").next(all).orElseThrow().is().hard()).isEqualTo(Level.FIRST);
        assertThat(of(one + " 2 1," + two + " 2 1," + three + " 2 1")
                        .next(all)
                        .orElseThrow()
                        .is()
                        .hard())
                .isEqualTo(Level.SECOND);
        // Each of them once, badly: then the worst of them again, but for the last three.
        var badly = new ArrayList<String>();
        for (var id : easy()) badly.add(id + " " + (id.equals(two) ? "20" : "4") + " x");
        var again = of(String.join(",", badly)).next(all).orElseThrow();
        assertThat(easy().subList(0, easy().size() - 3)).contains(again.is().id());
        assertThat(again.is().kind()).isEqualTo(Cases.find(two).orElseThrow().kind());
        assertThat(again.why()).isEqualTo("You named something else the last times.");
        var well = all.stream().map(c -> c.id() + " 2 0.95").toList();
        assertThat(of(String.join(",", well)).next(all)).isEmpty();
    }

    @DisplayName("Whoever follows it plays every case once before the end, and is led from level to level")
    @Test
    void followed() {
        var random = new Random(42);
        var played = new ArrayList<Played>();
        var levels = new ArrayList<Level>();
        for (int n = 0; n < 400; n++) {
            var next = new Progress(played).next(Cases.shipped());
            if (next.isEmpty()) break;
            var c = next.get().is();
            levels.add(c.hard());
            // A made-up player who gets better with each case of a level; no person was tried.
            double skill = Math.min(
                    1, 0.3 + 0.1 * levels.stream().filter(l -> l == c.hard()).count());
            boolean solved = random.nextDouble() < skill + 0.3;
            played.add(0, new Played(c.id(), c.kind(), c.hard(), c.faults(), solved, 2 / skill, 2, solved ? skill : 0));
        }
        assertThat(new Progress(played).next(Cases.shipped())).isEmpty();
        assertThat(levels.get(0)).isEqualTo(Level.FIRST);
        assertThat(levels.indexOf(Level.SECOND))
                .isLessThan(levels.indexOf(Level.THIRD))
                .isGreaterThan(2);
        assertThat(new HashSet<>(levels)).containsExactlyInAnyOrderElementsOf(Arrays.asList(Level.values()));
        assertThat(played.stream().map(Played::caseId))
                .containsAll(Cases.shipped().stream().map(PracticeCase::id).toList());
    }
}
