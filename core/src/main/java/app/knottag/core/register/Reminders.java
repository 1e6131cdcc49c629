package app.knottag.core.register;

import app.knottag.core.register.Registration.State;
import app.knottag.core.time.SiteClock;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/** Makes of registrations what there is to do and when: to register, to restart, to ask, to renew. */
public final class Reminders {

    private static final LocalTime MORNING = LocalTime.of(9, 0);

    private Reminders() {}

    /** What to do, in the order in which it is done on one day. */
    public enum What {
        REGISTER_AGAIN,
        RESTART,
        REGISTER,
        CORRECT,
        RENEW,
        ASK,
        LOOK
    }

    /**
     * One thing to do.
     *
     * @param key stable from one time to the next, for calendars
     * @param at from when it is to be done
     * @param registration the registration it is about, or null when there is none yet, or several
     * @param unit the unit it is about, or 0 when they are several
     * @param name what the unit is called
     */
    public record Reminder(
            String key,
            What what,
            Instant at,
            long registry,
            @Nullable Long registration,
            long unit,
            String name,
            String title,
            String detail) {

        /** Whether it is to be done on the day of now at the site, or was before. */
        public boolean due(Instant now, ZoneId zone) {
            return !at.atZone(zone).toLocalDate().isAfter(now.atZone(zone).toLocalDate());
        }
    }

    /** A registration with the facts around it. */
    public record Subject(Registry registry, Registration registration, Unit unit, RegistryEntry truth) {}

    /** A unit that a registry wants and does not have. */
    public record Missing(Registry registry, Unit unit) {}

    /** Returns everything to do, soonest first. */
    public static List<Reminder> of(List<Subject> subjects, List<Missing> missing, SiteClock clock) {
        var now = clock.now();
        var list = new ArrayList<Reminder>();
        for (var m : missing)
            list.add(new Reminder(
                    "register-" + m.registry().id() + "-" + m.unit().id(),
                    What.REGISTER,
                    now,
                    m.registry().id(),
                    null,
                    m.unit().id(),
                    m.unit().name(),
                    "Register " + m.unit().name() + " in " + m.registry().name(),
                    m.registry().rules().waitsFor().isEmpty()
                            ? ""
                            : "It takes " + m.registry().rules().leadDays() + " days by "
                                    + m.registry().rules().waitsFor() + "."));
        for (var s : subjects) one(s, clock).ifPresent(list::add);
        list.sort(
                Comparator.comparing(Reminder::at).thenComparing(Reminder::what).thenComparing(Reminder::title));
        return list;
    }

    private static Optional<Reminder> one(Subject s, SiteClock clock) {
        var now = clock.now();
        var zone = clock.zone();
        var rules = s.registry().rules();
        var standing = s.registration().standing(rules, now);
        String unit = s.unit().name(), place = s.registry().name();
        if (s.registration().endedAt().isPresent()) return Optional.empty();
        if (standing.state() == State.ENDED)
            return reminder(
                    s,
                    What.REGISTER_AGAIN,
                    s.registration().endsAt().orElse(now),
                    "Register " + unit + " again in " + place,
                    s.unit().away()
                            ? "It ran out while the unit is away. Do it before it comes back."
                            : "It has run out.");
        var stale = s.registration().stale(rules, s.truth());
        if (!stale.isEmpty() && standing.state() != State.TO_REGISTER)
            return reminder(
                    s,
                    What.CORRECT,
                    now,
                    "Correct " + unit + " in " + place,
                    "It holds an old "
                            + String.join(
                                    " and an old ",
                                    stale.stream()
                                            .map(f -> f == Registry.Fact.MAC
                                                    ? "MAC"
                                                    : f.name().toLowerCase(Locale.ROOT))
                                            .toList())
                            + ".");
        if (standing.restartPending())
            return reminder(s, What.RESTART, now, "Restart " + unit, "It joins " + place + " only afterwards.");
        if (standing.state() == State.SUBMITTED) {
            var asked = s.registration().askedAt().orElse(now);
            return rules.waitsFor().isEmpty()
                    ? reminder(s, What.LOOK, asked, "Look whether " + unit + " stands in " + place, "")
                    : reminder(
                            s,
                            What.ASK,
                            asked.atZone(zone)
                                    .toLocalDate()
                                    .plusDays(rules.leadDays())
                                    .atTime(MORNING)
                                    .atZone(zone)
                                    .toInstant(),
                            "Ask " + rules.waitsFor() + " about " + unit,
                            "Handed in to " + place + "; it takes " + rules.leadDays() + " days.");
        }
        return s.registration()
                .endsAt()
                .flatMap(end -> reminder(
                        s,
                        What.RENEW,
                        s.registration()
                                .enteredAt()
                                .map(e -> rules.lifetime()
                                        .map(l -> l.warnFrom(e, end))
                                        .orElse(end))
                                .orElse(end),
                        "Renew " + unit + " in " + place,
                        "It ends on " + words(end, clock)
                                + rules.lifetime()
                                        .flatMap(l -> l.clockChange(
                                                s.registration().enteredAt().orElse(now), zone))
                                        .map(c -> ". " + c)
                                        .orElse(".")));
    }

    /** Returns an end as people say it; midnight is the end of the day before. */
    public static String words(Instant end, SiteClock clock) {
        boolean midnight = end.atZone(clock.zone()).toLocalTime().equals(LocalTime.MIDNIGHT);
        return clock.moment(midnight ? end.minus(Duration.ofMinutes(1)) : end);
    }

    private static Optional<Reminder> reminder(Subject s, What what, Instant at, String title, String detail) {
        return Optional.of(new Reminder(
                what.name().toLowerCase(Locale.ROOT) + "-" + s.registration().id(),
                what,
                at,
                s.registry().id(),
                s.registration().id(),
                s.unit().id(),
                s.unit().name(),
                title,
                detail));
    }

    /** Nobody wants to read the same of so many units one by one. */
    private static final int SINGLE_AT_MOST = 12;

    /** How many of them are named. */
    private static final int NAMED = 3;

    private record Same(What what, long registry, LocalDate day) {}

    /**
     * Returns the same list with one line for what is to be done alike, on the same day and in the same registry, of more than
     * a dozen units.
     *
     * @param cut registries of which there may be more than are in the list
     */
    public static List<Reminder> bundled(
            List<Reminder> all, Map<Long, Registry> registries, Set<Long> cut, ZoneId zone) {
        var groups = all.stream()
                .collect(Collectors.groupingBy(
                        r -> new Same(
                                r.what(), r.registry(), r.at().atZone(zone).toLocalDate()),
                        LinkedHashMap::new,
                        Collectors.toList()));
        return groups.entrySet().stream()
                .flatMap(g -> g.getValue().size() > SINGLE_AT_MOST
                        ? Stream.of(bundle(
                                g.getKey(),
                                g.getValue(),
                                cut.contains(g.getKey().registry()),
                                registries.get(g.getKey().registry())))
                        : g.getValue().stream())
                .sorted(Comparator.comparing(Reminder::at))
                .toList();
    }

    private static Reminder bundle(Same same, List<Reminder> all, boolean cut, Registry registry) {
        String place = registry.name(), units = cut ? "many units" : all.size() + " units";
        String title = switch (same.what()) {
            case REGISTER_AGAIN -> "Register " + units + " again in " + place;
            case RESTART -> "Restart " + units + " that " + place + " lets in";
            case REGISTER -> "Register " + units + " in " + place;
            case CORRECT -> "Correct " + units + " in " + place;
            case RENEW -> "Renew " + units + " in " + place;
            case ASK -> "Ask " + registry.rules().waitsFor() + " about " + units;
            case LOOK -> "Look whether " + units + " stand in " + place;
        };
        String named = all.stream().limit(NAMED).map(Reminder::name).collect(Collectors.joining(", "));
        var first = all.get(0);
        return new Reminder(
                same.what().name().toLowerCase(Locale.ROOT) + "-in-" + same.registry() + "-" + same.day(),
                same.what(),
                first.at(),
                same.registry(),
                null,
                0,
                units,
                title,
                named + " and " + (cut ? "others." : all.size() - NAMED + " more."));
    }
}
