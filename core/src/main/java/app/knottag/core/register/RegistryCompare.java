package app.knottag.core.register;

import app.knottag.core.hardware.InterfaceChoice;
import app.knottag.core.hardware.Mac;
import app.knottag.core.hardware.MacReader;
import app.knottag.core.reading.Slip;
import app.knottag.core.register.Registry.Fact;
import app.knottag.core.register.RegistryReader.Read;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Collections;
import java.util.EnumMap;
import java.util.HashSet;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/** Puts what a registry really holds beside what it should hold: MAC first, then address, then name. */
public final class RegistryCompare {

    private final Registry registry;
    private final RegistryForm form;
    private final Collection<Unit> units;

    /**
     * @param form the form it came in; what the form cannot hold is not compared
     * @param units endpoints of the site, the retired as well, to say whose a MAC is
     */
    public RegistryCompare(Registry registry, RegistryForm form, Collection<Unit> units) {
        this.registry = registry;
        this.form = form;
        this.units = units;
    }

    /** How one entry compares. */
    public enum Outcome {
        AS_WANTED,
        DIFFERS,
        STRANGER,
        MISSING
    }

    /** What should stand there for a unit. */
    public record Wanted(long unit, RegistryEntry entry) {}

    /**
     * One line of the comparison.
     *
     * @param line line of the list, or null when nothing stands there
     * @param unit the unit it is about, or null for a stranger
     * @param said what it means and what to do
     */
    public record Compared(
            Outcome outcome, @Nullable Long line, @Nullable Long unit, String name, String said) {}

    /** Compares. */
    public List<Compared> compare(List<Wanted> wanted, List<Read> held) {
        var lines = new ArrayList<Compared>();
        var open = Collections.<Wanted>newSetFromMap(new IdentityHashMap<>());
        open.addAll(wanted);
        var byFact = new EnumMap<Fact, Map<String, List<Wanted>>>(Fact.class);
        for (Fact fact : List.of(Fact.MAC, Fact.ADDRESS, Fact.NAME))
            byFact.put(fact, wanted.stream().collect(Collectors.groupingBy(w -> key(w.entry(), fact))));
        var rest = new ArrayList<Read>();
        for (var read : held)
            match(byFact, open, read, Fact.MAC)
                    .ifPresentOrElse(w -> lines.add(pair(open, w, read)), () -> rest.add(read));
        for (var read : rest)
            match(byFact, open, read, Fact.ADDRESS)
                    .or(() -> match(byFact, open, read, Fact.NAME))
                    .ifPresentOrElse(w -> lines.add(pair(open, w, read)), () -> lines.add(stranger(read)));
        for (var w : wanted)
            if (open.contains(w))
                lines.add(new Compared(
                        Outcome.MISSING,
                        null,
                        w.unit(),
                        w.entry().name(),
                        "It does not stand there. Hand it in again."));
        lines.sort((a, b) -> b.outcome() == a.outcome() ? 0 : rank(a.outcome()) - rank(b.outcome()));
        return lines;
    }

    private static int rank(Outcome outcome) {
        return List.of(Outcome.DIFFERS, Outcome.STRANGER, Outcome.MISSING, Outcome.AS_WANTED)
                .indexOf(outcome);
    }

    private static String key(RegistryEntry entry, Fact fact) {
        return entry.value(fact).toLowerCase(Locale.ROOT);
    }

    private static Optional<Wanted> match(
            Map<Fact, Map<String, List<Wanted>>> byFact, Set<Wanted> open, Read read, Fact fact) {
        String value = key(read.entry(), fact);
        return value.isEmpty()
                ? Optional.empty()
                : byFact.get(fact).getOrDefault(value, List.of()).stream()
                        .filter(open::contains)
                        .findFirst();
    }

    private Compared pair(Set<Wanted> open, Wanted wanted, Read read) {
        open.remove(wanted);
        var said = new ArrayList<String>();
        for (Fact fact : Fact.values()) {
            String there = read.entry().value(fact), right = wanted.entry().value(fact);
            boolean compared = registry.rules().facts().contains(fact) && holds(fact);
            if (!compared || there.equalsIgnoreCase(right) || (there.isEmpty() && fact != Fact.MAC)) continue;
            said.add(
                    fact == Fact.MAC
                            ? mac(read.entry().mac(), wanted)
                            : "The " + fact.name().toLowerCase(Locale.ROOT) + " is " + there + " there, " + right
                                    + " here.");
        }
        return new Compared(
                said.isEmpty() ? Outcome.AS_WANTED : Outcome.DIFFERS,
                read.line(),
                wanted.unit(),
                wanted.entry().name(),
                said.isEmpty() ? "As it should be." : String.join(" ", said));
    }

    private boolean holds(Fact fact) {
        return switch (fact) {
            case MAC -> form.holdsMac();
            case SERIAL, MODEL -> form == RegistryForm.CSV || form == RegistryForm.JSON;
            case ADDRESS -> form != RegistryForm.ETHERS;
            case ISSUED -> false;
            // Labels made of free words are not the words.
            case NAME ->
                registry.rules().naming() == Registry.Naming.HOST_NAME
                        || form == RegistryForm.CSV
                        || form == RegistryForm.JSON;
        };
    }

    private String mac(Optional<Mac> there, Wanted wanted) {
        Mac right = wanted.entry().mac().orElse(null);
        if (there.isEmpty()) return "It has no MAC there; " + right + " belongs to it.";
        if (right == null) return there.get() + " stands there, and no MAC is on record here. Read the label.";
        var own = units.stream()
                .filter(u -> u.id() == wanted.unit() && u.has(there.get()))
                .findFirst();
        if (own.isPresent())
            return there.get() + " there is another interface of the same box; " + right + " is the one that joins.";
        Slip slip = MacReader.read(there.get().toString(), Set.of(), Optional.of(right))
                .slip();
        return there.get() + " stands there instead of " + right + ". "
                + (slip == null || slip.kind() == Slip.Kind.DIFFERENT ? owner(there.get()) : slip.message());
    }

    private String owner(Mac mac) {
        return units.stream()
                .filter(u -> u.has(mac))
                .findFirst()
                .map(u -> u.retired()
                        ? "It belongs to " + u.name() + ", which is retired."
                        : InterfaceChoice.of(u.interfaces(), registry.medium())
                                        .chosen()
                                        .filter(i -> !i.mac().equals(mac))
                                        .isPresent()
                                ? "It is another interface of " + u.name() + ": one box, one entry. Take this one out."
                                : "It belongs to " + u.name() + ".")
                .orElse("Nobody knows it: an old unit, most likely. Take it out first.");
    }

    private Compared stranger(Read read) {
        String said = read.entry().mac().map(this::owner).orElse("Nothing on record goes by that name or address.");
        return new Compared(Outcome.STRANGER, read.line(), null, label(read.entry()), said);
    }

    private static String label(RegistryEntry e) {
        var parts = new HashSet<String>();
        var words = new ArrayList<String>();
        for (String part : List.of(e.name(), e.value(Fact.MAC), e.value(Fact.ADDRESS)))
            if (!part.isEmpty() && parts.add(part)) words.add(part);
        return String.join(", ", words);
    }
}
