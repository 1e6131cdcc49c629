package app.knottag.core.kind;

import app.knottag.core.kind.Kind.Step;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;

/**
 * Works out the order of steps from what must come before what. The order in which a kind lists its steps is the usual
 * one and is kept wherever the constraints leave a choice.
 */
public final class StepOrder {

    private StepOrder() {}

    /**
     * Returns the steps in an order that keeps every constraint.
     *
     * @throws IllegalArgumentException if steps wait for one another; the message names them
     */
    public static List<Step> of(List<Step> listed) {
        var ordered = new ArrayList<Step>();
        var done = new HashSet<String>();
        while (ordered.size() < listed.size()) {
            var next = listed.stream()
                    .filter(s -> !done.contains(s.key())
                            && done.containsAll(s.after().keySet()))
                    .findFirst()
                    .orElseThrow(() -> new IllegalArgumentException(waitsFor(loop(listed, done))));
            done.add(next.key());
            ordered.add(next);
        }
        return ordered;
    }

    static String waitsFor(List<String> loop) {
        return "steps wait for one another: " + String.join(" after ", loop);
    }

    /** Returns the keys that wait for one another, the first again at the end, or nothing when none do. */
    static List<String> loopIn(List<Step> listed) {
        var done = new HashSet<String>();
        boolean more = true;
        while (more) {
            more = listed.stream()
                    .filter(s -> !done.contains(s.key())
                            && done.containsAll(s.after().keySet()))
                    .map(Step::key)
                    .toList()
                    .stream()
                    .anyMatch(done::add);
        }
        return done.size() == listed.size() ? List.of() : loop(listed, done);
    }

    /** Follows the constraints backwards until a key comes again. */
    private static List<String> loop(List<Step> listed, Set<String> done) {
        var way = new LinkedHashSet<String>();
        String at = listed.stream()
                .map(Step::key)
                .filter(k -> !done.contains(k))
                .findFirst()
                .orElseThrow();
        while (way.add(at)) {
            String here = at;
            at = listed.stream()
                    .filter(s -> s.key().equals(here))
                    .flatMap(s -> s.after().keySet().stream())
                    .filter(k -> !done.contains(k))
                    .findFirst()
                    .orElseThrow();
        }
        var loop = new ArrayList<>(way).subList(new ArrayList<>(way).indexOf(at), way.size());
        var closed = new ArrayList<>(loop);
        closed.add(at);
        return closed;
    }

    /** Returns what breaks when a step is done although others come later than they should, one sentence each. */
    public static List<String> breaks(Kind kind, String key, Set<String> done) {
        return kind.step(key).after().entrySet().stream()
                .filter(e -> !done.contains(e.getKey()))
                .map(e -> kind.step(e.getKey()).title() + " comes first: " + e.getValue())
                .toList();
    }
}
