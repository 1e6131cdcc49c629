package app.knottag.core.practice;

import app.knottag.core.address.AddressContext;
import app.knottag.core.address.AddressReader;
import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Purpose;
import app.knottag.core.hardware.Mac;
import app.knottag.core.hardware.MacReader;
import app.knottag.core.reading.Finding;
import app.knottag.core.reading.Reading;
import app.knottag.core.reading.Slip;
import java.util.List;
import java.util.Optional;
import java.util.regex.Pattern;

/** Something that hands, eyes and ears do many times a day, judged by the rules that judge it at work. */
public sealed interface HandTask {

    /** Returns what is to be done, in a sentence. */
    String ask();

    /** Judges what somebody made of it; anything may be typed. */
    Judged judge(String answer);

    /**
     * How it went.
     *
     * @param says what slipped and what it leads to, or why it is right
     */
    record Judged(boolean right, String says) {}

    private static Judged read(Reading reading, String is) {
        if (is.equals(reading.value())) return new Judged(true, "Right.");
        var slip = Optional.ofNullable(reading.slip()).map(Slip::message);
        var why =
                slip.or(() -> reading.findings().stream().map(Finding::message).findFirst());
        String says = why.orElse(reading.value() + " is something else.");
        boolean named = Pattern.compile("(?<![0-9.])" + Pattern.quote(is) + "(?!\\.?[0-9])")
                .matcher(says)
                .find();
        return new Judged(false, named ? says : says + " It was " + is + ".");
    }

    /**
     * An address that somebody reads out on the phone.
     *
     * @param said its four groups, as they are said
     */
    record TakeDown(List<String> said, Ipv4Address is) implements HandTask {
        @Override
        public String ask() {
            return "The office reads out an address. Take it down.";
        }

        @Override
        public Judged judge(String answer) {
            var context = AddressContext.NONE.expecting(is.toString());
            return read(AddressReader.read(answer, Purpose.ADDRESS, context), is.toString());
        }
    }

    /** One line of a label. */
    record LabelLine(String name, String text) {}

    /**
     * A label with two MACs on it.
     *
     * @param wired whether the one of the cable is asked for
     */
    record Label(List<LabelLine> lines, boolean wired, Mac is, Mac other) implements HandTask {
        @Override
        public String ask() {
            return wired
                    ? "It is to be registered for the cable. Which MAC do you hand in?"
                    : "It is to be registered for the wireless. Which MAC do you hand in?";
        }

        @Override
        public Judged judge(String answer) {
            var reading = MacReader.read(answer, List.of(), Optional.of(is));
            if (other.toString().equals(reading.value()))
                return new Judged(
                        false,
                        "That is the MAC of its " + (wired ? "wireless" : "wired")
                                + " side. Registered, it would get nothing on the " + (wired ? "cable" : "wireless")
                                + ". It was " + is + ".");
            return read(reading, is.toString());
        }
    }

    /** A number of a seal as the sheet has it, and as it stands on the device. */
    record Seal(String sheet, String seal) implements HandTask {
        /** The answer that both are the same; any other says that they are not. */
        public static final String SAME = "SAME";

        @Override
        public String ask() {
            return "Is it the seal that stands on the sheet?";
        }

        @Override
        public Judged judge(String answer) {
            boolean said = answer.strip().equalsIgnoreCase(SAME);
            if (sheet.equals(seal))
                return said
                        ? new Judged(true, "Right, they are the same.")
                        : new Judged(false, "They are the same, sign by sign. Read both in groups of two.");
            return new Judged(
                    !said,
                    (said ? "" : "Right. ") + apart()
                            + " Another seal may mean that somebody opened it: do not go on, ask.");
        }

        private String apart() {
            int at = 0;
            while (sheet.charAt(at) == seal.charAt(at)) at++;
            boolean swapped = at + 1 < sheet.length()
                    && sheet.charAt(at) == seal.charAt(at + 1)
                    && sheet.charAt(at + 1) == seal.charAt(at);
            String place = "Sign " + (at + 1);
            return swapped
                    ? place + " and the next are swapped: " + sheet.substring(at, at + 2) + " on the sheet, "
                            + seal.substring(at, at + 2) + " on the device."
                    : place + " is " + sheet.charAt(at) + " on the sheet and " + seal.charAt(at) + " on the device.";
        }
    }

    /** How a port of a switch looks. */
    enum Port {
        LIT("has a cable, and its light is on: somebody works there."),
        DARK("has a cable, and its light is off. Dark is not free: what hangs there may be off or asleep."),
        KEPT("is empty, and its tape says that it is kept for somebody."),
        FREE("is free: no cable, no tape.");

        private final String says;

        Port(String says) {
            this.says = says;
        }
    }

    /** The front of a switch; one port is free. */
    record FreePort(List<Port> ports) implements HandTask {
        public FreePort {
            ports = List.copyOf(ports);
        }

        @Override
        public String ask() {
            return "Another device is to be plugged in. Which port do you take?";
        }

        /** Returns the number on the port that is free, counted from 1. */
        public int free() {
            return ports.indexOf(Port.FREE) + 1;
        }

        @Override
        public Judged judge(String answer) {
            String typed = answer.strip();
            int port = typed.matches("[0-9]{1,2}") ? Integer.parseInt(typed) : 0;
            if (port < 1 || port > ports.size())
                return new Judged(
                        false, "The ports have the numbers 1 to " + ports.size() + ". It was port " + free() + ".");
            boolean right = port == free();
            return new Judged(
                    right,
                    (right ? "Right. Port " : "Port ") + port + " " + ports.get(port - 1).says
                            + (right ? "" : " It was port " + free() + "."));
        }
    }
}
