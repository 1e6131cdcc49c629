package app.knottag.core.practice;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Pool;
import app.knottag.core.plan.MoveOrder;
import app.knottag.core.plan.MoveOrder.Hop;
import app.knottag.core.plan.MoveOrder.Wish;
import app.knottag.core.reading.ReadingException;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;

/**
 * Devices that get other addresses of their network while the router gets another pool. Counted are the changes; whoever is cut
 * off by one costs two more, away and back.
 *
 * @param was what the router hands out before it is changed
 * @param becomes what it hands out after that
 * @param spare addresses that are nobody's
 */
public record Renumber(List<Mover> movers, Pool was, Pool becomes, List<Ipv4Address> spare) implements PlanTask {

    private static final String ROUTER = "router";
    private static final String PARK = "park-";
    private static final String MOVE = "move-";
    private static final int CUT_OFF = 2;

    public Renumber {
        movers = List.copyOf(movers);
        spare = List.copyOf(spare);
    }

    /** A device, its address, and the one that it is to have; all of them are different within one column. */
    public record Mover(String name, Ipv4Address from, Ipv4Address to) {}

    @Override
    public String ask() {
        return "The router gets another pool, and the office has a new list. In which order is it done, so that nobody is cut off?";
    }

    @Override
    public List<PlanFact> facts() {
        return Stream.concat(
                        movers.stream().map(m -> new PlanFact(m.name(), m.from() + " becomes " + m.to())),
                        Stream.of(
                                new PlanFact("Handed out until the router is changed", was.toString()),
                                new PlanFact("Handed out after that", becomes.toString()),
                                new PlanFact(
                                        "Free to park at",
                                        spare.stream()
                                                .map(Ipv4Address::toString)
                                                .collect(Collectors.joining(", ")))))
                .toList();
    }

    @Override
    public List<PlanBlank> blanks() {
        return List.of();
    }

    /** What came of the moves: where each device is, and who was cut off when. */
    private final class Run {
        final List<Ipv4Address> at =
                new ArrayList<>(movers.stream().map(Mover::from).toList());
        final List<String> happened = new ArrayList<>();
        final List<String> cutOff = new ArrayList<>();
        boolean changed;

        boolean arrived(int mover) {
            return at.get(mover).equals(movers.get(mover).to());
        }

        boolean over() {
            return changed && IntStream.range(0, movers.size()).allMatch(this::arrived);
        }

        void make(String move) {
            if (move.equals(ROUTER) && !changed) change();
            else if (move.startsWith(MOVE))
                go(
                        move.substring(MOVE.length()),
                        movers.get(mover(move.substring(MOVE.length()))).to());
            else if (move.startsWith(PARK))
                go(
                        move.substring(PARK.length()),
                        free().orElseThrow(() -> new ReadingException("No address is free to park at.")));
            else throw new ReadingException("“" + move + "” cannot be done here.");
        }

        Optional<Ipv4Address> free() {
            return spare.stream().filter(s -> !at.contains(s)).findFirst();
        }

        private int mover(String number) {
            return Stream.of(number)
                    .filter(n -> n.matches("[0-9]{1,2}"))
                    .map(Integer::parseInt)
                    .filter(n -> n < movers.size())
                    .findFirst()
                    .orElseThrow(() -> new ReadingException("There is no such device."));
        }

        private void go(String number, Ipv4Address to) {
            int mover = mover(number);
            var name = movers.get(mover).name();
            if (at.get(mover).equals(to)) throw new ReadingException(name + " is at " + to + " already.");
            var other = IntStream.range(0, movers.size())
                    .filter(m -> at.get(m).equals(to))
                    .mapToObj(m -> movers.get(m).name())
                    .findFirst();
            var pool = changed ? becomes : was;
            at.set(mover, to);
            if (other.isPresent())
                cut(other.get() + " has " + to + " still. Two with one address: each cuts the other off.");
            else if (pool.contains(to))
                cut("The router hands out " + pool + ": it may give " + to + " to somebody, and then " + name
                        + " is cut off.");
            else happened.add(name + (spare.contains(to) ? " is parked at " : " is at ") + to + ".");
        }

        private void change() {
            changed = true;
            var inside = IntStream.range(0, movers.size())
                    .filter(m -> becomes.contains(at.get(m)))
                    .mapToObj(m -> movers.get(m).name())
                    .toList();
            if (inside.isEmpty()) happened.add("The router hands out " + becomes + " now.");
            for (var name : inside)
                cutOff.add("The router hands out " + becomes + " now, and " + name + " stands there.");
            if (!inside.isEmpty())
                happened.add("The router hands out " + becomes + " now, where " + String.join(" and ", inside)
                        + (inside.size() == 1 ? " stands." : " stand."));
        }

        private void cut(String says) {
            cutOff.add(says);
            happened.add(says);
        }
    }

    private Run run(List<String> moves) {
        var run = new Run();
        moves.forEach(run::make);
        return run;
    }

    @Override
    public PlanStand stand(List<String> moves) {
        var run = run(moves);
        var next = new ArrayList<PlanMove>();
        if (run.over()) return new PlanStand(next, run.happened);
        for (int m = 0; m < movers.size(); m++) {
            var mover = movers.get(m);
            if (run.arrived(m)) continue;
            next.add(new PlanMove(MOVE + m, "Move " + mover.name() + " to " + mover.to(), "is at " + run.at.get(m)));
            int parked = m;
            if (!spare.contains(run.at.get(m)))
                run.free()
                        .ifPresent(
                                to -> next.add(new PlanMove(PARK + parked, "Park " + mover.name() + " at " + to, "")));
        }
        if (!run.changed) next.add(new PlanMove(ROUTER, "Change the router", "then it hands out " + becomes));
        return new PlanStand(next, run.happened);
    }

    @Override
    public PlanJudged judge(List<String> answer) {
        var run = run(answer);
        if (!run.over()) throw new ReadingException("Not everybody has arrived, or the router is not changed yet.");
        var best = best();
        int mine = answer.size() + CUT_OFF * run.cutOff.size();
        String says = "You needed " + answer.size() + " changes"
                + (run.cutOff.isEmpty()
                        ? ", and nobody was cut off."
                        : ", and somebody was cut off "
                                + (run.cutOff.size() == 1 ? "once." : run.cutOff.size() + " times."))
                + " The fewest are " + best.size() + ", with nobody cut off.";
        return new PlanJudged((double) best.size() / mine, says, run.cutOff, best, true);
    }

    private List<String> best() {
        var wishes = IntStream.range(0, movers.size())
                .mapToObj(m -> new Wish(
                        m,
                        movers.get(m).from(),
                        movers.get(m).to(),
                        was.contains(movers.get(m).to()),
                        becomes.contains(movers.get(m).from())))
                .toList();
        var order = MoveOrder.order(wishes, spare);
        return Stream.of(
                        order.before().stream().map(this::said),
                        Stream.of("Change the router"),
                        order.after().stream().map(this::said))
                .flatMap(s -> s)
                .toList();
    }

    private String said(Hop hop) {
        var name = movers.get((int) hop.id()).name();
        return hop.to()
                .map(to -> hop.parked() ? "Park " + name + " at " + to : "Move " + name + " to " + to)
                .orElse("Take " + name + " off the network");
    }
}
