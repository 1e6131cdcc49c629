package app.knottag.core.runbook;

import app.knottag.core.kind.GateType;
import app.knottag.core.kind.Kind;
import app.knottag.core.kind.Kind.Gate;
import app.knottag.core.kind.Kind.MenuField;
import app.knottag.core.kind.Kind.Step;
import app.knottag.core.kind.KindQuestion;
import app.knottag.core.plan.Method;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;

/**
 * The steps that apply to one endpoint, worked out from its kind, who keeps its address, its registries and what was
 * answered about it; the others with the reason why they were left out.
 *
 * @param kind the kind with only the steps and menu fields that apply
 * @param leftOut steps that do not apply
 */
public record Recipe(Kind kind, List<LeftOut> leftOut) {

    private static final String LEARN = "learn";

    /** A step that does not apply, and why. */
    public record LeftOut(String title, String because) {}

    /** Works out what applies. */
    public static Recipe of(Kind kind, EndpointContext around) {
        var answers = answers(kind, around);
        var out = new LinkedHashMap<String, String>();
        for (var step : kind.steps()) {
            if (!fits(step.when(), answers)) out.put(step.key(), because(kind, step, answers));
            else if (network(step) && !typing(around.method()))
                out.put(step.key(), "Its address is kept by the DHCP server: nothing is typed on it.");
        }
        var steps = new ArrayList<Step>();
        for (var step : kind.steps())
            if (!out.containsKey(step.key())) steps.add(fitted(step, out.keySet(), kind, around));
        if (around.method() == Method.LEARNED) learn(steps);
        var entered = steps.stream()
                .filter(s -> s.gate().type().typed())
                .map(s -> s.gate().part())
                .collect(Collectors.toSet());
        var menu = kind.menu().stream()
                .filter(f -> fits(f.when(), answers))
                .filter(f -> f.part().isEmpty() || entered.contains(f.part()))
                .toList();
        return new Recipe(
                kind.with(steps, around.method() == Method.LEARNED ? onlyAddress(menu) : menu),
                out.entrySet().stream()
                        .map(e -> new LeftOut(kind.step(e.getKey()).title(), e.getValue()))
                        .toList());
    }

    private static Map<String, String> answers(Kind kind, EndpointContext around) {
        var answers = new LinkedHashMap<String, String>();
        for (KindQuestion q : kind.questions())
            answers.put(q.key(), around.answers().getOrDefault(q.key(), q.usual()));
        answers.put("method", around.method().name());
        answers.put("partner", around.partner().isPresent() ? "yes" : "no");
        boolean usual = around.servicePort()
                .filter(p -> p != kind.service().defaultPort())
                .isEmpty();
        answers.put("port", usual ? "usual" : "own");
        return answers;
    }

    private static boolean fits(Map<String, List<String>> when, Map<String, String> answers) {
        return when.entrySet().stream().allMatch(e -> e.getValue().contains(answers.get(e.getKey())));
    }

    private static String because(Kind kind, Step step, Map<String, String> answers) {
        if (!step.otherwise().isEmpty()) return step.otherwise();
        return step.when().entrySet().stream()
                .filter(e -> !e.getValue().contains(answers.get(e.getKey())))
                .map(e -> kind.questions().stream()
                        .filter(q -> q.key().equals(e.getKey()))
                        .findFirst()
                        .map(q -> q.ask() + " " + q.label(answers.get(q.key())) + ".")
                        .orElse("Not with " + e.getKey() + " " + answers.get(e.getKey()) + "."))
                .collect(Collectors.joining(" "));
    }

    private static boolean typing(Method method) {
        return method == Method.FIXED || method == Method.LEARNED;
    }

    /** Whether a step enters the network menu or reads it back; other menus are entered whoever keeps the address. */
    private static boolean network(Step step) {
        return step.gate().type().typed() && step.gate().part().isEmpty();
    }

    /** What rested on a step that is left out rests on what that one rested on. */
    private static Step fitted(Step step, Set<String> out, Kind kind, EndpointContext around) {
        var after = new LinkedHashMap<String, String>();
        step.after().forEach((before, why) -> behind(before, why, out, kind, after));
        var hints = new ArrayList<>(step.hint());
        if (step.gate().type() == GateType.ADDRESS_SHOWN && !around.registries().isEmpty())
            hints.add("It joins only with this restart: it is registered at " + String.join(", ", around.registries())
                    + ".");
        if (step.gate().type() == GateType.ADDRESS_SHOWN && !typing(around.method()))
            hints.add("Leave its network menu on automatic; the DHCP server gives it the planned address.");
        return step.with(hints, step.caution(), after, step.gate().without(out));
    }

    private static void behind(String before, String why, Set<String> out, Kind kind, Map<String, String> after) {
        if (!out.contains(before)) after.put(before, why);
        else kind.step(before).after().forEach((earlier, reason) -> behind(earlier, reason, out, kind, after));
    }

    /** What the device was given is read before anything is typed, since typing ends it. */
    private static void learn(List<Step> steps) {
        var first = steps.stream().filter(Recipe::network).findFirst();
        if (first.isEmpty()) return;
        int at = steps.indexOf(first.get());
        var typing = first.get();
        steps.add(
                at,
                new Step(
                        LEARN,
                        "Read what it was given",
                        List.of("Switch automatic on, restart its network if it asks, and open the same menu."),
                        "Note it down here before automatic goes off: switching it on again wipes what was typed.",
                        typing.after(),
                        Optional.empty(),
                        new Gate(GateType.LEARNED, "What does it show?", List.of())));
        var after = new LinkedHashMap<>(typing.after());
        after.put(LEARN, "once automatic is off, nobody can see what it was given");
        var hints = new ArrayList<>(typing.hint());
        hints.add("Switch automatic off and change only what differs from the plan: the address, seldom a resolver.");
        steps.set(
                at + 1,
                new Step(
                        typing.key(),
                        typing.title(),
                        hints,
                        "Switching automatic on again wipes what was typed. " + typing.caution(),
                        after,
                        typing.waiting(),
                        typing.gate()));
    }

    private static List<MenuField> onlyAddress(List<MenuField> menu) {
        var stays = Set.of(Kind.Field.MASK, Kind.Field.GATEWAY);
        return menu.stream()
                .map(f -> stays.contains(f.field()) && f.part().isEmpty() ? f.alone() : f)
                .toList();
    }

    /** Returns the keys of the steps that must be done again after a reset, in the order of the runbook. */
    public static List<String> redo(Kind whole, Kind applying) {
        var redo = new HashSet<>(whole.reset().map(r -> r.redo()).orElse(List.of()));
        return applying.steps().stream()
                .filter(s -> redo.contains(s.key())
                        || s.key().equals(LEARN) && redo.stream().anyMatch(k -> network(whole.step(k)))
                        || s.gate().type() == GateType.CONFIRMED)
                .map(Step::key)
                .toList();
    }
}
