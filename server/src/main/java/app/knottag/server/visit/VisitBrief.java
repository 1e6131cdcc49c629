package app.knottag.server.visit;

import com.fasterxml.jackson.annotation.JsonIgnore;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/**
 * What was said of a visit, as it is kept: who comes, when places are free, and what is there.
 *
 * @param outlets free outlets on the bench, or null when there are enough
 * @param ports free switch ports on the bench, or null when there are enough
 * @param megabits speed of the line in Mbit/s, 0 when nobody knows it
 * @param walk minutes from one place to another
 * @param travel minutes from one site to another
 */
record VisitBrief(
        List<Person> people,
        List<PlaceHours> places,
        List<FewTools> tools,
        @Nullable Integer outlets,
        @Nullable Integer ports,
        double megabits,
        int walk,
        int travel) {

    /**
     * Somebody who comes.
     *
     * @param skills what they may do beside what everybody may
     * @param from when they come, or null from the beginning
     * @param until when they leave, or null when they stay
     * @param at where they are by now
     */
    record Person(
            String name,
            List<String> skills,
            @Nullable Instant from,
            @Nullable Instant until,
            @JsonIgnore Whereabouts at) {
        Person {
            at = Optional.ofNullable(at).orElse(Whereabouts.UNKNOWN);
        }

        boolean gone() {
            return at.gone;
        }

        /** Minutes that they were there on a visit between its beginning and a moment. */
        int there(Instant beginning, Instant end) {
            var came = from(beginning).isAfter(beginning) ? from(beginning) : beginning;
            var left = at.left().orElse(until(end));
            return (int) Math.max(
                    0, Duration.between(came, left.isBefore(end) ? left : end).toMinutes());
        }

        Instant from(Instant beginning) {
            return Optional.ofNullable(from).orElse(beginning);
        }

        Instant until(Instant end) {
            return Optional.ofNullable(until).orElse(end);
        }

        Person at(Whereabouts where) {
            return new Person(name, skills, from, until, where);
        }
    }

    /**
     * Where somebody is while a visit runs.
     *
     * @param place where they went last, or empty
     * @param gone whether they have left before their time
     * @param since when they went there or left, the epoch when nobody knows
     */
    record Whereabouts(String place, boolean gone, Instant since) {
        static final Whereabouts UNKNOWN = new Whereabouts("", false, Instant.EPOCH);

        Whereabouts {
            since = Optional.ofNullable(since).orElse(Instant.EPOCH);
        }

        Optional<Instant> left() {
            return Optional.of(since).filter(s -> gone && s.isAfter(Instant.EPOCH));
        }
    }

    /** Returns the same with where people are by now, by their names. */
    VisitBrief with(Map<String, Whereabouts> whereabouts) {
        return new VisitBrief(
                people.stream()
                        .map(p -> p.at(whereabouts.getOrDefault(p.name(), Whereabouts.UNKNOWN)))
                        .toList(),
                places,
                tools,
                outlets,
                ports,
                megabits,
                walk,
                travel);
    }

    /** The tool that a kind of device needs and of which there are few, or empty. */
    String tool(String kind) {
        return tools.stream()
                .filter(t -> t.kind().equals(kind))
                .map(FewTools::tool)
                .findFirst()
                .orElse("");
    }

    /** How many there are of each such tool; what is named for several kinds is the same tool. */
    Map<String, Integer> counts() {
        return tools.stream().collect(Collectors.toMap(FewTools::tool, FewTools::count, Math::min));
    }

    List<String> names() {
        return people.stream().map(Person::name).toList();
    }

    /** A tool of which there are so few, for a kind of device. */
    record FewTools(String tool, int count, String kind) {}

    /** When a place is free; at other times nobody works there. */
    record PlaceHours(String place, Instant from, Instant until) {}
}
