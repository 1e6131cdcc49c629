package app.knottag.core.practice;

/** What there is to plan. */
public enum PlanDrill {
    LAY_OUT("Addresses beside an odd pool"),
    RENUMBER("Renumber, and cut nobody off"),
    RESTARTS("Work while others restart"),
    OUTLET("A watched outlet that never loops"),
    MORNING("A morning with counters that open");

    private final String words;

    PlanDrill(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }
}
