package app.knottag.core.runbook;

import java.time.DateTimeException;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.time.temporal.ChronoUnit;
import java.util.Optional;
import java.util.regex.Pattern;

/**
 * A device's clock against the site's time. Over 60 s is worth setting; over 300 s certificates and sign-ins begin to
 * fail (the usual limit of Kerberos, RFC 4120, and of many services).
 *
 * @param seconds how far it is ahead, negative when it is behind
 * @param holds whether it may stay as it is
 * @param words what is wrong with it and most likely why
 * @param remedy what to set, or empty
 */
public record ClockReading(long seconds, boolean holds, String words, String remedy) {

    private static final int WORTH_SETTING = 60;
    private static final int BREAKS = 300;
    /** A device's clock is read off by eye, and the minute may just have turned. */
    private static final int NEAR_A_ZONE = 180;

    private static final Pattern SHOWN = Pattern.compile(
            "(\\d{4})-(\\d{1,2})-(\\d{1,2})[T ]+(\\d{1,2}):(\\d{2})(?::(\\d{2}))?|(\\d{1,2})\\.(\\d{1,2})\\.(\\d{4})[T ,]+(\\d{1,2}):(\\d{2})(?::(\\d{2}))?");

    /** Reads a date and time as 2026-03-29 14:05 or 29.03.2026 14:05, with seconds or without; empty when it is none. */
    public static Optional<LocalDateTime> read(String text) {
        var m = SHOWN.matcher(text.strip());
        if (!m.matches()) return Optional.empty();
        boolean iso = m.group(1) != null;
        int base = iso ? 1 : 7;
        try {
            return Optional.of(LocalDateTime.of(
                    number(m.group(iso ? 1 : 9)),
                    number(m.group(base + 1)),
                    number(m.group(iso ? 3 : 7)),
                    number(m.group(base + 3)),
                    number(m.group(base + 4)),
                    m.group(base + 5) == null ? 0 : number(m.group(base + 5))));
        } catch (DateTimeException e) {
            return Optional.empty();
        }
    }

    private static int number(String digits) {
        return Integer.parseInt(digits);
    }

    /** Judges what a device shows at a moment; a reading without seconds counts for the whole minute. */
    public static ClockReading of(LocalDateTime shown, Instant now, ZoneId zone) {
        var local = LocalDateTime.ofInstant(now, zone).truncatedTo(ChronoUnit.SECONDS);
        long off = Duration.between(local, shown).toSeconds();
        if (shown.getSecond() == 0 && off < 0 && off > -WORTH_SETTING) off = 0;
        if (Math.abs(off) <= WORTH_SETTING) return new ClockReading(off, true, "Right to the minute.", "");
        String by = length(Math.abs(off)) + (off > 0 ? " ahead" : " behind");
        long hours = Math.round(off / 3600.0);
        boolean wholeHours = hours != 0 && Math.abs(off - hours * 3600) <= NEAR_A_ZONE && Math.abs(hours) <= 14;
        var season = season(now, zone);
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
    public Optional<String> affected(Optional<LocalDate> lastRight, Instant now, ZoneId zone) {
        if (holds || lastRight.isEmpty()) return Optional.empty();
        var today = LocalDate.ofInstant(now, zone);
        long days = ChronoUnit.DAYS.between(lastRight.get(), today);
        if (days < 0) return Optional.empty();
        String since = "Records since " + lastRight.get() + " may be off by up to " + length(Math.abs(seconds));
        if (days < 2 || Math.abs(seconds) % 3600 <= NEAR_A_ZONE) return Optional.of(since + ".");
        return Optional.of(since + ": about " + length(Math.max(1, Math.abs(seconds) / days)) + " more each day, so "
                + length(Math.abs(seconds) / 2) + " on " + lastRight.get().plusDays(days / 2) + ".");
    }

    private static String length(long seconds) {
        if (seconds < 120) return seconds + " s";
        if (seconds < 7200) return seconds / 60 + " min";
        if (seconds < 172_800) {
            long minutes = seconds / 60 % 60;
            return seconds / 3600 + " h" + (minutes == 0 ? "" : " " + minutes + " min");
        }
        return seconds / 86_400 + " days";
    }
}
