package app.knottag.core.register;

import app.knottag.core.register.Registry.Type;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/** Finds the entries that should not stand any more: nobody owns them, nobody sees them, or their time is over. */
public final class CleanUp {

    private CleanUp() {}

    /** Why an entry is proposed for taking out, the surest first. */
    public enum Reason {
        UNIT_RETIRED,
        OTHER_UNIT,
        OWNER_LEFT,
        RAN_OUT,
        ENDED_WHILE_AWAY,
        NOT_SEEN
    }

    /**
     * An entry to look at.
     *
     * @param wayOut what to do about it
     */
    public record Item(Reason reason, long registration, long unit, String message, String wayOut) {}

    /**
     * What is known.
     *
     * @param ownersLeft names of the people who have left, in small letters
     * @param lastSeen when each unit was last seen on the network
     * @param silentDays after how many days without a sight an entry is proposed
     */
    public record Known(Set<String> ownersLeft, Map<Long, Instant> lastSeen, int silentDays) {}

    /** Returns the entries to look at. Entries that were taken out are never among them. */
    public static List<Item> of(
            Map<Long, Registry> registries,
            List<Registration> registrations,
            Map<Long, Unit> units,
            Known known,
            Instant now) {
        var items = new ArrayList<Item>();
        for (var r : registrations) {
            if (r.endedAt().isPresent()
                    || r.askedAt().isEmpty() && r.enteredAt().isEmpty()) continue;
            var registry = registries.get(r.registry());
            var unit = units.get(r.unit());
            if (registry != null && unit != null)
                one(registry, r, unit, known, now).ifPresent(items::add);
        }
        items.sort(Comparator.comparing(Item::reason));
        return items;
    }

    private static Optional<Item> one(Registry registry, Registration r, Unit unit, Known known, Instant now) {
        String entry = "“" + r.held().name() + "” in " + registry.name();
        if (unit.retired())
            return item(Reason.UNIT_RETIRED, r, entry + ": " + unit.name() + " is retired.", "Take it out.");
        if (r.mac().filter(m -> !unit.has(m)).isPresent())
            return item(
                    Reason.OTHER_UNIT,
                    r,
                    entry + " holds " + r.mac().get() + ", which " + unit.name() + " no longer has.",
                    "Old out first, then the new one in.");
        String owner = r.held().owner();
        if (!owner.isEmpty() && known.ownersLeft().contains(owner.toLowerCase(Locale.ROOT)))
            return item(
                    Reason.OWNER_LEFT,
                    r,
                    entry + " belongs to " + owner + ", who has left.",
                    "Give it to somebody, or take it out.");
        boolean over = r.endsAt().filter(e -> !e.isAfter(now)).isPresent();
        if (over && unit.away())
            return item(
                    Reason.ENDED_WHILE_AWAY,
                    r,
                    entry + " ended while " + unit.name() + " is away.",
                    "Register it again before it comes back, or it will not join.");
        if (over)
            return item(
                    Reason.RAN_OUT,
                    r,
                    entry + " has run out.",
                    registry.type() == Type.GUEST_DESK
                            ? "Take it out, or give another pass."
                            : "Renew it or take it out.");
        var seen = known.lastSeen().get(unit.id());
        long days = seen == null ? 0 : Duration.between(seen, now).toDays();
        return days >= known.silentDays() && !unit.away()
                ? item(
                        Reason.NOT_SEEN,
                        r,
                        entry + ": " + unit.name() + " was not seen for " + days + " days.",
                        "Is it still there? Take it out if not.")
                : Optional.empty();
    }

    private static Optional<Item> item(Reason reason, Registration r, String message, String wayOut) {
        return Optional.of(new Item(reason, r.id(), r.unit(), message, wayOut));
    }
}
