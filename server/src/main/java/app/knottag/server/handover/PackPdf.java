package app.knottag.server.handover;

import app.knottag.core.handover.Mark.Face;
import com.openhtmltopdf.outputdevice.helper.BaseRendererBuilder.FontStyle;
import com.openhtmltopdf.pdfboxout.PdfRendererBuilder;
import com.openhtmltopdf.util.XRLog;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.logging.Level;

/** Makes paper of a pack: A4, real text, its fonts within. Nothing is fetched from anywhere. */
final class PackPdf {

    static {
        // It tells of every style sheet and font that it reads.
        XRLog.listRegisteredLoggers().forEach(name -> XRLog.setLevel(name, Level.WARNING));
    }

    private PackPdf() {}

    static byte[] write(String html) {
        var bytes = new ByteArrayOutputStream();
        var builder = new PdfRendererBuilder();
        builder.withHtmlContent(html.replaceFirst("<!DOCTYPE html>", ""), "");
        font(builder, Fonts.file(Face.WORDS), "Words", 400);
        font(builder, Fonts.file(Face.WORDS_BOLD), "Words", 700);
        font(builder, Fonts.file(Face.FIGURES), "Figures", 400);
        font(builder, Fonts.file(Face.FIGURES_BOLD), "Figures", 700);
        font(builder, Fonts.bytes(Fonts.OTHER), "Other", 400);
        builder.toStream(bytes);
        try {
            builder.run();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return bytes.toByteArray();
    }

    private static void font(PdfRendererBuilder builder, byte[] file, String family, int weight) {
        builder.useFont(() -> new ByteArrayInputStream(file), family, weight, FontStyle.NORMAL, true);
    }
}
