package app.knottag.core.plan;

/** Who keeps an endpoint's address. */
public enum Method {
    FIXED("fixed on the device"),
    RESERVED("reserved by MAC at the DHCP server"),
    LEARNED("learned, then fixed on the device"),
    AUTOMATIC("automatic");

    private final String words;

    Method(String words) {
        this.words = words;
    }

    /** Returns the method as people say it. */
    public String words() {
        return words;
    }

    /** Whether the address stands in the device itself, so that a pool must not hand it out. */
    public boolean onDevice() {
        return this == FIXED || this == LEARNED;
    }

    /** The method to use, and why. */
    public record Advice(Method method, String reason) {}

    /**
     * Advises on a method. What is connected to needs an address that stays; the site's own habit is kept wherever it
     * works.
     *
     * @param reached whether anything connects to the endpoint, rather than it only calling out
     * @param canReserve whether the DHCP server can reserve by MAC
     * @param siteDefault what the segment uses unless something speaks against it
     */
    public static Advice advise(boolean reached, boolean canReserve, Method siteDefault) {
        if (siteDefault == RESERVED && !canReserve)
            return new Advice(FIXED, "The DHCP server here cannot reserve, so the device keeps its own address.");
        if (siteDefault == AUTOMATIC && reached)
            return canReserve
                    ? new Advice(RESERVED, "Something connects to it, so its address must stay: reserved by its MAC.")
                    : new Advice(FIXED, "Something connects to it, so its address must stay: fixed on the device.");
        return switch (siteDefault) {
            case AUTOMATIC -> new Advice(AUTOMATIC, "It only calls out, so any address will do.");
            case RESERVED ->
                new Advice(RESERVED, "Reserved by its MAC, as in this whole segment: it survives a factory reset.");
            case LEARNED ->
                new Advice(LEARNED, "Learned, then fixed, as in this whole segment: fewest figures to type.");
            case FIXED ->
                new Advice(
                        FIXED,
                        reached
                                ? "Fixed on the device, outside the pool: it survives another router."
                                : "Fixed on the device, as in this whole segment; automatic would do as well.");
        };
    }
}
