package app.knottag.core.address;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.regex.Pattern;

/**
 * An IPv6 address (RFC 4291), as the two halves of its 128 bits; printed in the one form of RFC 5952.
 *
 * @param high the first 64 bits
 * @param low the last 64 bits
 */
public record Ipv6Address(long high, long low) implements Comparable<Ipv6Address> {

    private static final int GROUPS = 8;
    private static final Pattern GROUP = Pattern.compile("[0-9A-Fa-f]{1,4}");
    private static final Pattern DOTTED =
            Pattern.compile("(0|[1-9][0-9]{0,2})\\.(0|[1-9][0-9]{0,2})\\.(0|[1-9][0-9]{0,2})\\.(0|[1-9][0-9]{0,2})");

    /** Reads the forms of RFC 4291, section 2.2, without a zone and without a length; empty when it is none. */
    public static Optional<Ipv6Address> read(String text) {
        int gap = text.indexOf("::");
        var before = groups(gap < 0 ? text : text.substring(0, gap), gap < 0);
        var after = gap < 0 ? Optional.of(List.<Integer>of()) : groups(text.substring(gap + 2), true);
        if (before.isEmpty() || after.isEmpty()) return Optional.empty();
        int missing = GROUPS - before.get().size() - after.get().size();
        if (gap < 0 ? missing != 0 : missing < 1) return Optional.empty();
        var all = new ArrayList<>(before.get());
        for (int n = 0; n < missing; n++) all.add(0);
        all.addAll(after.get());
        return Optional.of(new Ipv6Address(half(all, 0), half(all, GROUPS / 2)));
    }

    /** The groups of a part between colons; the last four bytes may be written as those of IPv4 when it ends the address. */
    private static Optional<List<Integer>> groups(String part, boolean ends) {
        if (part.isEmpty()) return Optional.of(List.of());
        var read = new ArrayList<Integer>();
        var texts = part.split(":", -1);
        for (int n = 0; n < texts.length; n++) {
            var dotted = DOTTED.matcher(texts[n]);
            if (GROUP.matcher(texts[n]).matches()) read.add(Integer.parseInt(texts[n], 16));
            else if (ends && n == texts.length - 1 && dotted.matches()) {
                for (int octet = 1; octet < 4; octet += 2) {
                    int first = Integer.parseInt(dotted.group(octet));
                    int second = Integer.parseInt(dotted.group(octet + 1));
                    if (first > 255 || second > 255) return Optional.empty();
                    read.add(first << 8 | second);
                }
            } else return Optional.empty();
        }
        return Optional.of(read);
    }

    private static long half(List<Integer> groups, int from) {
        long half = 0;
        for (int n = from; n < from + GROUPS / 2; n++) half = half << 16 | groups.get(n);
        return half;
    }

    private int group(int n) {
        return (int) ((n < 4 ? high : low) >>> 48 - n % 4 * 16) & 0xffff;
    }

    /** Whether it is ::, which stands for no address. */
    public boolean unspecified() {
        return high == 0 && low == 0;
    }

    /** Whether it is ::1, the device itself. */
    public boolean loopback() {
        return high == 0 && low == 1;
    }

    /** Whether it is in ff00::/8. */
    public boolean multicast() {
        return high >>> 56 == 0xff;
    }

    /** Whether it is in fe80::/10, good on its own link only. */
    public boolean linkLocal() {
        return high >>> 54 == 0xfe80 >>> 6;
    }

    /** Returns the first address of the prefix of this length, 0..128, that holds it. */
    public Ipv6Address network(int length) {
        return new Ipv6Address(high & mask(length), low & mask(length - 64));
    }

    private static long mask(int bits) {
        return bits <= 0 ? 0 : bits >= 64 ? -1 : -1L << 64 - bits;
    }

    @Override
    public int compareTo(Ipv6Address other) {
        int first = Long.compareUnsigned(high, other.high);
        return first != 0 ? first : Long.compareUnsigned(low, other.low);
    }

    /** RFC 5952, section 4: lower case, no zeros in front, the first longest run of two or more zero groups as “::”. */
    @Override
    public String toString() {
        int best = -1, length = 1;
        for (int n = 0; n < GROUPS; n++) {
            int end = n;
            while (end < GROUPS && group(end) == 0) end++;
            if (end - n > length) {
                best = n;
                length = end - n;
            }
        }
        var text = new StringBuilder();
        for (int n = 0; n < GROUPS; n++) {
            if (n == best) {
                text.append("::");
                n += length - 1;
                continue;
            }
            if (!text.isEmpty() && text.charAt(text.length() - 1) != ':') text.append(':');
            text.append(Integer.toHexString(group(n)));
        }
        return text.toString();
    }
}
