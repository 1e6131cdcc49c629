package app.knottag.core.figure;

import app.knottag.core.figure.SheetField.Form;
import app.knottag.core.figure.SheetFinding.Weight;
import app.knottag.core.reading.Finding;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeSet;

/** Reads everything that was keyed in on a worksheet, or says all that is missing or cannot be. */
final class FigureReader {

    static final String MISSING = "MISSING";
    private static final int LONGEST_WORDS = 200;
    private static final int LONGEST_LINES = 100_000;

    /**
     * What came of it.
     *
     * @param figures empty when something speaks against it
     */
    public record Read(Optional<Figures> figures, List<SheetFinding> findings) {}

    private final Map<String, String> typed;
    private final List<SheetFinding> findings = new ArrayList<>();

    private FigureReader(Map<String, String> typed) {
        this.typed = typed;
    }

    /**
     * Reads a worksheet.
     *
     * @param typed texts by field; those of rows as {@code drives/0/size}
     */
    public static Read read(List<SheetField> fields, Map<String, String> typed) {
        var reader = new FigureReader(typed);
        var values = reader.all(fields, "");
        return new Read(
                reader.findings.isEmpty() ? Optional.of(values) : Optional.empty(), List.copyOf(reader.findings));
    }

    private Figures all(List<SheetField> fields, String path) {
        var values = new HashMap<String, Object>();
        for (var field : fields)
            if (field.form() == Form.ROWS) values.put(field.key(), rows(field, path + field.key()));
            else one(field, path + field.key()).ifPresent(v -> values.put(field.key(), v));
        return new Figures(values);
    }

    private List<Figures> rows(SheetField field, String path) {
        var numbers = new TreeSet<Integer>();
        for (var e : typed.entrySet())
            if (e.getKey().startsWith(path + "/") && !e.getValue().isBlank()) {
                String number = e.getKey().substring(path.length() + 1).split("/")[0];
                if (number.matches("[0-9]{1,4}")) numbers.add(Integer.valueOf(number));
            }
        if (numbers.size() < field.least())
            findings.add(SheetFinding.stop(
                    MISSING, path, field.label() + ": at least " + Unit.plain(field.least()) + " needed.", ""));
        if (numbers.size() > field.most())
            findings.add(SheetFinding.stop(
                    "TOO_MANY", path, field.label() + ": at most " + Unit.plain(field.most()) + ".", ""));
        return numbers.stream()
                .limit((long) field.most())
                .map(n -> all(field.columns(), path + "/" + n + "/"))
                .toList();
    }

    private Optional<Object> one(SheetField field, String path) {
        String text = typed.getOrDefault(path, "").strip();
        if (text.isEmpty()) text = field.usual();
        if (text.isEmpty()) {
            if (field.needed())
                findings.add(SheetFinding.stop(MISSING, path, field.label() + ": this is missing.", field.hint()));
            return Optional.empty();
        }
        return switch (field.form()) {
            case FIGURE -> figure(field, path, text);
            case PICK -> picked(field, path, text);
            default -> words(field, path, text);
        };
    }

    private Optional<Object> figure(SheetField field, String path, String text) {
        var reading = QuantityReader.read(text, field.unit(), field.least(), field.most());
        if (!reading.usable()) {
            Finding f = reading.findings().get(0);
            findings.add(SheetFinding.stop(f.code().name(), path, field.label() + ": " + f.message(), field.hint()));
            return Optional.empty();
        }
        double value = Double.parseDouble(reading.value());
        if (field.unit() == Unit.PIECES && value != Math.rint(value)) {
            findings.add(SheetFinding.stop(
                    "NOT_WHOLE", path, field.label() + ": “" + text + "” is no whole number.", field.hint()));
            return Optional.empty();
        }
        return Optional.of(value);
    }

    private Optional<Object> picked(SheetField field, String path, String text) {
        if (field.picks().stream().anyMatch(p -> p.value().equals(text))) return Optional.of(text);
        findings.add(SheetFinding.stop("NO_SUCH", path, field.label() + ": choose one of those offered.", ""));
        return Optional.empty();
    }

    private Optional<Object> words(SheetField field, String path, String text) {
        int longest = field.form() == Form.LINES ? LONGEST_LINES : LONGEST_WORDS;
        if (text.length() <= longest) return Optional.of(text);
        findings.add(new SheetFinding(
                "TOO_LONG", Weight.STOPS, path, field.label() + ": at most " + longest + " characters.", ""));
        return Optional.empty();
    }
}
