package app.knottag.core.reach;

/** The checks that a machine can make, in the order of the line: a higher one is not claimed before a lower one. */
public enum Check {
    ANSWERS("The address answers"),
    WHO_ANSWERS("Who answers there"),
    PORT_OPEN("Its service port is open"),
    SERVICE("The service gives its serial"),
    PARTNER("The partner's side reaches it");

    private final String title;

    Check(String title) {
        this.title = title;
    }

    /** Returns what is proved when it holds, in plain words. */
    public String title() {
        return title;
    }
}
