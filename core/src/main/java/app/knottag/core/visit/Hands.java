package app.knottag.core.visit;

import java.util.List;
import java.util.Set;

/**
 * Somebody who works at a visit.
 *
 * @param skills what they may do beside what everybody may
 * @param there when they are there
 * @param at place where they are at the beginning, or empty when that costs nothing
 */
public record Hands(String name, Set<String> skills, List<Window> there, String at) {
    public Hands {
        skills = Set.copyOf(skills);
        there = List.copyOf(there);
    }

    /** Somebody who is there all the time and may do what everybody may. */
    public static Hands of(String name) {
        return new Hands(name, Set.of(), Window.ALWAYS, "");
    }

    boolean may(Stretch stretch) {
        return stretch.skill().isEmpty() || skills.contains(stretch.skill());
    }

    /** Returns the same, there only from a minute on. */
    public Hands from(int minute) {
        return new Hands(
                name,
                skills,
                there.stream()
                        .filter(w -> w.until() > minute)
                        .map(w -> new Window(Math.max(minute, w.from()), w.until()))
                        .toList(),
                at);
    }

    /** Returns the same, who is at a place. */
    public Hands at(String place) {
        return new Hands(name, skills, there, place);
    }

    /** Returns the same, who does not come any more. */
    public Hands gone() {
        return new Hands(name, skills, List.of(), at);
    }
}
