package app.knottag.core.reach;

import java.util.List;

/**
 * One way to look at an endpoint that does not reach its service, with everything that may be seen. The first outcome is
 * the one that is hoped for.
 */
public enum Look {
    VANTAGE(By.MACHINE, 0.05, "Where this machine stands", "own", "elsewhere"),
    GATEWAY(By.MACHINE, 0.05, "The gateway answers", "answers", "silent"),
    NEIGHBOUR(By.MACHINE, 0.05, "Who answers for the address", "right", "other", "sibling", "two", "nobody"),
    PING(By.MACHINE, 0.05, "The address answers", "answers", "silent"),
    PORT(By.MACHINE, 0.05, "Its service port", "open", "refused", "silent"),
    SERIAL(By.MACHINE, 0.05, "The service gives its serial", "right", "other", "strange", "none"),
    LEASES(By.MACHINE, 0.1, "Its MAC among the leases", "absent", "leased"),
    RESOLVER(By.MACHINE, 0.1, "The resolver answers", "answers", "silent"),
    PARTNER_TEST(By.MACHINE, 0.2, "The partner reaches it", "reaches", "other", "refused", "none"),
    POWER(By.EYES, 0.3, "Is it on? Any light or screen will do.", "on", "off"),
    LINK(By.EYES, 0.3, "Is the small light at its network plug lit?", "lit", "dark"),
    CLOCK(By.EYES, 0.5, "Are its date and time right?", "right", "wrong"),
    ADDRESS_SHOWN(
            By.EYES,
            0.5,
            "Which address does it show?",
            "planned",
            "pool",
            "self",
            "foreign",
            "slip",
            "in-use",
            "nothing"),
    LABEL(By.EYES, 0.7, "Does the serial on its label end as on the tag?", "same", "other"),
    SOCKET(By.EYES, 1, "Which socket of the box does the cable sit in?", "lan", "wan"),
    PULL(By.EYES, 1, "Pull its network plug. Does the address still answer?", "silent", "answers"),
    MODEL(By.EYES, 1, "Is the model on the label the planned one, to its last letter?", "same", "other"),
    OTHERS_OUTSIDE(By.EYES, 1, "Does another device here reach the internet?", "yes", "no"),
    DEVICE_TEST(By.EYES, 1, "Let it test its partner. Does that work?", "reaches", "fails"),
    PAIR_NAME(By.EYES, 1, "Does the partner show the name or number of this one?", "own", "other"),
    NAMES(By.EYES, 1.5, "Let it look up a name, or open a page by name. Found?", "found", "not-found"),
    OUTSIDE(By.EYES, 1.5, "Does it reach anything outside?", "yes", "no"),
    REGISTRY(By.EYES, 1.5, "What stands in the registry for it?", "right", "absent", "sibling", "mistyped", "ended"),
    SWITCH_LIGHT(By.EYES, 2, "Is the light of its port at the switch lit?", "lit", "dark"),
    FIELDS(
            By.EYES,
            3,
            "Read its network menu back. What differs from the sheet?",
            "nothing",
            "address",
            "mask",
            "gateway",
            "resolver",
            "no-resolver",
            "port",
            "partner",
            "automatic"),
    REAL_JOB(By.EYES, 3, "Let it do its real job once. What happens?", "done", "sign-in", "certificate", "fails"),
    TRY_AUTOMATIC(
            By.EYES,
            3,
            "Switch it to automatic for a moment and restart it. Which address does it get?",
            "pool",
            "self",
            "foreign",
            "nothing"),
    OTHER_SOCKET(By.EYES, 4, "Plug it with another lead straight into the switch. Is its light lit?", "lit", "dark"),
    OTHER_LINE(By.EYES, 4, "Let it use another line, such as a phone's. Does its job work there?", "no", "yes"),
    RESTART_PING(By.EYES, 4, "Restart it and check again. Does the address answer now?", "answers", "silent"),
    AFTER_RESTART(
            By.EYES,
            4,
            "Restart it. Which address does it show then?",
            "planned",
            "pool",
            "self",
            "foreign",
            "slip",
            "in-use",
            "nothing");

    /** Who can look. */
    public enum By {
        MACHINE,
        EYES
    }

    private final By by;
    private final double minutes;
    private final String words;
    private final List<String> outcomes;

    Look(By by, double minutes, String words, String... outcomes) {
        this.by = by;
        this.minutes = minutes;
        this.words = words;
        this.outcomes = List.of(outcomes);
    }

    public By by() {
        return by;
    }

    /** Returns the minutes it usually costs. */
    public double minutes() {
        return minutes;
    }

    /** Returns what is looked at or asked, so that somebody on the phone can do it. */
    public String words() {
        return words;
    }

    /** Returns what may be seen, what is hoped for first. */
    public List<String> outcomes() {
        return outcomes;
    }
}
