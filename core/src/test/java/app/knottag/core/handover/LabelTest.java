package app.knottag.core.handover;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import app.knottag.core.handover.Mark.Face;
import app.knottag.core.handover.Mark.Letters;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SplittableRandom;
import java.util.stream.Collectors;
import org.assertj.core.data.Offset;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class LabelTest {

    /** Every character is half as wide as it is high, and only Latin letters are there. */
    private static final Letters LETTERS = new Letters() {
        @Override
        public double width(Face face, double size, String text) {
            return text.codePoints().count() * size * 0.5;
        }

        @Override
        public boolean has(int character) {
            return character < 0x250 || character == 0x2026 || character == 0x25AF;
        }
    };

    private static LabelGrid grid(double paper, int columns, double left, double width, double gap) {
        return new LabelGrid("Ours", paper, 297, columns, 8, left, 0.5, width, 37, gap, 0);
    }

    private static Label.Tag tag(String name) {
        var facts = new LinkedHashMap<String, String>();
        facts.put("MAC", "00:00:5E:00:53:2B");
        facts.put("Serial", "OC2-7H41-0031");
        facts.put("Place", "Front counter left, outlet F-01");
        facts.put("Port", "");
        facts.put("Host", "pgb-pay1");
        return new Label.Tag(
                new TagFacts(1, name, "Pellworth", TagCode.of("PGB", "T1"), Optional.of("10.144.216.151"), facts));
    }

    @ParameterizedTest(name = "paper {0}, {1} labels of {3} mm: {5}")
    @CsvSource(
            nullValues = "-",
            value = {
                "210, 3, 0, 70, 0, -, -",
                "210, 3, 0.1, 70, 0, columns, 'They need 210.1 mm and the paper is 210 mm wide: 0.1 mm too much.'",
                "210, 3, 0, 70, 2, columns, 'They need 214 mm and the paper is 210 mm wide: 4 mm too much.'",
                "210, 0, 0, 70, 0, columns, At least one label stands side by side.",
                "210, 1, -1, 70, 0, left, From 0 mm upwards.",
                "210, 1, 0, 0, 0, labelWidth, 12 mm to 1200 mm.",
                "NaN, 1, 0, 70, 0, paperWidth, 12 mm to 1200 mm.",
                "62, 1, 0, 62, 0, -, -",
            })
    void refusesWhatDoesNotFit(
            double paper, int columns, double left, double width, double gap, String field, String said) {
        var problems = grid(paper, columns, left, width, gap).problems();
        if (field == null) assertThat(problems).isEmpty();
        else assertThat(problems).containsEntry(field, said);
    }

    @Test
    @DisplayName("Every sheet that is shipped lies on its paper, and no two of its labels overlap")
    void shipped() {
        for (var grid : LabelGrids.shipped()) {
            assertThat(grid.problems()).as(grid.name()).isEmpty();
            var places = grid.lay(1, grid.labels() + 1);
            assertThat(places.get(grid.labels()).sheet()).isEqualTo(1);
            assertThat(places.get(grid.labels()).box()).isEqualTo(places.get(0).box());
            for (int i = 0; i < grid.labels(); i++) {
                var a = places.get(i).box();
                assertThat(a.right()).isLessThan(grid.paperWidth() + 0.02);
                assertThat(a.bottom()).isLessThan(grid.paperHeight() + 0.02);
                for (int k = 0; k < i; k++) {
                    var b = places.get(k).box();
                    boolean apart = a.x() >= b.right() - 0.01
                            || b.x() >= a.right() - 0.01
                            || a.y() >= b.bottom() - 0.01
                            || b.y() >= a.bottom() - 0.01;
                    assertThat(apart).as(grid.name() + " " + i + " and " + k).isTrue();
                }
            }
        }
    }

    @Test
    @DisplayName("On a half-used sheet it begins at the place that is free, and goes on with the next sheet")
    void halfUsed() {
        var places = grid(210, 3, 0, 70, 0).lay(24, 3);
        assertThat(places.get(0)).isEqualTo(new LabelGrid.Place(0, new Area(140, 259.5, 70, 37)));
        assertThat(places.get(1)).isEqualTo(new LabelGrid.Place(1, new Area(0, 0.5, 70, 37)));
        assertThat(places.get(2)).isEqualTo(new LabelGrid.Place(1, new Area(70, 0.5, 70, 37)));
        assertThatThrownBy(() -> grid(210, 3, 0, 70, 0).lay(25, 1)).hasMessageContaining("there is no place 25");
    }

    @Test
    @DisplayName(
            "Nothing leaves its label, nothing lies on a code, and what gives way is said, whatever the size and the names")
    void staysInside() {
        var random = new SplittableRandom(16);
        for (int n = 0; n < 3000; n++) {
            var box = new Area(
                    random.nextInt(100), random.nextInt(100), 20 + random.nextInt(100), 12 + random.nextInt(80));
            String name = "Till ".repeat(1 + random.nextInt(12)) + random.nextInt(1000);
            var drawn = LabelDrawing.draw(tag(name), box, LETTERS, "http://192.168.100.100:8780/t/");
            var codes = drawn.marks().stream()
                    .flatMap(m -> m instanceof Mark.Matrix x
                            ? java.util.stream.Stream.of(x.box())
                            : m instanceof Mark.Bars x
                                    ? java.util.stream.Stream.of(x.box())
                                    : java.util.stream.Stream.empty())
                    .toList();
            for (var mark : drawn.marks())
                if (mark instanceof Mark.Words w) {
                    double right = w.x() + LETTERS.width(w.face(), w.size(), w.text());
                    String what = box + " " + w;
                    assertThat(w.x()).as(what).isGreaterThanOrEqualTo(box.x());
                    assertThat(right).as(what).isLessThanOrEqualTo(box.right() + 0.1);
                    assertThat(w.y() - w.size()).as(what).isGreaterThanOrEqualTo(box.y() - 0.1);
                    assertThat(w.y()).as(what).isLessThanOrEqualTo(box.bottom() + 0.1);
                    for (var c : codes)
                        assertThat(right <= c.x() + 0.05
                                        || w.x() >= c.right() - 0.05
                                        || w.y() <= c.y() + 0.05
                                        || w.y() - w.size() * 0.75 >= c.bottom() - 0.05)
                                .as(what + " lies on " + c)
                                .isTrue();
                }
            for (var c : codes) {
                assertThat(c.x()).isGreaterThanOrEqualTo(box.x());
                assertThat(c.right()).isLessThanOrEqualTo(box.right() + 0.01);
            }
            String words = drawn.marks().stream()
                    .flatMap(m -> m instanceof Mark.Words w
                            ? java.util.stream.Stream.of(w.text())
                            : java.util.stream.Stream.empty())
                    .collect(Collectors.joining(" "));
            if (words.contains("…")) assertThat(drawn.said()).as(words).anyMatch(s -> s.contains("is cut"));
            if (!words.contains("pgb-pay1")) assertThat(drawn.said()).as(words).anyMatch(s -> s.contains("host"));
            assertThat(drawn.left().contains("Host")).as(words).isNotEqualTo(words.contains("pgb-pay1"));
        }
    }

    @Test
    @DisplayName("A letter that no font has is never left out in silence")
    void strangeLetters() {
        var drawn = LabelDrawing.draw(tag("店 front"), new Area(0, 0, 99, 38), LETTERS, "http://shop/t/");
        assertThat(drawn.marks())
                .anyMatch(m -> m instanceof Mark.Words w && w.text().equals("▯ front"));
        assertThat(drawn.said()).contains("“店 front” has letters that are not in the fonts; ▯ stands for them.");
    }

    @Test
    @DisplayName("Either half of a cable flag says the same, so that it reads from both sides")
    void flags() {
        var drawn = LabelDrawing.draw(
                new Label.Flag("Till 1", "Shop switch 3", "PGB-T1-G7"), new Area(10, 20, 60, 12), LETTERS, "");
        var halves = drawn.marks().stream()
                .filter(Mark.Words.class::isInstance)
                .map(Mark.Words.class::cast)
                .collect(Collectors.partitioningBy(
                        w -> w.x() < 40, Collectors.mapping(Mark.Words::text, Collectors.toList())));
        assertThat(halves.get(true))
                .isEqualTo(List.of("Till 1", "to Shop switch 3", "PGB-T1-G7"))
                .isEqualTo(halves.get(false));
        assertThat(drawn.marks())
                .filteredOn(Mark.Line.class::isInstance)
                .singleElement()
                .satisfies(l -> assertThat(((Mark.Line) l).x1()).isCloseTo(40, Offset.offset(0.01)));
    }

    @Test
    @DisplayName("A tag hangs wrong when it says what is no longer so; what it never said does not count")
    void hangsWrong() {
        var now = tag("Till 1").facts();
        var printed = new LinkedHashMap<>(now.all());
        assertThat(TagState.of(now, Optional.empty()).state()).isEqualTo(TagState.State.NOT_PRINTED);
        assertThat(state(now, printed, false)).isEqualTo(TagState.State.TO_HANG);
        assertThat(state(now, printed, true)).isEqualTo(TagState.State.HANGS);
        printed.remove("MAC");
        assertThat(state(now, printed, true)).isEqualTo(TagState.State.HANGS);
        assertThat(now.without(List.of("Host"))).doesNotContainKey("Host").containsKey("Serial");
        printed.put("Address", "10.144.216.115");
        assertThat(state(now, printed, false)).isEqualTo(TagState.State.NOT_PRINTED);
        assertThat(state(now, printed, true)).isEqualTo(TagState.State.HANGS_WRONG);
        assertThat(now.otherThan(printed))
                .containsExactly("Address: the tag says 10.144.216.115, it is 10.144.216.151.");
        assertThat(now.otherThan(Map.of("Port", "Shop switch 3")))
                .containsExactly("Port: the tag says Shop switch 3, and there is none now.");
    }

    private static TagState.State state(TagFacts now, Map<String, String> printed, boolean hung) {
        var at = java.time.Instant.EPOCH;
        return TagState.of(
                        now, Optional.of(new TagState.Printed(printed, at, hung ? Optional.of(at) : Optional.empty())))
                .state();
    }
}
