package app.knottag.core.audit;

import java.time.Duration;
import java.time.Instant;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;

/**
 * How likely a proof still holds, and which to renew first. Changes that nobody made on purpose are taken to come at a steady
 * rate for each kind; of that rate nothing is known at first but that half of all proofs hold a year, and every year in which
 * devices of the kind were here, and every change that was found in it, says more (a gamma prior of shape 1 and rate 1 year,
 * whose forecast is the Lomax distribution).
 */
public final class Recheck {

    private static final double YEAR = Duration.ofDays(365).toSeconds();
    private static final double PRIOR_CHANGES = 1;
    private static final double PRIOR_YEARS = 1;

    private static final int CERTAIN = 100;

    private Recheck() {}

    /** What it costs when a device is silent, and after how long to look when nothing is known of its kind. */
    public enum Weight {
        /** A till, an office or another partner works through it. */
        WAITED_ON(3, 0.25, "its partner works through it"),
        /** Others reach it. */
        REACHED(2, 0.5, "others reach it"),
        /** It works for itself. */
        ALONE(1, 1, "nobody on record rests on it");

        private final int cost;
        private final double usualYears;
        private final String words;

        Weight(int cost, double usualYears, String words) {
            this.cost = cost;
            this.usualYears = usualYears;
            this.words = words;
        }

        public String words() {
            return words;
        }

        /** Returns what a device costs that has a partner, or that others reach. */
        public static Weight of(boolean partner, boolean reached) {
            return partner ? WAITED_ON : reached ? REACHED : ALONE;
        }

        /** The chance of a change at which to look again. */
        double limit() {
            return chance(0, 0, usualYears);
        }
    }

    /**
     * A device that was proved.
     *
     * @param held when its checks held last; not before it was signed off
     * @param failed since when its checks fail, when they failed the last time
     */
    public record Proved(
            long endpoint,
            String name,
            long siteId,
            String place,
            String kind,
            Weight weight,
            Instant held,
            Optional<Instant> failed) {}

    /**
     * What became of a kind of device here, at all sites.
     *
     * @param kindName as it stands in a sentence
     * @param changes faults found and resets after the first sign-off, at most one a day and device
     * @param years of all such devices together, counted from each one's first sign-off
     */
    public record History(String kindName, int changes, double years) {}

    /**
     * One device on the list.
     *
     * @param chance that something has changed since, in percent, 0..99; 100 when its checks fail
     * @param due when to look again, or since when its checks fail
     */
    public record Line(Proved device, int chance, Instant due, boolean overdue, String says) {

        /** Chance times cost: what it is worth to look. */
        double worth() {
            return chance / 100.0 * device.weight().cost;
        }
    }

    /** How many of one weight are overdue at a site. */
    public record Overdue(long siteId, Weight weight, int count) {}

    /** One site with how many are overdue there, and what they cost together when they are silent. */
    public record Place(long siteId, int overdue, int worth) {}

    /** Returns the chance that something changed within so many years, by what is known of its kind. */
    static double chance(int changes, double years, double since) {
        double known = PRIOR_YEARS + years;
        return 1 - Math.pow(known / (known + Math.max(0, since)), PRIOR_CHANGES + changes);
    }

    /** Returns after how many years the chance of a change reaches a limit. */
    static double until(int changes, double years, double limit) {
        return (PRIOR_YEARS + years) * (Math.pow(1 - limit, -1 / (PRIOR_CHANGES + changes)) - 1);
    }

    /** Returns the list: what is overdue first, by what it is worth to look, then the rest by its day. */
    public static List<Line> of(List<Proved> proved, Map<String, History> histories, Instant now) {
        return proved.stream()
                .map(p -> line(p, histories.getOrDefault(p.kind(), new History(p.kind(), 0, 0)), now))
                .sorted(Comparator.comparing((Line l) -> !l.overdue())
                        .thenComparing(l -> l.overdue() ? -l.worth() : 0)
                        .thenComparing(Line::due)
                        .thenComparing(l -> l.device().name()))
                .toList();
    }

    /** Returns how long a proof of such a device is good for. */
    public static Duration lasts(History history, Weight weight) {
        return Duration.ofSeconds(Math.round(YEAR * until(history.changes(), history.years(), weight.limit())));
    }

    /** Returns the sites at which something is overdue, where a visit is worth most first. */
    public static List<Place> places(List<Overdue> overdue) {
        var bySite = new TreeMap<Long, Place>();
        for (var o : overdue)
            bySite.merge(
                    o.siteId(),
                    new Place(o.siteId(), o.count(), o.count() * o.weight().cost),
                    (a, b) -> new Place(a.siteId(), a.overdue() + b.overdue(), a.worth() + b.worth()));
        return bySite.values().stream()
                .sorted(Comparator.comparingInt((Place p) -> -p.worth()))
                .toList();
    }

    private static Line line(Proved p, History h, Instant now) {
        if (p.failed().isPresent())
            return new Line(
                    p,
                    CERTAIN,
                    p.failed().get(),
                    true,
                    "Its last checks failed, so nothing that was proved of it can be relied on; "
                            + p.weight().words() + ".");
        double since = Duration.between(p.held(), now).toSeconds() / YEAR;
        var due = p.held().plus(lasts(h, p.weight()));
        double chance = chance(h.changes(), h.years(), since);
        return new Line(
                p,
                (int) Math.min(99, Math.round(100 * chance)),
                due,
                !due.isAfter(now),
                "Its checks held " + ago(p.held(), now) + "; " + p.weight().words() + ". " + known(h));
    }

    private static String ago(Instant then, Instant now) {
        long days = Math.max(0, Duration.between(then, now).toDays());
        return days == 0 ? "today" : days == 1 ? "yesterday" : days + " days ago";
    }

    private static String known(History h) {
        if (h.changes() == 0 && h.years() < 0.1)
            return "Little is known of its kind here, so half of all proofs are taken to hold a year.";
        String changed = h.changes() == 0
                ? "No change was found"
                : h.changes() == 1 ? "One change was found" : h.changes() + " changes were found";
        return changed + " in " + years(h.years()) + " of " + h.kindName() + "s here.";
    }

    private static String years(double years) {
        return years < 1
                ? Math.max(1, Math.round(years * 12)) + (Math.round(years * 12) <= 1 ? " month" : " months")
                : String.format(Locale.ROOT, "%.1f years", years)
                        .replace(".0 ", " ")
                        .replaceFirst("^1 years", "1 year");
    }
}
