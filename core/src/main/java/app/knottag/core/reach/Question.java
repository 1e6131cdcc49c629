package app.knottag.core.reach;

import static app.knottag.core.reach.Outcome.*;

import java.util.List;

/**
 * One way to look at an endpoint that does not reach its service, with everything that may be seen. The first outcome is
 * the one that is hoped for.
 */
public enum Question {
    VANTAGE(By.MACHINE, 0.05, "Where this machine stands", OWN, ELSEWHERE, NO_NETWORK),
    GATEWAY(By.MACHINE, 0.05, "The gateway answers", ANSWERS, SILENT),
    NEIGHBOUR(By.MACHINE, 0.05, "Who answers for the address", RIGHT, OTHER, SIBLING, TWO, NOBODY),
    PING(By.MACHINE, 0.05, "The address answers", ANSWERS, LOSSY, SILENT, UNREACHABLE),
    PORT(By.MACHINE, 0.05, "Its service port", OPEN, REFUSED, SILENT, UNREACHABLE),
    SERIAL(By.MACHINE, 0.05, "The service gives its serial", RIGHT, OTHER, STRANGE, BARRED, NONE),
    LEASES(By.MACHINE, 0.1, "Its MAC at another address here", ABSENT, LEASED, ELSEWHERE),
    RESOLVER(By.MACHINE, 0.1, "The resolver answers", ANSWERS, EMPTY, SILENT),
    FAR(By.MACHINE, 0.1, "The service it calls answers here", ANSWERS, CERTIFICATE, NO_NAME, REFUSED, SILENT),
    PARTNER_TEST(By.MACHINE, 0.2, "The partner reaches it", REACHES, OTHER, REFUSED, NONE),
    POWER(By.EYES, 0.3, "Is it on? Any light or screen will do.", ON, OFF, RESTARTS),
    LINK(By.EYES, 0.3, "Is the small light at its network plug lit?", LIT, DARK),
    SCREEN(By.EYES, 0.3, "Does it react when somebody uses it?", REACTS, ASLEEP, FROZEN, FULL),
    CLOCK(By.EYES, 0.5, "Are its date and time right?", RIGHT, HOUR, WRONG),
    ADDRESS_SHOWN(
            By.EYES, 0.5, "Which address does it show?", PLANNED, Outcome.POOL, SELF, FOREIGN, SLIP, IN_USE, NOTHING),
    OTHERS_HERE(By.EYES, 0.7, "Do the other devices beside it work?", YES, NO_POWER, NONE_ON_SWITCH, NONE_AT_ALL),
    LABEL(By.EYES, 0.7, "Does the serial on its label end as on the tag?", SAME, OTHER),
    SOCKET(By.EYES, 1, "Which socket of the box does the cable sit in?", LAN, WAN),
    PLUGS(By.EYES, 0.7, "Press both plugs of its lead home. Was one loose or out?", NO, AT_DEVICE, AT_WALL),
    PULL(By.EYES, 1, "Pull its network plug. Does the address still answer?", SILENT, ANSWERS),
    MODEL(By.EYES, 1, "Is the model on the label the planned one, to its last letter?", SAME, OTHER),
    SIGNAL(By.EYES, 1, "How strong is its wireless?", GOOD, WEAK, NOT_JOINED),
    OTHERS_OUTSIDE(By.EYES, 1, "Does another device here reach the internet?", YES, NO),
    ROUTER(By.EYES, 1, "Is the router the one on the site sheet?", SAME, OTHER),
    DEVICE_TEST(By.EYES, 1, "Let it test its partner. Does that work?", REACHES, FAILS),
    PARTNER_FIELDS(
            By.EYES,
            2,
            "Look at the partner. Which address and port stand there for this one?",
            RIGHT,
            ADDRESS,
            Outcome.PORT,
            OFF),
    PAIR_NAME(By.EYES, 1, "Does the partner show the name or number of this one?", OWN, OTHER),
    NAMES(By.EYES, 1.5, "Let it look up a name, or open a page by name. Found?", FOUND, SLOWLY, NOT_FOUND),
    OUTSIDE(By.EYES, 1.5, "Does it reach anything outside?", YES, NO),
    REGISTRY(By.EYES, 1.5, "What stands in the registry for it?", RIGHT, ABSENT, SIBLING, MISTYPED, ENDED),
    BROWSE(By.EYES, 1.5, "Open any page on a laptop at its network. What comes?", PAGE, PORTAL, PROXY, NOTHING),
    LARGE(By.EYES, 2, "Send large echoes to the outside (1472 bytes, not split). Do they come back?", PASS, STOP),
    SUPPLY(
            By.EYES,
            2,
            "Is its power unit the one that belongs to it, with the volts and amperes on its label?",
            RIGHT,
            OTHER),
    POOL(By.EYES, 2, "Look at the router's list of leases. Is there room?", ROOM, FULL, OFF),
    SWITCH_LIGHT(By.EYES, 2, "Is the light of its port at the switch lit?", LIT, DARK),
    PORT_PAGE(
            By.EYES,
            2,
            "What does the page of the switch say of its port?",
            FINE,
            OFF,
            LOCKED,
            TAGGED,
            OTHER_NETWORK,
            ERRORS,
            LOOP,
            NO_POWER),
    FIELDS(
            By.EYES,
            3,
            "Read its network menu back. What differs from the sheet?",
            NOTHING,
            ADDRESS,
            MASK,
            Outcome.GATEWAY,
            Outcome.RESOLVER,
            NO_RESOLVER,
            Outcome.PORT,
            PARTNER,
            AUTOMATIC),
    REAL_JOB(By.EYES, 3, "Let it do its real job once. What happens?", DONE, SIGN_IN, CERTIFICATE, FAILS),
    RULES(
            By.EYES,
            3,
            "Look at the rules of the firewall between here and there. Do they let it through?",
            THROUGH,
            SEGMENTS,
            Outcome.OUTSIDE),
    TRY_AUTOMATIC(
            By.EYES,
            3,
            "Switch it to automatic for a moment and restart it. Which address does it get?",
            Outcome.POOL,
            SELF,
            FOREIGN,
            NOTHING),
    LAPTOP_LEASE(
            By.EYES,
            3,
            "Plug a laptop on automatic in at its socket. Which address does it get?",
            Outcome.POOL,
            SELF,
            FOREIGN,
            DARK),
    NAME_GIVES(
            By.EYES,
            2,
            "Look up the name of the service. Does it give the address that the service has now?",
            NOW,
            OLD),
    PARTNER_ANEW(By.EYES, 4, "Restart the partner. Does it reach it now?", REACHES, STILL_NOT),
    SERVICE_WORD(By.EYES, 4, "Ask the service. What does it say?", ALL_FINE, DOWN, ACCOUNT, CONTRACT),
    OTHER_LEAD(By.EYES, 3, "Take another lead. Is all well then?", NO, YES),
    OTHER_SOCKET(By.EYES, 4, "Plug it with another lead straight into the switch. Is its light lit?", LIT, DARK),
    OTHER_LINE(By.EYES, 4, "Let it use another line, such as a phone's. Does its job work there?", NO, YES),
    RESTART_PING(By.EYES, 4, "Restart it and check again. Does the address answer now?", ANSWERS, SILENT),
    AFTER_RESTART(
            By.EYES,
            4,
            "Restart it. Which address does it show then?",
            PLANNED,
            Outcome.POOL,
            SELF,
            FOREIGN,
            SLIP,
            IN_USE,
            NOTHING);

    /** Who can look. */
    public enum By {
        MACHINE,
        EYES
    }

    private final By by;
    private final double minutes;
    private final String words;
    private final List<Outcome> outcomes;

    Question(By by, double minutes, String words, Outcome... outcomes) {
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
    public List<Outcome> outcomes() {
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
