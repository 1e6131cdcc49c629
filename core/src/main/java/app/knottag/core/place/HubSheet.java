package app.knottag.core.place;

import app.knottag.core.figure.Figures;
import app.knottag.core.figure.Judgement;
import app.knottag.core.figure.Judgement.Draft;
import app.knottag.core.figure.Picture;
import app.knottag.core.figure.Picture.PictureMark;
import app.knottag.core.figure.Picture.Tone;
import app.knottag.core.figure.SheetField;
import app.knottag.core.figure.Unit;
import app.knottag.core.figure.Worksheet;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;

/** Which mode of a meeting-room hub is the smallest that does what is wanted. */
public final class HubSheet implements Worksheet {

    /** A mode of its menu. */
    private record Mode(String name, int people, double lines, double frames) {

        boolean does(int wanted, double wantedLines, double wantedFrames) {
            return people >= wanted && lines >= wantedLines && frames >= wantedFrames;
        }

        String lacks(int wanted, double wantedLines, double wantedFrames) {
            var lacks = new ArrayList<String>();
            if (people < wanted) lacks.add((wanted - people) + " of " + wanted + " cannot take part");
            if (lines < wantedLines) lacks.add(Unit.plain(lines) + " lines instead of " + Unit.plain(wantedLines));
            if (frames < wantedFrames)
                lacks.add(Unit.plain(frames) + " pictures a second instead of " + Unit.plain(wantedFrames));
            return String.join(", ", lacks);
        }
    }

    @Override
    public String key() {
        return "hub";
    }

    @Override
    public String title() {
        return "Mode of the hub";
    }

    @Override
    public String purpose() {
        return "Chooses the smallest mode that does what is wanted, or says what is lost with each.";
    }

    @Override
    public List<SheetField> fields() {
        return List.of(
                SheetField.count("people", "People who show something at once", 1, 64),
                SheetField.figure("lines", "Lines of the picture wanted", Unit.LINES, 240, 4320)
                        .usual("1080"),
                SheetField.figure("frames", "Pictures a second wanted", Unit.PER_SECOND, 1, 120)
                        .usual("30")
                        .hint("30 for films, 10 is enough for slides."),
                SheetField.figure("display", "Lines of the display", Unit.LINES, 240, 4320)
                        .usual("1080"),
                SheetField.rows(
                        "modes",
                        "Modes in its menu",
                        1,
                        12,
                        SheetField.words("name", "Mode"),
                        SheetField.count("people", "People", 1, 64),
                        SheetField.figure("lines", "Lines", Unit.LINES, 240, 4320),
                        SheetField.figure("frames", "Pictures a second", Unit.PER_SECOND, 1, 120)));
    }

    @Override
    public Judgement judge(Figures f) {
        int people = f.count("people");
        double display = f.figure("display"), lines = Math.min(f.figure("lines"), display), frames = f.figure("frames");
        var modes = f.rows("modes").stream()
                .map(r -> new Mode(r.words("name"), r.count("people"), r.figure("lines"), r.figure("frames")))
                .toList();
        var draft = new Draft();
        if (f.figure("lines") > display)
            draft.note(
                    "DISPLAY",
                    "display",
                    "The display shows " + Unit.plain(display) + " lines: more is sent for nothing.");
        Optional<Mode> chosen = modes.stream()
                .filter(m -> m.does(people, lines, frames))
                .min(Comparator.comparingInt(Mode::people).thenComparingDouble(m -> m.lines() * m.frames()));
        if (chosen.isPresent()) draft.result("MODE", "Choose", chosen.get().name());
        else {
            var best = modes.stream()
                    .max(Comparator.comparingInt((Mode m) -> Math.min(m.people(), people))
                            .thenComparingDouble(m -> Math.min(m.lines(), lines))
                            .thenComparingDouble(m -> Math.min(m.frames(), frames)))
                    .orElseThrow();
            draft.result("MODE", "Nearest", best.name());
            draft.warn(
                    "NO_MODE",
                    "modes",
                    "No mode does all of it. With “" + best.name() + "”: " + best.lacks(people, lines, frames) + ".",
                    "Say what may be less, or take a second hub.");
        }
        var rows = modes.stream()
                .map(m -> new Picture.Row(m.name())
                        .add(
                                m.people(),
                                m.does(people, lines, frames) ? "does it" : m.lacks(people, lines, frames),
                                chosen.filter(m::equals).isPresent()
                                        ? Tone.GOOD
                                        : m.does(people, lines, frames) ? Tone.RUNS : Tone.SPARE)
                        .row())
                .toList();
        double widest =
                Math.max(people, modes.stream().mapToInt(Mode::people).max().orElse(1));
        return draft.draw(new Picture(
                        "People in each mode", Unit.PIECES, widest, rows, List.of(new PictureMark(people, "wanted"))))
                .done();
    }
}
