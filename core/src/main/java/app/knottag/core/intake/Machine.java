package app.knottag.core.intake;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.hardware.Mac;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** Addresses and MACs as machines print them: strict forms, unlike what people type. */
final class Machine {

    /** An IPv4 address; whether its groups are in range is told by {@link #address}. */
    static final String A = "(?<![0-9.])[0-9]{1,3}(?:\\.[0-9]{1,3}){3}(?!\\.?[0-9])";

    /** A MAC in pairs (one or two digits each, as three systems print them), fours or sixes. */
    static final String M = "(?<![0-9A-Fa-f:.-])(?:(?:[0-9A-Fa-f]{1,2}[:-]){5}[0-9A-Fa-f]{1,2}"
            + "|(?:[0-9A-Fa-f]{2}\\.){5}[0-9A-Fa-f]{2}"
            + "|(?:[0-9A-Fa-f]{4}[.:-]){2}[0-9A-Fa-f]{4}"
            + "|[0-9A-Fa-f]{6}[-:][0-9A-Fa-f]{6}|[0-9A-Fa-f]{12})(?![0-9A-Fa-f:-])";

    static final Pattern ADDRESS = Pattern.compile(A);
    static final Pattern MAC = Pattern.compile(M);
    static final Pattern IPV6 =
            Pattern.compile("(?i)(?<![0-9a-f:.])(?:[0-9a-f]{1,4}:){2,7}(?::|[0-9a-f]{1,4})(?::?[0-9a-f]{0,4}){0,"
                    + "6}(?:%\\w+)?(?![0-9a-f:])|(?<![0-9a-f:])[0-9a-f]{1,4}::(?:[0-9a-f]{1,4}(?::[0-9a-f]{1,4}){0,"
                    + "6})?(?:%\\w+)?|(?<![0-9a-f:])::(?:[0-9a-f]{1,4}(?::[0-9a-f]{1,4}){0,6})");

    private Machine() {}

    /** Returns the address, or empty when a group is over 255 or has a zero in front. */
    static Optional<Ipv4Address> address(String text) {
        return Ipv4Address.read(text);
    }

    /** Returns the MAC of a text that {@link #M} matches; pairs may lack their leading zero. */
    static Mac mac(String text) {
        String[] groups = text.split("[:.-]");
        long bits = 0;
        for (String group : groups) {
            int digits = 12 / groups.length;
            bits = bits << 4 * digits | Long.parseLong(group, 16);
        }
        return new Mac(bits);
    }

    /** Whether a MAC is that of one device. */
    static boolean ofOne(Mac mac) {
        return !mac.group() && mac.bits() != 0;
    }

    /** Returns a named group, or empty when the pattern has none or it matched nothing. */
    static String group(Matcher m, String name) {
        try {
            return Optional.ofNullable(m.group(name)).orElse("");
        } catch (IllegalArgumentException e) {
            return "";
        }
    }
}
