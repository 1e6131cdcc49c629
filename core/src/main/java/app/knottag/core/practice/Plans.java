package app.knottag.core.practice;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Ipv4Prefix;
import app.knottag.core.address.Pool;
import app.knottag.core.address.Segment;
import app.knottag.core.kind.Kinds;
import app.knottag.core.reading.ReadingException;
import app.knottag.core.runbook.Runbook;
import app.knottag.core.visit.Brief;
import app.knottag.core.visit.Hands;
import app.knottag.core.visit.Learned;
import app.knottag.core.visit.Means;
import app.knottag.core.visit.RunbookWork;
import app.knottag.core.visit.VisitUnit;
import app.knottag.core.visit.Window;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Random;
import java.util.Set;
import java.util.stream.IntStream;

/** Things to plan, any number of each, always the same for the same number. All of it is made up. */
public final class Plans {

    /** Most tasks of a kind; they are counted from 0. */
    public static final int MOST = 1_000_000_000;

    private static final Kinds KINDS = Kinds.shipped();
    /** Kinds that one person carries through alone, with a wait in it. */
    private static final List<String> WAITING = List.of(
            "counter-payment-terminal",
            "till-pin-pad",
            "kiosk-set",
            "storage-box",
            "copier",
            "fax-adapter",
            "meeting-room-hub",
            "watched-outlet");

    private static final List<String> AT_COUNTERS = List.of("counter-payment-terminal", "till-pin-pad");
    private static final List<String> ROWS = List.of("Tills", "PIN pads", "Time clocks", "Cameras", "Scanners");
    private static final int MORNING = 8 * 60;

    private Plans() {}

    /**
     * Returns a task.
     *
     * @param number 0 to {@link #MOST} - 1
     */
    public static PlanTask of(PlanDrill drill, int number) {
        if (number < 0 || number >= MOST) throw new ReadingException("Tasks are counted from 0, was " + number);
        var random = new Random(number * 104_729L + drill.ordinal());
        return switch (drill) {
            case LAY_OUT -> layOut(random);
            case RENUMBER -> renumber(random);
            case RESTARTS -> restarts(random);
            case OUTLET -> outlet(random);
            case MORNING -> morning(random);
        };
    }

    private static Ipv4Address network(Random random) {
        return Ipv4Address.parse("10." + random.nextInt(256) + "." + random.nextInt(256) + ".0");
    }

    /** Once more, until the rows do not simply fit one after the other in the first stretch. */
    private static LayOut layOut(Random random) {
        while (true) {
            var base = network(random);
            int last = random.nextBoolean() ? 254 : 126;
            var gateway = base.plus(random.nextBoolean() ? 1 : last);
            int low = 8 + random.nextInt(14), high = last - 5 - random.nextInt(14);
            var segment = new Segment(
                    Ipv4Prefix.around(base, last == 254 ? 24 : 25),
                    Optional.of(gateway),
                    List.of(new Pool(base.plus(low), base.plus(high))));
            var held = new HashMap<Ipv4Address, String>();
            for (String name : List.of("The office printer", "The safe’s modem")) {
                var at = base.plus(random.nextBoolean() ? 2 + random.nextInt(low - 3) : high + 2 + random.nextInt(3));
                if (segment.fixable(at)) held.putIfAbsent(at, name);
            }
            var names = new ArrayList<>(ROWS);
            Collections.shuffle(names, random);
            var rows = names.subList(0, 3 + random.nextInt(2)).stream()
                    .map(n -> {
                        int now = 2 + random.nextInt(3);
                        return new LayOut.Row(n, now, now + 1 + random.nextInt(4));
                    })
                    .toList();
            var task = new LayOut(segment, held, rows);
            if (task.hard()) return task;
        }
    }

    private static Renumber renumber(Random random) {
        var base = network(random);
        int early = 40 + random.nextInt(20), late = 120 + random.nextInt(20);
        var was = new Pool(base.plus(late), base.plus(late + 60));
        var becomes = new Pool(base.plus(early), base.plus(early + 40));
        // Some stand where the new router hands out, some are to go where the old one does.
        var from = new ArrayList<Ipv4Address>();
        var to = new ArrayList<Ipv4Address>();
        var between = new ArrayList<Ipv4Address>();
        for (int n = 0; n < 5; n++) between.add(base.plus(10 + 4L * n + random.nextInt(4)));
        int inside = 1 + random.nextInt(2), outside = 1 + random.nextInt(2);
        for (int n = 0; n < inside; n++) from.add(base.plus(early + 5L * n + random.nextInt(5)));
        for (int n = 0; n < outside; n++) to.add(base.plus(late + 5L * n + random.nextInt(5)));
        from.addAll(between.subList(0, 5 - inside));
        to.addAll(between.subList(0, 5 - outside));
        do Collections.shuffle(to, random);
        while (IntStream.range(0, 5).anyMatch(n -> from.get(n).equals(to.get(n))));
        var names = List.of("Till 1", "Till 2", "The copier", "The time clock", "The storage box");
        var movers = IntStream.range(0, 5)
                .mapToObj(n -> new Renumber.Mover(names.get(n), from.get(n), to.get(n)))
                .toList();
        return new Renumber(
                movers,
                was,
                becomes,
                IntStream.range(0, 3).mapToObj(n -> base.plus(240L + n)).toList());
    }

    private static Day restarts(Random random) {
        var kinds = new ArrayList<>(WAITING);
        Collections.shuffle(kinds, random);
        var units = IntStream.range(0, 4)
                .mapToObj(n -> unit(n, kinds.get(n), "bench", Window.ALWAYS))
                .toList();
        return new Day(brief(units, 0), MORNING);
    }

    private static Day morning(Random random) {
        var kinds = new ArrayList<>(WAITING);
        kinds.removeAll(AT_COUNTERS);
        Collections.shuffle(kinds, random);
        int opens = 60 + 15 * random.nextInt(4), lull = opens + 60 + 15 * random.nextInt(4);
        var free = List.of(new Window(0, opens), new Window(lull, Window.HORIZON / 8));
        var units = new ArrayList<VisitUnit>();
        for (String kind : AT_COUNTERS) units.add(unit(units.size(), kind, "counter", free));
        units.add(unit(units.size(), kinds.get(0), "office", Window.ALWAYS));
        units.add(unit(units.size(), kinds.get(1), random.nextBoolean() ? "office" : "store room", Window.ALWAYS));
        return new Day(brief(units, 2 + random.nextInt(3)), MORNING);
    }

    private static Brief brief(List<VisitUnit> units, int walk) {
        return new Brief(
                units, List.of(Hands.of("you")), new Means(Means.PLENTY, 0, walk, Map.of()), OptionalInt.empty());
    }

    /** A device that comes out of its box, with the hands and waits that its kind usually takes. */
    private static VisitUnit unit(int id, String kind, String place, List<Window> free) {
        var it = KINDS.get(kind);
        var work = RunbookWork.left(Runbook.of(it, Map.of()), Learned.NOTHING);
        String name = it.noun().substring(0, 1).toUpperCase() + it.noun().substring(1);
        return new VisitUnit(id, name, place, work, 0, free, Set.of(), false, "", false, 0);
    }

    private static OutletPlan outlet(Random random) {
        return new OutletPlan(
                80 + 5 * random.nextInt(45),
                25 + 5 * random.nextInt(30),
                60 * (15 + random.nextInt(45)),
                new int[] {8, 15, 20, 25}[random.nextInt(4)]);
    }
}
