package app.knottag.server.handover;

import app.knottag.core.handover.Area;
import app.knottag.core.handover.Mark;
import app.knottag.core.handover.Mark.Face;
import java.util.Base64;
import java.util.List;
import java.util.Locale;
import java.util.stream.Collectors;
import org.springframework.web.util.HtmlUtils;

/** Writes one sheet of labels as SVG in millimetres, with its fonts within. */
final class SheetSvg {

    private SheetSvg() {}

    static String write(LabelSheet sheet, int number) {
        var grid = sheet.grid();
        var marks = sheet.on(number).stream()
                .flatMap(l -> l.drawn().marks().stream())
                .toList();
        String size = mm(grid.paperWidth()) + " " + mm(grid.paperHeight());
        return "<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"" + mm(grid.paperWidth()) + "mm\" height=\""
                + mm(grid.paperHeight()) + "mm\" viewBox=\"0 0 " + size + "\"><style>" + faces() + "</style>"
                + marks.stream().map(SheetSvg::mark).collect(Collectors.joining()) + "</svg>";
    }

    private static String faces() {
        var css = new StringBuilder();
        for (Face face : Face.values())
            css.append("@font-face{font-family:")
                    .append(face)
                    .append(";src:url(data:font/ttf;base64,")
                    .append(Base64.getEncoder().encodeToString(Fonts.file(face)))
                    .append(")}");
        return css.toString();
    }

    private static String mark(Mark mark) {
        if (mark instanceof Mark.Words w)
            return "<text x=\"" + mm(w.x()) + "\" y=\"" + mm(w.y()) + "\" font-size=\"" + mm(w.size())
                    + "\" font-family=\"" + w.face() + ",sans-serif\">"
                    + HtmlUtils.htmlEscape(w.text(), "UTF-8") + "</text>";
        if (mark instanceof Mark.Line l)
            return "<path stroke=\"#000\" stroke-width=\"0.15\" stroke-dasharray=\"" + (l.dashed() ? "0.7" : "none")
                    + "\" d=\"M" + mm(l.x1()) + " " + mm(l.y1()) + "L" + mm(l.x2()) + " " + mm(l.y2()) + "\"/>";
        return "<path d=\"" + path(mark) + "\"/>";
    }

    /** The dark areas of a code as one path. */
    static String path(Mark mark) {
        List<Area> dark = mark instanceof Mark.Matrix m ? Codes.dark(m) : Codes.dark((Mark.Bars) mark);
        return dark.stream()
                .map(b -> "M" + mm(b.x()) + " " + mm(b.y()) + "h" + mm(b.width()) + "v" + mm(b.height()) + "h-"
                        + mm(b.width()) + "z")
                .collect(Collectors.joining());
    }

    private static String mm(double length) {
        return String.format(Locale.ROOT, "%.4f", length).replaceFirst("\\.?0+$", "");
    }
}
