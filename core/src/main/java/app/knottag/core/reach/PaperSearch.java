package app.knottag.core.reach;

import app.knottag.core.reach.Diagnosis.Made;
import app.knottag.core.reach.Question.By;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.EnumSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.PriorityQueue;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Predicate;
import java.util.stream.Collectors;

/**
 * The search for the cause written out, for whoever stands before a silent device with nothing but paper: numbered looks,
 * each with all that may be seen and where it leads. It is the search of {@link Diagnosis}, followed wherever it is likely
 * to go; only looks that need no machine stand in it.
 *
 * @param steps the first is where to begin; a step is named by its place, from 1
 */
public record PaperSearch(List<Step> steps) {

    /** So many looks go on two pages; what is rarer ends in the causes that are left. */
    static final int MOST = 32;

    /** A way that is taken less often than so is not followed further. */
    private static final double RARE = 0.002;

    /** What is less likely than so is no cause to be named. */
    private static final double NAMED = 0.08;

    private static final int NAMED_MOST = 3;

    /** Looks for which one needs a computer or a list that lies elsewhere. */
    private static final Set<Question> ELSEWHERE = Arrays.stream(Question.values())
            .filter(q -> q.by() == By.MACHINE
                    || switch (q) {
                        case PULL, LARGE, LAPTOP_LEASE, BROWSE, NAME_GIVES, RESTART_PING -> true;
                        default -> false;
                    })
            .collect(Collectors.toUnmodifiableSet());

    /** No cause where something odd was seen: that all is well, and that a computer stands in the wrong network. */
    private static final Set<Fault> BESIDE = EnumSet.of(Fault.NOTHING, Fault.OWN_VANTAGE);

    /** A look, and what comes of each outcome. */
    public record Step(Question question, List<Branch> branches) {}

    /**
     * What was seen, and where it leads.
     *
     * @param step the look to go on with; empty when the search ends here
     * @param causes where it ends: what it can be, likeliest first
     * @param fits whether they explain all that was seen; else one of the looks was misread, or it is none of all these
     */
    public record Branch(Outcome outcome, Optional<Integer> step, List<Cause> causes, boolean fits) {}

    /** One fault, or two at once. */
    public record Cause(List<Fault> faults) {}

    /** What a search on paper rests on. */
    public record Device(NetworkState.Traits traits, boolean reserved) {}

    /** There are fewer than a hundred of them. */
    private static final Map<Device, PaperSearch> KEPT = new ConcurrentHashMap<>();

    /** Returns the search for devices of one sort, at a site with usual figures, by the book that is shipped. */
    public static PaperSearch of(Device device) {
        return KEPT.computeIfAbsent(
                device,
                d -> new Writer(
                                NetworkState.intended(d.traits(), NetworkState.Layout.USUAL.handedOut(d.reserved())),
                                FaultBook.shipped())
                        .write());
    }

    /** Returns all faults that some way through it ends in, in the order in which they are met. */
    public Set<Fault> faults() {
        return steps.stream()
                .flatMap(s -> s.branches().stream())
                .flatMap(b -> b.causes().stream())
                .flatMap(c -> c.faults().stream())
                .collect(Collectors.toCollection(LinkedHashSet::new));
    }

    /** Looks so far, and how likely one comes there. */
    private record Way(List<Made> made, double chance) {}

    /** Follows the likeliest ways first. */
    private record Writer(NetworkState intended, FaultBook book) {

        PaperSearch write() {
            var looks = new LinkedHashMap<List<Made>, Question>();
            var ways =
                    new PriorityQueue<>(Comparator.comparingDouble(Way::chance).reversed());
            ways.add(new Way(List.of(), 1));
            while (!ways.isEmpty() && looks.size() < MOST) {
                var way = ways.remove();
                var next = way.chance() < RARE ? Optional.<Question>empty() : next(way.made());
                next.ifPresent(question -> {
                    looks.put(way.made(), question);
                    for (var outcome : question.outcomes()) {
                        var after = after(way.made(), question, outcome);
                        ways.add(new Way(after, Search.ofSingles(intended, book, after).evidence));
                    }
                });
            }
            return numbered(looks);
        }

        private Optional<Question> next(List<Made> made) {
            var verdict = Diagnosis.of(intended, book, made, ELSEWHERE);
            return verdict.contradictory() ? Optional.empty() : verdict.next().map(Diagnosis.NextQuestion::question);
        }

        private static List<Made> after(List<Made> made, Question question, Outcome outcome) {
            var after = new ArrayList<>(made);
            after.add(new Made(question, outcome));
            return List.copyOf(after);
        }

        /** Whoever goes on finds the next look as near as may be: each way is written to its end before the next. */
        private PaperSearch numbered(Map<List<Made>, Question> looks) {
            var order = new ArrayList<List<Made>>();
            number(List.of(), looks, order);
            return new PaperSearch(order.stream()
                    .map(made -> new Step(
                            looks.get(made),
                            looks.get(made).outcomes().stream()
                                    .map(o -> branch(o, after(made, looks.get(made), o), order))
                                    .toList()))
                    .toList());
        }

        private static void number(List<Made> made, Map<List<Made>, Question> looks, List<List<Made>> order) {
            var question = looks.get(made);
            if (question == null) return;
            order.add(made);
            for (var outcome : question.outcomes()) number(after(made, question, outcome), looks, order);
        }

        private Branch branch(Outcome outcome, List<Made> after, List<List<Made>> order) {
            int at = order.indexOf(after);
            if (at >= 0) return new Branch(outcome, Optional.of(at + 1), List.of(), true);
            var fitting = fitting(after);
            return fitting.isEmpty()
                    ? new Branch(outcome, Optional.empty(), likeliest(after), false)
                    : new Branch(outcome, Optional.empty(), fitting, true);
        }

        /** What explains all that was seen. Two faults at once that nobody will ever meet are not looked for. */
        private List<Cause> fitting(List<Made> made) {
            var one = Search.ofSingles(intended, book, made);
            if (one.all.stream().noneMatch(one::fits) && one.evidence < RARE) return List.of();
            return Diagnosis.of(intended, book, made, ELSEWHERE).suspects().stream()
                    .filter(s -> s.probability() >= NAMED && s.contradicts().isEmpty())
                    .filter(s -> !s.faults().contains(Fault.OWN_VANTAGE))
                    .limit(NAMED_MOST)
                    .map(s -> new Cause(s.faults()))
                    .toList();
        }

        /** Where nothing fits, what the last look speaks for by itself goes before what all of them make likely. */
        private List<Cause> likeliest(List<Made> made) {
            var search = Search.ofSingles(intended, book, made);
            var last = made.get(made.size() - 1).answer();
            var spoken = first(search, h -> book.of(h.faults.get(0)).direct().contains(last));
            // What differs from the sheet is put right, whatever else it may be.
            return spoken.isEmpty() && last.question() != Question.FIELDS
                    ? first(search, h -> h.weight >= NAMED && !BESIDE.contains(h.faults.get(0)))
                    : spoken;
        }

        private static List<Cause> first(Search search, Predicate<Search.Hypothesis> which) {
            return search.all.stream()
                    .filter(which)
                    .map(h -> new Cause(h.faults))
                    .distinct()
                    .limit(NAMED_MOST)
                    .toList();
        }
    }
}
