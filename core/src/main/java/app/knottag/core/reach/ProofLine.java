package app.knottag.core.reach;

import app.knottag.core.knot.Knot;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/**
 * The whole line of an endpoint's confirmation: what machines measured and people saw, weighed by what it belongs to, by its
 * source and its age.
 */
public final class ProofLine {

    /** These a person must have seen before the sign-off. */
    private static final Set<Check> NEEDED = Set.of(Check.REAL_JOB, Check.REFUSED);

    private final List<Rung> rungs;

    private ProofLine(List<Rung> rungs) {
        this.rungs = List.copyOf(rungs);
    }

    /** A machine's results with what they belong to. */
    public record Round(List<CheckResult> results, Bond bond, String by) {}

    /**
     * What a person saw.
     *
     * @param outcome one of the check's outcomes
     * @param words what that outcome is called
     */
    public record Witness(
            Check check, String outcome, String words, Evidence evidence, Instant at, String by, Bond bond) {

        boolean holds() {
            return outcome.equals(check.outcomes().get(0));
        }
    }

    /**
     * Draws the line.
     *
     * @param checks the checks that this endpoint has
     * @param round the latest round, or empty
     * @param witnesses everything that people saw; the latest of a check counts
     * @param now what the endpoint is now
     */
    public static ProofLine of(
            List<Check> checks, Optional<Round> round, List<Witness> witnesses, Bond now, Instant clock) {
        var rungs = new ArrayList<Rung>();
        boolean below = true;
        for (var check : checks) {
            var rung = check.byMachine() ? machine(check, round, now, clock) : person(check, witnesses, now, clock);
            if (rung.knot() == Knot.TIGHT && !below) rung = rung.as(Knot.HALF_DRAWN);
            below &= rung.knot() == Knot.TIGHT || rung.knot() == Knot.LEFT_OUT;
            rungs.add(rung);
        }
        return new ProofLine(rungs);
    }

    private static Rung machine(Check check, Optional<Round> round, Bond now, Instant clock) {
        var result = round.flatMap(
                r -> r.results().stream().filter(c -> c.check() == check).findFirst());
        if (result.isEmpty()) return Rung.open(check, "Not tried yet.", "");
        var r = result.get();
        var loose = round.get().bond().loosens(check, now);
        if (loose.isPresent() && r.knot() != Knot.OPEN)
            return Rung.open(check, loose.get() + " Check again.", loose.get());
        return new Rung(
                check,
                r.knot(),
                r.seen(),
                r.remedy(),
                "",
                Evidence.TOOL,
                r.knot() == Knot.TIGHT ? Evidence.TOOL.strength(r.at(), clock) : 0,
                r.vantage(),
                r.at(),
                round.get().by(),
                r.millis());
    }

    private static Rung person(Check check, List<Witness> witnesses, Bond now, Instant clock) {
        var latest = witnesses.stream().filter(w -> w.check() == check).max(Comparator.comparing(Witness::at));
        if (latest.isEmpty()) return Rung.open(check, "Nobody has looked yet.", "");
        var w = latest.get();
        var loose = w.bond().loosens(check, now);
        if (loose.isPresent()) return Rung.open(check, loose.get() + " Look again.", loose.get());
        return new Rung(
                check,
                w.holds() ? Knot.TIGHT : Knot.FRAYED,
                w.words() + ".",
                "",
                "",
                w.evidence(),
                w.holds() ? w.evidence().strength(w.at(), clock) : 0,
                "",
                w.at(),
                w.by(),
                0);
    }

    public List<Rung> rungs() {
        return rungs;
    }

    /** Whether some check was made and does not hold. */
    public boolean failed() {
        return rungs.stream().anyMatch(r -> r.knot() == Knot.FRAYED);
    }

    /** Returns what is missing before the person on site can sign off, in a sentence, or empty. */
    public Optional<String> missing() {
        var own = rungs.stream().filter(r -> r.check() != Check.OFFICE).toList();
        var frayed = own.stream().filter(r -> r.knot() == Knot.FRAYED).findFirst();
        if (frayed.isPresent()) return Optional.of("“" + frayed.get().check().title() + "” does not hold.");
        return own.stream()
                .filter(r -> r.knot() == Knot.OPEN && (r.check().byMachine() || NEEDED.contains(r.check())))
                .findFirst()
                .map(r -> "“" + r.check().title() + "” was not " + (r.loosened().isEmpty() ? "" : "yet ")
                        + (r.check().byMachine() ? "checked" : "seen")
                        + (r.loosened().isEmpty() ? " yet." : " again. " + r.loosened()));
    }

    /** Returns the grade of what the person on site can prove; what the office says stands beside it. */
    public Grade grade() {
        if (missing().isPresent()) return Grade.NONE;
        var own = rungs.stream()
                .filter(r -> r.check() != Check.OFFICE && r.knot() != Knot.LEFT_OUT)
                .toList();
        int job = own.stream()
                .filter(r -> NEEDED.contains(r.check()))
                .mapToInt(Rung::strength)
                .min()
                .orElse(0);
        int seen = Evidence.SEEN.strength(Instant.EPOCH, Instant.EPOCH);
        long weak = own.stream().filter(r -> r.strength() < seen).count();
        if (weak == 0) return Grade.FIRM;
        return job >= seen && own.stream().filter(r -> r.check().byMachine()).allMatch(r -> r.strength() >= seen)
                ? Grade.FAIR
                : Grade.THIN;
    }

    /**
     * Compares what the person on site and the office found.
     *
     * @return what it means, or empty while the office has not looked
     */
    public Optional<String> apart() {
        var office = rungs.stream()
                .filter(r -> r.check() == Check.OFFICE)
                .findFirst()
                .filter(r -> r.knot() != Knot.OPEN);
        if (office.isEmpty()) return Optional.empty();
        boolean there = office.get().strength() > 0;
        boolean here = missing().isEmpty();
        if (there && here) return Optional.of("Here and at the office it holds.");
        if (here)
            return Optional.of(
                    "It works here, and the office does not reach it: the way between, or an address that is wrong there.");
        return Optional.of(
                there
                        ? "The office reaches something that does not hold here: compare the MAC, another unit may answer there."
                        : "Neither here nor at the office: settle it here first.");
    }
}
