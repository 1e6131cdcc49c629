package app.knottag.core.practice;

import java.util.Optional;

/** How hard a case is. */
public enum Level {
    /** One cause, and everything that is seen and said is so. */
    FIRST("one cause, and what is seen is so"),
    /** One cause that takes long to tell from others, or nothing is wrong, or several devices share it. */
    SECOND("a cause that hides among others"),
    /** Two causes at once, a look that is misread, or somebody's wrong word. */
    THIRD("two at once, or something that is not as it seems");

    /** A search of so many minutes is no longer an easy one. */
    private static final double LONG_MINUTES = 2.5;

    private final String words;

    Level(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }

    /** Returns the level of a case, from what is in it and how long the best search takes. */
    public static Level of(PracticeCase c) {
        boolean seeming = !c.misread().isEmpty()
                || c.told().entrySet().stream()
                        .anyMatch(t -> !c.shows(t.getKey()).equals(Optional.of(t.getValue())));
        if (c.faults().size() > 1 || seeming) return THIRD;
        return Search.best(c).end().minutes() > LONG_MINUTES ? SECOND : FIRST;
    }
}
