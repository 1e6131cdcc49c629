package app.knottag.core.kind;

import app.knottag.core.kind.Kind.Gate;
import app.knottag.core.kind.Kind.Option;
import app.knottag.core.kind.Kind.Step;
import app.knottag.core.kind.Kind.Wait;
import app.knottag.core.worksheet.Worksheets;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.stream.Collectors;

/**
 * A kind written out for people: what is done in which order, what must be seen, how long it takes, what to beware of.
 *
 * @param before what must be at hand or known before it begins
 * @param menu the fields of its network menu and of further ones, in their order
 * @param lights what its lights, icons and beeps mean
 */
public record KindText(List<String> before, List<KindTextStep> steps, List<String> menu, List<String> lights) {

    /**
     * One step.
     *
     * @param when whether it applies to every one, or empty
     * @param gate what must be seen before it is done
     * @param takes how long it takes, or empty when it is attended
     * @param after what must come before, each with what breaks otherwise
     */
    public record KindTextStep(
            String title,
            String when,
            List<String> hint,
            String caution,
            List<String> after,
            String takes,
            String gate,
            String recovery,
            List<String> waysOut) {}

    /** Writes a kind out. */
    public static KindText of(Kind kind) {
        var before = new ArrayList<String>();
        for (var label : kind.labels())
            before.add(capital(name(label.fact().name())) + ": " + label.where()
                    + (label.hiddenAfter().isEmpty()
                            ? ""
                            : "; out of sight after “"
                                    + kind.step(label.hiddenAfter()).title() + "”"));
        for (var q : kind.questions()) before.add(q.ask());
        return new KindText(
                before,
                kind.steps().stream().map(s -> line(kind, s)).toList(),
                kind.menu().stream()
                        .map(f -> (f.part().isEmpty() ? "" : capital(f.part().replace('-', ' ')) + ", ")
                                + f.label() + ": "
                                + (f.leaveAlone() ? "leave it" : f.text().isEmpty() ? "from the plan" : f.text()))
                        .toList(),
                kind.signals().stream()
                        .map(s -> s.part() + " " + s.words() + ": " + s.means())
                        .toList());
    }

    private static KindTextStep line(Kind kind, Step s) {
        return new KindTextStep(
                s.title(),
                when(kind, s.when()) + (s.needs().isEmpty() ? "" : " For a " + s.needs() + "."),
                s.hint(),
                s.caution(),
                s.after().entrySet().stream()
                        .map(e -> "After “" + kind.step(e.getKey()).title() + "”: " + e.getValue())
                        .toList(),
                s.waiting().map(KindText::wait).orElse(""),
                gate(s.gate()),
                s.recovery(),
                s.waysOut());
    }

    private static String when(Kind kind, Map<String, List<String>> when) {
        if (when.isEmpty()) return "";
        return when.entrySet().stream()
                .map(e -> switch (e.getKey()) {
                    case "method" ->
                        "its address is "
                                + either(e.getValue().stream()
                                        .map(KindText::name)
                                        .toList());
                    case "port" ->
                        e.getValue().contains("own")
                                ? "it listens on a port of its own"
                                : "it listens on its usual port";
                    case "partner" -> e.getValue().contains("yes") ? "it has a partner" : "it has no partner";
                    default ->
                        "“" + asked(kind, e.getKey()) + "” is answered "
                                + either(answers(kind, e.getKey(), e.getValue()));
                })
                .collect(Collectors.joining(" and ", "Only when ", "."));
    }

    private static String asked(Kind kind, String key) {
        return kind.questions().stream()
                .filter(q -> q.key().equals(key))
                .map(KindQuestion::ask)
                .findFirst()
                .orElse(key);
    }

    private static List<String> answers(Kind kind, String key, List<String> values) {
        return kind.questions().stream()
                .filter(q -> q.key().equals(key))
                .flatMap(q -> q.options().stream())
                .filter(o -> values.contains(o.value()))
                .map(o -> "“" + o.label() + "”")
                .toList();
    }

    private static String either(List<String> values) {
        return String.join(" or ", values);
    }

    private static String wait(Wait w) {
        return "Usually " + w.usual() + " min, at least " + w.shortest() + ", failed after " + w.longest() + "."
                + (w.lookFor() == null || w.lookFor().isEmpty() ? "" : " " + w.lookFor())
                + (w.restarts().isEmpty()
                        ? ""
                        : " It restarts "
                                + (w.restarts().get(0).equals(w.restarts().get(1))
                                        ? w.restarts().get(0) + " times"
                                        : w.restarts().get(0) + " to "
                                                + w.restarts().get(1) + " times")
                                + " by itself.");
    }

    private static String gate(Gate g) {
        String what = g.type()
                .holds()
                .replace(
                        "{options}",
                        g.options().stream()
                                .filter(Option::holds)
                                .map(Option::label)
                                .collect(Collectors.joining(", or: ")))
                .replace("{first}", g.compare().isEmpty() ? "" : g.compare().get(0))
                .replace("{second}", g.compare().size() < 2 ? "" : g.compare().get(1))
                .replace(
                        "{sheet}",
                        Worksheets.find(g.sheet()).map(w -> w.title()).orElse(""))
                .replace("{part}", g.part())
                .replace("{least}", "" + g.least());
        return g.ask().isEmpty() ? what : what + " (Asked: " + g.ask() + ")";
    }

    private static String name(String constant) {
        return constant.toUpperCase(Locale.ROOT).equals(constant) && !constant.equals("MAC")
                ? constant.toLowerCase(Locale.ROOT).replace('_', ' ')
                : constant;
    }

    private static String capital(String words) {
        return words.substring(0, 1).toUpperCase(Locale.ROOT) + words.substring(1);
    }
}
