package app.knottag.core.register;

import app.knottag.core.hardware.Mac;
import app.knottag.core.runbook.Stage.Entries;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;

/**
 * What one registry holds of one unit, as it was last handed in.
 *
 * @param unit id of the endpoint
 * @param askedAt when it was handed in, or empty when it waits to be
 * @param enteredAt since when it stands in the registry, or empty when nobody has seen it there
 * @param restartedAt when the device was last known to have restarted, or empty
 * @param endsAt when it ends by itself, or empty
 * @param endedAt when it was taken out, or empty
 */
public record Registration(
        long id,
        long registry,
        long unit,
        RegistryEntry held,
        Optional<Instant> askedAt,
        Optional<Instant> enteredAt,
        Optional<Instant> restartedAt,
        Optional<Instant> endsAt,
        Optional<Instant> endedAt) {

    /** How far a registration has come. */
    public enum State {
        TO_REGISTER,
        SUBMITTED,
        IN_FORCE,
        EXPIRING,
        ENDED
    }

    /**
     * How it stands.
     *
     * @param restartPending whether it stands in the registry but the device has not restarted since
     * @param next what to do, in a few words, or empty
     */
    public record Standing(State state, boolean restartPending, String next) {}

    /** Whether it was neither taken out nor has run out by now. */
    public boolean living(Instant now) {
        return endedAt.isEmpty() && endsAt.filter(e -> !e.isAfter(now)).isEmpty();
    }

    /** Judges it by what is known now. A registration is in force only after the restart that follows it. */
    public Standing standing(Registry.Rules rules, Instant now) {
        if (!living(now)) return new Standing(State.ENDED, false, endedAt.isPresent() ? "" : "Register it again.");
        if (enteredAt.isEmpty())
            return askedAt.isEmpty()
                    ? new Standing(State.TO_REGISTER, false, "Register it.")
                    : new Standing(
                            State.SUBMITTED,
                            false,
                            rules.waitsFor().isEmpty() ? "Look whether it stands there." : overdue(rules, now));
        if (rules.restart()
                && restartedAt.filter(r -> !r.isBefore(enteredAt.get())).isEmpty())
            return new Standing(State.SUBMITTED, true, "Restart the device: it joins only afterwards.");
        boolean soon = rules.lifetime().isPresent()
                && endsAt.filter(e -> !now.isBefore(rules.lifetime().get().warnFrom(enteredAt.get(), e)))
                        .isPresent();
        return soon ? new Standing(State.EXPIRING, false, "Renew it.") : new Standing(State.IN_FORCE, false, "");
    }

    private String overdue(Registry.Rules rules, Instant now) {
        long days = Duration.between(askedAt.orElseThrow(), now).toDays();
        return days > rules.leadDays()
                ? "Ask " + rules.waitsFor() + ": handed in " + days + " days ago, it takes " + rules.leadDays() + "."
                : "Waits for " + rules.waitsFor() + ".";
    }

    /**
     * Returns what this means for where its unit waits: an outside service does not keep it from being set up, an entry
     * with another MAC keeps it off the network.
     */
    public Entries entries(Registry registry, Unit unit, Instant now) {
        if (living(now) && enteredAt.isPresent() && registry.type().admits()) {
            var stale = stale(registry.rules(), registry.truth(unit, held));
            if (stale.contains(Registry.Fact.MAC)) return Entries.TO_REGISTER;
        }
        var standing = standing(registry.rules(), now);
        return switch (standing.state()) {
            case TO_REGISTER -> Entries.TO_REGISTER;
            case ENDED -> Entries.RAN_OUT;
            case SUBMITTED ->
                standing.restartPending() || !registry.type().admits() ? Entries.SETTLED : Entries.HANDED_IN;
            case IN_FORCE, EXPIRING -> Entries.SETTLED;
        };
    }

    /** Returns when an entry made now would end, or empty when it lasts. */
    public static Optional<Instant> end(Registry.Rules rules, Instant from, ZoneId zone) {
        return rules.lifetime().map(l -> l.end(from, zone));
    }

    /** Returns the facts that the registry holds differently from what is true, in the order of {@link Registry.Fact}. */
    public List<Registry.Fact> stale(Registry.Rules rules, RegistryEntry truth) {
        return Arrays.stream(Registry.Fact.values())
                .filter(rules.facts()::contains)
                .filter(f -> !held.value(f).equals(truth.value(f)))
                .toList();
    }

    /** Returns the MAC that it holds. */
    public Optional<Mac> mac() {
        return held.mac();
    }
}
