package app.knottag.core.register;

import app.knottag.core.hardware.InterfaceChoice;
import app.knottag.core.hardware.Mac;
import app.knottag.core.kind.VariantMatch;
import app.knottag.core.log.Words;
import app.knottag.core.plan.NameRule;
import app.knottag.core.register.Registry.Fact;
import app.knottag.core.register.Registry.Naming;
import app.knottag.core.register.Registry.Sharing;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/** Judges an entry by the rules of its registry and by what stands there, before it leaves the screen. */
public final class RegistrationJudge {

    private final Registry registry;
    private final Map<Long, Unit> units;
    private final List<Registration> here;
    private final Map<Mac, List<Registration>> byMac;
    private final Map<Long, List<Registration>> byUnit;
    private final Map<String, List<Registration>> byName;
    private final Map<String, List<Registration>> bySerial;

    /**
     * @param others living registrations of the site, in any registry
     * @param units living endpoints of the site
     */
    public RegistrationJudge(Registry registry, Collection<Registration> others, Collection<Unit> units, Instant now) {
        this.registry = registry;
        this.units = units.stream().collect(Collectors.toMap(Unit::id, u -> u, (a, b) -> a));
        here = others.stream()
                .filter(r -> r.registry() == registry.id() && r.living(now))
                .toList();
        byMac = here.stream()
                .filter(r -> r.mac().isPresent())
                .collect(Collectors.groupingBy(r -> r.mac().get()));
        byUnit = here.stream().collect(Collectors.groupingBy(Registration::unit));
        byName =
                here.stream().collect(Collectors.groupingBy(r -> folded(r.held().name())));
        bySerial = here.stream().collect(Collectors.groupingBy(r -> r.held().serial()));
    }

    private static String folded(String name) {
        return name.toLowerCase(Locale.ROOT);
    }

    /** What stands in the registry under a key, for another unit. */
    private static <K> Stream<Registration> others(Map<K, List<Registration>> by, K key, Unit unit) {
        return by.getOrDefault(key, List.of()).stream().filter(r -> r.unit() != unit.id());
    }

    /** What speaks against an entry. A refusal must be mended; a question may be answered with a reason. */
    public record Objection(String field, Code code, boolean refuses, String message) {}

    /** Stable names of the objections, for programs. */
    public enum Code {
        NO_MAC,
        RANDOM_MAC,
        OTHER_INTERFACE,
        MAC_REGISTERED,
        ONE_FIGURE_AWAY,
        SAME_BOX_TWICE,
        SERIAL_TWICE,
        NAME_MISSING,
        NAME_TOO_LONG,
        NAME_FORM,
        NAME_TWICE,
        OWNER_MISSING,
        SHARED_PERSONAL,
        NOT_SHARED,
        NO_SHARING,
        FULL,
        FACT_MISSING,
        OTHER_MODEL,
        AWAY
    }

    /** Returns everything that speaks against an entry for a unit; empty when it may go out. */
    public List<Objection> judge(Unit unit, RegistryEntry entry) {
        var found = new ArrayList<Objection>();
        mac(unit, entry, found);
        name(unit, entry, found);
        people(unit, entry, found);
        facts(unit, entry, found);
        var rules = registry.rules();
        int held = here.size() - byUnit.getOrDefault(unit.id(), List.of()).size();
        if (rules.most() > 0 && held >= rules.most())
            found.add(new Objection(
                    "",
                    Code.FULL,
                    true,
                    registry.name() + " takes " + rules.most() + " entries, and has them. Take one out first."));
        if (unit.away())
            found.add(new Objection(
                    "",
                    Code.AWAY,
                    false,
                    unit.name() + " is away. Register it when it is back, or its time runs out."));
        // What must be mended stands before what is only asked.
        found.sort(Comparator.comparing(o -> !o.refuses()));
        return found;
    }

    private void mac(Unit unit, RegistryEntry entry, List<Objection> found) {
        if (!registry.rules().facts().contains(Fact.MAC)) return;
        var choice = InterfaceChoice.of(unit.interfaces(), registry.medium());
        if (entry.mac().isEmpty()) {
            found.add(new Objection("mac", Code.NO_MAC, true, choice.because()));
            return;
        }
        Mac mac = entry.mac().get();
        if (mac.locallyAdministered())
            found.add(
                    new Objection(
                            "mac",
                            Code.RANDOM_MAC,
                            true,
                            mac
                                    + " is private and changes. Switch the private MAC off for this network, then read the MAC again."));
        choice.chosen()
                .filter(i -> !i.mac().equals(mac))
                .ifPresent(i -> found.add(new Objection(
                        "mac",
                        Code.OTHER_INTERFACE,
                        false,
                        mac + " is another interface; " + registry.name() + " needs " + i.mac() + ". "
                                + choice.because())));
        others(byMac, mac, unit)
                .forEach(r -> found.add(new Objection(
                        "mac",
                        Code.MAC_REGISTERED,
                        true,
                        mac + " stands in " + registry.name() + " for "
                                + name(r.unit(), r.held().name())
                                + ". The same unit, or a slip on one of the two labels?")));
        mac.oneDigitAway().flatMap(m -> others(byMac, m, unit)).forEach(r -> near(r, found));
        byUnit.getOrDefault(unit.id(), List.of()).stream()
                .filter(r -> r.mac().filter(m -> !m.equals(mac) && unit.has(m)).isPresent())
                .findFirst()
                .ifPresent(r -> found.add(new Objection(
                        "mac",
                        Code.SAME_BOX_TWICE,
                        false,
                        "Its other MAC " + r.mac().get() + " stands in " + registry.name()
                                + " already. One box, one entry: take that out first.")));
    }

    /** Units from one carton differ by a figure; only what stands there and on no label is doubtful. */
    private void near(Registration r, List<Objection> found) {
        Mac other = r.mac().orElseThrow();
        if (units.containsKey(r.unit()) && units.get(r.unit()).has(other)) return;
        found.add(new Objection(
                "mac",
                Code.ONE_FIGURE_AWAY,
                false,
                "Only one figure away from " + other + ", which stands in " + registry.name() + " for "
                        + name(r.unit(), r.held().name()) + " and on no label. Look at both labels."));
    }

    private String name(long unit, String otherwise) {
        return units.containsKey(unit) ? units.get(unit).name() : otherwise;
    }

    private void name(Unit unit, RegistryEntry entry, List<Objection> found) {
        var rules = registry.rules();
        if (!rules.facts().contains(Fact.NAME)) return;
        String name = entry.name().strip();
        if (name.isEmpty()) {
            found.add(new Objection("name", Code.NAME_MISSING, true, "An entry needs a name that people recognise."));
            return;
        }
        if (name.length() > rules.longestName())
            found.add(new Objection(
                    "name",
                    Code.NAME_TOO_LONG,
                    true,
                    "“" + name + "” has " + name.length() + " characters; " + registry.name() + " takes "
                            + rules.longestName() + "."));
        var problem = rules.naming() == Naming.HOST_NAME
                ? NameRule.problem(name).filter(p -> name.length() <= NameRule.LONGEST)
                : Words.problem(name, true);
        problem.ifPresent(p -> found.add(new Objection("name", Code.NAME_FORM, true, p)));
        others(byName, folded(name), unit)
                .findFirst()
                .ifPresent(r -> found.add(new Objection(
                        "name",
                        Code.NAME_TWICE,
                        true,
                        "“" + name + "” stands in " + registry.name() + " already, for "
                                + name(r.unit(), "another unit") + ".")));
    }

    /** A shared device needs somebody who may use it; a personal one is nobody else's. */
    private void people(Unit unit, RegistryEntry entry, List<Objection> found) {
        var rules = registry.rules();
        if (rules.ownerNeeded() && entry.owner().isBlank())
            found.add(new Objection("owner", Code.OWNER_MISSING, true, "Say whose entry it is."));
        boolean shared = entry.sharedWith().stream().anyMatch(s -> !s.isBlank());
        if (rules.sharing() == Sharing.NONE && shared)
            found.add(new Objection(
                    "sharedWith", Code.NO_SHARING, true, registry.name() + " knows no sharing. Leave the list empty."));
        if (rules.sharing() != Sharing.BY_KIND) return;
        if (unit.personal() && shared)
            found.add(new Objection(
                    "sharedWith",
                    Code.SHARED_PERSONAL,
                    true,
                    unit.name() + " is a personal device: nobody else shares it. Leave the list empty."));
        if (!unit.personal() && !shared)
            found.add(new Objection(
                    "sharedWith",
                    Code.NOT_SHARED,
                    true,
                    unit.name() + " is used by several people: name at least one who may use it."));
    }

    private void facts(Unit unit, RegistryEntry entry, List<Objection> found) {
        var rules = registry.rules();
        for (Fact fact : List.of(Fact.SERIAL, Fact.MODEL, Fact.ADDRESS))
            if (rules.facts().contains(fact) && entry.value(fact).isEmpty())
                found.add(new Objection(
                        fact.name().toLowerCase(Locale.ROOT),
                        Code.FACT_MISSING,
                        true,
                        registry.name() + " wants its " + fact.name().toLowerCase(Locale.ROOT)
                                + ", which is not on record."));
        if (rules.facts().contains(Fact.SERIAL) && !entry.serial().isEmpty())
            others(bySerial, entry.serial(), unit)
                    .findFirst()
                    .ifPresent(r -> found.add(new Objection(
                            "serial",
                            Code.SERIAL_TWICE,
                            true,
                            entry.serial() + " stands in " + registry.name() + " for " + name(r.unit(), "another unit")
                                    + (r.held().model().equals(entry.model())
                                            ? ". The same unit?"
                                            : ", as model " + r.held().model() + ". Look at both labels."))));
        if (!rules.models().isEmpty() && !entry.model().isEmpty())
            Optional.of(VariantMatch.of(entry.model(), rules.models()))
                    .filter(m -> !m.fits())
                    .ifPresent(m -> found.add(new Objection("model", Code.OTHER_MODEL, true, m.because())));
    }
}
