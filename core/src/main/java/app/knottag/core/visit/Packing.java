package app.knottag.core.visit;

import app.knottag.core.kind.Kind;
import app.knottag.core.kind.Outfit;
import app.knottag.core.runbook.Board;
import app.knottag.core.runbook.Runbook;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/**
 * What goes into the car, who has to be asked, and what must be ordered, added up over all devices of a visit that are not
 * done yet.
 *
 * @param boxes what each kind brings with it, to be counted against
 * @param tools one for each pair of hands, but never more than devices that need it
 * @param supplies what is used up, and a tenth of it to spare
 * @param sticks software that need not come over the line
 * @param labels tags and a tenth of them to spare
 * @param ask who must be there or be asked
 * @param bench devices that can be made ready on the bench the day before
 */
public record Packing(
        List<Box> boxes,
        List<Tool> tools,
        List<UsedUp> supplies,
        List<Stick> sticks,
        int labels,
        List<Ask> ask,
        List<String> bench) {

    /**
     * All devices of one kind.
     *
     * @param kit what must be in each box
     * @param leave what comes with it and stays in the box
     */
    public record Box(String kind, List<String> units, List<String> kit, List<String> leave) {}

    /** A tool, how many of it, and for which kinds. */
    public record Tool(String name, int count, List<String> kinds) {}

    /** Something that is used up, how many of it, and for which kinds. */
    public record UsedUp(String name, int count, List<String> kinds) {}

    /** A stick with the software of a kind, and how large that is. */
    public record Stick(String kind, int megabytes, List<String> units) {}

    /** Somebody who must be there, for what, and for how many minutes of hands; 0 when it is a word that is wanted. */
    public record Ask(String who, String what, List<String> units, int minutes) {}

    /**
     * Something that must be ordered ahead.
     *
     * @param units the devices that it is for
     */
    public record Need(Outfit.Order order, List<Long> units) {}

    public Packing {
        boxes = List.copyOf(boxes);
        tools = List.copyOf(tools);
        supplies = List.copyOf(supplies);
        sticks = List.copyOf(sticks);
        ask = List.copyOf(ask);
        bench = List.copyOf(bench);
    }

    /**
     * Adds up what some runbooks still need.
     *
     * @param people how many pairs of hands work at the same time
     */
    public static Packing of(List<Board.Job> jobs, int people) {
        var left = left(jobs);
        var fresh = left.stream().filter(j -> !j.runbook().begun()).toList();
        return new Packing(
                byKind(fresh).values().stream().map(Packing::box).toList(),
                tools(left, people),
                supplies(left),
                byKind(left).values().stream()
                        .filter(js -> megabytes(js.get(0)) > 0)
                        .map(js -> new Stick(name(js.get(0)), megabytes(js.get(0)), names(js)))
                        .toList(),
                withSpare(left.size()),
                asks(left),
                fresh.stream()
                        .filter(j -> j.runbook().kind().outfit().onBench())
                        .map(Board.Job::name)
                        .toList());
    }

    /** Returns what must be ordered for devices that nobody has begun. */
    public static List<Need> needs(List<Board.Job> jobs) {
        var units = new LinkedHashMap<Outfit.Order, List<Long>>();
        for (var job : left(jobs))
            if (!job.runbook().begun())
                for (var order : job.runbook().kind().outfit().orders())
                    units.computeIfAbsent(order, o -> new ArrayList<>()).add(job.endpoint());
        return units.entrySet().stream()
                .map(e -> new Need(e.getKey(), List.copyOf(e.getValue())))
                .sorted(Comparator.comparingInt((Need n) -> -n.order().days())
                        .thenComparing(n -> n.order().name()))
                .toList();
    }

    /** Returns what somebody carries to a device: its box as long as it is in it, and the tools. */
    public static List<String> carry(Runbook runbook) {
        var outfit = runbook.kind().outfit();
        var used = outfit.usedUp().stream().map(s -> s.each() + " × " + s.name());
        return Stream.of(runbook.begun() ? Stream.<String>of() : Stream.of("its box"), outfit.tools().stream(), used)
                .flatMap(Function.identity())
                .toList();
    }

    private static List<Board.Job> left(List<Board.Job> jobs) {
        return jobs.stream().filter(j -> !steps(j.runbook()).isEmpty()).toList();
    }

    private static List<Kind.Step> steps(Runbook runbook) {
        return runbook.kind().steps().stream()
                .filter(s -> !runbook.record(s.key()).done())
                .toList();
    }

    private static String name(Board.Job job) {
        return job.runbook().kind().name();
    }

    private static List<String> names(List<Board.Job> jobs) {
        return jobs.stream().map(Board.Job::name).toList();
    }

    private static Map<String, List<Board.Job>> byKind(List<Board.Job> jobs) {
        return jobs.stream().collect(Collectors.groupingBy(Packing::name, LinkedHashMap::new, Collectors.toList()));
    }

    private static Box box(List<Board.Job> jobs) {
        var outfit = jobs.get(0).runbook().kind().outfit();
        return new Box(name(jobs.get(0)), names(jobs), outfit.kit(), outfit.leaveInBox());
    }

    private static List<Tool> tools(List<Board.Job> left, int people) {
        var users = new LinkedHashMap<String, List<Board.Job>>();
        for (var job : left)
            for (String tool : job.runbook().kind().outfit().tools())
                users.computeIfAbsent(tool, t -> new ArrayList<>()).add(job);
        return users.entrySet().stream()
                .map(e -> new Tool(
                        e.getKey(),
                        Math.min(Math.max(1, people), e.getValue().size()),
                        e.getValue().stream().map(Packing::name).distinct().toList()))
                .toList();
    }

    private static int withSpare(int count) {
        return count + (count + 9) / 10;
    }

    private static List<UsedUp> supplies(List<Board.Job> left) {
        var users = new LinkedHashMap<String, List<Board.Job>>();
        for (var job : left)
            for (var supply : job.runbook().kind().outfit().usedUp())
                users.computeIfAbsent(supply.name(), s -> new ArrayList<>()).add(job);
        return users.entrySet().stream()
                .map(e -> new UsedUp(
                        e.getKey(),
                        withSpare(e.getValue().stream()
                                .mapToInt(j -> each(j, e.getKey()))
                                .sum()),
                        e.getValue().stream().map(Packing::name).distinct().toList()))
                .toList();
    }

    private static int each(Board.Job job, String supply) {
        return job.runbook().kind().outfit().usedUp().stream()
                .filter(s -> s.name().equals(supply))
                .mapToInt(Outfit.Supply::each)
                .sum();
    }

    /** What is still to be fetched by a device of a kind. */
    private static int megabytes(Board.Job job) {
        var kind = job.runbook().kind();
        return steps(job.runbook()).stream()
                .mapToInt(s -> kind.megabytes().getOrDefault(s.key(), 0))
                .sum();
    }

    private record Wanted(String who, String what) {}

    private static List<Ask> asks(List<Board.Job> left) {
        var found = new LinkedHashMap<Wanted, List<Board.Job>>();
        for (var job : left) {
            var kind = job.runbook().kind();
            for (var step : steps(job.runbook()))
                if (!step.needs().isEmpty()) add(found, new Wanted(step.needs(), step.title()), job);
            if (!kind.service().seenBy().isEmpty())
                add(found, new Wanted(kind.service().seenBy(), kind.service().job()), job);
        }
        return found.entrySet().stream()
                .map(e -> new Ask(
                        e.getKey().who, e.getKey().what, names(e.getValue()), minutes(e.getKey(), e.getValue())))
                .toList();
    }

    private static void add(Map<Wanted, List<Board.Job>> found, Wanted wanted, Board.Job job) {
        found.computeIfAbsent(wanted, w -> new ArrayList<>()).add(job);
    }

    private static int minutes(Wanted wanted, List<Board.Job> jobs) {
        Function<Board.Job, Integer> hands = j -> steps(j.runbook()).stream()
                .filter(s -> s.needs().equals(wanted.who) && s.title().equals(wanted.what))
                .mapToInt(s -> j.runbook().kind().minutes(s))
                .sum();
        return jobs.stream().mapToInt(hands::apply).sum();
    }
}
