package app.knottag.core.register;

import app.knottag.core.register.Registry.Fact;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;

/**
 * Who holds which fact about one unit. Places rest on one another: an account holds the address that a service gave
 * out, the proof holds what was registered. After any change the graph tells which places hold the old value, and in
 * which order to mend them, so that no place is mended before one that it rests on.
 */
public final class FactGraph {

    private final List<Place> places;

    /**
     * @throws IllegalArgumentException if places rest on one another in a circle, or on one that does not exist
     */
    public FactGraph(List<Place> places) {
        this.places = ordered(places);
    }

    /** What sort of place it is. */
    public enum Sort {
        LABEL,
        REGISTRY,
        ACCOUNT,
        PARTNER,
        TAG,
        NOTES,
        PROOF
    }

    /**
     * A place that holds facts.
     *
     * @param id unique in the graph
     * @param holds what it holds; an empty text is something it should hold and does not
     * @param expects what it should hold where that differs from place to place, such as the MAC of another interface
     * @param restsOn ids of the places that must be right before this one can be
     */
    public record Place(
            String id,
            String name,
            Sort sort,
            Map<Fact, String> holds,
            Map<Fact, String> expects,
            Set<String> restsOn) {
        public Place {
            holds = Map.copyOf(holds);
            expects = Map.copyOf(expects);
            restsOn = Set.copyOf(restsOn);
        }
    }

    /**
     * One fact at one place.
     *
     * @param broken whether the place holds something else than what is true
     */
    public record FactLink(
            String place, String name, Sort sort, Fact fact, String holds, String truth, boolean broken) {}

    private static List<Place> ordered(List<Place> places) {
        var done = new LinkedHashSet<String>();
        var ordered = new ArrayList<Place>();
        while (ordered.size() < places.size()) {
            var next = places.stream()
                    .filter(p -> !done.contains(p.id()) && done.containsAll(p.restsOn()))
                    .findFirst()
                    .orElseThrow(() -> new IllegalArgumentException("these places rest on one another: "
                            + String.join(
                                    ", ",
                                    places.stream()
                                            .map(Place::id)
                                            .filter(id -> !done.contains(id))
                                            .toList())));
            done.add(next.id());
            ordered.add(next);
        }
        return ordered;
    }

    /**
     * Returns every fact at every place, in an order in which they can be mended.
     *
     * @param truth what is true of the unit; facts that are not in it are not compared
     */
    public List<FactLink> links(Map<Fact, String> truth) {
        var links = new ArrayList<FactLink>();
        var given = new EnumMap<Fact, String>(Fact.class);
        given.putAll(truth);
        for (var place : places)
            for (Fact fact : Fact.values()) {
                String holds = place.holds().get(fact), right = given.get(fact);
                if (holds == null) continue;
                // What a service gave out is true because the service says so.
                if (right == null && place.sort() == Sort.REGISTRY) given.put(fact, holds);
                right = place.expects().getOrDefault(fact, given.get(fact));
                if (right == null) continue;
                links.add(new FactLink(
                        place.id(), place.name(), place.sort(), fact, holds, right, !Objects.equals(holds, right)));
            }
        return links;
    }

    /** Returns the broken links alone: every place that holds an old value, in the order to mend them. */
    public List<FactLink> toMend(Map<Fact, String> truth) {
        return links(truth).stream().filter(FactLink::broken).toList();
    }

    /** Returns the ids of all places that rest on one of these, directly or not: what must be proved again. */
    public List<String> shaken(Set<String> mended) {
        var shaken = new LinkedHashSet<String>();
        for (var place : places)
            if (place.restsOn().stream().anyMatch(id -> mended.contains(id) || shaken.contains(id)))
                shaken.add(place.id());
        return List.copyOf(shaken);
    }
}
