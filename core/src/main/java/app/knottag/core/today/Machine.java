package app.knottag.core.today;

import app.knottag.core.time.Lengths;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;

/** What is said of the machine that keeps the records, on which everybody's work rests. */
public final class Machine {

    /** Below so many bytes nothing is taken in any more, so that nothing is ever written by half: 100 MB. */
    public static final long FULL = 100L << 20;

    private static final long NEARLY_FULL = 500L << 20;

    /** A night may be missed when the machine is off until noon. */
    private static final Duration BACKED_UP = Duration.ofHours(36), TOLD = Duration.ofHours(24);

    private static final Duration REHEARSED = Duration.ofDays(10);

    private Machine() {}

    /**
     * What is known of it.
     *
     * @param free bytes free where the records lie, as far as they lie on this machine
     * @param backups what is known of them; empty where somebody else makes them
     * @param jump when its clock was last set, as far as that was noticed
     */
    public record State(OptionalLong free, Optional<Backups> backups, Optional<Jump> jump) {}

    /**
     * The backups that it makes by itself.
     *
     * @param since when there was first something to back up
     * @param last when the last good one was made
     * @param rehearsed when one was last brought back to see that it can be
     * @param failed the last try that failed
     */
    public record Backups(
            Instant since, Optional<Instant> last, Optional<Instant> rehearsed, Optional<Failed> failed) {}

    /** A backup that could not be made, or not be brought back, and why. */
    public record Failed(Instant at, String why) {}

    /** @param by how far it was set; below zero when it was set back */
    public record Jump(Instant at, Duration by) {}

    /** @param stops whether nothing can be changed until it is mended */
    public record Concern(boolean stops, String title, String detail) {}

    /** Returns what somebody should know of it now, the worst first. */
    public static List<Concern> of(State state, Instant now) {
        var concerns = new ArrayList<Concern>();
        state.free().ifPresent(free -> disk(free).ifPresent(concerns::add));
        state.backups().ifPresent(b -> backups(b, now).ifPresent(concerns::add));
        state.jump()
                .filter(j -> Duration.between(j.at(), now).abs().compareTo(TOLD) < 0)
                .ifPresent(j -> concerns.add(clock(j)));
        return List.copyOf(concerns);
    }

    private static Optional<Concern> disk(long free) {
        String left = "Only " + (free >> 20) + " MB are left where the records lie. ";
        if (free < FULL)
            return Optional.of(new Concern(
                    true,
                    "The disk is full",
                    left + "Nothing is taken in until there is room; all that was kept is safe."));
        return free < NEARLY_FULL
                ? Optional.of(new Concern(
                        false,
                        "The disk is nearly full",
                        left + "Below " + (FULL >> 20)
                                + " MB nothing can be changed any more. Make room, or move old backups."))
                : Optional.empty();
    }

    private static Optional<Concern> backups(Backups b, Instant now) {
        String last = b.last()
                .map(t -> "The last good one was made "
                        + Lengths.of(Duration.between(t, now).toSeconds()) + " ago.")
                .orElse("There is none yet.");
        var failed = b.failed()
                .filter(f -> b.last().filter(t -> t.isAfter(f.at())).isEmpty()
                        && b.rehearsed().filter(t -> t.isAfter(f.at())).isEmpty());
        if (failed.isPresent())
            return Optional.of(
                    new Concern(false, "A backup failed", sentence(failed.get().why()) + " " + last));
        if (old(b.last().orElse(b.since()), BACKED_UP, now))
            return Optional.of(new Concern(
                    false,
                    b.last().isPresent() ? "No backup lately" : "No backup yet",
                    last + " One is made each night while Knot Tag runs; ./knot backup makes one now."));
        return b.last().isPresent() && old(b.rehearsed().orElse(b.since()), REHEARSED, now)
                ? Optional.of(new Concern(
                        false,
                        "Nobody knows whether the backups can be brought back",
                        b.rehearsed()
                                        .map(t -> "That was tried last "
                                                + Lengths.of(
                                                        Duration.between(t, now).toSeconds()) + " ago.")
                                        .orElse("That was never tried.")
                                + " ./knot backup --check tries it."))
                : Optional.empty();
    }

    private static boolean old(Instant at, Duration most, Instant now) {
        return Duration.between(at, now).compareTo(most) > 0;
    }

    private static String sentence(String why) {
        String text = why.isEmpty() ? "Nobody knows why" : Character.toUpperCase(why.charAt(0)) + why.substring(1);
        return text.endsWith(".") || text.endsWith("?") ? text : text + ".";
    }

    private static Concern clock(Jump jump) {
        boolean back = jump.by().isNegative();
        return new Concern(
                false,
                "This machine's clock was set " + (back ? "back" : "forward") + " by "
                        + Lengths.of(jump.by().abs().toSeconds()),
                (back
                                ? "Waits that ran then began in the future"
                                : "Or it slept. Waits that ran then look longer than they were")
                        + ": look at the devices, not at the minutes."
                        + (back ? " The log keeps its order by number." : ""));
    }
}
