package app.knottag.server.visit;

import app.knottag.core.time.DateStyle;
import app.knottag.server.visit.TaskStore.TaskRow;
import app.knottag.server.web.Dates;
import app.knottag.server.web.FormReader;
import app.knottag.server.web.Problem;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/** Reads what somebody typed of a visit. Times of the day are of the day on which it begins, or of the night after it. */
final class VisitForm {

    private static final int MOST_PEOPLE = 12;
    private static final int MOST_UNITS = 60;
    private static final int MOST_PLACES = 60;
    private static final int MOST_SKILLS = 10;
    private static final int MOST_TOOLS = 20;
    private static final int MOST_TASKS = 30;
    private static final int LONGEST_DAYS = 3;

    record VisitPersonRequest(
            @NotNull String name,
            @Nullable List<String> skills,
            @Nullable String from,
            @Nullable String until) {}

    record VisitPlaceRequest(
            @NotNull String place,
            @NotNull String from,
            @NotNull String until) {}

    record VisitUnitRequest(long endpointId, boolean bench, boolean first) {}

    record VisitToolRequest(
            @NotNull String tool, int count, @NotNull String kind) {}

    /**
     * @param id which task it was before, or null for another one
     * @param stage those of a lower one come before it; it waits for nothing when none is given
     */
    record VisitTaskRequest(
            @Nullable Long id,
            @NotNull String title,
            @Nullable String place,
            int minutes,
            @Nullable String skill,
            @Nullable Integer stage) {}

    /** What is free on the bench; enough of what is not said. */
    record VisitBenchRequest(
            @Nullable Integer outlets, @Nullable Integer ports) {}

    record VisitPlanRequest(
            @NotNull String name,
            @NotNull String begins,
            @Nullable String due,
            @NotNull List<@Valid VisitPersonRequest> people,
            @NotNull List<@Valid VisitUnitRequest> units,
            @Nullable List<@Valid VisitPlaceRequest> places,
            @Nullable List<@Valid VisitToolRequest> tools,
            @Nullable List<@Valid VisitTaskRequest> tasks,
            @Valid @Nullable VisitBenchRequest bench,
            @Nullable Double megabits,
            int walk,
            @Nullable Integer travel) {}

    /** What was asked for, read. */
    record Asked(
            String name,
            Instant begins,
            Optional<Instant> due,
            VisitBrief brief,
            List<VisitUnitRequest> units,
            List<TaskRow> tasks) {}

    private final ZoneId zone;
    private final DateStyle style;
    private final LocalDateTime begins;

    private VisitForm(ZoneId zone, DateStyle style, String begins) {
        this.zone = zone;
        this.style = style;
        this.begins = Dates.moment("begins", begins, style);
    }

    static Asked read(VisitPlanRequest b, ZoneId zone, DateStyle style) {
        String name = FormReader.words("name", b.name(), true);
        if (name.length() > 120) throw Problem.field("name", "too-long", "At most 120 characters.");
        return new VisitForm(zone, style, b.begins()).read(name, b);
    }

    private Asked read(String name, VisitPlanRequest b) {
        var start = instant("begins", begins);
        Optional<Instant> due = Optional.ofNullable(b.due())
                .filter(d -> !d.isBlank())
                .map(d -> instant("due", Dates.moment("due", d, style)));
        if (due.isPresent() && !due.get().isAfter(start))
            throw Problem.field("due", "out-of-range", "It must be done after it begins.");
        if (due.isPresent() && due.get().isAfter(start.plus(Duration.ofDays(LONGEST_DAYS))))
            throw Problem.field(
                    "due",
                    "out-of-range",
                    "A visit takes at most " + LONGEST_DAYS + " days. Plan the rest as another one.");
        var bench = Optional.ofNullable(b.bench()).orElse(new VisitBenchRequest(null, null));
        range("bench/outlets", bench.outlets(), 0, 1_000);
        range("bench/ports", bench.ports(), 0, 1_000);
        range("walk", b.walk(), 0, 60);
        range("travel", b.travel(), 0, 600);
        var tasks = tasks(Optional.ofNullable(b.tasks()).orElse(List.of()));
        if (tasks.isEmpty() && b.units().isEmpty())
            throw Problem.field("units", "nothing", "Nothing is to be done. Choose at least one endpoint.");
        double megabits = Optional.ofNullable(b.megabits()).orElse(0.0);
        if (!(megabits >= 0 && megabits <= 100_000))
            throw Problem.field("megabits", "out-of-range", "The line has 0 to 100000 Mbit/s.");
        return new Asked(
                name,
                start,
                due,
                new VisitBrief(
                        people(b.people()),
                        places(Optional.ofNullable(b.places()).orElse(List.of())),
                        tools(Optional.ofNullable(b.tools()).orElse(List.of())),
                        bench.outlets(),
                        bench.ports(),
                        megabits,
                        b.walk(),
                        Optional.ofNullable(b.travel()).orElse(0)),
                units(b.units()),
                tasks);
    }

    private static void range(String field, @Nullable Integer value, int least, int most) {
        if (Optional.ofNullable(value).filter(v -> v < least || v > most).isPresent())
            throw Problem.field(field, "out-of-range", "Between " + least + " and " + most + ".");
    }

    private List<VisitBrief.Person> people(List<VisitPersonRequest> typed) {
        if (typed.isEmpty()) throw Problem.field("people", "nobody", "Nobody comes. Add at least one person.");
        if (typed.size() > MOST_PEOPLE)
            throw Problem.field("people", "too-many", "At most " + MOST_PEOPLE + " people.");
        var names = new HashSet<String>();
        var people = new ArrayList<VisitBrief.Person>();
        for (var p : typed) {
            String at = "people/" + people.size();
            String name = FormReader.words(at + "/name", p.name(), true);
            if (!names.add(name.toLowerCase(Locale.ROOT)))
                throw Problem.field(at + "/name", "name-taken", name + " comes already.");
            var skills = new ArrayList<String>();
            var also = Optional.ofNullable(p.skills()).orElse(List.of());
            if (also.size() > MOST_SKILLS)
                throw Problem.field(at + "/skills", "too-many", "At most " + MOST_SKILLS + " things besides.");
            for (String skill : also) skills.add(FormReader.words(at + "/skills", skill, true));
            Instant from = time(at + "/from", p.from(), begins);
            Instant until = time(at + "/until", p.until(), from == null ? begins : LocalDateTime.ofInstant(from, zone));
            people.add(new VisitBrief.Person(name, skills, from, until, VisitBrief.Whereabouts.UNKNOWN));
        }
        return people;
    }

    private List<VisitBrief.PlaceHours> places(List<VisitPlaceRequest> typed) {
        var places = new ArrayList<VisitBrief.PlaceHours>();
        if (typed.size() > MOST_PLACES)
            throw Problem.field("places", "too-many", "At most " + MOST_PLACES + " hours of places.");
        for (var p : typed) {
            String at = "places/" + places.size();
            var from = next(
                    Dates.time(at + "/from", p.from(), style),
                    begins.toLocalDate().atStartOfDay());
            var until = next(Dates.time(at + "/until", p.until(), style), from);
            places.add(new VisitBrief.PlaceHours(
                    FormReader.words(at + "/place", p.place(), true),
                    instant(at + "/from", from),
                    instant(at + "/until", until)));
        }
        return places;
    }

    private static List<VisitBrief.FewTools> tools(List<VisitToolRequest> typed) {
        if (typed.size() > MOST_TOOLS) throw Problem.field("tools", "too-many", "At most " + MOST_TOOLS + " tools.");
        var kinds = new HashSet<String>();
        var tools = new ArrayList<VisitBrief.FewTools>();
        for (var t : typed) {
            String at = "tools/" + tools.size();
            range(at + "/count", t.count(), 1, 100);
            if (!kinds.add(t.kind()))
                throw Problem.field(at + "/kind", "twice", "Name one tool for each kind of device: the shortest one.");
            tools.add(new VisitBrief.FewTools(FormReader.words(at + "/tool", t.tool(), true), t.count(), t.kind()));
        }
        return tools;
    }

    private static List<TaskRow> tasks(List<VisitTaskRequest> typed) {
        if (typed.size() > MOST_TASKS) throw Problem.field("tasks", "too-many", "At most " + MOST_TASKS + " tasks.");
        var tasks = new ArrayList<TaskRow>();
        for (var t : typed) {
            String at = "tasks/" + tasks.size();
            range(at + "/minutes", t.minutes(), 1, 240);
            range(at + "/stage", t.stage(), 0, MOST_TASKS);
            tasks.add(new TaskRow(
                    Optional.ofNullable(t.id()).orElse(0L),
                    FormReader.words(at + "/title", t.title(), true),
                    FormReader.words(at + "/place", t.place(), false),
                    t.minutes(),
                    FormReader.words(at + "/skill", t.skill(), false),
                    Optional.ofNullable(t.stage()).orElse(0),
                    false));
        }
        return tasks;
    }

    private static List<VisitUnitRequest> units(List<VisitUnitRequest> typed) {
        if (typed.size() > MOST_UNITS)
            throw Problem.field("units", "too-many", "At most " + MOST_UNITS + " endpoints on one visit.");
        var seen = new HashSet<Long>();
        for (var u : typed)
            if (!seen.add(u.endpointId())) throw Problem.field("units", "twice", "One endpoint is chosen twice.");
        return typed;
    }

    private @Nullable Instant time(String field, @Nullable String text, LocalDateTime after) {
        return text == null || text.isBlank() ? null : instant(field, next(Dates.time(field, text, style), after));
    }

    /** The next such time of day, at or after a moment. */
    private static LocalDateTime next(LocalTime time, LocalDateTime after) {
        var same = after.toLocalDate().atTime(time);
        return same.isBefore(after) ? same.plusDays(1) : same;
    }

    /** Of the hour that comes twice the first is meant; the one that the clocks leave out is none. */
    private Instant instant(String field, LocalDateTime local) {
        if (zone.getRules().getValidOffsets(local).isEmpty())
            throw Problem.field(
                    field,
                    "no-such-time",
                    "The clocks go forward in that night, and that time is left out. Take an earlier or a later one.");
        return local.atZone(zone).toInstant();
    }
}
