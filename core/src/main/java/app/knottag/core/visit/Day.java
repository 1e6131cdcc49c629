package app.knottag.core.visit;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.OptionalInt;

/**
 * A visit played through minute by minute, with everybody doing what {@link Steer} says, and nobody knowing how long
 * anything will take before it is over.
 */
public final class Day {

    private final Brief brief;
    private final Steer steer;
    /** How long the hands of each stretch really take, by unit and stretch. */
    private final Map<Long, int[]> hands;

    private final Map<Long, int[]> alone;
    private final Map<Long, Standing.Progress> units;
    private final List<Standing.Person> people = new ArrayList<>();
    private final int[] free;
    private final Map<Long, Integer> over = new HashMap<>();
    private int finish;

    private Day(Brief brief, VisitPlan plan, Map<Long, int[]> hands, Map<Long, int[]> alone) {
        this.brief = brief;
        this.steer = new Steer(brief, plan);
        this.hands = hands;
        this.alone = alone;
        var begin = Standing.beginning(brief);
        units = new HashMap<>(begin.units());
        brief.units().stream().filter(u -> u.stretches().isEmpty()).forEach(u -> units.remove(u.id()));
        people.addAll(begin.people());
        free = new int[people.size()];
    }

    /**
     * Plays a day.
     *
     * @param hands minutes that the hands really take, for each unit by its id and each of its stretches
     * @param alone minutes that each really runs by itself
     * @return the minute at which everything was done, or {@link Window#HORIZON} when it was not
     */
    public static int finish(Brief brief, VisitPlan plan, Map<Long, int[]> hands, Map<Long, int[]> alone) {
        return new Day(brief, plan, hands, alone).play();
    }

    private int play() {
        int now = 0;
        while (!units.isEmpty() && now < Window.HORIZON) {
            settle(now);
            var told = steer.all(standing(now));
            for (int p = 0; p < free.length; p++) if (free[p] <= now) begin(now, p, told.get(p));
            now = next(now);
        }
        settle(now);
        return units.isEmpty() ? finish : Window.HORIZON;
    }

    private Standing standing(int now) {
        return new Standing(now, units, people);
    }

    /** Hands that are done by now: the stretch runs by itself from then on. */
    private void settle(int now) {
        for (var unit : brief.units()) {
            if (!units.containsKey(unit.id())) continue;
            var p = units.get(unit.id());
            if (p.by().isEmpty() || free[p.by().getAsInt()] > now) continue;
            int end = free[p.by().getAsInt()] + alone.get(unit.id())[p.next()];
            if (p.next() + 1 == unit.stretches().size()) {
                units.remove(unit.id());
                over.put(unit.id(), end);
                finish = Math.max(finish, end);
            } else units.put(unit.id(), new Standing.Progress(p.next() + 1, end, OptionalInt.empty()));
        }
    }

    private void begin(int now, int person, DoNow told) {
        if (told.what() != DoNow.What.DO) return;
        var unit = brief.units().get(brief.indexOf(told.unit()));
        String was = people.get(person).place();
        int walk = was.isEmpty() ? 0 : brief.means().walk(was, unit.place());
        free[person] = now + walk + hands.get(unit.id())[told.stretch()];
        people.set(person, new Standing.Person(unit.place(), false));
        units.put(unit.id(), new Standing.Progress(told.stretch(), now, OptionalInt.of(person)));
    }

    /** The next minute at which something can change. */
    private int next(int now) {
        int next = Window.HORIZON;
        for (int f : free) if (f > now) next = Math.min(next, f);
        for (var p : units.values()) if (p.ready() > now) next = Math.min(next, p.ready());
        for (var h : brief.hands()) for (var w : h.there()) if (w.from() > now) next = Math.min(next, w.from());
        for (var u : brief.units()) for (var w : u.free()) if (w.from() > now) next = Math.min(next, w.from());
        return next;
    }
}
