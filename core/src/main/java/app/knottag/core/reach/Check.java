package app.knottag.core.reach;

import static app.knottag.core.reach.Bond.Change.ADDRESS;
import static app.knottag.core.reach.Bond.Change.PLACE;
import static app.knottag.core.reach.Bond.Change.PORT;
import static app.knottag.core.reach.Bond.Change.RESET;
import static app.knottag.core.reach.Bond.Change.SERVICE_PORT;
import static app.knottag.core.reach.Bond.Change.SETTINGS;
import static app.knottag.core.reach.Bond.Change.UNIT;

import java.util.EnumSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/** The checks of a confirmation in the order of the line: a higher one is not claimed before a lower one. */
public enum Check {
    LINK("Its network light is lit", Look.LINK, EnumSet.of(PLACE, PORT, UNIT)),
    ADDRESS_SHOWN("It shows its address", Look.ADDRESS_SHOWN, EnumSet.of(UNIT, ADDRESS, RESET)),
    ANSWERS("The address answers", EnumSet.of(PLACE, PORT, UNIT, ADDRESS, SETTINGS, RESET)),
    WHO_ANSWERS("Who answers there", EnumSet.of(PLACE, PORT, UNIT, ADDRESS, RESET)),
    GATEWAY("The gateway answers", EnumSet.of(PLACE, PORT, SETTINGS)),
    NAMES("The resolver knows names", EnumSet.of(PLACE, PORT, SETTINGS)),
    PORT_OPEN("Its service port is open", EnumSet.of(PLACE, PORT, UNIT, ADDRESS, SERVICE_PORT, SETTINGS, RESET)),
    SERVICE("Its service answers", EnumSet.of(PLACE, PORT, UNIT, ADDRESS, SERVICE_PORT, SETTINGS, RESET)),
    PARTNER(
            "The partner's side reaches it",
            EnumSet.of(PLACE, PORT, UNIT, ADDRESS, SERVICE_PORT, Bond.Change.PARTNER, SETTINGS, RESET)),
    DEVICE_TO_PARTNER(
            "It reaches its partner",
            Look.DEVICE_TEST,
            EnumSet.of(PLACE, PORT, UNIT, ADDRESS, Bond.Change.PARTNER, SETTINGS, RESET)),
    FAR_SERVICE("The service it calls answers", EnumSet.of(PLACE, PORT, SETTINGS)),
    REAL_JOB("It does its real job", Look.REAL_JOB, EnumSet.allOf(Bond.Change.class)),
    AFTER_RESTART(
            "Still there after a restart",
            Look.AFTER_RESTART,
            EnumSet.of(UNIT, ADDRESS, SERVICE_PORT, SETTINGS, RESET)),
    REFUSED("It refuses what it must", List.of("refused", "let-in"), EnumSet.of(UNIT, RESET)),
    OFFICE("Seen from the office", List.of("reached", "not-reached"), EnumSet.allOf(Bond.Change.class));

    private final String title;
    private final Look look;
    private final List<String> outcomes;
    private final Set<Bond.Change> loosenedBy;

    Check(String title, Look look, List<String> outcomes, EnumSet<Bond.Change> loosenedBy) {
        this.title = title;
        this.look = look;
        this.outcomes = outcomes;
        this.loosenedBy = loosenedBy;
    }

    Check(String title, EnumSet<Bond.Change> loosenedBy) {
        this(title, null, List.of(), loosenedBy);
    }

    Check(String title, Look look, EnumSet<Bond.Change> loosenedBy) {
        this(title, look, look.outcomes(), loosenedBy);
    }

    Check(String title, List<String> outcomes, EnumSet<Bond.Change> loosenedBy) {
        this(title, null, outcomes, loosenedBy);
    }

    /** Returns what is proved when it holds, in plain words. */
    public String title() {
        return title;
    }

    /** Whether a machine makes it; all others need somebody who looks. */
    public boolean byMachine() {
        return outcomes.isEmpty();
    }

    /** Returns the look of the diagnosis that it is, if it is one. */
    public Optional<Look> look() {
        return Optional.ofNullable(look);
    }

    /** Returns what somebody may see, what is hoped for first; empty when a machine makes it. */
    public List<String> outcomes() {
        return outcomes;
    }

    /** Returns the changes after which its proof no longer holds. */
    public Set<Bond.Change> loosenedBy() {
        return loosenedBy;
    }
}
