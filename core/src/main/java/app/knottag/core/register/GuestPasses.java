package app.knottag.core.register;

import app.knottag.core.reading.ReadingException;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;

/**
 * How often a guest must be registered again during a stay, and whether somebody is there to do it.
 *
 * @param dues when each further pass is due
 * @param advice what to ask for when the passes cannot be kept up, or empty
 */
public record GuestPasses(int registrations, List<Renewal> dues, String advice) {

    private static final int MANY = 4;

    /** A renewal; not in hours means that nobody is there when the pass ends. */
    public record Renewal(Instant at, boolean inHours) {}

    /** Hours in which somebody is at the desk, by the clock of the site; the same on every day. */
    public record Hours(LocalTime opens, LocalTime shuts) {
        boolean at(LocalTime time) {
            return !time.isBefore(opens) && time.isBefore(shuts);
        }
    }

    /**
     * Counts the passes: stay divided by the pass, rounded up.
     *
     * @throws IllegalArgumentException if the stay ends before it begins or is longer than a year
     */
    public static GuestPasses of(Instant from, Instant until, Lifetime pass, Hours hours, ZoneId zone) {
        if (!until.isAfter(from) || Duration.between(from, until).toDays() > 366)
            throw new ReadingException("A stay lasts up to a year and ends after it begins.");
        var dues = new ArrayList<Renewal>();
        for (var end = pass.end(from, zone); end.isBefore(until); end = pass.end(end, zone))
            dues.add(new Renewal(end, hours.at(end.atZone(zone).toLocalTime())));
        long outside = dues.stream().filter(d -> !d.inHours()).count();
        String advice = outside > 0
                ? "Nobody is at the desk for " + outside + " of " + dues.size()
                        + " renewals. Ask for an account that lasts longer, or renew each day before the desk shuts."
                : dues.size() >= MANY
                        ? "That is " + dues.size() + " renewals. Ask for an account that lasts longer."
                        : "";
        return new GuestPasses(dues.size() + 1, dues, advice);
    }
}
