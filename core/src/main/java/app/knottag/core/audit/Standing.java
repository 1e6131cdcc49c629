package app.knottag.core.audit;

/** How a device stands against the record, what costs most first. */
public enum Standing {
    /** Two answer for its address: neither works for long. */
    DUPLICATE("two have its address"),
    /** At an address that is handed out, though another is planned: reset, or never saved. */
    AUTOMATIC("back on automatic"),
    MOVED("at another address"),
    /** Its box is seen by another MAC than the one that counts. */
    OTHER_INTERFACE("on another interface"),
    SILENT("silent"),
    /** Nobody knows it. */
    STRANGER("a stranger"),
    /** Nobody knows it; it has a handed-out address, as guests do. */
    GUEST("a guest on a lease"),
    /** Somebody said what it is, and that it is none of ours. */
    KNOWN("known, none of ours"),
    /** Nobody has looked since it was planned. */
    UNSEEN("not looked for yet"),
    AS_RECORDED("as on record");

    private final String words;

    Standing(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }

    /** Whether somebody must settle it. */
    public boolean drifted() {
        return compareTo(GUEST) < 0;
    }
}
