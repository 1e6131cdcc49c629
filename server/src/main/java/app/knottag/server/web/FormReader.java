package app.knottag.server.web;

import app.knottag.core.log.Words;
import app.knottag.core.reading.Finding;
import app.knottag.core.reading.Reading;
import app.knottag.server.web.Problem.FieldError;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** Reads the texts of a form, and gathers everything wrong with it before refusing it; fields are named by their path in the form. */
public class FormReader {

    private final List<FieldError> errors = new ArrayList<>();

    /** Reads one text by itself, without its blanks before and after. */
    public static String words(String field, String text, boolean needed) {
        var form = new FormReader();
        String words = form.text(field, text, needed);
        form.refuse();
        return words;
    }

    /** Reads a few words of somebody, without their blanks before and after; nothing typed is an empty text. */
    public final String text(String field, String text, boolean needed) {
        String words = text == null ? "" : text.strip();
        Words.problem(words, needed).ifPresent(p -> add(field, "bad-words", p));
        return words;
    }

    /** Takes what a reader of core has read, or what it says against it. */
    public final Optional<String> value(String field, Reading reading) {
        if (reading.usable()) return Optional.of(reading.value());
        var finding = reading.findings().stream()
                .filter(f -> reading.value() == null || f.code().refuses())
                .findFirst()
                .orElse(Finding.of(Finding.Code.UNREADABLE, "This cannot be read."));
        add(field, Problem.word(finding.code()), finding.message());
        return Optional.empty();
    }

    public final void add(String field, String code, String message) {
        errors.add(new FieldError("/" + field, code, message));
    }

    public final boolean clean() {
        return errors.isEmpty();
    }

    public final void refuse() {
        if (!errors.isEmpty()) throw Problem.fields(errors);
    }
}
