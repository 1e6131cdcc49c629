package app.knottag.core.reach;

import java.util.List;

/**
 * One way to look at an endpoint that does not reach its service, with everything that may be seen. The first outcome is
 * the one that is hoped for.
 */
public enum Look {
    VANTAGE(By.MACHINE, 0.05, "Where this machine stands", "own", "elsewhere", "no-network"),
    GATEWAY(By.MACHINE, 0.05, "The gateway answers", "answers", "silent"),
    NEIGHBOUR(By.MACHINE, 0.05, "Who answers for the address", "right", "other", "sibling", "two", "nobody"),
    PING(By.MACHINE, 0.05, "The address answers", "answers", "lossy", "silent", "unreachable"),
    PORT(By.MACHINE, 0.05, "Its service port", "open", "refused", "silent", "unreachable"),
    SERIAL(By.MACHINE, 0.05, "The service gives its serial", "right", "other", "strange", "barred", "none"),
    LEASES(By.MACHINE, 0.1, "Its MAC at another address here", "absent", "leased", "elsewhere"),
    RESOLVER(By.MACHINE, 0.1, "The resolver answers", "answers", "empty", "silent"),
    FAR(By.MACHINE, 0.1, "The service it calls answers here", "answers", "certificate", "no-name", "refused", "silent"),
    PARTNER_TEST(By.MACHINE, 0.2, "The partner reaches it", "reaches", "other", "refused", "none"),
    POWER(By.EYES, 0.3, "Is it on? Any light or screen will do.", "on", "off", "restarts"),
    LINK(By.EYES, 0.3, "Is the small light at its network plug lit?", "lit", "dark"),
    SCREEN(By.EYES, 0.3, "Does it react when somebody uses it?", "reacts", "asleep", "frozen", "full"),
    CLOCK(By.EYES, 0.5, "Are its date and time right?", "right", "hour", "wrong"),
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
    OTHERS_HERE(
            By.EYES, 0.7, "Do the other devices beside it work?", "yes", "no-power", "none-on-switch", "none-at-all"),
    LABEL(By.EYES, 0.7, "Does the serial on its label end as on the tag?", "same", "other"),
    SOCKET(By.EYES, 1, "Which socket of the box does the cable sit in?", "lan", "wan"),
    PLUGS(By.EYES, 0.7, "Press both plugs of its lead home. Was one loose or out?", "no", "at-device", "at-wall"),
    PULL(By.EYES, 1, "Pull its network plug. Does the address still answer?", "silent", "answers"),
    MODEL(By.EYES, 1, "Is the model on the label the planned one, to its last letter?", "same", "other"),
    SIGNAL(By.EYES, 1, "How strong is its wireless?", "good", "weak", "not-joined"),
    OTHERS_OUTSIDE(By.EYES, 1, "Does another device here reach the internet?", "yes", "no"),
    ROUTER(By.EYES, 1, "Is the router the one on the site sheet?", "same", "other"),
    DEVICE_TEST(By.EYES, 1, "Let it test its partner. Does that work?", "reaches", "fails"),
    PARTNER_FIELDS(
            By.EYES,
            2,
            "Look at the partner. Which address and port stand there for this one?",
            "right",
            "address",
            "port",
            "off"),
    PAIR_NAME(By.EYES, 1, "Does the partner show the name or number of this one?", "own", "other"),
    NAMES(By.EYES, 1.5, "Let it look up a name, or open a page by name. Found?", "found", "slowly", "not-found"),
    OUTSIDE(By.EYES, 1.5, "Does it reach anything outside?", "yes", "no"),
    REGISTRY(By.EYES, 1.5, "What stands in the registry for it?", "right", "absent", "sibling", "mistyped", "ended"),
    BROWSE(By.EYES, 1.5, "Open any page on a laptop at its network. What comes?", "page", "portal", "proxy", "nothing"),
    LARGE(By.EYES, 2, "Send large echoes to the outside (1472 bytes, not split). Do they come back?", "pass", "stop"),
    SUPPLY(
            By.EYES,
            2,
            "Is its power unit the one that belongs to it, with the volts and amperes on its label?",
            "right",
            "other"),
    POOL(By.EYES, 2, "Look at the router's list of leases. Is there room?", "room", "full", "off"),
    SWITCH_LIGHT(By.EYES, 2, "Is the light of its port at the switch lit?", "lit", "dark"),
    PORT_PAGE(
            By.EYES,
            2,
            "What does the page of the switch say of its port?",
            "fine",
            "off",
            "locked",
            "tagged",
            "other-network",
            "errors",
            "loop",
            "no-power"),
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
    RULES(
            By.EYES,
            3,
            "Look at the rules of the firewall between here and there. Do they let it through?",
            "through",
            "segments",
            "outside"),
    TRY_AUTOMATIC(
            By.EYES,
            3,
            "Switch it to automatic for a moment and restart it. Which address does it get?",
            "pool",
            "self",
            "foreign",
            "nothing"),
    LAPTOP_LEASE(
            By.EYES,
            3,
            "Plug a laptop on automatic in at its socket. Which address does it get?",
            "pool",
            "self",
            "foreign",
            "dark"),
    NAME_GIVES(
            By.EYES,
            2,
            "Look up the name of the service. Does it give the address that the service has now?",
            "now",
            "old"),
    PARTNER_ANEW(By.EYES, 4, "Restart the partner. Does it reach it now?", "reaches", "still-not"),
    SERVICE_WORD(By.EYES, 4, "Ask the service. What does it say?", "all-fine", "down", "account", "contract"),
    OTHER_LEAD(By.EYES, 3, "Take another lead. Is all well then?", "no", "yes"),
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

    /** Whether it is about the endpoint and what it needs, and not only about where a cause would sit. */
    boolean ofEndpoint() {
        return switch (this) {
            case POOL,
                    LAPTOP_LEASE,
                    TRY_AUTOMATIC,
                    RULES,
                    ROUTER,
                    NAME_GIVES,
                    SERVICE_WORD,
                    BROWSE,
                    LARGE,
                    OTHERS_HERE,
                    OTHERS_OUTSIDE,
                    PORT_PAGE,
                    SIGNAL,
                    SUPPLY -> false;
            default -> true;
        };
    }
}
