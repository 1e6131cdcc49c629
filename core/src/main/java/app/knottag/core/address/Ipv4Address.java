package app.knottag.core.address;

import app.knottag.core.reading.ReadingException;
import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonValue;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.regex.Pattern;

/** An IPv4 address (RFC 791); printed as four decimal groups without leading zeros. */
public record Ipv4Address(int bits) implements Comparable<Ipv4Address> {

    private static final Pattern GROUP = Pattern.compile("0|[1-9][0-9]{0,2}");

    /**
     * Reads exactly what {@link #toString} prints, nothing else; use {@link AddressReader} for typed text.
     *
     * @throws IllegalArgumentException if the text is not four groups 0..255 without leading zeros
     */
    @JsonCreator
    public static Ipv4Address parse(String text) {
        String[] groups = text.split("\\.", -1);
        if (groups.length != 4) throw refused(text, "needs four groups, has " + groups.length);
        int bits = 0;
        for (String group : groups) bits = bits << 8 | group(group).orElseThrow(() -> refused(text, group));
        return new Ipv4Address(bits);
    }

    private static OptionalInt group(String text) {
        if (!GROUP.matcher(text).matches()) return OptionalInt.empty();
        int value = Integer.parseInt(text);
        return value > 255 ? OptionalInt.empty() : OptionalInt.of(value);
    }

    private static ReadingException refused(String text, String why) {
        return new ReadingException("not an IPv4 address: \"" + text + "\" (" + why + ")");
    }

    /** Returns the address with this number, 0..4_294_967_295. */
    public static Ipv4Address ofNumber(long number) {
        if (number < 0 || number > 0xFFFF_FFFFL) throw new ReadingException("not an address: " + number);
        return new Ipv4Address((int) number);
    }

    /** Returns the address as a number, 0..4_294_967_295, so that addresses can be counted and compared. */
    public long number() {
        return Integer.toUnsignedLong(bits);
    }

    /** Returns a group's value, 0..255; groups are counted from 0, left to right. */
    public int group(int index) {
        return bits >>> (24 - 8 * index) & 0xFF;
    }

    /**
     * Returns the address so many further up, or down when negative.
     *
     * @throws IllegalArgumentException if that leaves 0.0.0.0 to 255.255.255.255
     */
    public Ipv4Address plus(long count) {
        return ofNumber(number() + count);
    }

    @Override
    public int compareTo(Ipv4Address other) {
        return Integer.compareUnsigned(bits, other.bits);
    }

    @Override
    @JsonValue
    public String toString() {
        return group(0) + "." + group(1) + "." + group(2) + "." + group(3);
    }

    /** Reads an address in its plain form; empty when the text is none. */
    public static Optional<Ipv4Address> read(String text) {
        try {
            return Optional.of(parse(text));
        } catch (IllegalArgumentException e) {
            return Optional.empty();
        }
    }
}
