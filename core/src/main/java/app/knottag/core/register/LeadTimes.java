package app.knottag.core.register;

import app.knottag.core.reading.ReadingException;
import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * What must be asked for or ordered before a visit, and by when. Things may wait for one another; the longest chain
 * decides the earliest possible visit.
 *
 * @param chain names of the longest chain, first to last
 * @param earliest earliest visit when everything is ordered today
 */
public record LeadTimes(List<OrderBy> items, List<String> chain, LocalDate earliest) {

    /**
     * Something that takes time.
     *
     * @param days how long it takes, 0..365
     * @param after name of what must be there before it can be ordered, or empty
     */
    public record Item(String name, String who, int days, String after, boolean done) {}

    /**
     * When to order it.
     *
     * @param by last day to order it for the visit, or empty when no visit is set
     * @param late whether that day has passed
     */
    public record OrderBy(Item item, Optional<LocalDate> by, boolean late) {}

    /**
     * Works backwards from the visit.
     *
     * @param slack days kept free before the visit
     * @throws IllegalArgumentException if things wait for one another in a circle, or for one that is not in the list
     */
    public static LeadTimes of(List<Item> items, Optional<LocalDate> visit, int slack, LocalDate today) {
        Map<String, Item> byName = new HashMap<>();
        items.forEach(i -> byName.put(i.name(), i));
        var ways = new HashMap<String, List<Item>>();
        for (var item : items) ways.put(item.name(), way(item, byName, new HashSet<>()));
        var longest = ways.values().stream().max((a, b) -> days(a) - days(b)).orElse(List.of()).stream()
                .filter(i -> !i.done())
                .toList();
        var dated = new ArrayList<OrderBy>();
        for (var item : items) {
            var by = visit.map(v -> v.minusDays(slack).minusDays(behind(item, items)));
            dated.add(new OrderBy(
                    item, by, !item.done() && by.filter(b -> b.isBefore(today)).isPresent()));
        }
        dated.sort((a, b) -> a.by().isPresent() && b.by().isPresent()
                ? a.by().get().compareTo(b.by().get())
                : behind(b.item(), items) - behind(a.item(), items));
        return new LeadTimes(
                dated,
                longest.stream().map(Item::name).toList(),
                today.plus(days(longest) + (long) slack, ChronoUnit.DAYS));
    }

    private static int days(List<Item> way) {
        return way.stream().filter(i -> !i.done()).mapToInt(Item::days).sum();
    }

    private static List<Item> way(Item item, Map<String, Item> byName, Set<String> seen) {
        if (!seen.add(item.name()))
            throw new ReadingException("These wait for one another: " + String.join(", ", seen) + ".");
        var way = new ArrayList<Item>();
        if (!item.after().isEmpty()) {
            var before = byName.get(item.after());
            if (before == null)
                throw new ReadingException(
                        item.name() + " waits for “" + item.after() + "”, which is not in the list.");
            way.addAll(way(before, byName, seen));
        }
        way.add(item);
        return way;
    }

    /** Days from ordering this until everything that waits for it is there too. */
    private static int behind(Item item, List<Item> items) {
        return item.days()
                + items.stream()
                        .filter(i -> i.after().equals(item.name()))
                        .mapToInt(i -> behind(i, items))
                        .max()
                        .orElse(0);
    }
}
