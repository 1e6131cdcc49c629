package app.knottag.core.register;

import java.util.ArrayList;
import java.util.Collections;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Collectors;

/** What changed in a list between two hand-overs. Entries are the same by MAC, else by address, else by name. */
public record HandOver(List<Line> lines) {

    public HandOver {
        lines = List.copyOf(lines);
    }

    /** What happened to an entry since it was last handed over. */
    public enum Change {
        NEW,
        CHANGED,
        GONE,
        SAME
    }

    /**
     * One entry.
     *
     * @param was what was handed over last, when it was another
     */
    public record Line(Change change, RegistryEntry entry, Optional<RegistryEntry> was) {}

    /**
     * Compares two lists.
     *
     * @param before what was handed over last
     * @param now what is to stand there
     */
    public static HandOver between(List<RegistryEntry> before, List<RegistryEntry> now) {
        // By identity: two lines of a list may say the same, and are two lines all the same.
        var open = Collections.<RegistryEntry>newSetFromMap(new IdentityHashMap<>());
        open.addAll(before);
        Map<RegistryEntry, RegistryEntry> pairs = new IdentityHashMap<>();
        for (var key : List.<Function<RegistryEntry, String>>of(
                e -> e.value(Registry.Fact.MAC),
                e -> e.value(Registry.Fact.ADDRESS),
                e -> e.name().toLowerCase(Locale.ROOT))) {
            var byKey = before.stream().collect(Collectors.groupingBy(key));
            for (var entry : now) {
                String value = key.apply(entry);
                if (value.isEmpty() || pairs.containsKey(entry)) continue;
                byKey.getOrDefault(value, List.of()).stream()
                        .filter(open::contains)
                        .findFirst()
                        .ifPresent(o -> {
                            open.remove(o);
                            pairs.put(entry, o);
                        });
            }
        }
        var lines = new ArrayList<Line>();
        // What goes comes first, so that no list ever holds an address or a name twice.
        before.stream().filter(open::contains).forEach(o -> lines.add(new Line(Change.GONE, o, Optional.of(o))));
        for (var entry : now) {
            var was = Optional.ofNullable(pairs.get(entry));
            lines.add(new Line(
                    was.isEmpty() ? Change.NEW : was.get().equals(entry) ? Change.SAME : Change.CHANGED,
                    entry,
                    was.filter(w -> !w.equals(entry))));
        }
        return new HandOver(lines);
    }

    /** Returns the same without what did not change. */
    public HandOver changed() {
        return new HandOver(
                lines.stream().filter(l -> l.change() != Change.SAME).toList());
    }

    /** Returns how many lines have this change. */
    public long count(Change change) {
        return lines.stream().filter(l -> l.change() == change).count();
    }

    /** Returns the entries that are to stand in the registry. */
    public List<RegistryEntry> standing() {
        return lines.stream()
                .filter(l -> l.change() != Change.GONE)
                .map(Line::entry)
                .toList();
    }
}
