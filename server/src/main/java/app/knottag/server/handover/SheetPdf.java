package app.knottag.server.handover;

import app.knottag.core.handover.Area;
import app.knottag.core.handover.Mark;
import app.knottag.core.handover.Mark.Face;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.EnumMap;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.pdmodel.PDPage;
import org.apache.pdfbox.pdmodel.PDPageContentStream;
import org.apache.pdfbox.pdmodel.common.PDRectangle;
import org.apache.pdfbox.pdmodel.font.PDType0Font;

/** Writes sheets of labels as PDF: millimetres as they are, fonts within, codes as areas and not as pictures. */
final class SheetPdf {

    private static final double POINT = 72 / 25.4;

    private final PDDocument document = new PDDocument();
    private final Map<Face, PDType0Font> faces = new EnumMap<>(Face.class);
    /** Embedded only where it is needed; it is large. */
    private Optional<PDType0Font> other = Optional.empty();

    private final double height;

    private SheetPdf(double height) throws IOException {
        for (Face face : Face.values()) faces.put(face, font(Fonts.file(face)));
        this.height = height;
    }

    private PDType0Font font(byte[] file) throws IOException {
        return PDType0Font.load(document, new ByteArrayInputStream(file), true);
    }

    static byte[] write(LabelSheet sheet, String title) {
        try {
            var pdf = new SheetPdf(sheet.grid().paperHeight());
            try (var document = pdf.document) {
                document.getDocumentInformation().setTitle(title);
                var bySheet = sheet.labels().stream().collect(Collectors.groupingBy(LabelSheet.Placed::sheet));
                for (int n : IntStream.range(0, sheet.sheets()).toArray()) {
                    var page = new PDPage(
                            new PDRectangle((float) (sheet.grid().paperWidth() * POINT), (float) (pdf.height * POINT)));
                    document.addPage(page);
                    try (var out = new PDPageContentStream(document, page)) {
                        for (var label : Optional.ofNullable(bySheet.get(n)).orElseThrow())
                            for (var mark : label.drawn().marks()) pdf.draw(out, mark);
                    }
                }
                var bytes = new ByteArrayOutputStream();
                document.save(bytes);
                return bytes.toByteArray();
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private void draw(PDPageContentStream out, Mark mark) throws IOException {
        if (mark instanceof Mark.Words words) words(out, words);
        else if (mark instanceof Mark.Line line) {
            out.setLineWidth(0.4f);
            if (line.dashed()) out.setLineDashPattern(new float[] {2, 2}, 0);
            out.moveTo(x(line.x1()), y(line.y1()));
            out.lineTo(x(line.x2()), y(line.y2()));
            out.stroke();
        } else if (mark instanceof Mark.Matrix matrix) fill(out, Codes.dark(matrix));
        else if (mark instanceof Mark.Bars bars) fill(out, Codes.dark(bars));
    }

    private void fill(PDPageContentStream out, Iterable<Area> boxes) throws IOException {
        for (var b : boxes)
            out.addRect(x(b.x()), y(b.bottom()), (float) (b.width() * POINT), (float) (b.height() * POINT));
        out.fill();
    }

    private void words(PDPageContentStream out, Mark.Words words) throws IOException {
        out.beginText();
        out.newLineAtOffset(x(words.x()), y(words.y()));
        for (var run : Fonts.all().runs(words.face(), words.text())) {
            out.setFont(
                    run.other()
                            ? other()
                            : Optional.ofNullable(faces.get(words.face())).orElseThrow(),
                    (float) (words.size() * POINT));
            out.showText(run.text());
        }
        out.endText();
    }

    private PDType0Font other() throws IOException {
        if (other.isEmpty()) other = Optional.of(font(Fonts.bytes(Fonts.OTHER)));
        return other.get();
    }

    private static float x(double millimetres) {
        return (float) (millimetres * POINT);
    }

    private float y(double millimetres) {
        return (float) ((height - millimetres) * POINT);
    }
}
