package app.knottag.core.handover;

/** Whom a pack is for. */
public enum PackType {
    CLIENT("For the client"),
    TECHNICIAN("For the next technician"),
    OFFICE("For the office");

    private final String words;

    PackType(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }
}
