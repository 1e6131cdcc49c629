package app.knottag.core.reach;

import app.knottag.core.status.Status;
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
public final class Verification {

    /** These a person must have seen before the sign-off. */
    private static final Set<Check> NEEDED = Set.of(Check.REAL_JOB, Check.REFUSED);

    private final List<CheckStatus> checks;

    private Verification(List<CheckStatus> checks) {
        this.checks = List.copyOf(checks);
    }

    /** A machine's results with what they belong to. */
    public record CheckRun(List<CheckResult> results, ProofBasis basis, String by) {}

    /**
     * What a person saw.
     *
     * @param outcome one of the check's outcomes
     * @param words what that outcome is called
     */
    public record Observation(
            Check check, Outcome outcome, String words, Evidence evidence, Instant at, String by, ProofBasis basis) {

        boolean holds() {
            return outcome == check.outcomes().get(0);
        }
    }

    /**
     * Draws the line.
     *
     * @param asked the checks that this endpoint has
     * @param run the latest run, or empty
     * @param observations everything that people saw; the latest of a check counts
     * @param now what the endpoint is now
     */
    public static Verification of(
            List<Check> asked, Optional<CheckRun> run, List<Observation> observations, ProofBasis now, Instant clock) {
        var checks = new ArrayList<CheckStatus>();
        boolean below = true;
        for (var check : asked) {
            var status = check.byMachine() ? machine(check, run, now, clock) : person(check, observations, now, clock);
            if (status.status() == Status.PASSED && !below) status = status.as(Status.ACTIVE);
            below &= status.status() == Status.PASSED || status.status() == Status.SKIPPED;
            checks.add(status);
        }
        return new Verification(checks);
    }

    private static CheckStatus machine(Check check, Optional<CheckRun> run, ProofBasis now, Instant clock) {
        var result = run.flatMap(
                r -> r.results().stream().filter(c -> c.check() == check).findFirst());
        if (result.isEmpty()) return CheckStatus.open(check, "Not tried yet.", "");
        var r = result.get();
        var loose = run.get().basis().loosens(check, now);
        if (loose.isPresent() && r.status() != Status.PENDING)
            return CheckStatus.open(check, loose.get() + " Check again.", loose.get());
        return new CheckStatus(
                check,
                r.status(),
                r.seen(),
                r.remedy(),
                "",
                Evidence.TOOL,
                r.status() == Status.PASSED ? Evidence.TOOL.strength(r.at(), clock) : 0,
                r.vantage(),
                r.at(),
                run.get().by(),
                r.millis());
    }

    private static CheckStatus person(Check check, List<Observation> observations, ProofBasis now, Instant clock) {
        var latest = observations.stream().filter(w -> w.check() == check).max(Comparator.comparing(Observation::at));
        if (latest.isEmpty()) return CheckStatus.open(check, "Nobody has looked yet.", "");
        var w = latest.get();
        var loose = w.basis().loosens(check, now);
        if (loose.isPresent()) return CheckStatus.open(check, loose.get() + " Look again.", loose.get());
        return new CheckStatus(
                check,
                w.holds() ? Status.PASSED : Status.FAILED,
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

    public List<CheckStatus> checks() {
        return checks;
    }

    /** Whether some check was made and does not hold. */
    public boolean failed() {
        return checks.stream().anyMatch(r -> r.status() == Status.FAILED);
    }

    /** Returns what is missing before the person on site can sign off, in a sentence, or empty. */
    public Optional<String> missing() {
        var own = checks.stream().filter(r -> r.check() != Check.OFFICE).toList();
        var failed = own.stream().filter(r -> r.status() == Status.FAILED).findFirst();
        if (failed.isPresent()) return Optional.of("“" + failed.get().check().title() + "” does not hold.");
        return own.stream()
                .filter(r -> r.status() == Status.PENDING && (r.check().byMachine() || NEEDED.contains(r.check())))
                .findFirst()
                .map(r -> "“" + r.check().title() + "” was not " + (r.loosened().isEmpty() ? "" : "yet ")
                        + (r.check().byMachine() ? "checked" : "seen")
                        + (r.loosened().isEmpty() ? " yet." : " again. " + r.loosened()));
    }

    /** Returns the grade of what the person on site can prove; what the office says stands beside it. */
    public Grade grade() {
        if (missing().isPresent()) return Grade.NONE;
        var own = checks.stream()
                .filter(r -> r.check() != Check.OFFICE && r.status() != Status.SKIPPED)
                .toList();
        int job = own.stream()
                .filter(r -> NEEDED.contains(r.check()))
                .mapToInt(CheckStatus::strength)
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
        var office = checks.stream()
                .filter(r -> r.check() == Check.OFFICE)
                .findFirst()
                .filter(r -> r.status() != Status.PENDING);
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
