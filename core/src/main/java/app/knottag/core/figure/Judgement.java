package app.knottag.core.figure;

import app.knottag.core.figure.SheetFinding.Weight;
import java.util.ArrayList;
import java.util.List;

/** What a worksheet says: results, findings, and what it draws. */
public record Judgement(List<SheetResult> results, List<SheetFinding> findings, List<Picture> pictures) {

    /**
     * One result.
     *
     * @param code stable name, for programs and tests
     * @param text the figure with its unit, or a few words
     */
    public record SheetResult(String code, String label, String text) {}

    public Judgement {
        results = List.copyOf(results);
        findings = List.copyOf(findings);
        pictures = List.copyOf(pictures);
    }

    /** Says only what speaks against it. */
    public static Judgement of(List<SheetFinding> findings) {
        return new Judgement(List.of(), findings, List.of());
    }

    /** Returns whether it goes like this. */
    public boolean holds() {
        return findings.stream().noneMatch(f -> f.weight() == Weight.STOPS);
    }

    /** Gathers a judgement piece by piece. */
    public static final class Draft {
        private final List<SheetResult> results = new ArrayList<>();
        private final List<SheetFinding> findings = new ArrayList<>();
        private final List<Picture> pictures = new ArrayList<>();

        public Draft result(String code, String label, String text) {
            results.add(new SheetResult(code, label, text));
            return this;
        }

        public Draft stop(String code, String field, String message, String wayOut) {
            findings.add(SheetFinding.stop(code, field, message, wayOut));
            return this;
        }

        public Draft warn(String code, String field, String message, String wayOut) {
            findings.add(SheetFinding.warn(code, field, message, wayOut));
            return this;
        }

        public Draft note(String code, String field, String message) {
            findings.add(SheetFinding.note(code, field, message));
            return this;
        }

        public Draft draw(Picture picture) {
            pictures.add(picture);
            return this;
        }

        public Judgement done() {
            return new Judgement(results, findings, pictures);
        }
    }
}
