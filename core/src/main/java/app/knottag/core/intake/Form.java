package app.knottag.core.intake;

/** What kind of text was recognised, in words that people use of it. */
public enum Form {
    HOSTS("hosts lines"),
    ETHERS("MACs with names"),
    NEIGHBOURS("a neighbour table"),
    LEASES("a lease list"),
    SWITCH("the MAC table of a switch"),
    ECHO("an echo"),
    ARP_ECHO("an echo by MAC"),
    PORT_TEST("a test of a port"),
    SCAN("a scan"),
    MAIL("the word of a mail server"),
    UNKNOWN("nothing that is known here");

    private final String words;

    Form(String words) {
        this.words = words;
    }

    /** Returns the form as people call it. */
    public String words() {
        return words;
    }
}
