package app.knottag.core.kind;

import app.knottag.core.kind.Kind.Label;
import app.knottag.core.kind.Kind.MenuField;
import app.knottag.core.kind.Kind.Step;
import app.knottag.core.kind.KindFileException.Mistake;
import app.knottag.core.worksheet.Worksheets;
import com.google.re2j.Pattern;
import com.google.re2j.PatternSyntaxException;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Collections;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/** Whether the parts of a kind go together: every name that one part uses must stand in another. */
final class KindCheck {

    private static final Map<String, Set<String>> BUILT_IN = Map.of(
            "method", Set.of("FIXED", "RESERVED", "LEARNED", "AUTOMATIC"),
            "partner", Set.of("yes", "no"),
            "port", Set.of("usual", "own"));
    private static final int LONGEST_PATTERN = 80;
    private final List<Mistake> mistakes = new ArrayList<>();
    private final Set<String> counts = new HashSet<>();

    private KindCheck() {}

    /** Refuses what is missing; takes names and values by turns. */
    static void needed(Object... namesAndValues) {
        for (int i = 0; i < namesAndValues.length; i += 2)
            if (namesAndValues[i + 1] == null)
                throw new IllegalArgumentException("“" + namesAndValues[i] + "” is missing here");
    }

    /** What a file leaves out is an empty text. */
    static String orEmpty(@Nullable String text) {
        return Objects.requireNonNullElse(text, "");
    }

    /** What a file leaves out is an empty list. */
    static <T> List<T> orEmpty(@Nullable List<T> list) {
        return List.copyOf(Objects.requireNonNullElse(list, List.of()));
    }

    /** What a file leaves out is an empty map; what it names stays in its order. */
    static <V> Map<String, V> orEmpty(@Nullable Map<String, V> map) {
        return Collections.unmodifiableMap(new LinkedHashMap<>(Objects.requireNonNullElse(map, Map.of())));
    }

    /** Returns what is called by one of these names, in its order. */
    static <V> Map<String, V> only(Map<String, V> map, Collection<String> names) {
        var left = new LinkedHashMap<>(map);
        left.keySet().retainAll(names);
        return left;
    }

    /** What a file leaves out is absent. */
    static <T> Optional<T> orEmpty(@Nullable Optional<T> part) {
        return Objects.requireNonNullElse(part, Optional.empty());
    }

    static void refuse(
            List<Step> steps,
            List<Label> labels,
            List<KindQuestion> questions,
            List<Signal> signals,
            List<Opening> openings,
            Optional<ResetRule> reset,
            String serialPattern,
            List<MenuField> menu,
            Map<String, String> menus) {
        var check = new KindCheck();
        check.serial(serialPattern);
        for (int i = 0; i < menu.size(); i++)
            check.when("menu/" + i + "/when", menu.get(i).when(), questions);
        check.menus(menu, menus, steps);
        check.steps(steps);
        for (int i = 0; i < steps.size(); i++) check.step("steps/" + i, steps.get(i), questions, signals, openings);
        var keys = steps.stream().map(Step::key).collect(Collectors.toSet());
        for (int i = 0; i < labels.size(); i++) {
            String after = labels.get(i).hiddenAfter();
            if (!after.isEmpty() && !keys.contains(after))
                check.add("labels/" + i, "a label is hidden after “" + after + "”, which is no step");
        }
        reset.ifPresent(r -> r.redo().stream()
                .filter(k -> !keys.contains(k))
                .forEach(k -> check.add("reset/redo", "a reset has “" + k + "” done again, which is no step")));
        if (!check.mistakes.isEmpty()) throw new KindFileException(check.mistakes);
    }

    /** Refuses an amount of a step that there is not, and one out of its range. */
    static void amounts(String name, Map<String, Integer> amounts, int least, int most, List<Step> steps) {
        var check = new KindCheck();
        amounts.forEach((key, amount) -> {
            if (steps.stream().noneMatch(s -> s.key().equals(key)))
                check.add(name + "/" + key, name + " names “" + key + "”, which is no step");
            if (Optional.ofNullable(amount).filter(a -> a >= least && a <= most).isEmpty())
                check.add(name + "/" + key, name + " must be " + least + ".." + most + ", was " + amount);
        });
        if (!check.mistakes.isEmpty()) throw new KindFileException(check.mistakes);
    }

    private void add(String path, String message) {
        mistakes.add(new Mistake(path, message));
    }

    private void serial(String pattern) {
        if (pattern.length() > LONGEST_PATTERN)
            add("serialPattern", "serialPattern takes at most " + LONGEST_PATTERN + " characters");
        else
            try {
                Pattern.compile(pattern);
            } catch (PatternSyntaxException e) {
                add(
                        "serialPattern",
                        "serialPattern cannot be read: " + e.getDescription() + " in “" + e.getPattern() + "”");
            }
    }

    /** Every further menu is explained, has fields, and a step that enters or reads them. */
    private void menus(List<MenuField> menu, Map<String, String> menus, List<Step> steps) {
        for (int i = 0; i < menu.size(); i++)
            if (!known(menus, menu.get(i).part()))
                add("menu/" + i, "there is no menu “" + menu.get(i).part() + "”: say under menus how to get there");
        for (int i = 0; i < steps.size(); i++) {
            var gate = steps.get(i).gate();
            if (gate.type().typed() && !known(menus, gate.part()))
                add("steps/" + i + "/gate", "there is no menu “" + gate.part() + "”: say under menus how to get there");
        }
        for (String name : menus.keySet())
            if (menu.stream().noneMatch(f -> f.part().equals(name))
                    || steps.stream()
                            .noneMatch(s ->
                                    s.gate().type().typed() && s.gate().part().equals(name)))
                add(
                        "menus/" + name,
                        "the menu “" + name + "” needs fields, and a step that enters them or reads them back");
    }

    private static boolean known(Map<String, String> menus, String part) {
        return part.isEmpty() || menus.containsKey(part);
    }

    private void steps(List<Step> steps) {
        steps.stream()
                .filter(s -> s.gate().type() == GateType.COUNT)
                .map(Step::key)
                .forEach(counts::add);
        var seen = new HashSet<String>();
        for (int i = 0; i < steps.size(); i++)
            if (!seen.add(steps.get(i).key()))
                add(
                        "steps/" + i + "/key",
                        "two steps are called “" + steps.get(i).key() + "”");
        boolean dangling = false;
        for (int i = 0; i < steps.size(); i++)
            for (String before : steps.get(i).after().keySet())
                if (!seen.contains(before)) {
                    dangling = true;
                    add(
                            "steps/" + i + "/after",
                            "step " + steps.get(i).key() + " waits for “" + before + "”, which is no step");
                }
        if (!dangling && seen.size() == steps.size()) {
            var loop = StepOrder.loopIn(steps);
            if (!loop.isEmpty()) {
                int at = steps.stream().map(Step::key).toList().indexOf(loop.get(0));
                add("steps/" + at + "/after", StepOrder.waitsFor(loop));
            }
        }
        for (var needed : Map.of(
                        GateType.FACTS, "no step reads MAC and serial: one needs the gate FACTS",
                        GateType.CONFIRMED, "no step proves it: the last one needs the gate CONFIRMED")
                .entrySet())
            if (steps.stream().filter(s -> s.gate().type() == needed.getKey()).count() != 1)
                add("steps", needed.getValue() + ", and only one");
    }

    private void step(
            String path, Step step, List<KindQuestion> questions, List<Signal> signals, List<Opening> openings) {
        when(path + "/when", step.when(), questions);
        if (!step.when().isEmpty()
                && (step.gate().type() == GateType.FACTS || step.gate().type() == GateType.CONFIRMED))
            add(path + "/when", "reading the label and the proof apply to every one: leave when out");
        if (step.gate().type() == GateType.SIGNAL
                && signals.stream().noneMatch(s -> s.part().equals(step.gate().part())))
            add(
                    path + "/gate",
                    "there are no signals of the part “" + step.gate().part() + "”");
        if (step.gate().type() == GateType.WORKSHEET) sheet(path + "/gate", step);
        if (step.gate().type() == GateType.OPENINGS && openings.isEmpty())
            add(path + "/gate", "there are no openings to close");
    }

    private void sheet(String path, Step step) {
        var gate = step.gate();
        var sheet = Worksheets.find(gate.sheet());
        if (sheet.isEmpty()) {
            add(
                    path,
                    "there is no worksheet “" + gate.sheet() + "”; there are "
                            + Worksheets.all().stream().map(w -> w.key()).collect(Collectors.joining(", ")));
            return;
        }
        Stream.concat(gate.figures().keySet().stream(), gate.counted().keySet().stream())
                .filter(f -> sheet.get().field(f).isEmpty())
                .forEach(f -> add(path, "the worksheet “" + gate.sheet() + "” has no field “" + f + "”"));
        gate.counted().values().stream()
                .filter(k -> !counts.contains(k) || !step.after().containsKey(k))
                .forEach(k -> add(path, "“" + k + "” is no step before this one that counts"));
    }

    private void when(String path, Map<String, List<String>> when, List<KindQuestion> questions) {
        when.forEach((key, values) -> {
            var answers = BUILT_IN.containsKey(key)
                    ? BUILT_IN.get(key)
                    : questions.stream()
                            .filter(q -> q.key().equals(key))
                            .flatMap(q -> q.options().stream())
                            .map(KindQuestion.Answer::value)
                            .collect(Collectors.toSet());
            if (answers.isEmpty()) add(path, "nothing asks for “" + key + "”: put it under questions");
            else
                values.stream()
                        .filter(v -> !answers.contains(v))
                        .forEach(v -> add(path, "“" + v + "” is no answer to “" + key + "”"));
        });
    }
}
