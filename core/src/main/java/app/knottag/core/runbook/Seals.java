package app.knottag.core.runbook;

import app.knottag.core.runbook.StepRecord.StepFinding;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;

/** Seals of equipment that travels: compared as sets, since nobody reads them in the same order twice. */
public final class Seals {

    private Seals() {}

    /** Reads seal numbers with blanks, commas or slashes between, in capitals; hyphens within a number do not count. */
    public static Set<String> numbers(String text) {
        var numbers = new LinkedHashSet<String>();
        Arrays.stream(text.toUpperCase(Locale.ROOT).split("[\\s,;/]+"))
                .map(n -> n.replace("-", ""))
                .filter(n -> !n.isEmpty())
                .forEach(numbers::add);
        return numbers;
    }

    /**
     * Returns what speaks against opening the case. One figure apart is read again first; a seal that is missing or
     * foreign means stop.
     */
    static List<StepFinding> compare(Set<String> read, Set<String> reported, String field) {
        var missing = new TreeSet<>(reported);
        missing.removeAll(read);
        var foreign = new TreeSet<>(read);
        foreign.removeAll(reported);
        var findings = new ArrayList<StepFinding>();
        for (String seal : List.copyOf(foreign)) {
            Optional<String> near =
                    missing.stream().filter(m -> oneApart(m, seal)).findFirst();
            near.ifPresent(m -> {
                missing.remove(m);
                foreign.remove(seal);
                findings.add(new StepFinding(
                        field,
                        "Seal " + seal + " was reported as " + m + ": one figure apart.",
                        "Read that seal once more, in good light. Still " + seal
                                + ": leave it closed, put it aside and report it."));
            });
        }
        if (!missing.isEmpty())
            findings.add(new StepFinding(
                    field,
                    (missing.size() == 1 ? "Seal " : "Seals ") + String.join(", ", missing) + " not found.",
                    "Stop. Leave it closed, put it aside and report it."));
        if (!foreign.isEmpty())
            findings.add(new StepFinding(
                    field,
                    (foreign.size() == 1 ? "Seal " : "Seals ") + String.join(", ", foreign) + " nobody reported.",
                    "Stop. Leave it closed, put it aside and report it."));
        return findings;
    }

    /** Returns what speaks against the new seals: the wrong case, no seal, or one that was used before. */
    static List<StepFinding> fresh(Set<String> seals, Set<String> used, String caseNumber, Optional<String> planned) {
        var findings = new ArrayList<StepFinding>();
        planned.filter(p -> !p.equalsIgnoreCase(caseNumber.strip()))
                .ifPresent(p -> findings.add(new StepFinding(
                        GateForm.CASE,
                        "This is case " + caseNumber + "; the device belongs into case " + p + ".",
                        "Put it into its own case before it is sealed.")));
        if (seals.isEmpty())
            findings.add(new StepFinding(GateForm.READ, "No seal was read.", "Seal both sides and key both in."));
        var again = new TreeSet<>(seals);
        again.retainAll(used);
        if (!again.isEmpty())
            findings.add(new StepFinding(
                    GateForm.READ,
                    "Seal " + String.join(", ", again) + " was used before.",
                    "A seal is used once. Read it again, or take a new one."));
        return findings;
    }

    private static boolean oneApart(String a, String b) {
        if (a.length() != b.length()) return false;
        int apart = 0;
        for (int i = 0; i < a.length(); i++) if (a.charAt(i) != b.charAt(i)) apart++;
        return apart == 1;
    }
}
