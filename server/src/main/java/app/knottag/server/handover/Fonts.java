package app.knottag.server.handover;

import app.knottag.core.handover.Mark.Face;
import app.knottag.core.handover.Mark.Letters;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.apache.fontbox.ttf.CmapLookup;
import org.apache.fontbox.ttf.HorizontalMetricsTable;
import org.apache.fontbox.ttf.TTFParser;
import org.apache.pdfbox.io.RandomAccessReadBuffer;

/** The fonts that go on paper: one for each face, and one that has most letters of the world where a face has them not. */
final class Fonts implements Letters {

    static final String OTHER = "DejaVuSans.ttf";
    private static final Map<Face, String> FILES = Map.of(
            Face.WORDS, "AtkinsonHyperlegibleNext_400Regular.ttf",
            Face.WORDS_BOLD, "AtkinsonHyperlegibleNext_700Bold.ttf",
            Face.FIGURES, "AtkinsonHyperlegibleMono_400Regular.ttf",
            Face.FIGURES_BOLD, "AtkinsonHyperlegibleMono_700Bold.ttf");

    /** Read once, at the first print. */
    private static final class Read {
        static final Fonts ALL = new Fonts();
    }

    private record Font(CmapLookup glyphs, HorizontalMetricsTable widths, double em) {

        boolean has(int character) {
            return glyphs.getGlyphId(character) > 0;
        }

        double width(int character) {
            return widths.getAdvanceWidth(glyphs.getGlyphId(character)) / em;
        }
    }

    /** A stretch of a text that one font has. */
    record Run(String text, boolean other) {}

    private final Map<Face, Font> faces = new EnumMap<>(Face.class);
    private final Font other = font(OTHER);

    private Fonts() {
        FILES.forEach((face, file) -> faces.put(face, font(file)));
    }

    static Fonts all() {
        return Read.ALL;
    }

    /** The file of a face, as it is shipped. */
    static byte[] file(Face face) {
        return bytes(FILES.get(face));
    }

    static byte[] bytes(String file) {
        try (var in = Optional.ofNullable(Fonts.class.getResourceAsStream("/fonts/" + file))
                .orElseThrow(() -> new IllegalStateException("no font " + file))) {
            return in.readAllBytes();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static Font font(String file) {
        try {
            var font = new TTFParser().parse(new RandomAccessReadBuffer(bytes(file)));
            return new Font(font.getUnicodeCmapLookup(), font.getHorizontalMetrics(), font.getUnitsPerEm());
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private Font face(Face face) {
        return Optional.ofNullable(faces.get(face)).orElseThrow();
    }

    @Override
    public boolean has(int character) {
        return face(Face.WORDS).has(character) || other.has(character);
    }

    @Override
    public double width(Face face, double size, String text) {
        var own = face(face);
        return size
                * text.codePoints()
                        .mapToDouble(c -> own.has(c) ? own.width(c) : other.width(c))
                        .sum();
    }

    /** Cuts a text where another font must stand in. */
    List<Run> runs(Face face, String text) {
        var own = face(face);
        var runs = new ArrayList<Run>();
        var run = new StringBuilder();
        boolean strange = false;
        for (int c : text.codePoints().toArray()) {
            boolean lacks = !own.has(c);
            if (lacks != strange && !run.isEmpty()) {
                runs.add(new Run(run.toString(), strange));
                run.setLength(0);
            }
            strange = lacks;
            run.appendCodePoint(c);
        }
        if (!run.isEmpty()) runs.add(new Run(run.toString(), strange));
        return runs;
    }
}
