package app.knottag.core.handover;

/** What is printed on labels. */
public enum LabelType {
    /** The tag that hangs on an endpoint. */
    TAG("Tags for the devices"),
    /** Two flags for each lead, one for either end, folded round the cable. */
    CABLE_FLAG("Flags for both ends of the leads"),
    /** One small label for each port of a switch or router. */
    PORT("Port strips"),
    /** A card for each place with what stands there. */
    PLACE("Place cards");

    private final String words;

    LabelType(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }
}
