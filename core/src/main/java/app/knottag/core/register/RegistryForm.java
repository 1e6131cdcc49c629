package app.knottag.core.register;

/** In what form a list of registrations goes out and comes in. */
public enum RegistryForm {
    CSV("Table (CSV)", "csv"),
    JSON("JSON", "json"),
    HOSTS("hosts lines", "hosts"),
    ETHERS("ethers lines", "ethers"),
    ZONE_FORWARD("zone file, names to addresses", "zone"),
    ZONE_REVERSE("zone file, addresses to names", "zone"),
    HOST_BLOCKS("reservations as host { } blocks", "conf"),
    HOST_LINES("reservations as dhcp-host= lines", "conf"),
    RESERVATION_JSON("reservations as JSON", "json"),
    PLAIN("plain list to hand over", "txt");

    private final String words;
    private final String ending;

    RegistryForm(String words, String ending) {
        this.words = words;
        this.ending = ending;
    }

    /** Returns what people call it. */
    public String words() {
        return words;
    }

    /** Returns the ending of a file of this form, without a period. */
    public String ending() {
        return ending;
    }

    /** Whether a line needs an address, so that entries without one are left out. */
    public boolean needsAddress() {
        return switch (this) {
            case HOSTS, ZONE_FORWARD, ZONE_REVERSE, HOST_BLOCKS, HOST_LINES, RESERVATION_JSON -> true;
            default -> false;
        };
    }

    /** Whether it holds MACs at all. */
    public boolean holdsMac() {
        return this != HOSTS && this != ZONE_FORWARD && this != ZONE_REVERSE;
    }
}
