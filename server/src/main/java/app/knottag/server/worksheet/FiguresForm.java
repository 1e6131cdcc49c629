package app.knottag.server.worksheet;

import app.knottag.core.figure.SheetField.Form;
import app.knottag.core.figure.Worksheet;
import app.knottag.core.log.Secrets;
import app.knottag.core.worksheet.Worksheets;
import app.knottag.server.web.FormReader;
import app.knottag.server.web.Problem;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.LinkedHashMap;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.TreeMap;

/** Reads what was keyed in on a worksheet: figures that are figures, words that hold no secret; what is missing may come later. */
final class FiguresForm {

    record FiguresRequest(@NotNull @Size(max = 600) Map<String, String> figures) {}

    private FiguresForm() {}

    static Worksheet sheet(String key) {
        return Worksheets.find(key).orElseThrow(() -> Problem.notFound("There is no such worksheet."));
    }

    /** Returns the texts as they were keyed in, for a judgement that keeps nothing. */
    static Map<String, String> typed(FiguresRequest b) {
        var typed = new LinkedHashMap<String, String>();
        b.figures().entrySet().stream()
                .filter(e -> Objects.nonNull(e.getValue()))
                .forEach(e -> typed.put(e.getKey(), e.getValue()));
        return typed;
    }

    /** Returns what is to be kept. */
    static Map<String, String> read(Worksheet sheet, FiguresRequest b) {
        var form = new FormReader();
        var kept = new TreeMap<String, String>();
        typed(b).forEach((field, text) -> {
            if (sheet.field(field).isEmpty())
                form.add("figures/" + field, "no-such-field", "Nothing asks for this here.");
            else if (!text.isBlank()) kept.put(field, text.strip());
        });
        kept.forEach((field, text) -> {
            var how = sheet.field(field).orElseThrow().form();
            if (how == Form.WORDS) form.text("figures/" + field, text, false);
            if (how == Form.LINES) lines(form, "figures/" + field, text);
        });
        sheet.unreadable(kept)
                .forEach(f -> form.add(
                        "figures/" + f.field(),
                        f.code().toLowerCase(Locale.ROOT).replace('_', '-'),
                        f.message()));
        form.refuse();
        return kept;
    }

    private static void lines(FormReader form, String field, String text) {
        Secrets.in(text)
                .ifPresent(what -> form.add(
                        field, "bad-words", "This looks like a " + what + ". Write down only where it is kept."));
        if (text.chars().anyMatch(c -> Character.isISOControl(c) && c != '\n' && c != '\r' && c != '\t'))
            form.add(field, "bad-words", "Control characters cannot stand here. Paste it as plain text.");
    }
}
