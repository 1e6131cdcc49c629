package app.knottag.core.practice;

import app.knottag.core.reach.Diagnosis;
import app.knottag.core.reach.Diagnosis.Made;
import app.knottag.core.reach.Diagnosis.Suspect;
import app.knottag.core.reach.Diagnosis.Verdict;
import app.knottag.core.reach.Evidence;
import app.knottag.core.reach.Fault;
import app.knottag.core.reach.NetworkState;
import app.knottag.core.reach.Outcome;
import app.knottag.core.reach.Question;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/** Goes through a case as the search for real causes would, and tells what was known when. */
final class Search {

    private Search() {}

    /**
     * What is known after some looks.
     *
     * @param minutes what they cost
     */
    record Stand(List<Made> made, Set<Question> passed, double minutes, Verdict verdict) {}

    /** Where a case stands before anybody looks. */
    static Stand opening(PracticeCase c) {
        return stand(c, c.opening(), Set.of(), 0);
    }

    private static Stand stand(PracticeCase c, List<Made> made, Set<Question> passed, double minutes) {
        return new Stand(made, passed, minutes, Diagnosis.of(c.intended(), c.book(), made, passed));
    }

    /** The same after one more look. */
    static Stand after(PracticeCase c, Stand before, Question question) {
        var made = new ArrayList<>(before.made());
        var passed = EnumSet.noneOf(Question.class);
        passed.addAll(before.passed());
        var seen = c.seen(question);
        if (seen.isPresent()) made.add(look(question, seen.get()));
        else passed.add(question);
        return stand(c, made, passed, before.minutes() + question.minutes());
    }

    private static Made look(Question question, Outcome outcome) {
        return new Made(question, outcome, question.by() == Question.By.MACHINE ? Evidence.TOOL : Evidence.SEEN);
    }

    /** A search to its end. */
    record Best(List<Question> path, Stand end) {}

    /**
     * The best search: always the look that gains most for a minute, until nothing more can be told. What was said on the phone is
     * believed or looked at again, whichever ends sooner at what is wrong.
     */
    static Best best(PracticeCase c) {
        var believing = toTheEnd(c, opening(c));
        if (c.told().isEmpty()) return believing;
        var doubting = toTheEnd(c, stand(c, List.of(), Set.of(), 0));
        boolean doubts = !ends(c, believing.end())
                || ends(c, doubting.end())
                        && doubting.end().minutes() < believing.end().minutes();
        return doubts ? doubting : believing;
    }

    private static Best toTheEnd(PracticeCase c, Stand begin) {
        var path = new ArrayList<Question>();
        var stand = begin;
        for (var next = stand.verdict().next();
                next.isPresent();
                next = stand.verdict().next()) {
            path.add(next.get().question());
            stand = after(c, stand, next.get().question());
        }
        return new Best(path, stand);
    }

    /** Whether a search has ended at what is wrong, alone or among causes that nothing seen so far tells from it. */
    static boolean ends(PracticeCase c, Stand stand) {
        return stand.verdict().next().isEmpty()
                && sameGroup(
                        stand, c.faults(), stand.verdict().suspects().get(0).faults());
    }

    /** Whether nothing that was seen so far tells two causes apart. */
    static boolean sameGroup(Stand stand, List<Fault> one, List<Fault> other) {
        var a = find(stand, one);
        var b = find(stand, other);
        return a.isPresent() && b.isPresent() && a.get().group() == b.get().group();
    }

    /** How sure a cause is, together with those that no look tells from it: any look, or any that is still worth its minutes. */
    static double sure(PracticeCase c, Stand stand, List<Fault> named) {
        var it = find(stand, named);
        if (it.isEmpty()) return 0;
        boolean over = stand.verdict().next().isEmpty();
        return stand.verdict().suspects().stream()
                .filter(s -> s.group() == it.get().group())
                .filter(s -> over || s.probability() > COUNTS && alike(c, s.faults(), named))
                .mapToDouble(Suspect::probability)
                .sum();
    }

    /** A cause of less than this share makes no other one surer. */
    private static final double COUNTS = 0.01;

    static Optional<Suspect> find(Stand stand, List<Fault> named) {
        return stand.verdict().suspects().stream()
                .filter(s -> new HashSet<>(s.faults()).equals(new HashSet<>(named)))
                .findFirst();
    }

    /** Whether no look that can be made here shows any difference between two things that may be wrong. */
    static boolean alike(PracticeCase c, List<Fault> one, List<Fault> other) {
        if (new HashSet<>(one).equals(new HashSet<>(other))) return true;
        var a = state(c, one);
        var b = state(c, other);
        return c.questions().stream().allMatch(q -> a.observe(q) == b.observe(q));
    }

    private static NetworkState state(PracticeCase c, List<Fault> faults) {
        var state = c.intended();
        for (var fault : faults) state = fault.apply(state);
        return state;
    }
}
