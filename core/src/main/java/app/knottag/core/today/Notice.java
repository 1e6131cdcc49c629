package app.knottag.core.today;

import app.knottag.core.kind.Kind;
import app.knottag.core.runbook.Runbook;
import app.knottag.core.runbook.Stage.Station;
import app.knottag.core.time.DateStyle;
import app.knottag.core.time.SiteClock;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import java.util.OptionalLong;

/**
 * One thing that somebody should know today.
 *
 * @param station where it goes on
 * @param about the endpoint, visit or registry it is about, or empty when it is about several or none
 * @param at the moment it counts from: when it began to wait for somebody, or will
 * @param who whom it waits for, or empty for whoever is there
 * @param title what is to be done, in a few words
 * @param detail why, in a sentence
 */
public record Notice(
        What what,
        Site site,
        Station station,
        OptionalLong about,
        Instant at,
        String who,
        String title,
        String detail) {

    /** So many names are told of those that are alike; of more only how many there are. */
    private static final int NAMED = 3;

    /** Kinds of notices, the most urgent first. */
    public enum What {
        /** A wait has run longer than it ever takes. */
        TOO_LONG,
        /** A wait has run for as long as it usually takes. */
        READY,
        /** People are at work there now. */
        VISIT_RUNS,
        /** A visit should have begun. */
        VISIT_LATE,
        /** What let it in has run out, or tells of it what is no longer so. */
        CUT_OFF,
        /** What held does not hold any more, or never did. */
        BROKEN,
        /** The looks at night found something new, or were not made. */
        NIGHT,
        /** Something was to be done by today. */
        DUE,
        /** A wait that nobody needs to look at yet. */
        RUNS,
        /** A visit that is to come. */
        VISIT_AHEAD;

        /** Whether it waits for hands. */
        public boolean now() {
            return compareTo(RUNS) < 0;
        }
    }

    /** Where it is. */
    public record Site(long id, String name) {}

    /** Says of a wait whether it is to be looked at. */
    public static Notice wait(
            Site site, long endpoint, String name, String step, Kind.Wait wait, Instant startedAt, Instant now) {
        long ran = Math.max(0, Duration.between(startedAt, now).toMinutes());
        var about = OptionalLong.of(endpoint);
        String so = "“" + step + "” has run for " + ran + " min";
        return switch (Runbook.pace(wait, startedAt, now)) {
            case TOO_LONG ->
                new Notice(
                        What.TOO_LONG,
                        site,
                        Station.ONBOARD,
                        about,
                        startedAt.plus(Duration.ofMinutes(wait.longest())),
                        "",
                        "Look at " + name,
                        so + " and never takes longer than " + wait.longest() + ".");
            case CLOCK_SET_BACK ->
                new Notice(
                        What.READY,
                        site,
                        Station.ONBOARD,
                        about,
                        now,
                        "",
                        "Look at " + name,
                        "“" + step + "” began before the clock was set back: nobody can say how long it has run.");
            case LATE ->
                new Notice(
                        What.READY,
                        site,
                        Station.ONBOARD,
                        about,
                        startedAt.plus(Duration.ofMinutes(wait.usual())),
                        "",
                        "Look at " + name,
                        so + "; usually it takes " + wait.usual() + ".");
            case TOO_EARLY, USUAL ->
                new Notice(
                        What.RUNS,
                        site,
                        Station.ONBOARD,
                        about,
                        startedAt.plus(Duration.ofMinutes(wait.usual())),
                        "",
                        name,
                        so + " of usually " + wait.usual() + ".");
        };
    }

    /** Names those at one site and one station that do not hold. */
    public static Notice broken(Site site, Station station, List<String> names, OptionalLong only, Instant since) {
        String why = switch (station) {
            case PLAN -> "What is planned does not go together.";
            case REGISTER -> "What is registered does not agree with it.";
            case ONBOARD -> "A step of the set-up failed.";
            case CONFIRM, HANDOVER, DONE -> "The last checks failed.";
        };
        var goesOn = station.compareTo(Station.CONFIRM) > 0 ? Station.CONFIRM : station;
        return new Notice(What.BROKEN, site, goesOn, only, since, "", "Mend " + names(names), why);
    }

    /**
     * Says of what stands open longer than it should that it is to be closed.
     *
     * @param ended the last day on which it was to be closed
     */
    public static Notice closing(
            Site site,
            String title,
            String owner,
            List<String> names,
            OptionalLong only,
            LocalDate ended,
            SiteClock clock) {
        return new Notice(
                What.DUE,
                site,
                Station.HANDOVER,
                only,
                ended.plusDays(1).atStartOfDay(clock.zone()).toInstant(),
                owner,
                "Close “" + title + "” on " + names(names),
                "It was to be closed by " + clock.day(ended) + ".");
    }

    /** Says what a night found. */
    public static Notice night(Site site, long night, Instant ended, String words) {
        return new Notice(
                What.NIGHT, site, Station.DONE, OptionalLong.of(night), ended, "", "Read what the night found", words);
    }

    /**
     * Says in which nights nobody looked.
     *
     * @param mornings at which they ended, the earliest first
     */
    public static Notice nightsMissed(Site site, List<LocalDate> mornings, DateStyle style, Instant now) {
        int nights = mornings.size();
        String last = style.day(mornings.get(nights - 1));
        return new Notice(
                What.NIGHT,
                site,
                Station.DONE,
                OptionalLong.empty(),
                now,
                "",
                nights == 1 ? "A night was missed" : nights + " nights were missed",
                "Nobody looked in the night to " + last + (nights == 1 ? "" : ", nor in " + (nights - 1) + " before")
                        + ": Knot Tag did not run, or not long enough.");
    }

    /** Up to three by name, the others by their number. */
    static String names(List<String> names) {
        if (names.size() == 1) return names.get(0);
        boolean all = names.size() <= NAMED;
        var told = names.subList(0, all ? names.size() - 1 : NAMED - 1);
        String last = all ? names.get(names.size() - 1) : names.size() - told.size() + " more";
        return String.join(", ", told) + " and " + last;
    }
}
