package app.knottag.core.hardware;

import app.knottag.core.reading.ReadingException;
import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonValue;
import java.util.Collections;
import java.util.regex.Pattern;
import java.util.stream.IntStream;
import java.util.stream.LongStream;
import java.util.stream.Stream;

/** A 48-bit MAC (IEEE 802); printed as six pairs of capital hexadecimal digits with colons. */
public record Mac(long bits) implements Comparable<Mac> {

    private static final long LOW_24 = 0xFF_FFFFL;
    private static final String DIGITS = "0123456789ABCDEF";
    private static final Pattern FORM = Pattern.compile(String.join(":", Collections.nCopies(6, "[0-9A-Fa-f]{2}")));

    public Mac {
        if (bits < 0 || bits > 0xFFFF_FFFF_FFFFL)
            throw new ReadingException("a MAC has 48 bits, was " + Long.toHexString(bits));
    }

    /**
     * Reads six pairs of hexadecimal digits with colons, either case; use {@link MacReader} for typed text.
     *
     * @throws IllegalArgumentException if the text has another form
     */
    @JsonCreator
    public static Mac parse(String text) {
        if (!FORM.matcher(text).matches())
            throw new ReadingException("not a MAC: \"" + text + "\" (needs six pairs with colons)");
        return new Mac(Long.parseLong(text.replace(":", ""), 16));
    }

    /** Whether the I/G bit is set: an address of a group, never of one device. */
    public boolean group() {
        return (bits >>> 40 & 1) == 1;
    }

    /** Whether the U/L bit is set: made up locally, often private and changing, not given by a maker. */
    public boolean locallyAdministered() {
        return (bits >>> 40 & 2) == 2;
    }

    /** Returns how many of the twelve hexadecimal digits differ, 0..12. */
    public int digitsApart(Mac other) {
        int apart = 0;
        for (long x = bits ^ other.bits; x != 0; x >>>= 4) if ((x & 0xF) != 0) apart++;
        return apart;
    }

    /** Returns every MAC that differs from this in one of its twelve figures: 180 of them. */
    public Stream<Mac> oneDigitAway() {
        return IntStream.range(0, 12)
                .boxed()
                .flatMap(at -> LongStream.range(1, 16).mapToObj(by -> new Mac(bits ^ by << 4 * at)));
    }

    /** Whether both have the same maker prefix and numbers 1 to 8 apart: two interfaces of one box, most likely. */
    public boolean neighbourOf(Mac other) {
        long distance = Math.abs((bits & LOW_24) - (other.bits & LOW_24));
        return bits >>> 24 == other.bits >>> 24 && distance >= 1 && distance <= 8;
    }

    @Override
    public int compareTo(Mac other) {
        return Long.compare(bits, other.bits);
    }

    @Override
    @JsonValue
    public String toString() {
        var text = new StringBuilder(17);
        for (int shift = 44; shift >= 0; shift -= 4) {
            text.append(DIGITS.charAt((int) (bits >>> shift & 0xF)));
            if (shift % 8 == 0 && shift > 0) text.append(':');
        }
        return text.toString();
    }
}
