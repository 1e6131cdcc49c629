package app.knottag.core.runbook;

import app.knottag.core.time.Lengths;
import app.knottag.core.time.SiteClock;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.time.temporal.ChronoUnit;
import java.util.Optional;

/**
 * A device's clock against the site's time. Over 60 s is worth setting; over 300 s certificates and sign-ins begin to
 * fail (the usual limit of Kerberos, RFC 4120, and of many services).
 *
 * @param seconds how far it is ahead, negative when it is behind
 * @param holds whether it may stay as it is
 * @param words what is wrong with it and most likely why
 * @param remedy what to set, or empty
 */
record ClockReading(long seconds, boolean holds, String words, String remedy) {

    private static final int WORTH_SETTING = 60;
    private static final int BREAKS = 300;
    /** A device's clock is read off by eye, and the minute may just have turned. */
    private static final int NEAR_A_ZONE = 180;

    /** Judges what a device shows at a moment; a reading without seconds counts for the whole minute. */
    public static ClockReading of(LocalDateTime shown, SiteClock clock) {
        var zone = clock.zone();
        var local = clock.local().truncatedTo(ChronoUnit.SECONDS);
        long off = Duration.between(local, shown).toSeconds();
        if (shown.getSecond() == 0 && off < 0 && off > -WORTH_SETTING) off = 0;
        if (Math.abs(off) <= WORTH_SETTING) return new ClockReading(off, true, "Right to the minute.", "");
        String by = Lengths.of(Math.abs(off)) + (off > 0 ? " ahead" : " behind");
        long hours = Math.round(off / 3600.0);
        boolean wholeHours = hours != 0 && Math.abs(off - hours * 3600) <= NEAR_A_ZONE && Math.abs(hours) <= 14;
        var season = season(clock.now(), zone);
        if (season.isPresent() && Math.abs(Math.abs(off) - season.get().shift()) <= NEAR_A_ZONE)
            return new ClockReading(
                    off,
                    false,
                    by + ": " + season.get().because(off > 0) + ".",
                    "Set its zone to " + zone + " and its summer time to automatic; then look again.");
        if (wholeHours)
            return new ClockReading(
                    off,
                    false,
                    by + ": whole hours, so its zone is wrong, not its clock.",
                    "Set its zone to " + zone + "; leave the minutes alone.");
        if (Math.abs(off) >= 86_400 - NEAR_A_ZONE
                && Math.abs((Math.abs(off) + 43_200) % 86_400 - 43_200) <= NEAR_A_ZONE)
            return new ClockReading(off, false, by + ": the hour is right and the day is not.", "Set its date.");
        boolean breaks = Math.abs(off) > BREAKS;
        return new ClockReading(
                off,
                false,
                by
                        + (breaks
                                ? ": certificates and sign-ins fail with that, and times on record are wrong."
                                : ": it drifts. Nothing fails yet; times on record are off by that much."),
                "Set its clock, and give it a time server so that it stays right.");
    }

    /** Summer or winter at the site, and by how many seconds its clock is put forward for the summer. */
    private record Season(boolean summer, long shift) {

        /** Why a clock is ahead or behind by just that shift, likelier first. */
        String because(boolean ahead) {
            if (summer)
                return ahead
                        ? "its zone is one too far east, or it adds summer time twice"
                        : "its summer time is off, or its zone is one too far west";
            return ahead
                    ? "it keeps summer time in winter, or its zone is one too far east"
                    : "its zone is one too far west; there is no summer time now";
        }
    }

    /** By the next change of the clock (IANA time zone data): in summer it goes back. Empty where no clock is changed. */
    private static Optional<Season> season(Instant now, ZoneId zone) {
        var next = zone.getRules().nextTransition(now);
        if (next == null || Duration.between(now, next.getInstant()).toDays() > 366) return Optional.empty();
        long shift =
                next.getOffsetBefore().getTotalSeconds() - next.getOffsetAfter().getTotalSeconds();
        return Optional.of(new Season(shift > 0, Math.abs(shift)));
    }

    /**
     * Says which records may carry a wrong time: those since it was last known to be right, off by a share of the
     * offset that grows evenly until now.
     */
    public Optional<String> affected(Optional<LocalDate> lastRight, SiteClock clock) {
        if (holds || lastRight.isEmpty()) return Optional.empty();
        long days = ChronoUnit.DAYS.between(lastRight.get(), clock.today());
        if (days < 0) return Optional.empty();
        String since =
                "Records since " + clock.day(lastRight.get()) + " may be off by up to " + Lengths.of(Math.abs(seconds));
        if (days < 2 || Math.abs(seconds) % 3600 <= NEAR_A_ZONE) return Optional.of(since + ".");
        return Optional.of(
                since + ": about " + Lengths.of(Math.max(1, Math.abs(seconds) / days)) + " more each day, so "
                        + Lengths.of(Math.abs(seconds) / 2) + " on "
                        + clock.day(lastRight.get().plusDays(days / 2)) + ".");
    }
}
