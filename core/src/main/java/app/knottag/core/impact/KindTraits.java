package app.knottag.core.impact;

import app.knottag.core.impact.ImpactSite.Upkeep;
import app.knottag.core.kind.GateType;
import app.knottag.core.kind.Kind;
import app.knottag.core.kind.Kind.Step;
import java.util.EnumSet;
import java.util.Set;
import java.util.function.Predicate;
import java.util.stream.Stream;

/** What the kind of a device says of it, as far as a change can be felt there. */
public final class KindTraits {

    private static final Set<GateType> FIGURES = EnumSet.of(GateType.TYPE_SHEET, GateType.LEARNED);
    private static final Set<GateType> TYPING =
            EnumSet.of(GateType.TYPE_SHEET, GateType.READ_BACK, GateType.ADDRESS_SHOWN);

    private KindTraits() {}

    private static Stream<Step> steps(Kind kind, Predicate<Step> which) {
        return kind.steps().stream().filter(which);
    }

    /** Returns what it takes to set something on it and to prove it. */
    public static Upkeep upkeep(Kind kind) {
        int typing = steps(
                        kind,
                        s -> TYPING.contains(s.gate().type()) && s.gate().part().isEmpty())
                .mapToInt(kind::minutes)
                .sum();
        int restart = steps(kind, s -> s.gate().type() == GateType.ADDRESS_SHOWN)
                .flatMap(s -> s.waiting().stream())
                .mapToInt(Kind.Wait::usual)
                .max()
                .orElse(0);
        int proving = steps(kind, s -> s.gate().type() == GateType.CONFIRMED)
                .mapToInt(kind::minutes)
                .sum();
        return new Upkeep(
                Math.max(1, typing),
                restart,
                Math.max(1, proving),
                kind.service().job());
    }

    /**
     * Whether its figures have been given to it yet.
     *
     * @param passed keys of its steps that are done
     * @param proved whether it was ever signed off
     */
    public static boolean keyed(Kind kind, Set<String> passed, boolean proved) {
        if (proved) return true;
        var giving = steps(kind, s -> FIGURES.contains(s.gate().type()))
                .map(Step::key)
                .toList();
        return giving.isEmpty() ? !passed.isEmpty() : giving.stream().anyMatch(passed::contains);
    }

    /** Says who calls it of whom no partner is told, such as workstations; empty when nobody does. */
    public static String callers(Kind kind) {
        return kind.reached() && kind.service().partnerAsk().isEmpty() ? kind.fixedBecause() : "";
    }

    /** Whether its clock counts. */
    public static boolean clock(Kind kind) {
        return steps(kind, s -> s.gate().type() == GateType.CLOCK).findAny().isPresent();
    }

    /** Whether it has a worksheet of that key to fill in, such as one on its mail. */
    public static boolean sheet(Kind kind, String key) {
        return steps(kind, s -> s.gate().sheet().equals(key)).findAny().isPresent();
    }
}
