package app.knottag.core.kind;

import app.knottag.core.kind.Kind.Label;
import java.util.Comparator;
import java.util.List;
import java.util.Set;

/** In which order the facts of a device are read, so that none is out of reach when it is wanted. */
public final class LabelOrder {

    private LabelOrder() {}

    /**
     * One fact to read.
     *
     * @param before title of the step that hides it, or empty when it stays in sight
     * @param late whether that step is done already, so that it can only be read from the network or by undoing it
     */
    public record ToRead(Label.Read fact, String where, String before, boolean late) {}

    /**
     * Returns what is still to be read, what is hidden first in front.
     *
     * @param known facts on record
     * @param done keys of the steps that are done
     */
    public static List<ToRead> of(Kind kind, Set<Label.Read> known, Set<String> done) {
        var keys = kind.steps().stream().map(Kind.Step::key).toList();
        return kind.labels().stream()
                .filter(l -> !known.contains(l.fact()))
                .sorted(Comparator.comparingInt(
                        (Label l) -> l.hiddenAfter().isEmpty() ? keys.size() : keys.indexOf(l.hiddenAfter())))
                .map(l -> new ToRead(
                        l.fact(),
                        l.where(),
                        l.hiddenAfter().isEmpty()
                                ? ""
                                : kind.step(l.hiddenAfter()).title(),
                        done.contains(l.hiddenAfter())))
                .toList();
    }
}
