package app.knottag.core.hardware;

import app.knottag.core.log.Words;
import app.knottag.core.reading.ReadingException;

/**
 * One interface of an endpoint.
 *
 * @param standsAt where on the device or its label the MAC stands, or empty when not known
 * @param counts whether a registration must hold this one, because it is what is plugged in
 */
public record Interface(Medium medium, Mac mac, String standsAt, boolean counts) {

    /** What the interface is on the device. */
    public enum Medium {
        WIRED("wired"),
        WIRELESS("wireless"),
        ADAPTER("USB adapter"),
        WAN("WAN side"),
        LAN("LAN side"),
        BLUETOOTH("Bluetooth");

        private final String words;

        Medium(String words) {
            this.words = words;
        }

        /** Returns what people call it. */
        public String words() {
            return words;
        }
    }

    /**
     * @throws IllegalArgumentException if the MAC belongs to a group or is all zeros, or the words cannot stand on record
     */
    public Interface {
        if (mac.group() || mac.bits() == 0) throw new ReadingException("an interface has a MAC of its own, was " + mac);
        Words.problem(standsAt, false).ifPresent(p -> {
            throw new ReadingException(p);
        });
    }
}
