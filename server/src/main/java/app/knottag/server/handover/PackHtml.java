package app.knottag.server.handover;

import app.knottag.core.handover.Mark.Face;
import app.knottag.core.handover.PackDocument;
import app.knottag.core.handover.PackDocument.Block;
import app.knottag.core.handover.PackDocument.Chapter;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.springframework.web.util.HtmlUtils;

/** Writes a pack as one page of XHTML, for a browser and for paper (A4). */
final class PackHtml {

    private static final String STYLE = """
            @page { size: A4; margin: 18mm 16mm 20mm 18mm;
              @bottom-left { content: element(foot); }
              @bottom-right { content: counter(page) " / " counter(pages); font: 9pt Words; width: 24mm; text-align: right; } }
            body { font: 10.5pt/1.45 Words, Other, sans-serif; color: #1d2630; max-width: 190mm; margin: 0 auto; }
            h1 { font: bold 25pt/1.1 Words, Other, sans-serif; margin: 0 0 3mm; }
            h2 { font: bold 15pt/1.2 Words, Other, sans-serif; margin: 9mm 0 2.5mm; border-bottom: 0.6mm solid #c8662b; padding-bottom: 1mm;
              page-break-after: avoid; }
            h3 { font: bold 11.5pt/1.25 Words, Other, sans-serif; margin: 5mm 0 1.5mm; page-break-after: avoid; }
            p { margin: 0 0 1.6mm; } ul, ol { margin: 0 0 2mm; padding-left: 6mm; } li { margin: 0 0 1mm; }
            table { width: 100%; border-collapse: collapse; margin: 1mm 0 3mm; font-size: 9.5pt; -fs-table-paginate: paginate; }
            th { text-align: left; white-space: nowrap; font-weight: bold;
              border-bottom: 0.35mm solid #1d2630; padding: 0.8mm 2.5mm 0.8mm 0; }
            td { vertical-align: top; border-bottom: 0.15mm solid #b9b2a2; padding: 0.9mm 2.5mm 0.9mm 0; word-wrap: break-word; }
            tr { page-break-inside: avoid; }
            .figures { font-family: Figures, Other, monospace; font-size: 9pt; }
            tbody .figures { white-space: nowrap; }
            .facts .figures { white-space: normal; } .facts td:first-child { width: 32%; color: #4b5560; }
            .under { color: #4b5560; } .foot { position: running(foot); font-size: 9pt; color: #4b5560; }
            .signed { margin-top: 10mm; border-top: 0.35mm solid #1d2630; padding-top: 3mm; page-break-inside: avoid; }
            .signed img { width: 80mm; height: 26mm; }
            @media screen { .foot { display: none; } body { padding: 8mm; } }
            """;

    /** A browser fetches the letters from here; what makes paper has them at hand. */
    private static final String LETTERS = Stream.of(Face.values())
            .map(f -> "@font-face { font-family: " + (f == Face.WORDS || f == Face.WORDS_BOLD ? "Words" : "Figures")
                    + "; font-weight: " + (f == Face.WORDS || f == Face.FIGURES ? 400 : 700)
                    + "; src: url(/api/letters/"
                    + f.name() + ".ttf); }\n")
            .collect(Collectors.joining());

    private PackHtml() {}

    /** The same with its letters, for a browser. */
    static String page(PackDocument pack) {
        return write(pack, List.of()).replaceFirst("<style>", "<style>" + LETTERS);
    }

    /** @param signature what stands below it, as a picture and a line; empty while nobody has signed */
    static String write(PackDocument pack, List<String> signature) {
        var chapters = pack.chapters();
        String marks = IntStream.range(0, chapters.size())
                .mapToObj(n -> "<bookmark name=\"" + text(chapters.get(n).title()) + "\" href=\"#c" + n + "\"/>")
                .collect(Collectors.joining());
        String parts = IntStream.range(0, chapters.size())
                .mapToObj(n -> chapter(chapters.get(n), n))
                .collect(Collectors.joining());
        return "<!DOCTYPE html><html xmlns=\"http://www.w3.org/1999/xhtml\" lang=\"en\"><head><meta charset=\"UTF-8\"/><title>"
                + text(pack.title() + ", " + pack.under().get(0)) + "</title><style>" + STYLE + "</style><bookmarks>"
                + marks + "</bookmarks></head><body><div class=\"foot\">"
                + text(pack.title() + ", " + pack.under().get(0)) + ". "
                + text(pack.under().get(pack.under().size() - 1)) + "</div><h1>" + text(pack.title()) + "</h1>"
                + pack.under().stream()
                        .map(u -> "<p class=\"under\">" + text(u) + "</p>")
                        .collect(Collectors.joining())
                + parts + String.join("", signature) + "</body></html>";
    }

    /** The end of a signed pack. */
    static List<String> signature(String picture, String line) {
        return List.of(
                "<div class=\"signed\">",
                picture.isEmpty() ? "" : "<img alt=\"Signature\" src=\"data:image/png;base64," + picture + "\"/>",
                "<p>" + text(line) + "</p></div>");
    }

    private static String chapter(Chapter chapter, int number) {
        return "<h2 id=\"c" + number + "\">" + text(chapter.title()) + "</h2>"
                + chapter.blocks().stream().map(PackHtml::block).collect(Collectors.joining());
    }

    private static String block(Block block) {
        if (block instanceof PackDocument.Heading h) return "<h3>" + text(h.text()) + "</h3>";
        if (block instanceof PackDocument.Words w) return "<p>" + text(w.text()) + "</p>";
        if (block instanceof PackDocument.Lines l) {
            String tag = l.numbered() ? "ol" : "ul";
            return "<" + tag + ">"
                    + l.lines().stream()
                            .map(line -> "<li>" + text(line) + "</li>")
                            .collect(Collectors.joining())
                    + "</" + tag + ">";
        }
        if (block instanceof PackDocument.Facts f)
            return "<table class=\"facts\">"
                    + f.facts().entrySet().stream().map(PackHtml::fact).collect(Collectors.joining()) + "</table>";
        return table((PackDocument.Table) block);
    }

    private static String fact(Map.Entry<String, String> fact) {
        return "<tr><td>" + text(fact.getKey()) + "</td><td class=\"figures\">" + text(fact.getValue()) + "</td></tr>";
    }

    private static String table(PackDocument.Table table) {
        return "<table><thead><tr>"
                + table.columns().stream().map(c -> "<th>" + text(c) + "</th>").collect(Collectors.joining())
                + "</tr></thead><tbody>"
                + table.rows().stream()
                        .map(row -> "<tr>"
                                + IntStream.range(0, row.size())
                                        .mapToObj(n -> "<td"
                                                + (table.figures().contains(n) ? " class=\"figures\"" : "") + ">"
                                                + text(row.get(n)) + "</td>")
                                        .collect(Collectors.joining())
                                + "</tr>")
                        .collect(Collectors.joining())
                + "</tbody></table>";
    }

    private static String text(String text) {
        return HtmlUtils.htmlEscape(text, "UTF-8");
    }
}
