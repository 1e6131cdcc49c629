package app.knottag.core.audit;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.hardware.Mac;
import app.knottag.core.plan.Sighting;
import app.knottag.core.plan.Sighting.Source;
import app.knottag.core.time.SiteClock;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.function.BiPredicate;
import java.util.function.Function;

/** What is said of where a device has been, who has had an address, and who was there at a past time. */
public final class Whereabouts {

    private Whereabouts() {}

    /**
     * One device at one address, as one source saw it without a break.
     *
     * @param name what it is called on record, or by whoever knows it; empty when nobody does
     * @param looks on how many looks it was seen, at least 1
     * @param site another site at which it was; empty for the one asked about
     */
    public record Stretch(
            Ipv4Address address,
            Optional<Mac> mac,
            long endpoint,
            String name,
            Source source,
            Instant first,
            Instant last,
            int looks,
            String site) {

        /** What to call it in a sentence. */
        String who() {
            return name.isEmpty() ? mac.map(Mac::toString).orElse("") + " (not on record)" : name;
        }

        boolean meets(Stretch other) {
            return !first.isAfter(other.last) && !other.first.isAfter(last);
        }

        /** Whether both are known to have been seen by one look; what lies between first and last is not kept look by look. */
        boolean seenWith(Stretch other) {
            return first.equals(other.first)
                    || first.equals(other.last)
                    || last.equals(other.first)
                    || last.equals(other.last);
        }
    }

    /** Says where a device has been. */
    public static String ofMac(List<Stretch> told, SiteClock clock) {
        if (told.isEmpty()) return "Nobody has seen it yet.";
        var stretches = seen(told);
        if (stretches.isEmpty())
            return "Nobody has seen it; a list has it at " + latest(told).address + ", last "
                    + clock.moment(latest(told).last) + ".";
        var last = latest(stretches);
        long places = count(stretches, s -> List.of(s.site, s.address));
        String where = last.address + (last.site.isEmpty() ? "" : " in " + last.site);
        String seen = "last seen " + clock.moment(last.last);
        if (places == 1)
            return "Nobody has seen it anywhere but at " + where + ", first " + clock.moment(first(stretches)) + ", "
                    + seen + ".";
        return "It has been at " + places + " addresses; at " + where + " since " + clock.moment(last.first) + ", "
                + seen + ".";
    }

    /** Says who has had an address, and whether two had it at once. */
    public static String ofAddress(List<Stretch> stretches, SiteClock clock) {
        if (stretches.isEmpty()) return "Nobody has been seen there yet.";
        var known = seen(stretches).stream().filter(s -> s.mac.isPresent()).toList();
        if (known.isEmpty())
            return "Nobody was seen there, but a list says that it is taken; last "
                    + clock.moment(latest(stretches).last) + ".";
        var two = two(known, Stretch::seenWith, "Two had it at the same time: ", clock)
                .or(() -> two(known, (a, b) -> true, "Two have had it, by turns or at the same time: ", clock));
        if (two.isPresent()) return two.get();
        var last = latest(known);
        long devices = count(known, Stretch::mac);
        String seen = "last seen there " + clock.moment(last.last);
        if (devices == 1) return "Nobody but " + last.who() + " was seen there, " + seen + ".";
        return devices + " devices have had it, one after the other; the last is " + last.who() + ", " + seen + ".";
    }

    /**
     * One device at one port, as its gear told it without a break.
     *
     * @param name what it is called on record, or by whoever knows it; empty when nobody does
     * @param port with its gear, such as “Shop switch 7”
     */
    public record Hung(Mac mac, long endpoint, String name, String port, Instant first, Instant last) {

        String who() {
            return name.isEmpty() ? mac + " (not on record)" : name;
        }

        /** Whether it was heard there at about a time, as far as the readings before and after tell. */
        public boolean about(Instant time) {
            return !first.isAfter(time.plus(Sighting.TOGETHER)) && !last.isBefore(time.minus(Sighting.TOGETHER));
        }
    }

    /** Says who has hung at a port, at a past time or ever; the latest first. */
    public static String ofPort(List<Hung> hung, SiteClock clock) {
        if (hung.isEmpty()) return "No reading of that time tells who hung there.";
        var last = hung.get(0);
        long devices = hung.stream().map(Hung::mac).distinct().count();
        return (devices == 1
                        ? "Nobody but " + last.who() + " was heard there"
                        : devices + " devices have hung at " + last.port() + "; the last is " + last.who())
                + ", last heard " + clock.moment(last.last()) + ".";
    }

    /**
     * Says who was there at a time.
     *
     * @param before when somebody was seen last before that time, after when first after it
     */
    public static String at(
            List<Stretch> stretches, Optional<Instant> before, Optional<Instant> after, SiteClock clock) {
        long devices = count(seen(stretches), s -> s.mac.map(Mac::toString).orElse(s.address.toString()));
        if (devices > 0)
            return (devices == 1 ? "One device was there" : devices + " devices were there")
                    + ", as far as the looks before and after tell.";
        if (!stretches.isEmpty()) return "Only lists speak of that time; nobody was seen.";
        if (before.isEmpty() && after.isEmpty()) return "Nobody has been seen there yet.";
        return "Nobody looked about then: "
                + before.map(b -> "the last look before it was " + clock.moment(b))
                        .orElse("it is before the first look")
                + after.map(a -> ", the next one " + clock.moment(a)).orElse(", and nobody has looked since") + ".";
    }

    /** Says that not all of it was looked at, so that nothing certain is said of the whole. */
    public static String tooMany(int most) {
        return "There are more than " + most + " stays, so nothing is said of them all.";
    }

    private static Optional<String> two(
            List<Stretch> known, BiPredicate<Stretch, Stretch> how, String says, SiteClock clock) {
        for (var a : known)
            for (var b : known)
                if (!a.mac.equals(b.mac) && a.meets(b) && how.test(a, b))
                    return Optional.of(says + a.who() + " and " + b.who() + ", on "
                            + clock.moment(a.first.isAfter(b.first) ? a.first : b.first) + ".");
        return Optional.empty();
    }

    /** What people wrote into lists was never seen. */
    private static List<Stretch> seen(List<Stretch> stretches) {
        return stretches.stream().filter(s -> s.source.sees()).toList();
    }

    private static Stretch latest(List<Stretch> stretches) {
        return stretches.stream()
                .reduce((a, b) -> Sighting.outdoes(a.source, a.last, b.source, b.last) ? a : b)
                .orElseThrow();
    }

    private static Instant first(List<Stretch> stretches) {
        return stretches.stream().map(Stretch::first).min(Instant::compareTo).orElseThrow();
    }

    private static long count(List<Stretch> stretches, Function<Stretch, Object> by) {
        return stretches.stream().map(by).distinct().count();
    }
}
