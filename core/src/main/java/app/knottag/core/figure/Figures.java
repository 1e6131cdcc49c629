package app.knottag.core.figure;

import java.util.List;
import java.util.Map;
import java.util.Optional;

/** What was keyed in on a worksheet, read: figures in the units of their fields. */
public final class Figures {

    private final Map<String, Object> values;

    Figures(Map<String, Object> values) {
        this.values = Map.copyOf(values);
    }

    /** Returns a figure in the unit of its field. */
    public double figure(String key) {
        return find(key).orElseThrow(() -> new IllegalArgumentException("no figure " + key));
    }

    /** Returns a figure that may have stayed empty. */
    public Optional<Double> find(String key) {
        return Optional.ofNullable((Double) values.get(key));
    }

    /** Returns a whole number. */
    public int count(String key) {
        return (int) Math.round(figure(key));
    }

    /** Returns the words, without blanks before and after; empty when there are none. */
    public String words(String key) {
        return (String) values.getOrDefault(key, "");
    }

    /** Returns what was picked. */
    public <E extends Enum<E>> E pick(String key, Class<E> type) {
        return Enum.valueOf(type, words(key));
    }

    /** Returns whether yes was picked. */
    public boolean yes(String key) {
        return words(key).equals("YES");
    }

    /** Returns the rows in their order. */
    @SuppressWarnings("unchecked")
    public List<Figures> rows(String key) {
        return (List<Figures>) values.getOrDefault(key, List.of());
    }
}
