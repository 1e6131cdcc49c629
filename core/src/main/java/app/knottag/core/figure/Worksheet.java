package app.knottag.core.figure;

import java.util.List;
import java.util.Map;
import java.util.Optional;

/** A sum that people do on the back of the box: what it asks for, and how it judges what was keyed in. */
public interface Worksheet {

    /** Returns its stable name, in small letters. */
    String key();

    /** Returns what it is called. */
    String title();

    /** Returns in one sentence what it tells, and what it does not. */
    String purpose();

    /** Returns what it asks for, in the order of the hands. */
    List<SheetField> fields();

    /** Returns what it asks for at a path such as {@code drives/0/size}, or empty. */
    default Optional<SheetField> field(String path) {
        var parts = path.split("/");
        var field = fields().stream().filter(f -> f.key().equals(parts[0])).findFirst();
        if (parts.length == 1) return field.filter(f -> f.columns().isEmpty());
        return parts.length != 3 || !parts[1].matches("[0-9]{1,4}")
                ? Optional.empty()
                : field.stream()
                        .flatMap(f -> f.columns().stream())
                        .filter(c -> c.key().equals(parts[2]))
                        .findFirst();
    }

    /** Returns what cannot be read of what was keyed in; what is missing may still come. */
    default List<SheetFinding> unreadable(Map<String, String> typed) {
        return FigureReader.read(fields(), typed).findings().stream()
                .filter(f -> !f.code().equals(FigureReader.MISSING))
                .toList();
    }

    /** Judges figures that could be read. */
    Judgement judge(Figures figures);

    /** Reads and judges what was keyed in, by field; says first what is missing or cannot be. */
    default Judgement judge(Map<String, String> typed) {
        var read = FigureReader.read(fields(), typed);
        return read.figures().map(this::judge).orElseGet(() -> Judgement.of(read.findings()));
    }
}
