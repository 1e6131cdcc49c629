package app.knottag.core.reach;

import static app.knottag.core.reach.ProofBasis.Change.ADDRESS;
import static app.knottag.core.reach.ProofBasis.Change.PLACE;
import static app.knottag.core.reach.ProofBasis.Change.PORT;
import static app.knottag.core.reach.ProofBasis.Change.RESET;
import static app.knottag.core.reach.ProofBasis.Change.SERVICE_PORT;
import static app.knottag.core.reach.ProofBasis.Change.SETTINGS;
import static app.knottag.core.reach.ProofBasis.Change.UNIT;

import java.util.EnumSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/** The checks of a confirmation in the order of the line: a higher one is not claimed before a lower one. */
public enum Check {
    LINK("Its network light is lit", Question.LINK, EnumSet.of(PLACE, PORT, UNIT)),
    ADDRESS_SHOWN("It shows its address", Question.ADDRESS_SHOWN, EnumSet.of(UNIT, ADDRESS, RESET)),
    ANSWERS("The address answers", EnumSet.of(PLACE, PORT, UNIT, ADDRESS, SETTINGS, RESET)),
    WHO_ANSWERS("Who answers there", EnumSet.of(PLACE, PORT, UNIT, ADDRESS, RESET)),
    GATEWAY("The gateway answers", EnumSet.of(PLACE, PORT, SETTINGS)),
    NAMES("The resolver knows names", EnumSet.of(PLACE, PORT, SETTINGS)),
    PORT_OPEN("Its service port is open", EnumSet.of(PLACE, PORT, UNIT, ADDRESS, SERVICE_PORT, SETTINGS, RESET)),
    SERVICE("Its service answers", EnumSet.of(PLACE, PORT, UNIT, ADDRESS, SERVICE_PORT, SETTINGS, RESET)),
    PARTNER(
            "The partner's side reaches it",
            EnumSet.of(PLACE, PORT, UNIT, ADDRESS, SERVICE_PORT, ProofBasis.Change.PARTNER, SETTINGS, RESET)),
    DEVICE_TO_PARTNER(
            "It reaches its partner",
            Question.DEVICE_TEST,
            EnumSet.of(PLACE, PORT, UNIT, ADDRESS, ProofBasis.Change.PARTNER, SETTINGS, RESET)),
    FAR_SERVICE("The service it calls answers", EnumSet.of(PLACE, PORT, SETTINGS)),
    REAL_JOB("It does its real job", Question.REAL_JOB, EnumSet.allOf(ProofBasis.Change.class)),
    AFTER_RESTART(
            "Still there after a restart",
            Question.AFTER_RESTART,
            EnumSet.of(UNIT, ADDRESS, SERVICE_PORT, SETTINGS, RESET)),
    REFUSED("It refuses what it must", List.of(Outcome.REFUSED, Outcome.LET_IN), EnumSet.of(UNIT, RESET)),
    OFFICE(
            "Seen from the office",
            List.of(Outcome.REACHED, Outcome.NOT_REACHED),
            EnumSet.allOf(ProofBasis.Change.class));

    private final String title;
    private final Question question;
    private final List<Outcome> outcomes;
    private final Set<ProofBasis.Change> loosenedBy;

    Check(String title, Question question, List<Outcome> outcomes, EnumSet<ProofBasis.Change> loosenedBy) {
        this.title = title;
        this.question = question;
        this.outcomes = outcomes;
        this.loosenedBy = loosenedBy;
    }

    Check(String title, EnumSet<ProofBasis.Change> loosenedBy) {
        this(title, null, List.of(), loosenedBy);
    }

    Check(String title, Question question, EnumSet<ProofBasis.Change> loosenedBy) {
        this(title, question, question.outcomes(), loosenedBy);
    }

    Check(String title, List<Outcome> outcomes, EnumSet<ProofBasis.Change> loosenedBy) {
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

    /** Whether it fails as well when the device or its partner is only switched off, as for the night. */
    public boolean failsWhenOff() {
        return this == ANSWERS || this == PARTNER || this == DEVICE_TO_PARTNER;
    }

    /** Returns the look of the diagnosis that it is, if it is one. */
    public Optional<Question> question() {
        return Optional.ofNullable(question);
    }

    /** Returns what somebody may see, what is hoped for first; empty when a machine makes it. */
    public List<Outcome> outcomes() {
        return outcomes;
    }

    /** Returns the changes after which its proof no longer holds. */
    public Set<ProofBasis.Change> loosenedBy() {
        return loosenedBy;
    }
}
