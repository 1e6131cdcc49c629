package app.knottag.core.reach;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Segment;
import app.knottag.core.hardware.Mac;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.Executor;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.locks.LockSupport;
import java.util.function.BooleanSupplier;
import java.util.function.Consumer;
import java.util.function.Predicate;

/** Asks every address of a segment once, and compares who is there with the plan. */
public final class Sweep {

    /** No more hosts than these are asked in one go: a /22. */
    public static final int MOST_HOSTS = 1022;

    /** Bounded rate: so long from one echo to the next, a thousand in a second. */
    private static final long APART_NANOS = 1_000_000;

    private Sweep() {}

    /** What stands at an address, against the plan. */
    public enum Verdict {
        OTHER_MAC,
        MOVED,
        SILENT,
        STRANGER,
        AS_PLANNED,
        LEASED
    }

    /**
     * Somebody who is planned at an address.
     *
     * @param endpointId number of the endpoint, or 0 for gear and partners
     */
    public record Planned(Ipv4Address address, String name, Optional<Mac> mac, long endpointId) {}

    /** One address of the table. */
    public record Line(
            Ipv4Address address, Verdict verdict, String name, long endpointId, Optional<Mac> mac, String words) {}

    /** What was asked so far, and who answered. */
    public record Asked(int asked, Collection<Ipv4Address> answered) {}

    /** Returns the addresses of a segment that can have a host. */
    public static List<Ipv4Address> hosts(Segment segment) {
        var all = new ArrayList<Ipv4Address>();
        long last = segment.prefix().highestUsable().number();
        for (long n = segment.prefix().lowestUsable().number(); n <= last; n++) all.add(Ipv4Address.ofNumber(n));
        return all;
    }

    /**
     * Asks every address, all at once but at a bounded rate.
     *
     * @param there asks one address
     * @param answered is told of each that answers, from any thread
     * @param asked is told how many have been asked to the end
     * @param stop whether to ask no more
     */
    public static void run(
            List<Ipv4Address> hosts,
            Predicate<Ipv4Address> there,
            Executor executor,
            Consumer<Ipv4Address> answered,
            Consumer<Integer> asked,
            BooleanSupplier stop) {
        var running = new ArrayList<CompletableFuture<Void>>();
        var count = new AtomicInteger();
        long begun = System.nanoTime();
        for (int i = 0; i < hosts.size() && !stop.getAsBoolean(); i++) {
            long wait = begun + i * APART_NANOS - System.nanoTime();
            if (wait > 0) LockSupport.parkNanos(wait);
            var address = hosts.get(i);
            running.add(CompletableFuture.runAsync(
                    () -> {
                        if (!stop.getAsBoolean() && there.test(address)) answered.accept(address);
                        asked.accept(count.incrementAndGet());
                    },
                    executor));
        }
        running.forEach(CompletableFuture::join);
    }

    /**
     * Compares who is there with the plan; what is free and silent is not listed.
     *
     * @param within whether one looks from within the segment, so that MACs are seen
     */
    public static List<Line> judge(
            Segment segment,
            List<Planned> plan,
            Collection<Ipv4Address> answered,
            List<Neighbour> table,
            boolean within) {
        var seen = new HashMap<Ipv4Address, Mac>();
        // An entry that nobody has confirmed names who answered, and is no answer by itself.
        table.stream()
                .filter(n -> segment.prefix().contains(n.address()))
                .filter(n -> n.confirmed() || answered.contains(n.address()))
                .forEach(n -> seen.put(n.address(), n.mac()));
        var planned = new HashMap<Ipv4Address, Planned>();
        var owners = new HashMap<Mac, Planned>();
        for (var p : plan) {
            planned.put(p.address(), p);
            p.mac().ifPresent(m -> owners.put(m, p));
        }
        var lines = new ArrayList<Line>();
        for (var address : hosts(segment)) {
            var p = planned.get(address);
            var mac = Optional.ofNullable(seen.get(address));
            boolean there = mac.isPresent() || answered.contains(address);
            if (p != null) lines.add(planned(p, mac, there, seen, segment, owners, within));
            else if (there) lines.add(unplanned(address, mac, segment, owners));
        }
        lines.sort((a, b) -> a.verdict().compareTo(b.verdict()) != 0
                ? a.verdict().compareTo(b.verdict())
                : a.address().compareTo(b.address()));
        return List.copyOf(lines);
    }

    private static Line planned(
            Planned p,
            Optional<Mac> mac,
            boolean there,
            Map<Ipv4Address, Mac> seen,
            Segment segment,
            Map<Mac, Planned> owners,
            boolean within) {
        if (there && mac.isPresent() && p.mac().isPresent() && !mac.equals(p.mac()))
            return line(
                    p,
                    Verdict.OTHER_MAC,
                    mac,
                    whose(mac.get(), owners) + " answers, not " + p.mac().get() + ".");
        if (there)
            return line(
                    p,
                    Verdict.AS_PLANNED,
                    mac,
                    mac.isPresent() && p.mac().isPresent()
                            ? "There, with its own MAC."
                            : mac.isPresent()
                                    ? "There; no MAC of it is on record to compare."
                                    : within
                                            ? "It answers, but no MAC is seen."
                                            : "It answers; from here its MAC is not seen.");
        var elsewhere = seen.entrySet().stream()
                .filter(e -> p.mac().filter(e.getValue()::equals).isPresent())
                .map(Map.Entry::getKey)
                .findFirst();
        return elsewhere
                .map(a -> line(
                        p,
                        Verdict.MOVED,
                        p.mac(),
                        "Silent here; its MAC is at " + a
                                + (segment.poolOf(a).isPresent() ? ", in the pool: it is on automatic." : ".")))
                .orElseGet(() -> line(
                        p,
                        Verdict.SILENT,
                        Optional.empty(),
                        within ? "Silent, and its MAC is seen nowhere." : "Silent; from here MACs are not seen."));
    }

    private static Line line(Planned p, Verdict verdict, Optional<Mac> mac, String words) {
        return new Line(p.address(), verdict, p.name(), p.endpointId(), mac, words);
    }

    private static Line unplanned(Ipv4Address address, Optional<Mac> mac, Segment segment, Map<Mac, Planned> owners) {
        var owner = mac.map(owners::get);
        boolean leased = segment.poolOf(address).isPresent();
        String who = owner.map(Planned::name).orElse("");
        return new Line(
                address,
                leased ? Verdict.LEASED : Verdict.STRANGER,
                who,
                owner.map(Planned::endpointId).orElse(0L),
                mac,
                owner.isPresent()
                        ? who + " is planned at " + owner.get().address() + "."
                        : leased
                                ? "In the pool: somebody with a leased address."
                                : "A stranger: nobody is planned here"
                                        + (mac.isEmpty() ? "." : ", and its MAC is not on record."));
    }

    private static String whose(Mac mac, Map<Mac, Planned> owners) {
        var owner = owners.get(mac);
        return owner == null ? mac + ", which is not on record," : owner.name() + " (" + mac + ")";
    }
}
